"""The smallest changes that spoil a panel: in its job as a builder makes them, or in the panel as derived."""

from collections.abc import Callable, Iterable
from dataclasses import replace

from tests.shared_plan import plan_for

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.edits import SetStrip
from riktig.core.holes import Blocker
from riktig.core.job import (
    Circuit,
    CircuitId,
    Command,
    DeviceId,
    ElementId,
    EntrySide,
    Job,
    LoadKind,
    OwnDevice,
    OwnPart,
    OwnRung,
    Placement,
    Recipe,
    Start,
    UnmarkedWire,
    add_load,
    change_load,
    pick_part,
    set_enclosure,
    set_part,
)
from riktig.core.keys import WireKey
from riktig.core.labels import Medium
from riktig.core.plate import LAYOUT, move_block
from riktig.core.rules import View
from riktig.core.schematic import Circuits, Element, Parallel, Series, add_rung, find_nets, remove_element
from riktig.core.schematic import add_device as with_device
from riktig.core.schematic.faults.find import find_faults
from riktig.core.terminals import Cable
from riktig.core.wiring import Crowded, Wire
from riktig.demo_job import kelp_shed

InJob = Callable[[Job], Job]
InView = Callable[[View], View]

RELAY = OwnDevice("K.x", "relay", "plate", "extra")
RELAY_24 = OwnDevice("K.x", "relay_dc", "plate", "extra")
EXTRA = OwnDevice("H.x", "lamp", "door", "extra", "EXTRA", colour="white")


def out(*elements: str) -> InJob:
    """Elements taken out of their circuits."""

    def change(job: Job) -> Job:
        for element in elements:
            job = remove_element(job, ElementId(element))
        return job

    return change


def first_load(**answers: object) -> InJob:
    return lambda job: change_load(job, job.loads[0].id, **answers)  # type: ignore[arg-type]


def free(devices: tuple[OwnDevice, ...], *rungs: tuple[str, str, str], band: str = "control") -> InJob:
    """A circuit of the builder's own beside the others: its devices, and its paths from, over what, to."""
    own = tuple(OwnRung(f"own{n}", f"own {n}", a, path, b, band) for n, (a, path, b) in enumerate(rungs))
    circuit = Circuit(CircuitId("c90"), Recipe.FREE, title="free", devices=devices, rungs=own)
    return lambda job: replace(job, circuits=(*job.circuits, circuit))


def motor_past_overload(job: Job) -> Job:
    """A second motor behind its breaker and a contactor, and nothing that feels its current."""
    devices = (
        OwnDevice("F.x", "motor_breaker", "plate", "pump"),
        OwnDevice("K.x", "contactor", "plate", "pump"),
        OwnDevice("M.x", "motor", "field", "pump"),
    )
    path = "F.x:1-2/3-4/5-6 K.x:1-2/3-4/5-6 @M.x:U1/V1/W1"
    for device in devices:
        job = with_device(job, CircuitId("c1"), device)
    job = add_rung(job, CircuitId("c1"), OwnRung("own1", "x", "main.L1/main.L2/main.L3", path, "", "power"))
    return add_rung(job, CircuitId("c1"), OwnRung("own2", "x", "c1.control", "K:31-32 K.x:A1-A2", "N", "control"))


def other_number(job: Job) -> Job:
    """The trip contact entered at its other number."""
    c1 = CircuitId("c1")
    job = with_device(job, c1, EXTRA)
    job = add_rung(job, c1, OwnRung("own", "own", "main.L1", "<FO:97-98 H.x:X1-X2", "N", "control"))
    return remove_element(job, ElementId("c1.FO/97-98"))


def own_breaker(job: Job) -> Job:
    """A breaker of the builder's own in place of the planned one, of which only 3 kA are known."""
    job = set_part(job, OwnPart("OWN-1", "motor_breaker", width=54, height=90, depth=70, rated_a=16, breaking_ka=3.0))
    return pick_part(job, DeviceId("c1.F"), "OWN-1")


def shared_neutral(job: Job) -> Job:
    """Two ways of light on one line, the second with the neutral of the first."""
    for name, head in (("lights", None), ("more lights", job.loads[-1].id)):
        owner = job.loads[-1].id if head else None
        way = {"phases": 1, "phase": 1, "start": Start.WAY, "command": Command.ALWAYS, "neutral_of": owner}
        job = add_load(job, name, nameplate_a=2.0, kind=LoadKind.LIGHTING, **way)  # type: ignore[arg-type]
    return job


def green_terminal(job: Job) -> Job:
    """A terminal of a phase in the colour of earth."""
    job = set_part(job, OwnPart("OWN-2", "terminal", width=6, height=50, depth=50, rated_a=24, colour="green-yellow"))
    return pick_part(job, DeviceId("c1.X.U"), "OWN-2")


def jumper_over_mains(job: Job) -> Job:
    order = tuple(DeviceId(name) for name in ("c4.B.stop.Xb", "c4.X.U", "c4.B.start.Xa"))
    return SetStrip("own", order).apply(plan_for(kelp_shed()))


def pushed(job: Job) -> Job:
    return move_block(job, plan_for(job).get(LAYOUT), DeviceId("c1.FC"), 1, 80.0)


