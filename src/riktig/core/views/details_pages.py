"""Everything about one thing, wherever it was selected: the text of the details."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from riktig.core.catalogue import Can
from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.holes import HOLES
from riktig.core.ids import PinRef
from riktig.core.job import JOB_CIRCUIT_INPUTS, Job
from riktig.core.keys import (
    BatchKey,
    DeviceKey,
    DuctKey,
    ElementKey,
    HoleKey,
    Key,
    LoadKey,
    NetKey,
    PieceKey,
    PinKey,
    RailKey,
    ValueKey,
    WireKey,
    device_of,
)
from riktig.core.plate import CUTS, LAYOUT, body_of, room_around
from riktig.core.production import progress_of
from riktig.core.proving import ENERGISED, PANEL_FACTS, TESTS, results_of, what_to_measure
from riktig.core.records import NoteKept, PhotoKept, Record, log_of
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, Device, Zone, contact_places, elements_of
from riktig.core.simulation import RATINGS, ContactStage, OperatorState, described, is_closed
from riktig.core.sizing import SIZING
from riktig.core.standards import conductor_name, is_awg, torque_name
from riktig.core.views.details_brief import load_details, value_details
from riktig.core.views.details_door import door_sections
from riktig.core.views.details_model import Details, DetailsRow, DetailsSection, Note, Photo
from riktig.core.wiring import DUCT_USES, WIRING, Wire, WireEnd

__all__ = [
    "Details",
    "DetailsRow",
    "DetailsSection",
    "details_of",
    "device_of",
    "notes_on",
    "photos_of",
    "thing_subject",
]

WHY_A_DETOUR = "the shortest way is full, or beside the pulses of a drive"


def details_of(evaluation: Evaluation[Job], key: Key | None, records: Iterable[Record]) -> Details | None:
    """The details of what a key names; None when nothing (any more) has that key.

    Args:
        evaluation: Of the job.
        key: What it stands for; None for nothing that can be selected.
        records: The log, oldest first.
    """
    log = log_of(records)
    page = _page(evaluation, key, log)
    if page is None or key is None:
        return None
    return replace(
        page, photos=photos_of(log, key), notes=notes_on(log, key), reason=_reason_of(evaluation.document, key)
    )


def _reason_of(job: Job, key: Key) -> Note | None:
    """The design reason of a thing; a load's stands among its answers."""
    thing = thing_subject(key)
    given = next((entry for entry in job.reasons if entry.thing == thing), None)
    return Note(given.reason, given.who) if given else None


def thing_subject(key: Key) -> str:
    """What photos of a thing and notes on it are filed under: pins and elements under their device."""
    owner = device_of(key)
    return str(DeviceKey(owner) if owner else key)


def photos_of(records: Sequence[Record], key: Key) -> tuple[Photo, ...]:
    """The photos of a thing that were not taken back, oldest first.

    Args:
        records: The log, oldest first.
        key: The thing.
    """
    return tuple(
        Photo(record.facts.file, record.facts.digest, f"{record.when[:16].replace('T', ' ')}, {record.who}")
        for record in log_of(records).about(thing_subject(key))
        if isinstance(record.facts, PhotoKept)
    )


def notes_on(records: Sequence[Record], key: Key) -> tuple[Note, ...]:
    """The notes on a thing that were not taken back, oldest first.

    Args:
        records: The log, oldest first.
        key: The thing.
    """
    return tuple(
        Note(record.facts.text, f"{record.when[:16].replace('T', ' ')}, {record.who}")
        for record in log_of(records).about(thing_subject(key))
        if isinstance(record.facts, NoteKept)
    )


def _page(evaluation: Evaluation[Job], key: Key | None, records: tuple[Record, ...]) -> Details | None:
    match key:
        case DeviceKey() | PinKey() | ElementKey():
            owner = device_of(key)
            device = evaluation.get(CIRCUITS).by_id.get(owner) if owner else None
            return _device(evaluation, device) if device else None
        case ValueKey(value):
            return value_details(evaluation, value)
        case LoadKey(load):
            return load_details(evaluation, load)
        case WireKey(one):
            wire = evaluation.get(WIRING).wire(one)
            return _wire(evaluation, wire, records) if wire else None
        case NetKey(net):
            return _net(evaluation, net)
        case DuctKey(name):
            return _duct(evaluation, name)
        case RailKey(name) | PieceKey(name):
            return _piece(evaluation, name)
        case HoleKey(number):
            return _hole(evaluation, number)
    return None


