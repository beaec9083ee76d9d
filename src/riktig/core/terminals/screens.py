"""Which cables to the field are screened, and at which ends their screens are landed."""

from collections.abc import Iterable
from dataclasses import replace
from enum import Enum

from riktig.core.catalogue import Can
from riktig.core.schematic import Circuits, Nets
from riktig.core.terminals.cables import Cable
from riktig.core.wiring import analogue_nets, pulse_nets

__all__ = ["Screen", "with_screens"]


class Screen(Enum):
    """Where the screen of a cable is landed, in words; empty of a cable without one."""

    NONE = ""
    BOTH_ENDS = "all round at both ends"
    PANEL_END = "at the panel alone, cut back at the other end"


def with_screens(cables: Iterable[Cable], circuits: Circuits, nets: Nets) -> list[Cable]:
    """The cables, those screened that lie behind a drive or carry a value.

    Args:
        cables: One for each thing in the field.
        circuits: All devices of the job.
        nets: All nets of these circuits.

    Source:
        Behind a drive all round at both ends, so that pulses go back where they came from; of a value at one end, so
        that no current of the earth flows in it: common practice, no source.
    """
    drives = {device.circuit for device in circuits.devices if device.kind.can(Can.VARIES_SPEED)}
    values, pulses = analogue_nets(circuits, nets), pulse_nets(circuits, nets)
    screened: list[Cable] = []
    for cable in cables:
        device, screen = circuits.by_id[cable.device], Screen.NONE
        carries = {net.id for core in cable.cores if (net := nets.of_pin.get(core.panel_pin))}
        if carries & pulses or (device.kind.is_motor and device.circuit in drives):
            screen = Screen.BOTH_ENDS
        elif carries & values:
            screen = Screen.PANEL_END
        screened.append(replace(cable, screen=screen.value) if screen is not Screen.NONE else cable)
    return screened
