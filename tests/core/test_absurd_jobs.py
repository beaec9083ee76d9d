"""Whatever can be answered in the Brief derives whole: findings, drawings and papers, never a fault."""

from hypothesis import given, settings
from hypothesis import strategies as st

from riktig.core.circuit import SHEET_DRAWINGS, settle
from riktig.core.job import CHOICES, add_load, change_load, new_job, set_enclosure, set_practice, set_supply
from riktig.core.labels import LABELS
from riktig.core.papers import SCHEDULES, as_csv, schedule, statuses
from riktig.core.plan import Plan
from riktig.core.plate import DOOR_DRAWING, HOLES, mark_out
from riktig.core.catalogue import boxes
from riktig.core.rules import RULES
from riktig.core.store import dump_job, load_job
from riktig.core.terminals import STRIP_DRAWINGS
from riktig.core.wiring import PLATE_DRAWING

PRACTICE = st.fixed_dictionaries(
    {choice.field: st.sampled_from(list(choice.values)) for choice in CHOICES}
    | {
        "spare_share": st.floats(0, 0.9),
        "finger_room": st.floats(0, 200),
        "door_loop": st.floats(0, 3000),
        "end_allowance": st.floats(0, 500),
        "duct_width": st.floats(15, 150),
    }
)
SUPPLY = st.fixed_dictionaries(
    {
        "voltage_v": st.floats(1, 90_000),
        "voltage_to_neutral_v": st.floats(1, 90_000),
        "neutral": st.booleans(),
        "frequency_hz": st.floats(1, 1000),
        "upstream_a": st.floats(0.1, 90_000),
        "fault_ka": st.floats(0.1, 900),
    }
)
LOADS = st.lists(
    st.tuples(
        st.text(max_size=40),
        st.floats(0.001, 400),
        st.one_of(st.none(), st.floats(0.001, 1999)),
        st.booleans(),
        st.booleans(),
    ),
    max_size=4,
)


@settings(max_examples=40, deadline=None)
@given(LOADS, SUPPLY, PRACTICE, st.sampled_from([(b.width, b.height, b.depth) for b in boxes()]), st.floats(-30, 70))
def test_any_answers_derive_whole(
    loads: list[tuple[str, float, float | None, bool, bool]],
    supply: dict[str, object],
    practice: dict[str, object],
    box: tuple[int, int, int],
    ambient: float,
) -> None:
    job = set_practice(set_supply(new_job("A", "absurd"), **supply), **practice)
    width, height, depth = (float(side) for side in box)
    job = set_enclosure(
        job,
        width=width,
        height=height,
        depth=depth,
        plate_width=width - 50,
        plate_height=height - 50,
        ambient_c=ambient,
    )
    for name, kw, nameplate, run, trip in loads:
        job = add_load(job, name, kw, nameplate_a=nameplate)
        job = change_load(job, job.loads[-1].id, run_lamp=run, trip_lamp=trip)
    job = settle(job)
    plan = Plan(job)
    assert len(plan.get(RULES)) > 20
    for name in SCHEDULES:
        assert as_csv(schedule(name, plan))
    assert plan.get(SHEET_DRAWINGS)
    assert plan.get(STRIP_DRAWINGS)
    assert plan.get(LABELS).labels
    assert mark_out(plan.get(PLATE_DRAWING), plan.get(HOLES), "plate").marks
    assert plan.get(DOOR_DRAWING).marks
    assert len(statuses(plan, ())) == 11
    assert load_job(dump_job(job)) == job
