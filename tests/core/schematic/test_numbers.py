"""Numbers and tags are kept: an edit keeps every one it can, undo is exact."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    CircuitId,
    DeviceId,
    Insertable,
    Job,
    MotorNumbers,
    NewBetween,
    Numbering,
    OwnRung,
    PairNumbers,
    ReservedNumber,
    add_load,
    change_load,
    read_pin,
    remove_load,
    set_practice,
)
from riktig.core.schematic import (
    NAMES,
    NETS,
    add_rung,
    insert_contact,
    record_printed,
    remove_element,
    rename,
    renumber,
    with_names_recorded,
)
from riktig.core.wiring import WIRING
from riktig.demo_job import kelp_shed
from tests.core.schematic.builders import START, STOP, joins, one_motor
from tests.effort import times
from tests.shared_plan import plan_for


def test_a_contact_put_in_takes_the_next_number_and_all_others_hold() -> None:
    before = one_motor()
    after = with_names_recorded(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second stop"))
    old, new = joins(before), joins(after)
    assert set(new) - set(old) == {"13"}
    changed = {number for number in old if old[number] != new[number]}
    assert changed == {"9"}
    assert new["13"] == {"S1:2", "S3:1"}
    assert new["9"] == {"S3:2", "S2:3", "K1:13"}


def test_a_number_out_of_use_is_not_given_again() -> None:
    job = with_names_recorded(insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop"))
    job = with_names_recorded(remove_element(job, STOP))
    assert "13" not in joins(job) or "9" not in joins(job)
    job = with_names_recorded(insert_contact(job, START, Insertable.STOP_BUTTON, "third stop"))
    assert "14" in joins(job)


def test_counting_anew_closes_the_gaps_only_on_request() -> None:
    job = with_names_recorded(insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop"))
    job = with_names_recorded(remove_element(job, STOP))
    numbers = sorted(int(n) for n in joins(renumber(job)) if n.isdigit())
    assert numbers == list(range(1, len(numbers) + 1))


def test_tags_of_the_others_hold_when_a_load_comes_or_goes(two_motors: Job) -> None:
    before = plan_for(two_motors).get(NAMES).tag
    after = plan_for(with_names_recorded(remove_load(two_motors, two_motors.loads[0].id))).get(NAMES).tag
    assert all(before[device] == tag for device, tag in after.items())
    more = plan_for(with_names_recorded(add_load(two_motors, "belt", 1.1))).get(NAMES).tag
    assert all(more[device] == tag for device, tag in before.items())


def test_tags_count_by_class_letter_and_a_strip_shares_one(two_motors: Job) -> None:
    tags = plan_for(two_motors).get(NAMES).tag
    assert (tags[DeviceId("c1.K")], tags[DeviceId("c2.K")]) == ("K1", "K2")
    assert {tags[d] for d in tags if d.startswith("c1.X.")} == {"X2"}
    loose = [tag for device, tag in tags.items() if ".X" not in device]
    assert len(loose) == len(set(loose))


def test_renaming_changes_the_tag_and_nothing_else() -> None:
    job = rename(one_motor(), DeviceId("c1.K"), "K10")
    assert plan_for(job).get(NAMES).tag[DeviceId("c1.K")] == "K10"
    assert joins(job)["4"] == {"F1:2", "K10:1"}
    strip = rename(job, DeviceId("c1.X.U"), "X7")
    assert {plan_for(strip).get(NAMES).tag[d] for d in plan_for(strip).get(NAMES).tag if d.startswith("c1.X.")} == {
        "X7"
    }


@pytest.mark.parametrize("tag", ["", "F1", "A B", "K:1", "THIRTEENCHARS", "K/1"])
def test_a_tag_that_cannot_be_printed_or_is_taken_is_refused(tag: str) -> None:
    job = one_motor()
    with pytest.raises(RiktigError) as caught:
        rename(job, DeviceId("c1.K"), tag)
    assert caught.value.hint


def numbers_of(job: Job) -> dict[str, str]:
    """Number by the potential's first pin."""
    return {str(net): number for net, number in plan_for(job).get(NAMES).number.items()}


