"""Starts the application: window, fonts, the handler of faults."""

import getpass
import sys
import threading
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QCoreApplication, QSettings, QTimer
from PySide6.QtGui import QFontDatabase, QIcon, QPixmap
from PySide6.QtWidgets import QApplication

from riktig.desk.first_window import FirstWindow
from riktig.desk.garbage import GarbageCollector
from riktig.desk.theme import DARK, grow_text, load_fonts, words_font
from riktig.places import window_file

if TYPE_CHECKING:  # loaded when the first screen has been painted
    from riktig.desk.session import Session
    from riktig.desk.shell import MainWindow

__all__ = ["application", "make_window", "run_demo", "run_window", "warm_up"]

HAND_OVER_S = 0.0005
"""After how long a thread that works aside hands over to the window, s. With Python's own 0.005 a tenth of the frames
of a drag took 20 to 70 ms while wires were worked out, now hardly one over 16 ms (measured, benchmarks/door.py)."""
SETTLE_MS = 1200
"""Until everything that is shown late is shown, before a picture is taken."""


def application() -> QApplication:
    """The application, with the shipped fonts."""
    instance = QCoreApplication.instance()
    if isinstance(instance, QApplication):
        return instance
    sys.setswitchinterval(HAND_OVER_S)
    app = QApplication(["riktig"])
    GarbageCollector(app)
    app.setApplicationName("Riktig")
    app.setDesktopFileName("riktig")
    app.setStyle("Fusion")
    load_fonts()
    grow_text(QFontDatabase.systemFont(QFontDatabase.SystemFont.GeneralFont).pointSizeF())
    app.setFont(words_font())
    icon = QPixmap()
    data = (Path(__file__).parent.parent / "assets" / "icons" / "riktig.png").read_bytes()
    if icon.loadFromData(data):
        app.setWindowIcon(QIcon(icon))
    return app


def make_window(session: "Session | None" = None) -> "MainWindow":
    """A window with a session of its own, faults handled.

    Args:
        session: Its session; a new one when none is given.
    """
    from riktig.core.errors import RiktigError  # late: half a second and more, after the first screen
    from riktig.core.store import signer_of
    from riktig.desk.rescue import install
    from riktig.desk.session import Session
    from riktig.desk.shell import MainWindow
    from riktig.places import keys_folder

    session = session or Session(who=getpass.getuser())
    window = MainWindow(session)
    try:
        session.signer = session.signer or signer_of(session.who, keys_folder())
    except RiktigError as error:
        session.say(str(error), wrong=True)
    install(session, window.tell_of_fault)
    return window


def run_window(job: str | None) -> int:
    """Opens the window on a file or a job of the server, or on the first screen.

    Args:
        job: A file, or an address on a server.

    Returns:
        The exit code of the application.
    """
    app = application()

    def make() -> "MainWindow":
        from riktig.log_file import begin_log  # late, as below

        begin_log()
        window = make_window()
        if job is None:
            QTimer.singleShot(0, warm_up)
        elif not window.jobs.open_named(job):
            window.show_start()
        return window

    first = FirstWindow(make, Path(job).name if job else "", QSettings(str(window_file()), QSettings.Format.IniFormat))
    first.show()
    return app.exec()


def warm_up() -> None:
    """Imports what the first job will need while the builder still types its number."""
    threading.Thread(target=import_module, args=("scipy.sparse.csgraph",), daemon=True).start()


def run_demo(shot: Path | None, station: str, *, dark: bool = False, job: str = "kelp-shed") -> int:
    """Opens the window on the demonstration; with ``shot``, writes a picture instead.

    Returns:
        The exit code.
    """
    from riktig.desk.demo_file import demo_file  # late, as above

    app = application()
    window = make_window()
    window.session.open(demo_file(window.session, job))
    names = {name.lower(): name for name in window.stations}
    wanted = names.get(station.lower().strip())
    if wanted is None:
        print(f"riktig: there is no station {station}. There are: {', '.join(window.stations)}.")  # noqa: T201
        return 2
    window.go_to(wanted)
    if dark:
        window.set_theme(DARK)
    window.show()
    if shot is None:
        return app.exec()
    saved: list[bool] = []

    def take() -> None:
        saved.append(window.grab().save(str(shot), "PNG"))
        window.close()
        app.quit()

    QTimer.singleShot(SETTLE_MS, take)
    app.exec()
    print(f"{shot} written" if saved == [True] else f"{shot} could not be written")  # noqa: T201
    return 0 if saved == [True] else 2
