"""Who is at the bench: chosen by initials or by the scan of a badge, and the people that the job knows."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from riktig.core.edits import RemovePerson, SetPerson
from riktig.core.errors import RiktigError
from riktig.core.job import Person
from riktig.core.production import TorqueTool, person_called
from riktig.desk.session import Session
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["PeopleAsked"]


class PeopleAsked(QDialog):
    """Initials, a badge or a name with Enter take over the bench; below, people are added and taken out.

    Args:
        session: The job.
        parent: What it stands over.
        taken: Called when somebody else is at the bench.
        take_tool: Called with the torque tool that is used from now on.
    """

    def __init__(
        self, session: Session, parent: QWidget, taken: Callable[[], None], take_tool: Callable[[TorqueTool], None]
    ) -> None:
        super().__init__(parent)
        self.session, self._taken, self._take_tool = session, taken, take_tool
        self.setWindowTitle("At the bench")
        self.called = QLineEdit()
        self.called.setPlaceholderText("Initials, badge or name, Enter")
        self.called.setAccessibleName("Initials, badge or name")
        self.called.setFont(words_font(16))
        self.called.returnPressed.connect(self.take_over)
        self.said = plain_label("", "fails", wraps=True)
        self.tool, self.calibrated = QLineEdit(), QLineEdit()
        self.tool.setToolTip("Its name and serial number")
        self.calibrated.setPlaceholderText("2027-03-31")
        self.list = QListWidget()
        self.list.setAccessibleName("People of this job")
        self.list.itemActivated.connect(lambda item: self._choose(str(item.data(Qt.ItemDataRole.UserRole))))
        self.name, self.initials, self.badge = QLineEdit(), QLineEdit(), QLineEdit()
        self.builds, self.inspects, self.signs = QCheckBox("builds"), QCheckBox("inspects"), QCheckBox("signs")
        self.builds.setChecked(True)
        self.builds.setToolTip("May tick work")
        self.inspects.setToolTip("May tick the visual inspection")
        self.signs.setToolTip("May judge clauses and pass deviations")
        form = QFormLayout()
        for text, field in (("Name", self.name), ("Initials", self.initials), ("Badge", self.badge)):
            field.setAccessibleName(text)
            form.addRow(text, field)
        form.addRow("May", row_of((self.builds, self.inspects, self.signs, None)))
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        keep = buttons.addButton("Keep this person", QDialogButtonBox.ButtonRole.ActionRole)
        keep.clicked.connect(self.keep)
        out = buttons.addButton("Take out", QDialogButtonBox.ButtonRole.ActionRole)
        out.setToolTip("Takes the chosen person out of the list; what was recorded stays")
        out.clicked.connect(self.take_out)
        for button in buttons.buttons():
            if isinstance(button, type(keep)):
                button.setAutoDefault(False)
        layout = QVBoxLayout(self)
        layout.addWidget(self.called)
        layout.addWidget(self.said)
        tools = QFormLayout()
        for text, field in (("Torque tool", self.tool), ("Calibrated to", self.calibrated)):
            field.setAccessibleName(text)
            tools.addRow(text, field)
        note = QPushButton("Note this tool")
        note.setToolTip("Every screw ticked as tight from now on says that it was tightened with it")
        note.setAutoDefault(False)
        note.clicked.connect(lambda _=False: self.note_tool())
        tools.addRow(note)
        layout.addLayout(tools)
        layout.addWidget(
            plain_label("People of this job. Where none are named, anybody may build and inspect.", "second")
        )
        layout.addWidget(self.list, 1)
        layout.addLayout(form)
        layout.addWidget(buttons)
        self.resize(460, 520)
        self._fill()

    def _fill(self) -> None:
        self.said.setText("")
        self.list.clear()
        for person in self.session.job.people:
            may = [
                word
                for word, has in (("builds", person.builds), ("inspects", person.inspects), ("signs", person.signs))
                if has
            ]
            item = QListWidgetItem(f"{person.initials}   {person.name}   {', '.join(may) or 'looks on'}")
            item.setData(Qt.ItemDataRole.UserRole, person.initials)
            self.list.addItem(item)

    def _choose(self, initials: str) -> None:
        self.called.setText(initials)
        self.take_over()

    def take_over(self) -> None:
        """Whoever was called is at the bench from now on."""
        text = self.called.text().strip()
        person = person_called(self.session.job.people, text)
        if person is None and (self.session.job.people or not text):
            self.said.setText(f"Nobody of this job is called “{text}”; {self.session.who or 'nobody'} stays.")
            return
        self.session.who = person.name if person else text
        self._taken()
        self.accept()

    def note_tool(self) -> None:
        """Notes the tool that screws are tightened with from now on."""
        try:
            tool = TorqueTool(self.tool.text(), self.calibrated.text().strip())
        except ValueError as error:
            self.said.setText(f"No tool was noted: {error}.")
            return
        fault = tool.fault(self.session.clock())
        if fault:
            self.said.setText(f"No tool was noted: {fault}.")
            return
        self.said.setText("")
        self._take_tool(tool)

    def keep(self) -> None:
        """Adds the person that is written, or changes the one with these initials."""
        try:
            may = (self.builds.isChecked(), self.inspects.isChecked(), self.signs.isChecked())
            person = Person(self.initials.text().strip(), self.name.text().strip(), self.badge.text().strip(), *may)
        except RiktigError as error:
            self.said.setText(f"Nobody was added: {error}.")
            return
        if self.session.edit(f"{person.name} among the people", SetPerson(person)):
            for field in (self.name, self.initials, self.badge):
                field.clear()
            self._fill()

    def take_out(self) -> None:
        """Takes the chosen person out of the list."""
        item = self.list.currentItem()
        if item and self.session.edit("a person taken out", RemovePerson(str(item.data(Qt.ItemDataRole.UserRole)))):
            self._fill()
