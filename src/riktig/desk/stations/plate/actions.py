"""What can be done with the parts, rails and ducts that are chosen: the menu of the plate."""

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtWidgets import QMenu

from riktig.core.edits import JoinParts, MoveParts, PartPlace, SeparateParts, SetRailsAndDucts
from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId, DuctFix, JoinHow, RailFix
from riktig.core.keys import DuctKey, RailKey
from riktig.core.plate import (
    LAYOUT,
    Edge,
    Layout,
    RailsAndDucts,
    Stand,
    aligned,
    circuits_alike,
    laid_out_like,
    spread,
    swapped,
    with_duct,
    with_rail,
    without,
)
from riktig.core.production import mounted_facts, mounted_of, mounted_subject
from riktig.core.records import NewRecord, TakenBack
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.desk.session import Session

__all__ = ["PlateActions"]


class PlateActions:
    """Fills the menu for what is chosen, and carries its commands out, each one step of undo."""

    def __init__(self, session: Session, chosen: Callable[[], Sequence[DeviceId]]) -> None:
        self._session, self._chosen = session, chosen

    def _layout(self) -> Layout:
        return self._session.evaluation.get(LAYOUT)

    def _stands(self) -> list[Stand]:
        stands = {stand.block.lead: stand for stand in self._layout().stands}
        return [stands[lead] for lead in self._chosen() if lead in stands]

    def lead_of(self, device: DeviceId) -> DeviceId:
        """The lead of the block that holds a device, or ""."""
        stand = self._layout().stand_of(device)
        return stand.block.lead if stand else DeviceId("")

    def _try(self, name: str, moved: Callable[[], tuple[Stand, ...]]) -> None:
        try:
            self.place(moved(), name)
        except RiktigError as error:
            self._session.say(str(error), wrong=True)

    def place(self, moved: Sequence[Stand], name: str = "", *, merge: str = "") -> None:
        """Puts blocks where they are said to stand."""
        tags = self._session.evaluation.get(NAMES).tag
        name = name or f"move {', '.join(tags[stand.block.lead] for stand in moved[:3])}"
        places = tuple(PartPlace(stand.block.lead, stand.rail, stand.x, stand.y) for stand in moved)
        self._session.edit(name, MoveParts(places), merge=merge)

    def furnish(self, name: str, rails_and_ducts: RailsAndDucts, *, merge: str = "") -> None:
        """Puts rails and ducts where they are said to be."""
        rails, ducts = rails_and_ducts
        edit = SetRailsAndDucts(
            tuple(RailFix(rail.number, rail.y, rail.x1, rail.x2) for rail in rails),
            tuple(
                DuctFix(duct.number, duct.rect.x, duct.rect.y, duct.rect.width, duct.rect.height, duct.upright)
                for duct in ducts
            ),
        )
        self._session.edit(name, edit, merge=merge)

    def swap(self) -> None:
        """The two chosen parts in each other's place."""
        stands = self._stands()
        first_lead, other = (stands[0].block.lead, stands[1].block.lead) if len(stands) == 2 else (DeviceId(""),) * 2
        self._try("swap", lambda: swapped(self._layout(), first_lead, other))

    def align(self, edge: Edge) -> None:
        """The chosen parts in line with the first."""
        self._try(f"align {edge.value}", lambda: aligned(self._stands(), edge))

    def spread(self) -> None:
        """The chosen parts with equal gaps."""
        self._try("spread evenly", lambda: spread(self._stands()))

    def fill(self, menu: QMenu) -> None:
        """Puts in what can be done now."""
        menu.clear()
        stands, key = self._stands(), self._session.selection
        line = menu.addMenu("Align")
        for edge in Edge:
            line.addAction(edge.value).triggered.connect(partial(self.align, edge))
        line.setEnabled(len(stands) > 1)
        menu.addAction("Spread evenly", self.spread).setEnabled(len(stands) > 2)
        menu.addAction("Swap the two", self.swap).setEnabled(len(stands) == 2)
        like = menu.addMenu("Copy this column's layout")
        self._fill_like(like, stands)
        link = menu.addAction("Link breaker to contactor", partial(self.join, JoinHow.LINK))
        link.setEnabled(len(stands) == 2)
        menu.addAction("Put on one busbar", partial(self.join, JoinHow.BUSBAR)).setEnabled(len(stands) > 1)
        menu.addAction("Feed by one comb", partial(self.join, JoinHow.COMB)).setEnabled(len(stands) > 1)
        menu.addAction("Split the assembly", self.separate).setEnabled(len(stands) == 1)
        menu.addSeparator()
        menu.addAction("Is mounted", lambda: self.mount(True)).setEnabled(bool(stands))
        menu.addAction("Mark as not mounted", lambda: self.mount(False)).setEnabled(bool(stands))
        menu.addSeparator()
        plate = self._layout().plate
        width = next((d.rect.width for d in self._layout().ducts if d.upright), 30.0)
        menu.addAction("Add a rail", lambda: self.furnish("add a rail", with_rail(self._layout(), plate.height / 2)))
        for words, upright in (("Add a horizontal duct", False), ("Add a vertical duct", True)):
            more = with_duct(self._layout(), plate.width / 2, plate.height / 2, width, upright=upright)
            menu.addAction(words).triggered.connect(partial(self.furnish, "add a duct", more))
        name = key.name if isinstance(key, RailKey | DuctKey) else ""
        gone = menu.addAction(f"Take {name} away" if name else "Delete rail or duct")
        gone.triggered.connect(lambda: self.take_away(name))
        gone.setEnabled(bool(name))

    def take_away(self, name: str) -> None:
        """A rail or duct less."""
        try:
            self.furnish(f"take {name} away", without(self._layout(), name))
        except RiktigError as error:
            self._session.say(str(error), wrong=True)

    def lay_out_like(self, model: CircuitId, circuit: CircuitId) -> None:
        """The parts of a circuit on the same rails and at the same distances as those of another."""
        self._try("lay out alike", lambda: laid_out_like(self._layout(), model, circuit))

    def join(self, how: JoinHow) -> None:
        """The chosen parts become one assembly."""
        self._session.edit(f"join {how.value}", JoinParts(tuple(self._chosen()), how))

    def separate(self) -> None:
        """The assembly of the chosen part becomes single parts again."""
        lead = next(iter(self._chosen()), DeviceId(""))
        self._session.edit("take apart", SeparateParts(lead))

    def mount(self, mounted: bool) -> None:
        """Records that the chosen parts are mounted where the plan has them, or takes that back."""
        known = {mounted.lead: mounted for mounted in mounted_of(self._layout(), self._session.records)}
        entries: list[NewRecord] = []
        for stand in self._stands():
            lead = stand.block.lead
            if mounted:
                entries.append(NewRecord(mounted_subject(lead), mounted_facts(stand)))
            elif lead in known:
                entries.append(NewRecord(mounted_subject(lead), TakenBack("mounted"), known[lead].record))
        if entries:
            self._session.record_all(entries)

    def _name(self, circuit: CircuitId) -> str:
        job = self._session.job
        own_circuit = next((own_circuit for own_circuit in job.circuits if own_circuit.id == circuit), None)
        if own_circuit is None:
            return str(circuit)
        return own_circuit.title or (job.load(own_circuit.load).name if own_circuit.load else str(circuit))

    def _fill_like(self, menu: QMenu, stands: Sequence[Stand]) -> None:
        evaluation = self._session.evaluation
        circuits = evaluation.get(CIRCUITS)
        if len(stands) == 1:
            model = circuits.device(stands[0].block.lead).circuit
            for circuit in circuits_alike(self._layout(), circuits, model):
                menu.addAction(self._name(circuit)).triggered.connect(partial(self.lay_out_like, model, circuit))
        menu.setEnabled(bool(menu.actions()))