def _piece(evaluation: Evaluation[Job], name: str) -> Details | None:
    cut = next((c for c in evaluation.get(CUTS) if c.name == name), None)
    if cut is None:
        return None
    rows = (
        DetailsRow("Cut from", cut.stock),
        DetailsRow("Length", f"{cut.length:g} mm"),
        DetailsRow("Place", cut.place),
    )
    return Details(name, "piece", "", (DetailsSection("Cut", rows),))


def _device(evaluation: Evaluation[Job], device: Device) -> Details:
    names, sizing = evaluation.get(NAMES), evaluation.get(SIZING)
    part = sizing.parts[device.id]
    tag = names.tag[device.id]
    title = f"{tag}:{device.mark}" if device.strip else tag
    sections = [_place_section(evaluation, device)]
    joins = _joins(evaluation, device)
    if joins:
        sections.append(DetailsSection("Joins", joins))
    if device.kind.can(Can.SWITCHES_LOAD):
        rows = tuple(
            DetailsRow(unit, place)
            for unit, place in contact_places(evaluation.get(SHEETS), evaluation.get(CIRCUITS), device)
        )
        sections.append(DetailsSection("Contacts", rows))
    if device.kind.can(Can.TURNED):
        sections.append(DetailsSection("Positions", tuple(_positions(device))))
    seat = evaluation.get(LAYOUT).seat(device.id)
    about = [DetailsRow("Part", part.ref)]
    if part.width:
        about.append(DetailsRow("Size", f"{part.width:g} × {part.height:g} × {part.depth:g} mm"))
        if seat and seat.rail:
            about.append(DetailsRow("Stands over the rail", f"{part.from_rail:g} mm"))
        if part.bend:
            about.append(DetailsRow("Bending room", f"up to {part.bend:g} mm"))
    if device.kind.can(Can.LIMITS_CURRENT):
        about.append(DetailsRow("In a short", "its fuse-links limit the current"))
    if part.loss_w:
        about.append(DetailsRow("Heat", f"{part.loss_w:g} W"))
    sections.append(DetailsSection("Part", tuple(about)))
    on_the_door, reasons = door_sections(evaluation, device)
    sections += on_the_door
    wires = evaluation.get(WIRING).on_device.get(device.id, ())
    american = evaluation.document.practice.rulebook.north_american
    return Details(
        title,
        device.kind.called(north_american=american),
        f"{device.purpose}. {described(part, evaluation.get(RATINGS).get(device.id, ()), north_american=american)}.",
        tuple(sections),
        (*sizing.whys.get(device.id, ()), *reasons),
        wires,
        frozenset((device.id,)),
    )


def _positions(device: Device) -> Iterator[DetailsRow]:
    """Which contacts of a selector are closed in each of its positions."""
    for position in device.kind.positions:
        state = OperatorState(position={device.id: position})
        closed = [u.name for u in device.kind.units if is_closed(state, device, u, ContactStage.OUT, powered=True)]
        yield DetailsRow(position, ", ".join(closed) or "no contact closed")


