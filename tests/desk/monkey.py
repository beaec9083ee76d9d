"""A monkey at the window: mouse and keys anywhere, in dialogs and menus too; every fault of the program is caught.

Run: .venv/bin/python -m tests.desk.monkey [ACTIONS] [SEED] [JOB]
"""

import ast
import ctypes
import gc
import importlib
import os
import pkgutil
import random
import resource
import sys
import tempfile
from pathlib import Path
from typing import cast

from PySide6.QtCore import QPoint, Qt, QTimer
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QFileDialog, QWidget

import riktig.core
from riktig.core.errors import RiktigError
from riktig.core.optimiser.warm_up import warm_up
from riktig.core.store import JobFile
from riktig.demo_job import DEMOS
from riktig.desk.app import application
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.waiting import let_pass

__all__ = ["Monkey"]

KEYS = [
    getattr(Qt.Key, f"Key_{name}")
    for name in (
        *"ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789", "Space", "Return", "Escape", "Tab", "Backtab", "Backspace", "Delete",
        "Up", "Down", "Left", "Right", "Home", "End", "PageUp", "PageDown", "F1", "F2", "Plus", "Minus",
    )
]  # fmt: skip
SIZES = ((1280, 800), (1024, 700), (1600, 1000))
HOLDS = (Qt.KeyboardModifier.NoModifier,) * 6 + (
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.AltModifier,
)


DEEPEST = 4
"""Dialogs upon dialogs before the monkey only closes them."""


class Monkey:
    """Acts at random on a window; the same seed acts alike as far as the clock lets it.

    ``faults`` are the errors of the program, in words; ``said`` what was done, newest last.
    """

    def __init__(self, window: MainWindow, seed: int) -> None:
        self.window, self.rng = window, random.Random(seed)
        self.faults: list[str] = []
        self.acts: list[str] = []
        self.left = self._depth = 0
        self.resting = True

    def run(self, actions: int) -> None:
        """So many actions, from a timer: a dialog that waits for an answer gets one from the next."""
        before, sys.excepthook = sys.excepthook, self._caught
        self.left = actions
        self.resting = False
        QTimer.singleShot(0, self._act)
        try:
            while self.left > 0:
                let_pass(20)
        finally:
            self.resting = True
            for _ in range(20):
                top = QApplication.activeModalWidget()
                if not isinstance(top, QDialog):
                    break
                top.reject()
                let_pass(5)
            sys.excepthook = before

    def _act(self) -> None:
        if self.resting:
            return
        # The next is due before this one is done: a dialog has its own loop, and a timer that is being served is not
        # served again in it.
        QTimer.singleShot(0 if self.left > 0 else 50, self._act)
        if self.left <= 0:  # a dialog that still waits for an answer would wait for ever
            last = self._top()
            if isinstance(last, QDialog):
                last.reject()
            elif last is not self.window:
                last.close()
            return
        self.left -= 1
        self._depth += 1
        try:
            top = self._top()
            if self._depth > DEEPEST and isinstance(top, QDialog):
                top.reject()
            else:
                self._one(top)
        except RiktigError:
            pass
        except Exception as error:  # noqa: BLE001 - that is what is looked for
            self._caught(type(error), error, error.__traceback__)
        finally:
            self._depth -= 1

    def _caught(self, kind: type[BaseException], error: BaseException, trace: object) -> None:
        if isinstance(error, RiktigError):
            return
        place = error.__traceback__
        while place and place.tb_next:
            place = place.tb_next
        where = f"{Path(place.tb_frame.f_code.co_filename).name}:{place.tb_lineno}" if place else ""
        self.faults.append(f"{kind.__name__} {error} at {where} after {self.acts[-3:]}")

    def _top(self) -> QWidget:
        app = cast(QApplication, QApplication.instance())
        return app.activePopupWidget() or app.activeModalWidget() or self.window

    def _one(self, top: QWidget) -> None:
        rng = self.rng
        if isinstance(top, QDialog) and (isinstance(top, QFileDialog) or rng.random() < 0.15):
            self._note("rejects", top)
            top.reject()
            return
        at = QPoint(rng.randrange(max(top.width(), 1)), rng.randrange(max(top.height(), 1)))
        widget = top.childAt(at) or top
        spot = widget.mapFrom(top, at)
        hold = rng.choice(HOLDS)
        match rng.randrange(20):
            case 0 | 1 | 2 | 3 | 4 | 5:
                self._note("clicks", widget)
                QTest.mouseClick(widget, Qt.MouseButton.LeftButton, hold, spot)
            case 6:
                self._note("clicks right", widget)
                QTest.mouseClick(widget, Qt.MouseButton.RightButton, hold, spot)
            case 7:
                self._note("clicks twice", widget)
                QTest.mouseDClick(widget, Qt.MouseButton.LeftButton, hold, spot)
            case 8 | 9:
                self._note("drags", widget)
                QTest.mousePress(widget, Qt.MouseButton.LeftButton, hold, spot)
                for _ in range(rng.randrange(1, 5)):
                    spot += QPoint(rng.randrange(-90, 90), rng.randrange(-90, 90))
                    QTest.mouseMove(widget, spot)
                QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, hold, spot)
            case 10:
                self._note("turns the wheel over", widget)
                self._wheel(widget, spot)
            case 11 if top is self.window:
                name = rng.choice(list(self.window.stations))
                self._note(f"goes to {name}", top)
                self.window.go_to(name)
            case 12 if top is self.window:
                self.window.resize(*rng.choice(SIZES))
            case 13 if top is self.window:
                QTest.keyClick(top, rng.choice((Qt.Key.Key_Z, Qt.Key.Key_Y)), Qt.KeyboardModifier.ControlModifier)
            case _:
                focus = QApplication.focusWidget()
                target = focus if focus and (focus is top or top.isAncestorOf(focus)) else top
                key = rng.choice(KEYS)
                if hold & Qt.KeyboardModifier.AltModifier and key == Qt.Key.Key_F4:
                    return
                self._note(f"presses {key.name}", target)
                QTest.keyClick(target, key, hold)

    def _wheel(self, widget: QWidget, spot: QPoint) -> None:
        turn = QPoint(0, self.rng.choice((-120, 120)))
        event = QWheelEvent(
            spot.toPointF(), widget.mapToGlobal(spot).toPointF(), QPoint(), turn, Qt.MouseButton.NoButton,
            self.rng.choice(HOLDS), Qt.ScrollPhase.NoScrollPhase, False,
        )  # fmt: skip
        QApplication.sendEvent(widget, event)

    def _note(self, what: str, widget: QWidget) -> None:
        self.acts.append(f"{what} {type(widget).__name__} {widget.accessibleName() or widget.objectName()}".strip())
        del self.acts[:-50]


