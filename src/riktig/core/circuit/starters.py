"""Recipes of motor starters: direct-on-line one way, and both ways.

The drawing is of rest: nothing pressed, nothing energised, the overload reset, the protector off.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from riktig.core.circuit.model import Band, Branch, Device, Element, Landing, Parallel, Rung, Series, Zone
from riktig.core.circuit.recipes import MAIN, PHASES, Maker, Yield, element, maker, tap, through
from riktig.core.job import (
    Circuit,
    CircuitId,
    EarthScheme,
    Load,
    OverloadContact,
    OverloadDirection,
    PinId,
    Practice,
    Protection,
    RunLamp,
    Signal,
    StarDeltaOverload,
)

__all__ = ["direct_on_line", "field_pair", "reversing", "star_delta"]

EXCHANGED = (0, 2, 1)
"""The first phase goes straight through, the second and third change places: on the output, once."""
POLES = ("1-2", "3-4", "5-6")
ENDS = ("U1", "V1", "W1", "W2", "U2", "V2")
"""Terminals of a motor with six ends: each end of the second three below the phase that feeds it in triangle."""


@dataclass(frozen=True, slots=True)
class _Parts:
    """What every motor starter has."""

    made: Maker
    cid: CircuitId
    name: str
    title: str
    guard: Device
    control: Device
    overload: Device | None
    motor: Device
    legs: tuple[Device, ...]


def _parts(circuit: Circuit, load: Load, under: Device | None, six: bool = False) -> _Parts:
    """Guard, control breaker, overload, motor and terminals; ``under`` takes a plugged overload."""
    cid, name = circuit.id, load.name
    made = maker(cid)
    kinds = {Protection.FUSES: "fuse_switch", Protection.PROTECTOR: "motor_protector"}
    guard = made("F", kinds.get(load.protection, "motor_breaker"), Zone.PLATE, f"{name}, motor")
    control = made("FC", "control_breaker", Zone.PLATE, f"{name}, control")
    overload = None
    if load.protection is not Protection.PROTECTOR:
        kind_id = "overload" if under else "overload_wired"
        overload = made("FO", kind_id, Zone.PLATE, f"{name}, overload")
        overload = replace(overload, under=under.id if under else None)
    motor = made("M", "motor6" if six else "motor", Zone.FIELD, name)
    ends = ENDS if six else ("U", "V", "W")
    legs = tuple(made(f"X.{leg}", "terminal", Zone.PLATE, f"{name}, {leg}", f"{cid}.X", leg) for leg in ends)
    return _Parts(made, cid, name, name[:1].upper() + name[1:], guard, control, overload, motor, legs)


def _power(parts: _Parts, switching: Branch) -> Rung:
    """The power path: guard, what switches, overload, terminals, motor."""
    path: list[Branch] = [element(parts.guard.id, *POLES), switching]
    if parts.overload:
        path.append(element(parts.overload.id, *POLES))
    path += [through(tuple(leg.id for leg in parts.legs), inward=False), Landing(parts.motor.id, ("U1", "V1", "W1"))]
    return Rung(f"{parts.cid}.power", parts.cid, Band.POWER, parts.title, MAIN, (), Series(tuple(path)))


def _trip(parts: _Parts, practice: Practice) -> tuple[Element, Element]:
    """The contact that opens the control path on a trip, and the one that lights the lamp."""
    if parts.overload is None:
        return element(parts.guard.id, "13-14"), element(parts.guard.id, "21-22")
    down = practice.overload_direction is OverloadDirection.DOWN
    return (element(parts.overload.id, "95-96", flipped=down), element(parts.overload.id, "97-98", flipped=down))


def _lamp_rung(parts: _Parts, role: str, what: str, contact: Element, lamp: Device) -> Rung:
    live = f"{parts.cid}.control"
    path = Series((contact, element(lamp.id, "X1-X2")))
    return Rung(f"{parts.cid}.{role}", parts.cid, Band.CONTROL, f"{parts.title}: {what}", (live,), ("N",), path)


def _earthed(parts: _Parts, practice: Practice) -> tuple[list[Device], Rung, list[PinId]]:
    """The motor's protective conductor, by a terminal of its own or from the bar."""
    cid = parts.cid
    if practice.earths is EarthScheme.BAR:
        rung = Rung(f"{cid}.earth", cid, Band.POWER, "PE", ("PE",), (), Series((Landing(parts.motor.id, ("PE",)),)))
        return [], rung, []
    earth = parts.made("X.PE", "earth_terminal", Zone.PLATE, f"{parts.name}, PE", f"{cid}.X", "PE")
    path = Series((through((earth.id,), inward=False), Landing(parts.motor.id, ("PE",))))
    return [earth], Rung(f"{cid}.earth", cid, Band.POWER, "PE", ("PE",), (), path), [earth.pin("i")]


