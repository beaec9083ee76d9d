"""What stays live when a device is switched off."""

import pytest

from riktig.core.job import ControlTap, DeviceId
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.simulation import LIVE_WITH_MAIN_OFF, live_nets
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for


@pytest.mark.parametrize(
    ("tap", "off", "live"),
    [
        (ControlTap.BEFORE, {"c0.Q"}, {"L1", "L2", "L3"}),
        (ControlTap.BEFORE, {"c1.F"}, {"L1", "L2", "L3", "1", "2", "3", "7", "8", "9"}),
        (ControlTap.BEFORE, {"c1.FC"}, {"L1", "L2", "L3", "1", "2", "3", "4", "5", "6"}),
        (ControlTap.AFTER, {"c1.F"}, {"L1", "L2", "L3", "1", "2", "3"}),
        (ControlTap.BEFORE, set(), {"L1", "L2", "L3", "1", "2", "3", "4", "5", "6", "7", "8", "9"}),
    ],
    ids=["main off", "motor breaker off", "control breaker off", "tap behind, breaker off", "all on, at rest"],
)
def test_live_nets_are_those_traced_by_hand(tap: ControlTap, off: set[str], live: set[str]) -> None:
    evaluation = plan_for(one_motor(control_tap=tap))
    found = live_nets(evaluation.get(CIRCUITS), evaluation.get(NETS), frozenset(DeviceId(d) for d in off))
    number = evaluation.get(NAMES).number
    assert {number[net.id] for net in found if net.id in number} == live


def test_with_the_main_switch_off_only_the_supply_side_is_live() -> None:
    evaluation = plan_for(one_motor())
    assert {evaluation.get(NAMES).number[n.net] for n in evaluation.get(LIVE_WITH_MAIN_OFF)} == {"L1", "L2", "L3"}