def apart_on_the_plate(job: Job) -> Job:
    """One contactor of a pair with a place of its own, as an older file can have it."""
    fixed = move_block(job, plan_for(job).get(LAYOUT), DeviceId("c3.K"), 1, 2.0)
    assert fixed.plate is not None
    placed = (*fixed.plate.placements, Placement(DeviceId("c3.KR"), 1, 500.0))
    return replace(fixed, plate=replace(fixed.plate, placements=placed))


def upside_down(job: Job) -> Job:
    """The plate kept as it is, and the cables said to come in from above."""
    fixed = move_block(job, plan_for(job).get(LAYOUT), DeviceId("c1.FC"), 1, 150.0)
    return set_enclosure(fixed, field_entry=EntrySide.TOP)


def wires(view: View, change: Callable[[Wire], Wire | None]) -> View:
    """The wires changed one by one; None takes one out."""
    kept = tuple(wire for old in view.wiring.wires if (wire := change(old)) is not None)
    return replace(view, wiring=replace(view.wiring, wires=kept))


def one_wire(where: str, change: Callable[[Wire], Wire | None]) -> InView:
    """The first wire that has a colour, or whose key has the words, changed."""

    def spoil(view: View) -> View:
        first = next(wire for wire in view.wiring.wires if where in wire.key or where == wire.colour)
        return wires(view, lambda wire: change(wire) if wire is first else wire)

    return spoil


def parts(kinds: Iterable[str], **other: object) -> InView:
    """The parts of some kinds, with other data."""
    of = set(kinds)

    def spoil(view: View) -> View:
        of_device = view.circuits.device
        changed = {
            device: replace(part, **other) if of_device(device).kind_id in of else part  # type: ignore[arg-type]
            for device, part in view.sizing.parts.items()
        }
        assert changed != view.sizing.parts
        return replace(view, sizing=replace(view.sizing, parts=changed))

    return spoil


def setting(amps: float) -> InView:
    def spoil(view: View) -> View:
        loads = (replace(view.sizing.loads[0], setting_a=amps), *view.sizing.loads[1:])
        return replace(view, sizing=replace(view.sizing, loads=loads))

    return spoil


def other_kind(old: str, new: str) -> InView:
    """Devices of one kind drawn as another."""

    def spoil(view: View) -> View:
        devices = tuple(replace(d, kind_id=new) if d.kind_id == old else d for d in view.circuits.devices)
        return replace(view, circuits=replace(view.circuits, devices=devices))

    return spoil


def bridged(breaker: str, control: str) -> InView:
    """A breaker as a mere switch, and the one of control left out."""

    def spoil(view: View) -> View:
        kept = tuple(device for device in view.circuits.devices if device.kind_id != control)
        devices = tuple(replace(d, kind_id="isolator") if d.kind_id == breaker else d for d in kept)
        return replace(view, circuits=replace(view.circuits, devices=devices))

    return spoil


def without_device(device: str) -> InView:
    def spoil(view: View) -> View:
        kept = tuple(d for d in view.circuits.devices if d.id != device)
        assert len(kept) < len(view.circuits.devices)
        return replace(view, circuits=replace(view.circuits, devices=kept))

    return spoil


def untied(view: View) -> View:
    """Breakers that share a neutral without a tie of their handles."""
    devices = tuple(replace(device, tied=None) for device in view.circuits.devices)
    return replace(view, circuits=replace(view.circuits, devices=devices))


def found_on(change: Callable[[Circuits], Circuits]) -> InView:
    """What is found on circuits that are drawn otherwise."""

    def spoil(view: View) -> View:
        circuits = change(view.circuits)
        return replace(view, faults=find_faults(circuits, find_nets(circuits)))

    return spoil


def not_exchanged(circuits: Circuits) -> Circuits:
    """Both ways with the lines straight through."""

    def straight(part: object) -> object:
        if not isinstance(part, Parallel):
            return part
        return Parallel(tuple(replace(leg, cross=()) if isinstance(leg, Element) else leg for leg in part.parts))

    rungs = tuple(
        replace(rung, path=Series(tuple(straight(part) for part in rung.path.parts)))  # type: ignore[misc]
        if rung.id == "c3.power"
        else rung
        for rung in circuits.rungs
    )
    return replace(circuits, rungs=rungs)


def monitor_behind(circuits: Circuits) -> Circuits:
    """The monitor fed from behind the contactor that it lets in."""
    rungs = tuple(
        replace(rung, start=("held.L1", "held.L2", "held.L3")) if rung.id.endswith(".monitor") else rung
        for rung in circuits.rungs
    )
    return replace(circuits, rungs=rungs)


def silent_lamps(circuits: Circuits) -> Circuits:
    devices = tuple(replace(d, purpose="") if d.kind_id == "lamp" else d for d in circuits.devices)
    return replace(circuits, devices=devices)


def no_labels(medium: Medium, word: str = "") -> InView:
    """The labels of one medium left out, or those with a word."""

    def spoil(view: View) -> View:
        kept = tuple(x for x in view.labels.labels if x.medium is not medium or word not in " ".join(x.lines))
        return replace(view, labels=replace(view.labels, labels=kept))

    return spoil


