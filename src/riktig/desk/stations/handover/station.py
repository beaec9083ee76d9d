"""One command writes all papers; what is missing for them is said first."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QCheckBox, QFileDialog, QGridLayout, QProgressBar, QVBoxLayout, QWidget

from riktig.core.edits import KeepPrinted, SetPurchases
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue, export_all, file_stem, missing_papers, purchase_summary, schedule
from riktig.core.imports import read_purchases
from riktig.core.job import Job
from riktig.core.proving import TESTS
from riktig.core.schematic import numbers_on_paper
from riktig.core.store import dump_whole
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.session import Session
from riktig.desk.stations.handover.edit_list import EditList
from riktig.desk.stations.handover.telephone_dialog import TelephoneDialog
from riktig.desk.theme import words_font
from riktig.desk.widgets import Station, plain_label, row_of

__all__ = ["HandoverStation"]

_PAPERS = (
    ("PDF sets", "the whole set with cover and contents, and one each for builder, tester, installer and customer"),
    ("Labels", "all media and the pin cards at true size"),
    ("Batch cards", "batches of wires, looms and colours for the bench, to cut apart"),
    ("XLSX", "every schedule on a sheet of its own"),
    ("CSV", "every schedule as a file with stable keys, for your own sheets and label machine"),
    ("Templates", "every surface at true size on A4, with a scale check bar"),
    ("DXF and SVG", "holes of every surface for a machine, one layer per tool; plate, door and sheets drawn"),
    ("JSON", "the whole job with every revision, record and attachment, to bring into Riktig again"),
)


class HandoverStation(Station):
    """Writes in the background, with progress, and can be stopped."""

    needs = (TESTS,)

    waits_for = "Nothing to hand over yet. Documents are made from the circuits, the plate, the wires and the record."
    usable_empty = True

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.work: Work | None = None
        self._written: Job | None = None
        self.write = self.button("Export documents", "Writes all documents into a folder", main=True)
        self.choose = self.button("Other folder …", "Writes them elsewhere")
        self.stop = self.button("Stop", "Stops writing; finished files stay")
        self.write.clicked.connect(lambda: self.write_to(self.folder()))
        self.choose.clicked.connect(self._choose)
        self.stop.clicked.connect(self._stop)
        self.stop.hide()
        self.marked = QCheckBox("CSV for spreadsheets that garble Ω and ² (begins with a UTF-8 mark)")
        self.bar = QProgressBar()
        self.bar.setTextVisible(False)
        self.bar.setAccessibleName("Writing")
        self.bar.hide()
        self.words = plain_label("", "second", wraps=True)
        self.where = plain_label("", "quiet", wraps=True)
        self.prices = self.button(
            "Purchasing table …", "Takes in order numbers, suppliers, prices, stock and lead times from CSV or XLSX"
        )
        self.prices.clicked.connect(self._ask_prices)
        self.phone = self.button("By telephone …", "What may be wrong, by what somebody on site sees")
        self.phone.clicked.connect(lambda _=False: self.open_telephone())
        self.add_bar((self.write, self.choose, self.stop, self.phone, None, self.prices))
        self.add_body(self.where, 0)
        self.add_body(self.marked, 0)
        self.add_body(self.bar, 0)
        self.add_body(self.words, 0)
        self.purchases = plain_label("", "second", wraps=True)
        self.add_body(self.purchases, 0)
        row = row_of((), gap=24)
        row.addWidget(self._papers(), 1)
        self._lacking = QVBoxLayout()
        self._lacking.setContentsMargins(16, 12, 16, 12)
        self._missing: Sequence[str] | None = None
        lacking = QWidget()
        lacking.setObjectName("card")
        lacking.setLayout(self._lacking)
        row.addWidget(lacking, 1)
        self.add_body(row, 0)
        self.edit_list = EditList(session)
        self.add_body(self.edit_list, 0)
        self.add_body(QWidget())

    def open_telephone(self) -> None:
        """Opens a talk about a fault of the panel as it was built."""
        self.talk = TelephoneDialog(self.session, self)
        self.talk.open()

    def _papers(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        layout = QVBoxLayout(card)
        layout.setContentsMargins(16, 12, 16, 12)
        head = plain_label("Documents")
        head.setFont(words_font(12, bold=True))
        layout.addWidget(head)
        table = QGridLayout()
        table.setHorizontalSpacing(14)
        table.setVerticalSpacing(7)
        table.setColumnStretch(1, 1)
        for row, (name, text) in enumerate(_PAPERS):
            title = plain_label(name)
            title.setFont(words_font(11, bold=True))
            table.addWidget(title, row, 0, Qt.AlignmentFlag.AlignTop)
            table.addWidget(plain_label(text, "second", wraps=True), row, 1, Qt.AlignmentFlag.AlignTop)
        layout.addLayout(table)
        layout.addStretch(1)
        return card

    def folder(self) -> Path:
        """Beside the job file, named by number and revision."""
        base = self.session.file.path.parent if self.session.file else Path.home()
        return base / f"{file_stem(self.session.job)}_papers"

    def refresh(self) -> None:
        """Says what is missing, and what was done."""
        self.edit_list.refresh()
        job = self.session.job
        summary = purchase_summary(schedule("bom", self.session.evaluation), job.purchases) if job.purchases else ""
        self.purchases.setText(summary)
        self.purchases.setVisible(bool(summary))
        self.where.setText(f"Export folder: {self.folder()}")
        missing = missing_papers(self.session.evaluation, self.session.records)
        if missing == self._missing:
            return
        self._missing = missing
        while self._lacking.count():
            item = self._lacking.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        head = plain_label("Missing for a complete hand-over", wraps=True)
        head.setFont(words_font(12, bold=True))
        self._lacking.addWidget(head)
        for text in missing:
            self._lacking.addWidget(plain_label(f"○  {text}", wraps=True))
        if not missing:
            self._lacking.addWidget(plain_label("✓  nothing", "meets"))
        else:
            self._lacking.addWidget(
                plain_label("You can still export; outstanding items are listed in the documents.", "quiet", wraps=True)
            )
        self._lacking.addStretch(1)

    def _ask_prices(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Purchasing table", "", "Lists (*.csv *.tsv *.xlsx)")
        if name:
            self.take_prices(Path(name))

    def take_prices(self, path: Path) -> None:
        """Takes the purchasing table in, as one edit in place of the one before; none when a line cannot be used."""
        try:
            purchases = read_purchases(path)
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        if self.session.edit(f"purchasing table {path.name}", SetPurchases(purchases)):
            self.session.say(f"{len(purchases)} lines of {path.name} taken in.")

    def _choose(self) -> None:
        name = QFileDialog.getExistingDirectory(self, "Folder for the papers")
        if name:
            self.write_to(Path(name))

    def write_to(self, folder: Path) -> None:
        """Writes the papers of the job of now; later edits do not touch them."""
        if self.work:
            return
        job, records = self.session.job, self.session.records
        made, who, marked = self.session.clock()[:10], self.session.who, self.marked.isChecked()
        whole = dump_whole(self.session.file, indent=True) if self.session.file else ""

        def job_to_do(progress: Progress) -> object:
            paths = export_all(
                Evaluation(job), records, folder, issue=Issue(made, who, whole, marked), progress=progress
            )
            self._written = job
            return paths

        self.work = Work(job_to_do, self)
        self.work.stepped.connect(self._stepped)
        self.work.done.connect(self._done)
        self.work.failed.connect(self._failed)
        self.work.stopped.connect(self._stopped)
        self._busy(True)
        self.work.start()

    def _busy(self, busy: bool) -> None:
        self.write.setEnabled(not busy)
        self.choose.setEnabled(not busy)
        self.stop.setVisible(busy)
        self.bar.setVisible(busy)
        if not busy and self.work:
            self.work.wait()
            self.work = None

    def _stop(self) -> None:
        if self.work:
            self.work.stop()

    def _stepped(self, share: float, text: str) -> None:
        self.bar.setValue(round(100 * share))
        self.words.setText(text)

    def _done(self, paths: object) -> None:
        self._busy(False)
        files = list(paths) if isinstance(paths, list) else []
        self.words.setText(f"{len(files)} files exported.")
        folder = files[0].parent if files else self.folder()
        written = self._written
        if written is not None and not self.session.read_only:
            self.session.edit("papers written", KeepPrinted(numbers_on_paper(written)))
        self.session.say(f"{len(files)} files exported to {folder}.")

    def _failed(self, error: object) -> None:
        self._busy(False)
        if isinstance(error, RiktigError):
            self.words.setText(str(error))
            self.session.say(str(error), wrong=True)
        elif isinstance(error, BaseException):
            raise error

    def _stopped(self) -> None:
        self._busy(False)
        self.words.setText("Stopped. What was finished is in the folder.")
