"""The first screen: start a job, open one, or look at the demonstration."""

import contextlib
import stat
from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QFileDialog, QLineEdit, QPushButton, QToolButton, QVBoxLayout, QWidget

from riktig.core.inputs import file_name
from riktig.desk.shell.job_finder import JobFinder
from riktig.desk.shell.job_pictures import picture_of
from riktig.desk.theme import grown, words_font
from riktig.desk.widgets import FlowLayout, plain_label, row_of
from riktig.places import jobs_folder

__all__ = ["StartPage", "newest_jobs"]

PICTURE_PX, CARD_PX = 84, 140
"""Of a job among the recent ones: its picture, and its card."""


def newest_jobs(folder: Path, most: int = 6) -> list[Path]:
    """The job files of a folder, newest first; what is no file any more, such as a link to nothing, is left out."""
    jobs: list[tuple[float, Path]] = []
    for path in folder.glob("*.riktig"):
        with contextlib.suppress(OSError):
            state = path.stat()
            if stat.S_ISREG(state.st_mode):
                jobs.append((state.st_mtime, path))
    return [path for _, path in sorted(jobs, reverse=True)[:most]]


class StartPage(QWidget):
    """Says where to start."""

    new_asked = Signal(str, str)
    open_asked = Signal(object)
    demo_asked = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        heading = plain_label("Start a new panel")
        heading.setFont(words_font(20, bold=True))
        text = plain_label(
            "Give the job a number and a title. Then list the motors and other loads in the Brief: "
            "Riktig proposes the starter, draws its circuits, plans plate and door, and makes "
            "the schedules. You follow the route card from top to bottom.",
            "second",
            wraps=True,
        )
        text.setMaximumWidth(640)
        self.number = QLineEdit()
        self.number.setPlaceholderText("Job number, such as KS-0418")
        self.number.setAccessibleName("Job number")
        self.title = QLineEdit()
        self.title.setPlaceholderText("Title, such as Rinse pump")
        self.title.setAccessibleName("Title")
        for field in (self.number, self.title):
            field.setMaximumWidth(420)
            field.returnPressed.connect(self._new)
            field.textChanged.connect(self._say_where)
        self.where = plain_label("", "quiet", wraps=True)
        start = QPushButton("Start the job")
        start.setObjectName("main")
        start.clicked.connect(self._new)
        opener = QPushButton("Open a job …")
        opener.clicked.connect(self.choose)
        demo = QPushButton("Open the demo job")
        demo.clicked.connect(self.demo_asked)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(60, 50, 60, 40)
        layout.setSpacing(12)
        for item in (heading, text, self.number, self.title, self.where):
            layout.addWidget(item)
        layout.addLayout(row_of((start, opener, demo, None)))
        layout.addSpacing(18)
        self.finder = JobFinder()
        self.finder.open_asked.connect(self.open_asked)
        layout.addWidget(self.finder)
        self._recent = QVBoxLayout()
        layout.addLayout(self._recent)
        layout.addStretch(1)
        layout.addWidget(
            plain_label(
                "Riktig plans and records. It certifies nothing: local codes and licensed practice decide.",
                "quiet",
                wraps=True,
            )
        )
        self._say_where()

    def _say_where(self) -> None:
        name = file_name(self.number.text().strip(), "NUMBER")
        self.where.setText(
            f"It is saved in {jobs_folder() / (name + '.riktig')}. Every change is saved as you make it."
        )

    def show_recent(self, files: list[Path]) -> None:
        """The newest jobs of the folder, to open with one click."""
        self.finder.again()
        while self._recent.count():
            item = self._recent.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.deleteLater()
        if files:
            self._recent.addWidget(plain_label("Recent jobs", "quiet"))
        cards = QWidget()
        row = FlowLayout(cards, gap=10, lead=10)
        for file in files:
            row.addWidget(self._card(file))
        self._recent.addWidget(cards)

    def _card(self, file: Path) -> QToolButton:
        """A job with the picture of its plate as it was left, and the day of its last change."""
        changed = datetime.fromtimestamp(file.stat().st_mtime) if file.exists() else None
        day = f"{changed:%Y-%m-%d}" if changed else ""
        button = QToolButton()
        button.setObjectName("job")
        button.setIcon(picture_of(file))
        button.setIconSize(QSize(PICTURE_PX, PICTURE_PX))
        with_picture = not button.icon().isNull()
        beside, below = Qt.ToolButtonStyle.ToolButtonTextOnly, Qt.ToolButtonStyle.ToolButtonTextUnderIcon
        button.setToolButtonStyle(below if with_picture else beside)
        name = button.fontMetrics().elidedText(file.stem, Qt.TextElideMode.ElideMiddle, grown(CARD_PX) - 22)
        button.setText(f"{name}\n{day}")
        button.setFixedSize(grown(CARD_PX), grown(CARD_PX) + 16)
        button.setToolTip(f"{file.stem}, last changed {day}")
        button.setAccessibleName(f"Open {file.stem}, last changed {day}")
        button.clicked.connect(lambda _=False, path=file: self.open_asked.emit(path))
        return button

    def _new(self) -> None:
        number = self.number.text().strip()
        if number:
            self.new_asked.emit(number, self.title.text().strip())
        else:
            self.number.setFocus()
            self.where.setText("Enter a job number. It becomes the file name and goes on the nameplate.")

    def choose(self) -> None:
        """Asks for a job file and opens it."""
        name, _ = QFileDialog.getOpenFileName(self, "Open a job", str(jobs_folder()), "Jobs (*.riktig);;All files (*)")
        if name:
            self.open_asked.emit(Path(name))
