"""The function tests that are planned: the scripts of all circuits, by tags, and nothing else."""

from tests.core.schematic.samples import sample
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.proving import FUNCTION
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.simulation import behaviour_of
from riktig.demo_job import demo_job, wash_drum


def test_every_script_is_planned_in_the_order_of_the_circuits() -> None:
    job = demo_job("kelp-shed")
    evaluation = plan_for(job)
    circuits = evaluation.get(CIRCUITS)
    steps = evaluation.get(FUNCTION)
    for cid, title in some(circuits.titles):
        found = behaviour_of(job, circuits, cid)
        tried = [s.done for s in found.steps if not s.done.startswith(("push", "let go"))] if found else []
        planned = [s for s in steps if s.circuit == cid and "at the same instant" not in s.done]
        assert [s.title for s in planned] == [title] * len(tried)
        at_the_panel = [{"spend": "pull", "renew": "put"}.get(done.split()[0], done.split()[0]) for done in tried]
        assert [s.done.split()[0] for s in planned] == at_the_panel
        assert [s.number for s in planned] == list(range(1, len(tried) + 1))


def test_nobody_is_asked_to_push_an_armature_under_voltage() -> None:
    steps = plan_for(sample("both ways")).get(FUNCTION) + plan_for(sample("surge protector")).get(FUNCTION)
    assert steps
    assert not [s.done for s in steps if s.done.startswith(("push", "let go", "spend"))]
    surge = [s for s in steps if "module" in s.done]
    assert [(s.done.split()[0], s.expected[0].split()[1]) for s in surge] == [("pull", "on"), ("put", "off")]


def test_a_trip_names_what_trips() -> None:
    steps = plan_for(wash_drum()).get(FUNCTION)
    assert [s.done for s in steps if s.done.startswith(("trip", "reset"))] == ["trip F3", "reset F3"]


def test_steps_call_devices_by_what_is_written_on_them() -> None:
    evaluation = plan_for(sample("emergency stop"))
    tags = set(evaluation.get(NAMES).tag.values())
    steps = evaluation.get(FUNCTION)
    named = [word for s in steps for one in (s.done, *s.expected) for word in one.split() if "." in word]
    assert all(word.startswith(("main.", "in.", "held.")) for word in named), named
    press = next(s for s in steps if s.done.startswith("press"))
    assert press.done.split()[1] in tags
    assert not any(one.endswith(" any") for s in steps for one in s.expected)
