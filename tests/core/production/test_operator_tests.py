"""The bench test of operators: what every block must read, and which readings pass."""

import math

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import kind
from riktig.core.production import CLOSED_MOST, OPEN_LEAST, WORK, BuildStage, judge_contact, positions_of
from riktig.core.production.work_state import task_states
from riktig.core.records import ContactRead, Record
from riktig.demo_job import kelp_shed

EXPECTED = {
    # Tags of the kelp shed; what a hand with a meter expects of each, written down by hand (common practice).
    ("S1", "1-2"): {"at rest": "closed", "pressed": "open"},
    ("S2", "3-4"): {"at rest": "open", "pressed": "closed"},
    ("S8", "13-14"): {"off": "open", "hand": "closed", "auto": "open"},
    ("S8", "23-24"): {"off": "open", "hand": "open", "auto": "closed"},
}


def readings() -> list[ContactRead]:
    tasks = [task for task in plan_for(kelp_shed()).get(WORK) if task.stage is BuildStage.OPERATOR_TESTS]
    return [task.facts for task in tasks if isinstance(task.facts, ContactRead)]


@pytest.mark.parametrize(("tag", "contact"), EXPECTED)
def test_every_block_is_read_in_every_position(tag: str, contact: str) -> None:
    asked = {r.position: r.expected for r in readings() if (r.operator, r.contact) == (tag, contact)}
    assert asked == EXPECTED[tag, contact]


def test_every_lamp_is_lit_once() -> None:
    lamps = [reading.operator for reading in readings() if reading.expected == "lights"]
    assert len(lamps) == len(set(lamps)) > 5
    assert all(tag.startswith("H") for tag in lamps)
    tasks = [task for task in plan_for(kelp_shed()).get(WORK) if task.stage is BuildStage.OPERATOR_TESTS]
    lit = [task for task in tasks if isinstance(task.facts, ContactRead) and task.facts.expected == "lights"]
    assert all("for 230 V 50 Hz" in task.how[1] for task in lit), "at the voltage of the control supply"


def test_a_selector_of_three_positions_is_read_in_three() -> None:
    assert positions_of(kind("selector_hoa")) == ("off", "hand", "auto")


@pytest.mark.parametrize(
    ("expected", "ohm", "zero", "passes"),
    [
        ("closed", 0.3, 0.2, True),
        ("closed", CLOSED_MOST + 0.2, 0.2, True),
        ("closed", CLOSED_MOST + 0.3, 0.2, False),
        ("closed", math.inf, 0.2, False),
        ("open", math.inf, 0.2, True),
        ("open", OPEN_LEAST * 2, 0.0, True),
        ("open", 0.3, 0.2, False),
        ("open", 4000.0, 0.2, False),
    ],
)
def test_a_reading_passes_without_its_leads_only(expected: str, ohm: float, zero: float, passes: bool) -> None:
    verdict = judge_contact(expected, ohm, zero)
    assert verdict.passed is passes
    assert bool(verdict.why) is not passes


@pytest.mark.parametrize(("ohm", "zero"), [(-1.0, 0.1), (math.nan, 0.1), (1.0, -0.1), (1.0, 5.0), (1.0, math.inf)])
def test_what_no_meter_reads_is_refused(ohm: float, zero: float) -> None:
    with pytest.raises(ValueError, match="leads"):
        judge_contact("closed", ohm, zero)


def test_a_reading_that_is_wrong_is_kept_and_leaves_the_task_open() -> None:
    tasks = [task for task in plan_for(kelp_shed()).get(WORK) if task.stage is BuildStage.OPERATOR_TESTS]
    task = next(task for task in tasks if isinstance(task.facts, ContactRead) and task.facts.expected == "closed")
    assert isinstance(task.facts, ContactRead)
    facts = task.facts
    verdict = judge_contact(facts.expected, 40.0, 0.1)
    wrong = ContactRead(facts.operator, facts.contact, facts.position, facts.expected, "40", 0.1, "M-1", verdict.why)
    record = Record("r1", task.subject, wrong, "Ida", "t", 1)
    (state,) = [state for state in task_states(tasks, [record]) if state.task is task]
    assert state.done is None
    assert "39.9 Ω where it is closed" in state.stale
