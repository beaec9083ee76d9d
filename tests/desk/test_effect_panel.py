"""The panel that says what the last change did: in the real window, with its links, its paper, and Dismiss."""

from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QFileDialog, QPushButton

from riktig.core.edits import ChangeLoad, SetHeading
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import settle_window


@pytest.fixture
def changed(window: MainWindow, session: Session) -> MainWindow:
    window.go_to("Brief")
    settle_window()
    session.edit("power of wash drum", ChangeLoad(session.job.loads[0].id, {"kw": 7.5}))
    settle_window()
    return window


def words(window: MainWindow) -> list[str]:
    return [b.text() for b in window.effect.findChildren(QPushButton) if b.isVisible() and b.isFlat()]


def test_it_is_away_until_something_changes_and_again_after_dismiss(window: MainWindow, session: Session) -> None:
    window.go_to("Brief")
    settle_window()
    assert not window.effect.isVisible()
    session.edit("power of wash drum", ChangeLoad(session.job.loads[0].id, {"kw": 7.5}))
    settle_window()
    assert window.effect.isVisible()
    window.go_to("Wires")
    settle_window()
    assert window.effect.isVisible(), "it stays when the station changes"
    QTest.mouseClick(window.effect.away, Qt.MouseButton.LeftButton)
    assert not window.effect.isVisible()
    session.edit("title", SetHeading({"title": "another"}))
    settle_window()
    assert window.effect.isVisible()


def test_the_line_counts_by_station_and_leads_there(changed: MainWindow) -> None:
    assert any(text.startswith("Wires: ") and "changed" in text for text in words(changed))
    link = next(b for b in changed.effect.findChildren(QPushButton) if b.text().startswith("Wires: "))
    QTest.mouseClick(link, Qt.MouseButton.LeftButton)
    assert changed.current == "Wires"


def test_every_line_of_the_list_leads_to_its_thing_by_keys(changed: MainWindow, session: Session) -> None:
    changed.effect.more.setFocus()
    QTest.keyClick(changed.effect.more, Qt.Key.Key_Space)
    tree = changed.effect.tree
    assert tree.isVisible()
    groups = [tree.topLevelItem(n) for n in range(tree.topLevelItemCount())]
    children = [group.child(n) for group in groups if group for n in range(group.childCount())]
    lines = [line for line in children if line is not None]
    assert len(lines) == len(changed.effect.shown)
    line = next(item for item in lines if item.text(0).startswith("wire "))
    tree.setCurrentItem(line)
    QTest.keyClick(tree, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QApplication.clipboard().text() == line.text(0)
    tree.itemActivated.emit(line, 0)
    settle_window()
    assert str(session.selection).startswith("wire:")
    assert changed.current == "Wires"


def test_after_undo_it_speaks_of_the_undo(changed: MainWindow, session: Session) -> None:
    session.undo()
    settle_window()
    assert changed.effect.name == "undo: power of wash drum"
    assert any("15.5 A → 8.5 A" in effect.text for effect in changed.effect.shown)


def test_the_change_order_is_a_page_with_every_line(
    changed: MainWindow, session: Session, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "orders" / "change.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(path), ""))
    QTest.mouseClick(changed.effect.paper, Qt.MouseButton.LeftButton)
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(path).pages).split())
    assert "Change order: power of wash drum" in text
    assert text.count("wash drum, breaker") == 1
    assert "Done by, date" in text


def test_a_place_that_cannot_be_written_is_said(
    changed: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, said: list[tuple[str, bool]]
) -> None:
    (tmp_path / "taken").write_text("a file", encoding="utf-8")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "taken" / "x.pdf"), ""))
    QTest.mouseClick(changed.effect.paper, Qt.MouseButton.LeftButton)
    assert said[-1][1]
    assert "cannot be written" in said[-1][0]
