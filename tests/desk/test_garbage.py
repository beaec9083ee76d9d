"""Rings of garbage are collected on the interface thread, whoever makes the garbage."""

import gc
import threading
from collections.abc import Iterator

import pytest
from PySide6.QtCore import QObject
from PySide6.QtWidgets import QApplication

from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.garbage import LOOK_MS, GarbageCollector
from tests.desk.conftest import Waiter
from tests.waiting import let_pass


class Ring(QObject):
    """An object that holds itself, as a window and what is connected to it do."""

    def __init__(self, ended: list[str]) -> None:
        super().__init__()
        self.itself = self
        self.destroyed.connect(lambda: ended.append("gone"))


def much_garbage(progress: Progress) -> object:
    for _ in range(300_000):
        ring: list[object] = []
        ring.append(ring)
    return None


@pytest.fixture
def collected_on() -> Iterator[list[int]]:
    """The threads on which Python collected garbage."""
    threads: list[int] = []

    def note(phase: str, info: dict[str, int]) -> None:
        threads.append(threading.get_ident())

    gc.callbacks.append(note)
    yield threads
    gc.callbacks.remove(note)


@pytest.mark.usefixtures("app")
def test_what_a_worker_allocates_is_collected_on_the_interface_thread(
    collected_on: list[int], wait_until: Waiter
) -> None:
    assert not gc.isenabled(), "the application has taken over"
    work = Work(much_garbage)
    work.start()
    wait_until(work.isFinished)
    let_pass(2 * LOOK_MS)
    assert collected_on, "so much is collected"
    assert set(collected_on) == {threading.get_ident()}


def test_the_collector_collects_when_there_is_enough(app: QApplication) -> None:
    gc.collect()
    collector = GarbageCollector(app)
    ended: list[str] = []
    Ring(ended)
    collector.look()
    assert ended == [], "little garbage is left alone"
    much_garbage(Progress())
    collector.look()
    assert ended == ["gone"]
    collector.deleteLater()
