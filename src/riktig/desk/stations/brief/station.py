"""The Brief as a letter: supply, loads with what Riktig proposes, the box, and the practice."""

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.job import LoadId, load_of_value
from riktig.core.keys import Key, LoadKey, PartKey, ValueKey
from riktig.core.sizing import PROPOSAL
from riktig.desk.session import Session
from riktig.desk.stations.brief.job_part import JobPart, SignalsPart, SourcesPart, SupplyPart
from riktig.desk.stations.brief.load_part import LoadPart
from riktig.desk.stations.brief.names_part import NamesPart
from riktig.desk.stations.brief.new_load import NewLoad
from riktig.desk.stations.brief.panel_part import EnclosurePart, PanelPart, PracticePart
from riktig.desk.stations.brief.part import BriefPart
from riktig.desk.theme import grown, words_font
from riktig.desk.widgets import Station, first_field, plain_label, replace_body

__all__ = ["BriefStation"]


class BriefStation(Station):
    """Reads as a letter with the answers in it."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._letter = QScrollArea()
        self._letter.setWidgetResizable(True)
        self._letter.setFrameShape(QFrame.Shape.NoFrame)
        self._letter.setAccessibleName("Brief")
        self._letter.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._jumps: list[QPushButton] = []
        self._bar: list[QWidget | None] = []
        for text, tip in (
            ("Supply", "The job, its supply and other incoming supplies"),
            ("Loads", "Motors and other loads"),
            ("Field", "Field devices and signals"),
            ("Box", "The enclosure"),
            ("Panel", "Panel ratings"),
            ("Practice", "Workshop standards"),
        ):
            jump = self.button(text, tip)
            jump.clicked.connect(lambda _=False, name=text: self.jump(name))
            self._jumps.append(jump)
        self.add_bar([*self._jumps, None])
        self.add_body(self._letter)
        self._shown: tuple[object, ...] = ()
        self.loads: dict[LoadId, LoadPart] = {}

    def refresh(self) -> None:
        """Writes the letter for another job, else fills it in; loads come and go singly."""
        shape = (self.theme, self.session.file)
        if shape != self._shown:
            self._shown = shape
            self._write()
        self._show_loads()
        proposal = self.session.evaluation.get(PROPOSAL)
        for part in self._parts:
            part.fill()
        for where, shows in (("supply", self.supply), ("sources", self.sources)):
            texts = [f"{d.text} {d.remedy}" for d in proposal.issues if d.where == PartKey(where)]
            shows.show_doubts(texts)

    def show_selection(self, key: Key | None) -> None:
        """Opens the value or shows the load that is selected."""
        if not self._shown:
            return
        for part in self._parts:
            part.show_selection(key)
        target: QWidget | None = None
        match key:
            case LoadKey(load):
                target = self.loads.get(load)
            case ValueKey(value):
                target = self.loads.get(load_of_value(value) or LoadId(""), self.panel)
            case PartKey("supply"):
                target = self.supply
            case PartKey("sources"):
                target = self.sources
            case PartKey("practice"):
                target = self.practice
        if target is not None and not target.isAncestorOf(self.focusWidget() or self):
            self._letter.ensureWidgetVisible(target, 0, 40)

    def jump(self, name: str) -> None:
        """Goes to a part of the letter and its first answer."""
        part: QWidget = {
            "Supply": self.job,
            "Loads": next(iter(self.loads.values()), self.new),
            "Field": self.signals,
            "Box": self.box,
            "Panel": self.panel,
            "Practice": self.practice,
        }[name]
        first = first_field(part)
        if first:
            first.setFocus(Qt.FocusReason.OtherFocusReason)
        self.see(part)

    def work_place(self) -> QWidget | None:
        """The first answer: of the load that is selected, of the first load to be stated, else of the letter."""
        match self.session.selection:
            case LoadKey(load) if load in self.loads:
                return first_field(self.loads[load])
        return first_field(self.job if self.loads else self.new)

    def see(self, part: QWidget) -> None:
        """Brings the top of a part to the top of the page, once everything has found its place."""

        def scroll() -> None:
            top = part.mapTo(self._letter.widget() or self, part.rect().topLeft()).y()
            self._letter.verticalScrollBar().setValue(max(top - 8, 0))

        QTimer.singleShot(0, self, scroll)

    @property
    def _parts(self) -> tuple[BriefPart, ...]:
        return (
            self.job,
            self.supply,
            self.sources,
            *self.loads.values(),
            self.signals,
            self.box,
            self.panel,
            self.practice,
            self.names,
        )

    def _write(self) -> None:
        session = self.session
        self.loads = {}
        self.job, self.supply = JobPart(session), SupplyPart(session)
        self.sources, self.signals = SourcesPart(session), SignalsPart(session)
        self.new = NewLoad(session)
        self.new.added.connect(self._see_new)
        self.box, self.panel = EnclosurePart(session), PanelPart(session)
        self.practice, self.names = PracticePart(session), NamesPart(session)
        page = QWidget()
        page.setObjectName("paper")
        page.setMaximumWidth(grown(900))
        letter = QVBoxLayout(page)
        letter.setContentsMargins(20, 6, 8, 20)
        letter.setSpacing(9)
        head = plain_label("Motors and other loads")
        head.setFont(words_font(12, bold=True))
        head.setContentsMargins(0, 6, 0, 0)
        self._load_room = QVBoxLayout()
        self._load_room.setSpacing(12)
        loads = QVBoxLayout()
        loads.setSpacing(9)
        loads.addWidget(head)
        loads.addLayout(self._load_room)
        loads.addWidget(self.new)
        first: list[QVBoxLayout | BriefPart] = [self.job, self.supply, self.sources, loads]
        if not session.job.loads:
            first = [loads, self.job, self.supply, self.sources]
        for part in (*first, self.signals, self.box, self.panel, self.practice, self.names):
            if isinstance(part, QVBoxLayout):
                letter.addLayout(part)
            else:
                letter.addWidget(part)
        letter.addStretch(1)
        body = QWidget()
        body.setObjectName("paper")
        row = QHBoxLayout(body)  # a column would ask the page's height at more than its greatest width
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(page)
        row.addStretch(0)
        replace_body(self._letter, body)

    def _show_loads(self) -> None:
        job = self.session.job
        wanted = [load.id for load in job.loads]
        for gone in [load_id for load_id in self.loads if load_id not in wanted]:
            part = self.loads.pop(gone)
            self._load_room.removeWidget(part)
            part.hide()
            part.deleteLater()
        for place, load in enumerate(job.loads):
            if load.id not in self.loads:
                part = LoadPart(self.session, load)
                self.loads[load.id] = part
                self._load_room.insertWidget(place, part)
        self.loads = {load_id: self.loads[load_id] for load_id in wanted}
        self.panel.setVisible(bool(wanted))

    def _see_new(self) -> None:
        self._letter.ensureWidgetVisible(self.new, 0, 60)
