"""Recipes: from a circuit's parameters to its devices and rungs.

The drawing is of rest: nothing pressed, nothing energised, the overload reset.
"""

from typing import Protocol

from riktig.core.circuit.model import Band, Branch, Device, Element, Landing, Parallel, Pole, Rung, Series, Zone
from riktig.core.job import (
    Circuit,
    CircuitId,
    ControlTap,
    DeviceId,
    EarthScheme,
    ElementId,
    Load,
    OverloadContact,
    OverloadDirection,
    PinId,
    Practice,
    Protection,
    RunLamp,
    Supply,
    pin_id,
)

__all__ = ["BAR_POINTS", "direct_on_line", "element", "incomer"]

PHASES = ("L1", "L2", "L3")
MAIN = tuple(f"main.{phase}" for phase in PHASES)
BAR_POINTS = 7
"""Points an eight-way bar serves: one way is kept to link a further bar."""

Yield = tuple[list[Device], list[Rung], list[PinId]]


def device_id(circuit: CircuitId, role: str) -> DeviceId:
    """The id of the device with a role in a circuit."""
    return DeviceId(f"{circuit}.{role}")


def element(device: DeviceId, *units: str, flipped: bool = False) -> Element:
    """An element over one device, one unit a line."""
    poles = tuple(Pole(device, unit, flipped) for unit in units)
    return Element(ElementId(f"{device}/{units[0]}"), poles)


def _through(terminals: tuple[DeviceId, ...], *, inward: bool) -> Element:
    poles = tuple(Pole(terminal, "i-f", flipped=inward) for terminal in terminals)
    return Element(ElementId(f"{terminals[0]}/i-f"), poles)


class _Maker(Protocol):
    def __call__(self, role: str, kind: str, zone: Zone, purpose: str, *strip: str, legend: str = "") -> Device: ...


def _maker(cid: CircuitId) -> _Maker:
    def made(role: str, kind: str, zone: Zone, purpose: str, *strip: str, legend: str = "") -> Device:
        group, mark = strip or ("", "")
        return Device(device_id(cid, role), cid, kind, zone, purpose, group, mark, legend=legend)

    return made


