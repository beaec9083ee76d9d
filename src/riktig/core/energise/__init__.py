"""What is live. So far: which nets stay live when a device is switched off."""

from riktig.core.circuit import CIRCUITS, NETS, Circuits, Net, Nets
from riktig.core.energise.live import live_nets
from riktig.core.plan import Derived

__all__ = ["LIVE_WITH_MAIN_OFF", "live_nets"]


def _with_main_off(circuits: Circuits, nets: Nets) -> tuple[Net, ...]:
    main = frozenset(d.id for d in circuits.devices if d.kind_id == "isolator")
    return live_nets(circuits, nets, main)


LIVE_WITH_MAIN_OFF = Derived("live with the main switch off", (CIRCUITS, NETS), _with_main_off)
