"""Labels of what is built in: devices, strips, wires, cables and their cores, pieces, earths, torques."""

from collections.abc import Callable, Iterable, Iterator, Mapping

from riktig.core.catalogue import Behaviour, Can
from riktig.core.door import on_door
from riktig.core.job import DeviceId, MarkedWires, MarkerText, PinRef
from riktig.core.keys import DeviceKey, PieceKey, PinKey, WireKey
from riktig.core.labels.inputs import LabelInputs
from riktig.core.labels.model import Label, Medium
from riktig.core.labels.spare_ways import named_ways, spare_ways
from riktig.core.plate import Layout
from riktig.core.schematic import Device, Zone
from riktig.core.standards import torque_name
from riktig.core.wiring import areas_of

__all__ = ["part_labels"]


def part_labels(inputs: LabelInputs) -> Iterator[Label]:
    """Every label of a part, medium by medium; devices in the order in which they stand on the plate."""
    areas = areas_of({device.id: device for device in inputs.circuits.devices}, inputs.layout, inputs.door)
    yield from _of_devices(inputs, areas)
    yield from _of_wires(inputs)
    yield from _of_strips(inputs)
    yield from _of_spare_ways(inputs, areas)
    yield from _of_cables(inputs)
    for piece in inputs.pieces:
        length = f"{piece.length:g} mm {piece.place}"
        yield Label(Medium.PIECE, (piece.name, length), 1, "on the piece", PieceKey(piece.name))
    yield from _of_earths(inputs, areas)
    yield from _of_torques(inputs, areas)


def _as_they_stand(devices: Iterable[Device], layout: Layout) -> list[Device]:
    """Rail by rail from the top, from left to right; what stands on no rail comes last, in the order of the circuits.

    Labels come off the printer in the order in which hands reach the parts.
    """

    def place(device: Device) -> tuple[float, float]:
        seat = layout.seat(device.id)
        stand = layout.stand_of(device.id)
        if seat is None or stand is None:
            return float("inf"), 0.0
        rail = layout.rail(stand.rail) if stand.rail else None
        return (rail.y if rail else stand.body.centre.y), seat.rect.x

    return sorted(devices, key=place)


def _of_devices(inputs: LabelInputs, areas: Callable[[DeviceId], str]) -> Iterator[Label]:
    practice = inputs.practice
    copies = practice.device_labels.copies
    for device in _as_they_stand(inputs.circuits.devices, inputs.layout):
        tag, key = inputs.names.tag[device.id], DeviceKey(device.id)
        if device.zone is Zone.PLATE and not device.strip:
            (words, shorter), area = _words_of(inputs, device), areas(device.id)
            short = (tag, shorter) if shorter else ()
            where = f"{area}, {practice.device_labels.value}"
            yield Label(Medium.DEVICE, (tag, words), copies, where, key, inputs.code(tag), short=short, place=area)
        if device.zone is Zone.DOOR and device.kind.can(Can.EARTH_STUD):
            words = device.purpose
            yield Label(Medium.DEVICE, (tag, words), 1, "door", key, inputs.code(tag), place=areas(device.id))
    for device in inputs.circuits.devices:
        if on_door(device) or device.kind.can(Can.MAIN_SWITCH):
            tag, key = inputs.names.tag[device.id], DeviceKey(device.id)
            lines = inputs.legends.get(device.id, ())
            yield Label(Medium.LEGEND, lines, 1, f"door, {tag}", key, place="door")


def _words_of(inputs: LabelInputs, device: Device) -> tuple[str, str]:
    """What stands under the tag, and the same for a label that is too small for it, "" for none.

    It is what a dial is set to, what a fuse is replaced by, a time, else what the device is for.
    """
    amps, part = inputs.settings.get(device.id), inputs.sizing.parts.get(device.id)
    if amps:
        return f"set to {amps:g} A", ""
    if device.kind.timer is not None:
        time = f"{device.kind.timer.delay_s:g} s or as the machine asks"
        return f"{device.purpose}, {time}", time
    is_fuse = any(u.behaviour is Behaviour.POLE and u.symbol.startswith("fuse") for u in device.kind.units)
    if is_fuse and part and part.rated_a:
        link = f"replace by {part.rated_a:g} A {part.characteristic}".strip()
        return f"{device.purpose}: {link}", link
    return device.purpose, ""


