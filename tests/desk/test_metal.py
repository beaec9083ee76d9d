"""Mark-out, measuring twice and templates in the real window, by mouse and by key."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt

from riktig.core.door import DOOR, add_opening
from riktig.core.holes import METAL_HOLES, HoleWork
from riktig.core.job import Opening, SecondReading, Surface, add_load, set_practice
from riktig.core.keys import HoleKey, PieceKey
from riktig.core.plate import CUTS
from riktig.core.production import CRITICALS, Gate
from riktig.core.records import DimensionRead, HoleDone, PieceCut, TakenBack, TemplateChecked
from riktig.core.schematic import with_names_recorded
from riktig.desk.machining import MetalPages
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.door import DoorStation
from riktig.desk.stations.plate import PlateStation
from tests.conftest import Doing
from tests.desk.conftest import click_on, press, settle_window


@pytest.fixture
def door(window: MainWindow) -> DoorStation:
    window.go_to("Door")
    station = window.stations["Door"]
    assert isinstance(station, DoorStation)
    station.marking.click()
    settle_window()
    return station


@pytest.fixture
def metal(door: DoorStation) -> MetalPages:
    return door.metal


def read(metal: MetalPages, value: float, who: str) -> None:
    metal.measure.who.setText(who)
    for sign in f"{value:g}":
        metal.measure.pad.keys[sign].click()
    metal.measure.pad.enter.click()


def open_all(metal: MetalPages, session: Session) -> None:
    """Two people measure everything as it is drawn."""
    metal.turn_to(1)
    for one in session.evaluation.get(CRITICALS):
        for who in ("Ida", "Per"):
            metal.measure.go_to(one.key)
            read(metal, one.nominal, who)


def hole_records(session: Session) -> list[str]:
    return [r.facts.operation.value for r in session.records if isinstance(r.facts, HoleDone)]


def test_space_marks_one_hole_after_the_other_along_the_walk(metal: MetalPages, session: Session) -> None:
    mark = metal.mark
    walk = [state.hole.number for state in mark.walk()]
    assert len(walk) == 6
    seen = []
    for _ in walk:
        seen.append(mark.number)
        press(mark, Qt.Key.Key_Space)
    assert seen == walk
    assert hole_records(session) == ["marked"] * 6
    assert mark.works[HoleWork.MARKED].text() == "Mark\n6/6"


def test_the_card_is_large_and_says_where_with_what_and_for_whom(metal: MetalPages) -> None:
    mark = metal.mark
    click_on(mark.view, HoleKey(next(n for n, s in mark.states.items() if s.hole.purpose == "S2")))
    assert (mark.across.text(), mark.down.text()) == ("→ 145", "↓ 290")
    assert mark.across.font().pointSize() >= 40, "to be read from a metre"
    assert mark.tool.text() == "punch 22.3"
    assert "S2" in mark.purpose.text()


def test_a_hole_stays_shut_until_two_people_have_measured_its_lines(
    metal: MetalPages, session: Session, said: list[tuple[str, bool]]
) -> None:
    mark = metal.mark
    press(mark, Qt.Key.Key_3)
    mark.number = next(n for n, s in mark.states.items() if s.hole.purpose == "S2")
    mark.show_current()
    assert not mark.tick.isEnabled()
    mark.tick_now()
    assert "is locked" in said[-1][0]
    assert hole_records(session) == []
    mark.measure.click()
    assert metal.stack.currentWidget() is metal.measure
    assert metal.measure.title.text().startswith("Across to ")
    open_all(metal, session)
    metal.turn_to(0)
    number = mark.number
    assert mark.tick.isEnabled()
    press(mark, Qt.Key.Key_Space)
    assert hole_records(session) == ["drilled"]
    assert mark.states[number].has(HoleWork.MADE)


def test_readings_that_disagree_keep_it_shut_and_say_by_how_much(metal: MetalPages, session: Session) -> None:
    metal.turn_to(1)
    measure = metal.measure
    key = "door:across:145"
    measure.go_to(key)
    read(metal, 144.6, "Ida")
    assert measure.key == key
    assert "second person" in measure.verdict.text()
    read(metal, 145.4, "Per")
    assert "disagree by 0.8 mm" in measure.verdict.text()
    read(metal, 145.2, "Ida")
    assert measure.judgements[key].gate is Gate.OPEN
    assert measure.key != key, "the next one comes up"
    assert session.who == "Ida", "the window goes on under its own name"
    kept = [(r.who, f"{r.facts.value:g}") for r in session.records if isinstance(r.facts, DimensionRead)]
    assert kept == [("Ida", "144.6"), ("Per", "145.4"), ("Ida", "145.2")], "nothing is erased"
    measure.go_to(key)
    measure.back.click()
    assert [r.facts.value for r in session.records if isinstance(r.facts, DimensionRead)] == [144.6, 145.4, 145.2]
    assert measure.judgements[key].gate is Gate.DISAGREE


def test_a_datum_that_was_measured_elsewhere_moves_the_shaft_with_it(metal: MetalPages, session: Session) -> None:
    """By hand: the plate hangs 27.5 mm in, not 25: the centre goes from 82 to 84.5; measured anew, the gate opens."""
    metal.turn_to(1)
    measure, key = metal.measure, "datum:plate:across"
    measure.go_to(key)
    read(metal, 27.5, "Ida")
    assert "plan with what was measured" in measure.verdict.text()
    measure.plan_with.click()
    assert session.job.enclosure.plate_left == 27.5
    shaft = next(s for s in session.evaluation.get(DOOR).seats if s.is_shaft)
    assert shaft.x == 84.5
    assert measure.judgements[key].gate is Gate.FIRST
    for who in ("Ida", "Per"):
        measure.go_to(key)
        read(metal, 27.5, who)
    assert measure.judgements[key].gate is Gate.OPEN


def test_the_practice_may_ask_for_one_reading_only(metal: MetalPages, session: Session) -> None:
    session.edit("once", Doing(lambda job: set_practice(job, second_reading=SecondReading.NOBODY)))
    metal.turn_to(1)
    metal.measure.go_to("door:across:145")
    read(metal, 145.0, "Ida")
    assert metal.measure.judgements["door:across:145"].gate is Gate.OPEN


def test_the_pad_takes_the_keyboard_and_refuses_nonsense(metal: MetalPages, session: Session) -> None:
    metal.turn_to(1)
    pad = metal.measure.pad
    for key in (Qt.Key.Key_1, Qt.Key.Key_2, Qt.Key.Key_Comma, Qt.Key.Key_Comma, Qt.Key.Key_5):
        press(pad, key)
    assert pad.shown.text() == "12.5 mm"
    press(pad, Qt.Key.Key_Backspace)
    press(pad, Qt.Key.Key_Backspace)
    assert pad.shown.text() == "12 mm"
    press(pad, Qt.Key.Key_Escape)
    assert not pad.enter.isEnabled()
    press(pad, Qt.Key.Key_Return)
    assert not any(isinstance(r.facts, DimensionRead) for r in session.records)
    assert min(key.minimumWidth() for key in pad.keys.values()) >= 48


def test_a_blocked_surface_is_not_drilled(metal: MetalPages, session: Session, said: list[tuple[str, bool]]) -> None:
    open_all(metal, session)
    stray = Opening(Surface.DOOR, 369.0, 300.0, 22.5, 0.0, "socket", "IP65")
    session.edit("opening", Doing(lambda job: add_opening(job, stray)))
    metal.turn_to(0)
    press(metal.mark, Qt.Key.Key_3)
    assert "Not ready to drill" in metal.mark.words.text()
    metal.mark.tick_now()
    assert "Not ready to drill" in said[-1][0]
    assert hole_records(session) == []


def test_a_door_that_is_begun_moves_no_more(metal: MetalPages, session: Session) -> None:
    press(metal.mark, Qt.Key.Key_Space)
    assert session.job.door is not None
    before = {h.key: (h.x, h.y) for h in session.evaluation.get(METAL_HOLES) if h.face == "door"}
    session.edit("load", Doing(lambda job: with_names_recorded(add_load(job, "rinse pump", 0.37))))
    after = {h.key: (h.x, h.y) for h in session.evaluation.get(METAL_HOLES) if h.face == "door"}
    assert {key: after[key] for key in before if "c0.Q" not in key} == {
        k: v for k, v in before.items() if "c0.Q" not in k
    }
    assert len(session.evaluation.get(DOOR).seats) > 5


def test_a_tick_is_taken_back_with_a_correction(metal: MetalPages, session: Session) -> None:
    mark = metal.mark
    first = mark.number
    press(mark, Qt.Key.Key_Space)
    mark.number = first
    press(mark, Qt.Key.Key_Backspace)
    assert not mark.states[first].done
    assert [type(record.facts) for record in session.records] == [HoleDone, TakenBack]


def test_the_template_is_written_and_a_print_at_97_per_cent_refused(
    metal: MetalPages, session: Session, tmp_path: Path
) -> None:
    metal.turn_to(2)
    page = metal.template
    # By hand: A4 across shows 297 - 36 = 261 by 210 - 58 = 152 mm: 370 × 570 take two by four; upright three by three.
    assert "8 sheets across, 4 rows of 2" in page.words.text()
    page.write_to(tmp_path / "out")
    assert sorted(path.name for path in (tmp_path / "out").iterdir()) == [
        "KS-0417_rev_B_door.dxf",
        "KS-0417_rev_B_door_holes.svg",
        "KS-0417_rev_B_door_template.pdf",
    ]
    page.bar.setValue(97.0)
    page.check.click()
    assert page.verdict.text().startswith("✕")
    assert "97.0% of its size" in page.verdict.text()
    page.bar.setValue(100.1)
    page.check.click()
    assert page.verdict.text().startswith("✓")
    kept = [(f"{r.facts.bar:g}", r.facts.true) for r in session.records if isinstance(r.facts, TemplateChecked)]
    assert kept == [("97", "no"), ("100.1", "yes")]


def test_a_folder_that_cannot_be_written_is_said(
    metal: MetalPages, said: list[tuple[str, bool]], tmp_path: Path
) -> None:
    metal.turn_to(2)
    blocked = tmp_path / "file"
    blocked.write_text("in the way")
    metal.template.write_to(blocked / "papers")
    assert said[-1][1]
    assert "could not be written" in said[-1][0]


@pytest.mark.parametrize("face", ["plate", "gland plate"])
def test_other_surfaces_are_worked_the_same_way(metal: MetalPages, session: Session, face: str) -> None:
    metal.face.setCurrentText(face)
    press(metal.mark, Qt.Key.Key_Space)
    record = next(r for r in session.records if isinstance(r.facts, HoleDone))
    assert record.subject.startswith(f"hole:{face}:")


@pytest.mark.parametrize(("number", "face"), [("DH5", "door"), ("P3", "plate"), ("GH1", "gland plate")])
def test_a_hole_is_found_by_its_number_and_shown_large(
    window: MainWindow, session: Session, number: str, face: str
) -> None:
    window.go_to("Brief")
    window.show_thing(HoleKey(number))
    settle_window()
    station = window.stations[window.current]
    assert isinstance(station, (DoorStation, PlateStation))
    assert station.metal.face.currentText() == face
    assert station.metal.mark.title.text() == number
    assert session.selection == HoleKey(number)


def test_turning_mark_out_off_again_leaves_it_off(window: MainWindow, session: Session) -> None:
    window.show_thing(HoleKey("DH5"))
    station = window.stations["Door"]
    assert isinstance(station, DoorStation)
    station.marking.click()
    session.edit("heading", Doing(lambda job: set_practice(job, door_loop=400.0)))
    settle_window()
    assert not station.marking.isChecked()
    assert station.view.isVisible()


class TestCutting:
    @pytest.fixture
    def plate(self, window: MainWindow) -> PlateStation:
        window.go_to("Plate")
        station = window.stations["Plate"]
        assert isinstance(station, PlateStation)
        station.cutting.click()
        settle_window()
        return station

    def test_pieces_are_ticked_in_the_order_of_the_saw(self, plate: PlateStation, session: Session) -> None:
        total = len(session.evaluation.get(CUTS))
        first = plate.cut_tick.piece
        plate.cut_tick.tick.click()
        assert f"1 of {total} cut" in plate.cut_tick.words.text()
        assert plate.cut_tick.piece != first
        ticks = plate.cut_tick.shapes(plate.view.drawing)
        assert [mark.key for mark in ticks] == [PieceKey(first)]
        click_on(plate.view, PieceKey(first))
        assert plate.cut_tick.tick.text() == "Take back"
        plate.cut_tick.tick.click()
        assert f"0 of {total} cut" in plate.cut_tick.words.text()
        assert [type(record.facts) for record in session.records] == [PieceCut, TakenBack]

    def test_a_long_piece_is_measured_before_it_is_cut(
        self, plate: PlateStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        session.edit("long", Doing(lambda job: set_practice(job, long_piece=500.0)))
        settle_window()
        plate.cut_tick.show_piece(PieceKey("D1"))
        plate.cut_tick.tick.click()
        assert "measured before it is cut" in said[-1][0]
        assert session.records == ()
