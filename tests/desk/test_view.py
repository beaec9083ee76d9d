"""The drawing view: zoom, choose, step, drag; and the painter that paints display lists."""

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QHelpEvent, QImage, QPainter, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QScrollBar, QWidget

from riktig.core.geometry import Align, Arc, Circle, Drawing, Face, Line, Point, Poly, Shape, Text
from riktig.core.keys import Key, read_key
from riktig.desk.canvas import FITS, PAGES, SHEET, WORKSHOP, DrawingView, Gesture, Opening, paint, paint_batched
from riktig.desk.theme import LIGHT
from tests.desk.conftest import drag, press
from tests.waiting import let_pass

BOX = (Point(10, 10), Point(30, 10), Point(30, 30), Point(10, 30))
DRAWING = Drawing(
    100,
    100,
    (
        Poly(BOX, closed=True, fill="part", key=read_key("device:a")),
        Circle(70, 70, 8, fill="card", key=read_key("device:b")),
        Text(50, 50, "K1", 4.0, key=read_key("net:1")),
    ),
)


@pytest.fixture
def view(app: QApplication) -> DrawingView:
    view = DrawingView("test")
    view.resize(516, 516)
    view.show_drawing(DRAWING)
    view.fit()
    view.show()
    return view


def test_the_whole_is_shown_and_a_click_chooses_what_is_under_it(view: DrawingView) -> None:
    chosen: list[Key | None] = []
    view.chosen.connect(chosen.append)
    for at in (Point(20, 20), Point(70, 70), Point(95, 5)):
        QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=view.to_px(at).toPoint())
    assert chosen == [read_key("device:a"), read_key("device:b"), None]


def test_zoom_keeps_the_point_under_the_pointer(view: DrawingView) -> None:
    at = QPointF(140, 333)
    before = view.to_mm(at)
    wheel = QWheelEvent(
        at,
        at,
        QPoint(0, 0),
        QPoint(0, 120),
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.ControlModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    view.wheelEvent(wheel)
    after = view.to_mm(at)
    assert (after.x, after.y) == pytest.approx((before.x, before.y))
    assert view.to_px(Point(1, 0)).x() - view.to_px(Point(0, 0)).x() > 5


def test_keys_zoom_fit_and_step_through_what_is_drawn(view: DrawingView) -> None:
    chosen: list[Key | None] = []
    view.chosen.connect(chosen.append)
    view.chosen.connect(lambda key: view.select(frozenset({key})))
    wide = view.to_px(Point(100, 0)).x()
    press(view, Qt.Key.Key_Plus)
    assert view.to_px(Point(100, 0)).x() > wide
    press(view, Qt.Key.Key_0)
    assert view.to_px(Point(100, 0)).x() == pytest.approx(wide)
    for _ in range(4):
        press(view, Qt.Key.Key_Period)
    press(view, Qt.Key.Key_Comma)
    assert chosen == [
        read_key("device:a"),
        read_key("device:b"),
        read_key("net:1"),
        read_key("device:a"),
        read_key("net:1"),
    ]


class Recorder(Gesture):
    def __init__(self) -> None:
        self.calls: list[str] = []

    def begin(self, key: Key | None, at: Point) -> bool:
        self.calls.append(f"begin {key}")
        return key == read_key("device:a")

    def move(self, at: Point) -> None:
        self.calls.append("move")

    def finish(self) -> None:
        self.calls.append("finish")

    def cancel(self) -> None:
        self.calls.append("cancel")


@pytest.mark.parametrize(
    ("start", "drop", "calls"),
    [
        (Point(20, 20), True, ["begin device:a", "move", "move", "finish"]),
        (Point(70, 70), True, ["begin device:b"]),
        (Point(95, 5), True, ["begin None"]),
        (Point(20, 20), False, ["begin device:a", "move", "move", "cancel"]),
    ],
    ids=["dropped", "what does not move", "nothing there", "Esc"],
)
def test_a_gesture_begins_moves_and_ends_once(view: DrawingView, start: Point, drop: bool, calls: list[str]) -> None:
    gesture = view.gesture = Recorder()
    drag(view, view.to_px(start), view.to_px(Point(start.x + 20, start.y)), drop=drop)
    if not drop:
        press(view, Qt.Key.Key_Escape)
        QTest.mouseRelease(view, Qt.MouseButton.LeftButton)
    assert gesture.calls == calls


def test_a_click_is_no_drag(view: DrawingView) -> None:
    gesture = view.gesture = Recorder()
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=view.to_px(Point(20, 20)).toPoint())
    assert gesture.calls == []


