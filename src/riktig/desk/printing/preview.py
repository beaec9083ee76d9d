"""The print preview: every page as it will come out, then to the printer or into a file."""

import shutil
import tempfile
from pathlib import Path

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent, QPixmap, QResizeEvent
from PySide6.QtPrintSupport import QPrintDialog, QPrinter
from PySide6.QtWidgets import QComboBox, QDialog, QFileDialog, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.printing.job import PrintJob
from riktig.desk.printing.pages import POINTS_PER_INCH, PdfPages, print_pages
from riktig.desk.printing.scale_check import ScaleCheck, why_not_true
from riktig.desk.session import Session
from riktig.desk.widgets import plain_label, row_of

__all__ = ["PrintPreview"]

SIZES = {"Page width": 0.0, "Whole page": -1.0, "True size": 1.0, "Twice true size": 2.0}
"""How large a page is shown; 0 fits its width, -1 all of it."""
ROOM_PX = 26
"""Beside a page: the margins of the view and its scroll bar."""


class PrintPreview(QDialog):
    """Writes the pages aside, shows them one at a time, prints or saves them.

    Args:
        parent: What it stands over.
        session: What the window works on.
        job: What is printed.
    """

    def __init__(self, parent: QWidget, session: Session, job: PrintJob) -> None:
        super().__init__(parent)
        self._session, self._job = session, job
        self.setWindowTitle(f"Print preview: {job.title}")
        self.setModal(True)
        self.pages: PdfPages | None = None
        self.page = 0
        self._folder = Path(tempfile.mkdtemp(prefix="riktig-print-"))
        self._file = self._folder / "pages.pdf"
        self._warned = ""
        self.words = plain_label("Writing the pages …", "second", wraps=True)
        self.back = QPushButton("Page before")
        self.next = QPushButton("Next page")
        self.size_of = QComboBox()
        self.size_of.setAccessibleName("How large the page is shown")
        self.size_of.addItems(list(SIZES))
        self.print = QPushButton("Print …")
        self.print.setObjectName("main")
        self.print.setToolTip("Chooses a printer; pages are printed at true size")
        self.save = QPushButton("Save as PDF …")
        self.close_ = QPushButton("Close")
        self.sheet = QLabel()
        self.sheet.setAlignment(Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop)
        self.area = QScrollArea()
        self.area.setWidget(self.sheet)
        self.area.setWidgetResizable(True)
        self.area.setAccessibleName("The page")
        self.back.clicked.connect(lambda: self.turn(self.page - 1))
        self.next.clicked.connect(lambda: self.turn(self.page + 1))
        self.size_of.currentIndexChanged.connect(self._show_page)
        self.print.clicked.connect(self._choose_printer)
        self.save.clicked.connect(self._choose_file)
        self.close_.clicked.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addLayout(row_of((self.back, self.next, self.size_of, None, self.print, self.save, self.close_)))
        layout.addWidget(self.words)
        layout.addWidget(self.area, 1)
        for button in (self.back, self.next, self.print, self.save):
            button.setEnabled(False)
            button.setAutoDefault(False)
        self.close_.setAutoDefault(False)
        self.resize(QSize(980, 780))
        self.finished.connect(self._end)
        self.work = Work(self._write, self)
        self.work.done.connect(self._written)
        self.work.failed.connect(self._failed)
        self.work.start()

    def _write(self, progress: Progress) -> object:
        fork: Evaluation[Job] = self._session.evaluation.fork(lambda: progress.step(0.0, "pages"))
        return self._job.write(fork, self._file)

    def _written(self, count: object) -> None:
        self.work.wait()
        if not count:
            self.words.setText("There is nothing to print here yet: it waits for the loads in the Brief.")
            self.close_.setFocus()
            return
        self.pages = PdfPages(self._file)
        for button in (self.print, self.save):
            button.setEnabled(True)
        self.turn(0)
        self.area.setFocus()

    def _failed(self, error: object) -> None:
        self.work.wait()
        text = str(error) if isinstance(error, RiktigError | OSError) else "Its pages could not be made."
        self.words.setText(f"Nothing was printed. {text}")
        if isinstance(error, BaseException) and not isinstance(error, RiktigError | OSError):
            raise error

    def turn(self, page: int) -> None:
        """Shows a page, counted from 0."""
        if self.pages is None or not 0 <= page < self.pages.count:
            return
        self.page = page
        width, height = self.pages.size(page)
        mm = 25.4 / POINTS_PER_INCH
        self.words.setText(
            f"Page {page + 1} of {self.pages.count}, {width * mm:.0f} × {height * mm:.0f} mm. Print without scaling "
            f"(“100 %”, “actual size”): templates and labels must come out at true size. {self._job.note}".strip()
        )
        self.back.setEnabled(page > 0)
        self.next.setEnabled(page + 1 < self.pages.count)
        self._show_page()
        self.area.verticalScrollBar().setValue(0)

    def _show_page(self) -> None:
        if self.pages is None:
            return
        width, height = self.pages.size(self.page)
        view = self.area.size()
        true = self.logicalDpiX() / POINTS_PER_INCH
        size = SIZES[self.size_of.currentText()]
        scale = size * true if size > 0 else (view.width() - ROOM_PX) / width
        if size < 0:
            scale = min(scale, (view.height() - ROOM_PX) / height)
        ratio = self.devicePixelRatioF()
        picture = QPixmap.fromImage(self.pages.picture(self.page, max(scale, 0.1) * POINTS_PER_INCH * ratio))
        picture.setDevicePixelRatio(ratio)
        self.sheet.setPixmap(picture)
        self.sheet.setAccessibleName(f"Page {self.page + 1} of {self.pages.count} of {self._job.title}")

    def _may_print(self) -> bool:
        """Whether nothing speaks against it; what does is said once, and the second press goes on."""
        faults = self._job.faults()
        if not faults or faults == self._warned:
            return True
        self._warned = faults
        self.words.setText(f"Not printed yet. {faults} Press again to go on anyway.")
        return False

    def _choose_printer(self) -> None:
        if not self._may_print() or self.pages is None:
            return
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setDocName(self._job.file_name)
        dialog = QPrintDialog(printer, self)
        dialog.setMinMax(1, self.pages.count)
        if dialog.exec() and self.is_true(printer):
            self.print_to(printer)

    def is_true(self, printer: QPrinter) -> bool:
        """Whether a printer prints these pages at true size, asked of whoever can measure it; a file always does."""
        if not self._job.true_size or printer.outputFormat() is QPrinter.OutputFormat.PdfFormat:
            return True
        if why_not_true(printer.printerName()):
            self.measure(printer)
        why = why_not_true(printer.printerName())
        if why:
            self.words.setText(f"Not printed. {why}")
        return not why

    def measure(self, printer: QPrinter) -> None:
        """Lets somebody measure the bar of a printer."""
        ScaleCheck(self, printer).exec()

    def print_to(self, printer: QPrinter) -> None:
        """Prints the pages, and remembers that they are out."""
        if self.pages is None:
            return
        if not print_pages(self.pages, printer):
            self.words.setText("The printer took no page. See whether it is on and has paper, then print again.")
            return
        self._session.say(f"{self._job.title}: printed. {self._job.printed()}".strip())
        self.accept()

    def _choose_file(self) -> None:
        if not self._may_print():
            return
        path, _ = QFileDialog.getSaveFileName(self, "Save as PDF", self._job.file_name, "PDF (*.pdf)")
        if path:
            self.save_to(Path(path))

    def save_to(self, path: Path) -> None:
        """Keeps the pages as a file, which is as good as printed."""
        part = path.with_name(f".{path.name}.part")
        try:
            shutil.copyfile(self._file, part)
            part.replace(path)
        except OSError as error:
            part.unlink(missing_ok=True)
            self.words.setText(
                f"{path} cannot be written ({error.strerror}). Choose another folder, and save it again."
            )
            return
        self._session.say(f"{self._job.title} is in {path}. {self._job.printed()}".strip())
        self.accept()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Page up and down turn the pages."""
        if event.key() in (Qt.Key.Key_PageDown, Qt.Key.Key_PageUp):
            self.turn(self.page + (1 if event.key() == Qt.Key.Key_PageDown else -1))
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The page keeps to the width of the view."""
        super().resizeEvent(event)
        self._show_page()

    def _end(self) -> None:
        """Ends what is under way, and takes the pages away."""
        self.work.end()
        if self.pages is not None:
            self.pages.close()
            self.pages = None
        shutil.rmtree(self._folder, ignore_errors=True)
