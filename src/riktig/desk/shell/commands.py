"""What the window can do, as the menu bar offers it."""

from collections.abc import Callable
from functools import partial
from typing import Protocol

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QApplication,
    QDialog,
    QLabel,
    QMessageBox,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig import __version__
from riktig.core.views import STATIONS
from riktig.desk.canvas import DrawingView
from riktig.desk.server import show_board
from riktig.desk.session import Session
from riktig.desk.shell.arrivals import Arrivals
from riktig.desk.shell.details_panel import DetailsPanel
from riktig.desk.shell.drawing_list import DrawingList
from riktig.desk.shell.findings_drawer import FindingsDrawer
from riktig.desk.shell.guide import GuideWindow
from riktig.desk.shell.job_strip import JobStrip
from riktig.desk.shell.jobs import Jobs
from riktig.desk.shell.menu_bar import BREAK, Command
from riktig.desk.shell.panes import Panes
from riktig.desk.shell.properties import show_properties
from riktig.desk.shell.start_page import StartPage
from riktig.desk.shell.walk_panel import WalkPanel
from riktig.desk.stations import Stations
from riktig.desk.widgets import all_of_list, chosen_of_list

__all__ = ["commands_of", "print_station", "show_keys"]

ON_DRAWINGS = (
    ("Ctrl and wheel, + and -", "zoom a drawing"),
    ("0", "all of a drawing, and back"),
    ("Wheel, Shift and wheel", "scroll a drawing up and down, across"),
    (", and .", "the thing before and after, in reading order"),
    ("Enter, right button", "everything that can be done to what is selected"),
    ("Space", "the main step at the bench: tick, mark, operate"),
)
ABOUT = (
    "Riktig {version} plans motor starter panels, judges them against a rulebook, and keeps the record of wiring and "
    "testing. It certifies nothing: local codes and licensed practice decide. Licence: MIT."
)


class _Window(Protocol):
    """What is needed of the main window."""

    session: Session
    stations: Stations
    current: str
    start: StartPage
    strip: JobStrip
    drawer: FindingsDrawer
    details: DetailsPanel
    arrivals: Arrivals
    walk: WalkPanel
    panes: Panes
    drawing_list: DrawingList
    jobs: Jobs

    def show_start(self) -> None: ...
    def open_demo(self) -> None: ...
    def turn_theme(self) -> None: ...
    def go_to(self, name: str) -> None: ...


def commands_of(window: _Window, parent: QWidget) -> tuple[Command, ...]:
    """The commands of the window, menu by menu.

    Args:
        window: The window.
        parent: What dialogs stand over.
    """
    session = window.session

    def on_drawing(act: Callable[[DrawingView], object]) -> Callable[[], None]:
        def do() -> None:
            station = window.stations.get(window.current)
            views = station.findChildren(DrawingView) if station else []
            for view in sorted((v for v in views if v.isVisible()), key=lambda v: -v.width() * v.height())[:1]:
                act(view)

        return do

    keys = [f"Ctrl+{number % 10}" if number < 11 else "Ctrl+-" for number in range(1, len(STATIONS) + 1)]
    go = tuple(
        Command("Go", name, partial(window.go_to, name), (key,), f"Opens {name}")
        for name, key in zip(STATIONS, keys, strict=True)
    )
    commands: list[Command] = []

    def to(menu: str, text: str, act: Callable[[], object], tip: str, *keys: str) -> None:
        commands.append(Command(menu, text, act, keys, tip))

    to("File", "New job …", window.show_start, "Start a new job, or open one", "Ctrl+N", "Ctrl+O")
    to("File", "Open …", window.start.choose, "Open a job file from any folder", "Ctrl+Shift+O")
    to("File", "Open the demo job", window.open_demo, "Open the demonstration; it is a copy you may change")
    commands.append(Command("File", BREAK))
    to(
        "File",
        "Shop board …",
        lambda: show_board(session, window.jobs.open_on_server, parent),
        "All jobs of the shop's server: open one, or put the open job there",
    )
    to(
        "File",
        "Survey of a panel …",
        partial(_survey, window, parent),
        "Reads what was traced in a panel without papers: what contradicts itself, and its circuits",
    )
    to("File", "Import a job …", window.arrivals.import_job, "A job that was exported as JSON, with all its records")
    to(
        "File",
        "Print …",
        partial(print_station, window, parent),
        "The pages of this station: looked at, then printed",
        "Ctrl+P",
    )
    to("File", "Export documents …", lambda: window.go_to("Hand over"), "Lists, drawings and records for others to use")
    to(
        "File",
        "Properties …",
        partial(show_properties, parent, session),
        "Where the job lies and what is in it",
        "Alt+Return",
    )
    commands.append(Command("File", BREAK))
    to(
        "File",
        "Quit",
        lambda: parent.window().close(),
        "Closes the window; what is not saved yet is said first",
        "Ctrl+Q",
    )
    to("Edit", "Undo", session.undo, "Takes the last change of the job back", "Ctrl+Z")
    to("Edit", "Redo", session.redo, "Makes it again", "Ctrl+Shift+Z", "Ctrl+Y")
    commands.append(Command("Edit", BREAK))
    to("Edit", "Copy", partial(_copy, window, chosen_of_list), "The chosen rows of a table or list, as text", "Ctrl+C")
    to("Edit", "Copy all of the list", partial(_copy, window, all_of_list), "Every row, with headings", "Ctrl+Shift+C")
    to(
        "Edit",
        "Add a photo …",
        window.arrivals.ask_photo,
        "Keeps a photo of what is selected; or drop it on the window",
    )
    to("Edit", "Add a note …", window.arrivals.ask_note, "Keeps a note on what is selected, with who and when")
    to("Edit", "Design reason …", window.arrivals.ask_reason, "Why what is selected is as it is, for the manual")
    commands.append(Command("Edit", BREAK))
    to(
        "Edit",
        "Find …",
        window.strip.finder.setFocus,
        "A tag, pin, wire number, terminal, sheet or word",
        "Ctrl+F",
        "/",
    )
    to("Edit", "Select nothing", lambda: session.select(None), "Folds the details away")
    to("View", "Larger", on_drawing(lambda view: view.zoom(1.2)), "Zooms the drawing in (+)")
    to("View", "Smaller", on_drawing(lambda view: view.zoom(1 / 1.2)), "Zooms the drawing out (-)")
    to("View", "All of the drawing", on_drawing(DrawingView.fit_whole), "Shows all of the drawing (0)")
    to("View", "As it opens", on_drawing(DrawingView.fit), "Shows the drawing at a size that reads (0 again)")
    commands.append(Command("View", BREAK))
    to("View", "Details", window.details.turn, "Shows or hides what is known of the selection", "F9")
    to("View", "Findings", window.drawer.opener.toggle, "Opens or closes the list of findings", "F8")
    to(
        "View",
        "Drawing as a list",
        window.drawing_list.turn,
        "Every thing on the drawing by name; for readers too",
        "F7",
    )
    to("View", "Next pane", window.panes.next, "Route card, station, details, findings", "F6")
    to("View", "Light or dark", window.turn_theme, "Light for the desk, dark for the bench", "Ctrl+T")
    commands += go
    to("Help", "A walk through the panel", window.walk.begin, "Seven steps, from a load to its proof")
    to(
        "Help",
        "User guide",
        lambda: GuideWindow(parent).show(),
        "How to work with Riktig, station by station",
        "Shift+F1",
    )
    to("Help", "Keys", lambda: show_keys(parent, tuple(commands)), "All keys on one page", "F1")
    to("Help", "About Riktig", lambda: _about(parent), "Version and licence")
    return tuple(commands)


