"""One load in the letter: its sentence, its further options, and what Riktig proposes."""

from functools import partial
from typing import Any, cast

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import ChangeLoad, Edit, RemoveLoad, TakeAlternative
from riktig.core.errors import RiktigError
from riktig.core.job import (
    Access,
    CableLaying,
    ChangedLoadFields,
    Command,
    Duty,
    Fitting,
    Isolation,
    Job,
    Load,
    LoadFields,
    LoadId,
    LoadKind,
    Protection,
    Start,
    read_count,
    read_current,
    read_power,
    read_power_hp,
    read_quantity,
)
from riktig.core.keys import Key, LoadKey
from riktig.core.sizing import PROPOSAL, Alternative, LoadProposal, alternatives_of
from riktig.desk.session import Session
from riktig.desk.stations.brief.chips import Chips
from riktig.desk.stations.brief.fields import say_range, sentence
from riktig.desk.stations.brief.part import BriefPart, Change
from riktig.desk.theme import words_font
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["PHASES", "LoadPart", "named", "power_of"]

PHASES: list[tuple[str, object]] = [("three-phase", 3), ("between two lines", 2), ("line and neutral", 1)]
LEVELS = ("stop_float_m", "start_float_m")
"""The heights of the floats that move the pump."""
SHOWN = ("current", "breaker", "contactor", "star", "device", "setting", "section", "cable", "drop", "neutral")
"""The values on the card; the others stand in the load's details."""


def named(text: str) -> str:
    """A load's name.

    Raises:
        RiktigError: there is none.
    """
    if not text.strip():
        raise RiktigError("The load has no name.", hint="Enter a name, such as wash drum.")
    return text.strip()


together_of = partial(read_count, what="number of cables together", low=1, high=40)
"""How the number of cables that lie together is read."""


def power_of(text: str) -> LoadFields:
    """A power as typed, with its unit: “4”, “4 kW”, “7.5 hp”, “12 A”, as fields of a load.

    Raises:
        RiktigError: it is none.
    """
    lower = text.strip().lower()
    if lower.endswith("hp"):
        return {"hp": read_power_hp(text, where="power"), "kw": None}
    if lower.endswith("a"):
        amps = read_current(text, where="current")
        return {"nameplate_a": amps, "kw": None, "hp": None}
    return {"kw": read_power(text, where="power"), "hp": None}


