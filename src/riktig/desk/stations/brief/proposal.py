"""What Riktig proposes for a load: each part a button that shows its reasons."""

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.circuit import CIRCUITS, NAMES, Device
from riktig.core.job import Load
from riktig.core.sizing import SIZING, LoadSize
from riktig.desk.session import Session
from riktig.desk.theme import words_font
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["proposal"]

_SHOWN = ("motor_breaker", "contactor", "overload", "control_breaker", "stop_button", "start_button", "lamp")


def proposal(session: Session, load: Load) -> QWidget:
    """A card with the parts, the current and the sections of one load."""
    plan = session.plan
    sizing, names = plan.get(SIZING), plan.get(NAMES)
    size = next((one for one in sizing.loads if one.load == load.id), None)
    card = QWidget()
    layout = QVBoxLayout(card)
    layout.setContentsMargins(10, 7, 10, 8)
    layout.setSpacing(5)
    if size is None:
        return card
    layout.addWidget(
        plain_label(
            f"Riktig proposes, for {size.current.value:g} A ({size.current.source.split('(')[0].strip()}):", "second"
        )
    )
    chips = QWidget()
    flow = FlowLayout(chips, gap=6, lead=6)
    devices = [d for d in plan.get(CIRCUITS).devices if d.circuit == size.circuit]
    for device in devices:
        if device.kind_id in _SHOWN:
            text = f"{names.tag[device.id]}  {_said(device, size, session)}"
            flow.addWidget(_chip(text, f"device:{device.id}", session))
    motor = next(d for d in devices if d.kind_id == "motor")
    text = f"{names.tag[motor.id]}  {size.section.mm2:g} mm², PE {size.pe_mm2:g} mm²"
    flow.addWidget(_chip(text, f"device:{motor.id}", session))
    layout.addWidget(chips)
    return card


def _said(device: Device, size: LoadSize, session: Session) -> str:
    part = session.plan.get(SIZING).parts[device.id]
    match device.kind_id:
        case "motor_breaker":
            return f"breaker {part.rated_a:g} A type D"
        case "contactor":
            return f"contactor {part.rated_a:g} A AC-3"
        case "overload":
            return f"overload {part.min_a:g} to {part.max_a:g} A, set to {size.setting_a:g} A"
        case "control_breaker":
            return f"control breaker {part.rated_a:g} A"
        case "lamp":
            return f"{device.purpose.split(', ')[-1]}, {part.colour} lamp"
    return f"{device.purpose.split(', ')[-1]}, {part.colour} button"


def _chip(text: str, key: str, session: Session) -> QPushButton:
    chip = QPushButton(text)
    chip.setFont(words_font(10))
    chip.setToolTip("Show it, and why")
    chip.clicked.connect(lambda: session.select(key))
    return chip
