"""What stands where: addresses of points, zones, the earth tree, mirrors, the sheets of a thing, 0 V bridges."""

from itertools import pairwise

import pytest

from riktig.core.annotation import SHEET_DRAWINGS, SHEET_PEN
from riktig.core.geometry import Text
from riktig.core.ids import ElementId, read_pin
from riktig.core.job import PinRef, RelayCommons, set_practice
from riktig.core.keys import CircuitKey, DeviceKey, ElementKey, Key, read_key
from riktig.core.labels import INDEX, find
from riktig.core.schematic import (
    CIRCUITS,
    NAMES,
    NETS,
    SHEETS,
    Band,
    Device,
    SheetKind,
    Zone,
    cell_frame,
    elements_of,
    net_shapes,
    sheets_with,
)
from riktig.core.schematic.layout.earth_tree import bars_of
from riktig.core.schematic.model.controller_cards import io_address
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job
from tests.core.schematic.builders import one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import some
from tests.shared_plan import plan_for

CONTROLLED = "all of it by the controller"


def words(name: str, kind: SheetKind) -> list[set[str]]:
    evaluation = plan_for(sample(name))
    pairs = zip(evaluation.get(SHEETS).sheets, evaluation.get(SHEET_DRAWINGS), strict=True)
    return [{m.text for m in drawing.shapes if isinstance(m, Text)} for sheet, drawing in pairs if sheet.kind is kind]


def test_every_point_of_the_controller_shows_address_terminal_and_purpose() -> None:
    evaluation = plan_for(sample(CONTROLLED))
    circuits = evaluation.get(CIRCUITS)
    devices = circuits.by_id
    shown = set().union(*words(CONTROLLED, SheetKind.CONTROL))
    points = 0
    for rung in circuits.rungs:
        for element in elements_of(rung.path):
            device = devices[element.device]
            address = io_address(device, element.poles[0].unit)
            if address:
                points += 1
                assert address in shown
                assert element.poles[0].unit.split("-")[0] in shown or element.poles[0].unit.split("-")[1] in shown
                assert any(address in r.title for r in circuits.rungs if r.id == rung.id), "the purpose stands above"
    assert points == 6, "photocell; two commands, damper, screen lamp; speed"


def test_no_address_is_given_twice() -> None:
    circuits = plan_for(sample(CONTROLLED)).get(CIRCUITS)
    devices = circuits.by_id
    found = [
        io_address(devices[e.device], e.poles[0].unit)
        for rung in circuits.rungs
        for e in elements_of(rung.path)
        if io_address(devices[e.device], e.poles[0].unit)
    ]
    assert len(found) == len(set(found))


@pytest.mark.parametrize("name", ["direct-on-line", "pump by level", "both ways"])
def test_what_stands_on_the_door_or_in_the_field_says_so(name: str) -> None:
    evaluation = plan_for(sample(name))
    circuits = evaluation.get(CIRCUITS)
    for sheet, drawing in some(zip(evaluation.get(SHEETS).sheets, evaluation.get(SHEET_DRAWINGS), strict=True)):
        if sheet.kind is not SheetKind.CONTROL:
            continue
        said: dict[Key | None, set[str]] = {}
        for m in drawing.shapes:
            if isinstance(m, Text) and m.text in ("door", "field") and m.role == "third":
                said.setdefault(m.key, set()).add(m.text)
        zones: dict[Key | None, Device] = {
            ElementKey(seat.element.id): circuits.device(seat.element.device) for seat in sheet.seats
        }
        for key, device in some(zones.items()):
            assert said.get(key, set()) <= {device.zone.value}, key
        named = {zones[key].id for key in said}
        assert {d.id for d in zones.values() if d.zone is not Zone.PLATE} <= named, "each device says it once at least"


@pytest.mark.parametrize("name", ["direct-on-line", "pump by level", CONTROLLED])
def test_the_earth_tree_shows_every_bond_once_from_one_root(name: str) -> None:
    evaluation = plan_for(sample(name))
    circuits, tags = evaluation.get(CIRCUITS), evaluation.get(NAMES).tag
    shown = [text for page in words(name, SheetKind.EARTH) for text in page]
    points = [pin for _, here in bars_of(circuits) for pin in here]
    assert points == list(circuits.earths)
    assert all(len(here) <= 7 for _, here in bars_of(circuits)), "no way of a bar holds two"
    assert shown.count("root") == 1
    for pin in points:
        owner, marking = pin
        device = circuits.device(owner)
        assert f"{tags[device.id]}:{device.mark or marking}" in shown


