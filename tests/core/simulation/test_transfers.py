"""What a load does when its selector is turned, by off or past it at once (common practice, no source); points."""

from riktig.core.exports.lists import schedule
from riktig.core.job import CircuitId, Command, Direction, Form, Job, Start, Wetting, add_load, add_signal, new_job
from riktig.core.schematic import set_param, with_names_recorded
from riktig.core.simulation import TRANSFERS
from tests.shared_plan import plan_for


def after(job: Job) -> dict[tuple[str, tuple[str, ...]], bool]:
    """By the level and the way it was turned: whether the load runs."""
    found = plan_for(with_names_recorded(job)).get(TRANSFERS)
    return {(_state(transfer.field), transfer.way): transfer.runs for transfer in found}


def _state(field: str) -> str:
    """“between” of “level between the floats”, “moved” of “contacts in the field moved”."""
    return field.split()[1 if field.startswith("level") else -1]


def pump(*, fills: bool = False) -> Job:
    job = with_names_recorded(add_load(new_job("T", "sump"), "pump", 1.1, command=Command.LEVEL))
    return set_param(job, CircuitId("c1"), "pump", "fills") if fills else job


def test_between_the_floats_a_dwell_at_off_stops_the_pump_and_none_keeps_it_in() -> None:
    runs = after(pump())
    assert not runs["between", ("hand", "off", "auto")]
    assert runs["between", ("hand", "auto")]
    assert runs["above", ("hand", "off", "auto")] and not runs["below", ("hand", "auto")]
    assert all(runs[level, ("auto", "off", "hand")] for level in ("below", "between", "above"))


def test_a_pump_that_fills_answers_the_other_way_round() -> None:
    runs = after(pump(fills=True))
    assert runs["below", ("hand", "off", "auto")] and not runs["above", ("hand", "auto")]
    assert not runs["between", ("hand", "off", "auto")] and runs["between", ("hand", "auto")]


def test_without_a_hold_contact_the_way_it_is_turned_makes_no_difference() -> None:
    job = add_load(new_job("T", "loft"), "fan", 1.1, command=Command.SELECTOR)
    job = add_signal(job, "damper open", load=job.loads[0].id)
    runs = after(job)
    for state in {state for state, _ in runs}:
        assert runs[state, ("hand", "off", "auto")] == runs[state, ("hand", "auto")]
    assert {runs[state, ("hand", "auto")] for state, _ in runs} == {True, False}


def test_only_loads_with_such_a_selector_are_listed() -> None:
    assert after(add_load(new_job("T", "mill"), "mill", 3.0)) == {}


def test_the_list_notes_what_the_hold_contact_does() -> None:
    rows = schedule("transfers", plan_for(with_names_recorded(pump()))).rows
    noted = [(row[3], row[4]) for row in rows if row[7]]
    assert noted == [("hand, then auto", "level between the floats")]


def controlled() -> Job:
    job = add_load(new_job("T", "press"), "press", 2.2, start=Start.DRIVE, command=Command.CONTROLLER)
    job = add_signal(job, "guard shut", wetting=Wetting.DC)
    job = add_signal(job, "clamp valve", wetting=Wetting.DC, direction=Direction.OUT, watts=8.0)
    return with_names_recorded(add_signal(job, "pressure", wetting=Wetting.DC, form=Form.ANALOGUE))


def test_the_points_of_the_controller_are_listed_once_each_with_wire_and_purpose() -> None:
    """Addresses by IEC 61131-3, from memory: %IX and %QX of bits, %IW and %QW of words."""
    rows = schedule("io", plan_for(controlled())).rows
    addresses = [str(row[0]) for row in rows]
    assert len(addresses) == len(set(addresses))
    of = {str(row[3]): row for row in rows if row[3] != "spare"}
    assert str(of["guard shut"][0]).startswith("%IX") and str(of["clamp valve"][0]).startswith("%QX")
    assert str(of["pressure"][0]).startswith("%IW") and str(of["press, speed"][0]).startswith("%QW")
    assert all(row[4] and row[5] for row in of.values())
    assert sum(row[3] == "spare" and not row[4] for row in rows) == len(rows) - len(of)
