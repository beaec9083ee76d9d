"""Loads and the other answers of the Brief: what can be said, how it is read, what an edit leaves alone."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.job import (
    ChangedLoadFields,
    Command,
    Job,
    Load,
    LoadId,
    LoadKind,
    Practice,
    Protection,
    Recipe,
    Rulebook,
    Signal,
    SignalId,
    Source,
    SourceId,
    Start,
    add_load,
    add_signal,
    add_source,
    change_load,
    change_signal,
    change_source,
    new_job,
    override,
    read_power,
    read_power_hp,
    read_quantity,
    remove_load,
    remove_signal,
    remove_source,
    set_supply,
)
from riktig.core.schematic import CIRCUITS, with_names_recorded

WRONG: list[tuple[dict[str, Any], str]] = [
    ({}, "neither a power nor a current"),
    ({"kw": 0}, "must be 0.001 to 400 kW"),
    ({"hp": 900}, "must be 0.001 to 500 hp"),
    ({"kw": 4, "phases": 4}, "one, two or three lines"),
    ({"kw": 4, "phase": 7}, "one, two or three lines"),
    ({"kw": 4, "voltage_v": 0}, "must be 12 to 1000 V"),
    ({"kw": 4, "service_factor": 3}, "service factor"),
    ({"kw": 4, "cable_m": -1}, "cable"),
    ({"nameplate_a": float("inf")}, "must be 0.001 to 2000 A"),
]


@pytest.mark.parametrize(("fields", "words"), WRONG)
def test_a_load_that_cannot_be_is_refused(fields: dict[str, Any], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        Load(LoadId("m1"), "fan", **fields)


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: Signal(SignalId("i1"), "float", watts=-1), "must be 0 to 5000 W"),
        (lambda: Source(SourceId("e1"), "alarm", 0), "0 V"),
        (lambda: Practice(house_colours=("green",) * 6), "six out of"),
        (lambda: Practice(reserved_numbers=5000), "reserved"),
    ],
)
def test_other_answers_that_cannot_be_are_refused(make: Any, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        make()


@pytest.mark.parametrize(
    ("fields", "name"),
    [({"kw": 4}, "4 kW"), ({"hp": 7.5}, "7.5 hp"), ({"nameplate_a": 12.5}, "12.5 A"), ({"kw": 0.05}, "0.05 kW")],
)
def test_a_power_is_said_as_the_customer_said_it(fields: dict[str, Any], name: str) -> None:
    assert Load(LoadId("m1"), "fan", **fields).power_name == name


def test_a_small_load_that_does_not_turn_is_said_in_watts() -> None:
    assert Load(LoadId("m1"), "heater", 0.06, kind=LoadKind.HEATER).power_name == "60 W"


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("4", 4),
        ("4,5", 4.5),
        ("1 200", 1200),
        ("1\u00a0200,5", 1200.5),
        ("1.234,5", 1234.5),
        ("1,234.5", 1234.5),
        ("1,234,567", 1234567),
        ("0,125", 0.125),
        ("1'000", 1000),
        ("12 V", 12),
        ("-3", -3),
    ],
)
def test_a_number_is_read_as_people_write_it(text: str, value: float) -> None:
    assert read_quantity(text, "V", "voltage") == pytest.approx(value)


@pytest.mark.parametrize("text", ["", "abc", "1,500", "12,345", "1..2", "4 A", "nan", "inf", "1_000", "\u0664"])
def test_what_is_no_number_or_two_numbers_is_refused_with_what_to_write(text: str) -> None:
    with pytest.raises(RiktigError) as caught:
        read_quantity(text, "V", "voltage", "supply")
    assert caught.value.hint
    assert caught.value.where == "supply"


@given(st.decimals(min_value="0.01", max_value="399", places=2))
def test_a_decimal_comma_and_a_decimal_point_say_the_same(value: Any) -> None:
    text = f"{value:.2f}"
    assert read_power(text) == read_power(text.replace(".", ",")) == pytest.approx(float(value))


@pytest.mark.parametrize(
    ("text", "hp"), [("7.5", 7.5), ("7-1/2", 7.5), ("7 1/2 hp", 7.5), ("3/4", 0.75), ("1/6 HP", 1 / 6)]
)
def test_horsepower_is_read_as_it_stands_on_plates(text: str, hp: float) -> None:
    assert read_power_hp(text) == pytest.approx(hp)


@pytest.mark.parametrize("text", ["0", "1/0", "5 kW", "600", "x/y"])
def test_horsepower_that_cannot_be_is_refused(text: str) -> None:
    with pytest.raises(RiktigError):
        read_power_hp(text)


@pytest.mark.parametrize("text", ["400 W", "0.4", "0,4 kW", "400W"])
def test_watts_and_kilowatts_are_told_apart(text: str) -> None:
    assert read_power(text) == pytest.approx(0.4)


class TestEdits:
    def test_ids_are_given_once_across_loads_devices_and_supplies(self) -> None:
        job = add_source(add_signal(add_load(new_job(), "fan", 4), "float"), "alarm", 24.0)
        ids = [job.loads[0].id, job.signals[0].id, job.sources[0].id]
        assert ids == ["m1", "i2", "e3"]
        again = add_load(remove_load(job, job.loads[0].id), "pump", 2)
        assert again.loads[0].id == "m4"

    def test_a_device_and_a_supply_are_changed_and_taken_out(self) -> None:
        job = add_source(add_signal(add_load(new_job(), "fan", 4), "float"), "alarm", 24.0)
        changed = change_source(change_signal(job, job.signals[0].id, watts=3.0), job.sources[0].id, voltage_v=48.0)
        assert (changed.signals[0].watts, changed.sources[0].voltage_v) == (3, 48)
        assert changed.loads is job.loads
        assert remove_source(remove_signal(changed, job.signals[0].id), job.sources[0].id) == remove_source(
            remove_signal(job, job.signals[0].id), job.sources[0].id
        )

    def test_taking_a_load_out_takes_its_own_values_and_frees_its_devices(self) -> None:
        job = add_load(add_load(new_job(), "fan", 4), "pump", 2)
        job = add_signal(job, "float", load=job.loads[0].id)
        job = override(override(job, "m1.breaker", 20, "shelf"), "m2.breaker", 10, "shelf")
        left = remove_load(job, job.loads[0].id)
        assert [one.key for one in left.overrides] == ["m2.breaker"]
        assert left.signals[0].load is None

    def test_a_second_value_of_ones_own_replaces_the_first(self) -> None:
        job = override(override(new_job(), "m1.breaker", 20, "a"), "m1.breaker", 25, "b")
        assert [(one.amount, one.reason) for one in job.overrides] == [(25, "b")]
        assert override(job, "m9.breaker", None) is job

    @pytest.mark.parametrize(
        ("fields", "recipe"),
        [
            ({}, Recipe.DIRECT_ON_LINE),
            ({"start": Start.STAR_DELTA}, Recipe.STAR_DELTA),
            ({"command": Command.CONTROLLER}, Recipe.DIRECT_ON_LINE),
            ({"protection": Protection.PROTECTOR}, Recipe.DIRECT_ON_LINE),
            ({"start": Start.REVERSING, "command": Command.BOTH_WAYS}, Recipe.REVERSING),
            ({"protection": Protection.FUSES}, Recipe.DIRECT_ON_LINE),
            ({"start": Start.DRIVE}, Recipe.DRIVE),
            ({"phases": 1, "maintained": True}, Recipe.MAINTAINED),
            ({"phases": 1, "start": Start.WAY}, Recipe.WAY),
        ],
    )
    def test_a_circuit_follows_how_its_load_is_started(self, fields: ChangedLoadFields, recipe: Recipe) -> None:
        job = add_load(new_job(), "fan", 4)
        there = change_load(job, job.loads[0].id, **fields)
        assert there.circuits[1].recipe is recipe
        assert change_load(there, job.loads[0].id, start=Start.DIRECT).loads[0].start is Start.DIRECT


def drawn(job: Job) -> list[str]:
    return [
        device.kind_id for device in plan_for(with_names_recorded(job)).get(CIRCUITS).devices if device.circuit != "c0"
    ]


def test_what_cannot_be_is_left_out_and_listed_as_undrawn() -> None:
    job = add_load(add_load(new_job(), "fan", 4), "light", 0.1, phases=1, start=Start.WAY)
    circuits = plan_for(with_names_recorded(set_supply(job, neutral=False))).get(CIRCUITS)
    assert circuits.undrawn == ("c2",), "there is no neutral to return to"
    assert {device.circuit for device in circuits.devices} == {"c0", "s1", "c1"}


def test_fuses_take_the_breakers_place_in_the_drawing() -> None:
    plain = drawn(add_load(new_job(), "fan", 4))
    fused = drawn(add_load(new_job(), "fan", 4, protection=Protection.FUSES))
    assert [kind.replace("fuse_switch", "motor_breaker") for kind in fused] == plain


def test_a_job_starts_from_the_practice_it_is_given() -> None:
    assert new_job("x", practice=Practice(rulebook=Rulebook.UL)).practice.rulebook is Rulebook.UL
