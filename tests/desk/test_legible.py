"""No text on the screen is under 9 pt when a view opens: measured in the real window, from the display lists."""

import pytest
from PySide6.QtWidgets import QApplication, QLabel, QPushButton, QWidget

from riktig.core.edits import ChangeLoad
from riktig.core.geometry import CAPITAL, Shape, Text
from riktig.core.job import Job
from riktig.core.labels import Medium
from riktig.core.plate import LAYOUT
from riktig.core.production import BuildStage
from riktig.core.schematic import CIRCUITS, NAMES, SHEETS
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed
from riktig.desk.canvas import LEAST_PX, DrawingView
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.door import DoorStation
from riktig.desk.stations.labels import LabelsStation
from riktig.desk.stations.plate import PlateStation
from tests.desk.conftest import settle_window
from tests.effort import share

DRAWN = ("Circuits", "Plate", "Door", "Wires", "Terminals", "Build", "Prove")
ALMOST = 0.965
"""A third of a pixel less than 12 px is not seen."""


@pytest.fixture(params=share(["kelp shed", "frost fan"], 1))
def demo(request: pytest.FixtureRequest) -> Job:
    return kelp_shed() if request.param == "kelp shed" else frost_fan()


@pytest.fixture
def window(window: MainWindow) -> MainWindow:
    window.resize(1280, 800)
    return window


def shown_in(view: DrawingView) -> list[Shape]:
    """The marks as they are painted: what lies over the drawing, then the drawing."""
    laid = view.readable(view.laid)
    standing = tuple(mark for mark in laid if isinstance(mark, Text))
    return [*laid, *view.readable(view.drawing.shapes, standing)]


def too_small(view: DrawingView) -> list[tuple[str, float]]:
    """Texts under 9 pt, with their pixels."""
    marks = [mark for mark in shown_in(view) if isinstance(mark, Text) and mark.text.strip()]
    sizes = [(mark.text, round(mark.size / CAPITAL * view.scale, 1)) for mark in marks]
    return [(text, px) for text, px in sizes if px < ALMOST * LEAST_PX]


def test_no_text_of_a_drawing_is_under_nine_points(window: MainWindow) -> None:
    seen = 0
    for name in DRAWN:
        window.go_to(name)
        settle_window()
        for view in window.stations[name].findChildren(DrawingView):
            if view.isVisible():
                seen += 1
                assert too_small(view) == [], (name, view.accessibleName())
    assert seen >= len(DRAWN)


def test_every_sheet_opens_so_that_all_of_it_reads(window: MainWindow, session: Session) -> None:
    window.go_to("Circuits")
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    for number, sheet in enumerate(session.evaluation.get(SHEETS).sheets):
        station.show_sheet(number)
        settle_window()
        assert too_small(station.view) == [], sheet.title
    station.energise()
    settle_window()
    assert too_small(station.live.view) == []


def test_surfaces_to_mark_out_and_cut_lists_read(window: MainWindow) -> None:
    for name in ("Plate", "Door"):
        window.go_to(name)
        station = window.stations[name]
        assert isinstance(station, PlateStation | DoorStation)
        station.marking.click()
        settle_window()
        shown = [view for view in station.findChildren(DrawingView) if view.isVisible()]
        assert shown
        assert [small for view in shown for small in too_small(view)] == [], name
        station.marking.click()
    plate = window.stations["Plate"]
    assert isinstance(plate, PlateStation)
    window.go_to("Plate")
    plate.cutting.click()
    settle_window()
    assert too_small(plate.view) == []


def test_labels_of_every_medium_and_pin_cards_read(window: MainWindow) -> None:
    window.go_to("Labels")
    station = window.stations["Labels"]
    assert isinstance(station, LabelsStation)
    texts = 0
    for medium in (*Medium, None):
        station.turn(medium)
        settle_window()
        view = station.findChild(DrawingView)
        assert view is not None
        texts += sum(isinstance(mark, Text) for mark in view.drawing.shapes)
        assert too_small(view) == [], medium
    assert texts > 500, "it is the labels that were measured"


def test_the_plate_names_every_part_that_is_as_wide_as_a_breaker(window: MainWindow, session: Session) -> None:
    """Leaving texts out is no way to pass: 17.5 mm is one pole."""
    window.go_to("Plate")
    settle_window()
    view = window.stations["Plate"].findChild(DrawingView)
    assert view is not None
    shown = {mark.text for mark in shown_in(view) if isinstance(mark, Text)}
    names, circuits = session.evaluation.get(NAMES).tag, session.evaluation.get(CIRCUITS)
    seats = [s for s in session.evaluation.get(LAYOUT).seats if not circuits.device(s.device).strip]
    wide = {names[seat.device] for seat in seats if seat.rect.width >= 17.5 and seat.rect.height >= 40}
    assert len(wide) > 10
    assert wide - shown == set()


def test_no_text_of_the_window_is_under_nine_points(window: MainWindow) -> None:
    for name in window.stations:
        window.go_to(name)
        settle_window()
        texts = [w for w in window.findChildren(QWidget) if isinstance(w, QLabel | QPushButton) and w.isVisible()]
        small = [(w.text(), w.fontInfo().pixelSize()) for w in texts if w.fontInfo().pixelSize() < LEAST_PX]
        assert len(texts) > 15
        assert small == [], name


def test_the_font_of_tables_and_lists_is_nine_points_or_more(app: QApplication) -> None:
    assert app.font().pixelSize() >= LEAST_PX or app.font().pointSizeF() >= 9.0


def test_the_window_can_be_a_thousand_pixels_wide(window: MainWindow) -> None:
    window.resize(1000, 700)
    settle_window()
    window.session.edit("power", ChangeLoad(window.session.job.loads[0].id, {"kw": 7.5}))
    settle_window()
    assert window.effect.isVisible()
    for name in window.stations:
        window.go_to(name)
        settle_window()
        assert (window.width(), window.height()) == (1000, 700), name
        for opens in (window.drawer.opener, window.effect.more):
            opens.setChecked(True)
            settle_window()
            assert (window.width(), window.height()) == (1000, 700), f"{name}, with a list open at the foot"
            opens.setChecked(False)
    title, pill = window.strip.title, window.strip.pills[1]
    for label, whole in ((title, window.session.job.title), (pill, pill.accessibleName())):
        assert label.text() == whole or (label.text().endswith("…") and label.toolTip() == whole)
    window.resize(1600, 900)
    settle_window()
    assert title.text() == window.session.job.title


def test_the_ends_of_wires_to_land_stand_in_columns(window: MainWindow) -> None:
    window.go_to("Build")
    settle_window()
    build = window.stations["Build"]
    assert isinstance(build, BuildStation)
    build.show_stage(BuildStage.WIRES)
    lines = [build.wires.list.item(row).text() for row in range(build.wires.list.count())]
    wires = window.session.evaluation.get(WIRING).wires
    starts = {line.index(f" {wire.start.label} ") for line, wire in zip(lines, wires, strict=True)}
    assert len(starts) == 1, "no number runs into the ends"
