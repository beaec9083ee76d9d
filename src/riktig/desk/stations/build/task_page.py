"""The tasks of one stage: a list, the task at hand in large type, and the panel as it stands with its place marked."""

from collections.abc import Callable, Collection, Sequence
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import (
    QFileDialog,
    QInputDialog,
    QLabel,
    QListWidget,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from riktig.core.door import DOOR, DoorPlan
from riktig.core.geometry import Drawing, Shape
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey, Key, PartKey
from riktig.core.plate import LAYOUT, Layout
from riktig.core.production import (
    BuildStage,
    PanelNow,
    Shown,
    StageState,
    TaskState,
    draw_operator,
    draw_panel_now,
    panel_now,
    rings_around,
    shown_for,
)
from riktig.core.records import NewRecord, RedLine, TakenBack
from riktig.core.schematic import NAMES, Names
from riktig.core.terminals import STRIPS, draw_blocks
from riktig.core.views import notes_on, photos_of
from riktig.desk.bench import common_key
from riktig.desk.canvas import DrawingView
from riktig.desk.photos import ENDINGS, keep_note, keep_photo
from riktig.desk.session import Session
from riktig.desk.stations.build.entry_row import EntryRow
from riktig.desk.theme import Theme, grown, words_font
from riktig.desk.widgets import after_paint, plain_label, row_of

__all__ = ["TaskPage"]

MADE_ELSEWHERE = (BuildStage.HOLES, BuildStage.CUT)
"""Stages that are ticked where their measures are taken twice: in the metalwork of Plate and Door."""
ROOM_FOR_PICTURE = 430
"""Narrower pages have no picture beside list and words, px (chosen by us)."""
LIST_WIDE = 250
"""Of the list of tasks, px (chosen by us: titles of 30 characters)."""


class TaskPage(QWidget):
    """The tasks of a stage. Space does the next, Backspace takes it back, arrow keys go to another.

    Args:
        session: The job at hand.
        may_do: Asked before a task is ticked: whether the gate lets it, having said so where not.
    """

    def __init__(self, session: Session, may_do: Callable[[BuildStage], bool]) -> None:
        super().__init__()
        self.session, self._may_do = session, may_do
        self.state: StageState | None = None
        self.subject = ""
        self.slot_title = ""
        self._fitting = False
        self._picture_soon = after_paint(self, self._show_picture)
        self._drawn: tuple[PanelNow, Shown, Names, Layout, DoorPlan, Drawing] | None = None
        self.list = QListWidget()
        self.list.setAccessibleName("Tasks of this stage")
        self.list.setUniformItemSizes(True)
        self.list.setFont(words_font(10))
        self.list.setMinimumWidth(grown(80))
        self.list.setMaximumWidth(grown(LIST_WIDE))
        self.list.currentRowChanged.connect(self._picked)
        self.list.installEventFilter(self)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.title = plain_label("", wraps=True)
        self.title.setFont(words_font(20, bold=True))
        self.title.setMinimumHeight(2 * self.title.fontMetrics().lineSpacing())  # most need two lines: nothing jumps
        self.how = plain_label("", wraps=True)
        self.how.setFont(words_font(12))
        self.how.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        self.caution = plain_label("", "judgement", wraps=True)
        self.said: QLabel = plain_label("", "second", wraps=True)
        self.view = DrawingView("The panel as it stands, with the place of this task")
        self.view.setMinimumSize(1, 120)
        self.view.chosen.connect(self._chosen_in_picture)
        self.done = _big("Done", "Space: ticks this task: who and when are kept", self.do_now)
        self.done.setObjectName("main")
        self.back = _big("Take back", "Backspace: takes the tick back with a correcting entry", self.take_back)
        self.photo = QPushButton("Photo …")
        self.photo.setToolTip("Keeps a photo of what this task is about, with who and when")
        self.photo.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.photo.clicked.connect(lambda _=False: self.ask_photo())
        self.red = QPushButton("Red-line …")
        self.red.setToolTip("Notes that this is built otherwise than drawn; the planner accepts or rejects it")
        self.red.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.red.clicked.connect(lambda _=False: self.ask_red_line())
        self.note = QPushButton("Note …")
        self.note.setToolTip("Keeps a note on what this task is about, with who and when")
        self.note.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.note.clicked.connect(lambda _=False: self.ask_note())
        self.entry = EntryRow(self.do_now)
        self.pick_device: Callable[[Key], None] = lambda key: None
        self.go_elsewhere: Callable[[Key], None] = lambda key: None
        self.tested: Callable[[], Collection[DeviceId]] = tuple
        body = row_of((self.list,))
        body.addWidget(self._make_card(), 1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addLayout(body, 1)

    def _make_card(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        column = QVBoxLayout(card)
        column.setContentsMargins(12, 8, 12, 10)
        column.setSpacing(6)
        column.addWidget(self.title)
        low = row_of((), gap=14)
        words = QVBoxLayout()
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setWidget(self.how)
        area.setAccessibleName("Where and how")
        words.addWidget(area, 1)
        words.addWidget(self.caution)
        words.addWidget(self.said)
        words.addWidget(self.entry)
        words.addWidget(self.done)
        words.addWidget(self.back)
        words.addLayout(row_of((self.photo, self.note, None)))
        words.addLayout(row_of((self.red, None)))  # three side by side would widen the page past the picture's room
        low.addLayout(words, 2)
        low.addWidget(self.view, 3)
        column.addLayout(low, 1)
        return card

    def show_stage(self, state: StageState, stages: Sequence[StageState]) -> None:
        """Shows a stage; the task that was at hand stays, or the first that is not done."""
        changed = self.state is None or self.state.stage is not state.stage
        self.state = state
        if changed or not any(self._is_now(task) for task in state.tasks):
            first = next((task for task in state.tasks if task.done is None), state.tasks[0] if state.tasks else None)
            self._take(first)
        self.list.blockSignals(True)
        if changed or self.list.count() != len(state.tasks):
            self.list.clear()
            self.list.addItems([""] * len(state.tasks))
        for row, task in enumerate(state.tasks):
            sign = "✓" if task.done else "!" if task.stale else " "
            text = f"{sign}  {task.task.title}"
            item = self.list.item(row)
            if item.text() != text:
                item.setText(text)
                item.setToolTip(task.task.title)
            if self._is_now(task):
                self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self._stages = stages
        self._show()

    def _take(self, task: TaskState | None) -> None:
        self.subject = task.task.subject if task else ""
        self.slot_title = task.task.title if task else ""

    def _is_now(self, task: TaskState) -> bool:
        return task.task.subject == self.subject and task.task.title == self.slot_title

    @property
    def task(self) -> TaskState | None:
        """The task at hand."""
        tasks = self.state.tasks if self.state else ()
        return next((task for task in tasks if self._is_now(task)), None)

    def _show(self) -> None:
        task = self.task
        self.title.setText(task.task.title if task else "Nothing to do here")
        notes = [f"Note: {note.text} ({note.by})" for note in notes_on(self.session.records, self.photo_key)]
        self.how.setText("\n".join((*task.task.how, *notes) if task else notes))
        self.caution.setText(task.task.caution if task else "")
        self.caution.setVisible(bool(task and task.task.caution))
        state_words = ""
        if task and task.done:
            state_words = f"✓ {task.done.who}, {task.done.when[:16].replace('T', ' ')}"
        elif task and task.stale:
            state_words = f"No longer counts: {task.stale}."
        self.said.setText(state_words)
        self.said.setVisible(bool(state_words))
        elsewhere = bool(task and task.task.stage in MADE_ELSEWHERE)
        self.done.setText("Show where" if elsewhere else "Done")
        self.done.setEnabled(bool(task and (elsewhere or not task.done)))
        self.back.setVisible(not elsewhere)
        self.back.setEnabled(bool(task and task.record))
        self.entry.show_for(task)
        count = len(photos_of(self.session.records, self.photo_key))
        self.photo.setText(f"Photo …  {count}" if count else "Photo …")
        if self._drawn is None:
            self._show_picture()
        else:
            self._picture_soon.start()  # what was ticked is seen first

    def _show_picture(self) -> None:
        """The picture, where there is room for one beside the words."""
        has_room = self.width() >= grown(ROOM_FOR_PICTURE)
        self.view.setVisible(has_room)
        if has_room and self.state is not None:
            where = frozenset(self.task.task.where) if self.task else frozenset[Key]()
            picture = self._card(self.task, where)
            rings: list[Shape] = []
            if picture is None:
                picture = self._panel_now(where)
                rings = rings_around(picture, where)
            if picture != self.view.drawing:
                self.view.show_drawing(picture)
            self.view.set_overlay(rings)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Shows or hides the picture by the room there is."""
        super().resizeEvent(event)
        if not self._fitting:  # the page may get another width by it, and that must not turn the picture off again
            self._fitting = True
            self._show_picture()
            self._fitting = False

    def _card(self, task: TaskState | None, where: frozenset[Key]) -> Drawing | None:
        """The assembly card of an operator or the strip of the task at hand; None for any other task."""
        evaluation = self.session.evaluation
        if task and task.task.stage is BuildStage.OPERATORS:
            seats = evaluation.get(DOOR).seats
            seat = next((seat for seat in seats if DeviceKey(seat.device) in where), None)
            if seat:
                return draw_operator(seat, evaluation.get(NAMES).tag[seat.device])
        if task and task.task.stage is BuildStage.STRIPS:
            strips = evaluation.get(STRIPS).strips
            strip = next((strip for strip in strips if DeviceKey(strip.rows[0].device) in where), None)
            if strip:
                return draw_blocks(strip)
        return None

    def _panel_now(self, where: frozenset[Key]) -> Drawing:
        """The panel as it stands: drawn anew only when that has changed."""
        evaluation = self.session.evaluation
        layout, door, names = evaluation.get(LAYOUT), evaluation.get(DOOR), evaluation.get(NAMES)
        now = panel_now(self._stages, self.session.progress, self.tested())
        shown = shown_for(where, door)
        drawn = self._drawn
        if drawn is None or drawn[:3] != (now, shown, names) or drawn[3] is not layout or drawn[4] is not door:
            drawn = self._drawn = (now, shown, names, layout, door, draw_panel_now(layout, door, names, now, shown))
        return drawn[5]

    def _picked(self, row: int) -> None:
        if self.state and 0 <= row < len(self.state.tasks):
            self._take(self.state.tasks[row])
            self._show()

    def _chosen_in_picture(self, key: Key | None) -> None:
        """A press on a part in the picture goes to its task, where this stage has one."""
        if self.state is None or key is None:
            return
        for row, task in enumerate(self.state.tasks):
            if key in task.task.where:
                self.list.setCurrentRow(row)
                return
        self.pick_device(key)

    def do_now(self) -> None:
        """Ticks the task at hand and goes on to the next that is not done."""
        task = self.task
        if task and task.task.stage in MADE_ELSEWHERE:
            self.go_elsewhere(task.task.where[0])
            return
        if task is None or task.done or not self._may_do(task.task.stage):
            return
        facts = self.entry.facts_of(task)
        if facts is None:
            self.session.say(self.entry.wrong, wrong=True)
            return
        tasks = self.state.tasks if self.state else ()
        later = [*tasks, *tasks][tasks.index(task) + 1 :]
        following = next((other for other in later if other.done is None and other is not task), task)
        self._take(following)  # before it is recorded: the window shows the stage anew at once
        if not self.session.record(task.task.subject, facts):
            self._take(task)

    def take_back(self) -> None:
        """Takes the tick of the task at hand back."""
        task = self.task
        if task and task.record and task.task.stage not in MADE_ELSEWHERE:
            self.session.record_all([NewRecord(task.task.subject, TakenBack(task.task.title), task.record)])

    @property
    def photo_key(self) -> Key:
        """What a photo of the task at hand is filed under: what it is about, or its stage."""
        task = self.task
        if task and task.task.where:
            return task.task.where[0]
        return PartKey(self.state.stage.value.lower() if self.state else "panel")

    def ask_photo(self) -> None:
        """Asks for a photo of what the task at hand is about."""
        chosen, _ = QFileDialog.getOpenFileName(self, "Photo", "", f"Pictures (*{' *'.join(ENDINGS)})")
        if chosen:
            self.keep_photo(Path(chosen))

    def ask_note(self) -> None:
        """Asks for a note on what the task at hand is about."""
        text, done = QInputDialog.getMultiLineText(self, "Note", "What is to be known of it?")
        if done:
            self.keep_note(text)

    def ask_red_line(self) -> None:
        """Asks how the task at hand was built."""
        task = self.task
        if task is None:
            return
        built, given = QInputDialog.getText(self, "Red-line", f"How was {task.task.title} built instead?")
        if given:
            self.note_red_line(built)

    def note_red_line(self, built: str) -> bool:
        """Notes that the task at hand is built otherwise than drawn; whether that is in the record."""
        task = self.task
        if task is None or not built.strip():
            return False
        drawn = "; ".join(task.task.how) or task.task.title
        return self.session.record(task.task.subject, RedLine(task.task.title, drawn, built.strip()))

    def keep_note(self, text: str) -> bool:
        """Keeps a note on what the task at hand is about; whether it is in the file."""
        is_kept = keep_note(self.session, text, self.photo_key, self.task.task.title if self.task else "the panel")
        self._show()
        return is_kept

    def keep_photo(self, path: Path) -> bool:
        """Keeps a photo of what the task at hand is about; whether it is in the file."""
        is_kept = keep_photo(self.session, path, self.photo_key, self.task.task.title if self.task else "the panel")
        self._show()
        return is_kept

    def step(self, by: int) -> None:
        """Goes to another task."""
        self.list.setCurrentRow(min(max(self.list.currentRow() + by, 0), self.list.count() - 1))

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)

    def eventFilter(self, watched: object, event: object) -> bool:
        """The list takes the keys of the bench."""
        return isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress and self.bench_key(event)

    def bench_key(self, event: QKeyEvent) -> bool:
        """The keys of the bench; True when it was one of them."""
        return common_key(event, self.do_now, self.take_back, self.step)


def _big(text: str, tip: str, done: Callable[[], None]) -> QPushButton:
    button = QPushButton(text)
    button.setFont(words_font(12))
    button.setMinimumHeight(40)
    button.setToolTip(tip)
    button.setAccessibleDescription(tip)
    button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
    button.clicked.connect(lambda _=False: done())
    return button
