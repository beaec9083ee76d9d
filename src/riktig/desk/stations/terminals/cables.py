"""What can be done with a field cable: others share its sheath, its cores are called otherwise, spare ones bought."""

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QHeaderView,
    QMenu,
    QSpinBox,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.edits import DropCable, PlanCable
from riktig.core.errors import RiktigError
from riktig.core.job import MOST_CORES, OwnCable
from riktig.core.keys import DeviceKey
from riktig.core.schematic import NETS
from riktig.core.terminals import STRIPS, Cable, carried, may_share
from riktig.core.views import device_of
from riktig.desk.session import Session
from riktig.desk.widgets import plain_label, row_of

__all__ = ["CablePlan", "CoresAsked"]

HEADS = ("Terminal", "Number", "Leads to", "Core")
CORE = len(HEADS) - 1


class CablePlan:
    """The menu of the chosen cable; each entry is one edit that can be undone.

    Args:
        session: The job.
        parent: What its dialog stands over.
    """

    def __init__(self, session: Session, parent: QWidget) -> None:
        self._session, self._parent = session, parent
        self._asked: CoresAsked | None = None

    def cable(self) -> Cable | None:
        """The cable that is chosen, by itself, by what it goes to, or by a terminal that it lands on."""
        owner = device_of(self._session.selection)
        for cable in self._session.evaluation.get(STRIPS).cables:
            if owner in cable.devices or any(core.panel_pin.device == owner for core in cable.cores):
                return cable
        return None

    def fill(self, menu: QMenu) -> None:
        """Puts in what can be done with the chosen cable."""
        menu.clear()
        cable = self.cable()
        if cable is None:
            menu.addAction("Choose a cable or one of its terminals first").setEnabled(False)
            return
        menu.addAction(f"Cores of {cable.tag} …", partial(self.ask_cores, cable)).setEnabled(bool(cable.cores))
        share = menu.addMenu("Share its sheath with")
        share.setEnabled(may_share(cable))
        of_pin = self._session.evaluation.get(NETS).of_pin
        for other in self._session.evaluation.get(STRIPS).cables:
            alike = carried(other, of_pin) == carried(cable, of_pin)
            if other is not cable and may_share(other) and alike:
                share.addAction(f"{other.tag}  {other.to}").triggered.connect(partial(self._share, cable, other))
        menu.addAction("As planned", lambda: self._session.edit(f"{cable.tag} as planned", DropCable(cable.device)))

    def _share(self, cable: Cable, other: Cable, checked: bool = False) -> None:
        plan = OwnCable((*cable.devices, *other.devices))
        if self._session.edit(f"{other.tag} in the sheath of {cable.tag}", PlanCable(plan)):
            self._session.select(DeviceKey(cable.device))

    def ask_cores(self, cable: Cable) -> None:
        """Asks how the cores of a cable are called and how many it is bought with."""
        if self._asked is not None:
            self._asked.deleteLater()
        self._asked = dialog = CoresAsked(cable, self._session, self._parent)
        dialog.accepted.connect(lambda: self._session.edit(f"cores of {cable.tag}", PlanCable(dialog.plan())))
        dialog.open()


class CoresAsked(QDialog):
    """The cores of a cable one below the other; the last column is written by the builder.

    Args:
        cable: The cable.
        session: The job, asked whether the plan can be.
        parent: What it stands over.
    """

    def __init__(self, cable: Cable, session: Session, parent: QWidget) -> None:
        super().__init__(parent)
        self._cable, self._session = cable, session
        self.setWindowTitle(f"Cores of {cable.tag}")
        self.resize(620, 420)
        self.cores = QTableWidget(len(cable.cores), len(HEADS))
        self.cores.setAccessibleName("Cores")
        self.cores.setHorizontalHeaderLabels(HEADS)
        self.cores.verticalHeader().hide()
        self.cores.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        for row, core in enumerate(cable.cores):
            for column, text in enumerate((core.panel_end, core.number, core.field_end, core.name)):
                item = QTableWidgetItem(text)
                if column != CORE:
                    item.setFlags(item.flags() & ~Qt.ItemFlag.ItemIsEditable)
                self.cores.setItem(row, column, item)
        self.cores.setCurrentCell(0, CORE)
        self.bought = QSpinBox()
        self.bought.setRange(0, MOST_CORES)
        self.bought.setSpecialValueText("as many as are sold for them")
        self.bought.setValue(cable.bought)
        self.bought.setAccessibleName("Cores it is bought with")
        self.wrong = plain_label("", "judgement", wraps=True)
        self.buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.buttons.accepted.connect(self.accept)
        self.buttons.rejected.connect(self.reject)
        self.cores.itemChanged.connect(self._show_clashes)
        self.bought.valueChanged.connect(self._show_clashes)
        body = QVBoxLayout(self)
        body.addWidget(plain_label(f"{cable.make_up}, to {cable.to}", "second", wraps=True))
        body.addWidget(self.cores, 1)
        body.addLayout(row_of((plain_label("Bought with cores:"), self.bought, None)))
        body.addWidget(self.wrong)
        body.addWidget(self.buttons)

    def plan(self) -> OwnCable:
        """The cable as it is written now; where no name differs from the planned ones none is kept.

        Raises:
            ValueError: a core named twice, or not at all.
        """
        names = tuple((str(core.field_pin), self._text(row)) for row, core in enumerate(self._cable.cores))
        changed = [text for (_, text), core in zip(names, self._cable.cores, strict=True) if text != core.name]
        is_own = changed or any(self._is_own(pin) for pin, _ in names)
        return OwnCable(self._cable.devices, names if is_own else (), self.bought.value())

    def _text(self, row: int) -> str:
        item = self.cores.item(row, CORE)
        return item.text().strip() if item else ""

    def _is_own(self, pin: str) -> bool:
        return any(pin == named for cable in self._session.job.cables for named, _ in cable.cores)

    def _show_clashes(self) -> None:
        """Says what is wrong; it can be accepted only when nothing is."""
        try:
            PlanCable(self.plan()).apply(self._session.evaluation)
            text = ""
        except (RiktigError, ValueError) as error:
            text = str(error)
        self.wrong.setText(text)
        self.buttons.button(QDialogButtonBox.StandardButton.Ok).setEnabled(not text)
