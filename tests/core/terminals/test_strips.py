"""Terminal strips: both sides of every terminal, and the field cables."""

import pytest
from tests.core.schematic.builders import STOP, one_motor
from tests.effort import some

from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Text
from riktig.core.job import EarthScheme, Insertable, Job
from riktig.core.keys import read_key
from riktig.core.schematic import insert_contact, with_names_recorded
from riktig.core.terminals import STRIP_DRAWINGS, STRIPS, Strips
from riktig.core.wiring import WIRING


def strips_of(job: Job) -> Strips:
    return Evaluation(job).get(STRIPS)


# Worked by hand from the circuit: (mark, number, inside, cable, core, field).
BY_HAND = [
    ("X1", "L1", "L1", "Q1:1", "W1", "brown", "W1:L1"),
    ("X1", "L3", "L3", "Q1:5", "W1", "grey", "W1:L3"),
    ("X1", "N", "N", "K1:A2", "W1", "blue", "W1:N"),
    ("X1", "PE", "PE", "PE:1", "W1", "green-yellow", "W1:PE"),
    ("X2", "U", "M1-U", "F3:2", "WM1", "brown", "M1:U1"),
    ("X2", "W", "M1-W", "F3:6", "WM1", "grey", "M1:W1"),
    ("X2", "PE", "PE", "PE:5", "WM1", "green-yellow", "M1:PE"),
]


@pytest.mark.parametrize("expected", BY_HAND, ids=lambda e: f"{e[0]}:{e[1]}")
def test_each_terminal_has_both_sides_as_worked_out_by_hand(expected: tuple[str, ...]) -> None:
    found = [
        (strip.tag, row.mark, row.number, row.inside, row.cable, row.core, row.field)
        for strip in strips_of(one_motor()).strips
        for row in strip.rows
    ]
    assert expected in found


def test_every_inside_wire_of_a_terminal_is_on_the_wire_list() -> None:
    job = one_motor()
    keys = {wire.key for wire in Evaluation(job).get(WIRING).wires}
    for strip in some(strips_of(job).strips):
        assert [row.position for row in strip.rows] == list(range(1, len(strip.rows) + 1))
        assert all(set(row.wire.split(", ")) <= keys for row in strip.rows)


def test_the_motors_earth_lands_on_a_free_way_of_the_bar_when_practice_says_so() -> None:
    found = strips_of(one_motor(earths=EarthScheme.BAR))
    cable = next(c for c in found.cables if c.tag == "WM1")
    earth = next(core for core in cable.cores if core.name == "green-yellow")
    ways = {
        end.label for w in Evaluation(one_motor(earths=EarthScheme.BAR)).get(WIRING).wires for end in (w.start, w.end)
    }
    assert earth.panel_end.startswith("PE:")
    assert earth.panel_end not in ways


def test_cables_say_their_make_up() -> None:
    job = with_names_recorded(insert_contact(one_motor(), STOP, Insertable.FIELD_CONTACT, "guard"))
    assert {c.tag: c.make_up for c in strips_of(job).cables} == {
        "W1": "5 G 4 mm²",
        "WM1": "4 G 1.5 mm²",
        "WB1": "2 × 1 mm²",
    }
    guard = next(c for c in strips_of(job).cables if c.tag == "WB1")
    assert [(core.name, core.panel_end) for core in guard.cores] == [("1", "X2:1"), ("2", "X2:2")]


def test_a_strip_is_drawn_with_marks_numbers_and_both_ends(evaluation: Evaluation[Job]) -> None:
    first, second = evaluation.get(STRIP_DRAWINGS)
    said = {m.text for m in first.shapes if isinstance(m, Text)}
    assert {"X1", "L1", "L2", "L3", "N", "PE", "Q1:1", "W1:L1", "inside", "field"} <= said
    assert {m.key for m in second.shapes if m.key} >= {read_key("device:c1.X.U"), read_key("device:c1.M")}