def _place_section(evaluation: Evaluation[Job], device: Device) -> DetailsSection:
    rows = []
    layout = evaluation.get(LAYOUT)
    seat = layout.seat(device.id)
    if seat:
        block = layout.block_of(device.id)
        if block:
            rows.append(DetailsRow(f"Rail R{block[1]}", f"at {block[2]:g} mm", RailKey(f"R{block[1]}")))
        rows.append(DetailsRow("Plate", f"x {seat.rect.x:g}  y {seat.rect.y:g} mm"))
        if block:
            rail = next(r for r in layout.rails if r.number == block[1])
            body = body_of(block[0], rail, block[2])
            for side, (has, needs) in room_around(block[0], body, layout.ducts).items():
                rows.append(DetailsRow(f"Room {side}", f"{has:.0f} mm of {needs:.0f}"))
    on_door = next((s for s in evaluation.get(DOOR).seats if s.device == device.id), None)
    if on_door:
        rows.append(DetailsRow(on_door.leaf.capitalize(), f"x {on_door.x:g}  y {on_door.y:g} mm"))
    if device.zone is Zone.FIELD:
        rows.append(DetailsRow("Field", device.purpose))
    places = evaluation.get(SHEETS).places
    seen: set[str] = set()
    for rung in evaluation.get(CIRCUITS).rungs:
        for element in elements_of(rung.path):
            if any(p.device == device.id for p in element.poles) and element.id in places:
                unit = next(p.unit for p in element.poles if p.device == device.id)
                place = places[element.id]
                text = f"{place.line}, sheet {place.sheet}" if place.line else place.full
                if f"{unit}{text}" not in seen:
                    seen.add(f"{unit}{text}")
                    word = "Line" if place.line else "Sheet"
                    rows.append(DetailsRow(word if device.strip else f"{word}, {unit}", text, ElementKey(element.id)))
    return DetailsSection("Where", tuple(rows))


def _joins(evaluation: Evaluation[Job], device: Device) -> tuple[DetailsRow, ...]:
    nets, names, wiring = evaluation.get(NETS), evaluation.get(NAMES), evaluation.get(WIRING)
    rows = []
    for pin in device.kind.pins:
        pid = device.pin(pin.name)
        net = nets.of_pin.get(pid)
        if net is None or net.id not in names.number:
            continue
        wires = [w for w in wiring.wires if pid in (w.start.pin, w.end.pin)]
        far = ", ".join(w.end.label if w.start.pin == pid else w.start.label for w in wires)
        link = WireKey(wires[0].key) if wires else NetKey(net.id)
        number = names.number[net.id]
        side = {"i": "inside", "f": "field"}.get(pin.name, pin.name) if device.strip else pin.name
        rows.append(DetailsRow(side, f"{number}  {far}" if far else number, link))
    return tuple(rows[:10])


def _wire(evaluation: Evaluation[Job], wire: Wire, records: tuple[Record, ...]) -> Details:
    batch = next(b for b in evaluation.get(WIRING).batches if wire.key in b.wires)
    raw = wire.length
    rows = (
        DetailsRow("From", wire.start.label, PinKey(wire.start.pin)),
        DetailsRow("To", wire.end.label, PinKey(wire.end.pin)),
        DetailsRow("Conductor", f"{conductor_name(wire.mm2)} {wire.colour}"),
        DetailsRow("Length", f"{raw:g} mm" + (", over the door loop" if wire.via_door else "")),
        DetailsRow("Cut to", f"{wire.cut:g} mm"),
        DetailsRow("Way", " ".join(wire.ducts) or "direct", DuctKey(wire.ducts[0]) if wire.ducts else None),
        *((DetailsRow("Detour", f"{wire.detour:.0f} mm: {WHY_A_DETOUR}"),) if wire.detour else ()),
        DetailsRow("Batch", f"{batch.number}, {batch.stage.value}", BatchKey(batch.number)),
    )
    ends = (
        DetailsRow(wire.start.label, wire.start.fitting),
        DetailsRow("strip, torque", _fixing(wire, wire.start)),
        DetailsRow(wire.end.label, wire.end.fitting),
        DetailsRow("strip, torque", _fixing(wire, wire.end)),
    )
    state = progress_of(evaluation.get(WIRING), records).of(wire.key)
    done = tuple(
        DetailsRow(operation.words.capitalize(), f"{d.who}, {d.when[5:16].replace('T', ' ')}")
        for operation, d in (state.done if state else ())
    )
    sections = [DetailsSection("Wire", rows), DetailsSection("Ends", ends)]
    if done:
        sections.append(DetailsSection("Done", done))
    results = results_of(evaluation.get(TESTS), records)
    read = tuple(
        DetailsRow(t.title, f"{r.text}, {r.outcome.value}") for t, r in results.readings if r and t.wire == wire.key
    )
    if read:
        sections.append(DetailsSection("Read", read))
    owners = frozenset(end.pin.device for end in (wire.start, wire.end))
    return Details(
        f"Wire {wire.number}",
        "wire",
        f"{wire.start.label} to {wire.end.label}.",
        tuple(sections),
        (wire.why,),
        (wire,),
        owners,
    )


