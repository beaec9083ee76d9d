"""Two jobs made of one are brought together; what both changed is named and not decided."""

from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.job import Job, Load, LoadId, add_load, change_load, remove_load
from riktig.core.schematic import NAMES, with_names_recorded
from riktig.core.store import merge_jobs
from riktig.demo_job import kelp_shed

BASE = kelp_shed()
FIRST, SECOND = BASE.loads[0], BASE.loads[1]


def with_load(job: Job, load: LoadId, **more: Any) -> Job:
    return change_load(job, load, **more)


def test_changes_of_different_loads_come_together() -> None:
    here, there = with_load(BASE, FIRST.id, kw=1.5), with_load(BASE, SECOND.id, name="Second fan")
    merged = merge_jobs(BASE, here, there)
    assert not merged.both_changed
    assert merged.job.loads[0].kw == 1.5
    assert merged.job.loads[1].name == "Second fan"


def test_changes_of_different_fields_of_one_load_come_together() -> None:
    merged = merge_jobs(BASE, with_load(BASE, FIRST.id, kw=1.5), with_load(BASE, FIRST.id, cable_m=33.0))
    assert not merged.both_changed
    assert (merged.job.loads[0].kw, merged.job.loads[0].cable_m) == (1.5, 33.0)


def test_one_field_changed_by_both_is_shown_side_by_side() -> None:
    here, there = with_load(BASE, FIRST.id, kw=1.5), with_load(BASE, FIRST.id, kw=2.2)
    merged = merge_jobs(BASE, here, there)
    (unmerged,) = merged.both_changed
    assert (unmerged.path, unmerged.here, unmerged.there) == (f"loads · {FIRST.id} · kw", "1.5", "2.2")
    assert merged.job.loads[0].kw == 2.2
    settled = merge_jobs(BASE, here, there, keep=[unmerged.path])
    assert not settled.both_changed
    assert settled.job.loads[0].kw == 1.5


def test_a_load_changed_here_and_removed_there_is_named() -> None:
    merged = merge_jobs(BASE, with_load(BASE, FIRST.id, kw=1.5), remove_load(BASE, FIRST.id))
    assert any(str(FIRST.id) in unmerged.path for unmerged in merged.both_changed)


def test_a_load_removed_by_both_is_gone() -> None:
    gone = remove_load(BASE, FIRST.id)
    assert merge_jobs(BASE, gone, gone).job.loads == gone.loads


def test_loads_added_on_both_sides_under_one_name_are_not_melted_into_one() -> None:
    here, there = (with_names_recorded(add_load(BASE, name=name, kw=kw)) for name, kw in (("Pump", 1.1), ("Fan", 3.0)))
    merged = merge_jobs(BASE, here, there)
    assert merged.both_changed


def test_no_tag_stands_twice_after_both_gave_some() -> None:
    here = with_names_recorded(remove_load(BASE, FIRST.id))
    there = with_names_recorded(add_load(BASE, name="Fan", kw=3.0))
    job = merge_jobs(BASE, here, there).job
    tags = [tag for tag in plan_for(job).get(NAMES).tag.values() if tag[0] in "KM"]
    assert len(tags) == len(set(tags))


CHANGES = st.lists(
    st.tuples(st.sampled_from(BASE.loads), st.sampled_from(["kw", "cable_m", "name"]), st.integers(1, 9)), max_size=5
)


def changed(changes: list[tuple[Load, str, int]]) -> Job:
    job = BASE
    for load, name, value in changes:
        job = with_load(job, load.id, **{name: f"L{value}" if name == "name" else float(value)})
    return job


@settings(max_examples=times(20, 300), deadline=None)
@given(CHANGES, CHANGES)
def test_every_change_of_one_side_alone_is_in_the_result(
    mine: list[tuple[Load, str, int]], theirs: list[tuple[Load, str, int]]
) -> None:
    here, there = changed(mine), changed(theirs)
    merged = merge_jobs(BASE, here, there)
    paths = {unmerged.path for unmerged in merged.both_changed}
    for base, first, last, result in zip(BASE.loads, here.loads, there.loads, merged.job.loads, strict=True):
        for name in ("kw", "cable_m", "name"):
            was, one, other = (getattr(load, name) for load in (base, first, last))
            if one != was and other not in (was, one):
                assert f"loads · {base.id} · {name}" in paths
            else:
                assert getattr(result, name) == (one if one != was else other)
    assert {part.path for part in merge_jobs(BASE, there, here).both_changed} == paths
