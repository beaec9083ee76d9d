"""What is said before it is printed: numbers twice, too long, kept twice; tags twice, letters mixed."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor

from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job, Letters, MarkerText, Numbering, Practice, ReservedNumber, set_practice
from riktig.core.keys import read_key
from riktig.core.rules import RULES, Finding, Verdict
from riktig.core.schematic import rename, with_names_recorded
from riktig.core.store import dump_job, load_job


def found(job: Job, code: str) -> tuple[Finding, ...]:
    return next(result.findings for result in Evaluation(job).get(RULES) if result.code == code)


def test_a_plain_job_has_nothing_to_see_to() -> None:
    assert not found(one_motor(), "N01")
    assert not found(one_motor(), "N02")


def test_a_scheme_that_makes_duplicates_is_said() -> None:
    job = one_motor(numbering=Numbering.HOUSE, scheme="{sheet}{column}")
    said = found(job, "N01")
    assert said
    assert all(one.verdict is Verdict.FAILS and "potentials carry the number" in one.message for one in said)
    assert not found(with_names_recorded(set_practice(job, scheme="{sheet}{column}{count}")), "N01")


def test_a_number_of_forty_signs_is_said_once_a_potential_and_not_again_by_the_markers() -> None:
    job = one_motor(numbering=Numbering.HOUSE, scheme="W" * 38 + "{count:02}", marker=MarkerText.NUMBER)
    said = found(job, "N01")
    assert len(said) == len(job.numbers)
    assert "40 signs" in said[0].message
    assert "a wire marker does not hold it" in said[0].message
    assert not found(job, "M02")


def test_a_number_kept_for_two_potentials_is_said() -> None:
    twice = (ReservedNumber("control.live", "5"), ReservedNumber("control.back", "5"))
    job = with_names_recorded(set_practice(one_motor(), reserved=twice))
    assert any("kept for more than one" in one.message and "control return" in one.message for one in found(job, "N01"))


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"scheme": "{shet}"}, "shet"),
        ({"scheme": "wire"}, "no field"),
        ({"scheme": "{count:x}"}, "width"),
        ({"scheme": "{count} {sheet}"}, "sign"),
        ({"scheme": "{count"}, "cannot be read"),
        ({"number_step": -1}, "range"),
        ({"reserved": (ReservedNumber("nowhere", "1"),)}, "nowhere"),
        ({"reserved": (ReservedNumber("dc.zero", ""),)}, "0 V"),
    ],
)
def test_a_practice_that_cannot_be_followed_is_refused(fields: dict[str, object], said: str) -> None:
    with pytest.raises(ValueError, match=said):
        Practice(**fields)  # type: ignore[arg-type]


def test_a_tag_given_twice_in_a_file_is_said() -> None:
    job = one_motor()
    twice = replace(job, tags=tuple(replace(t, tag="K1") if t.device == "c1.F" else t for t in job.tags))
    said = found(twice, "N02")
    assert any(one.verdict is Verdict.FAILS and "2 devices are called K1" in one.message for one in said)


def test_mixed_letters_for_one_class_need_a_decision() -> None:
    job = rename(one_motor(), DeviceId("c1.S.stop"), "PB1")
    (said,) = found(job, "N02")
    assert said.verdict is Verdict.JUDGE
    assert "PB" in said.message
    assert said.where == read_key("device:c1.S.stop")
    assert not found(with_names_recorded(set_practice(one_motor(), letters=Letters.AMERICAN)), "N02")


def test_a_job_of_the_first_format_is_read_with_its_numbers_as_texts() -> None:
    job = one_motor()
    text = dump_job(job).replace('"format":3', '"format":1')
    for one in job.numbers:
        text = text.replace(f'"number":"{one.number}"', f'"number":{one.number}')
    text = text.replace(',"marks":[]', "").replace(',"own":false', "").replace(',"printed":[]', "")
    assert '"number":7' in text
    assert load_job(text) == job
