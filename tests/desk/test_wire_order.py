"""Wires: the order of a potential is dragged, split, kept, undone in one step and taken back to the least wire."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialogButtonBox

from riktig.core.geometry import Text
from riktig.core.ids import read_pin
from riktig.core.keys import NetKey, PinKey, WireKey
from riktig.core.production import Operation, tick_facts
from riktig.core.records import NewRecord
from riktig.core.schematic import CIRCUITS, NETS, NetClass, Zone
from riktig.core.wiring import WIRING, WiringStage, wire_key
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.wires import WiresStation
from riktig.desk.stations.wires.order import OrderAsked
from tests.desk.conftest import settle_window

RETURN = "c1.K:A2"


@pytest.fixture
def station(window: MainWindow) -> WiresStation:
    window.go_to("Wires")
    settle_window()
    station = window.stations["Wires"]
    assert isinstance(station, WiresStation)
    return station


def asked(station: WiresStation) -> OrderAsked:
    """The dialog that the button opens."""
    QTest.mouseClick(station.order, Qt.MouseButton.LeftButton)
    settle_window()
    (dialog,) = [w for w in QApplication.topLevelWidgets() if isinstance(w, OrderAsked) and w.isVisible()]
    return dialog


def pins(dialog: OrderAsked) -> list[str]:
    return [dialog.clamps.item(n).data(Qt.ItemDataRole.UserRole) for n in range(dialog.clamps.count())]


def use(dialog: OrderAsked) -> None:
    dialog.buttons.button(QDialogButtonBox.StandardButton.Ok).click()
    settle_window()


def test_a_clamp_moved_by_key_is_joined_there_and_one_undo_takes_it_back(
    station: WiresStation, session: Session
) -> None:
    session.select(PinKey(read_pin(RETURN)))
    before = session.job
    dialog = asked(station)
    row = pins(dialog)
    at = row.index(RETURN)
    assert f"{at + 1}." in dialog.clamps.item(at).text()
    least = dialog.sum.text()
    assert "the least there is" in least
    dialog.clamps.setCurrentRow(at)
    for _ in range(at):
        QTest.keyClick(dialog.clamps, Qt.Key.Key_Up, Qt.KeyboardModifier.AltModifier)
    assert pins(dialog)[0] == RETURN
    QTest.mouseClick(dialog.one, Qt.MouseButton.LeftButton)
    assert "one conductor" in dialog.clamps.item(0).text()
    use(dialog)
    assert session.job.one_conductor == (RETURN,)
    (order,) = session.job.wire_orders
    assert order.chains[0][0] == RETURN
    assert wire_key(*order.clamps[0][:2]) in session.evaluation.get(WIRING).by_key
    session.undo()
    settle_window()
    assert session.job == before


def test_a_clamp_wired_from_another_splits_the_potential(station: WiresStation, session: Session) -> None:
    session.select(PinKey(read_pin(RETURN)))
    dialog = asked(station)
    row = pins(dialog)
    dialog.clamps.setCurrentRow(3)
    choice = dialog.origin.findData(row[0])
    assert choice > 0
    dialog.origin.setCurrentIndex(choice)
    dialog.origin.activated.emit(choice)
    assert "from" in dialog.clamps.item(3).text()
    use(dialog)
    (order,) = session.job.wire_orders
    assert (row[3], row[0]) in order.rows
    assert wire_key(read_pin(row[0]), read_pin(row[3])) in session.evaluation.get(WIRING).by_key


def test_least_wire_takes_the_order_back(station: WiresStation, session: Session) -> None:
    session.select(PinKey(read_pin(RETURN)))
    before = session.job
    dialog = asked(station)
    row = pins(dialog)
    dialog.clamps.setCurrentRow(1)
    QTest.mouseClick(dialog.down, Qt.MouseButton.LeftButton)
    assert pins(dialog) == [row[0], row[2], row[1], *row[3:]]
    assert "the least is" in dialog.sum.text(), "there and back again takes more"
    use(dialog)
    assert session.job.wire_orders
    dialog = asked(station)
    QTest.mouseClick(dialog.shortest, Qt.MouseButton.LeftButton)
    assert "the least there is" in dialog.sum.text()
    use(dialog)
    assert session.job == before


def test_used_as_it_stood_nothing_is_pinned(station: WiresStation, session: Session) -> None:
    """“Use this order” without a change pins nothing: the planner goes on choosing the least wire."""
    session.select(PinKey(read_pin(RETURN)))
    before = session.job
    use(asked(station))
    assert session.job == before


def test_a_wire_and_a_number_lead_to_their_potential_an_earth_has_none(
    station: WiresStation, session: Session, said: list[tuple[str, bool]]
) -> None:
    wiring, of_pin = session.evaluation.get(WIRING), session.evaluation.get(NETS).of_pin
    wire = next(w for w in wiring.wires if of_pin[w.net].net_class is NetClass.CONTROL)
    for key in (WireKey(wire.key), NetKey(wire.net)):
        session.select(key)
        dialog = asked(station)
        assert wire.number in dialog.windowTitle()
        assert {str(wire.start.pin), str(wire.end.pin)} <= set(pins(dialog))
        dialog.reject()
        settle_window()
    session.select(WireKey(next(w.key for w in wiring.wires if of_pin[w.net].net_class is NetClass.EARTH)))
    QTest.mouseClick(station.order, Qt.MouseButton.LeftButton)
    assert "earth bar" in said[-1][0]
    session.select(None)
    QTest.mouseClick(station.order, Qt.MouseButton.LeftButton)
    assert "Choose a wire" in said[-1][0]


def test_kits_show_the_loom_and_what_is_chosen_there(station: WiresStation, session: Session) -> None:
    QTest.mouseClick(station.kits, Qt.MouseButton.LeftButton)
    settle_window()
    drawing = station.kit_cards.drawing
    texts = {mark.text for mark in drawing.shapes if isinstance(mark, Text)}
    assert "Loom of the door" in texts
    assert "bench" in station.hint.text()
    key = next(mark.key for mark in drawing.shapes if isinstance(mark.key, WireKey))
    station.kit_cards.chosen.emit(key)
    assert session.selection == key
    QTest.mouseClick(station.batches, Qt.MouseButton.LeftButton)
    settle_window()
    assert not station.kits.isChecked()


def test_the_list_is_filtered_and_finished_wires_are_left_out(station: WiresStation, session: Session) -> None:
    QTest.mouseClick(station.listed, Qt.MouseButton.LeftButton)
    settle_window()
    wires = session.evaluation.get(WIRING).wires
    shown = station.table.model().rowCount
    assert shown() == len(wires)
    QTest.keyClicks(station.filter.words, "green-yellow")
    settle_window()
    assert shown() == sum(wire.colour == "green-yellow" for wire in wires)
    assert f"{shown()} wires" in station.hint.text()
    station.filter.words.clear()
    settle_window()
    session.record_all([NewRecord(wires[0].key, tick_facts(wires[0], operation)) for operation in Operation])
    QTest.mouseClick(station.unfinished, Qt.MouseButton.LeftButton)
    settle_window()
    assert shown() == len(wires) - 1


def test_the_list_shows_what_ends_at_a_place_of_one_stage_or_colour(station: WiresStation, session: Session) -> None:
    QTest.mouseClick(station.listed, Qt.MouseButton.LeftButton)
    settle_window()
    wiring = session.evaluation.get(WIRING)
    shown, line = station.table.model().rowCount, station.filter
    circuits = session.evaluation.get(CIRCUITS)
    ends = {wire.key: {circuits.device(end.pin.device).zone for end in (wire.start, wire.end)} for wire in wiring.wires}
    at_door = [wire for wire in wiring.wires if Zone.DOOR in ends[wire.key]]
    line.place.setCurrentText("door")
    settle_window()
    assert 0 < shown() == len(at_door) < len(wiring.wires)
    colour = at_door[0].colour
    line.colour.setCurrentText(colour)
    settle_window()
    assert 0 < shown() == sum(wire.colour == colour for wire in at_door)
    for box in (line.place, line.colour):
        box.setCurrentIndex(0)
    line.stage.setCurrentText(WiringStage.EARTH.value)
    settle_window()
    assert shown() == sum(wire.stage is WiringStage.EARTH for wire in wiring.wires)
    assert f"{shown()} wires" in station.hint.text()
