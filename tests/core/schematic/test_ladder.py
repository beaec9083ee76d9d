"""The ladder of a North American job: level rungs, numbered at the left, with references by line."""

import re

import pytest

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.catalogue import Behaviour
from riktig.core.geometry import Drawing, Line, Text
from riktig.core.job import Job, Numbering, Rulebook, TagStyle, set_practice
from riktig.core.keys import ElementKey
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, net_shapes, with_names_recorded
from riktig.core.schematic.layout.ladder_page import LADDER_WIDTH, SHIFT
from riktig.core.schematic.layout.sheet_model import RAIL_BOTTOM, RAIL_TOP
from riktig.core.simulation import Panel, live_shapes, roles_of
from tests.core.schematic.samples import sample
from tests.shared_plan import plan_for

JOBS = ["direct-on-line, North American", "both ways, North American", "pump by level, North American",
        "emergency stop, North American", "all of it by the controller, North American"]  # fmt: skip


def ladders(job: Job) -> list[Drawing]:
    evaluation = plan_for(job)
    sheets = evaluation.get(SHEETS).sheets
    drawings = evaluation.get(SHEET_DRAWINGS)
    return [drawing for sheet, drawing in zip(sheets, drawings, strict=True) if sheet.is_ladder]


def texts(drawing: Drawing) -> list[Text]:
    return [mark for mark in drawing.shapes if isinstance(mark, Text)]


@pytest.mark.parametrize("name", JOBS)
def test_lines_are_numbered_at_the_left_on_from_sheet_to_sheet(name: str) -> None:
    """Common practice in North America, no source: every level line has a number, read down the left margin."""
    numbers = []
    for drawing in ladders(sample(name)):
        assert drawing.width == LADDER_WIDTH
        margin = [
            mark
            for mark in texts(drawing)
            if mark.x < 14 and mark.text.isdecimal() and mark.layer not in ("frame", "title")
        ]
        assert [mark.y for mark in margin] == sorted(mark.y for mark in margin)
        numbers += [int(mark.text) for mark in margin]
    assert numbers == list(range(1, len(numbers) + 1))
    assert len(numbers) >= 3


@pytest.mark.parametrize("name", JOBS)
def test_paths_run_level_between_two_uprights(name: str) -> None:
    for drawing in ladders(sample(name)):
        lines = [
            mark for mark in drawing.shapes if isinstance(mark, Line) and mark.layer == "circuit" and mark.width == 0.35
        ]
        level = sum(abs(mark.x2 - mark.x1) for mark in lines if mark.y1 == mark.y2)
        upright = sum(abs(mark.y2 - mark.y1) for mark in lines if mark.x1 == mark.x2)
        assert level > 0
        ends = {round(x, 1) for mark in lines for x in (mark.x1, mark.x2)}
        assert {RAIL_TOP + SHIFT, RAIL_BOTTOM + SHIFT} & ends
        assert min(ends) >= 9
        assert level + upright > 100


@pytest.mark.parametrize("name", JOBS)
def test_references_go_by_line_and_hold_both_ways(name: str) -> None:
    """Beside a contact the line of its coil in brackets; at the right of the coil the lines of its contacts."""
    evaluation = plan_for(sample(name))
    circuits, sheets, tag = evaluation.get(CIRCUITS), evaluation.get(SHEETS), evaluation.get(NAMES).tag
    said = {mark.text for drawing in evaluation.get(SHEET_DRAWINGS) for mark in texts(drawing)}
    devices, coils = circuits.by_id, {}
    for element, place in sheets.places.items():
        device = next(d for d in devices.values() if element.startswith(f"{d.id}/"))
        if device.kind.unit(element.partition("/")[2]).behaviour is Behaviour.COIL:
            coils[device.id] = place
    checked = 0
    for element, place in sheets.places.items():
        device = next(d for d in devices.values() if element.startswith(f"{d.id}/"))
        unit = device.kind.unit(element.partition("/")[2])
        if device.id in coils and place.line and unit.behaviour in (Behaviour.NO, Behaviour.NC):
            line = f"({coils[device.id].line})"
            assert f"{tag[device.id]} {line}" in said or {tag[device.id], line} <= said
            listed = " ".join(text for text in said if re.match(r"(NO|NC|\d)", text))
            assert re.search(rf"\b{place.line}\b", listed)
            checked += 1
    assert checked


def test_an_iec_job_has_upright_paths_and_sheets_with_columns() -> None:
    sheets = plan_for(sample("direct-on-line")).get(SHEETS).sheets
    assert not any(sheet.is_ladder for sheet in sheets)
    turned = set_practice(sample("direct-on-line"), rulebook=Rulebook.UL)
    assert any(sheet.is_ladder for sheet in plan_for(with_names_recorded(turned)).get(SHEETS).sheets)


@pytest.mark.parametrize("name", JOBS)
def test_what_lies_over_the_drawing_is_turned_with_it(name: str) -> None:
    """A net that is pointed at, and the panel with power on: strokes lie on lines of the drawing."""
    evaluation = plan_for(sample(name))
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    panel = Panel(circuits, nets)
    for sheet, drawing in zip(evaluation.get(SHEETS).sheets, evaluation.get(SHEET_DRAWINGS), strict=True):
        if not sheet.is_ladder:
            continue
        drawn = {(m.x1, m.y1, m.x2, m.y2) for m in drawing.shapes if isinstance(m, Line)}
        over = [mark for net in nets.nets for mark in net_shapes(sheet, circuits.by_id, nets.of_pin, net)]
        assert over
        long = [m for m in over if isinstance(m, Line) and abs(m.x2 - m.x1) + abs(m.y2 - m.y1) > 4]
        assert all((m.x1, m.y1, m.x2, m.y2) in drawn for m in long)
        live = live_shapes(panel, sheet, roles_of(panel), frozenset())
        assert all(getattr(m, "x", 20.0) <= LADDER_WIDTH for m in live)


def test_names_by_place_go_by_line() -> None:
    """CR 12 is the relay whose coil is on line 12: the usual way there (common practice, no source)."""
    job = set_practice(sample("pump by level, North American"), tags=TagStyle.PLACED, numbering=Numbering.BY_NODE)
    bare = with_names_recorded(job.__class__(**{**{f: getattr(job, f) for f in job.__dataclass_fields__}, "tags": ()}))
    evaluation = plan_for(bare)
    places, tag = evaluation.get(SHEETS).places, evaluation.get(NAMES).tag
    coils = {element.partition("/")[0]: place for element, place in places.items() if element.endswith("/A1-A2")}
    assert coils
    for device, place in coils.items():
        assert str(place.line) in next(text for did, text in tag.items() if did == device)


def test_a_symbol_carries_its_element_so_that_it_can_be_chosen() -> None:
    for drawing in ladders(sample(JOBS[0])):
        keys = {mark.key for mark in drawing.shapes if isinstance(mark.key, ElementKey)}
        assert len(keys) >= 3
