"""Terminal strips: both sides of every terminal, and the field cables."""

import pytest
from tests.core.schematic.builders import STOP, one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.geometry import Line, Poly, Text, bounds_of
from riktig.core.job import (
    Command,
    EarthScheme,
    Insertable,
    Job,
    LoadKind,
    Param,
    Recipe,
    Rulebook,
    Start,
    add_load,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.keys import read_key
from riktig.core.proving import TESTS
from riktig.core.rules import RULES, findings_of
from riktig.core.schematic import add_circuit, insert_contact, with_names_recorded
from riktig.core.sizing import PROPOSAL
from riktig.core.terminals import BLOCKS, STRIP_DRAWINGS, STRIPS, Cable, Strips, draw_strip, strip_pages
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed


def strips_of(job: Job) -> Strips:
    return plan_for(job).get(STRIPS)


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
    keys = {wire.key for wire in plan_for(job).get(WIRING).wires}
    for strip in some(strips_of(job).strips):
        assert [row.position for row in strip.rows] == list(range(1, len(strip.rows) + 1))
        assert all(set(row.wire.split(", ")) <= keys for row in strip.rows)


def test_the_motors_earth_lands_on_a_free_way_of_the_bar_when_practice_says_so() -> None:
    found = strips_of(one_motor(earths=EarthScheme.BAR))
    cable = next(c for c in found.cables if c.tag == "WM1")
    earth = next(core for core in cable.cores if core.name == "green-yellow")
    ways = {
        end.label for w in plan_for(one_motor(earths=EarthScheme.BAR)).get(WIRING).wires for end in (w.start, w.end)
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
    assert {"X1", "L1", "L2", "L3", "N", "PE", "Q1:1", "W1:L1"} <= said
    assert {m.key for m in second.shapes if m.key} >= {read_key("device:c1.X.U"), read_key("device:c1.M")}


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan(), one_motor()], ids=["shed", "fan", "motor"])
def test_every_core_and_every_terminal_is_drawn_once_and_nothing_leaves_the_page(job: Job) -> None:
    """Counted from the cables and the strips, not from the drawing: a core lost on paper is lost on site."""
    strips = strips_of(with_names_recorded(job))
    on_strips = [core for cable in strips.cables for core in cable.cores if core.panel_pin.marking == "f"]
    pages = strip_pages(strips)
    marks = [mark for page in pages for mark in page.shapes]
    ends = [mark.text for mark in marks if isinstance(mark, Text)]
    for core in on_strips:
        assert ends.count(core.field_end) == 1, core
    blocks = [m for m in marks if isinstance(m, Poly) and m.layer in ("terminal", BLOCKS) and m.key]
    count = sum(len(strip.rows) for strip in strips.strips)
    rows = sum(max(len({core.cable for core in row.cores}), 1) for strip in strips.strips for row in strip.rows)
    assert len(blocks) == count + rows, "once as it is built, once for each cable that lands on it"
    for page in pages:
        for mark in page.shapes:
            inside = bounds_of(mark)
            assert inside.x > -0.5, mark
            assert inside.right <= page.width + 0.5, mark
            assert inside.bottom <= page.height + 0.5, mark


def test_pages_are_filled_and_a_cable_is_never_parted() -> None:
    strips = strips_of(with_names_recorded(kelp_shed()))
    pages = strip_pages(strips)
    assert all(page.height <= 262.0 + 12 for page in pages)
    tags = [[m.text for m in page.shapes if isinstance(m, Text)] for page in pages]
    for strip in strips.strips:
        cables = {core.cable for row in strip.rows for core in row.cores}
        for cable in cables:
            assert sum(cable in texts for texts in tags) >= 1
    low = strip_pages(strips, 90.0)
    assert len(low) > len(pages)
    heads = [texts for texts in ([m.text for m in page.shapes if isinstance(m, Text)] for page in low) if texts]
    for texts in heads:
        last = [t for t in texts if "built from the left" in t]
        assert not last or texts[-1] not in last, "a heading is never the last thing on a page"


def test_rows_go_from_the_field_to_the_panel() -> None:
    """One row read from left to right: the core and its far end, the terminal, the number, where the wire goes."""
    strips = strips_of(one_motor())
    drawing = draw_strip(strips.strips[1], strips)
    where = {m.text: m.x for m in drawing.shapes if isinstance(m, Text)}
    assert where["brown"] < where["M1:U1"] < where["M1-U"] < where["F3:2"]
    tiles = [bounds_of(m) for m in drawing.shapes if isinstance(m, Poly) and m.layer == "terminal" and m.key]
    middle = max(tile.x for tile in tiles)
    assert where["M1:U1"] < middle < where["M1-U"]


def by_tag(job: Job) -> dict[str, Cable]:
    return {cable.tag: cable for cable in strips_of(with_names_recorded(job)).cables}


def test_every_core_of_a_float_has_a_terminal_of_its_own() -> None:
    """Stop and start float in a row: three potentials, four cores, each in a clamp for one conductor."""
    job = add_load(new_job("F"), "pump", 1.5, command=Command.LEVEL)
    cables = by_tag(job)
    cores = [core for tag, cable in cables.items() if tag.startswith("WB") for core in cable.cores]
    assert len(cores) == 4
    assert len({core.panel_pin for core in cores}) == 4
    rows = [row for strip in strips_of(with_names_recorded(job)).strips for row in strip.rows]
    assert sum(len(row.cores) for row in rows if row.core in ("1", "2")) == 4


