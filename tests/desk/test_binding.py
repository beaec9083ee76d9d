"""The binding to Qt: some of its releases take a reference off None at every void call."""

import sys
import threading

from PySide6 import __version__
from PySide6.QtGui import QPainterPath

from riktig.desk.app import warm_up
from tests.desk.conftest import Waiter


def test_the_slow_import_happens_aside_and_leaves_nothing_waiting(wait_until: Waiter) -> None:
    before = set(threading.enumerate())
    warm_up()
    wait_until(lambda: set(threading.enumerate()) <= before)
    assert "scipy.sparse.csgraph" in sys.modules


def test_void_calls_take_no_reference_off_none() -> None:
    path = QPainterPath()
    before = sys.getrefcount(None)
    for n in range(1000):
        path.lineTo(float(n), 1.0)
    assert sys.getrefcount(None) >= before - 20


def test_the_binding_is_of_a_release_that_was_measured_sound() -> None:
    assert (6, 10) <= tuple(int(part) for part in __version__.split(".")[:2]) < (6, 12)
