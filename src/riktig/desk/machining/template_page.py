"""Templates at true size: how the sheets lie, writing them, and the bar that says whether the print is true."""

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QCheckBox, QComboBox, QDoubleSpinBox, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.exports import CHECK_MM, check_bar, export_metal, file_stem, overview, template_of
from riktig.core.exports.pdf import PaperSheet as Paper
from riktig.core.records import TemplateChecked
from riktig.desk.canvas import DrawingView
from riktig.desk.machining.faces import holes_on, sheet_of
from riktig.desk.session import Session
from riktig.desk.theme import Theme, words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["TemplatePage"]


class TemplatePage(QWidget):
    """The map of the sheets on the left, what to do with them on the right."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.face = "plate"
        self.view = DrawingView("Sheets of the template")
        self.paper = QComboBox()
        self.paper.setAccessibleName("Paper")
        for paper_sheet in Paper:
            self.paper.addItem(paper_sheet.value, paper_sheet)
        self.paper.currentIndexChanged.connect(self.refresh)
        self.bare = QCheckBox("Also the sheets without holes")
        self.words = plain_label("", wraps=True)
        self.words.setFont(words_font(12))
        self.write = QPushButton("Write template, DXF and SVG")
        self.write.setObjectName("main")
        self.write.clicked.connect(lambda: self.write_to(self.folder()))
        self.written = plain_label("", "second", wraps=True)
        self.written.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.bar = QDoubleSpinBox()
        self.bar.setRange(0.0, 1000.0)
        self.bar.setDecimals(2)
        self.bar.setSuffix(" mm")
        self.bar.setAccessibleName("The check bar reads")
        self.bar.setFont(words_font(16, mono=True))
        self.check = QPushButton("Check the print")
        self.check.clicked.connect(self.check_print)
        self.verdict = plain_label("", "second", wraps=True)
        self.verdict.setFont(words_font(13, bold=True))
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        inside = QVBoxLayout(card)
        inside.setContentsMargins(16, 12, 16, 12)
        inside.setSpacing(8)
        inside.addWidget(self.words)
        inside.addLayout(row_of((plain_label("Paper", "second"), self.paper, None)))
        inside.addWidget(self.bare)
        inside.addWidget(self.write)
        inside.addWidget(self.written)
        steps = (
            f"Print at 100 %, without fitting to the page. Lay a steel rule along the bar of {CHECK_MM:g} mm on a "
            "sheet and enter what it reads. Cut along the dashed lines, lay cross on cross (each says where it is "
            "from the datum), tape, and set the corner marked datum on that of the metal. Then punch through."
        )
        inside.addWidget(plain_label(steps, "second", wraps=True))
        inside.addLayout(row_of((self.bar, self.check, None)))
        inside.addWidget(self.verdict)
        inside.addStretch(1)
        row = row_of((), gap=12)
        row.addWidget(self.view, 3)
        row.addWidget(card, 2)
        self.setLayout(row)

    def folder(self) -> Path:
        """Beside the job file, where all its papers go."""
        base = self.session.file.path.parent if self.session.file else Path.home()
        return base / f"{file_stem(self.session.job)}_papers"

    def show_face(self, face: str) -> None:
        """Turns to a surface."""
        if face != self.face:
            self.written.setText("")
            self.verdict.setText("")
        self.face = face
        self.refresh()

    def refresh(self) -> None:
        """Shows the sheets of now."""
        sheet = sheet_of(self.session, self.face)
        try:
            template = template_of(sheet, holes_on(self.session, self.face), self.paper.currentData() or Paper.A4)
        except RiktigError as error:
            self.words.setText(str(error))
            self.write.setEnabled(False)
            return
        self.write.setEnabled(True)
        self.view.show_drawing(overview(template))
        count, rows = len(template.tiles), len(template.ys) - 1
        way = "across" if template.paper[0] > template.paper[1] else "upright"
        sheets = f"{count} sheets {way}, {rows} rows of {count // rows}" if count > 1 else f"one sheet {way}"
        size = f"{sheet.width:g} × {sheet.height:g} mm"
        self.words.setText(f"The {self.face}, {size}: {sheets}. Cuts go round the holes where they can.")

    def write_to(self, folder: Path) -> None:
        """Writes the template and the files for a machine."""
        try:
            made, paper = self.session.clock()[:10], self.paper.currentData()
            paths = export_metal(
                self.session.evaluation, self.face, folder, made=made, paper=paper, bare=self.bare.isChecked()
            )
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        self.written.setText(f"Written to {folder}: " + " ".join(path.name for path in paths))
        self.session.say(f"Template of the {self.face} written to {folder}.")

    def check_print(self) -> None:
        """Judges the bar as it was read, and keeps that with who and when."""
        try:
            true, text = check_bar(self.bar.value())
        except ImpossibleValueError as error:
            self.session.say(f"Enter what the rule reads: {error}.", wrong=True)
            return
        self.verdict.setText(("✓ " if true else "✕ ") + text)
        self.verdict.setObjectName("meets" if true else "fails")
        self.verdict.style().polish(self.verdict)
        self.session.record(f"template:{self.face}", TemplateChecked(self.bar.value(), "yes" if true else "no"))

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)