def test_a_push_button_station_has_three_numbered_cores_and_its_earth() -> None:
    """Stop and start share a conductor by a link in the station; earth at every accessory (IEC 60364-4-41, memory)."""
    cables = by_tag(add_load(new_job("S"), "belt", 1.5, command=Command.STATION))
    station = next(cable for cable in cables.values() if "station" in cable.to)
    assert station.make_up == "4 G 1 mm²"
    assert sorted(core.name for core in station.cores) == ["1", "2", "3", "green-yellow"]


@pytest.mark.parametrize(
    ("kw", "kind", "phases", "make_up"),
    [
        (6.0, LoadKind.HEATER, 3, "4 G 1.5 mm²"),  # 8.7 A behind a breaker of 10 A
        (3.0, LoadKind.HEATER, 1, "3 G 1.5 mm²"),  # 13 A; IEC 60204-1 Table 6 C: 1.5 mm² carries 15.2 A at 40 °C
        (18.0, LoadKind.HEATER, 3, "4 G 4 mm²"),  # 26 A, breaker 32 A; 4 mm² 28 × 1.15 = 32.2 A
    ],
)
def test_a_cable_to_what_does_not_turn_has_the_section_of_the_brief(
    kw: float, kind: LoadKind, phases: int, make_up: str
) -> None:
    job = add_load(new_job("H"), "heater", kw, kind=kind, phases=phases, start=Start.WAY, cable_m=2.0)
    job = set_supply(job, upstream_a=63.0)
    evaluation = plan_for(with_names_recorded(job))
    mm2 = evaluation.get(PROPOSAL).loads[0].cable.mm2
    cable = next(c for c in evaluation.get(STRIPS).cables if not c.is_supply)
    assert cable.mm2 == mm2
    assert cable.make_up == make_up
    live = [core for core in cable.cores if core.name != "green-yellow"]
    assert {core.name for core in live} <= {"brown", "black", "grey", "blue"}


def test_the_earth_core_of_a_thick_supply_cable_is_thinner() -> None:
    """IEC 60204-1 Table 1: 16 mm² for 35 mm²; 80 A want 35 mm² (96 A): its terminal takes what is brought."""
    job = set_supply(one_motor(), upstream_a=80.0)
    cable = by_tag(job)["W1"]
    assert cable.make_up == "4 × 35 mm² + 16 mm²"
    assert not [
        finding
        for finding in findings_of(plan_for(with_names_recorded(job)).get(RULES))
        if finding.code == "W04" and "field side" in finding.message
    ]


def test_ways_that_the_brief_does_not_list_have_cables_as_thick_as_their_wires() -> None:
    job = add_circuit(one_motor(), Recipe.SIGNALLED_WAYS, "ways", (Param("rated A", "20"),))
    ways = [cable for cable in by_tag(job).values() if "way" in cable.to]
    assert len(ways) == 3
    assert {cable.mm2 for cable in ways} == {4.0}  # Table 6 B1: 2.5 mm² 18.3 A, 4 mm² 24 A


def test_control_cables_of_a_north_american_job_are_awg() -> None:
    at_480 = {"voltage_v": 480.0, "voltage_to_neutral_v": 277.0, "frequency_hz": 60.0, "neutral": False}
    job = set_practice(set_supply(one_motor(), **at_480), rulebook=Rulebook.UL)  # type: ignore[arg-type]
    job = add_load(job, "pump", hp=2.0, command=Command.STATION)
    assert all("AWG" in cable.make_up for cable in by_tag(job).values())


def test_the_cable_of_a_network_is_ready_made() -> None:
    cables = by_tag(add_circuit(one_motor(), Recipe.NETWORK))
    assert {c.make_up for c in cables.values() if "bus device" in c.to} == {"network cable"}


def test_a_jumper_is_drawn_across_its_terminals_and_no_wire_where_none_lands() -> None:
    strips = plan_for(kelp_shed()).get(STRIPS)
    strip = next(s for s in strips.strips if any(row.jumper for row in s.rows))
    bridged = [row for row in strip.rows if row.jumper]
    assert len(bridged) > 1
    assert all("jumper to" in row.inside for row in bridged)
    shapes = draw_strip(strip, strips).shapes
    wires = [s for s in shapes if isinstance(s, Line) and s.layer == "wire"]
    assert len(wires) == 2 * sum(bool(row.wire) for row in strip.rows), "an outline and a colour each"
    combs = [s for s in shapes if isinstance(s, Line) and s.layer == "terminal"]
    teeth = [s for s in combs if s.x1 == s.x2]
    assert len(teeth) == len(bridged)
    assert len(combs) - len(teeth) == len({row.jumper for row in bridged})


def test_commons_of_sensors_are_bridged_every_third_way_by_jumpers_that_are_bought_and_tested() -> None:
    job = with_names_recorded(add_circuit(one_motor(), Recipe.SENSOR_TERMINALS, "", (Param("sensors", "3"),)))
    evaluation = plan_for(job)
    rows = {row.mark: row for strip in evaluation.get(STRIPS).strips for row in strip.rows}
    for common in "PM":
        marks = [f"{n}{common}" for n in (1, 2, 3)]
        assert len({rows[mark].jumper for mark in marks} - {""}) == 1
        assert {rows[mark].number for mark in marks} == {rows[marks[0]].number}
        assert all(rows[mark].core for mark in marks)
    assert rows["1P"].jumper != rows["1M"].jumper
    assert not any(rows[f"{n}O"].jumper for n in (1, 2, 3)), "signals stay apart"
    bought = [row for row in schedule("bom", evaluation).rows if "jumper" in str(row[1])]
    # Every third of seven terminals: a jumper of seven ways with two contacts out of each three taken out.
    assert [(row[1], row[2]) for row in bought] == [("plug-in jumper, 7 ways, 4 contacts taken out", 2)]
    assert sum(test.key.startswith("jumper:") for test in evaluation.get(TESTS).tests) == 4
