"""The menu bar: everything the window can do, with its keys and a line on what it does."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QMainWindow, QMenu, QPushButton

from riktig.desk.widgets import Station

__all__ = ["Command", "fill_menu_bar"]

BREAK = "-"


@dataclass(frozen=True, slots=True)
class Command:
    """One entry: the menu it stands in, its words, what it does, its keys, and a line on it.

    ``text`` is “-” for a line between entries.
    """

    menu: str
    text: str
    act: Callable[[], object] = lambda: None
    keys: tuple[str, ...] = ()
    tip: str = ""


def fill_menu_bar(
    window: QMainWindow,
    commands: Sequence[Command],
    station: Callable[[], Station | None],
    recent: Callable[[], list[Path]],
    open_path: Callable[[Path], object],
) -> dict[str, QMenu]:
    """Makes the menus of a window.

    Args:
        window: The window.
        commands: Its commands, menu by menu.
        station: The station that is open: its buttons are the menu “Station”.
        recent: The jobs of late, newest first.
        open_path: Opens one of them.

    Returns:
        The menus by their titles.
    """
    bar, menus = window.menuBar(), dict[str, QMenu]()
    for command in commands:
        menu = menus.get(command.menu)
        if menu is None:
            menu = menus[command.menu] = bar.addMenu(f"&{command.menu}")
            menu.setToolTipsVisible(True)
        if command.text == BREAK:
            menu.addSeparator()
            continue
        action = QAction(command.text, window)
        action.setShortcuts([QKeySequence(keys) for keys in command.keys])
        action.setToolTip(command.tip)
        action.triggered.connect(lambda _=False, c=command: c.act())
        menu.addAction(action)
    of_station = QMenu("&Station", window)
    of_station.setToolTipsVisible(True)
    of_station.aboutToShow.connect(lambda: _fill_station(of_station, station()))
    bar.insertMenu(menus["Go"].menuAction(), of_station)
    jobs = QMenu("Open &recent", window)
    jobs.aboutToShow.connect(lambda: _fill_recent(jobs, recent(), open_path))
    menus["File"].insertMenu(menus["File"].actions()[2], jobs)
    return menus | {"Station": of_station, "Recent": jobs}


def _fill_station(menu: QMenu, station: Station | None) -> None:
    """The buttons of a station that can be pressed now, with what each does."""
    menu.clear()
    buttons = station.findChildren(QPushButton) if station else []
    for button in buttons:
        if button.isVisible() and button.toolTip():
            action = menu.addAction(button.text().replace("&", "&&"))
            action.setToolTip(button.toolTip())
            action.setEnabled(button.isEnabled())
            action.setCheckable(button.isCheckable())
            action.setChecked(button.isChecked())
            action.triggered.connect(lambda _=False, b=button: b.click())
    if menu.isEmpty():
        menu.addAction("Nothing to do here").setEnabled(False)


def _fill_recent(menu: QMenu, paths: list[Path], open_path: Callable[[Path], object]) -> None:
    menu.clear()
    for path in paths:
        menu.addAction(path.stem).triggered.connect(lambda _=False, p=path: open_path(p))
    if menu.isEmpty():
        menu.addAction("No jobs yet").setEnabled(False)
