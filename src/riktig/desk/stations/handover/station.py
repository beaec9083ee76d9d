"""The end of a job: what is missing, papers, issues, dispatch, site and service, the evidence of one panel."""

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QCheckBox, QFileDialog, QGridLayout, QListWidget, QProgressBar, QVBoxLayout, QWidget

from riktig.core.edits import KeepPrinted, SetPurchases
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import (
    Issue,
    export_all,
    file_stem,
    photos_in,
    purchase_summary,
    schedule,
    site_items,
    write_house_exports,
)
from riktig.core.handover import (
    Missing,
    MissingFor,
    as_built_of,
    dispatched_of,
    is_as_built,
    issues_of,
    last_issue,
    papers_entry,
    site_states,
    visits_of,
    write_change_sheet,
)
from riktig.core.imports import read_purchases
from riktig.core.job import Job
from riktig.core.proving import TESTS
from riktig.core.schematic import numbers_on_paper
from riktig.core.store import dump_whole
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.session import MANY_PINS, Session
from riktig.desk.stations.handover.compare_dialog import CompareDialog
from riktig.desk.stations.handover.dialogs import DispatchDialog, IssueDialog, SiteDialog
from riktig.desk.stations.handover.edit_list import EditList
from riktig.desk.stations.handover.gates import HandoverGates
from riktig.desk.stations.handover.telephone_dialog import TelephoneDialog
from riktig.desk.theme import words_font
from riktig.desk.widgets import Station, plain_label, row_of

__all__ = ["HandoverStation"]

