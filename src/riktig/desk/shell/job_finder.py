"""Finds a job among thousands on the first screen: by serial number, number, title, customer, tag or load."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QLineEdit, QListWidget, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.theme import grown
from riktig.desk.widgets import plain_label
from riktig.places import index_file, jobs_folder

if TYPE_CHECKING:
    from riktig.core.handover import FoundJob

__all__ = ["JobFinder"]

MOST_LINES = 6


class JobFinder(QWidget):
    """A field, and below it what is found; the folder is looked through aside when somebody begins to type."""

    open_asked = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.found: tuple[FoundJob, ...] = ()
        self._looked = False
        self.work: Work | None = None
        self.lines = QListWidget()
        self.field = QLineEdit()
        self.field.setPlaceholderText("Find a job: serial number, number, customer, tag, load")
        self.field.setAccessibleName("Find a job")
        self.field.setMaximumWidth(420)
        self.field.textChanged.connect(self._typed)
        self.field.returnPressed.connect(lambda: self._open(max(self.lines.currentRow(), 0)))
        self.words = plain_label("", "quiet", wraps=True)
        self.lines.setAccessibleName("Jobs found")
        self.lines.itemActivated.connect(lambda _item: self._open(self.lines.currentRow()))
        self.lines.itemClicked.connect(lambda _item: self._open(self.lines.currentRow()))
        self.lines.setMaximumHeight(grown(24 * MOST_LINES))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        for item in (self.field, self.words, self.lines):
            layout.addWidget(item)
        self.lines.hide()

    def _typed(self, text: str) -> None:
        if text.strip() and not self._looked:
            self._looked = True
            folder, index = jobs_folder(), index_file()

            def look(progress: Progress) -> object:
                from riktig.core.handover import JobIndex  # the first screen is painted before the core is loaded

                return JobIndex(index).refresh(folder, progress) if folder.is_dir() else 0

            self.work = Work(look, self)
            self.work.done.connect(lambda _count: self.search())
            self.work.failed.connect(self._failed)
            self.work.start()
            self.words.setText("Looking through the folder of jobs …")
        else:
            self.search()

    def search(self) -> None:
        """Shows what is found of the text of now."""
        from riktig.core.handover import JobIndex  # see above

        text = self.field.text()
        try:
            self.found = JobIndex(index_file()).find(text)
        except RiktigError as error:
            self._failed(error)
            return
        self.lines.clear()
        for job in self.found:
            serial = f"  serial {job.serial}" if job.serial else ""
            self.lines.addItem(f"{job.number} {job.revision}  {job.title}{serial}  {job.client}".rstrip())
        self.lines.setVisible(bool(self.found))
        self.words.setText("" if self.found or not text.strip() else f"No job in {jobs_folder()} holds “{text}”.")

    def again(self) -> None:
        """The folder is looked through anew when somebody types next: jobs may have come in."""
        self._looked = False

    def _failed(self, error: object) -> None:
        self.words.setText(str(error))

    def _open(self, row: int) -> None:
        if 0 <= row < len(self.found):
            self.open_asked.emit(Path(self.found[row].path))

    def end(self) -> None:
        """Waits for what is looked through; for when the window closes."""
        if self.work:
            self.work.end()
