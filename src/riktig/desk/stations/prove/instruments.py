"""The meter at hand: typed in, or connected and asked who it is. Without one there is no reading."""

from collections.abc import Callable

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QFormLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.proving import OPEN_LINE, Instrument, read_ohm
from riktig.desk.widgets import plain_label
from riktig.devices import MeterLink

__all__ = ["InstrumentDialog"]


class InstrumentDialog(QDialog):
    """Name, serial number, calibration and leads of the meter; where it speaks, its address.

    Args:
        today: The moment of now: a calibration that has ended is refused.
        take: Takes the meter, and the connection to it where there is one.
        parent: The station.
    """

    def __init__(
        self, today: str, take: Callable[[Instrument, MeterLink | None], None], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("Meter at hand")
        self._today, self._take = today, take
        self.link: MeterLink | None = None
        self.name, self.serial, self.calibrated = (QLineEdit() for _ in range(3))
        self.zero, self.address = QLineEdit(), QLineEdit()
        self.said = plain_label("", "fails", wraps=True)
        form = QFormLayout()
        for text, field, hint in (
            ("Meter", self.name, "maker and model"),
            ("Serial number", self.serial, "on its back"),
            ("Calibrated to", self.calibrated, "2027-03-31"),
            ("Leads together, Ω", self.zero, "0.2"),
            ("Address, if it speaks", self.address, "TCPIP::192.168.1.20::5025::SOCKET"),
        ):
            field.setAccessibleName(text)
            field.setPlaceholderText(hint)
            form.addRow(text, field)
        connect = QPushButton("Connect")
        connect.setToolTip("Asks the meter at the address who it is (SCPI over TCP or a serial line)")
        connect.clicked.connect(lambda _=False: self.connect_meter())
        self.leads = QPushButton("Read the leads")
        self.leads.setToolTip("Hold the tips together, then read what the leads alone have")
        self.leads.clicked.connect(lambda _=False: self.read_leads())
        self.leads.setEnabled(False)
        form.addRow(connect, self.leads)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Cancel)
        buttons.rejected.connect(self.reject)
        take_it = buttons.addButton("Take this meter", QDialogButtonBox.ButtonRole.ActionRole)
        take_it.clicked.connect(lambda _=False: self.take_meter())
        for button in (connect, self.leads, take_it):
            button.setAutoDefault(False)
        layout = QVBoxLayout(self)
        layout.addWidget(
            plain_label(
                "Every reading is kept with the meter it was taken with. Hold the tips of the leads together first: "
                "what they read alone is taken off.",
                wraps=True,
            )
        )
        layout.addLayout(form)
        layout.addWidget(self.said)
        layout.addWidget(buttons)
        self.resize(520, 340)

    def connect_meter(self) -> None:
        """Connects to the meter at the address, and asks who it is."""
        self._close_link()
        try:
            self.link = MeterLink(self.address.text())
        except RiktigError as error:
            self.said.setText(str(error))
            return
        self.name.setText(self.link.identity.name)
        self.serial.setText(self.link.identity.serial)
        self.leads.setEnabled(True)
        self.said.setText("")

    def read_leads(self) -> None:
        """Reads what the leads have alone."""
        if self.link is None:
            return
        try:
            ohm = self.link.read_ohm()
        except RiktigError as error:
            self.said.setText(str(error))
            return
        self.said.setText("The leads read open: hold their tips together." if ohm == OPEN_LINE else "")
        self.zero.setText("" if ohm == OPEN_LINE else f"{ohm:.2g}")

    def take_meter(self) -> None:
        """Takes the meter where nothing is missing; what is, is said."""
        try:
            zero = read_ohm(self.zero.text()) if self.zero.text().strip() else -1.0
        except RiktigError as error:
            self.said.setText(str(error))
            return
        if zero < 0:
            self.said.setText("Say what the leads read with their tips together.")
            return
        simulated = self.link is not None and self.link.identity.simulated
        meter = Instrument(
            self.name.text().strip(), self.serial.text().strip(), self.calibrated.text().strip(), zero, simulated,
        )  # fmt: skip
        fault = meter.fault(self._today)
        if fault:
            self.said.setText(fault)
            return
        self._take(meter, self.link)
        self.link = None
        self.accept()

    def _close_link(self) -> None:
        if self.link is not None:
            self.link.close()
        self.link = None
        self.leads.setEnabled(False)

    def reject(self) -> None:
        """Takes nothing, and lets the connection go."""
        self._close_link()
        super().reject()