def two_numbers(view: View) -> View:
    """Two potentials that carry one number."""
    first, second, *_rest = view.names.number
    return replace(view, names=replace(view.names, number={**view.names.number, second: view.names.number[first]}))


def two_tags(view: View) -> View:
    first, second, *_rest = (d.id for d in view.circuits.devices if d.kind_id == "lamp")
    return replace(view, names=replace(view.names, tag={**view.names.tag, second: view.names.tag[first]}))


def two_cards(view: View) -> View:
    """An output card with the address of the input card."""
    cards = {d.id: d for d in view.circuits.devices if d.kind_id in ("inputs", "outputs")}
    first = next(word for d in cards.values() for word in d.purpose.split() if word.startswith("%I"))
    devices = tuple(
        replace(d, purpose=f"outputs {first}") if d.kind_id == "outputs" else d for d in view.circuits.devices
    )
    return replace(view, circuits=replace(view.circuits, devices=devices))


def crossed(view: View) -> View:
    """A start on the other side of its stop than all others."""
    seats = list(view.door.seats)
    can = {seat.device: view.circuits.device(seat.device).kind.can for seat in seats}
    start = next(n for n, seat in enumerate(seats) if can[seat.device](Can.STARTS))
    stop = next(seat for seat in seats if seat.group == seats[start].group and can[seat.device](Can.STOPS))
    seats[start] = replace(seats[start], x=stop.x, y=2 * stop.y - seats[start].y)
    return replace(view, door=replace(view.door, seats=tuple(seats)))


def crowded(view: View) -> View:
    pin = view.wiring.wires[0].start.pin
    return replace(view, wiring=replace(view.wiring, crowded=(Crowded(pin, "X1:L1", "3 conductors where 1 may land"),)))


def seven_contacts(view: View) -> View:
    units = tuple(Unit(f"{n}3-{n}4", (f"{n}3", f"{n}4"), Behaviour.NO) for n in range(1, 8))
    seats = tuple(
        replace(seat, part=replace(seat.part, kind=replace(seat.part.kind, units=units)))
        if seat.part.kind.id == "start_button"
        else seat
        for seat in view.door.seats
    )
    return replace(view, door=replace(view.door, seats=seats))


def overfull(view: View) -> View:
    return replace(view, ducts=(replace(view.ducts[0], share=1.2), *view.ducts[1:]))


def without_holes(view: View) -> View:
    return replace(view, blockers=(Blocker("plate", "F1 has no hole", None, "Give it one."),))


def core_lost(view: View) -> View:
    cable = next(cable for cable in view.strips.cables if len(cable.cores) > 2 and not cable.is_supply)
    cables = tuple(replace(c, cores=c.cores[1:]) if c is cable else c for c in view.strips.cables)
    return replace(view, strips=replace(view.strips, cables=cables))


def cores_changed_over(view: View) -> View:
    """The first two cores of the supply cable carry each other's names."""

    def changed(cable: Cable) -> Cable:
        if not cable.is_supply:
            return cable
        first, second, *rest = cable.cores
        return replace(cable, cores=(replace(first, number=second.number), replace(second, number=first.number), *rest))

    return replace(view, strips=replace(view.strips, cables=tuple(map(changed, view.strips.cables))))


def cable_like_a_device(view: View) -> View:
    """The tag of a cable that a device has too."""
    tag = next(label.lines[0] for label in view.labels.on(Medium.DEVICE))
    cable = view.labels.on(Medium.CABLE)[0]
    labels = tuple(replace(x, lines=(tag, *x.lines[1:])) if x is cable else x for x in view.labels.labels)
    return replace(view, labels=replace(view.labels, labels=labels))


def wire_in_duct_unmarked(view: View) -> View:
    """A wire in a duct goes without markers, by somebody's permission."""
    wire = next(wire for wire in view.wiring.wires if wire.ducts)
    labels = tuple(x for x in view.labels.labels if x.key != WireKey(wire.key))
    excused = (UnmarkedWire(wire.key, "short", "I. Tveit"),)
    return replace(view, labels=replace(view.labels, labels=labels), unmarked=excused)


def no_marks(view: View) -> View:
    strips = tuple(replace(s, rows=tuple(replace(row, mark="") for row in s.rows)) for s in view.strips.strips)
    return replace(view, strips=replace(view.strips, strips=strips))


def no_torque(view: View) -> View:
    loose = {d: replace(part, power=replace(part.power, torque_n_m=0.0)) for d, part in view.sizing.parts.items()}
    return replace(view, sizing=replace(view.sizing, parts=loose))


def low_plate(view: View) -> View:
    """Every duct that lies across so narrow, and so close, that nothing bends before it."""
    seats = {seat.rect.y: seat.rect.bottom for seat in view.layout.seats}
    ducts = tuple(
        replace(duct, rect=replace(duct.rect, y=top - 12.0, height=10.0))
        for duct, top in zip([d for d in view.layout.ducts if not d.upright], seats, strict=False)
    )
    return replace(view, layout=replace(view.layout, ducts=ducts))
