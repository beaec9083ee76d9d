"""Recipes: from a circuit's parameters to its devices and rungs.

The drawing is of rest: nothing pressed, nothing energised, the overload reset.
"""

from typing import Protocol

from riktig.core.circuit.model import Band, Device, Element, Landing, Pole, Rung, Series, Zone
from riktig.core.job import Circuit, CircuitId, ControlTap, DeviceId, ElementId, PinId, Practice, Supply

__all__ = [
    "BAR_POINTS",
    "MAIN",
    "PHASES",
    "Maker",
    "Yield",
    "device_id",
    "element",
    "incomer",
    "maker",
    "tap",
    "through",
]

PHASES = ("L1", "L2", "L3")
MAIN = tuple(f"main.{phase}" for phase in PHASES)
BAR_POINTS = 7
"""Points an eight-way bar serves: one way is kept to link a further bar."""

BLOCK_TAPS = 7
"""Feeds a block serves on each line."""

Yield = tuple[list[Device], list[Rung], list[PinId]]


def device_id(circuit: CircuitId, role: str) -> DeviceId:
    """The id of the device with a role in a circuit."""
    return DeviceId(f"{circuit}.{role}")


def element(device: DeviceId, *units: str, flipped: bool = False) -> Element:
    """An element over one device, one unit a line."""
    poles = tuple(Pole(device, unit, flipped) for unit in units)
    return Element(ElementId(f"{device}/{units[0]}"), poles)


def through(terminals: tuple[DeviceId, ...], *, inward: bool) -> Element:
    """A path through terminals, one a line; ``inward`` from the field side."""
    poles = tuple(Pole(terminal, "i-f", flipped=inward) for terminal in terminals)
    return Element(ElementId(f"{terminals[0]}/i-f"), poles)


class Maker(Protocol):
    """Makes a device of a circuit by its role."""

    def __call__(self, role: str, kind: str, zone: Zone, purpose: str, *strip: str, legend: str = "") -> Device: ...


def maker(cid: CircuitId) -> Maker:
    """Makes the devices of one circuit."""

    def made(role: str, kind: str, zone: Zone, purpose: str, *strip: str, legend: str = "") -> Device:
        group, mark = strip or ("", "")
        return Device(device_id(cid, role), cid, kind, zone, purpose, group, mark, legend=legend)

    return made


def incomer(circuit: Circuit, supply: Supply, earth_points: int, taps: int = 0) -> Yield:
    """The supply terminals, the main isolator, the earth bar and the bonds of the box.

    Args:
        circuit: The incomer of the job.
        supply: What the customer brings.
        earth_points: Bonds that the other circuits ask for; the bars are made for all.
        taps: Feeds of the first line that distribution blocks are made for; 0 without blocks.
    """
    cid = circuit.id
    made = maker(cid)

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
    blocks = [made(f"XD{n or ''}", "dist_block", Zone.PLATE, "distribution") for n in range(-(-taps // BLOCK_TAPS))]
    spread = tuple(Landing(block.id, PHASES) for block in blocks[:1])
    rungs = [
        Rung(
            f"{cid}.main",
            cid,
            Band.INCOMING,
            "Incoming supply",
            (),
            MAIN,
            Series(
                (
                    Landing(cable.id, PHASES),
                    through(phases, inward=True),
                    element(isolator.id, "1-2", "3-4", "5-6"),
                    *spread,
                )
            ),
        )
    ]
    for name in conductors[3:]:
        path = Series((Landing(cable.id, (name,)), through((terminals[name].id,), inward=True)))
        rungs.append(Rung(f"{cid}.{name}", cid, Band.INCOMING, name, (), (name,), path))
    for bar in bars:
        path = Series((Landing(bar.id, ("1",)),))
        rungs.append(Rung(f"{bar.id}.root", cid, Band.INCOMING, "PE", ("PE",), (), path))
    for block in blocks[1:]:
        rungs.append(Rung(f"{block.id}.on", cid, Band.INCOMING, "", MAIN, (), Series((Landing(block.id, PHASES),))))
    devices = [cable, *terminals.values(), isolator, *blocks, *bars, *bonds]
    earths = [terminals["PE"].pin("i"), *(bond.pin("1") for bond in bonds)]
    return devices, rungs, earths


def tap(cid: CircuitId, practice: Practice, control: Device, breaker: Device) -> Rung:
    """The feed of a circuit's control path, ahead of or behind its breaker."""
    live = f"{cid}.control"
    if practice.control_tap is ControlTap.BEFORE:
        path = Series((element(control.id, "1-2"),))
        return Rung(f"{cid}.tap", cid, Band.TAP, "Control supply", (MAIN[0],), (live,), path)
    path = Series((Landing(breaker.id, ("2",)), element(control.id, "1-2")))
    return Rung(f"{cid}.tap", cid, Band.TAP, "Control supply", (), (live,), path)