def _survey(window: _Window, parent: QWidget) -> None:
    from riktig.desk.shell.survey_dialog import ask_survey  # late: seldom needed

    ask_survey(window.session, parent)


def print_station(window: _Window, parent: QWidget) -> None:
    """Opens the print preview of the open station.

    Args:
        window: The window.
        parent: What the preview stands over.
    """
    from riktig.desk.printing.preview import PrintPreview  # late: it loads PDFium and what Qt needs to print

    station = window.stations.get(window.current)
    if station is None:
        window.session.say("Open a job first: then the pages of each station can be printed.", wrong=True)
        return
    PrintPreview(parent, window.session, station.print_job()).open()


def _copy(window: _Window, text_of: Callable[[QAbstractItemView], str]) -> None:
    """Copies from the list that has the focus, else from the largest of the station."""
    focus = QApplication.focusWidget()
    station = window.stations.get(window.current)
    views = station.findChildren(QAbstractItemView) if station else []
    shown = sorted((view for view in views if view.isVisible()), key=lambda view: -view.width() * view.height())
    view = focus if isinstance(focus, QAbstractItemView) else next(iter(shown), None)
    if view is None:
        window.session.say("There is no table or list here to copy from.")
        return
    text = text_of(view)
    QApplication.clipboard().setText(text)
    count = len(text.splitlines())
    window.session.say(f"Copied: {count} line{'' if count == 1 else 's'} of {view.accessibleName() or 'the list'}.")


def show_keys(parent: QWidget, commands: tuple[Command, ...]) -> QDialog:
    """A page with all keys.

    Args:
        parent: What it stands over.
        commands: The commands; those without keys are left out.
    """
    rows = [(" or ".join(c.keys), f"{c.menu}: {c.text.rstrip(' …')}") for c in commands if c.keys]
    rows += ON_DRAWINGS
    page = QDialog(parent)
    page.setWindowTitle("Keys")
    table = QTableWidget(len(rows), 2, page)
    table.setAccessibleName("Keys and what they do")
    table.setTabKeyNavigation(False)
    table.setHorizontalHeaderLabels(["Keys", "What they do"])
    table.verticalHeader().hide()
    table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
    for number, row in enumerate(rows):
        for column, text in enumerate(row):
            table.setItem(number, column, QTableWidgetItem(text))
    table.resizeColumnsToContents()
    table.horizontalHeader().setStretchLastSection(True)
    layout = QVBoxLayout(page)
    layout.addWidget(table)
    note = QLabel("Each station says its own keys at its foot, each button in its help.")
    note.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
    layout.addWidget(note)
    page.resize(560, 620)
    page.open()
    return page


def _about(parent: QWidget) -> None:
    QMessageBox.about(parent, "About Riktig", ABOUT.format(version=__version__))
