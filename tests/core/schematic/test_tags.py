"""Tags: letter sets, places on the sheets with the cases that break, the builder's own, and what moves."""

from dataclasses import replace

import pytest

from riktig.core.catalogue import class_of, classes, kinds, letters_ever, letters_of
from riktig.core.job import (
    ClassLetters,
    DeviceId,
    ElementId,
    Job,
    Letters,
    Practice,
    TagStyle,
    add_load,
    remove_load,
    set_practice,
)
from riktig.core.schematic import (
    CIRCUITS,
    NAMES,
    SHEETS,
    Circuits,
    device_places,
    record_printed,
    rename,
    tag_anew,
    with_names_recorded,
)
from riktig.core.schematic.numbering.tags import tag_all
from riktig.demo_job import frost_fan, kelp_shed
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

PUBLISHED = {
    # IEC 81346-2:2009 table 2 and IEC 750 (DIN 40719-2), NFPA 79 annex E: all from memory.
    "contactor": ("QA", "K", "M"),
    "relay": ("KF", "K", "CR"),
    "overload": ("BC", "F", "OL"),
    "isolator": ("QB", "Q", "DISC"),
    "control_breaker": ("FC", "F", "CB"),
    "fuse": ("FC", "F", "FU"),
    "start_button": ("SF", "S", "PB"),
    "selector_two": ("SF", "S", "SS"),
    "lamp": ("PF", "H", "LT"),
    "motor": ("MA", "M", "MTR"),
    "transformer": ("TA", "T", "T"),
    "dc_supply": ("TB", "G", "PS"),
    "drive": ("TA", "U", "VFD"),
    "terminal": ("XD", "X", "TB"),
    "valve": ("MB", "Y", "SOL"),
    "float_no": ("BL", "S", "FS"),
}


def tags(job: Job) -> dict[DeviceId, str]:
    return plan_for(job).get(NAMES).tag


@pytest.mark.parametrize("kind_id", sorted(PUBLISHED))
def test_letters_are_those_of_the_published_sets(kind_id: str) -> None:
    sets = (Letters.IEC, Letters.OLD, Letters.AMERICAN)
    assert tuple(letters_of(kind_id, one) for one in sets) == PUBLISHED[kind_id]
    assert set(PUBLISHED[kind_id]) <= letters_ever(kind_id)


@pytest.mark.parametrize("letters", list(Letters))
def test_one_class_goes_by_one_set_of_letters(letters: Letters) -> None:
    by_class: dict[str, set[str]] = {}
    for kind in kinds():
        by_class.setdefault(class_of(kind.id), set()).add(letters_of(kind.id, letters))
    assert all(len(found) == 1 for found in by_class.values())
    assert set(by_class) == set(classes())


def test_a_north_american_job_may_be_called_by_its_codes() -> None:
    found = tags(with_names_recorded(set_practice(frost_fan(), letters=Letters.AMERICAN)))
    heads = {tag.rstrip("0123456789") for tag in found.values()}
    assert {"DISC", "MTR", "TB", "PB", "LT"} <= heads


def test_the_houses_own_letters_stand_for_their_class_and_the_rest_keeps_its_own() -> None:
    house = (ClassLetters("contactor", "KM"), ClassLetters("lamp", "LP"))
    found = tags(one_motor(letters=Letters.HOUSE, house_letters=house))
    assert found[DeviceId("c1.K")] == "KM1"
    assert "LP1" in found.values()
    assert found[DeviceId("c1.M")] == "M1"


def test_another_set_names_anew_but_never_what_the_builder_named() -> None:
    job = rename(one_motor(), DeviceId("c1.K"), "K10")
    found = tags(with_names_recorded(set_practice(job, letters=Letters.IEC)))
    assert (found[DeviceId("c1.K")], found[DeviceId("c1.M")]) == ("K10", "MA1")
    printed = with_names_recorded(set_practice(record_printed(job), letters=Letters.IEC))
    assert tags(printed) == tags(job), "labels are printed: only on request"
    assert tags(tag_anew(printed)) == found


def test_a_placed_tag_says_sheet_and_column_of_its_coil() -> None:
    job = with_names_recorded(set_practice(kelp_shed(), tags=TagStyle.PLACED))
    evaluation = plan_for(job)
    places, found = device_places(evaluation.get(CIRCUITS)), tags(job)
    devices = evaluation.get(CIRCUITS).by_id
    for device, place in places.items():
        if devices[device].strip or devices[device].kind_id == "earth_bar":
            continue
        here = f"{devices[device].kind.letter}{place.sheet}{place.column}"
        assert found[device].rstrip("bcdefgh") == here
    coil = evaluation.get(SHEETS).places[ElementId("c2.K/A1-A2")]
    assert found[DeviceId("c2.K")] == f"K{coil.sheet}{coil.column}"


def test_two_of_a_kind_in_one_column_are_told_apart_by_a_letter() -> None:
    found = tags(with_names_recorded(set_practice(kelp_shed(), tags=TagStyle.PLACED)))
    doubled = [tag for tag in found.values() if tag[-1] == "b"]
    assert doubled
    assert all(tag[:-1] in found.values() for tag in doubled)


def test_a_sheet_over_99_reads_one_way_only() -> None:
    """The column is one figure, so the last figure is the column however many the sheet has."""
    job = one_motor()
    circuits: Circuits = plan_for(job).get(CIRCUITS)
    many = with_names_recorded(set_practice(job, tags=TagStyle.PLACED))
    for n in range(3):
        many = add_load(many, f"pump {n}", 1.1)
    places = device_places(plan_for(with_names_recorded(many)).get(CIRCUITS))
    text = {f"K{place.sheet}{place.column}": place for place in places.values()}
    assert all((int(tag[1:-1]), int(tag[-1])) == (place.sheet, place.column) for tag, place in text.items())
    assert len(tag_all(circuits, (), Practice(tags=TagStyle.PLACED))[0]) == len(circuits.devices)


def test_a_symbol_that_moves_keeps_its_tag_until_it_is_asked_for_anew() -> None:
    job = with_names_recorded(
        set_practice(add_load(add_load(one_motor(), "belt", 1.1), "pump", 0.75), tags=TagStyle.PLACED)
    )
    after = with_names_recorded(remove_load(job, job.loads[0].id))
    kept = tags(after)
    assert all(kept[device] == tags(job)[device] for device in kept)
    moved = {device for device, tag in tags(tag_anew(after)).items() if tag != kept[device]}
    assert moved, "the sheets have moved up"
    evaluation = plan_for(tag_anew(after))
    strips = {d.id for d in evaluation.get(CIRCUITS).devices if d.strip}
    for device in moved - strips:
        place = device_places(evaluation.get(CIRCUITS)).get(device)
        assert place is None or f"{place.sheet}{place.column}" in tags(evaluation.document)[device]


def test_the_tags_of_a_document_are_those_it_was_settled_with() -> None:
    for style in some(TagStyle):
        job = with_names_recorded(set_practice(kelp_shed(), tags=style))
        assert with_names_recorded(job) is job
        assert tags(replace(job, title="again")) == tags(job)
