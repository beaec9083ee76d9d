"""Numbers and tags are kept: an edit keeps every one it can, undo is exact."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from riktig.core.circuit import NAMES, insert_contact, remove_element, rename, renumber, settle
from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, Insertable, Job, add_load, change_load, remove_load
from riktig.core.plan import Plan
from tests.core.circuit.builders import START, STOP, joins, one_motor


def test_a_contact_put_in_takes_the_next_number_and_all_others_hold() -> None:
    before = one_motor()
    after = settle(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second stop"))
    old, new = joins(before), joins(after)
    assert set(new) - set(old) == {"13"}
    changed = {number for number in old if old[number] != new[number]}
    assert changed == {"9"}
    assert new["13"] == {"S1:2", "S3:1"}
    assert new["9"] == {"S3:2", "S2:3", "K1:13"}


def test_a_number_out_of_use_is_not_given_again() -> None:
    job = settle(insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop"))
    job = settle(remove_element(job, STOP))
    assert "13" not in joins(job) or "9" not in joins(job)
    job = settle(insert_contact(job, START, Insertable.STOP_BUTTON, "third stop"))
    assert "14" in joins(job)


def test_counting_anew_closes_the_gaps_only_on_request() -> None:
    job = settle(insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop"))
    job = settle(remove_element(job, STOP))
    numbers = sorted(int(n) for n in joins(renumber(job)) if n.isdigit())
    assert numbers == list(range(1, len(numbers) + 1))


def test_tags_of_the_others_hold_when_a_load_comes_or_goes(two_motors: Job) -> None:
    before = Plan(two_motors).get(NAMES).tag
    after = Plan(settle(remove_load(two_motors, two_motors.loads[0].id))).get(NAMES).tag
    assert all(before[device] == tag for device, tag in after.items())
    more = Plan(settle(add_load(two_motors, "belt", 1.1))).get(NAMES).tag
    assert all(more[device] == tag for device, tag in before.items())


def test_tags_count_by_class_letter_and_a_strip_shares_one(two_motors: Job) -> None:
    tags = Plan(two_motors).get(NAMES).tag
    assert (tags[DeviceId("c1.K")], tags[DeviceId("c2.K")]) == ("K1", "K2")
    assert {tags[d] for d in tags if d.startswith("c1.X.")} == {"X2"}
    loose = [tag for device, tag in tags.items() if ".X" not in device]
    assert len(loose) == len(set(loose))


def test_renaming_changes_the_tag_and_nothing_else() -> None:
    job = rename(one_motor(), DeviceId("c1.K"), "K10")
    assert Plan(job).get(NAMES).tag[DeviceId("c1.K")] == "K10"
    assert joins(job)["4"] == {"F1:2", "K10:1"}
    strip = rename(job, DeviceId("c1.X.U"), "X7")
    assert {Plan(strip).get(NAMES).tag[d] for d in Plan(strip).get(NAMES).tag if d.startswith("c1.X.")} == {"X7"}


@pytest.mark.parametrize("tag", ["", "F1", "A B", "K:1", "THIRTEENCHARS", "K/1"])
def test_a_tag_that_cannot_be_printed_or_is_taken_is_refused(tag: str) -> None:
    job = one_motor()
    with pytest.raises(RiktigError) as caught:
        rename(job, DeviceId("c1.K"), tag)
    assert caught.value.hint


WHAT = st.sampled_from([one for one in Insertable if one is not Insertable.CONTACT])
AT = st.sampled_from([STOP, START])


@settings(max_examples=40, deadline=None)
@given(st.lists(st.tuples(AT, WHAT, st.booleans()), max_size=5))
def test_numbers_are_unique_total_and_stable_under_any_insertions(edits: list[tuple[object, Insertable, bool]]) -> None:
    job = one_motor()
    for at, what, parallel in edits:
        before = joins(job)
        job = settle(insert_contact(job, at, what, "more", parallel=parallel))  # type: ignore[arg-type]
        after = joins(job)
        assert set(before) <= set(after), "no number went away when something was put in"
        assert settle(job) is job
    plan = Plan(job)
    numbers = [n for n in plan.get(NAMES).number.values() if n not in ("N", "PE")]
    assert len(numbers) == len(set(numbers))


def test_two_derivations_of_one_job_are_equal(demo: Job) -> None:
    assert Plan(demo).get(NAMES) == Plan(demo).get(NAMES)
    bigger = change_load(demo, demo.loads[0].id, kw=7.5)
    assert joins(settle(bigger)) == joins(demo), "a larger motor renumbers nothing"
