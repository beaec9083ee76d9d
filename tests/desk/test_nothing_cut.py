"""No text is cut, none lies over another: measured in the real window, at its least size and at a large one.

Both themes have the same geometry, so one is enough; at 200 % Qt lays out in the same logical pixels, so that what is
measured here at a size holds at twice the pixels too. Larger letters are another matter, and tried by themselves.
"""

from collections.abc import Iterator

import pytest
from PySide6.QtCore import QRect
from PySide6.QtWidgets import QLabel, QPushButton, QWidget

from riktig.core.geometry import Drawing, Text
from riktig.core.job import Job
from riktig.core.keys import read_key
from riktig.demo_job import frost_fan, kelp_shed
from riktig.desk import theme
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import settle_window
from tests.desk.measure import cut_cells, cut_texts, overlapping_texts, overlapping_widgets
from tests.effort import share

PAGES = {
    "Circuits": ("Energise", "All sheets"),
    "Plate": ("Mark-out", "Cut list", "Parts"),
    "Door": ("From behind", "Mark-out"),
    "Wires": ("From – to", "Numbers"),
    "Terminals": ("List",),
}
LEAST, LARGE = (1000, 700), (1920, 1080)


@pytest.fixture(params=share(["kelp shed", "frost fan"], 0))
def demo(request: pytest.FixtureRequest) -> Job:
    return kelp_shed() if request.param == "kelp shed" else frost_fan()


def faults(window: MainWindow) -> list[tuple[str, str]]:
    """Everything that is cut or lies over something else."""
    views = [view for view in window.findChildren(DrawingView) if view.isVisible()]
    over = [pair for view in views for pair in overlapping_texts(view)]
    return [*cut_texts(window), *overlapping_widgets(window), *cut_cells(window), *over]


@pytest.mark.parametrize("size", [LEAST, LARGE])
def test_on_every_station(window: MainWindow, size: tuple[int, int]) -> None:
    window.resize(*size)
    for name in window.stations:
        window.go_to(name)
        settle_window()
        assert faults(window) == [], name
        assert (window.width(), window.height()) == size, name


def test_on_the_pages_of_a_station_at_the_least_size(window: MainWindow) -> None:
    window.resize(*LEAST)
    for name, pages in PAGES.items():
        window.go_to(name)
        settle_window()
        buttons = {b.text(): b for b in window.stations[name].findChildren(QPushButton)}
        for page in pages:
            buttons[page].click()
            settle_window()
            assert faults(window) == [], (name, page)
            assert (window.width(), window.height()) == LEAST, (name, page)
            if buttons[page].isCheckable() and buttons[page].isChecked() and name not in ("Wires", "Terminals"):
                buttons[page].click()


def test_with_details_and_findings_open_at_the_least_size(window: MainWindow, session: Session) -> None:
    window.resize(*LEAST)
    motor = session.job.circuits[-1].id
    for name in window.stations:
        window.go_to(name)
        settle_window()
        session.select(read_key(f"circuit:{motor}"))
        settle_window()
        assert faults(window) == [], name
        assert (window.width(), window.height()) == LEAST, name
        window.drawer.opener.setChecked(True)
        settle_window()
        assert [fault for fault in faults(window) if "covered" in fault[0]] == [], name
        assert (window.width(), window.height()) == LEAST, name
        window.drawer.opener.setChecked(False)


def test_a_long_message_can_be_read_whole(window: MainWindow, session: Session) -> None:
    window.resize(*LEAST)
    window.go_to("Brief")
    text = "The last step is not in the file, for the disk is full. " * 4
    session.say(text, wrong=True)
    settle_window()
    assert cut_texts(window) == []
    assert window.drawer.whole.isVisible()
    heard: list[str] = []
    window.drawer.read_asked.connect(heard.append)
    window.drawer.whole.click()
    assert heard == [text]


@pytest.fixture
def grown() -> Iterator[None]:
    """The desktop asks for letters of 13 pt."""
    theme.grow_text(13.0)
    yield
    theme.grow_text(10.0)


@pytest.mark.usefixtures("grown")
def test_with_the_larger_letters_of_the_desktop(session: Session, app: object) -> None:
    assert theme.words_font().pointSizeF() == pytest.approx(13.0)
    assert theme.words_font(40.0).pointSizeF() == 40.0, "what reads at arm's length already does not grow"
    window = MainWindow(session)
    window.resize(1280, 800)
    window.show()
    for name in window.stations:
        window.go_to(name)
        settle_window()
        assert faults(window) == [], name
    window.close()
    window.deleteLater()


def test_the_measure_finds_what_is_cut_and_what_lies_over_something(app: object) -> None:
    page = QWidget()
    page.resize(300, 200)
    narrow, low, under, over, fits = (QLabel(text, page) for text in ("a long text", "low", "one", "two", "fits"))
    narrow.setGeometry(QRect(10, 10, 20, 30))
    low.setGeometry(QRect(10, 60, 100, 4))
    under.setGeometry(QRect(10, 100, 100, 30))
    over.setGeometry(QRect(40, 110, 100, 30))
    fits.setGeometry(QRect(150, 10, 100, 30))
    button = QPushButton("a button with much to say", page)
    button.setGeometry(QRect(150, 60, 40, 30))
    page.show()
    assert {text for _, text in cut_texts(page)} >= {"a long text", "low", "a button with much to say"}
    assert "fits" not in {text for _, text in cut_texts(page)}
    assert ("one", "two") in overlapping_widgets(page)
    page.close()


def test_the_measure_finds_texts_of_a_drawing_that_lie_over_each_other(app: object) -> None:
    view = DrawingView("two texts")
    view.resize(400, 300)
    view.show_drawing(
        Drawing(100, 80, (Text(10, 20, "one", 6.0), Text(12, 21, "two", 6.0), Text(10, 60, "apart", 6.0)), "d")
    )
    view.show()
    assert overlapping_texts(view) == [("one", "two")]
    view.close()
