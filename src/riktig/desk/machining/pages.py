"""Marking out, measuring twice and templates behind one bar: which surface, and which of the three."""

from PySide6.QtWidgets import QButtonGroup, QComboBox, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from riktig.core.holes import HOLES, METAL_HOLES
from riktig.core.keys import HoleKey
from riktig.desk.machining.faces import faces_with_holes
from riktig.desk.machining.mark_page import MarkPage
from riktig.desk.machining.measure_page import MeasurePage
from riktig.desk.machining.template_page import TemplatePage
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label, row_of

__all__ = ["MetalPages"]


class MetalPages(QWidget):
    """Shown by a station in place of its drawing."""

    def __init__(self, session: Session, first: str) -> None:
        super().__init__()
        self.session = session
        self._wanted = first
        self.face = QComboBox()
        self.face.setAccessibleName("Surface")
        self.face.currentTextChanged.connect(self._turned)
        self.mark, self.measure, self.template = MarkPage(session), MeasurePage(session), TemplatePage(session)
        self.mark.measure_asked.connect(self._to_measure)
        self.stack = QStackedWidget()
        self.buttons: list[QPushButton] = []
        group = QButtonGroup(self)
        for n, (text, page) in enumerate(
            (("Holes", self.mark), ("Measure twice", self.measure), ("Template 1:1", self.template))
        ):
            button = QPushButton(text)
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, at=n: self.turn_to(at))
            group.addButton(button)
            self.buttons.append(button)
            self.stack.addWidget(page)
        self.buttons[0].setChecked(True)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addLayout(row_of((plain_label("Surface", "second"), self.face, *self.buttons, None)))
        layout.addWidget(self.stack, 1)

    def turn_to(self, at: int) -> None:
        """Shows one of the pages."""
        self.buttons[at].setChecked(True)
        self.stack.setCurrentIndex(at)
        self.refresh()
        if at == 0:
            self.mark.setFocus()
        elif at == 1:
            self.measure.pad.setFocus()

    def refresh(self) -> None:
        """Shows what is on the page of now."""
        faces = faces_with_holes(self.session)
        now = self.face.currentText() or self._wanted
        if [self.face.itemText(n) for n in range(self.face.count())] != faces:
            self.face.blockSignals(True)
            self.face.clear()
            self.face.addItems(faces)
            same = next(
                (face for face in faces if face == now), next((f for f in faces if self._wanted in f), faces[0])
            )
            self.face.setCurrentText(same)
            self.face.blockSignals(False)
        self._turned(self.face.currentText())

    def _turned(self, face: str) -> None:
        page = self.stack.currentWidget()
        if page is self.mark:
            self.mark.show_face(face)
        elif page is self.measure:
            self.measure.refresh()
        else:
            self.template.show_face(face)

    def _to_measure(self, key: str) -> None:
        self.turn_to(1)
        self.measure.go_to(key)

    def show_hole(self, number: str) -> None:
        """Turns to a hole that was chosen elsewhere, on whatever surface it is."""
        evaluation = self.session.evaluation
        holes = evaluation.get(METAL_HOLES)
        hole = next((hole_here for hole_here in holes if hole_here.number == number), None)
        hole = hole or next((hole_here for hole_here in evaluation.get(HOLES) if hole_here.number == number), None)
        if hole is None:
            return
        self.turn_to(0)
        self.face.setCurrentText(hole.face)
        self.mark.choose(HoleKey(number))

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.mark.set_theme(theme)
        self.template.set_theme(theme)