def _of_wires(inputs: LabelInputs) -> Iterator[Label]:
    """A marker for both ends of every wire that the practice wants marked and nobody excused."""
    practice = inputs.practice
    if practice.marked is MarkedWires.STICKERS:
        yield from _stickers(inputs)
    if practice.marked in (MarkedWires.NONE, MarkedWires.STICKERS):
        return
    excused = {entry.wire for entry in inputs.unmarked}
    batch_of = {key: batch for batch in inputs.wiring.batches for key in batch.wires}
    for wire in inputs.wiring.wires:
        if (practice.marked is MarkedWires.IN_DUCT and not wire.ducts) or wire.net not in inputs.names.number:
            continue
        if wire.key in excused:
            continue
        batch = batch_of.get(wire.key)
        number, place = (batch.number, " – ".join(dict.fromkeys(batch.areas))) if batch else (0, "")
        stage = wire.stage.value
        for end, far in ((wire.start, wire.end), (wire.end, wire.start)):
            text = wire.number
            if practice.marker is MarkerText.NUMBER_AND_FAR_END:
                text = f"{wire.number} {far.label}"
            elif practice.marker is MarkerText.CLAMPS:
                text = f"{end.label} {far.label}"
            yield Label(
                Medium.WIRE, (text,), 1, f"at {end.label}", WireKey(wire.key), batch=number, place=place, stage=stage
            )


def _stickers(inputs: LabelInputs) -> Iterator[Label]:
    """Beside each clamp on which a wire lands its number, once however many wires land there."""
    seen: dict[PinRef, Label] = {}
    for wire in inputs.wiring.wires:
        if wire.net not in inputs.names.number:
            continue
        for end in (wire.start, wire.end):
            if end.pin not in seen:
                where = f"beside {end.label}"
                seen[end.pin] = Label(Medium.WIRE, (wire.number,), 1, where, PinKey(end.pin), stage=wire.stage.value)
    yield from seen.values()


def _of_strips(inputs: LabelInputs) -> Iterator[Label]:
    for strip in inputs.strips.strips:
        first = DeviceKey(strip.rows[0].device)
        code, place = inputs.code(strip.tag), strip.tag
        yield Label(Medium.DEVICE, (strip.tag, strip.purpose), 1, "strip", first, code, place=place)
        spare = [row.mark for row in strip.rows if not row.number and not row.cores and not row.inside]
        if spare:
            words = f"spare: {', '.join(spare)}"
            yield Label(Medium.DEVICE, (strip.tag, words), 1, "strip", first, code, place=place)
        for row in strip.rows:
            where = f"{strip.tag}, {row.position}"
            yield Label(Medium.TERMINAL, (row.mark,), 2, where, DeviceKey(row.device), place=place)


def _of_spare_ways(inputs: LabelInputs, areas: Callable[[DeviceId], str]) -> Iterator[Label]:
    """What is free on every block and bar, so that whoever adds a circuit does not have to look for it."""
    cores = {core.panel_pin for cable in inputs.strips.cables for core in cable.cores}
    for device in inputs.circuits.devices:
        ways = spare_ways(device, inputs.wiring.on_device.get(device.id, ()), cores)
        if ways:
            tag, words = inputs.names.tag[device.id], f"free: {named_ways(ways)}"
            where, key, code = f"at {tag}", DeviceKey(device.id), inputs.code(tag)
            yield Label(Medium.DEVICE, (tag, words), 1, where, key, code, place=areas(device.id))


