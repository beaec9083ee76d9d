"""The head of the letter: the job, its supply, what else arrives live, and the field devices."""

from collections.abc import Callable
from functools import partial
from typing import cast

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import (
    AddSignal,
    AddSource,
    ChangeSignal,
    ChangeSource,
    Edit,
    RemoveSignal,
    RemoveSource,
    SetHeading,
    SetMarks,
    SetSupply,
)
from riktig.core.errors import RiktigError
from riktig.core.job import (
    ChangedSignalFields,
    Direction,
    Earthing,
    Form,
    HeadingFields,
    Job,
    MarkFields,
    Signal,
    SignalFields,
    Source,
    SourceFields,
    SupplyFields,
    SupplySystem,
    UpstreamDevice,
    Wetting,
    read_quantity,
)
from riktig.desk.session import Session
from riktig.desk.stations.brief.fields import Answer, ChoiceField, say_range, sentence
from riktig.desk.stations.brief.load_part import named
from riktig.desk.stations.brief.part import BriefPart, Change
from riktig.desk.widgets import plain_label

__all__ = ["JobPart", "SignalsPart", "SourcesPart", "SupplyPart"]


CURRENTS: list[tuple[str, object]] = [("as usual", None), ("alternating", False), ("direct", True)]
"""What a supply from elsewhere may give; as usual: direct up to 60 V."""


def _heading(key: str) -> Change:
    return lambda value: SetHeading(cast(HeadingFields, {key: value}))


def _mark(key: str) -> Change:
    return lambda value: SetMarks(cast(MarkFields, {key: value}))


def _supply(key: str) -> Change:
    return lambda value: SetSupply(cast(SupplyFields, {key: value}))


class JobPart(BriefPart):
    """Whose job it is."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("The job")

        def said(key: str, name: str, width: int) -> Answer:
            return self.text(key, name, _heading(key), width)

        self.body.addWidget(
            sentence(
                "Job number",
                said("number", "Job number", 110),
                "is",
                said("title", "Title", 250),
                "for",
                said("client", "Client", 170),
                ". Drawing",
                said("drawing_number", "Drawing number", 130),
                ", revision",
                said("revision", "Revision", 50),
                "; made by",
                said("maker", "Maker", 230),
                ", serial number",
                said("serial", "Serial number", 110),
                ", made in",
                said("made", "When it is made", 90),
                ", declared by its maker to",
                said("standard", "Standard on the nameplate", 230),
                ".",
            )
        )

        def mark(key: str, name: str, width: int) -> Answer:
            return self.text(f"marks.{key}", name, _mark(key), width)

        self.body.addWidget(
            sentence(
                "Marks of approval: the empty enclosure carries",
                mark("enclosure", "Mark of the enclosure", 170),
                ", which covers the enclosure alone; the panel as a whole carries",
                mark("panel", "Mark of the panel", 230),
                "with number",
                mark("number", "Number of the panel's mark", 110),
                "of",
                mark("date", "Date of the panel's mark", 90),
                ".",
            )
        )

    def values(self, job: Job) -> dict[str, object]:
        """The heading's fields, and those of the marks."""
        marks = {f"marks.{key}": getattr(job.marks, key) for key in ("enclosure", "panel", "number", "date")}
        return marks | {key: getattr(job, key) for key in self.fields if key not in marks}


class SupplyPart(BriefPart):
    """The main supply."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("The supply")

        def number(key: str, name: str, unit: str, width: int = 58) -> Answer:
            return self.number(key, name, _supply(key), unit, width)

        neutral: list[tuple[str, object]] = [("and a neutral", True), ("and no neutral", False)]
        self.body.addWidget(
            sentence(
                "The",
                self.text("name", "Name of the supply", _supply("name"), 240),
                "comes from the",
                self.text("fed_from", "Board the supply comes from", _supply("fed_from"), 120),
                "with",
                self.pick_of("system", "What arrives", SupplySystem, _supply("system")),
                self.pick("neutral", "Neutral", neutral, _supply("neutral")),
                "at",
                number("voltage_v", "Voltage between lines", "V"),
                "V /",
                number("voltage_to_neutral_v", "Voltage to neutral", "V"),
                "V,",
                number("frequency_hz", "Frequency", "Hz", 48),
                "Hz,",
                self.pick_of("earthing", "Earthing", Earthing, _supply("earthing")),
                ". It is protected upstream at",
                number("upstream_a", "Protected upstream at", "A"),
                "A by",
                self.pick_of(
                    "upstream_device", "What protects it upstream", UpstreamDevice, _supply("upstream_device")
                ),
                "and can give",
                number("fault_ka", "Fault current", "kA", 48),
                "kA at the panel; or it follows from a transformer of",
                number("transformer_kva", "Transformer", "kVA"),
                "kVA (0: not known) with",
                number("transformer_uk", "Short-circuit voltage", "%", 48),
                "% and",
                number("feeder_m", "Cable from the transformer", "m"),
                "m of",
                number("feeder_mm2", "Section of that cable", "mm²"),
                "mm² copper a line. It feeds a further panel with",
                number("through_a", "Through-feed", "A"),
                "A (0: none).",
            )
        )
        self._doubt = plain_label("", "fails", wraps=True)
        self.body.addWidget(self._doubt)

    def values(self, job: Job) -> dict[str, object]:
        """The supply's fields."""
        return {key: getattr(job.supply, key) for key in self.fields}

    def show_doubts(self, texts: list[str]) -> None:
        """What cannot stand about the supply."""
        self._doubt.setText("\n".join(texts))
        self._doubt.setVisible(bool(texts))