def incomer(circuit: Circuit, supply: Supply, earth_points: int) -> Yield:
    """The supply terminals, the main isolator, the earth bar and the bonds of the box.

    Args:
        circuit: The incomer of the job.
        supply: What the customer brings.
        earth_points: Bonds that the other circuits ask for; the bars are made for all.
    """
    cid = circuit.id
    made = _maker(cid)

    cable = made("W", "supply", Zone.FIELD, supply.name)
    isolator = made("Q", "isolator", Zone.PLATE, "main isolator", legend="MAIN SWITCH")
    conductors = (*PHASES, "N", "PE") if supply.neutral else (*PHASES, "PE")
    kinds = {"N": "neutral_terminal", "PE": "earth_terminal"}
    terminals = {
        name: made(f"X.{name}", kinds.get(name, "terminal"), Zone.PLATE, f"incoming {name}", f"{cid}.X", name)
        for name in conductors
    }
    bonds = [
        made("E.door", "stud", Zone.DOOR, "door bond"),
        made("E.plate", "stud", Zone.PLATE, "mounting plate bond"),
        made("E.box", "stud", Zone.PLATE, "enclosure bond"),
    ]
    points = earth_points + len(bonds) + 1
    bars = [made(f"PE{n or ''}", "earth_bar", Zone.PLATE, "earth bar") for n in range(-(-points // BAR_POINTS))]
    phases = tuple(terminals[name].id for name in PHASES)
    rungs = [
        Rung(
            f"{cid}.main",
            cid,
            Band.INCOMING,
            "Incoming supply",
            (),
            MAIN,
            Series(
                (Landing(cable.id, PHASES), _through(phases, inward=True), element(isolator.id, "1-2", "3-4", "5-6"))
            ),
        )
    ]
    for name in conductors[3:]:
        path = Series((Landing(cable.id, (name,)), _through((terminals[name].id,), inward=True)))
        rungs.append(Rung(f"{cid}.{name}", cid, Band.INCOMING, name, (), (name,), path))
    for bar in bars:
        path = Series((Landing(bar.id, ("1",)),))
        rungs.append(Rung(f"{bar.id}.root", cid, Band.INCOMING, "PE", ("PE",), (), path))
    devices = [cable, *terminals.values(), isolator, *bars, *bonds]
    earths = [terminals["PE"].pin("i"), *(bond.pin("1") for bond in bonds)]
    return devices, rungs, earths


def direct_on_line(circuit: Circuit, load: Load, practice: Practice) -> Yield:
    """A direct-on-line starter: breaker, contactor, overload; start, stop and lamps on the door.

    Method:
        Stop (opening) and start (closing) in series with the coil, the contactor's own contact
        across the start button; the hold path re-joins ahead of whatever follows the button.
    """
    cid, name = circuit.id, load.name
    title = name[:1].upper() + name[1:]
    made = _maker(cid)

    guard = "fuse_switch" if load.protection is Protection.FUSES else "motor_breaker"
    breaker = made("F", guard, Zone.PLATE, f"{name}, motor")
    control = made("FC", "control_breaker", Zone.PLATE, f"{name}, control")
    contactor = made("K", "contactor", Zone.PLATE, name)
    overload = Device(device_id(cid, "FO"), cid, "overload", Zone.PLATE, f"{name}, overload", under=contactor.id)
    stop = made("S.stop", "stop_button", Zone.DOOR, f"{name}, stop", legend=f"{title} STOP")
    start = made("S.start", "start_button", Zone.DOOR, f"{name}, start", legend=f"{title} START")
    motor = made("M", "motor", Zone.FIELD, name)
    legs = tuple(made(f"X.{leg}", "terminal", Zone.PLATE, f"{name}, {leg}", f"{cid}.X", leg) for leg in ("U", "V", "W"))
    devices = [breaker, control, contactor, overload, stop, start]
    live = f"{cid}.control"
    rungs = [
        Rung(
            f"{cid}.power",
            cid,
            Band.POWER,
            title,
            MAIN,
            (),
            Series(
                (
                    element(breaker.id, "1-2", "3-4", "5-6"),
                    element(contactor.id, "1-2", "3-4", "5-6"),
                    element(overload.id, "1-2", "3-4", "5-6"),
                    _through(tuple(leg.id for leg in legs), inward=False),
                    Landing(motor.id, ("U1", "V1", "W1")),
                )
            ),
        ),
        _tap(cid, practice, control, breaker),
    ]
    down = practice.overload_direction is OverloadDirection.DOWN
    trip = element(overload.id, "95-96", flipped=down)
    coil = element(contactor.id, "A1-A2")
    run_load: Branch = coil
    if load.run_lamp:
        lamp = made("H.run", "lamp", Zone.DOOR, f"{name}, runs", legend=f"{title} RUNS")
        devices.append(lamp)
        if practice.run_lamp is RunLamp.COIL:
            run_load = Parallel((coil, element(lamp.id, "X1-X2")))
    first = practice.overload_contact is OverloadContact.FIRST
    held = Parallel((element(start.id, "3-4"), element(contactor.id, "13-14")))
    path: tuple[Branch, ...] = (element(stop.id, "1-2"), held, run_load)
    rungs.append(
        Rung(
            f"{cid}.run",
            cid,
            Band.CONTROL,
            f"{title}: start, stop, hold",
            (live,),
            ("N",),
            Series((trip, *path) if first else (*path, trip)),
        )
    )
    if load.run_lamp and practice.run_lamp is RunLamp.AUXILIARY:
        rungs.append(
            Rung(
                f"{cid}.lamp",
                cid,
                Band.CONTROL,
                f"{title}: runs",
                (live,),
                ("N",),
                Series((element(contactor.id, "43-44"), element(lamp.id, "X1-X2"))),
            )
        )
    if load.trip_lamp:
        lamp = made("H.trip", "lamp", Zone.DOOR, f"{name}, tripped", legend=f"{title} TRIPPED")
        devices.append(lamp)
        rungs.append(
            Rung(
                f"{cid}.trip",
                cid,
                Band.CONTROL,
                f"{title}: tripped",
                (live,),
                ("N",),
                Series((element(overload.id, "97-98", flipped=down), element(lamp.id, "X1-X2"))),
            )
        )
    earths: list[PinId] = []
    devices += legs
    if practice.earths is not EarthScheme.BAR:
        earth = made("X.PE", "earth_terminal", Zone.PLATE, f"{name}, PE", f"{cid}.X", "PE")
        devices.append(earth)
        earths.append(earth.pin("i"))
        path = (_through((earth.id,), inward=False), Landing(motor.id, ("PE",)))
    else:
        path = (Landing(motor.id, ("PE",)),)
    rungs.append(Rung(f"{cid}.earth", cid, Band.POWER, "PE", ("PE",), (), Series(path)))
    devices.append(motor)
    return devices, rungs, earths


def _tap(cid: CircuitId, practice: Practice, control: Device, breaker: Device) -> Rung:
    live = f"{cid}.control"
    if practice.control_tap is ControlTap.BEFORE:
        path = Series((element(control.id, "1-2"),))
        return Rung(f"{cid}.tap", cid, Band.TAP, "Control supply", (MAIN[0],), (live,), path)
    path = Series((Landing(breaker.id, ("2",)), element(control.id, "1-2")))
    return Rung(f"{cid}.tap", cid, Band.TAP, "Control supply", (), (live,), path)


def bar_way(bar: DeviceId, way: int) -> PinId:
    """The pin of one way of an earth bar, counted from 1."""
    return pin_id(bar, str(way))