def test_a_spare_contact_stands_in_the_mirror_and_a_used_one_with_its_place() -> None:
    evaluation = plan_for(one_motor())
    shown = {m.text for m in evaluation.get(SHEET_DRAWINGS)[1].shapes if isinstance(m, Text)}
    assert "spare 21 31" in shown
    assert str(evaluation.get(SHEETS).places[ElementId("c1.K/13-14")]) in shown


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_everything_on_a_sheet_is_found_on_it_by_its_key(name: str) -> None:
    evaluation = plan_for(demo_job(name))
    sheets, circuits, nets = evaluation.get(SHEETS), evaluation.get(CIRCUITS), evaluation.get(NETS)
    for sheet, drawing in zip(sheets.sheets, evaluation.get(SHEET_DRAWINGS), strict=True):
        keys = {m.key for m in drawing.shapes if isinstance(m.key, ElementKey | DeviceKey)}
        for key in keys:
            found = sheets_with(sheets, circuits, nets, key)
            assert found, key
            assert sheet.number in found or sheet.kind is SheetKind.EARTH, key
    for circuit, _ in circuits.titles:
        assert sheets_with(sheets, circuits, nets, CircuitKey(circuit))
    assert sheets_with(sheets, circuits, nets, read_key("device:nobody")) == ()


def test_one_sheet_drawn_alone_is_the_same_as_among_all() -> None:
    evaluation = plan_for(demo_job("kelp-shed"))
    pen, all_of_them = evaluation.get(SHEET_PEN), evaluation.get(SHEET_DRAWINGS)
    assert [pen.drawing(n) for n in range(len(all_of_them))] == list(all_of_them)
    with pytest.raises(IndexError):
        pen.drawing(99)


def test_a_net_is_thick_at_every_end_that_it_joins_on_the_sheet() -> None:
    evaluation = plan_for(one_motor())
    nets, devices = evaluation.get(NETS), evaluation.get(CIRCUITS).by_id
    sheet = evaluation.get(SHEETS).sheets[1]
    hold = nets.of_pin[read_pin("c1.K:13")]
    shapes = net_shapes(sheet, devices, nets.of_pin, hold)
    ends = [(round(m.x1, 1), round(m.y1, 1), round(m.x2, 1), round(m.y2, 1)) for m in shapes]  # type: ignore[union-attr]
    assert len(ends) == len(set(ends))
    drawn = {(p.device, p.unit) for seat in sheet.seats for p in seat.element.poles}
    stubs = sum(PinRef(d, pin) in hold.pins for d, unit in drawn for pin in devices[d].kind.unit(unit).pins)
    assert sum(abs(m.y2 - m.y1) == pytest.approx(1.6) for m in shapes) == stubs == 3  # type: ignore[union-attr]


def test_a_place_is_framed_by_column_and_row() -> None:
    cell, column = cell_frame(3, "C"), cell_frame(3)
    assert {p.x for p in cell.points} == {p.x for p in column.points}
    heights = [abs(a.y - b.y) for a, b in pairwise(cell.points) if a.x == b.x]
    assert max(heights) == pytest.approx(25.0)
    assert max(p.y for p in column.points) - min(p.y for p in column.points) == pytest.approx(150.0)


@pytest.mark.parametrize("text", ["2.3", "2.3.c", "sheet 2"])
def test_the_finder_takes_a_place(text: str) -> None:
    found = find(plan_for(one_motor()).get(INDEX), text)
    assert str(found[0].key).startswith("place:2")


def test_a_number_alone_is_a_wire_not_a_sheet() -> None:
    found = find(plan_for(one_motor()).get(INDEX), "8")
    assert str(found[0].key).startswith(("net:", "wire:"))


def test_commons_of_relays_hang_on_bridged_terminals_or_in_loops_as_practice_says() -> None:
    bridged = sample(CONTROLLED)
    evaluation = plan_for(bridged)
    bars = {d.id for d in evaluation.get(CIRCUITS).devices if d.kind_id == "zero_bar"}
    assert len(bars) == 1
    from_bar = [w for w in evaluation.get(WIRING).wires if w.start.pin.device in bars]
    assert len(from_bar) >= 4, "each circuit's 0 V from a way of its own"
    looped = plan_for(set_practice(bridged, relay_commons=RelayCommons.LOOPS))
    assert not any(d.kind_id == "zero_bar" for d in looped.get(CIRCUITS).devices)
    assert looped.get(WIRING).unrouted == ()


def test_power_paths_stand_on_power_sheets_and_control_paths_on_control_sheets() -> None:
    for name in SAMPLES:
        evaluation = plan_for(sample(name))
        bands = {e.id: r.band for r in evaluation.get(CIRCUITS).rungs for e in elements_of(r.path)}
        for sheet in some(evaluation.get(SHEETS).sheets):
            for seat in sheet.seats:
                power = bands[seat.element.id] in (Band.POWER, Band.INCOMING)
                assert power is (sheet.kind is SheetKind.POWER), (name, seat.element.id)
