"""Rings of garbage are collected on the interface thread, whoever makes the garbage."""

import gc

import pytest
from PySide6.QtCore import QObject, QThread
from PySide6.QtWidgets import QApplication

from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.garbage import GarbageCollector
from tests.desk.conftest import Waiter


class Ring(QObject):
    """An object that holds itself, as a window and what is connected to it do."""

    def __init__(self, ended_on: list[QThread]) -> None:
        super().__init__()
        self.itself = self
        self.destroyed.connect(lambda: ended_on.append(QThread.currentThread()))


def much_garbage(progress: Progress) -> object:
    for _ in range(300_000):
        ring: list[object] = []
        ring.append(ring)
    return None


@pytest.mark.usefixtures("app")
def test_what_a_worker_allocates_never_destroys_an_object_of_the_window(wait_until: Waiter) -> None:
    assert not gc.isenabled(), "the application has taken over"
    ended_on: list[QThread] = []
    for _ in range(20):
        Ring(ended_on)
    work = Work(much_garbage)
    work.start()
    wait_until(work.isFinished)
    assert ended_on == [], "not while the worker made garbage"
    gc.collect()
    assert len(ended_on) == 20
    assert set(ended_on) == {QThread.currentThread()}


def test_the_collector_collects_when_there_is_enough(app: QApplication) -> None:
    gc.collect()
    collector = GarbageCollector(app)
    ended_on: list[QThread] = []
    Ring(ended_on)
    collector.look()
    assert ended_on == [], "little garbage is left alone"
    much_garbage(Progress())
    collector.look()
    assert len(ended_on) == 1
    collector.deleteLater()