def test_a_potential_between_gets_its_neighbours_number_and_a_letter_where_the_house_wants_it() -> None:
    before = one_motor(new_between=NewBetween.SUFFIX)
    once = with_names_recorded(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second stop"))
    assert set(joins(once)) - set(joins(before)) == {"8a"}
    twice = with_names_recorded(insert_contact(once, STOP, Insertable.STOP_BUTTON, "third stop"))
    assert set(joins(twice)) - set(joins(once)) == {"8b"}, "never a letter behind a letter"
    more = with_names_recorded(add_load(twice, "belt", 1.1))
    assert not {n for n in set(joins(more)) - set(joins(twice)) if n[-1].isalpha() and n[:-1].isdecimal()}


def test_a_circuit_that_grows_stays_in_its_own_range_while_there_is_room() -> None:
    job = with_names_recorded(add_load(one_motor(number_step=20), "belt", 1.1))
    own = {n for pin, n in numbers_of(job).items() if pin.startswith("c1.") and n.isdecimal()}
    assert {(int(n) - 1) // 20 for n in own} == {1}, "the supply has the first range"
    grown = with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, "second stop"))
    (new,) = set(joins(grown)) - set(joins(job))
    assert int(new) == max(map(int, own)) + 1


def test_a_full_range_goes_on_behind_the_last() -> None:
    job = with_names_recorded(add_load(one_motor(number_step=3), "belt", 1.1))
    highest = max(int(n) for n in joins(job) if n.isdecimal())
    for _ in range(3):
        job = with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, "more"))
    assert max(int(n) for n in joins(job) if n.isdecimal()) > highest
    assert len(numbers_of(job)) == len(plan_for(job).get(NAMES).number)


@pytest.mark.parametrize("scheme", list(Numbering))
def test_a_printed_number_is_retired_with_every_scheme(scheme: Numbering) -> None:
    job = with_names_recorded(insert_contact(one_motor(numbering=scheme), STOP, Insertable.STOP_BUTTON, "second stop"))
    job = record_printed(job)
    known = set(joins(job))
    job = with_names_recorded(remove_element(job, STOP))
    gone = known - set(joins(job))
    assert gone
    job = with_names_recorded(insert_contact(job, START, Insertable.STOP_BUTTON, "third stop"))
    assert set(joins(job)) & gone == set(), "a label with that number may still hang somewhere"
    assert set(numbers_of(job).values()) <= set(record_printed(job).printed)


