"""Whatever can be answered in the Brief derives whole: findings, drawings and papers, never a fault."""

import math
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.catalogue import Box, boxes
from riktig.core.door import DOOR_DRAWING
from riktig.core.evaluation import Evaluation
from riktig.core.exports import LISTS, as_csv, schedule
from riktig.core.holes import HOLES, mark_out
from riktig.core.inputs import unfit
from riktig.core.job import (
    CHOICES,
    Command,
    Duty,
    LoadKind,
    PracticeFields,
    Protection,
    Start,
    SupplyFields,
    Wetting,
    add_load,
    add_signal,
    new_job,
    override,
    set_box,
    set_enclosure,
    set_practice,
    set_supply,
)
from riktig.core.keys import LoadKey
from riktig.core.labels import LABELS
from riktig.core.rules import RULES
from riktig.core.schematic import with_names_recorded
from riktig.core.sizing import PROPOSAL, alternatives_of
from riktig.core.store import dump_job, load_job
from riktig.core.terminals import STRIP_DRAWINGS
from riktig.core.views import details_of, statuses
from riktig.core.wiring import PLATE_DRAWING
from tests.effort import times

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
OPTIONAL = st.fixed_dictionaries(
    {
        "kind": st.sampled_from(LoadKind),
        "phases": st.sampled_from([1, 2, 3]),
        "phase": st.sampled_from([0, 1, 2, 3]),
        "start": st.sampled_from(Start),
        "command": st.sampled_from(Command),
        "protection": st.sampled_from(Protection),
        "duty": st.sampled_from(Duty),
        "service_factor": st.floats(1, 2),
        "cable_m": st.floats(0, 2000),
        "voltage_v": st.one_of(st.none(), st.floats(12, 1000)),
        "maintained": st.booleans(),
        "level_alarm": st.booleans(),
        "run_lamp": st.booleans(),
        "trip_lamp": st.booleans(),
    }
)
POWER = st.one_of(
    st.fixed_dictionaries({"kw": st.floats(0.001, 400)}),
    st.fixed_dictionaries({"hp": st.floats(0.001, 500)}),
    st.fixed_dictionaries({"nameplate_a": st.floats(0.001, 1999)}),
    st.fixed_dictionaries({"kw": st.floats(0.001, 400), "nameplate_a": st.floats(0.001, 1999)}),
)
PLAIN = st.fixed_dictionaries({"run_lamp": st.booleans(), "trip_lamp": st.booleans()})
TEXTS = st.text(max_size=40).filter(lambda text: not unfit(text))
LOADS = st.lists(st.tuples(TEXTS, POWER, st.one_of(PLAIN, OPTIONAL)), max_size=4)
SIGNALS = st.lists(st.tuples(TEXTS, st.sampled_from(Wetting), st.floats(0, 5000)), max_size=3)
OWN = st.lists(
    st.tuples(
        st.sampled_from(["m1.current", "m1.breaker", "m1.section", "m1.cable", "m1.pe", "m1.setting", "m1.contactor"])
        | st.sampled_from(["panel.feeder", "panel.main_switch", "panel.transformer", "panel.grouped", "panel.loss"]),
        st.floats(0.001, 9000),
    ),
    max_size=3,
)


@settings(max_examples=times(15, 200), deadline=None)
@given(LOADS, SUPPLY, PRACTICE, st.sampled_from(boxes()), st.floats(-30, 70), SIGNALS, OWN)
def test_any_answers_derive_whole(
    loads: list[tuple[str, dict[str, Any], dict[str, Any]]],
    supply: SupplyFields,
    practice: PracticeFields,
    box: Box,
    ambient: float,
    signals: list[tuple[str, Wetting, float]],
    own: list[tuple[str, float]],
) -> None:
    job = set_practice(set_supply(new_job("A", "absurd"), **supply), **practice)
    job = set_enclosure(set_box(job, box.width, box.height, box.depth), ambient_c=ambient, room_c=ambient / 3)
    for name, power, fields in loads:
        job = add_load(job, name, **power, **fields)
    for name, wetting, watts in signals:
        job = add_signal(job, name, wetting=wetting, watts=watts)
    for key, amount in own:
        job = override(job, key, amount, "to try it")
    job = with_names_recorded(job)
    evaluation = Evaluation(job)
    assert len(evaluation.get(RULES)) > 20
    for name in LISTS:
        assert as_csv(schedule(name, evaluation))
    assert evaluation.get(SHEET_DRAWINGS)
    assert evaluation.get(STRIP_DRAWINGS)
    assert evaluation.get(LABELS).labels
    assert mark_out(evaluation.get(PLATE_DRAWING), evaluation.get(HOLES), "plate").shapes
    assert evaluation.get(DOOR_DRAWING).shapes
    assert len(statuses(evaluation, ())) == 11
    for load in job.loads:
        assert details_of(evaluation, LoadKey(load.id), ())
        for other in alternatives_of(job, load, evaluation.get(PROPOSAL)):
            assert other.words
            assert math.isfinite(other.space + other.loss_w + other.start_a)
    assert load_job(dump_job(job)) == job
