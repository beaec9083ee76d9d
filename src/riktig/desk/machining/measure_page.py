"""Measured twice: every dimension that spoils a sheet when it is wrong, and whether its gate opens."""

import math
from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLineEdit, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from riktig.core.door import SHAFTS, engagement_of
from riktig.core.edits import SetEnclosure
from riktig.core.job import EnclosureFields, SecondReading
from riktig.core.production import CRITICALS, Gate, Judged, judged_all, measured_facts
from riktig.core.records import DimensionRead, TakenBack
from riktig.desk.machining.number_pad import NumberPad
from riktig.desk.session import Session
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["MeasurePage"]

DATUMS = {
    "datum:plate:across": "plate_left",
    "datum:plate:down": "plate_top",
    "datum:door:across": "door_left",
    "datum:door:down": "door_top",
}
"""The field of the enclosure that each datum is."""
SIGNS = {Gate.OPEN: "✓", Gate.FIRST: " ", Gate.SECOND: "½", Gate.DISAGREE: "≠", Gate.OFF: "!"}


class MeasurePage(QWidget):
    """The list of dimensions, the one that is measured in large type, and a pad to enter what was read."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.key = ""
        self.judgements: dict[str, Judged] = {}
        self.list = QListWidget()
        self.list.setAccessibleName("Dimensions that are measured twice")
        self.list.setFont(words_font(10, mono=True))
        self.list.setMinimumWidth(230)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.list.currentItemChanged.connect(self._picked)
        self.count = plain_label("", "second", wraps=True)
        self.title = plain_label("", wraps=True)
        self.title.setFont(words_font(16, bold=True))
        self.how = plain_label("", "second", wraps=True)
        self.how.setFont(words_font(12))
        self.nominal = plain_label("")
        self.nominal.setFont(words_font(32, mono=True, bold=True))
        self.nominal.setAccessibleName("Drawn, mm")
        self.verdict = plain_label("", "second", wraps=True)
        self.verdict.setFont(words_font(12, bold=True))
        self.who = QLineEdit(session.who)
        self.who.setAccessibleName("Read by")
        self.who.setPlaceholderText("name")
        self.pad = NumberPad()
        self.pad.entered.connect(self.enter)
        self.plan_with = QPushButton("Plan with what was measured")
        self.plan_with.clicked.connect(self.take_over)
        self.back = QPushButton("Take back")
        self.back.clicked.connect(self.take_back)
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        inside = QVBoxLayout(card)
        inside.setContentsMargins(16, 10, 16, 10)
        inside.setSpacing(5)
        for widget in (self.title, self.how, self.nominal, self.verdict, self.plan_with):
            inside.addWidget(widget)
        inside.addStretch(1)
        inside.addLayout(row_of((plain_label("Read by", "second"), self.who, self.back)))
        inside.addWidget(self.pad)
        left = QVBoxLayout()
        left.addWidget(self.count)
        left.addWidget(self.list, 1)
        row = row_of((), gap=12)
        row.addLayout(left, 3)
        row.addWidget(card, 3)
        self.setLayout(row)

    def refresh(self) -> None:
        """Shows the dimensions of now and their readings."""
        criticals = self.session.evaluation.get(CRITICALS)
        judged = judged_all(criticals, self.session.records, self.session.job.practice)
        self.judgements = {judgement.critical.key: judgement for judgement in judged}
        if self.key not in self.judgements:
            open_ones = [judgement.critical.key for judgement in judged if judgement.gate is not Gate.OPEN]
            self.key = next(iter(open_ones or self.judgements), "")
        self.list.blockSignals(True)
        self.list.clear()
        face = ""
        for judgement in judged:
            if judgement.critical.face != face:
                face = judgement.critical.face
                head = QListWidgetItem(face.capitalize())
                head.setFlags(Qt.ItemFlag.NoItemFlags)
                self.list.addItem(head)
            item = QListWidgetItem(
                f" {SIGNS[judgement.gate]} {judgement.critical.nominal:>7g}  {judgement.critical.name}"
            )
            item.setData(Qt.ItemDataRole.UserRole, judgement.critical.key)
            item.setToolTip(judgement.said)
            self.list.addItem(item)
            if judgement.critical.key == self.key:
                self.list.setCurrentItem(item)
        self.list.blockSignals(False)
        opened = sum(judgement.gate is Gate.OPEN for judgement in judged)
        who = {
            SecondReading.ANOTHER: "by two people",
            SecondReading.SAME: "twice, each time afresh",
            SecondReading.NOBODY: "once",
        }[self.session.job.practice.second_reading]
        self.count.setText(
            f"{opened} of {len(judged)} dimensions checked. Each is measured {who} (set in the Brief under Practice)."
        )
        self._show()

    def go_to(self, key: str) -> None:
        """Turns to one dimension."""
        self.key = key
        self.refresh()
        self.pad.setFocus()

    def _show(self) -> None:
        judgement = self.judgements.get(self.key)
        if judgement is None:
            self.title.setText("Nothing to measure")
            self.plan_with.hide()
            return
        critical = judgement.critical
        self.title.setText(critical.name[:1].upper() + critical.name[1:])
        self.how.setText(f"{critical.how}, within {critical.tolerance:g} mm")
        self.nominal.setText(f"{critical.nominal:g} mm")
        sign = SIGNS[judgement.gate]
        self.verdict.setText(f"{sign} {judgement.said}{self._handle(judgement)}".strip())
        role = {Gate.OPEN: "meets", Gate.OFF: "fails", Gate.DISAGREE: "fails"}.get(judgement.gate, "second")
        self.verdict.setObjectName(role)
        self.verdict.style().polish(self.verdict)
        self.back.setEnabled(bool(judgement.readings))
        differs = bool(judgement.readings) and abs(judgement.readings[-1][0] - critical.nominal) > 0.05
        self.plan_with.setVisible(critical.key in DATUMS and differs)

    def _handle(self, judgement: Judged) -> str:
        """What a measured shaft centre means for the handle."""
        device = judgement.critical.shaft
        if device is None or not judgement.readings:
            return ""
        shaft = next((s for s in self.session.evaluation.get(SHAFTS) if s.device == device), None)
        if shaft is None:
            return ""
        both = [other for other in self.judgements.values() if other.critical.shaft == device and other.readings]
        off = math.hypot(*(other.readings[-1][0] - other.critical.nominal for other in both))
        return " " + engagement_of(shaft, self.session.job.practice, off=off).said

    def _picked(self, item: QListWidgetItem | None) -> None:
        key = item.data(Qt.ItemDataRole.UserRole) if item else None
        if key:
            self.key = str(key)
            self.pad.clear()
            self._show()

    def enter(self, value: float) -> None:
        """Records a reading, with who and when; the next that is open comes up when this gate opens."""
        judgement = self.judgements.get(self.key)
        if judgement is None:
            return
        key, person = self.key, self.session.who
        # Whoever reads is named here; the rest of the window goes on under the name it had.
        self.session.who = self.who.text().strip() or person
        written = self.session.record(key, measured_facts(judgement.critical, value))
        self.session.who = person
        if not written:
            return
        self.refresh()
        if self.judgements[key].gate is Gate.OPEN:
            self._next_after(key)

    def _next_after(self, key: str) -> None:
        keys = list(self.judgements)
        at = keys.index(key)
        later = [k for k in keys[at:] + keys[:at] if self.judgements[k].gate is not Gate.OPEN]
        if later:
            self.key = later[0]
            self.refresh()

    def take_over(self) -> None:
        """The datum is where it was measured: the shaft goes with it, and it is measured against that."""
        judgement, field = self.judgements.get(self.key), DATUMS.get(self.key)
        if judgement and field and judgement.readings:
            value = judgement.readings[-1][0]
            self.session.edit(
                f"{judgement.critical.name} as measured", SetEnclosure(cast(EnclosureFields, {field: value}))
            )
            self.refresh()

    def take_back(self) -> None:
        """Takes the last reading of this dimension back with a correcting entry; it stays in the log."""
        gone = {record.corrects for record in self.session.records if record.corrects}
        for record in reversed(self.session.records):
            facts = record.facts
            if isinstance(facts, DimensionRead) and record.subject == self.key and record.id not in gone:
                self.session.record(self.key, TakenBack(f"{facts.value:g}"), corrects=record.id)
                self.refresh()
                return
