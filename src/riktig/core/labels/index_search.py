"""Everything of a job that can be found, with the words that say what it is."""

from collections.abc import Iterable

from riktig.core.catalogue import Behaviour, class_of, letters_ever
from riktig.core.holes import Hole
from riktig.core.ids import PinRef
from riktig.core.job import DeviceId, ElementId, Load
from riktig.core.keys import (
    DeviceKey,
    DuctKey,
    ElementKey,
    HoleKey,
    LoadKey,
    NetKey,
    PieceKey,
    PinKey,
    PlaceKey,
    RailKey,
    WireKey,
)
from riktig.core.labels.index import Index, IndexEntry, index_of
from riktig.core.labels.synonyms import line_names
from riktig.core.plate import Layout, Piece
from riktig.core.schematic import Band, Circuits, Device, Names, Nets, Sheets, elements_of, io_address
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring

__all__ = ["make_index", "name_index"]


def name_index(circuits: Circuits, nets: Nets, names: Names, sheets: Sheets, loads: tuple[Load, ...]) -> Index:
    """What can be found before wires are worked out: loads, devices, pins, addresses, contacts, numbers, sheets.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        names: Tags of devices and numbers of nets.
        sheets: The sheets as they are laid out.
        loads: The loads of the job.
    """
    return index_of(_names(circuits, nets, names, sheets, loads))


def make_index(
    quick: Index, layout: Layout, holes: tuple[Hole, ...], cuts: tuple[Piece, ...], wiring: Wiring, strips: Strips
) -> Index:
    """Every label of the job: what is named, then wires, cables, strips, pieces and holes.

    Args:
        quick: What can be found without the wires.
        layout: The plate: where everything stands.
        holes: The holes.
        cuts: What is cut of rail, duct and lids.
        wiring: All wires, in the order of their batches.
        strips: The terminal strips and the cables that land on them.
    """
    wires = [
        IndexEntry(wire.number, f"wire {wire.start.label} to {wire.end.label}, {wire.colour}", WireKey(wire.key))
        for wire in wiring.wires
    ]
    rest = [
        IndexEntry(cable.tag, f"cable to {cable.to}, {cable.make_up}", DeviceKey(cable.device))
        for cable in strips.cables
    ]
    rest += [
        IndexEntry(strip.tag, f"terminal strip, {strip.purpose}", DeviceKey(strip.rows[0].device))
        for strip in strips.strips
        if strip.rows
    ]
    rest += [IndexEntry(rail.name, "rail", RailKey(rail.name)) for rail in layout.rails]
    rest += [IndexEntry(duct.name, "duct", DuctKey(duct.name)) for duct in layout.ducts]
    known = {rail.name for rail in layout.rails} | {duct.name for duct in layout.ducts}
    rest += [
        IndexEntry(cut.name, f"piece, {cut.stock}, {cut.length:g} mm", PieceKey(cut.name))
        for cut in cuts
        if cut.name not in known
    ]
    rest += [IndexEntry(hole.number, f"hole for {hole.purpose}", HoleKey(hole.number)) for hole in holes]
    return index_of((*quick.entries, *wires, *rest))


def _names(
    circuits: Circuits, nets: Nets, names: Names, sheets: Sheets, loads: tuple[Load, ...]
) -> Iterable[IndexEntry]:
    for load in loads:
        yield IndexEntry(load.name, f"load, {load.power_name}, {load.place}", LoadKey(load.id))
    for device in circuits.devices:
        yield from _device(device, names.tag[device.id])
    yield from _contacts(circuits, names, sheets)
    for net in nets.nets:
        if net.id in names.number:
            number, what = names.number[net.id], f"net, {net.net_class.value}, {len(net.pins)} pins"
            also = tuple(name for name in line_names(net.line + 1) if name != number)
            yield IndexEntry(number, what, NetKey(net.id), also)
    for sheet in sheets.sheets:
        yield IndexEntry(sheet.title, f"sheet {sheet.number}", PlaceKey(str(sheet.number)))
        for line in range(sheet.first_line, sheet.first_line + len(sheet.lines)):
            where = f"line of the ladder, sheet {sheet.number}"
            yield IndexEntry(f"line {line}", where, PlaceKey(f"{sheet.number}.{line}"))


def _device(device: Device, tag: str) -> Iterable[IndexEntry]:
    key = DeviceKey(device.id)
    number = tag.lstrip("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz")
    others = tuple(f"{letters}{number}" for letters in sorted(letters_ever(device.kind_id)) if number)
    also = tuple(other for other in others if other != tag)
    if device.strip:
        lines = [names for names in map(line_names, (1, 2, 3)) if device.mark in names]
        same = dict.fromkeys(f"{tag}:{name}" for names in lines for name in names if name != device.mark)
        yield IndexEntry(f"{tag}:{device.mark}", f"{device.kind.name}, {device.purpose}", key, tuple(same))
        return
    text = f"{device.kind.name}, {device.purpose}"
    of = class_of(device.kind_id)
    yield IndexEntry(tag, text if of in text else f"{text}, {of}", key, also)
    if device.legend:
        yield IndexEntry(device.legend, f"legend of {tag}", key)
    for pin in device.kind.pins:
        yield IndexEntry(f"{tag}:{pin.name}", f"pin of {device.kind.name}", PinKey(PinRef(device.id, pin.name)))
    for unit in device.kind.units:
        address = io_address(device, unit.name)
        if address:
            yield IndexEntry(address, f"address at {tag} {unit.name}", PinKey(PinRef(device.id, unit.pins[0])))


def _contacts(circuits: Circuits, names: Names, sheets: Sheets) -> Iterable[IndexEntry]:
    """Every contact of a control path where it is drawn; one that holds its own coil is called so."""
    devices = circuits.by_id
    for rung in circuits.rungs:
        if rung.band is not Band.CONTROL:
            continue
        elements = tuple(elements_of(rung.path))
        poles = [(element, devices[element.device].kind.unit(element.poles[0].unit)) for element in elements]
        coils: set[DeviceId] = {element.device for element, unit in poles if unit.behaviour is Behaviour.COIL}
        for element, unit in poles:
            if unit.behaviour not in (Behaviour.NO, Behaviour.NC) or not devices[element.device].kind.has_coil:
                continue
            words = "closing contact" if unit.behaviour is Behaviour.NO else "opening contact"
            if element.device in coils and unit.behaviour is Behaviour.NO:
                words = f"hold contact, keeps {names.tag[element.device]} in"
            yield _contact(element.id, f"{names.tag[element.device]} {unit.name}", words, rung.title, sheets)


def _contact(element: ElementId, label: str, words: str, title: str, sheets: Sheets) -> IndexEntry:
    place = sheets.places.get(element)
    return IndexEntry(label, f"{words}, {title}" + (f", {place.words}" if place else ""), ElementKey(element))
