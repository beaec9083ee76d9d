"""Adding a load: one sentence; or a whole list, pasted or from a file."""

from pathlib import Path
from typing import cast

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QApplication, QFileDialog, QPushButton

from riktig.core.edits import AddLoad, AddLoads
from riktig.core.errors import RiktigError
from riktig.core.imports import Grid, LoadList, grid_of_file, grid_of_text, loads_of, new_loads, recognise
from riktig.core.job import Command, LoadFields, LoadKind, Start, read_quantity
from riktig.desk.session import Session
from riktig.desk.stations.brief.fields import Answer, ChoiceField, say_range, sentence
from riktig.desk.stations.brief.list_part import ListPart
from riktig.desk.stations.brief.load_part import PHASES, named, power_of
from riktig.desk.stations.brief.part import BriefPart
from riktig.desk.widgets import plain_label

__all__ = ["NewLoad"]


class NewLoad(BriefPart):
    """Asks for the next load; Enter in any of its answers adds it and asks for the next."""

    added = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)

        def answer(name: str, hint: str, width: int) -> Answer:
            field = Answer(name, "", lambda text: True, width)
            field.setPlaceholderText(hint)
            field.returnPressed.connect(self.add)
            return field

        self.name = answer("What turns", "wash drum", 160)
        self.power = answer("Its power", "4 kW", 78)
        self.place = answer("Where it is", "wash bay", 120)
        self.cable = answer("Its cable in m", "10", 50)
        say_range(self.power, "kw", "hp", "nameplate_a")
        say_range(self.cable, "cable_m")
        self.kind = ChoiceField(
            "What it is", [(load_kind.value, load_kind) for load_kind in LoadKind], self._kind_chosen
        )
        self.phases = ChoiceField("Its lines", PHASES, lambda value: None)
        self.start = ChoiceField("How it is started", [(start.value, start) for start in Start], lambda value: None)
        self.command = ChoiceField(
            "How it is commanded", [(command.value, command) for command in Command], lambda value: None
        )
        self.button = QPushButton("Add the load")
        self.button.setObjectName("main")
        self.button.clicked.connect(self.add)
        self.body.addWidget(
            sentence(
                "Add: the",
                self.name,
                "is a",
                self.kind,
                "of",
                self.power,
                "in the",
                self.place,
                ",",
                self.phases,
                ", started",
                self.start,
                "and controlled by",
                self.command,
                ", with",
                self.cable,
                "m of cable.",
                self.button,
            )
        )
        take_in = self.flat("Import a load list …", "Import a list of loads from a file", self._choose)
        paste = self.flat("paste a list", "Paste a list of loads", self.paste)
        self.body.addWidget(
            sentence("Or", take_in, "(CSV or XLSX), or", paste, "copied from a spreadsheet.", points=10)
        )
        self._list: ListPart | None = None
        self._said = plain_label("", "fails", wraps=True)
        self._said.hide()
        self.body.addWidget(self._said)

    def _kind_chosen(self, kind: object) -> None:
        if kind is LoadKind.MOTOR:
            self.phases.show_value(3)
            self.start.show_value(Start.DIRECT)
            self.command.show_value(Command.BUTTONS)
        else:
            self.phases.show_value(1)
            self.start.show_value(Start.WAY)
            self.command.show_value(Command.ALWAYS)

    def add(self) -> None:
        """Adds what was said; says what is wrong with it otherwise."""
        if not self.name.text() and not self.power.text():
            return
        try:
            name = named(self.name.text())
            fields = power_of(self.power.text())
            if self.cable.text().strip():
                fields["cable_m"] = read_quantity(self.cable.text(), "m", "cable length", "cable")
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        answers = {
            "place": self.place.text().strip(),
            "kind": self.kind.value,
            "phases": self.phases.value,
            "start": self.start.value,
            "command": self.command.value,
        }
        fields |= cast(LoadFields, answers)
        if self.kind.value is not LoadKind.MOTOR:
            fields |= {"run_lamp": False, "trip_lamp": False}
        if self.edit(f"add the {name}", AddLoad(name, fields)):
            for field in (self.name, self.power, self.place, self.cable):
                field.clear()
                field.show_value("")
            self.added.emit()
            self.name.setFocus(Qt.FocusReason.TabFocusReason)

    def _choose(self) -> None:
        dialog = QFileDialog(self, "Import a list of loads")
        dialog.setNameFilters(["Lists of loads (*.csv *.tsv *.txt *.xlsx)", "All files (*)"])
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        dialog.fileSelected.connect(lambda path: self.take_in(Path(path)))
        dialog.open()

    def take_in(self, path: Path) -> None:
        """Shows what a file's columns were taken for."""
        try:
            self._show(grid_of_file(path))
        except RiktigError as error:
            self._refuse(error)

    def paste(self) -> None:
        """Shows what the columns of the clipboard were taken for."""
        text = QApplication.clipboard().text()
        if not text.strip():
            self.session.say("There is nothing to paste. Copy the rows in the spreadsheet first.", wrong=True)
            return
        try:
            self._show(grid_of_text(text, "pasted list"))
        except RiktigError as error:
            self._refuse(error)

    def _refuse(self, error: RiktigError) -> None:
        self.session.say(str(error).splitlines()[0], wrong=True)
        self._said.setText(str(error))
        self._said.show()

    def _show(self, grid: Grid) -> None:
        load_list = recognise(grid)
        self._said.hide()
        self._close()
        self._list = ListPart(load_list)
        self._list.taken.connect(self._take)
        self._list.closed.connect(self._close)
        self.body.addWidget(self._list)
        self._list.setFocus()

    @property
    def list(self) -> ListPart | None:
        """The list that is being looked at."""
        return self._list

    def _take(self, load_list: LoadList) -> None:
        try:
            rows = loads_of(load_list)
        except RiktigError as error:
            self._refuse(error)
            return
        count = f"{len(rows)} load{'' if len(rows) == 1 else 's'}"
        if self.edit(f"take in {count} from {load_list.grid.name}", AddLoads(new_loads(rows))):
            self.session.say(f"{count} imported from {load_list.grid.name}.")
            self._close()
            self.added.emit()

    def _close(self) -> None:
        self._said.hide()
        if self._list is not None:
            self._list.hide()
            self._list.deleteLater()
            self._list = None
