"""The document: what one class can see is checked when it is made; an edit shares what it left."""

from dataclasses import FrozenInstanceError, fields, is_dataclass

import pytest

from riktig.core.errors import RiktigError
from riktig.core.job import (
    CHOICES,
    INCOMER_ID,
    EarthScheme,
    Enclosure,
    Job,
    Load,
    LoadId,
    Practice,
    Recipe,
    Supply,
    add_load,
    change_load,
    new_job,
    read_current,
    read_power,
    remove_load,
    set_enclosure,
    set_heading,
    set_practice,
    set_supply,
)


@pytest.mark.parametrize("kw", [0, -3, 1e9, float("nan"), float("inf"), 400.1])
def test_a_motor_that_cannot_be_is_refused_at_construction(kw: float) -> None:
    with pytest.raises(ValueError, match=r"the power must be 0\.001 to 400 kW"):
        Load(LoadId("m1"), "fan", kw)


@pytest.mark.parametrize(
    ("text", "kw"), [("4", 4.0), (" 4 kW ", 4.0), ("0,75", 0.75), ("0.37kw", 0.37), ("400", 400.0)]
)
def test_a_power_is_read_as_people_write_it(text: str, kw: float) -> None:
    assert read_power(text) == kw


@pytest.mark.parametrize("text", ["0", "-3", "1e9", "abc", "", "4 hp", "nan", "inf", "٤", "4;5"])
def test_a_power_that_cannot_be_says_what_and_what_to_do(text: str) -> None:
    with pytest.raises(RiktigError) as caught:
        read_power(text, where="loads.csv, line 2, kw")
    assert caught.value.where == "loads.csv, line 2, kw"
    assert caught.value.hint


def test_an_empty_nameplate_current_means_the_table() -> None:
    assert read_current("  ") is None
    assert read_current("8,1 A") == 8.1
    with pytest.raises(RiktigError, match="overload could not be set"):
        read_current("-1")


@pytest.mark.parametrize(
    "make",
    [
        lambda: Supply(voltage_v=0),
        lambda: Supply(frequency_hz=-50),
        lambda: Supply(upstream_a=float("nan")),
        lambda: Enclosure(width=10),
        lambda: Enclosure(plate_width=900),
        lambda: Enclosure(ambient_c=200),
        lambda: Practice(spare_share=1.5),
        lambda: Practice(duct_width=1),
        lambda: Practice(door_loop=-1),
        lambda: Load(LoadId("m"), "fan", 4, nameplate_a=0),
        lambda: Load(LoadId("m"), "fan", 4, cable_m=-1),
    ],
)
def test_values_that_cannot_be_are_refused(make: object) -> None:
    with pytest.raises(ValueError, match=r"cannot|must be|larger than"):
        make()  # type: ignore[operator]


def test_the_document_is_frozen_all_the_way_down() -> None:
    job = add_load(new_job(), "fan", 4)

    def walk(value: object) -> None:
        if is_dataclass(value):
            name = fields(value)[0].name
            with pytest.raises(FrozenInstanceError):
                setattr(value, name, None)
            for field in fields(value):
                walk(getattr(value, field.name))
        elif isinstance(value, tuple):
            for part in value:
                walk(part)
        else:
            assert not isinstance(value, list | dict | set)

    walk(job)


def test_a_load_brings_its_circuit_and_ids_are_never_given_twice() -> None:
    job = add_load(add_load(new_job(), "fan", 4), "pump", 2.2)
    assert [c.recipe for c in job.circuits] == [Recipe.INCOMER, Recipe.DIRECT_ON_LINE, Recipe.DIRECT_ON_LINE]
    assert job.circuits[0].id == INCOMER_ID
    first, second = job.loads
    job = add_load(remove_load(job, first.id), "belt", 1.1)
    assert len({load.id for load in (first, second, *job.loads)}) == 3
    assert job.load(second.id) is second
    with pytest.raises(KeyError):
        job.load(first.id)


def test_an_edit_leaves_the_rest_the_same_objects() -> None:
    job = add_load(add_load(new_job(), "fan", 4), "pump", 2.2)
    after = change_load(job, job.loads[0].id, kw=5.5)
    assert after.loads[0].kw == 5.5
    assert after.loads[1] is job.loads[1]
    assert after.supply is job.supply
    assert after.circuits is job.circuits


@pytest.mark.parametrize(
    "edit",
    [
        lambda job: set_heading(job, title=job.title),
        lambda job: set_supply(job, neutral=True),
        lambda job: set_practice(job, duct_width=30.0),
        lambda job: set_enclosure(job, rating="IP65"),
    ],
)
def test_an_edit_that_changes_nothing_hands_back_the_same_job(edit: object) -> None:
    job = new_job("T-1", "test")
    assert edit(job) is job  # type: ignore[operator]


def test_another_box_plans_the_plate_anew_but_another_hinge_does_not() -> None:
    from riktig.core.job import HingeSide, PlateFix, RailFix

    job = Job(plate=PlateFix((RailFix(1, 100.0),), ()))
    assert set_enclosure(job, hinge=HingeSide.LEFT).plate is job.plate
    assert set_enclosure(job, width=600.0, plate_width=550.0).plate is None


def test_every_choice_of_practice_is_argued_and_its_default_is_one_of_its_values() -> None:
    practice = Practice()
    for choice in CHOICES:
        assert getattr(practice, choice.field) in choice.values, choice.field
        assert choice.argument.endswith("."), choice.field
    assert practice.earths is EarthScheme.BESIDE


def test_one_voltage_has_one_name_on_the_job() -> None:
    assert (Supply().voltage_name, Supply().system_name) == ("400/230 V", "3/N/PE")
    assert (Supply(neutral=False).voltage_name, Supply(neutral=False).system_name) == ("400 V", "3/PE")
