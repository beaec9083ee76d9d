"""Numbers that no low-voltage panel meets are refused with the range; what is in a file still opens."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import RANGES, AddSource, ChangeSource, SetEnclosure, SetSupply, after_edit, range_words
from riktig.core.errors import ImpossibleValueError
from riktig.core.job import EnclosureFields, Job, SupplyFields, add_source, new_job, set_supply
from riktig.core.store import dump_job, load_job


def supplied(fields: SupplyFields) -> Job:
    return after_edit(plan_for(new_job("R-1", "ranges")), SetSupply(fields))


@pytest.mark.parametrize(
    ("fields", "words"),
    [
        ({"voltage_v": 99_999.0}, "24 to 1000 V, not 99999 V: low-voltage panels end at 1000 V"),
        ({"voltage_to_neutral_v": 5.0}, "24 to 1000 V, not 5 V"),
        ({"frequency_hz": 5000.0}, "15 to 400 Hz, not 5000 Hz"),
        ({"upstream_a": 90_000.0}, "1 to 6300 A, not 90000 A"),
        ({"fault_ka": 5000.0}, "0.1 to 200 kA, not 5000 kA"),
        ({"through_a": 0.5}, "1 to 6300 A; 0: none, not 0.5 A"),
    ],
)
def test_what_no_panel_meets_is_refused_with_its_range(fields: SupplyFields, words: str) -> None:
    with pytest.raises(ImpossibleValueError) as error:
        supplied(fields)
    assert words in str(error.value)


@pytest.mark.parametrize(
    "fields",
    [{"voltage_v": 24.0}, {"voltage_v": 1000.0}, {"frequency_hz": 16.7}, {"through_a": 0.0}, {"fault_ka": 200.0}],
)
def test_both_ends_and_a_zero_that_says_something_are_accepted(fields: SupplyFields) -> None:
    ((key, value),) = fields.items()
    assert getattr(supplied(fields).supply, key) == value


def test_a_further_supply_has_its_own_range() -> None:
    job = add_source(new_job("R-2", "t"), "fire panel", 24.0)
    evaluation = plan_for(job)
    for edit in (AddSource("lift", 20_000.0), ChangeSource(job.sources[0].id, {"voltage_v": 20_000.0})):
        with pytest.raises(ImpossibleValueError, match="1 to 1000 V, not 20000 V"):
            after_edit(evaluation, edit)
    later = after_edit(evaluation, ChangeSource(job.sources[0].id, {"protected_a": 0.0}))
    assert later.sources[0].protected_a == 0


def test_the_air_around_the_box_is_where_people_work() -> None:
    fields: EnclosureFields = {"room_c": 90.0}
    with pytest.raises(ImpossibleValueError, match="-30 to 70 °C, not 90 °C"):
        after_edit(plan_for(new_job("R-3", "t")), SetEnclosure(fields))


def test_a_file_with_a_value_beyond_its_range_opens_and_other_answers_can_be_changed() -> None:
    job = load_job(dump_job(set_supply(new_job("R-4", "t"), voltage_v=11_000.0)))
    assert job.supply.voltage_v == 11_000
    assert after_edit(plan_for(job), SetSupply({"upstream_a": 100.0})).supply.upstream_a == 100


def test_every_range_has_words() -> None:
    assert range_words("voltage_v") == "24 to 1000 V"
    assert range_words("through_a") == "1 to 6300 A; 0: none"
    assert range_words("name") == ""
    assert all(own.low < own.high for own in RANGES.values())
