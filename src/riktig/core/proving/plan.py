"""The test plan of the dead panel: bonds, every conductor, no shorts, insulation, in an order that saves steps."""

from collections.abc import Mapping

from riktig.core.geometry import Point
from riktig.core.ids import PinRef
from riktig.core.proving.dead_panel import DeadPanel
from riktig.core.proving.plan_apart import insulation_tests, short_tests
from riktig.core.proving.plan_joined import bond_tests, joint_tests, wire_tests
from riktig.core.proving.planner import PanelFacts, Planner
from riktig.core.proving.probe_order import order_tests
from riktig.core.proving.tests import TestPlan

__all__ = ["plan_tests"]


def plan_tests(facts: PanelFacts, panel: DeadPanel, places: Mapping[PinRef, Point], control: bool = True) -> TestPlan:
    """Bonds, then every conductor end to end, then no continuity between potentials, then insulation.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        panel: The dead panel as it is wired.
        places: Where every pin is.
        control: Whether control wires are read from end to end, or proved by their function alone.
    """
    planner = Planner(facts, panel)
    tests = (
        *bond_tests(planner),
        *wire_tests(planner, control=control),
        *joint_tests(planner),
        *short_tests(planner),
        *insulation_tests(planner),
    )
    return TestPlan(order_tests(tests, places))
