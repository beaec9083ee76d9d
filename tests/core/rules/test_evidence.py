"""The evidence of each clause on the demonstration, each figure with how it comes about."""

import pytest
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.rules import RULES, ClauseResult, Group, Verdict
from riktig.demo_job import wash_drum

# 24 parts: supply cable, 5 incoming terminals, isolator, bar, 3 studs; breaker, control breaker, contactor, overload,
# 2 buttons, 2 lamps, 4 motor terminals, motor. On the plate 17: 5 devices, 9 terminals, bar, 2 studs.
# 31 wires have 62 ends and markers. 29 holes with those of two glands:
# rails 6, level ducts 6, uprights 6, bar 2, stud 1; door 5 and its bond.
# R3: 152 less strips of 5 x 6.2 + 19 and 4 x 6.2 + 19 leaves 58.2. Full load: 8.5 A and 9.2 VA / 230 V = 0.04 A
# for the control circuit. The overload set to 8.5 A guards the motor's conductors.
BY_HAND = {
    "E01": "supply 3/N/PE",
    "E02": "Q1: 25 A for 20 A, through the door",
    "E03": "full load 8.5 A, protected at 20 A",
    "E04": "4 loads traced back to the supply",
    "E05": "F3: 7 A ≤ 8.5 A ≤ 10 A",
    "E06": "24 parts chosen",
    "E07": "the supply can give 6 kA",
    "E08": "X2:PE: 1.5 mm² for 1.5 mm² phase",
    "E09": "5 points, each from a way of its own",
    "C02": "1 starter, 2 control devices",
    "C03": "H2: yellow",
    "W01": "M1 power: 1.5 mm² carries 13.5 A ≥ 8.5 A",
    "W02": "31 wires",
    "W03": "control: red, 10",
    "W04": "62 ends of wires",
    "P02": "17 on the plate, 5 on the door",
    "P03": "29 holes",
    "P04": "R3: 58 mm of 152 mm free",
    "M01": "Supply: 3/N/PE 400/230 V 50 Hz",
    "M02": "62 markers for 31 wires",
    "M03": "live with the main switch off: Q1:1, Q1:3, Q1:5, X1:L1, X1:L2, X1:L3",
    "M04": "WASH DRUM TRIPPED",
    "E36": "Q1: L1, L2, L3",
    "N04": "26 names on labels of devices, strips, cables and pieces, 15 of cables and pieces",
}


@pytest.fixture(scope="module")
def results() -> dict[str, ClauseResult]:
    return {r.code: r for r in plan_for(wash_drum()).get(RULES)}


@pytest.mark.parametrize("code", BY_HAND)
def test_the_evidence_is_what_was_worked_out(results: dict[str, ClauseResult], code: str) -> None:
    assert BY_HAND[code] in results[code].evidence


@pytest.mark.parametrize("code", list(BY_HAND))
def test_the_demonstration_meets_the_clause(results: dict[str, ClauseResult], code: str) -> None:
    assert results[code].verdict is Verdict.MEETS
    assert results[code].findings == ()


def test_clauses_stand_in_the_order_an_inspector_walks(results: dict[str, ClauseResult]) -> None:
    order = list(Group)
    places = [order.index(r.group) for r in results.values()]
    assert places == sorted(places)


def test_every_clause_names_a_standard_or_says_that_it_is_common_practice(results: dict[str, ClauseResult]) -> None:
    for result in some(results.values()):
        named = any(word in result.clause for word in ("IEC", "common practice", "the figure beside each value"))
        assert named, result.code
