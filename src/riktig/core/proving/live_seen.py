"""What is seen of a panel under voltage after a step: which lamps are lit, which contactors are in, what runs."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Protocol

from riktig.core.catalogue import Behaviour, Can
from riktig.core.errors import RiktigError
from riktig.core.ids import DeviceId
from riktig.core.job import CircuitId
from riktig.core.schematic import Device, Zone
from riktig.core.simulation import InjectedFault, Panel, Runner

__all__ = [
    "MakesPanel",
    "SeenAfterStep",
    "is_so",
    "positions_seen",
    "read_seen",
    "seen_of",
    "seen_words",
    "states_after",
    "watched_in",
]

_SEEN = {
    ("H", "on"): "lit", ("H", "off"): "dark", ("K", "on"): "pulled in", ("K", "off"): "dropped out",
    ("M", "on"): "runs", ("M", "off"): "stands", ("M", "forward"): "runs forward", ("M", "reverse"): "runs in reverse",
    ("M", "star"): "runs in star", ("M", "delta"): "runs in delta",
}  # fmt: skip
"""What is seen of a device by the first letter of its tag; anything else is said as the script says it."""


class MakesPanel(Protocol):
    """Makes the panel as it is wired, with power on and at rest, with faults in it."""

    def __call__(self, faults: Sequence[InjectedFault] = ()) -> Panel:
        """The panel.

        Raises:
            RiktigError: a fault in a wire that is not there.
        """


@dataclass(frozen=True, slots=True)
class SeenAfterStep:
    """What somebody saw after a step of a circuit's script, counted from 1: how each device was."""

    circuit: CircuitId
    number: int
    seen: tuple[tuple[DeviceId, str], ...]
    as_expected: bool


def seen_words(words: str) -> str:
    """“K1 on” as it is seen: “K1 pulled in”. Anything else is said as it is.

    Args:
        words: A tag and what it does.
    """
    tag, _, does = words.partition(" ")
    shown = _SEEN.get((tag[:1], does))
    return f"{tag} {shown}" if shown and tag[1:].isdecimal() else words


def read_seen(text: str, devices: Mapping[str, DeviceId]) -> tuple[tuple[DeviceId, str], ...]:
    """What ``seen_words`` said, read back: “H1 dark, K1 pulled in”; what is no such words is left out.

    Args:
        text: Words with commas or semicolons between them.
        devices: The devices by their tags.
    """
    back = {(letter, shown): does for (letter, does), shown in _SEEN.items()}
    read: list[tuple[DeviceId, str]] = []
    for part in text.replace(";", ",").split(","):
        tag, _, shown = part.strip().partition(" ")
        does = back.get((tag[:1], shown), shown if shown in ("on", "off") else "")
        if tag in devices and does:
            read.append((devices[tag], does))
    return tuple(read)


def is_seen(device: Device) -> bool:
    """Whether one sees or hears of a device what it does."""
    kind = device.kind
    units = {unit.behaviour for unit in kind.units}
    works = units & {Behaviour.LAMP, Behaviour.LOAD, Behaviour.WINDING}
    electronic = kind.can(Can.CONTROLLER) or kind.can(Can.MAKES_DC) or kind.can(Can.TRANSFORMS)
    return (kind.has_coil or kind.is_motor or bool(works)) and not electronic


def positions_seen(device: Device) -> tuple[str, ...]:
    """What can be seen of a device, off first.

    Args:
        device: The device.
    """
    if not device.kind.is_motor:
        return ("off", "on")
    more = ("star", "delta") if device.kind.can(Can.SIX_ENDS) else ()
    return ("off", "forward", "reverse", *more)


def seen_of(panel: Panel, devices: Iterable[Device]) -> dict[DeviceId, str]:
    """What devices do now: “on”, “off”, of a motor how it turns.

    Args:
        panel: The panel with power on.
        devices: The devices that are looked at.
    """
    on = panel.on

    def seen(device: Device) -> str:
        if device.kind.is_motor:
            return panel.turns(device.id) or "off"
        works = device.id in on and (not device.kind.has_coil or panel.is_fed(device.id))
        return "on" if works else "off"

    return {device.id: seen(device) for device in devices}


def states_after(
    panel: Panel, circuit: CircuitId, script: Sequence[str], watched: Sequence[Device]
) -> list[Mapping[DeviceId, str]]:
    """What devices do after each step of a script; it ends at a step that cannot be done.

    Args:
        panel: The panel at rest; it is operated.
        circuit: Whose script it is.
        script: Its steps.
        watched: The devices that are looked at.
    """
    runner = Runner(panel, circuit)
    states: list[Mapping[DeviceId, str]] = []
    for text in script:
        try:
            runner.do(text.partition(":")[0].strip())
        except RiktigError:
            break
        states.append(seen_of(panel, watched))
    return states


def watched_in(panel: Panel, circuit: CircuitId) -> tuple[Device, ...]:
    """The devices of a circuit of which something is seen; those on the door and in the field first.

    Args:
        panel: The panel.
        circuit: The circuit.
    """
    visible = [device for device in panel.circuits.devices if device.circuit == circuit and is_seen(device)]
    return tuple(sorted(visible, key=lambda device: device.zone is Zone.PLATE))


def is_so(asked: str, does: str) -> bool:
    """Whether a device does what was asked or seen of it: a motor that turns any way is “on”.

    Args:
        asked: “on”, “off”, or how a motor turns.
        does: What it does.
    """
    return does == asked or (asked == "on" and does != "off")