class LoadPart(BriefPart):
    """A load. “more” opens what is asked less often, and what could be had instead."""

    def __init__(self, session: Session, load: Load) -> None:
        super().__init__(session)
        self.load_id: LoadId = load.id
        self._proposed: LoadProposal | None = None
        self._kind: tuple[object, ...] = ()
        self._filled: Load | None = None
        self._open = False
        self._alternatives: tuple[Alternative, ...] = ()
        self._text: QWidget | None = None
        self._more: QWidget | None = None
        self._instead: QWidget | None = None
        self.card = QWidget()
        self.card.setObjectName("card")
        self._card = QVBoxLayout(self.card)
        self._card.setContentsMargins(10, 7, 10, 8)
        self._card.setSpacing(5)
        self._said = plain_label("", "second", wraps=True)
        self._doubts = plain_label("", "fails", wraps=True)
        self.chips = Chips(session, load.name)
        for widget in (self._said, self._doubts, self.chips):
            self._card.addWidget(widget)
        self.body.addWidget(self.card)

    def fill(self) -> None:
        """Writes the sentence anew when the kind of load changes, and shows the proposal of now."""
        load = self._load()
        kind = (load.kind, load.phases, load.start, load.name, self._number(), load.hp is None, load.kw is None)
        if kind != self._kind:
            self._kind = kind
            self._write(load)
            self._filled = None
        if load is not self._filled:
            self._filled = load
            super().fill()
        proposal = self.session.evaluation.get(PROPOSAL)
        sized = proposal.of_load(load.id)
        if sized is None:
            return
        issues = [f"{d.text} {d.remedy}" for d in proposal.issues if d.where == LoadKey(load.id)]
        self._doubts.setText("\n".join(issues))
        self._doubts.setVisible(bool(issues))
        if sized != self._proposed:
            self._proposed = sized
            self.chips.show_values(v for name in SHOWN if (v := sized.value(name)))
            space = f"{sized.space:g} mm of rail" if sized.space else "no rail"
            self._said.setText(f"Riktig proposes ({space}, {sized.loss_w:g} W of heat):")
        self._show_instead()

    def values(self, job: Job) -> dict[str, object]:
        """The load's fields by name."""
        load = self._load()
        power = f"{load.kw:g} kW" if load.kw is not None else f"{load.hp:g} hp" if load.hp is not None else ""
        return {name: getattr(load, name) for name in Load.__slots__} | {"power": power or load.power_name}

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Alt with a digit takes the alternative of that number."""
        digit = event.key() - Qt.Key.Key_1
        if event.modifiers() == Qt.KeyboardModifier.AltModifier and 0 <= digit < len(self._alternatives):
            self.take(self._alternatives[digit])
            event.accept()
            return
        super().keyPressEvent(event)

    def take(self, alternative: Alternative) -> None:
        """Takes another starter or another protection."""
        name = self._load().name
        self.edit(f"{name}: {alternative.words}", TakeAlternative(alternative))

    def show_selection(self, key: Key | None) -> None:
        """Opens the line to change one of the load's values."""
        self.chips.show_selection(key)

    def _load(self) -> Load:
        return self.session.job.load(self.load_id)

    def _number(self) -> int:
        return next(n for n, own_load in enumerate(self.session.job.loads, 1) if own_load.id == self.load_id)

    def _change(self, name: str) -> Change:
        return lambda value: ChangeLoad(self.load_id, cast(ChangedLoadFields, {name: value}))

    def _power(self, fields: LoadFields) -> Edit:
        return ChangeLoad(self.load_id, cast(ChangedLoadFields, fields))

    def _kind_chosen(self, kind: LoadKind) -> Edit:
        """A load that does not turn is fed from its own breaker until the customer says otherwise."""
        fields: ChangedLoadFields = {"kind": kind}
        load = self._load()
        if kind is not LoadKind.MOTOR and load.start not in (Start.WAY, Start.CONTACTOR):
            fields |= {"start": Start.WAY, "command": Command.ALWAYS}
        return ChangeLoad(self.load_id, fields)

    def _write(self, load: Load) -> None:
        self.setAccessibleName(load.name)
        had = next((key for key, field in self.fields.items() if field.hasFocus()), "")
        self.fields = {}
        text = sentence(*self._basics(load))
        more = sentence(*self._details(load), points=10.5)
        more.setVisible(self._open)
        for old, new, place in ((self._text, text, 0), (self._more, more, 1)):
            if old is not None:
                self.body.replaceWidget(old, new)
                old.hide()
                old.deleteLater()
            else:
                self.body.insertWidget(place, new)
        self._text, self._more = text, more
        text.show()  # only what is shown can take the focus
        if had in self.fields:
            self.fields[had].setFocus()

    def _basics(self, load: Load) -> list[str | QWidget]:
        of = f"of the {load.name}"
        change = self._change
        power = self.text("power", f"Power {of}", self._power, 78, power_of)
        say_range(power, "kw", "hp", "nameplate_a")
        starts = list(Start) if load.is_motor else [Start.CONTACTOR, Start.WAY]
        parts: list[str | QWidget] = [
            f"{self._number()}. The",
            self.text("name", f"Name {of}", change("name"), 150, named),
            "is a",
            self.pick_of("kind", f"Kind {of}", LoadKind, self._kind_chosen),
            "of",
            power,
            "in the",
            self.text("place", f"Place {of}", change("place"), 130),
            ",",
            self.pick("phases", f"Lines {of}", PHASES, change("phases")),
            ". Nameplate current",
            self.text("nameplate_a", f"Nameplate current {of}", change("nameplate_a"), 58, read_current),
            "A. It is started" if load.is_motor else "A. It is fed",
            self.pick("start", f"Start {of}", [(start.value, start) for start in starts], change("start")),
            "and controlled by",
            self.pick_of("command", f"Command {of}", Command, change("command")),
            ". Its cable is",
            self.number("cable_m", f"Cable length {of}", change("cable_m"), "m", 54),
            "m.",
        ]
        more = QPushButton("Fewer options" if self._open else "More options")
        more.setFlat(True)
        more.setAccessibleName(f"More about the {load.name}")
        more.clicked.connect(self.turn_more)
        out = self.flat("Remove", f"Remove the {load.name}", partial(self._out, load))
        return [*parts, more, out]

    def _details(self, load: Load) -> list[str | QWidget]:
        of, change = f"of the {load.name}", self._change
        parts: list[str | QWidget] = []
        if load.is_motor:
            parts += [
                "It is protected by",
                self.pick_of("protection", f"Protection {of}", Protection, change("protection")),
                "and",
                self.pick_of("duty", f"Duty {of}", Duty, change("duty")),
                ", service factor",
                self.number("service_factor", f"Service factor {of}", change("service_factor"), "", 46),
                ";",
                self.pick_of("access", f"Access {of}", Access, change("access")),
                "may operate it.",
                self._yes("run_lamp", of, "A run lamp", "No run lamp"),
                "and",
                self._yes("trip_lamp", of, "a trip lamp", "no trip lamp"),
                "; the level",
                self._yes("level_alarm", of, "has an alarm", "has no alarm"),
                ".",
            ]
        if load.command is Command.LEVEL:
            parts += ["Heights of its floats above the bottom:"]
            for field in (*LEVELS, "alarm_float_m") if load.level_alarm else LEVELS:
                what = field.partition("_")[0]
                parts += [
                    self.number(field, f"Height of the {what} float {of}", change(field), "m", 46, "float_m"),
                    f"m ({what}),",
                ]
            parts += ["0: not known."]
        parts += [
            "Its cable lies",
            self.pick_of("laying", f"Laying of the cable {of}", CableLaying, change("laying")),
            "with",
            self.text("cables_together", f"Cables together {of}", change("cables_together"), 40, together_of),
            "cables side by side, itself counted. It is isolated locally by",
            self.pick_of("isolation", f"Isolation {of}", Isolation, change("isolation")),
            "; with the main switch off it",
            self._yes("maintained", of, "stays live", "goes off"),
            ". Its work is done",
            self.pick_of("fitting", f"Fitting {of}", Fitting, change("fitting")),
            ".",
        ]
        if load.phases < 3:
            names = enumerate(self.session.job.practice.phase_names.names, 1)
            lines: list[tuple[str, object]] = [("the line Riktig gives it", 0), *((name, n) for n, name in names)]
            parts += ["It sits on", self.pick("phase", f"Line {of}", lines, change("phase")), "."]
        if load.phases == 1:
            ways = [way for way in self.session.job.loads if way.phases == 1 and way.id != load.id]
            neutrals: list[tuple[str, object]] = [("is its own", None)]
            neutrals += [(f"is that of the {way.name}", way.id) for way in ways]
            parts += ["Its neutral", self.pick("neutral_of", f"Neutral {of}", neutrals, change("neutral_of")), "."]
        volts = partial(_volts, where="voltage")
        return [
            *parts,
            "It works at",
            self.text("voltage_v", f"Voltage {of}", change("voltage_v"), 54, volts, "load_v"),
            "V (empty: as the supply). Reason:",
            self.text("reason", f"Reason {of}", change("reason"), 300),
            ".",
        ]

    def _yes(self, key: str, of: str, yes: str, no: str) -> QWidget:
        name = f"{key.replace('_', ' ').capitalize()} {of}"
        return self.pick(key, name, [(yes, True), (no, False)], self._change(key))

    def _out(self, load: Load) -> None:
        self.edit(f"take out the {load.name}", RemoveLoad(load.id))

    def turn_more(self) -> None:
        """Opens or closes what is asked less often."""
        self._open = not self._open
        self._kind = ()
        self.fill()
        if self._more:
            self._more.setVisible(self._open)

    def _show_instead(self) -> None:
        if self._instead is not None:
            self._card.removeWidget(self._instead)
            self._instead.hide()
            self._instead.deleteLater()
            self._instead = None
        self._alternatives = ()
        if not self._open:
            return
        job = self.session.job
        self._alternatives = alternatives_of(job, self._load(), self.session.evaluation.get(PROPOSAL))
        self._instead = instead_of(self._alternatives, self.take)
        self._card.addWidget(self._instead)


def instead_of(alternatives: tuple[Alternative, ...], do: Any) -> QWidget:
    """The row “Instead: …” with the cost of each, and its key."""
    row = QWidget()
    flow = FlowLayout(row, gap=6, lead=5)
    if alternatives:
        flow.addWidget(plain_label("Instead:", "second"))
    for number, alternative in enumerate(alternatives, 1):
        button = QPushButton(f"{number}  {alternative.words}: {alternative.cost}")
        button.setFont(words_font(9.5))
        button.setObjectName("instead")
        button.setToolTip(f"Take it: Alt+{number}")
        button.setAccessibleName(f"Instead {alternative.words}, {alternative.cost}")
        button.clicked.connect(lambda _=False, chosen=alternative: do(chosen))
        flow.addWidget(button)
    return row


def _volts(text: str, where: str) -> float | None:
    return read_quantity(text, "V", "voltage", where) if text.strip() else None
