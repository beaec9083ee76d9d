"""What is live, and whether circuits do what their recipes promise."""

from riktig.core.circuit import CIRCUITS, NETS, Circuits, Net, Nets
from riktig.core.energise.behaviour import Behaviour, behaviour_of, with_tags
from riktig.core.energise.live import live_nets
from riktig.core.energise.meter import Meter, Reading, meter_of
from riktig.core.energise.run import Event, Panel
from riktig.core.energise.script import StepResult, run_script
from riktig.core.plan import Derived

__all__ = [
    "LIVE_WITH_MAIN_OFF",
    "Behaviour",
    "Event",
    "Meter",
    "Panel",
    "Reading",
    "StepResult",
    "behaviour_of",
    "live_nets",
    "meter_of",
    "run_script",
    "with_tags",
]


def _with_main_off(circuits: Circuits, nets: Nets) -> tuple[Net, ...]:
    main = frozenset(d.id for d in circuits.devices if d.kind.family == "isolator")
    return live_nets(circuits, nets, main)


LIVE_WITH_MAIN_OFF = Derived("live with the main switch off", (CIRCUITS, NETS), _with_main_off)