def test_what_is_out_of_sight_is_brought_into_it(view: DrawingView) -> None:
    view.zoom(8.0, QPointF(0, 0))
    at = view.centre_of(read_key("device:b"))
    assert at is not None
    assert not view.rect().contains(at.toPoint())
    view.reveal(read_key("device:b"))
    at = view.centre_of(read_key("device:b"))
    assert at is not None
    assert view.rect().contains(at.toPoint())


MARKS: list[Shape] = [
    Line(2, 5, 8, 5, width=2),
    Poly((Point(2, 2), Point(8, 2), Point(8, 8)), closed=True, fill="ink"),
    Circle(5, 5, 3, fill="ink"),
    Arc(5, 5, 3, 0, 180, width=2),
    Text(1, 8, "M", 6.0, face=Face.PRINTED_BOLD),
    Text(8, 9, "M", 4.0, upright=False, align=Align.LEFT),
]


@pytest.mark.parametrize("mark", MARKS, ids=lambda m: type(m).__name__)
def test_every_kind_of_mark_puts_ink_where_it_is(app: QApplication, mark: Shape) -> None:
    image = QImage(100, 100, QImage.Format.Format_RGB32)
    image.fill(LIGHT.colour("paper"))
    painter = QPainter(image)
    painter.scale(10, 10)
    paint(painter, [mark], LIGHT)
    painter.end()
    dark = [(x, y) for x in range(100) for y in range(100) if image.pixelColor(x, y).lightness() < 90]
    assert dark
    assert all(5 <= x <= 98 and 5 <= y <= 98 for x, y in dark)


def test_what_is_chosen_is_painted_in_the_accent(app: QApplication) -> None:
    image = QImage(100, 100, QImage.Format.Format_RGB32)
    image.fill(LIGHT.colour("paper"))
    painter = QPainter(image)
    paint(
        painter, [Line(0, 50, 100, 50, width=6, key=read_key("wire:a"))], LIGHT, chosen=frozenset({read_key("wire:a")})
    )
    painter.end()
    assert image.pixelColor(50, 50) == LIGHT.colour("act")


def test_batched_marks_look_as_if_they_were_painted_one_by_one(app: QApplication) -> None:
    shapes: list[Shape] = [
        Poly((Point(10, 10), Point(80, 10), Point(80, 60)), "ink", 3.0),
        Poly((Point(20, 30), Point(60, 30)), "fails", 4.0),
        Circle(40, 50, 6.0, "fails", 0, "fails"),
        Poly((Point(70, 70), Point(90, 70), Point(90, 90)), "act", 1.0, True, "act"),
    ]
    pictures = []
    for how in (paint, paint_batched):
        image = QImage(100, 100, QImage.Format.Format_RGB32)
        image.fill(LIGHT.colour("paper"))
        painter = QPainter(image)
        how(painter, shapes, LIGHT)
        painter.end()
        pictures.append([image.pixelColor(x, y).name() for x in range(100) for y in range(100)])
    differing = sum(a != b for a, b in zip(*pictures, strict=True))
    assert differing < 25, "joints and dots may differ by a pixel at their rim"
    assert pictures[1].count(LIGHT.colour("fails").name()) > 200


TALL = Drawing(400, 1600, (Poly(BOX, closed=True, fill="part", key=read_key("device:a")),), "tall")


def opened(view: DrawingView, opening: Opening, drawing: Drawing) -> DrawingView:
    view.opening = opening
    view.show_drawing(drawing)
    view.fit()
    QApplication.processEvents()
    return view


