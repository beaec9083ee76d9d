"""Look-ups in the tables: between rows, beyond the ends, and the source that stands behind each."""

from pathlib import Path

import pytest
from tests.effort import some

from riktig.core import standards
from riktig.core.standards import (
    allowed_colours,
    ambient_factor,
    bonding_section,
    conductor_current,
    ferrule,
    grouping_factor,
    motor_current,
    motor_powers,
    operator_hole,
    protective_section,
    self_drilling_point,
    standard_sections,
    switch_ratings,
    table,
    tapped_hole,
    twin_ferrule,
    wire_diameter,
    wire_resistance,
)

TABLES = (
    "motor_currents_kw",
    "conductor_currents",
    "ambient_factors",
    "grouping_factors",
    "minimum_sections",
    "protective_sections",
    "bonding_sections",
    "wire_diameters",
    "wire_resistances",
    "ferrules",
    "ferrule_colours",
    "twin_ferrules",
    "tap_drills",
    "self_drilling_screws",
    "operator_holes",
    "operator_colours",
    "standard_ratings",
    "nameplate_items",
)


@pytest.mark.parametrize("name", TABLES)
def test_every_table_says_its_source_and_our_confidence(name: str) -> None:
    found = table(name)
    assert found.source
    assert found.confidence
    assert found.rows


def test_a_power_between_two_rows_takes_the_larger_rows_current() -> None:
    assert motor_current(3.5, 400).value == motor_current(4, 400).value
    assert motor_current(4, 415).value == motor_current(4, 400).value


def test_beyond_the_table_there_is_no_figure() -> None:
    with pytest.raises(ValueError, match="beyond the table"):
        motor_current(500, 400)
    # Below the lowest voltage: by hand 15 A at 230 V is 31.4 A at 110 V; hotter than the table: the law behind it.
    low, hot = motor_current(4, 110), ambient_factor(65)
    assert (low.value, hot.value) == (31.4, 0.41)
    assert not low.sure
    assert not hot.sure
    assert ambient_factor(70).value == 0


def test_currents_rise_with_power_and_section() -> None:
    currents = [motor_current(kw, 400).value for kw in motor_powers()]
    assert currents == sorted(currents)
    sections = [conductor_current(mm2).value for mm2 in standard_sections()]
    assert sections == sorted(sections)
    assert list(switch_ratings("MCB")) == sorted(switch_ratings("MCB"))


@pytest.mark.parametrize(
    ("circuits", "method", "factor"),
    [
        (0, "B1", 1.0),
        (1, "B1", 1.0),
        (2, "B1", 0.80),
        (3, "B1", 0.65),
        (9, "B1", 0.50),
        (10, "B1", 0.45),
        (16, "B2", 0.41),
        (40, "B1", 0.38),
        (2, "C", 0.85),
        (3, "C", 0.75),
        (20, "C", 0.70),
        (4, "E", 0.77),
    ],
)
def test_grouping_takes_the_next_larger_column(circuits: int, method: str, factor: float) -> None:
    """IEC 60204-1 Table D.2; from 12 circuits IEC 60364-5-52 Table B.52.17; from memory."""
    assert grouping_factor(circuits, method).value == factor


def test_the_hotter_row_counts_for_a_temperature_between() -> None:
    assert ambient_factor(40).value == 1.0
    assert ambient_factor(41).value == ambient_factor(45).value


@pytest.mark.parametrize(("phase", "least"), [(1.5, 1.5), (16, 16), (25, 16), (35, 16), (50, 25), (70, 35)])
def test_the_protective_conductor_follows_the_phase_conductor(phase: float, least: float) -> None:
    assert protective_section(phase).value == least


def test_small_bonds_take_the_supply_section_and_larger_ones_the_table() -> None:
    assert bonding_section(20, 4).value == 4
    assert bonding_section(25, 6).value == 2.5
    assert bonding_section(500, 95).value == 10


def test_ends_holes_and_screws() -> None:
    single = ferrule(1.5)
    assert single is not None
    assert (single.name, single.strip) == ("1.5 / 8 black", 10)
    assert ferrule(120) is None
    twin = twin_ferrule(1.0)
    assert twin is not None
    assert twin.name == "2 × 1 / 8 red"
    assert twin_ferrule(35) is None
    assert (tapped_hole("M5").tap_drill, tapped_hole("M6").clearance) == (4.2, 6.6)
    assert operator_hole("D22").value == 22.3
    assert self_drilling_point("ST4.8").value == 4.1
    assert wire_diameter(1.5).value == 3.4
    assert wire_resistance(1.5).value == 13.3


@pytest.mark.parametrize("ask", [lambda: tapped_hole("M7"), lambda: operator_hole("D99")])
def test_what_is_not_made_is_not_invented(ask: object) -> None:
    with pytest.raises(KeyError):
        ask()  # type: ignore[operator]


def test_a_section_that_is_not_made_is_taken_as_the_next_larger_and_is_unsure() -> None:
    assert wire_diameter(3.0).value == wire_diameter(4.0).value
    assert wire_diameter(3.0).confidence == "unsure"
    assert wire_resistance(9000.0).value == wire_resistance(300.0).value


def test_red_is_never_a_start_colour_and_green_never_a_stop_colour() -> None:
    start, _ = allowed_colours("push-button", "START / ON")
    stop, _ = allowed_colours("push-button", "STOP / OFF")
    assert "green" in start
    assert "red" not in start
    assert "green" not in stop


def test_every_single_figure_is_whole_and_decides_something() -> None:
    core = Path(standards.__file__).parents[1]
    code = "\n".join(path.read_text(encoding="utf-8") for path in core.rglob("*.py"))
    rows = standards.table("rule_figures").rows
    assert len({row["name"] for row in rows}) == len(rows)
    for row in rows:
        assert float(row["value"]) > 0, row["name"]
        assert row["confidence"] in ("sure", "fairly sure", "unsure"), row["name"]
        said = ("from memory", "no source", "relation")
        assert any(words in row["source"] for words in said), row["name"]
        assert f'"{row["name"]}"' in code, f"{row['name']} is in no rule: take it out"


def test_every_shipped_table_is_read_by_something() -> None:
    core = Path(standards.__file__).parents[1]
    code = "\n".join(path.read_text(encoding="utf-8") for path in core.rglob("*.py"))
    for path in some((core / "standards" / "data").glob("*.csv")):
        assert f'"{path.stem}"' in code or path.stem == "nameplate_items", path.stem