class _Listed(BriefPart):
    """Things in a list, each a sentence that is written anew only when the list changes."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._shown: tuple[object, ...] = ()
        self._rows: list[QWidget] = []
        self._room = QVBoxLayout()
        self._room.setSpacing(5)

    def ids(self, job: Job) -> tuple[object, ...]:
        """What is listed, and whatever else the sentences depend on."""
        return ()

    def sentences(self, job: Job) -> list[QWidget]:
        """One sentence each."""
        return []

    def fill(self) -> None:
        """Writes the list when it changed, and shows the answers of now."""
        ids = self.ids(self.session.job)
        if ids != self._shown:
            self._shown = ids
            for row in self._rows:
                self._room.removeWidget(row)
                row.hide()
                row.deleteLater()
            plain_fields = {key: field for key, field in self.fields.items() if "." not in key}
            self.fields = plain_fields
            self._rows = self.sentences(self.session.job)
            for row in self._rows:
                self._room.addWidget(row)
        super().fill()


class SourcesPart(_Listed):
    """Other incoming supplies."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("Other incoming supplies")
        answers: list[tuple[str, object]] = [("not yet confirmed", False), ("confirmed, none other", True)]
        self.body.addWidget(
            sentence(
                "Other supplies into the panel, from another panel or another source:",
                self.pick("asked", "Further supplies asked", answers, _asked),
                ".",
            )
        )
        self._doubt = plain_label("", "judgement", wraps=True)
        self.body.addWidget(self._doubt)
        self.body.addLayout(self._room)
        self.name = Answer("Further supply", "", lambda text: True, 170)
        self.name.setPlaceholderText("fire alarm interlock")
        self.volts = Answer("Its voltage", "", lambda text: True, 54)
        say_range(self.volts, "source_v")
        self.origin = Answer("Where it comes from", "", lambda text: True, 170)
        add = QPushButton("Add the supply")
        add.clicked.connect(self.add)
        for field in (self.name, self.volts, self.origin):
            field.returnPressed.connect(self.add)
        row = sentence("Add: the", self.name, "at", self.volts, "V comes from", self.origin, ".", add, points=10.5)
        self.body.addWidget(row)

    def ids(self, job: Job) -> tuple[object, ...]:
        """The further supplies."""
        return tuple(source.id for source in job.sources)

    def values(self, job: Job) -> dict[str, object]:
        """The fields of each."""
        values: dict[str, object] = {"asked": job.sources_asked or bool(job.sources)}
        for source in job.sources:
            for key in ("name", "voltage_v", "comes_from", "direct", "protected_a"):
                values[f"{source.id}.{key}"] = getattr(source, key)
        return values

    def sentences(self, job: Job) -> list[QWidget]:
        """One sentence a supply."""
        return [self._sentence(source) for source in job.sources]

    def _sentence(self, source: Source) -> QWidget:
        def change(key: str) -> Change:
            return lambda value: ChangeSource(source.id, cast(SourceFields, {key: value}))

        name = source.name
        return sentence(
            "The",
            self.text(f"{source.id}.name", f"Name of {name}", change("name"), 200, named),
            "at",
            self.number(f"{source.id}.voltage_v", f"Voltage of {name}", change("voltage_v"), "V", 54, "source_v"),
            "V",
            self.pick(f"{source.id}.direct", f"Current of {name}", CURRENTS, change("direct")),
            "comes from",
            self.text(f"{source.id}.comes_from", f"Origin of {name}", change("comes_from"), 200),
            "behind",
            self.number(
                f"{source.id}.protected_a", f"Protection of {name}", change("protected_a"), "A", 54, "protected_a"
            ),
            "A and stays live with the main switch off.",
            self.flat("Remove", f"Remove {name}", partial(self._out, source)),
        )

    def _out(self, source: Source) -> None:
        self.edit(f"take out {source.name}", RemoveSource(source.id))

    def add(self) -> None:
        """Adds the supply that was named."""
        try:
            name = named(self.name.text())
            volts = read_quantity(self.volts.text(), "V", "voltage", "further supply")
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        origin = self.origin.text().strip()
        if self.edit(f"add {name}", AddSource(name, volts, origin)):
            for field in (self.name, self.volts, self.origin):
                field.show_value("")
                field.clear()
            self.name.setFocus()

    def show_doubts(self, texts: list[str]) -> None:
        """What is open about the supplies."""
        self._doubt.setText("\n".join(texts))
        self._doubt.setVisible(bool(texts))