def load_libraries() -> None:
    """Loads what is loaded once and late, 160 MB of compiler, drawing and workbook libraries: no growth."""
    for module in pkgutil.walk_packages(riktig.core.__path__, "riktig.core."):
        importlib.import_module(module.name)
    for name in sorted(_late_imports(Path(riktig.__file__).parent)):
        importlib.import_module(name)
    warm_up()  # the machine code of the planner, and what loads it


def _late_imports(folder: Path) -> set[str]:
    """The modules that functions of the package import when they are first called."""
    trees = (ast.parse(path.read_text(encoding="utf-8")) for path in folder.rglob("*.py"))
    functions = (node for tree in trees for node in ast.walk(tree) if isinstance(node, ast.FunctionDef))
    inside = [node for function in functions for node in ast.walk(function)]
    plain = {alias.name for node in inside if isinstance(node, ast.Import) for alias in node.names}
    return plain | {node.module for node in inside if isinstance(node, ast.ImportFrom) and node.module}


def memory_mb() -> float:
    """What the process holds now, MB, without what the C library keeps of the memory given back to it."""
    gc.collect()
    ctypes.CDLL(None).malloc_trim(0)
    with Path("/proc/self/statm").open() as handle:
        return int(handle.read().split()[1]) * resource.getpagesize() / 1e6


def main() -> int:
    """Runs one monkey and says what came of it."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    actions, seed = (int(sys.argv[n]) if len(sys.argv) > n else d for n, d in ((1, 3000), (2, 1)))
    name = sys.argv[3] if len(sys.argv) > 3 else "kelp-shed"
    load_libraries()
    application()
    with tempfile.TemporaryDirectory() as folder:
        os.environ["HOME"] = folder
        session = Session(who="Ida")
        session.open(JobFile.create(Path(folder) / "monkey.riktig", DEMOS[name](), who="Ida", at="t"))
        window = MainWindow(session)
        window.show()
        window.go_to("Brief")
        monkey = Monkey(window, seed)
        first = min(500, actions // 2)
        monkey.run(first)
        begun = memory_mb()
        monkey.run(actions - first)
        grown = memory_mb() - begun
        for fault in monkey.faults[:20]:
            print(fault)  # noqa: T201
        print(f"seed {seed}, {name}: {actions} actions, {len(monkey.faults)} faults, grew {grown:.0f} MB")  # noqa: T201
        session.unwritten = ""
        window.close()
    return 1 if monkey.faults else 0


if __name__ == "__main__":
    sys.exit(main())