def direct_on_line(circuit: Circuit, load: Load, practice: Practice) -> Yield:
    """A direct-on-line starter: guard, contactor, overload; start, stop and lamps on the door.

    Method:
        Stop (opening) and start (closing) in series with the coil, the contactor's own contact
        across the start button; the hold path re-joins ahead of whatever follows the button. A motor
        protector takes the overload's place with its own contacts.
    """
    guarded = load.protection is Protection.PROTECTOR
    contactor = maker(circuit.id)("K", "contactor_wired" if guarded else "contactor", Zone.PLATE, load.name)
    parts = _parts(circuit, load, contactor)
    cid, name, title, made = parts.cid, parts.name, parts.title, parts.made
    stop = made("S.stop", "stop_button", Zone.DOOR, f"{name}, stop", legend=f"{title} STOP")
    start = made("S.start", "start_button", Zone.DOOR, f"{name}, start", legend=f"{title} START")
    devices = [parts.guard, parts.control, contactor, *([parts.overload] if parts.overload else []), stop, start]
    rungs = [_power(parts, element(contactor.id, *POLES)), tap(cid, practice, parts.control, parts.guard)]
    trip, tripped = _trip(parts, practice)
    coil = element(contactor.id, "A1-A2")
    run_load: Branch = coil
    if load.run_lamp:
        lamp = made("H.run", "lamp", Zone.DOOR, f"{name}, runs", legend=f"{title} RUNS")
        devices.append(lamp)
        if practice.run_lamp is RunLamp.COIL:
            run_load = Parallel((coil, element(lamp.id, "X1-X2")))
    held = Parallel((element(start.id, "3-4"), element(contactor.id, "13-14")))
    path: tuple[Branch, ...] = (element(stop.id, "1-2"), held, run_load)
    first = practice.overload_contact is OverloadContact.FIRST
    whole = Series((trip, *path) if first else (*path, trip))
    live = f"{cid}.control"
    rungs.append(Rung(f"{cid}.run", cid, Band.CONTROL, f"{title}: start, stop, hold", (live,), ("N",), whole))
    if load.run_lamp and practice.run_lamp is RunLamp.AUXILIARY:
        rungs.append(_lamp_rung(parts, "lamp", "runs", element(contactor.id, "43-44"), lamp))
    if load.trip_lamp:
        lamp = made("H.trip", "lamp", Zone.DOOR, f"{name}, tripped", legend=f"{title} TRIPPED")
        devices.append(lamp)
        rungs.append(_lamp_rung(parts, "trip", "tripped", tripped, lamp))
    earthing, earth_rung, earths = _earthed(parts, practice)
    return [*devices, *parts.legs, *earthing, parts.motor], [*rungs, earth_rung], earths


def field_pair(cid: CircuitId, role: str, text: str, first: int) -> tuple[list[Device], Branch]:
    """A contact in the field, closed at rest, between two terminals marked ``first`` and the next."""
    made = maker(cid)
    contact = made(role, "field_contact", Zone.FIELD, text)
    out, back = (
        made(f"{role}.X{end}", "terminal", Zone.PLATE, text, f"{cid}.X", str(first + n)) for n, end in enumerate("ab")
    )
    path = Series((element(out.id, "i-f"), element(contact.id, "1-2"), element(back.id, "i-f", flipped=True)))
    return [out, back, contact], path


