"""What must be cut off beyond the main switch before anything is touched: said at every test."""

from riktig.core.catalogue import Can
from riktig.core.ids import DeviceId
from riktig.core.schematic import Circuits, Names, Zone
from riktig.core.simulation import MAINS, LiveNet

__all__ = ["still_live_text"]

MOST = 8
"""Tags named of one source (chosen by us: one line)."""


def still_live_text(live: tuple[LiveNet, ...], circuits: Circuits, names: Names) -> str:
    """One line a source: what stays live with the main switch off, and where to cut it off. Empty when nothing does."""
    main = next((names.tag[d.id] for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)), "the main switch")
    inside = {d.id: d for d in circuits.devices if d.zone is not Zone.FIELD}
    lines = []
    for source in dict.fromkeys(live_net.source for live_net in live):
        owners = (pin.device for live_net in live if live_net.source == source for pin in live_net.pins)
        tags = list(dict.fromkeys(names.tag[device_id] for device_id in owners if device_id in inside))
        few = ", ".join(tags[:MOST]) + (" and more" if len(tags) > MOST else "")
        device = circuits.by_id.get(DeviceId(source))
        whence = (
            f"{names.tag[device.id]}, {device.purpose}" if device else "the incoming supply, in the board it comes from"
        )
        if source == MAINS or device:
            lines.append(f"With {main} off, {few} stay live: cut off {whence}.")
    return " ".join(lines)
