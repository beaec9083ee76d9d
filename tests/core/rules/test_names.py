"""What is said before it is printed: numbers twice, too long, kept twice; tags twice, letters mixed."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.edits import SetParameter, after_edit
from riktig.core.exports import schedule
from riktig.core.geometry import Text
from riktig.core.job import (
    CircuitId,
    Command,
    DeviceId,
    Form,
    Job,
    Letters,
    MarkerText,
    Numbering,
    OwnDevice,
    Practice,
    ReservedNumber,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
)
from riktig.core.keys import read_key
from riktig.core.labels import INDEX, find
from riktig.core.rules import RULES, Finding, Verdict
from riktig.core.schematic import add_device, rename, with_names_recorded
from riktig.core.store import dump_job, load_job


def found(job: Job, code: str) -> tuple[Finding, ...]:
    return next(result.findings for result in plan_for(job).get(RULES) if result.code == code)


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


def with_controller() -> Job:
    job = add_load(new_job("A-1", "addresses"), "belt", 1.5, start=Start.DRIVE, command=Command.CONTROLLER)
    job = add_signal(job, "photocell", wetting=Wetting.DC, watts=1.0)
    job = add_signal(job, "level", wetting=Wetting.DC, form=Form.ANALOGUE)
    return with_names_recorded(job)


def addresses(job: Job) -> list[str]:
    return [str(row[0]) for row in schedule("io", plan_for(job)).rows]


def test_addresses_begin_where_the_program_counts_from_on_cards_sheets_and_list() -> None:
    job = with_controller()
    assert {"%IX0.0", "%QX0.0", "%QW0", "%IW0"} <= set(addresses(job))
    controller = CircuitId("s4")
    evaluation = plan_for(job)
    for name, first in (("inputs from byte", "64"), ("outputs from byte", "100")):
        job = after_edit(evaluation, SetParameter(controller, name, first))
        evaluation = plan_for(job)
    said = set(addresses(job))
    assert {"%IX64.0", "%QX100.0", "%QW100", "%IW64"} <= said
    assert not {text for text in said if text.startswith(("%IX0", "%QX0.", "%IW0", "%QW0"))}
    texts = {m.text for sheet in evaluation.get(SHEET_DRAWINGS) for m in sheet.shapes if isinstance(m, Text)}
    assert any("%IX64.0" in text for text in texts)
    assert not any("%IX0.0" in text for text in texts)
    assert find(evaluation.get(INDEX), "%QW100"), "found by its address"
    assert not found(job, "N03")


def test_two_points_of_one_address_are_said() -> None:
    """A card of one's own that begins where the first one does: eight points each, all of them twice."""
    job = with_controller()
    assert not found(job, "N03")
    card = OwnDevice("AI.more", "inputs", "plate", "inputs %IX0.0 to 0.7")
    twice = with_names_recorded(add_device(job, CircuitId("s4"), card))
    said = found(twice, "N03")
    assert len(said) == 8
    assert all(one.verdict is Verdict.FAILS for one in said)
    assert any(one.message.startswith("%IX0.0 stands at ") for one in said)
    apart = OwnDevice("AI.more", "inputs", "plate", "inputs %IX8.0 to 8.7")
    assert not found(with_names_recorded(add_device(job, CircuitId("s4"), apart)), "N03")


def test_without_a_controller_no_address_is_counted() -> None:
    result = next(r for r in plan_for(one_motor()).get(RULES) if r.code == "N03")
    assert result.evidence == ("no card of a controller",)