def test_a_tall_plate_opens_wider_than_what_would_show_all_of_it_and_is_scrolled(view: DrawingView) -> None:
    opened(view, WORKSHOP, TALL)
    whole = (516 - 30) / 1600
    assert view.scale == pytest.approx(1.8 * whole)
    across, down = (bar.isVisible() for bar in view.findChildren(QScrollBar))
    assert (across, down) == (False, True)
    press(view, Qt.Key.Key_0)
    assert view.scale == pytest.approx(whole), "0 shows all of it"
    press(view, Qt.Key.Key_0)
    assert view.scale == pytest.approx(1.8 * whole), "and 0 again as it opened"


def test_the_scroll_bar_moves_the_drawing(view: DrawingView) -> None:
    opened(view, WORKSHOP, TALL)
    bar = view.findChildren(QScrollBar)[1]
    bar.setValue(bar.maximum())
    assert view.to_mm(QPointF(0, 516)).y == pytest.approx(1600, abs=3 * 16 / view.scale)
    view.pan(QPointF(0, 100))
    assert bar.value() == bar.maximum() - 100


def test_a_sheet_opens_so_that_its_smallest_text_reads(view: DrawingView) -> None:
    """9 pt is 12 px at 96 dots an inch; a capital is 0.76 of it (B612)."""
    sheet = Drawing(240, 170, (Text(20, 20, "K1", 3.2), Text(20, 30, "coil", 2.2)))
    opened(view, SHEET, sheet)
    assert view.scale * 2.2 / 0.76 == pytest.approx(12.0)


def test_a_help_event_says_what_was_left_out(view: DrawingView, monkeypatch: pytest.MonkeyPatch) -> None:
    said: list[str] = []
    monkeypatch.setattr("riktig.desk.canvas.scaled_view.QToolTip.showText", lambda at, text, widget: said.append(text))
    key = read_key("device:a")
    crowded = Drawing(2000, 2000, (Poly(BOX, closed=True, key=key), Text(12, 20, "main isolator", 2.0, key=key)))
    opened(view, FITS, crowded)
    view.grab()
    at = view.to_px(Point(20, 20)).toPoint()
    QApplication.sendEvent(view, QHelpEvent(QEvent.Type.ToolTip, at, view.mapToGlobal(at)))
    assert said == ["main isolator"]


def test_a_drag_held_at_the_edge_moves_the_drawing_on(view: DrawingView) -> None:
    class Follows(Gesture):
        at = Point(0, 0)

        def begin(self, key: Key | None, at: Point) -> bool:
            return True

        def move(self, at: Point) -> None:
            self.at = at

    opened(view, WORKSHOP, TALL)
    view.gesture = gesture = Follows()
    start, edge = view.to_px(Point(20, 20)).toPoint(), QPoint(60, 510)
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
    QTest.mouseMove(view, start + QPoint(20, 20))
    QTest.mouseMove(view, edge)
    before = gesture.at.y
    let_pass(200)
    assert gesture.at.y > before + 10
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=edge)
    stood = view.to_mm(QPointF(0, 0)).y
    let_pass(100)
    assert view.to_mm(QPointF(0, 0)).y == stood, "it ends with the drag"


def test_a_page_moves_aside_for_what_opens_beside_it_at_its_size(app: QApplication) -> None:
    parent = QWidget()
    parent.resize(1000, 600)
    view = DrawingView("view", parent)
    view.opening = PAGES
    view.resize(1000, 600)
    parent.show()
    view.show_drawing(Drawing(120, 400, (Poly(BOX, closed=True, fill="part"), Text(5, 5, "K1", 2.4))))
    let_pass(20)  # painted once, so that it knows the window it was fitted in
    before = view.scale
    view.resize(640, 600)
    assert view.scale == before
    assert view.to_px(Point(0, 0)).x() >= 0
    assert view.to_px(Point(120, 0)).x() <= 640
    view.resize(480, 600)
    assert view.scale < before, "where it would be cut it is shown smaller"
    assert view.to_px(Point(120, 0)).x() <= 480
    parent.close()