def _of_cables(inputs: LabelInputs) -> Iterator[Label]:
    """A tag at both ends of every cable, and a mark at both ends of each of its cores; spare ones say so."""
    for cable in inputs.strips.cables:
        of, place = DeviceKey(cable.device), "inside" if cable.enters else "in the field"
        yield Label(Medium.CABLE, (cable.tag, cable.make_up), 2, "both ends", of, inputs.code(cable.tag), place=place)
        for core in cable.cores:
            where = f"{cable.tag}, {core.name}: at {core.panel_end} and {core.field_end}"
            yield Label(Medium.CORE, (core.number or core.name,), 2, where, of, place=cable.tag)
        if cable.spare and cable.cores:
            where = f"{cable.tag}, cores that nothing lands on, both ends"
            yield Label(Medium.CORE, ("spare",), 2 * cable.spare, where, of, place=cable.tag)


def _of_earths(inputs: LabelInputs, areas: Callable[[DeviceId], str]) -> Iterator[Label]:
    """The sign of protective earth with the tag, at every stud and bar."""
    for device in inputs.circuits.devices:
        if device.kind.can(Can.EARTH_STUD) or device.kind.can(Can.EARTH_BAR):
            tag = inputs.names.tag[device.id]
            where = f"beside {tag}, {device.purpose}"
            yield Label(Medium.EARTH, (tag,), 1, where, DeviceKey(device.id), place=areas(device.id))


TORQUE_KINDS = (Can.MAIN_SWITCH, Can.DISTRIBUTES, Can.EARTH_BAR, Can.NEUTRAL_BAR, Can.ZERO_BAR)
"""What has its torque beside it, with every strip that takes cables from the field (UL 508A asks it of field terminals,
from memory; the rest is common practice, no source)."""


def _of_torques(inputs: LabelInputs, areas: Callable[[DeviceId], str]) -> Iterator[Label]:
    """What to tighten with: for strips with cables from the field, the main switch, blocks and bars.

    Where clamps differ each torque stands with the marks of its clamps.
    """
    awg = inputs.practice.rulebook.north_american
    for strip in inputs.strips.strips:
        at: dict[float, list[str]] = {}
        for row in strip.rows:
            for torque in {torque for torque, _mark in _torques(inputs, row.device) if row.cores}:
                at.setdefault(torque, []).append(row.mark)
        if at:
            where, key = f"at {strip.tag}", DeviceKey(strip.rows[0].device)
            yield Label(Medium.TORQUE, (strip.tag, _torque_words(at, awg=awg)), 1, where, key, place=strip.tag)
    for device in inputs.circuits.devices:
        if device.zone is not Zone.PLATE or not any(device.kind.can(can) for can in TORQUE_KINDS):
            continue
        at = {}
        for torque, mark in _torques(inputs, device.id):
            at.setdefault(torque, []).append(mark)
        if at:
            tag, key = inputs.names.tag[device.id], DeviceKey(device.id)
            yield Label(Medium.TORQUE, (tag, _torque_words(at, awg=awg)), 1, f"at {tag}", key, place=areas(device.id))


def _torques(inputs: LabelInputs, device: DeviceId) -> list[tuple[float, str]]:
    """Torque and mark of the clamps of a device that wires land on; of one without wires inside that of its part."""
    ends = {
        (end.torque_n_m, end.pin.marking): None
        for wire in inputs.wiring.on_device.get(device, ())
        for end in (wire.start, wire.end)
        if end.pin.device == device
    }
    part = inputs.sizing.parts.get(device)
    torques = list(ends) or ([(part.power.torque_n_m, "")] if part else [])
    return [(torque, mark) for torque, mark in torques if torque > 0]


MOST_MARKS = 4
"""Clamps that are named; of more with one torque a torque mark says “others” (chosen by us)."""


def _torque_words(at: Mapping[float, list[str]], *, awg: bool) -> str:
    """“0.6 N·m”, or “L1 L2 L3: 3.2 N·m; PE: 2 N·m” where clamps differ."""
    if len(at) == 1:
        return torque_name(next(iter(at)), awg=awg)
    usual = max(at, key=lambda torque: len(at[torque]))
    marks = {torque: " ".join(dict.fromkeys(tags)) for torque, tags in at.items()}
    if len(at[usual]) > MOST_MARKS:
        marks[usual] = "others"
    order = sorted(at, key=lambda torque: (marks[torque] == "others", -torque))
    return "; ".join(f"{marks[torque]}: {torque_name(torque, awg=awg)}" for torque in order)