_PAPERS = (
    ("PDF sets", "the whole set with cover and contents; one each for builder, tester, installer, customer, inspector"),
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
    aside_from = MANY_PINS

    waits_for = "Nothing to hand over yet. Documents are made from the circuits, the plate, the wires and the record."
    usable_empty = True

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.work: Work | None = None
        self._written: Job | None = None
        self._faults: tuple[str, ...] = ()
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
        self.gates = HandoverGates(session)
        self.issue = self.button("Issue …", "Freezes drawings, lists and record under a letter")
        self.issue.clicked.connect(lambda _=False: self._ask_issue())
        self.compare = self.button("Compare …", "Two issues, or an issue and the job of now")
        self.compare.clicked.connect(lambda _=False: self.compare_dialog().exec())
        self.dispatch = self.button("Dispatch …", "The panel leaves the house, with a name")
        self.dispatch.clicked.connect(lambda _=False: self._ask_dispatch())
        self.site = self.button("Site and service …", "The list that travels to the site, and visits")
        self.site.clicked.connect(lambda _=False: self.site_dialog().exec())
        self.close_ = self.button("Close as built", "Nothing is open any more: the drawing is what hangs on the wall")
        self.close_.clicked.connect(lambda _=False: self.gates.close_as_built())
        self.pack = self.button("Evidence …", "One archive with papers, record, photos and a manifest of digests")
        self.pack.clicked.connect(lambda _=False: self._ask_pack())
        gates = (self.issue, self.compare, self.dispatch, self.site, self.close_, self.pack)
        self.add_bar((self.write, self.choose, self.stop, *gates, self.phone, None, self.prices))
        self.add_body(self.where, 0)
        self.add_body(self.marked, 0)
        self.add_body(self.bar, 0)
        self.add_body(self.words, 0)
        self.purchases = plain_label("", "second", wraps=True)
        self.add_body(self.purchases, 0)
        row = row_of((), gap=24)
        row.addWidget(self._papers(), 1)
        self.missing = QListWidget()
        self.missing.setAccessibleName("What is missing")
        self.missing.setWordWrap(True)
        self.missing.itemActivated.connect(lambda _item: self.lead())
        self.missing.itemClicked.connect(lambda _item: self.lead())
        self._missing: tuple[Missing, ...] | None = None
        self.lacking = plain_label("", wraps=True)
        self.lacking.setFont(words_font(12, bold=True))
        self.lack_note = plain_label("", "quiet", wraps=True)
        lacking = QWidget()
        lacking.setObjectName("card")
        inside = QVBoxLayout(lacking)
        inside.setContentsMargins(16, 12, 16, 12)
        inside.addWidget(self.lacking)
        inside.addWidget(self.missing, 1)
        inside.addWidget(self.lack_note)
        row.addWidget(lacking, 1)
        self.add_body(row, 1)
        self.history = plain_label("", "second", wraps=True)
        self.add_body(self.history, 0)
        self.edit_list = EditList(session)
        self.add_body(self.edit_list, 0)

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
        self.history.setText(self._so_far())
        missing = self.gates.missing()
        if missing == self._missing:
            return
        self._missing = missing
        self.missing.clear()
        self.missing.addItems([f"○  {item.text}" for item in missing])
        before = sum(item.needed_for is MissingFor.DISPATCH for item in missing)
        after = len(missing) - before
        if missing:
            self.lacking.setText(f"Missing: {before} before it leaves, {after} before it is as built")
            self.lack_note.setText("Click a line to go there. You can export: what is missing stands in the documents.")
        else:
            self.lacking.setText("Nothing of what Riktig looks at is missing")
            self.lack_note.setText("It looks at wires, work, tests, clauses, labels, papers and the site list.")

    def lead(self) -> None:
        """Goes where the chosen thing is mended."""
        row = self.missing.currentRow()
        if self._missing and 0 <= row < len(self._missing):
            item = self._missing[row]
            self.led.emit(item.station, item.key)

    def _so_far(self) -> str:
        """Issues, dispatch, as built and visits, in a line each."""
        records = self.session.records
        issues = issues_of(records)
        lines = [f"Issue {i.facts.letter}, {i.record.when[:10]}, {i.record.who}: {i.facts.why}" for i in issues[-3:]]
        if gone := dispatched_of(records):
            reason = f", although {gone.facts.reason}" if gone.facts.reason else ""
            lines.append(f"Dispatched {gone.record.when[:10]} to {gone.facts.to} by {gone.record.who}{reason}")
        if closed := as_built_of(records):
            after = "" if is_as_built(self.session.job, records) else ": the job has changed since, so it no longer is"
            lines.append(f"Closed as built {closed.when[:10]} by {closed.who}{after}")
        if visits := visits_of(records):
            lines.append(f"{len(visits)} service visits, the last {visits[-1].when[:10]}")
        return "\n".join(lines)

    def _ask_issue(self) -> None:
        dialog = IssueDialog(self, self.gates.letter)
        if dialog.exec():
            self.gates.issue(dialog.letter.text(), dialog.why.text())

    def _ask_dispatch(self) -> None:
        dialog = DispatchDialog(self, self.gates.missing())
        if dialog.exec():
            self.gates.dispatch(dialog.to.text(), dialog.reason.text())

    def site_dialog(self) -> SiteDialog:
        """The list of the site as it stands."""
        session = self.session
        return SiteDialog(
            self,
            lambda: site_states(site_items(session.evaluation), session.records),
            self.gates.done_on_site,
            self.gates.visit,
        )

    def compare_dialog(self) -> CompareDialog:
        """The issues, and the job of now, to choose two from."""
        session, states = self.session, list[tuple[str, Callable[[], Job]]]()
        file = session.file
        for issue in issues_of(session.records):
            number = issue.facts.document
            words = f"issue {issue.facts.letter}, {issue.record.when[:10]}"
            if file is not None and number:
                states.append((words, partial(file.job_at, number)))
        if not states and file is not None:
            states.append(("as it began", partial(file.job_at, 1)))
        states.append(("now", lambda: session.job))
        return CompareDialog(self, states, self.theme)

    def _ask_pack(self) -> None:
        name = f"{file_stem(self.session.job)}_{self.session.job.serial or 'no_serial'}_evidence.zip"
        path, _ = QFileDialog.getSaveFileName(self, "Evidence", str(self.folder().parent / name), "Archives (*.zip)")
        if path:
            self.pack_to(Path(path))

    def pack_to(self, path: Path) -> None:
        """Writes the evidence aside; what goes wrong is said."""
        if self.work:
            return
        try:
            write = self.gates.pack(path)
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        self._begin(Work(write, self))

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
        photos = photos_in(self.session.file) if self.session.file else {}

        issue, file = last_issue(records), self.session.file
        before = file.job_at(issue.facts.document) if file and issue and issue.facts.document else None

        def job_to_do(progress: Progress) -> object:
            paths = export_all(
                Evaluation(job), records, folder, issue=Issue(made, who, whole, marked, photos), progress=progress
            )
            self._written = job
            house_files = write_house_exports(Evaluation(job), records, folder)
            self._faults = house_files.faults
            sheet = folder / f"{file_stem(job)}_changes.pdf"
            if issue and before and write_change_sheet(sheet, Evaluation(before), Evaluation(job), issue, made):
                return [*paths, *house_files.files, sheet]
            return [*paths, *house_files.files]

        self._begin(Work(job_to_do, self))

    def _begin(self, work: Work) -> None:
        self.work = work
        work.stepped.connect(self._stepped)
        work.done.connect(self._done)
        work.failed.connect(self._failed)
        work.stopped.connect(self._stopped)
        self._busy(True)
        work.start()

    def _busy(self, busy: bool) -> None:
        for button in (self.write, self.pack):
            button.setEnabled(not busy)
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
        if isinstance(paths, Path):
            self.words.setText(f"The evidence is in {paths}.")
            self.session.say(f"The evidence is in {paths}. Check it with: riktig pack --check {paths.name}")
            return
        files = list(paths) if isinstance(paths, list) else []
        self.words.setText(f"{len(files)} files exported.")
        folder = files[0].parent if files else self.folder()
        written = self._written
        for fault in self._faults:
            self.session.say(f"{fault}; everything else is written.", wrong=True)
        if written is not None and not self.session.read_only:
            self.session.edit("papers written", KeepPrinted(numbers_on_paper(written)))
            self.session.record_all([papers_entry(written, len(files), str(folder))])
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