def _asked(value: bool) -> Edit:
    return SetHeading({"sources_asked": value})


class SignalsPart(_Listed):
    """Field devices and what they tell."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("Field devices and signals")
        self.body.addLayout(self._room)
        self.name = Answer("Field device", "", lambda text: True, 170)
        self.name.setPlaceholderText("start float")
        self.place = Answer("Its place", "", lambda text: True, 130)
        self.wetting = ChoiceField(
            "What feeds it", [(wetting.value, wetting) for wetting in Wetting], lambda value: None
        )
        add = QPushButton("Add the device")
        add.clicked.connect(self.add)
        for field in (self.name, self.place):
            field.returnPressed.connect(self.add)
        self.body.addWidget(
            sentence("Add: the", self.name, "in the", self.place, ", fed by", self.wetting, ".", add, points=10.5)
        )

    def ids(self, job: Job) -> tuple[object, ...]:
        """The devices, the loads they may serve, and the supplies that may feed them."""
        foreign = tuple(source.name for source in job.sources)
        foreign_fields = ((signal.id, foreign if signal.wetting is Wetting.FOREIGN else ()) for signal in job.signals)
        return (*foreign_fields, *((load.id, load.name) for load in job.loads))

    def values(self, job: Job) -> dict[str, object]:
        """The fields of each."""
        keys = ("name", "place", "direction", "form", "wetting", "watts", "load", "source")
        return {f"{s.id}.{key}": getattr(s, key) for s in job.signals for key in keys}

    def sentences(self, job: Job) -> list[QWidget]:
        """One sentence a device."""
        loads: list[tuple[str, object]] = [("no one load", None), *((load.name, load.id) for load in job.loads)]
        return [self._sentence(signal, loads) for signal in job.signals]

    def _sentence(self, signal: Signal, loads: list[tuple[str, object]]) -> QWidget:
        def change(key: str) -> Change:
            return lambda value: ChangeSignal(signal.id, cast(ChangedSignalFields, {key: value}))

        at, name = signal.id, signal.name
        return sentence(
            "The",
            self.text(f"{at}.name", f"Name of {name}", change("name"), 160, named),
            "in the",
            self.text(f"{at}.place", f"Place of {name}", change("place"), 120),
            self.pick_of(f"{at}.direction", f"Direction of {name}", Direction, change("direction")),
            self.pick_of(f"{at}.form", f"Form of {name}", Form, change("form")),
            "for",
            self.pick(f"{at}.load", f"Load of {name}", loads, change("load")),
            ", fed by",
            self.pick_of(f"{at}.wetting", f"Feed of {name}", Wetting, change("wetting")),
            *self._from(signal, change),
            "with",
            self.number(f"{at}.watts", f"Draw of {name}", change("watts"), "W", 46, "watts"),
            "W.",
            self.flat("Remove", f"Remove {name}", partial(self._out, signal)),
            points=10.5,
        )

    def _from(self, signal: Signal, change: Callable[[str], Change]) -> list[str | QWidget]:
        """Which supply of another panel feeds it, where the Brief names several."""
        sources = self.session.job.sources
        if signal.wetting is not Wetting.FOREIGN or len(sources) < 2:
            return []
        choices: list[tuple[str, object]] = [("not said", None), *((source.name, source.id) for source in sources)]
        return ["from", self.pick(f"{signal.id}.source", f"Supply of {signal.name}", choices, change("source"))]

    def _out(self, signal: Signal) -> None:
        self.edit(f"take out the {signal.name}", RemoveSignal(signal.id))

    def add(self) -> None:
        """Adds the device that was named."""
        try:
            name = named(self.name.text())
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        fields = cast(SignalFields, {"place": self.place.text().strip(), "wetting": self.wetting.value})
        if self.edit(f"add the {name}", AddSignal(name, fields)):
            self.name.show_value("")
            self.name.clear()
            self.name.setFocus()