def reversing(circuit: Circuit, load: Load, practice: Practice, ends: Sequence[Signal] = ()) -> Yield:
    """A starter for both ways: two contactors, phases exchanged once, each interlocked with the other.

    Method:
        The second contactor exchanges the second and third phase on its output, and nothing else
        does. Each coil stands behind the other's opening contact; each hold contact re-joins ahead
        of that interlock, so that a stuck contactor cannot hold the other way. The first two field
        devices of the load stop it at its ends: the first the first way, the second the other.

    Args:
        circuit: The circuit.
        load: The motor.
        practice: How the house draws it.
        ends: End switches, closed at rest.
    """
    made = maker(circuit.id)
    ways = (("K", "S.start", "H.run", "forward"), ("KR", "S.reverse", "H.reverse.run", "reverse"))
    contactors = tuple(made(k, "contactor_wired", Zone.PLATE, f"{load.name}, {way}") for k, _, _, way in ways)
    parts = _parts(circuit, load, None)
    cid, name, title = parts.cid, parts.name, parts.title
    stop = made("S.stop", "stop_button", Zone.DOOR, f"{name}, stop", legend=f"{title} STOP")
    devices = [parts.guard, parts.control, *contactors, *([parts.overload] if parts.overload else []), stop]
    straight = element(contactors[0].id, *POLES)
    crossed = replace(element(contactors[1].id, *POLES), cross=EXCHANGED)
    rungs = [_power(parts, Parallel((straight, crossed))), tap(cid, practice, parts.control, parts.guard)]
    trip, tripped = _trip(parts, practice)
    branches: list[Branch] = []
    lamps: list[Rung] = []
    field: list[Device] = []
    for n, (_, button_role, lamp_role, way) in enumerate(ways):
        own, other = contactors[n], contactors[1 - n]
        button = made(button_role, "start_button", Zone.DOOR, f"{name}, {way}", legend=f"{title} {way.upper()}")
        devices.append(button)
        held = Parallel((element(button.id, "3-4"), element(own.id, "13-14")))
        path: list[Branch] = [held]
        if n < len(ends):
            more, contact = field_pair(cid, f"end{n + 1}", ends[n].name, 2 * n + 1)
            field += more
            path.append(contact)
        path += [element(other.id, "21-22"), element(own.id, "A1-A2")]
        branches.append(Series(tuple(path)))
        if load.run_lamp:
            lamp = made(lamp_role, "lamp", Zone.DOOR, f"{name}, runs {way}", legend=f"{title} RUNS {way.upper()}")
            devices.append(lamp)
            lamps.append(_lamp_rung(parts, f"lamp{n + 1}", f"runs {way}", element(own.id, "43-44"), lamp))
    both: tuple[Branch, ...] = (element(stop.id, "1-2"), Parallel(tuple(branches)))
    first = practice.overload_contact is OverloadContact.FIRST
    whole = Series((trip, *both) if first else (*both, trip))
    live = f"{cid}.control"
    rungs.append(Rung(f"{cid}.run", cid, Band.CONTROL, f"{title}: both ways, interlocked", (live,), ("N",), whole))
    rungs += lamps
    if load.trip_lamp:
        lamp = made("H.trip", "lamp", Zone.DOOR, f"{name}, tripped", legend=f"{title} TRIPPED")
        devices.append(lamp)
        rungs.append(_lamp_rung(parts, "trip", "tripped", tripped, lamp))
    earthing, earth_rung, earths = _earthed(parts, practice)
    return [*devices, *parts.legs, *earthing, *field, parts.motor], [*rungs, earth_rung], earths


