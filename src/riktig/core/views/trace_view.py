"""A trace on one page: each way a column from its source down, with the place of every step."""

import textwrap
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import takewhile

from riktig.core.catalogue import Behaviour
from riktig.core.evaluation import Evaluation, reads
from riktig.core.geometry import Drawing, Face, Line, Point, Poly, Rect, Shape, Text, run_of
from riktig.core.job import DeviceId, Job, PinRef
from riktig.core.keys import DeviceKey, ElementKey, Key, LoadKey, NetKey, PinKey, WireKey
from riktig.core.plate import LAYOUT, Layout, PlacedDevice
from riktig.core.schematic import (
    CIRCUITS,
    NAMES,
    NETS,
    SHEETS,
    TRACER,
    Device,
    Trace,
    Tracer,
    TraceStep,
    Way,
    Zone,
    by_tags,
    elements_of,
    io_address,
    outside_device,
    trace,
    trace_line,
)
from riktig.core.terminals import STRIPS, Cable, Core, Strips, TerminalRow
from riktig.core.views.details_pages import device_of
from riktig.core.wiring import WIRING

__all__ = ["TRACE_LOOKUPS", "Stop", "TracePage", "trace_of", "trace_page"]

COLUMN, ROW, HEAD, MARGIN = 88.0, 15.0, 11.0, 8.0
ACROSS = 3
"""Ways side by side (chosen by us: legible on A4 across)."""
BOX_HIGH, TEXT_AT, SIZE, SMALL, LEAST = 7.0, 30.0, 2.6, 2.3, 2.0
LEAST_SHARED = 3
"""Steps two ways must share before the second only refers to the first (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Stop:
    """One step as it stands on the page: what it shows elsewhere, where it is drawn, and in words."""

    key: Key | None
    box: Rect
    words: str
    asked: bool


@dataclass(frozen=True, slots=True)
class TracePage:
    """The page, and its stops by column; ``title`` says what was traced.

    ``headings`` and ``ends`` go with the columns: what the way is, and where it comes from and returns to.
    """

    title: str
    drawing: Drawing
    columns: tuple[tuple[Stop, ...], ...]
    headings: tuple[str, ...]
    ends: tuple[tuple[str, str], ...]


def trace_of(evaluation: Evaluation[Job], key: Key | None) -> tuple[str, Trace]:
    """What a key says to trace, in words, and its trace; without ways where nothing can be followed."""
    circuits, nets, names = evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.get(NAMES)
    devices = evaluation.get(TRACE_LOOKUPS).devices
    if isinstance(key, NetKey):
        net = nets.net(key.net)
        if net is None:
            return "", Trace(())
        number = names.number.get(net.id, "")
        return f"potential {number}", trace_line(evaluation.get(TRACER), net.pins, f"Potential {number}")
    if isinstance(key, WireKey):
        wire = evaluation.get(WIRING).wire(key.wire)
        if wire is None:
            return "", Trace(())
        pins = tuple(sorted((wire.start.pin, wire.end.pin), key=lambda pin: pin not in nets.of_pin))
        return f"wire {wire.number}", trace_line(evaluation.get(TRACER), pins, f"Wire {wire.number}")
    if isinstance(key, LoadKey):
        circuit = next((circuit for circuit in evaluation.document.circuits if circuit.load == key.load), None)
        if circuit is None or not any(device.circuit == circuit.id for device in circuits.devices):
            return "", Trace(())
        device = outside_device(circuits, circuit.id)
        return f"{names.tag[device.id]}, {device.purpose}", trace(evaluation.get(TRACER), device.id)
    named = device_of(key)
    owner = devices.get(named) if named else None
    if owner is None:
        return "", Trace(())
    label = _label(owner, names.tag)
    if isinstance(key, PinKey):
        return f"{label}:{key.pin.marking}", trace(evaluation.get(TRACER), key.pin)
    if isinstance(key, ElementKey):
        element = next((e for rung in circuits.rungs for e in elements_of(rung.path) if e.id == key.element), None)
        unit = element.poles[0].unit if element else ""
        return f"{label} {unit}, {owner.purpose}", trace(evaluation.get(TRACER), owner.id, unit)
    return f"{label}, {owner.purpose}", trace(evaluation.get(TRACER), owner.id)


def trace_page(evaluation: Evaluation[Job], key: Key | None) -> TracePage | None:
    """The page of what a selection key names; None where nothing can be followed.

    Args:
        evaluation: Of the job.
        key: What it stands for; None for nothing that can be selected.
    """
    title, traced = trace_of(evaluation, key)
    if not traced.paths:
        return None
    return _Page(evaluation).draw(title, traced)


def _label(device: Device, tags: dict[DeviceId, str]) -> str:
    tag = tags[device.id]
    return f"{tag}:{device.mark}" if device.strip else tag


@dataclass(frozen=True, slots=True)
class _Known:
    """Devices by id, and where they land: terminals on their strips, pins on cores."""

    devices: Mapping[DeviceId, Device]
    rows: dict[DeviceId, TerminalRow]
    cores: dict[tuple[PinRef, DeviceId], tuple[Cable, Core]]
    """By the pin in the panel and the device in the field: two cables may land on one terminal."""
    seats: dict[DeviceId, PlacedDevice]


def _know(tracer: Tracer, strips: Strips, layout: Layout) -> _Known:
    return _Known(
        tracer.paths.devices,
        {row.device: row for strip in strips.strips for row in strip.rows},
        {(core.panel_pin, core.field_pin.device): (cable, core) for cable in strips.cables for core in cable.cores},
        {seat.device: seat for seat in layout.seats},
    )


TRACE_LOOKUPS = (reads(TRACER) & STRIPS & LAYOUT).derive("what a trace looks up", _know)
"""Derived ahead of a trace it makes the trace quick: with it the ways of the circuits are worked out."""


@dataclass(frozen=True, slots=True)
class _Column:
    stops: tuple[Stop, ...]
    bottom: float
    before: str
    after: str


class _Page:
    def __init__(self, evaluation: Evaluation[Job]) -> None:
        self.circuits, self.nets, self.names = evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.get(NAMES)
        known = evaluation.get(TRACE_LOOKUPS)
        self.devices, self.rows, self.cores, self.seats = known.devices, known.rows, known.cores, known.seats
        self.places = evaluation.get(SHEETS).places
        self.layout = evaluation.get(LAYOUT)
        self.shapes: list[Shape] = []

    def draw(self, title: str, traced: Trace) -> TracePage:
        """All ways, each where there is room first."""
        self.shapes = [Text(MARGIN, MARGIN + 4, f"Trace of {title}", 3.6, face=Face.BOLD)]
        room = [MARGIN + 10.0] * min(len(traced.paths), ACROSS)
        columns: list[_Column] = []
        for number in range(len(traced.paths)):
            place = number if number < ACROSS else room.index(min(room))
            column = self._column(traced.paths, number, MARGIN + place * COLUMN, room[place])
            columns.append(column)
            room[place] = column.bottom + 9.0
        width = 2 * MARGIN + COLUMN * max(len(room), 2)
        drawing = Drawing(width, max(room), tuple(self.shapes), f"Trace of {title}")
        headings = tuple(by_tags(way.why, self.names.tag) for way in traced.paths)
        ends = tuple((column.before, column.after) for column in columns)
        return TracePage(title, drawing, tuple(column.stops for column in columns), headings, ends)

    def _column(self, paths: tuple[Way, ...], number: int, x: float, top: float) -> _Column:
        way = paths[number]
        heading = _fitted(f"{number + 1}  {by_tags(way.why, self.names.tag)}", COLUMN - 4, 3.0, bold=True)
        self.shapes.append(Text(x, top + 3, heading, 3.0, face=Face.BOLD))
        skip, above = self._shared(paths[:number], way)
        left, home = self._shared(paths[:number], way, home=True)
        left = max(min(left, len(way.steps) - skip - 1), 0)
        shown = way.steps[skip : len(way.steps) - left]
        before = f"from {self._pin_name(way.begins)}, {self._owner(way.begins).purpose}" if way.begins else ""
        if skip:
            before = f"as way {above + 1} as far as {self._step_name(way.steps[skip - 1])}"
        after = f"back to {self._pin_name(way.finishes)}, {self._owner(way.finishes).purpose}" if way.finishes else ""
        if left:
            after = f"and back as way {home + 1}"
        y = top + HEAD
        if before:
            y = self._write(x, y, before)
        stops = []
        last = way.steps[skip - 1].crossing.leaves if skip else way.begins
        for step in shown:
            cable = self._cable(last, step.crossing.enters)
            self._number(x, y, step.crossing.enters, cable)
            stops.append(self._stop(step, x, y, cable))
            last = step.crossing.leaves
            y += ROW
        if after and shown:
            home_pin = way.steps[len(way.steps) - left].crossing.enters if left else way.finishes
            self._number(x, y, shown[-1].crossing.leaves, self._cable(last, home_pin))
            y = self._write(x, y + ROW - BOX_HIGH + 2.0, after)
        if way.also:
            tags = ", ".join(dict.fromkeys(self.names.tag[device_id] for device_id in way.also))
            for line in textwrap.wrap(f"also behind it: {tags}", 42):
                self.shapes.append(Text(x, y + 2, line, SIZE, "second"))
                y += 3.6
        return _Column(tuple(stops), y, before, after)

    def _shared(self, earlier: tuple[Way, ...], way: Way, *, home: bool = False) -> tuple[int, int]:
        """How many steps at the beginning (at its end) a way has in common with an earlier one, and with which."""
        steps = way.steps[::-1] if home else way.steps
        best, at = 0, 0
        for number, other in enumerate(earlier):
            same = (other.finishes == way.finishes) if home else (other.begins == way.begins)
            theirs = other.steps[::-1] if home else other.steps
            alike = takewhile(lambda pair: pair[0].crossing == pair[1].crossing, zip(steps, theirs, strict=False))
            count = sum(1 for _ in alike) if same else 0
            if count > best:
                best, at = count, number
        return (best, at) if LEAST_SHARED <= best < len(steps) else (0, 0)

    def _write(self, x: float, y: float, text: str) -> float:
        self.shapes.append(Text(x + 1, y, _fitted(text, COLUMN - 6, SIZE), SIZE, "second"))
        return y + 3.0

    def _cable(self, left: PinRef | None, entered: PinRef | None) -> str:
        """“cable WM1 brown” where the way goes from one pin to the other by a core; else empty."""
        for near, there in ((left, entered), (entered, left)):
            owner = self._owner(there).id if there else None
            cable, core = self.cores.get((near, owner), (None, None)) if near and owner else (None, None)
            if cable and core:
                return f"cable {cable.tag}, core {core.name}"
        return ""

    def _number(self, x: float, y: float, pin: PinRef, cable: str) -> None:
        """The line between two steps, with its number and, outside the panel, its cable and core."""
        net = self.nets.of_pin.get(pin)
        self.shapes.append(Line(x + 12, y - 1.0, x + 12, y + ROW - BOX_HIGH - 1.0, "ink", 0.35))
        if net:
            number = self.names.number.get(net.id, "")
            self.shapes.append(Text(x + 14, y + 3.2, number, SIZE, "act", Face.PRINTED, key=NetKey(net.id)))
            if cable:
                past = x + 16 + run_of(number, mono=True) * SIZE
                self.shapes.append(Text(past, y + 3.2, _fitted(cable, x + COLUMN - 2 - past, SMALL), SMALL, "second"))

    def _stop(self, step: TraceStep, x: float, y: float, cable: str) -> Stop:
        top = y + ROW - BOX_HIGH - 1.0
        box = Rect(x, top, 25.0, BOX_HIGH)
        corners = tuple(Point(*c) for c in ((x, top), (box.right, top), (box.right, box.bottom), (x, box.bottom)))
        device = self.devices[step.crossing.device]
        key = ElementKey(step.element) if step.element else DeviceKey(device.id)
        width = 0.7 if step.asked else 0.3
        fill = "chosen" if step.asked else "card"
        self.shapes.append(Poly(corners, "act" if step.asked else "ink", width, closed=True, fill=fill, key=key))
        name, pins = _label(device, self.names.tag), self._pins(step, device)
        size = min(2.7, 22.5 / max(run_of(f"{name} {pins}", mono=True), 1.0))
        self.shapes.append(Text(x + 1.5, top + 4.6, f"{name} {pins}".strip(), size, face=Face.PRINTED_BOLD, key=key))
        room = COLUMN - TEXT_AT - 2
        first, where = self._step_words(step, device), self._place_lines(step, device)
        second, third = ", ".join(where[:2]), ", ".join(where[2:])
        smaller = max(min(SIZE, room / max(run_of(first, mono=False), 1.0)), LEAST)
        self.shapes.append(Text(x + TEXT_AT - 2, top + 1.6, _fitted(first, room, smaller), smaller))
        self.shapes.append(Text(x + TEXT_AT - 2, top + 5.0, _fitted(second, room, SMALL), SMALL, "second"))
        text = ", ".join(filter(None, (third, self._moved_by(step, device))))
        if text:
            self.shapes.append(Text(x + TEXT_AT - 2, top + 8.2, _fitted(text, room, SMALL), SMALL, "second"))
        number = self.nets.of_pin.get(step.crossing.enters)
        label = self.names.number.get(number.id, "–") if number else "–"
        words = f"{label:>6}  {f'{name} {pins}'.strip():<14} {first}; {'; '.join(filter(None, (second, text, cable)))}"
        return Stop(key, box, words, step.asked)

    def _pins(self, step: TraceStep, device: Device) -> str:
        if device.strip:
            return ""
        names = [step.crossing.enters.marking, step.crossing.leaves.marking]
        return names[0] if device.kind.is_motor else "–".join(names)

    def _step_name(self, step: TraceStep) -> str:
        device = self.devices[step.crossing.device]
        return f"{_label(device, self.names.tag)} {self._pins(step, device)}".strip()

    def _step_words(self, step: TraceStep, device: Device) -> str:
        address = io_address(device, step.crossing.unit)
        return f"{address}  {device.kind.name}" if address else device.purpose

    def _place_lines(self, step: TraceStep, device: Device) -> list[str]:
        texts = []
        if step.element in self.places:
            texts.append(self.places[step.element].words)
        row = self.rows.get(device.id)
        if row:
            texts.append(f"place {row.position} of strip {self.names.tag[device.id]}")
        seat = self.seats.get(device.id)
        rail = next((own_rail for own_rail in self.layout.rails if seat and own_rail.number == seat.rail), None)
        if device.zone is Zone.DOOR:
            texts.append("door")
        elif device.zone is Zone.FIELD:
            texts.append("field")
        elif seat and rail:
            texts.append(f"rail {rail.name} at {seat.rect.x - rail.x1:.0f} mm")
        elif seat:
            texts.append(f"plate at {seat.rect.x:.0f}, {seat.rect.y:.0f} mm")
        return texts

    def _moved_by(self, step: TraceStep, device: Device) -> str:
        """What makes a contact move, and what may carry in its place."""
        unit = device.kind.unit(step.crossing.unit)
        text = ""
        if io_address(device, unit.name) and unit.behaviour is Behaviour.NO:
            text = "the program switches it"
        elif unit.behaviour is Behaviour.NC and device.kind.has_coil:
            text = f"opens when {self.names.tag[device.id]} is in"
        elif unit.behaviour is Behaviour.NO and device.kind.has_coil:
            text = f"closes when {self.names.tag[device.id]} is in"
        others = [f"{self.names.tag[device_id]} {unit}" for device_id, unit in step.beside]
        if others:
            text = f"{text}, or {', '.join(others)}".removeprefix(", ")
        return text

    def _owner(self, pin: PinRef) -> Device:
        return self.devices[pin.device]

    def _pin_name(self, pin: PinRef) -> str:
        return f"{_label(self._owner(pin), self.names.tag)}:{pin.marking}"


def _fitted(text: str, room: float, size: float, *, bold: bool = False) -> str:
    """The text, or as much of it as there is room for, with an ellipsis."""
    most = room / size / (1.08 if bold else 1.0)
    if run_of(text, mono=False) <= most:
        return text
    while text and run_of(f"{text} …", mono=False) > most:
        text = text[:-1]
    return f"{text.rstrip(' ,')} …"
