"""The menus of what can be done to an element and to a circuit; each entry is one edit."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtGui import QAction
from PySide6.QtWidgets import QDialog, QFileDialog, QInputDialog, QMenu, QMessageBox, QWidget

from riktig.core.edits import (
    AddDevice,
    AddRung,
    AddWrittenCircuit,
    DropChange,
    Edit,
    MoveChange,
    NameElement,
    PutIn,
    RemoveCircuit,
    RenameDevice,
    SetParameter,
    WireElsewhere,
)
from riktig.core.errors import RiktigError
from riktig.core.ids import circuit_of, device_of_element
from riktig.core.inputs import read_text
from riktig.core.job import IMPLIED, Act, CircuitId, ElementId, Insertable, Job
from riktig.core.keys import Key
from riktig.core.schematic import (
    CIRCUITS,
    NAMES,
    add_device,
    add_rung,
    add_written,
    circuit_template_of,
    free_contacts,
    named_nodes,
)
from riktig.core.store import load_rungs
from riktig.core.views import device_of
from riktig.desk.session import Session
from riktig.desk.stations.circuits.own import DeviceAsked, RungAsked

__all__ = ["DEFAULT_TEXT", "Changes"]

DEFAULT_TEXT = {
    Insertable.STOP_BUTTON: "second stop",
    Insertable.START_BUTTON: "second start",
    Insertable.FIELD_CONTACT: "interlock",
    Insertable.FIELD_MAKE: "release",
    Insertable.SELECTOR: "off – on",
    Insertable.KEY_SWITCH: "locked – free",
    Insertable.EMERGENCY_STOP: "emergency stop",
    Insertable.FLOAT: "float",
    Insertable.END_SWITCH: "end switch",
    Insertable.THERMOSTAT: "too warm",
    Insertable.LAMP: "on",
    Insertable.BUZZER: "buzzer",
    Insertable.RELAY: "relay",
    Insertable.TIMER: "later",
    Insertable.FUSE: "fuse",
}
"""What a thing put in is for until it is named."""
MOST_FAULTS = 12


class Changes:
    """Makes the menus; every entry turns into one edit of the session."""

    def __init__(self, parent: QWidget, session: Session) -> None:
        self._parent, self._session = parent, session

    def _edit(self, name: str, edit: Edit) -> Callable[[], None]:
        def done() -> None:
            self._session.edit(name, edit)

        return done

    def _entry(self, menu: QMenu, words: str, done: Callable[[], object]) -> QAction:
        action = menu.addAction(words)
        action.triggered.connect(lambda _=False: done())
        return action

    def put_menu(self, element: ElementId, *, parallel: bool) -> QMenu:
        """What may be put in after the element, or across it."""
        menu = QMenu(self._parent)
        self._fill(menu, element, Act.ACROSS if parallel else Act.AFTER)
        return menu

    def _later(self, menu: QMenu, element: ElementId, act: Act) -> None:
        """Fills a menu when it is opened: the list of free contacts is long in a large job."""

        def fill() -> None:
            if menu.isEmpty():
                self._fill(menu, element, act)

        menu.aboutToShow.connect(fill)

    def _fill(self, menu: QMenu, element: ElementId, act: Act) -> None:
        for what in Insertable:
            if what is Insertable.CONTACT:
                continue
            name = f"put in a {what.value}"
            self._entry(
                menu,
                what.value[:1].upper() + what.value[1:],
                self._edit(name, PutIn(element, what, DEFAULT_TEXT[what], act)),
            )
        contacts = menu.addMenu("Contact of a device")
        by_tag: dict[str, QMenu] = {}
        for choice, words in free_contacts(self._session.job):
            tag, _, rest = words.partition(" ")
            if tag not in by_tag:
                by_tag[tag] = contacts.addMenu(tag)
            self._entry(
                by_tag[tag], rest, self._edit(f"use {words}", PutIn(element, Insertable.CONTACT, "", act, choice))
            )

    def menu(self, element: ElementId | None, selection: Key | None) -> QMenu:
        """Everything that can be done to what is chosen."""
        menu = QMenu(self._parent)
        if element:
            for words, act in (
                ("Insert after", Act.AFTER),
                ("Insert ahead", Act.BEFORE),
                ("Insert in parallel", Act.ACROSS),
                ("Replace with", Act.INSTEAD),
            ):
                self._later(menu.addMenu(words), element, act)
            start_move = getattr(self._parent, "start_move")  # noqa: B009
            self._entry(menu, "Move after …", start_move)
            nodes = named_nodes(self._session.job)
            for words, start in (("Connect its line side to", True), ("Connect its load side to", False)):
                sub = menu.addMenu(words)
                for node, text in nodes.items():
                    self._entry(sub, text, self._edit(f"wire to {text}", WireElsewhere(element, node, start)))
            self._clashing(menu, element)
            menu.addSeparator()
            self._entry(menu, "Description …", lambda: self._name(element))
        if device_of(selection):
            self._entry(menu, "Rename …", lambda: self.rename(selection))
        if element:
            take_out = getattr(self._parent, "out")  # noqa: B009
            self._entry(menu, "Delete", take_out.click)
        return menu

    def _clashing(self, menu: QMenu, element: ElementId) -> None:
        """Changes that lost their hold may be made here instead."""
        cid = circuit_of(device_of_element(element))
        for clash in self._session.evaluation.get(CIRCUITS).clashes:
            if clash.change is not None and clash.circuit == cid:
                change = clash.change
                self._entry(
                    menu,
                    f"Apply the unresolved change here: {change.act.value}, {change.text or change.to}",
                    self._edit("make a change elsewhere", MoveChange(cid, change, element)),
                )

    def circuit_menu(self, circuit: CircuitId | None) -> QMenu:
        """What can be chosen about a circuit, its own rungs and devices, and changes that may be taken back."""
        menu = QMenu(self._parent)
        own_circuit = next((c for c in self._session.job.circuits if c.id == circuit), None)
        if circuit is None:
            menu.addAction("Choose something of a circuit first").setEnabled(False)
            return menu
        # what the Brief asks for without saying so has its choices too, and enters the document with the first
        implied = next((recipe for recipe, implied_id in IMPLIED.items() if implied_id == circuit), None)
        recipe = own_circuit.recipe if own_circuit else implied
        for parameter in circuit_template_of(recipe).params if recipe else ():
            sub = menu.addMenu(f"{parameter.name[:1].upper()}{parameter.name[1:]}")
            now = own_circuit.param(parameter.name, parameter.default) if own_circuit else parameter.default
            for choice in parameter.choices:
                action = self._entry(
                    sub,
                    choice,
                    self._edit(f"{parameter.name}: {choice}", SetParameter(circuit, parameter.name, choice)),
                )
                action.setCheckable(True)
                action.setChecked(choice == now)
        behave = getattr(self._parent, "show_behaviour")  # noqa: B009
        self._entry(menu, "Function, step by step", lambda: behave(circuit))
        self._entry(menu, "Add circuits from a rung file …", lambda: self._from_file())
        menu.addSeparator()
        self._entry(menu, "Add a rung of your own …", lambda: self._own_rung(circuit))
        self._entry(menu, "Add a device of your own …", lambda: self._own_device(circuit))
        if own_circuit and own_circuit.changes:
            sub = menu.addMenu("Undo a change")
            for change in own_circuit.changes:
                words = f"{change.what.value if change.what else ''} {change.text or change.to}".strip()
                self._entry(
                    sub,
                    f"{words or change.element}: {change.act.value}",
                    self._edit("take a change back", DropChange(circuit, change)),
                )
        if own_circuit and own_circuit.load is None and own_circuit.recipe.value != "incomer":
            menu.addSeparator()
            self._entry(menu, "Delete the circuit", self._edit("take a circuit out", RemoveCircuit(circuit)))
        return menu

    def _from_file(self) -> None:
        path, _ = QFileDialog.getOpenFileName(self._parent, "A circuit written by hand", "", "Rungs (*.json)")
        if path:
            self.add_file(Path(path))

    def add_file(self, path: Path) -> None:
        """Adds the circuit of a rung file; what is wrong with it is said with its place."""
        try:
            written = load_rungs(read_text(path, hint="Choose a rung file."), where=path.name)
            add_written(self._session.job, written.title, written.devices, written.rungs, written.found)
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            self._list(error)
            return
        self._session.edit(
            f"add {written.title}",
            AddWrittenCircuit(written.title, tuple(written.devices), tuple(written.rungs), written.found),
        )

    def _list(self, error: RiktigError) -> None:
        """All that is wrong with a file, each with its place; the first dozen at once, the others below."""
        box = QMessageBox(self._parent)
        box.setWindowTitle("A circuit written by hand")
        box.setText(f"{error.message} {error.hint}")
        box.setInformativeText("\n".join(str(fault) for fault in error.faults[:MOST_FAULTS]))
        if len(error.faults) > MOST_FAULTS:
            box.setDetailedText("\n".join(str(fault) for fault in error.faults[MOST_FAULTS:]))
        box.open()

    def _own_rung(self, circuit: CircuitId) -> None:
        job = self._session.job
        own_circuit = next((c for c in job.circuits if c.id == circuit), None)
        number = len(own_circuit.rungs) + 1 if own_circuit else 1
        dialog = RungAsked(named_nodes(job), number, lambda rung: _try(add_rung(job, circuit, rung)), self._parent)
        if dialog.exec() == QDialog.DialogCode.Accepted:
            rung = dialog.rung()
            self._session.edit(f"add the rung {rung.title}", AddRung(circuit, rung))

    def _own_device(self, circuit: CircuitId) -> None:
        job = self._session.job
        dialog = DeviceAsked(lambda device: _try(add_device(job, circuit, device)), self._parent)
        if dialog.exec() == QDialog.DialogCode.Accepted:
            device = dialog.device()
            self._session.edit(f"add {device.role}", AddDevice(circuit, device))

    def rename(self, selection: Key | None) -> None:
        """Asks for another tag of what is chosen."""
        device = device_of(selection)
        if device is None:
            return
        now = self._session.evaluation.get(NAMES).tag[device]
        kind = self._session.evaluation.get(CIRCUITS).device(device).kind.name
        text, done = QInputDialog.getText(self._parent, "Rename", f"New tag of the {kind} {now}:", text=now)
        if done:
            self._session.edit(f"rename {now}", RenameDevice(device, text))

    def _name(self, element: ElementId) -> None:
        text, done = QInputDialog.getText(self._parent, "What is it for", "It is for (on the door, its legend too):")
        if done:
            self._session.edit(f"name it {text}", NameElement(element, text))


def _try(job: Job) -> None:
    """An edit that was only tried: that it could be made is enough."""
    del job
