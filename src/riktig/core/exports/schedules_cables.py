"""The field cables as they are bought and pulled, and the conductors between every two places by size and colour."""

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.holes import ENTRIES
from riktig.core.job import DeviceId, Job
from riktig.core.keys import DeviceKey
from riktig.core.schematic import CIRCUITS, CONDUCTOR_ENDS, DOOR, NAMES, NETS, PLATE, NetClass, Zone
from riktig.core.standards import conductor_name
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = ["SCHEDULES"]


def _cables(evaluation: Evaluation[Job]) -> Schedule:
    """Every cable to the field: what is bought, how it runs, where it comes in, and where each core lands."""
    circuits, names = evaluation.get(CIRCUITS), evaluation.get(NAMES)
    entries = {entry.cable: entry for entry in evaluation.get(ENTRIES).entries}
    loads = {load.id: load for load in evaluation.document.loads}
    load_of = {circuit.id: loads.get(circuit.load) for circuit in evaluation.document.circuits if circuit.load}
    rows: list[tuple[Value, ...]] = []
    for cable in evaluation.get(STRIPS).cables:
        device, entry = circuits.by_id[cable.device], entries.get(cable.tag)
        load = load_of.get(device.circuit)
        hole = entry.hole if entry else None
        cores = [f"{core.name} {core.number}: {core.panel_end} to {core.field_end}" for core in cable.cores]
        cores += [f"screen: {cable.screen}"] if cable.screen else []
        rows.append(
            (
                cable.tag,
                cable.make_up,
                cable.to,
                load.place if load else "",
                round(cable.length_m, 1) if cable.length_m else "",
                len(cable.cores),
                cable.spare,
                load.laying.value if load and not cable.is_supply else "",
                entry.diameter if entry else "",
                entry.fitting.size if entry and entry.fitting else "",
                f"{hole.face} {hole.number}" if hole else "",
                "; ".join(cores),
                names.tag[device.id],
                str(DeviceKey(device.id)),
            )
        )
    columns = (
        ("cable", "Cable"),
        ("make_up", "Make-up"),
        ("to", "To"),
        ("place", "Place"),
        ("length_m", "Length, m"),
        ("cores", "Cores used"),
        ("spare", "Spare"),
        ("laying", "Laid"),
        ("diameter", "About, mm"),
        ("fitting", "Gland or hub"),
        ("hole", "Comes in at"),
        ("lands", "Cores"),
        ("tag", "Device"),
        ("key", "Key"),
    )
    return Schedule("cables", "Field cables", columns, tuple(rows))


def _routes(evaluation: Evaluation[Job]) -> Schedule:
    """Conductors from the panel to each place: over the hinge, and to every thing in the field; earth is counted."""
    names, nets = evaluation.get(NAMES), {net.id: net for net in evaluation.get(NETS).nets}
    devices = evaluation.get(CIRCUITS).by_id
    cables = {device: cable for cable in evaluation.get(STRIPS).cables for device in cable.devices}
    entries = {entry.cable: entry for entry in evaluation.get(ENTRIES).entries}
    to: dict[str, list[str]] = defaultdict(list)
    earths: dict[str, int] = defaultdict(int)
    for conductor_ends in evaluation.get(CONDUCTOR_ENDS):
        if not {PLATE, DOOR} & {ends.place for ends in conductor_ends.places}:
            continue  # from thing to thing in the field
        for ends in conductor_ends.places[1:]:
            to[ends.place].append(names.number.get(conductor_ends.net, ""))
            earths[ends.place] += nets[conductor_ends.net].net_class is NetClass.EARTH
    rows: list[tuple[Value, ...]] = []
    for place, numbers in to.items():
        device = devices.get(DeviceId(place))
        text = f"{names.tag[device.id]} {device.purpose}" if device else f"the {place}"
        cable = cables.get(DeviceId(place))
        if place == DOOR:
            sizes, spare = _by_size(_over_the_hinge(evaluation)), 0
        else:
            device_cores = [core for core in cable.cores if core.field_pin.device == DeviceId(place)] if cable else []
            sizes = _by_size((core.mm2, core.name) for core in device_cores)
            spare = cable.spare if cable else 0
        entry = entries.get(cable.tag) if cable else None
        fitting = entry.fitting.size if entry and entry.fitting else ""
        rows.append((text, len(numbers), earths[place], ", ".join(numbers), sizes, spare, fitting))
    columns = (
        ("to", "To"),
        ("conductors", "Conductors"),
        ("earths", "Of them earth"),
        ("numbers", "Numbers"),
        ("sizes", "By size and colour"),
        ("spare", "Spare"),
        ("fitting", "Gland or conduit"),
    )
    return Schedule("routes", "Conductors by route", columns, tuple(rows))


def _over_the_hinge(evaluation: Evaluation[Job]) -> list[tuple[float, str]]:
    """Size and colour of every wire with one end on the door and the other not."""
    devices = evaluation.get(CIRCUITS).by_id
    return [
        (wire.mm2, wire.colour)
        for wire in evaluation.get(WIRING).wires
        if (devices[wire.start.pin.device].zone is Zone.DOOR) != (devices[wire.end.pin.device].zone is Zone.DOOR)
    ]


def _by_size(conductors: Iterable[tuple[float, str]]) -> str:
    """“7 × 1.5 mm² (1 green-yellow, 6 numbered)”: the thickest first, colours with their counts."""
    by_size: dict[float, Counter[str]] = defaultdict(Counter)
    for mm2, colour in conductors:
        by_size[mm2]["numbered" if colour.isdigit() else colour] += 1
    texts = []
    for mm2 in sorted(by_size, reverse=True):
        colours = by_size[mm2]
        counted = ", ".join(f"{count} {colour}" for colour, count in sorted(colours.items()))
        texts.append(f"{sum(colours.values())} × {conductor_name(mm2)} ({counted})")
    return "; ".join(texts)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"cables": _cables, "routes": _routes}