def test_numbering_anew_clears_what_was_printed() -> None:
    job = record_printed(with_names_recorded(insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop")))
    assert "13" in job.printed
    assert renumber(job).printed == ()


def test_another_scheme_numbers_anew_until_labels_are_printed() -> None:
    job = one_motor()
    assert "103" in joins(with_names_recorded(set_practice(job, numbering=Numbering.BY_SHEET)))
    printed = with_names_recorded(set_practice(record_printed(job), numbering=Numbering.BY_SHEET))
    assert joins(printed) == joins(job)
    assert "103" in joins(renumber(printed))


def test_common_potentials_have_the_numbers_that_the_house_kept_for_them() -> None:
    kept = (ReservedNumber("control.live", "100"), ReservedNumber("control.back", "0"), ReservedNumber("dc.zero", "M"))
    job = with_names_recorded(set_practice(kelp_shed(), reserved=kept, reserved_numbers=10))
    evaluation = plan_for(job)
    by_node = {node: evaluation.get(NAMES).number[net.id] for net in evaluation.get(NETS).nets for node in net.nodes}
    assert (by_node["control.live"], by_node["control.back"], by_node["dc.zero"]) == ("100", "0", "M")
    counted = [int(one.number) for one in job.numbers]
    assert min(counted) == 11
    assert 100 not in counted


def test_a_motors_conductors_may_be_counted_as_all_others() -> None:
    assert "M1-U" in joins(one_motor())
    counted = joins(one_motor(motor_numbers=MotorNumbers.COUNTED))
    assert not [n for n in counted if n.endswith("M1")]
    assert next(n for n in counted if "M1:U1" in counted[n]).isdecimal()


def test_a_signal_pair_shares_a_number_with_a_sign_each() -> None:
    job = with_names_recorded(set_practice(kelp_shed(), pairs=PairNumbers.SHARED))
    by_pin = {pin: one.number for one in job.numbers for pin in one.pins}
    plus, minus = by_pin[read_pin("s4.AO0:AO0")], by_pin[read_pin("s4.AO0:C0")]
    assert (plus[:-1], plus[-1], minus[-1]) == (minus[:-1], "+", "-")
    assert plus[:-1] not in set(by_pin.values()), "the bare number belongs to nobody"


def test_two_contacts_of_one_device_in_series_are_one_when_nothing_leaves_between() -> None:
    """Common practice, no source: no wire leaves there, so the point has no number."""
    rung = OwnRung("more", "guard", "control", "K:33-34 K:43-44 S.stop:3-4", "N")
    before = with_names_recorded(insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop"))
    with pytest.raises(RiktigError):
        add_rung(before, CircuitId("c1"), rung)
    job = with_names_recorded(
        add_rung(before, CircuitId("c1"), OwnRung("more", "guard", "control", "K:13-14 K:21-22", "N"))
    )
    evaluation = plan_for(job)
    between = [n for n in evaluation.get(NETS).nets if n.id not in evaluation.get(NAMES).number and not n.inner]
    if between:
        assert {pin.device for net in between for pin in net.pins} == {"c1.K"}
        assert {w.number for w in evaluation.get(WIRING).wires if w.net == between[0].id} == {"link"}


def test_a_wire_keeps_its_own_number_while_its_end_stays() -> None:
    before = one_motor(numbering=Numbering.BY_WIRE)
    after = with_names_recorded(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second stop"))
    old = {w.key: w.number for w in plan_for(before).get(WIRING).wires}
    new = {w.key: w.number for w in plan_for(after).get(WIRING).wires}
    both = [key for key in old if key in new]
    assert len(both) > len(old) - 4
    assert all(old[key] == new[key] for key in both)


WHAT = st.sampled_from([one for one in Insertable if one is not Insertable.CONTACT])
AT = st.sampled_from([STOP, START])


@settings(max_examples=times(40, 400), deadline=None)
@given(
    st.lists(st.tuples(AT, WHAT, st.booleans()), max_size=5),
    st.sampled_from(list(Numbering)),
    st.sampled_from(list(NewBetween)),
    st.sampled_from([0, 1, 7, 50]),
)
def test_numbers_are_unique_total_and_stable_under_any_insertions(
    edits: list[tuple[object, Insertable, bool]], scheme: Numbering, between: NewBetween, step: int
) -> None:
    job = one_motor(numbering=scheme, new_between=between, number_step=step)
    for at, what, parallel in edits:
        before = joins(job)
        job = with_names_recorded(insert_contact(job, at, what, "more", parallel=parallel))  # type: ignore[arg-type]
        after = joins(job)
        assert set(before) <= set(after), "no number went away when something was put in"
        assert with_names_recorded(job) is job
    evaluation = Evaluation(job)
    numbers = [n for n in evaluation.get(NAMES).number.values() if n not in ("N", "PE")]
    assert len(numbers) == len(set(numbers))


def test_two_derivations_of_one_job_are_equal(demo: Job) -> None:
    assert Evaluation(demo).get(NAMES) == Evaluation(demo).get(NAMES)
    bigger = change_load(demo, demo.loads[0].id, kw=7.5)
    assert joins(with_names_recorded(bigger)) == joins(demo), "a larger motor renumbers nothing"