def _fixing(wire: Wire, end: WireEnd) -> str:
    return f"{end.strip:g} mm, {torque_name(end.torque_n_m, awg=is_awg(wire.mm2))}"


def _net(evaluation: Evaluation[Job], net_id: PinRef) -> Details | None:
    net = evaluation.get(NETS).net(net_id)
    if net is None:
        return None
    names, circuits = evaluation.get(NAMES), evaluation.get(CIRCUITS)
    wires = tuple(w for w in evaluation.get(WIRING).wires if w.net == net.id)
    rows = []
    for pin in net.pins[:14]:
        owner, marking = pin
        device = circuits.device(owner)
        label = f"{names.tag[device.id]}:{device.mark if device.strip else marking}"
        side = {"i": "inside", "f": "field"}.get(marking, "") if device.strip else ""
        rows.append(DetailsRow(label, side or device.purpose, PinKey(pin)))
    links = tuple(DetailsRow(w.number, f"{w.start.label} to {w.end.label}", WireKey(w.key)) for w in wires)
    sections = [DetailsSection("Connected at", tuple(rows))]
    if links:
        sections.append(DetailsSection("Wires", links))
    measured = what_to_measure(
        evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED), evaluation.get(JOB_CIRCUIT_INPUTS), net
    )
    if measured:
        told = tuple(DetailsRow(f"{row.points}, {row.state}", row.expected) for row in measured)
        sections.insert(0, DetailsSection("What to measure, by a skilled person", told))
    number = names.number.get(net.id, "no number")
    counts = f"{len(net.pins)} pin{'s'[: len(net.pins) != 1]}, {len(wires)} wire{'s'[: len(wires) != 1]}."
    text = "No wire can land here, so it has no number." if net.inner else counts
    return Details(f"Net {number}", net.net_class.value, text, tuple(sections), (), wires)


def _duct(evaluation: Evaluation[Job], name: str) -> Details | None:
    duct = next((d for d in evaluation.get(LAYOUT).ducts if d.name == name), None)
    if duct is None:
        return None
    wires = tuple(w for w in evaluation.get(WIRING).wires if name in w.ducts)
    use = next(duct_use for duct_use in evaluation.get(DUCT_USES) if duct_use.name == name)
    fullest = max(use.segments, key=lambda part: part.share)
    place = f"at {'y' if duct.upright else 'x'} {fullest.begin:.0f} to {fullest.end:.0f} mm"
    wide = f"{use.width:g} mm" if use.width else "no standard width"
    rows = (
        DetailsRow("Length", f"{duct.length:g} mm"),
        DetailsRow("Fill", f"{use.share:.0%} of at most {use.limit:.0%}"),
        DetailsRow("Fullest", place if use.share else "empty"),
        DetailsRow("Width", f"{use.now:g} mm; {wide} would do"),
        DetailsRow("Wires", str(len(wires))),
        DetailsRow("Families", ", ".join(use.families) or "none"),
        DetailsRow("Fingers to break out", str(sum(opening.fingers for opening in use.openings))),
    )
    return Details(name, "duct", "upright" if duct.upright else "level", (DetailsSection("Duct", rows),), (), wires)


def _hole(evaluation: Evaluation[Job], number: str) -> Details | None:
    hole = next((h for h in evaluation.get(HOLES) if h.number == number), None)
    if hole is None:
        return None
    rows = [
        DetailsRow("From the datum", f"x {hole.x:g}  y {hole.y:g} mm"),
        DetailsRow("Tool", hole.tool_said),
        DetailsRow("Size", f"{hole.size} mm"),
    ]
    if hole.rating:
        rows.append(DetailsRow("Class", hole.rating))
    if hole.where:
        rows.append(DetailsRow("For", hole.purpose, hole.where))
    if hole.note:
        rows.append(DetailsRow("Note", hole.note))
    return Details(f"Hole {number}", hole.face, f"For {hole.purpose}.", (DetailsSection("Hole", tuple(rows)),))
