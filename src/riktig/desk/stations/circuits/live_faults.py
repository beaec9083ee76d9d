"""The menu of faults: what can be wrong with the chosen thing, and all faults out again."""

from collections.abc import Callable

from PySide6.QtWidgets import QMenu, QWidget

from riktig.core.errors import RiktigError
from riktig.core.schematic import CIRCUITS, NAMES, PinLabels
from riktig.core.simulation import FaultKind, InjectedFault, faults_at
from riktig.core.views import device_of
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.stations.circuits.live_model import LiveModel

__all__ = ["fault_menu"]


def fault_menu(parent: QWidget, session: Session, model: LiveModel, after: Callable[[], None]) -> QMenu:
    """Every fault that the chosen device can have, in words; with none chosen only how to take faults out."""
    menu = QMenu(parent)
    owner = device_of(session.selection)
    evaluation = session.evaluation
    label = PinLabels(evaluation.get(CIRCUITS), evaluation.get(NAMES))

    kinds: dict[FaultKind, QMenu] = {}

    def put(fault: InjectedFault) -> None:
        try:
            model.put(fault)
        except RiktigError as error:
            session.say(str(error), wrong=True)
        after()

    if owner and owner in model.panel.network.devices:
        for fault in faults_at(model.panel, evaluation.get(WIRING), owner):
            if fault.wrong not in kinds:
                kinds[fault.wrong] = menu.addMenu(fault.wrong.value.capitalize())
            action = kinds[fault.wrong].addAction(model.tagged(fault.said(label)))
            action.triggered.connect(lambda _=False, injected=fault: put(injected))
    else:
        menu.addAction("Choose a device first").setEnabled(False)
    menu.addSeparator()
    out = menu.addAction(f"Remove all faults ({len(model.faults)})")
    out.setEnabled(bool(model.faults))

    def mend() -> None:
        model.mend()
        after()

    out.triggered.connect(mend)
    return menu
