"""What to measure at a potential in service: by hand for the drum, and for every potential of many jobs."""

import itertools

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import JOB_CIRCUIT_INPUTS, Job
from riktig.core.keys import NetKey
from riktig.core.proving import ENERGISED, PANEL_FACTS, ToMeasure, what_to_measure
from riktig.core.schematic import NAMES, NETS
from riktig.core.views import details_of
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

DRUM: Evaluation[Job] = plan_for(wash_drum())


def told(evaluation: Evaluation[Job], number: str) -> list[ToMeasure]:
    names = evaluation.get(NAMES).number
    net = next(net for net in evaluation.get(NETS).nets if names.get(net.id) == number)
    facts, energised = evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED)
    return list(what_to_measure(facts, energised, evaluation.get(JOB_CIRCUIT_INPUTS), net))


def test_behind_the_stop_button_there_is_voltage_until_it_is_pressed() -> None:
    """By hand: 9 lies behind overload and stop, 230 V to neutral (IEC 60038); pressed or tripped it is dead."""
    rows = told(DRUM, "9")
    assert (rows[0].state, rows[0].points) == ("at rest, everything on", "K1:13 to X1:N")
    assert rows[0].expected in ("230 V AC", "231 V AC")
    after = {row.state: row.expected for row in rows}
    assert after["then press S1"].startswith("dead")
    assert after["then trip guard"].startswith("dead")


def test_the_coil_is_dead_until_it_is_started() -> None:
    """By hand: 10 goes to the coil."""
    rows = told(DRUM, "10")
    assert rows[0].expected.startswith("dead")
    assert rows[1].state == "then press S2"
    assert "AC" in rows[1].expected


def test_without_a_neutral_the_other_line_is_touched_and_24_v_is_direct() -> None:
    american = plan_for(frost_fan())
    assert next(row.expected for row in told(american, "L1")) == "480 V AC"
    assert told(plan_for(kelp_shed()), "12")[0].expected == "24 V DC"


@pytest.mark.parametrize("name", share(SAMPLES, 2)[::6])
def test_every_potential_of_every_kind_of_job_can_be_asked(name: str) -> None:
    evaluation = plan_for(sample(name))
    facts, energised = evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED)
    with_rows = 0
    for net in evaluation.get(NETS).nets:
        rows = what_to_measure(facts, energised, evaluation.get(JOB_CIRCUIT_INPUTS), net)
        with_rows += bool(rows)
        for before, after in itertools.pairwise(rows):
            assert before.state != after.state or before.expected != after.expected
            assert "{" not in after.state
    assert with_rows > 3


def test_it_stands_among_the_details_of_the_number() -> None:
    names = DRUM.get(NAMES).number
    net = next(net for net in DRUM.get(NETS).nets if names.get(net.id) == "9")
    page = details_of(DRUM, NetKey(net.id), ())
    assert page is not None
    section = page.sections[0]
    assert section.title == "What to measure, by a skilled person"
    assert section.rows[0].value in ("230 V AC", "231 V AC")