def _star_delta_power(parts: _Parts, line: Device, triangle: Device, star: Device, in_line: bool) -> list[Rung]:
    """The three power paths of a star-delta starter, joined at named nodes.

    In triangle the ends are fed U1-W2, V1-U2, W1-V2 (IEC 60034-8, from memory); in star the second
    three are joined.
    """
    cid = parts.cid
    fed = tuple(f"{cid}.fed.{n}" for n in PHASES)
    tails = tuple(f"{cid}.{end}" for end in ENDS[3:])
    first, second = parts.legs[:3], parts.legs[3:]
    guard: list[Branch] = [element(parts.guard.id, *POLES)]
    to_motor: list[Branch] = [element(line.id, *POLES)]
    if parts.overload:
        (guard if in_line else to_motor).append(element(parts.overload.id, *POLES))
    to_motor += [through(tuple(leg.id for leg in first), inward=False), Landing(parts.motor.id, ENDS[:3])]
    back = (through(tuple(leg.id for leg in second), inward=False), Landing(parts.motor.id, ENDS[3:]))

    def rung(name: str, start: tuple[str, ...], end: tuple[str, ...], path: Sequence[Branch]) -> Rung:
        return Rung(f"{cid}.{name}", cid, Band.POWER, parts.title, start, end, Series(tuple(path)))

    return [
        rung("power", MAIN, fed, guard),
        rung("line", fed, (), to_motor),
        rung("triangle", fed, tails, [element(triangle.id, *POLES)]),
        rung("ends", tails, (), back),
        rung("star", tails, (f"{cid}.star",) * 3, [element(star.id, *POLES)]),
    ]


def star_delta(circuit: Circuit, load: Load, practice: Practice) -> Yield:
    """A star-delta starter: line, triangle and star contactor, a timer with a pause between.

    Method:
        The timer closes the star contactor; only its contact lets the line contactor in, which then
        holds itself and the start. After the time the timer opens the star and, after a pause, closes
        the triangle; each of the two stands behind the other's opening contact.
    """
    made = maker(circuit.id)
    in_line = practice.star_delta_overload is StarDeltaOverload.LINE
    plugged = load.protection is not Protection.PROTECTOR and not in_line
    line = made("K", "contactor" if plugged else "contactor_wired", Zone.PLATE, f"{load.name}, line")
    triangle = made("KD", "contactor_wired", Zone.PLATE, f"{load.name}, delta")
    star = made("KS", "contactor_wired", Zone.PLATE, f"{load.name}, star")
    timer = made("KT", "timer", Zone.PLATE, f"{load.name}, timer")
    parts = _parts(circuit, load, line if plugged else None, six=True)
    cid, name, title = parts.cid, parts.name, parts.title
    stop = made("S.stop", "stop_button", Zone.DOOR, f"{name}, stop", legend=f"{title} STOP")
    start = made("S.start", "start_button", Zone.DOOR, f"{name}, start", legend=f"{title} START")
    overload = [parts.overload] if parts.overload else []
    devices = [parts.guard, parts.control, line, triangle, star, timer, *overload, stop, start]
    rungs = [*_star_delta_power(parts, line, triangle, star, in_line), tap(cid, practice, parts.control, parts.guard)]
    trip, tripped = _trip(parts, practice)
    held = Parallel((element(start.id, "3-4"), element(line.id, "13-14")))
    let_in = Series((Parallel((element(star.id, "13-14"), element(line.id, "43-44"))), element(line.id, "A1-A2")))
    in_star = Series((element(timer.id, "17-18"), element(triangle.id, "21-22"), element(star.id, "A1-A2")))
    in_triangle = Series((element(timer.id, "17-28"), element(star.id, "21-22"), element(triangle.id, "A1-A2")))
    work = Parallel((let_in, in_star, in_triangle, element(timer.id, "A1-A2")))
    path: tuple[Branch, ...] = (element(stop.id, "1-2"), held, work)
    whole = Series((trip, *path) if practice.overload_contact is OverloadContact.FIRST else (*path, trip))
    live = f"{cid}.control"
    rungs.append(Rung(f"{cid}.run", cid, Band.CONTROL, f"{title}: star, then triangle", (live,), ("N",), whole))
    if load.run_lamp:
        lamp = made("H.run", "lamp", Zone.DOOR, f"{name}, runs", legend=f"{title} RUNS")
        devices.append(lamp)
        rungs.append(_lamp_rung(parts, "lamp", "runs in triangle", element(triangle.id, "43-44"), lamp))
    if load.trip_lamp:
        lamp = made("H.trip", "lamp", Zone.DOOR, f"{name}, tripped", legend=f"{title} TRIPPED")
        devices.append(lamp)
        rungs.append(_lamp_rung(parts, "trip", "tripped", tripped, lamp))
    earthing, earth_rung, earths = _earthed(parts, practice)
    return [*devices, *parts.legs, *earthing, parts.motor], [*rungs, earth_rung], earths
