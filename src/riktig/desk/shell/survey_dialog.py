"""The survey of a panel without papers in the window: its potentials, what contradicts itself, and its circuits."""

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QDialog,
    QFileDialog,
    QHeaderView,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.edits import AddWrittenCircuit
from riktig.core.errors import RiktigError
from riktig.core.imports import FoundPotentials, SurveyFinding, circuit_found, read_survey, survey_findings
from riktig.core.schematic import names_taken, taken_words
from riktig.desk.session import Session
from riktig.desk.widgets import plain_label, row_of

__all__ = ["SurveyDialog", "ask_survey"]

SIGNS = {"contradicts": "✗", "not known": "?"}


class SurveyDialog(QDialog):
    """Potentials at the left, what is to be looked at again at the right; the circuits go into the open job.

    Args:
        session: The job that is open.
        path: The sheet; it is read again after it was mended.
        parent: What it stands over.
    """

    def __init__(self, session: Session, path: Path, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(f"Survey: {path.name}")
        self._session, self._path = session, path
        self.found: FoundPotentials | None = None
        self.said = plain_label("", "second", wraps=True)
        self.potentials = QTableWidget(0, 2)
        self.potentials.setHorizontalHeaderLabels(["Potential", "Clamps that were traced"])
        self.potentials.setAccessibleName("Potentials of the survey")
        self.potentials.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.potentials.setTabKeyNavigation(False)
        self.potentials.verticalHeader().hide()
        self.potentials.horizontalHeader().setSectionResizeMode(0, QHeaderView.ResizeMode.ResizeToContents)
        self.potentials.horizontalHeader().setStretchLastSection(True)
        self.findings = QListWidget()
        self.findings.setAccessibleName("What is to be looked at again")
        self.findings.setWordWrap(True)
        again = QPushButton("Read again")
        again.setToolTip("Reads the sheet once more, after it was mended")
        again.setAutoDefault(False)
        again.clicked.connect(self.read)
        self.take = QPushButton("Take the circuits into this job")
        self.take.setToolTip("Adds what was found as rungs of one circuit; what was not found is not in it")
        self.take.clicked.connect(self.take_in)
        shut = QPushButton("Close")
        shut.setAutoDefault(False)
        shut.clicked.connect(self.reject)
        body = row_of(())
        body.addWidget(self.potentials, 3)
        right = QVBoxLayout()
        right.addWidget(plain_label("To be looked at again, at the panel", "second"))
        right.addWidget(self.findings, 1)
        body.addLayout(right, 2)
        layout = QVBoxLayout(self)
        layout.addWidget(self.said)
        layout.addLayout(body, 1)
        layout.addWidget(
            plain_label(
                "Switched off, locked off and proved dead before a wire is traced. Ends are found with a meter.",
                "judgement",
                wraps=True,
            )
        )
        layout.addLayout(row_of((again, None, self.take, shut)))
        self.resize(980, 560)
        self.read()

    def read(self) -> None:
        """Reads the sheet and shows what it says."""
        self.potentials.setRowCount(0)
        self.findings.clear()
        try:
            self.found = FoundPotentials(read_survey(self._path))
        except RiktigError as error:
            self.found = None
            self.said.setText(f"{error.message} {error.hint}")
            self.findings.addItems([str(fault) for fault in error.faults])
            self.take.setEnabled(False)
            return
        potentials, findings = self.found, survey_findings(self.found)
        for row, (potential, clamps) in enumerate(sorted(potentials.clamps.items())):
            name = " / ".join(
                dict.fromkeys((*potentials.sources.get(potential, ()), *potentials.numbers.get(potential, ())))
            )
            self.potentials.insertRow(row)
            for column, text in enumerate((name or "no number", "  ".join(":".join(clamp) for clamp in clamps))):
                item = QTableWidgetItem(text)
                item.setToolTip(text)
                self.potentials.setItem(row, column, item)
        for finding in findings:
            self.findings.addItem(_item_of(finding))
        if not findings:
            self.findings.addItem("In this sheet nothing contradicts itself, and every end is noted.")
        noted = potentials.survey
        unknown = sum(finding.kind == "not known" for finding in findings)
        self.said.setText(
            f"{len(noted.parts)} parts, {len(noted.wires)} wires, {len(potentials.clamps)} potentials; "
            f"{len(findings) - unknown} contradict themselves, {unknown} not known."
        )
        self.take.setEnabled(self._session.file is not None and bool(noted.parts))

    def take_in(self) -> None:
        """Adds the circuits to the open job."""
        if self.found is None:
            return
        written = circuit_found(self.found)
        taken = names_taken(self._session.job, written.found)
        edit = AddWrittenCircuit(written.title, written.devices, written.rungs, written.found)
        if self._session.edit(f"add {written.title}", edit):
            if taken:
                self._session.say(f"{taken_words(taken)} Look at the panel, and name one of each two anew.", wrong=True)
            self.accept()
        else:
            self.said.setText(self._session.log[-1] if self._session.log else "")


def _item_of(finding: SurveyFinding) -> QListWidgetItem:
    item = QListWidgetItem(f"{SIGNS[finding.kind]}  {finding.text}")
    item.setToolTip("The panel contradicts itself, or the sheet does" if finding.kind == "contradicts" else "Not known")
    item.setData(Qt.ItemDataRole.AccessibleTextRole, f"{finding.kind}: {finding.text}")
    return item


def ask_survey(session: Session, parent: QWidget) -> SurveyDialog | None:
    """Asks for a sheet and shows it; None where none was chosen.

    Args:
        session: The job that is open.
        parent: What the dialogs stand over.
    """
    chosen, _ = QFileDialog.getOpenFileName(parent, "Survey of a panel", "", "Tables (*.csv *.tsv *.xlsx)")
    if not chosen:
        return None
    dialog = SurveyDialog(session, Path(chosen), parent)
    dialog.open()
    return dialog
