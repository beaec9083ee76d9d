"""The Brief as a letter: supply, enclosure, loads with what Riktig proposes, and the practice."""

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.job import (
    CHOICES,
    Earthing,
    HingeSide,
    Job,
    Load,
    add_load,
    change_load,
    read_current,
    read_power,
    remove_load,
    set_enclosure,
    set_heading,
    set_practice,
    set_supply,
)
from riktig.core.rules import ENCLOSURES
from riktig.desk.session import Session
from riktig.desk.stations.brief.fields import Answer, Pick, sentence
from riktig.desk.stations.brief.proposal import proposal
from riktig.desk.theme import words_font
from riktig.desk.widgets import Station, plain_label, replace_body

__all__ = ["BriefStation"]


class BriefStation(Station):
    """Reads as a letter with the answers in it."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._letter = QScrollArea()
        self._letter.setWidgetResizable(True)
        self._letter.setFrameShape(QFrame.Shape.NoFrame)
        self._letter.setAccessibleName("Brief")
        self._letter.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.add_body(self._letter)
        self._fields: dict[str, Answer | Pick] = {}
        self._shown: tuple[object, ...] = ()

    def refresh(self) -> None:
        """Writes the letter anew when loads come or go or sizes change, else fills it in."""
        job = self.session.job
        shape = (tuple(load.id for load in job.loads), self.theme, self.session.file)
        if shape != self._shown:
            self._shown = shape
            self._write()
        self._fill()

    def _write(self) -> None:
        self._fields = {}
        page = QWidget()
        page.setObjectName("paper")
        page.setMaximumWidth(860)
        self._page = QVBoxLayout(page)
        self._page.setContentsMargins(26, 12, 26, 20)
        self._page.setSpacing(9)
        if not self.session.job.loads:
            self._head("Start here")
            self._page.addWidget(self._new_load())
        self._head("The job")
        self._page.addWidget(self._job())
        self._head("The supply")
        self._page.addWidget(self._supply())
        self._head("What turns")
        for number, load in enumerate(self.session.job.loads, 1):
            self._page.addWidget(self._load(number, load))
        if self.session.job.loads:
            self._page.addWidget(self._new_load())
        self._head("The enclosure")
        self._page.addWidget(self._enclosure())
        self._head("Where practice differs")
        for widget in self._practice():
            self._page.addWidget(widget)
        self._page.addStretch(1)
        body = QWidget()
        body.setObjectName("paper")
        row = QVBoxLayout(body)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(page)
        replace_body(self._letter, body)

    def _head(self, text: str) -> None:
        label = plain_label(text)
        label.setFont(words_font(12, bold=True))
        label.setContentsMargins(0, 6, 0, 0)
        self._page.addWidget(label)

    def _edit(self, name: str, change: Callable[[Job], Job]) -> bool:
        return self.session.edit(name, change)

    def _answer(self, key: str, name: str, take: Callable[[str], bool], width: int) -> Answer:
        field = Answer(name, "", take, width)
        self._fields[key] = field
        return field

    def _heading(self, key: str, name: str, width: int) -> Answer:
        def take(text: str) -> bool:
            return self._edit(name, lambda job: set_heading(job, **{key: text.strip()}))

        return self._answer(key, name, take, width)

    def _number(self, key: str, name: str, change: Callable[..., Job], field: str, width: int = 64) -> Answer:
        def take(text: str) -> bool:
            try:
                value = float(text.replace(",", "."))
            except ValueError:
                self.session.say(
                    f"“{text}” is not a number, so the {name.lower()} was not changed. Type a plain number.", wrong=True
                )
                return False
            return self._edit(name, partial(change, **{field: value}))

        return self._answer(key, name, take, width)

    def _pick(self, key: str, name: str, choices: list[tuple[str, object]], change: Callable[[Job, Any], Job]) -> Pick:
        pick = Pick(name, choices, lambda value: self._chosen(name, change, value))
        self._fields[key] = pick
        return pick

    def _chosen(self, name: str, change: Callable[[Job, Any], Job], value: object) -> None:
        self._edit(name, lambda job: change(job, value))

    def _job(self) -> QWidget:
        return sentence(
            "Job number",
            self._heading("number", "Job number", 110),
            "is",
            self._heading("title", "Title", 250),
            "for",
            self._heading("client", "Client", 170),
            ". Drawing",
            self._heading("drawing_number", "Drawing number", 130),
            ", revision",
            self._heading("revision", "Revision", 50),
            "; made by",
            self._heading("maker", "Maker", 230),
            ", serial number",
            self._heading("serial", "Serial number", 110),
            ".",
        )

    def _supply(self) -> QWidget:
        change = set_supply
        neutral = self._pick(
            "neutral",
            "Neutral",
            [("and a neutral", True), ("and no neutral", False)],
            lambda job, value: set_supply(job, neutral=value),
        )
        earthing = self._pick(
            "earthing",
            "Earthing",
            [(value.value, value) for value in Earthing],
            lambda job, value: set_supply(job, earthing=value),
        )
        return sentence(
            "One supply enters: three phases",
            neutral,
            "at",
            self._number("voltage_v", "Voltage between phases", change, "voltage_v"),
            "V /",
            self._number("voltage_to_neutral_v", "Voltage to neutral", change, "voltage_to_neutral_v"),
            "V,",
            self._number("frequency_hz", "Frequency", change, "frequency_hz", 50),
            "Hz,",
            earthing,
            ". It is protected upstream at",
            self._number("upstream_a", "Protected upstream at", change, "upstream_a"),
            "A and can give",
            self._number("fault_ka", "Fault current", change, "fault_ka", 50),
            "kA at the panel.",
        )

    def _load(self, number: int, load: Load) -> QWidget:
        body = QWidget()
        layout = QVBoxLayout(body)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(5)

        def field(what: str, name: str, take: Callable[[str], Any], width: int) -> Answer:
            def change(text: str) -> bool:
                try:
                    value = take(text)
                except RiktigError as error:
                    self.session.say(str(error), wrong=True)
                    return False
                return self._edit(f"{name} of the {load.name}", lambda job: change_load(job, load.id, **{what: value}))

            return self._answer(f"{load.id}.{what}", f"{name} of the {load.name}", change, width)

        def lamp(what: str, name: str) -> Pick:
            return self._pick(
                f"{load.id}.{what}",
                f"{name} of the {load.name}",
                [(f"with a {name}", True), (f"without a {name}", False)],
                lambda job, value: change_load(job, load.id, **{what: value}),
            )

        out = QPushButton("take it out")
        out.setFlat(True)
        out.setAccessibleName(f"Take the {load.name} out")
        out.clicked.connect(lambda: self._edit(f"take out the {load.name}", lambda job: remove_load(job, load.id)))
        layout.addWidget(
            sentence(
                f"{number}. A",
                field("name", "Name", _named, 150),
                "of",
                field("kw", "Power", partial(read_power, where="power"), 64),
                "kW in the",
                field("place", "Place", str.strip, 130),
                ", nameplate current",
                field("nameplate_a", "Nameplate current", partial(read_current, where="nameplate"), 64),
                "A (empty: from the table). Started direct-on-line, by start and stop on the door,",
                lamp("run_lamp", "run lamp"),
                "and",
                lamp("trip_lamp", "trip lamp"),
                "; motor cable",
                field("cable_m", "Cable length", _metres, 56),
                "m;",
                out,
            )
        )
        card = proposal(self.session, load)
        card.setObjectName("card")
        self._cards = getattr(self, "_cards", {})
        self._cards[load.id] = (card, layout)
        layout.addWidget(card)
        return body

    def _new_load(self) -> QWidget:
        name = Answer("What turns", "", lambda text: True, 170)
        name.setPlaceholderText("wash drum")
        power = Answer("Its power in kW", "", lambda text: True, 70)
        power.setPlaceholderText("4")
        add = QPushButton("Add the motor")
        add.setObjectName("main")

        def take() -> None:
            try:
                kw = read_power(power.text(), where="power")
                what = _named(name.text())
            except RiktigError as error:
                self.session.say(str(error), wrong=True)
                return
            self._edit(f"add the {what}", lambda job: add_load(job, what, kw))

        add.clicked.connect(take)
        power.returnPressed.connect(take)
        self.new_name, self.new_power, self.new_button = name, power, add
        return sentence("Add a motor: a", name, "of", power, "kW", add)

    def _enclosure(self) -> QWidget:
        sizes = [(f"{w} × {h} × {d}", (w, h, d)) for w, h, d in ENCLOSURES]

        def resize(job: Job, size: tuple[int, int, int]) -> Job:
            width, height, depth = size
            return set_enclosure(
                job,
                width=float(width),
                height=float(height),
                depth=float(depth),
                plate_width=width - 50.0,
                plate_height=height - 50.0,
                plate_depth=depth - 30.0,
            )

        size = self._pick("size", "Enclosure size", list(sizes), resize)
        hinge = self._pick(
            "hinge",
            "Door hinge",
            [(f"on the {side.value}", side) for side in HingeSide],
            lambda job, value: set_enclosure(job, hinge=value),
        )
        return sentence(
            "A box of",
            size,
            "mm,",
            self._enclosure_text("rating", "Degree of protection", 70),
            ",",
            self._enclosure_text("material", "Material", 180),
            ", door hung",
            hinge,
            ", cables from below; the air around the conductors reaches",
            self._number("ambient_c", "Air temperature", set_enclosure, "ambient_c", 50),
            "°C.",
        )

    def _enclosure_text(self, field: str, name: str, width: int) -> Answer:
        def take(text: str) -> bool:
            return self._edit(name, lambda job: set_enclosure(job, **{field: text.strip()}))

        return self._answer(field, name, take, width)

    def _practice(self) -> list[QWidget]:
        widgets = []
        for choice in CHOICES:
            pick = self._pick(
                f"practice.{choice.field}",
                choice.question,
                [(str(value.value), value) for value in choice.values],
                partial(_set_practice, choice.field),
            )
            argument = plain_label(choice.argument, "quiet")
            widgets.append(sentence(f"{choice.question}:", pick, argument, points=10.5))
        lengths = sentence(
            "Spare room",
            self._share("spare_share", "Spare room"),
            "% of the rail; fingers have",
            self._number("finger_room", "Finger room", set_practice, "finger_room", 50),
            "mm between clamp and duct; ducts are",
            self._number("duct_width", "Duct width", set_practice, "duct_width", 50),
            "mm wide; the door loop is",
            self._number("door_loop", "Door loop", set_practice, "door_loop", 56),
            "mm and each end gets",
            self._number("end_allowance", "End allowance", set_practice, "end_allowance", 50),
            "mm more.",
            points=10.5,
        )
        return [*widgets, lengths]

    def _share(self, field: str, name: str) -> Answer:
        def take(text: str) -> bool:
            try:
                value = float(text.replace(",", ".").rstrip("% ")) / 100
            except ValueError:
                self.session.say(f"“{text}” is not a share in per cent.", wrong=True)
                return False
            return self._edit(name, lambda job: set_practice(job, **{field: value}))

        return self._answer(field, name, take, 46)

    def _fill(self) -> None:
        job = self.session.job
        values: dict[str, object] = {}
        for source in (job, job.supply, job.enclosure, job.practice):
            for key in self._fields:
                if hasattr(source, key):
                    values[key] = getattr(source, key)
        values["spare_share"] = job.practice.spare_share * 100
        box = job.enclosure
        values["size"] = (box.width, box.height, box.depth)
        for choice in CHOICES:
            values[f"practice.{choice.field}"] = getattr(job.practice, choice.field)
        for load in job.loads:
            for what in ("name", "kw", "place", "nameplate_a", "cable_m", "run_lamp", "trip_lamp"):
                values[f"{load.id}.{what}"] = getattr(load, what)
            if load.id in getattr(self, "_cards", {}):
                old, layout = self._cards[load.id]
                card = proposal(self.session, load)
                card.setObjectName("card")
                layout.replaceWidget(old, card)
                old.hide()
                old.deleteLater()
                self._cards[load.id] = (card, layout)
        for key, field in self._fields.items():
            value = values.get(key)
            if isinstance(field, Pick):
                field.show_value(value)
            elif isinstance(value, float):
                field.show_value(f"{value:g}")
            else:
                field.show_value("" if value is None else str(value))


def _set_practice(field: str, job: Job, value: object) -> Job:
    return set_practice(job, **{field: value})


def _named(text: str) -> str:
    if not text.strip():
        raise RiktigError("The load has no name.", hint="Say what turns, such as wash drum.")
    return text.strip()


def _metres(text: str) -> float:
    try:
        return float(text.replace(",", "."))
    except ValueError as error:
        raise RiktigError(f"“{text}” is not a length, so the cable was not changed.", hint="Give metres.") from error
