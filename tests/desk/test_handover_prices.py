"""Hand over: a purchasing table is taken in, said in a sentence, undone; a bad one changes nothing."""

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QFileDialog
from pytest import MonkeyPatch

from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.handover import HandoverStation
from tests.desk.conftest import settle_window


def test_a_table_is_taken_in_by_its_button_and_what_it_says_stands_there(
    window: MainWindow, session: Session, tmp_path: Path, monkeypatch: MonkeyPatch, said: list[tuple[str, bool]]
) -> None:
    window.go_to("Hand over")
    settle_window()
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    assert not station.purchases.isVisible()
    path = tmp_path / "house.csv"
    path.write_text("part;order number;stock;lead days\nCON-9;A-9;0;21\n", encoding="utf-8")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(path), ""))
    QTest.mouseClick(station.prices, Qt.MouseButton.LeftButton)
    settle_window()
    assert [line.order_number for line in session.job.purchases] == ["A-9"]
    assert station.purchases.isVisible()
    assert "short: 1" in station.purchases.text()
    assert "21 days: CON-9" in station.purchases.text()
    path.write_text("part;price\nCON-9;cheap\n", encoding="utf-8")
    QTest.mouseClick(station.prices, Qt.MouseButton.LeftButton)
    settle_window()
    assert said[-1][1] and "line 2" in said[-1][0]
    assert [line.order_number for line in session.job.purchases] == ["A-9"], "a bad table changes nothing"
    session.undo()
    settle_window()
    assert session.job.purchases == ()
    assert not station.purchases.isVisible()
