"""Every drawing of the window is also a list of words that can be walked by keys."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton

from riktig.core.geometry import Drawing, Text
from riktig.core.ids import DeviceId, ElementId, PinRef
from riktig.core.keys import DeviceKey, ElementKey, NetKey, RailKey
from riktig.core.labels import IndexEntry
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.views import DrawingLine, drawing_lines
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import press, settle_window


def lines_of(window: MainWindow) -> list[str]:
    shown = window.drawing_list.list
    return [shown.item(row).text() for row in range(shown.count()) if not shown.item(row).isHidden()]


def test_a_drawing_as_lines_names_each_thing_once_with_what_is_written_on_it() -> None:
    fan, net = DeviceKey(DeviceId("d1")), NetKey(PinRef(DeviceId("d1"), "1"))
    marks = (
        Text(0, 0, "100", 3.0),
        Text(0, 5, "A", 3.0),
        Text(0, 10, "F1", 3.0, key=fan),
        Text(0, 15, "10 A type D", 3.0, key=fan),
        Text(0, 20, "mounting plate, seen from the front", 3.0),
        Text(0, 25, "F1", 3.0, key=fan),
        Text(0, 30, "17", 3.0, key=net),
        Text(0, 35, "", 3.0, key=RailKey("R1")),
    )
    entries = [IndexEntry("F1", "circuit breaker, drying fan", fan), IndexEntry("F1:1", "legend", fan)]
    assert drawing_lines(Drawing(100, 100, marks, "d"), entries) == (
        DrawingLine("F1: circuit breaker, drying fan. 10 A type D", fan),
        DrawingLine("17", net),
        DrawingLine("mounting plate, seen from the front"),
    )


def test_an_element_without_an_entry_has_the_name_of_its_device(session: Session) -> None:
    circuits = session.evaluation.get(CIRCUITS)
    device = next(device for device in circuits.devices if device.kind.pins)
    coil = ElementKey(ElementId(f"{device.id}.poles"))
    entry = IndexEntry("F1", "breaker", DeviceKey(device.id))
    lines = drawing_lines(Drawing(10, 10, (Text(0, 0, "10 A", 3.0, key=coil),), "d"), [entry])
    assert [line.text for line in lines] in (["F1: breaker. 10 A"], ["10 A"])


@pytest.mark.parametrize("name", ["Circuits", "Plate", "Door", "Wires", "Terminals", "Labels", "Build", "Prove"])
def test_every_station_with_a_drawing_has_it_as_a_list(window: MainWindow, name: str) -> None:
    window.go_to(name)
    press(window, Qt.Key.Key_F7)
    lines = lines_of(window)
    least = 1 if name in ("Build", "Prove") else 3  # there the drawing shows one wire only
    assert len(lines) >= least, lines
    assert all(line.strip() for line in lines)
    view = window.drawing_list.view()
    assert view is not None
    assert view.accessibleName()
    assert view.accessibleDescription()
    assert name in window.current
    press(window, Qt.Key.Key_F7)
    assert not window.drawing_list.isVisible()
    assert window.stations[name].isAncestorOf(QApplication.focusWidget() or window) or name == "Prove"


def test_every_part_on_the_plate_is_in_the_list_and_walking_selects_it(window: MainWindow, session: Session) -> None:
    window.go_to("Plate")
    press(window, Qt.Key.Key_F7)
    lines = lines_of(window)
    names = session.evaluation.get(NAMES)
    for stand in session.evaluation.get(LAYOUT).stands:
        tag = names.tag[stand.block.devices[0]]
        assert any(line.startswith(f"{tag}:") for line in lines), tag
    shown = window.drawing_list.list
    assert QApplication.focusWidget() is shown
    seen = set()
    for _ in range(25):
        press(shown, Qt.Key.Key_Down)
        seen.add(session.selection)
    assert len(seen - {None}) > 15
    chosen = session.selection
    view = window.drawing_list.view()
    assert view is not None
    assert chosen in view.selection or chosen is None
    assert "Selected: " in view.accessibleDescription()


def test_the_list_follows_sheet_page_and_station(window: MainWindow, session: Session) -> None:
    window.go_to("Circuits")
    press(window, Qt.Key.Key_F7)
    first = lines_of(window)
    tabs = [b for b in window.stations["Circuits"].findChildren(QPushButton) if b.accessibleName().startswith("Sheet")]
    tabs[3].click()
    settle_window()
    assert lines_of(window) != first
    window.go_to("Door")
    settle_window()
    assert window.drawing_list.words.text().startswith("Door")
    window.go_to("Hand over")
    settle_window()
    assert "no drawing here" in window.drawing_list.words.text()
    assert lines_of(window) == []


def test_the_list_is_sifted_by_words_and_counts_what_is_left(window: MainWindow, session: Session) -> None:
    window.go_to("Plate")
    press(window, Qt.Key.Key_F7)
    whole = len(lines_of(window))
    QTest.keyClicks(window.drawing_list.filter, "contactor wash")
    left = lines_of(window)
    assert left
    assert len(left) < whole
    assert all("contactor" in line.lower() and "wash" in line.lower() for line in left)
    assert f"{len(left)} of {whole} lines" in window.drawing_list.words.text()


def test_what_is_selected_elsewhere_is_marked_in_the_list(window: MainWindow, session: Session) -> None:
    window.go_to("Plate")
    press(window, Qt.Key.Key_F7)
    window.drawing_list.filter.setFocus()
    device = session.evaluation.get(LAYOUT).stands[4].block.devices[0]
    session.select(DeviceKey(device))
    settle_window()
    item = window.drawing_list.list.currentItem()
    assert item is not None
    assert item.text().startswith(session.evaluation.get(NAMES).tag[device])
