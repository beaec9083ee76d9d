"""How the panel is operated from its door: what is pressed or turned, and what then runs, stops and lights."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeAlias

from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId
from riktig.core.proving.function import Scripts
from riktig.core.proving.live_seen import is_seen, seen_of
from riktig.core.schematic import Device, Zone
from riktig.core.simulation import Panel, Runner

__all__ = ["Operating", "how_it_is_operated"]

AT_THE_DOOR = ("press", "release", "turn", "wait")
BY_ITSELF = {"raise": "rises", "lower": "falls"}
"""What whoever runs the machine does, and what the machine does by itself; nothing behind the door, no fault."""


@dataclass(frozen=True, slots=True)
class Operating:
    """One thing that is done at the door or happens in the field, and what each device that is seen then does anew.

    ``device`` is what is pressed, turned or moved; None where one only waits, ``seconds`` long. ``position`` is that
    of a switch that is turned, or “rises” or “falls”. ``held`` is what is so only while a button is held down.
    """

    circuit: CircuitId
    device: DeviceId | None
    position: str
    seconds: float
    then: tuple[tuple[DeviceId, str], ...]
    held: tuple[tuple[DeviceId, str], ...] = ()


def how_it_is_operated(make: Callable[[], Panel], scripts: Scripts) -> tuple[Operating, ...]:
    """What can be done at the door, circuit by circuit, as the panel does it.

    Each circuit begins with the panel at rest and power on; a button is pressed and let go. What changes nothing that
    is seen is left out, and so is what was said before of the same circuit.

    Args:
        make: Makes the panel as it is wired.
        scripts: The scripts as they are done at the panel.
    """
    rows: list[Operating] = []
    for circuit, script in scripts.items():
        rows += dict.fromkeys(_of_circuit(make(), circuit, [text.partition(":")[0].strip() for text in script]))
    return tuple(rows)


def _of_circuit(panel: Panel, circuit: CircuitId, script: Sequence[str]) -> list[Operating]:
    runner, rows = Runner(panel, circuit), list[Operating]()
    watched = [device for device in panel.circuits.devices if _is_watched(device)]
    states, pressed = _states(panel, watched), dict[DeviceId, States]()
    for text in script:
        verb, _, what = text.partition(" ")
        try:
            runner.do(text)
            device = runner.device(_role(what)) if verb in ("press", "release", "turn", *BY_ITSELF) else None
        except RiktigError:  # the builder took out what it names
            break
        before, states = states, _states(panel, watched)
        if verb not in (*AT_THE_DOOR, *BY_ITSELF) or (device and _is_behind(panel, device)):
            continue
        if verb == "press" and device:
            pressed[device] = before
            rows.append(Operating(circuit, device, "", 0.0, _changes(before, states)))
        elif verb == "release" and device in pressed and rows and rows[-1].device == device:
            rest = pressed.pop(device)
            unchanged = tuple(entry for entry in rows.pop().then if states[entry[0]] == rest[entry[0]])
            rows.append(Operating(circuit, device, "", 0.0, _changes(rest, states), unchanged))
        else:
            position = BY_ITSELF.get(verb, what.partition(" to ")[2])
            seconds = float(what.split()[0]) if verb == "wait" else 0.0
            rows.append(Operating(circuit, device, position, seconds, _changes(before, states)))
    return [row for row in rows if row.then or row.held]


States: TypeAlias = Mapping[DeviceId, str]


def _changes(before: States, after: States) -> tuple[tuple[DeviceId, str], ...]:
    return tuple((device, does) for device, does in after.items() if does != before[device])


def _is_behind(panel: Panel, device: DeviceId) -> bool:
    """Whether something stands inside, where nobody who runs the machine reaches."""
    return panel.network.devices[device].zone is Zone.PLATE


def _role(what: str) -> str:
    """The device that a step names: “S start” is a button of a device with two, “S to hand” a position."""
    return what.split()[0] if what else ""


def _is_watched(device: Device) -> bool:
    """What whoever runs the machine sees or hears: loads in the field, lamps and sounders on the door."""
    return device.zone is not Zone.PLATE and is_seen(device)


def _states(panel: Panel, watched: Sequence[Device]) -> States:
    return seen_of(panel, watched)
