"""Why a thing is as it is: asked in the window, kept in the job, shown with the thing and printed for the customer."""

import pytest
from PySide6.QtWidgets import QInputDialog, QLabel, QMenu

from riktig.core.edits import AddLoad, RemoveLoad, SetLabelText, SetOwnValue
from riktig.core.exports import schedule
from riktig.core.ids import DeviceId, LoadId
from riktig.core.keys import DeviceKey, Key, LoadKey, NetKey, PinKey, WireKey
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.wiring import WIRING
from riktig.desk.design_reasons import keep_reason, reason_now
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import settle_window


def listed(session: Session) -> list[tuple[object, ...]]:
    return list(schedule("reasons", session.evaluation).rows)


def answer(monkeypatch: pytest.MonkeyPatch, text: str) -> list[str]:
    """What is typed into the dialog; what stood in it."""
    stood: list[str] = []

    def typed(_parent: object, _title: str, _question: str, before: str) -> tuple[str, bool]:
        stood.append(before)
        return text, True

    monkeypatch.setattr(QInputDialog, "getMultiLineText", typed)
    return stood


def test_a_reason_is_given_shown_changed_and_taken_out(
    window: MainWindow, session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    key = DeviceKey(DeviceId("c1.S.stop"))
    window.show_thing(key)
    answer(monkeypatch, " Key operated: visitors pass the door. ")
    window.arrivals.ask_reason()
    settle_window()
    tag = session.evaluation.get(NAMES).tag[key.device]
    assert [(row[0], row[2], row[3]) for row in listed(session)] == [
        (tag, "Key operated: visitors pass the door.", session.who)
    ]
    shown = [label.text() for label in window.details.findChildren(QLabel)]
    assert "Key operated: visitors pass the door." in shown
    stood = answer(monkeypatch, "Key operated: children pass the door.")
    window.arrivals.ask_reason()
    assert stood == ["Key operated: visitors pass the door."]
    assert [row[2] for row in listed(session)] == ["Key operated: children pass the door."]
    answer(monkeypatch, "  ")
    window.arrivals.ask_reason()
    assert listed(session) == []
    session.undo()
    assert [row[2] for row in listed(session)] == ["Key operated: children pass the door."]


def test_operators_terminals_earths_numbers_and_wires_take_reasons(session: Session, window: MainWindow) -> None:
    circuits, wires = session.evaluation.get(CIRCUITS), session.evaluation.get(WIRING).wires
    terminal = next(device for device in circuits.devices if device.strip)
    earth = next(wire for wire in wires if wire.colour == "green-yellow")
    things: tuple[Key, ...] = (DeviceKey(terminal.id), WireKey(earth.key), NetKey(wires[0].net))
    for number, key in enumerate(things):
        assert keep_reason(session, key, f"reason {number}", "it")
        assert reason_now(session, key) == f"reason {number}"
    assert [row[2] for row in listed(session)] == ["reason 0", "reason 1", "reason 2"]
    pin = next(iter(terminal.pins.values()))
    assert reason_now(session, PinKey(pin)) == "reason 0", "a pin has the reason of its device"


def test_the_reason_of_a_load_is_the_one_of_the_brief(session: Session, window: MainWindow) -> None:
    load = session.job.loads[0]
    assert keep_reason(session, LoadKey(load.id), "The old fan was too loud.", load.name)
    assert session.job.loads[0].reason == "The old fan was too loud."
    assert session.job.reasons == ()
    assert (load.name, "The old fan was too loud.") in [(row[0], row[2]) for row in listed(session)]


def test_a_reason_of_nothing_is_refused(session: Session, window: MainWindow, said: list[tuple[str, bool]]) -> None:
    assert not keep_reason(session, DeviceKey(DeviceId("c99.K")), "because", "K99")
    assert "names nothing in this panel" in said[-1][0]
    session.select(None)
    window.arrivals.ask_reason()
    assert said[-1][0].startswith("Select what the reason is about")
    assert not keep_reason(session, LoadKey(LoadId("m99")), "because", "M99")
    assert session.job.reasons == ()


def test_a_reason_outlives_its_thing_and_says_so(session: Session, window: MainWindow) -> None:
    key = DeviceKey(DeviceId("c1.S.stop"))
    assert keep_reason(session, key, "asked for by the fitters", "it")
    assert session.edit("another load", AddLoad("brine pump", {"kw": 2.2}))
    assert session.edit("remove", RemoveLoad(session.job.loads[0].id))
    assert [(row[0], row[1]) for row in listed(session)] == [(str(key), "no longer in the panel")]


def test_it_is_offered_by_the_menu_of_a_thing(window: MainWindow, session: Session) -> None:
    menu = QMenu()
    window.context_menus.add_common(menu, DeviceKey(DeviceId("c1.S.stop")))
    assert "Design reason …" in [action.text() for action in menu.actions()]


def test_values_and_labels_of_ones_own_stand_among_the_reasons(session: Session, window: MainWindow) -> None:
    load = session.job.loads[0]
    assert session.edit("own", SetOwnValue(f"{load.id}.breaker", 25.0, "what is on the shelf"))
    label, wire = "warning/skilled/0", session.evaluation.get(WIRING).wires[0]
    assert session.edit("label", SetLabelText(label, ("400 V INSIDE", "Electricians only."), "the shop's own words"))
    rows = listed(session)
    assert (load.name, "breaker 25, own value", "what is on the shelf", "") in rows
    assert ("400 V INSIDE / Electricians only.", "label, own text", "the shop's own words", "") in rows
    assert wire.key not in [row[0] for row in rows]
