"""One hole at a time, large: where it is from the datum, with what it is made, and what is done to it."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFontMetrics, QKeyEvent, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QButtonGroup, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from riktig.core.door import DOOR
from riktig.core.edits import FixDoor
from riktig.core.geometry import Circle, Shape
from riktig.core.holes import (
    BLOCKERS,
    GLAND_BLOCKERS,
    Hole,
    HoleWork,
    MarkOut,
    Tool,
    mark_out_order,
    running_shapes,
    walk_shapes,
)
from riktig.core.keys import HoleKey, Key
from riktig.core.production import (
    CRITICALS,
    HoleState,
    Judged,
    closed_for,
    hole_facts,
    hole_states,
    hole_subject,
    judged_all,
)
from riktig.core.records import TakenBack
from riktig.desk.canvas import WORKSHOP, DrawingView
from riktig.desk.machining.faces import face_drawing, holes_on, origin_of
from riktig.desk.session import Session
from riktig.desk.theme import Theme, words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["MarkPage"]

CAUTION = (
    "Wear goggles, clamp the sheet, no gloves near a turning drill. Drill before parts are fitted: swarf causes "
    "short circuits."
)
SAID = {Tool.PUNCH: "punched through", Tool.HOLE_SAW: "sawn out", Tool.CUT: "cut out", Tool.TAP: "drilled and tapped"}
"""What a hole is when it is made, other than drilled."""
LARGE, SMALL = 46, 26
"""Points of the two numbers: as large as there is room for (chosen by us: read from a metre)."""
NAMES = {HoleWork.MARKED: "Mark", HoleWork.PUNCHED: "Punch", HoleWork.MADE: "Drill", HoleWork.DEBURRED: "Deburr"}


class MarkPage(QWidget):
    """Keys: Space ticks and goes on, Backspace takes back, arrows go to another hole, 1 to 4 change the work."""

    measure_asked = Signal(str)
    """The dimension that keeps a hole shut."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.face, self.number = "plate", ""
        self.work = HoleWork.MARKED
        self._order: MarkOut | None = None
        self._holes: tuple[Hole, ...] = ()
        self.states: dict[str, HoleState] = {}
        self.view = DrawingView("Surface marked out")
        self.view.opening = WORKSHOP
        self.view.chosen.connect(self.choose)
        self.view.on_key = self.take_key
        self.words = plain_label("", "second", wraps=True)
        self.caution = plain_label(CAUTION, "judgement", wraps=True)
        left = QVBoxLayout()
        left.addWidget(self.words)
        left.addWidget(self.view, 1)
        left.addWidget(self.caution)
        row = row_of((), gap=12)
        row.addLayout(left, 3)
        row.addWidget(self._make_card(), 2)
        row.setContentsMargins(0, 0, 0, 0)
        self.setLayout(row)

    def _make_card(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        card.setMinimumWidth(270)
        layout = QVBoxLayout(card)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.setSpacing(6)
        works = row_of((), gap=4)
        self._group = QButtonGroup(self)
        self.works: dict[HoleWork, QPushButton] = {}
        for n, work in enumerate(HoleWork, 1):
            button = QPushButton(NAMES[work])
            button.setCheckable(True)
            button.setMinimumHeight(40)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setToolTip(f"Key {n}")
            button.clicked.connect(lambda _=False, drill_work=work: self.turn_to(drill_work))
            self._group.addButton(button)
            self.works[work] = button
            works.addWidget(button)
        layout.addLayout(works)
        self.title, self.across, self.down = plain_label(""), plain_label(""), plain_label("")
        self.title.setFont(words_font(32, mono=True, bold=True))
        for label, name in ((self.across, "Across from the datum"), (self.down, "Down from the datum")):
            label.setFont(words_font(LARGE, mono=True, bold=True))
            label.setAccessibleName(name)
            # A long number must not push the card wider.
            label.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.tool = plain_label("", wraps=True)
        self.tool.setFont(words_font(18, bold=True))
        self.purpose, self.note = plain_label("", "second", wraps=True), plain_label("", "second", wraps=True)
        self.purpose.setFont(words_font(12))
        self.note.setFont(words_font(12))
        self.gate = plain_label("", "fails", wraps=True)
        self.measure = QPushButton("Measure it")
        self.measure.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.measure.clicked.connect(self._ask_measure)
        self.tick = QPushButton("Done  (Space)")
        self.tick.setObjectName("main")
        self.tick.setMinimumHeight(52)
        self.tick.setFont(words_font(14, bold=True))
        self.tick.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.tick.clicked.connect(self.tick_now)
        self.back = QPushButton("Take back")
        self.back.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.back.clicked.connect(self.take_back)
        for widget in (self.title, self.across, self.down, self.tool, self.purpose, self.note, self.gate, self.measure):
            layout.addWidget(widget)
        layout.addStretch(1)
        layout.addWidget(self.tick)
        layout.addWidget(self.back)
        return card

    def show_face(self, face: str) -> None:
        """Turns to a surface."""
        if face != self.face:
            self.face, self.number, self._order = face, "", None
        self.refresh()

    def refresh(self) -> None:
        """Shows the holes of now and what is done to them."""
        holes = holes_on(self.session, self.face)
        self.states = {state.hole.number: state for state in hole_states(holes, self.session.records)}
        if self._order is None or holes != self._holes:
            # The order of many holes takes a while; a tick changes none of them.
            self._holes, self._order = holes, mark_out_order(holes, self.face)
        self.view.show_drawing(face_drawing(self.session, self.face))
        if self.number not in self.states:
            self.number = ""
        if not self.number:
            self._to_open(start=True)
        self.show_current()

    def walk(self) -> list[HoleState]:
        """The holes in the order of the work of now: a walk for marking, a round a tool for drilling."""
        if self._order is None:
            return []
        if self.work in (HoleWork.MARKED, HoleWork.PUNCHED):
            order = self._order.marking
        else:
            order = tuple(hole for drill_round in self._order.rounds for hole in drill_round.holes)
        states = [self.states[hole.number] for hole in order]
        return [state for state in states if self.work in state.hole.operations]

    def _state(self) -> HoleState | None:
        return self.states.get(self.number)

    def _blockers(self) -> tuple[str, ...]:
        evaluation = self.session.evaluation
        blockers = evaluation.get(GLAND_BLOCKERS) if "gland" in self.face else evaluation.get(BLOCKERS)
        return tuple(blocker.text for blocker in blockers if blocker.face == self.face)

    def closed(self) -> tuple[Judged, ...]:
        """What must be measured before the hole may be made."""
        state = self._state()
        if state is None or self.work is not HoleWork.MADE:
            return ()
        judged = judged_all(self.session.evaluation.get(CRITICALS), self.session.records, self.session.job.practice)
        return closed_for(state.hole.key, judged)

    def show_current(self) -> None:
        """Shows the hole that is to be made."""
        walk, state = self.walk(), self._state()
        for work, button in self.works.items():
            states = [state for state in self.states.values() if work in state.hole.operations]
            button.setText(f"{NAMES[work]}\n{sum(state.has(work) for state in states)}/{len(states)}")
            button.setAccessibleName(NAMES[work])
            button.setChecked(work is self.work)
        blockers = self._blockers()
        stale = [f"{state.hole.number} was {state.stale}" for state in self.states.values() if state.stale]
        self.words.setText(self._progress_words(walk, blockers, stale))
        self.words.setObjectName("fails" if blockers or stale else "second")
        self.words.style().polish(self.words)
        shown = state is not None
        for widget in (self.across, self.down, self.tool, self.purpose, self.note, self.tick, self.back):
            widget.setVisible(shown)
        if state is None:
            self.title.setText("No holes")
            self.gate.hide()
            self.measure.hide()
            self.view.set_overlay(())
            return
        hole = state.hole
        self.title.setText(hole.number)
        self.across.setText(f"→ {hole.x:g}")
        self.down.setText(f"↓ {hole.y:g}")
        self._fit_numbers()
        self.tool.setText(hole.tool_said)
        self.purpose.setText(f"for {hole.purpose}" + (f", {hole.rating.split(',')[0]}" if hole.rating else ""))
        self.note.setText(hole.note)
        self.note.setVisible(bool(hole.note))
        closed = self.closed()
        self.gate.setText(closed[0].critical.name + ": " + closed[0].said if closed else "")
        self.gate.setVisible(bool(closed))
        self.measure.setVisible(bool(closed))
        done = next((who for work, who, _ in state.done if work is self.work), None)
        self.tick.setText(f"✓ {done.who} {done.when[11:16]}" if done else f"Is {self._word(state)}  (Space)")
        self.tick.setEnabled(done is None and not closed and not (blockers and self.work is HoleWork.MADE))
        self.back.setEnabled(bool(state.done))
        self.view.select(frozenset({HoleKey(hole.number)}))
        self.view.set_overlay(self._overlay(walk, state))

    def _word(self, state: HoleState) -> str:
        made = self.work is HoleWork.MADE
        return SAID.get(state.hole.tool, self.work.value) if made else self.work.value

    def _fit_numbers(self) -> None:
        """The two numbers as large as the card is wide, and both alike."""
        longest = max((self.across.text(), self.down.text()), key=len)
        wide = QFontMetrics(words_font(LARGE, mono=True, bold=True)).horizontalAdvance(longest)
        room = max(self.across.width(), 200)
        font = words_font(max(min(LARGE, LARGE * room / (wide + 4)), SMALL), mono=True, bold=True)
        self.across.setFont(font)
        self.down.setFont(font)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The numbers keep to the card."""
        super().resizeEvent(event)
        self._fit_numbers()

    def showEvent(self, event: QShowEvent) -> None:
        """The numbers keep to the card."""
        super().showEvent(event)
        self._fit_numbers()

    def _overlay(self, walk: list[HoleState], state: HoleState) -> list[Shape]:
        shift = origin_of(self.session, self.face)
        left = [state.hole for state in walk if not state.has(self.work)]
        shapes: list[Shape] = [
            Circle(state.hole.x + shift.x, state.hole.y + shift.y, 3.0, "meets", 1.2, "meets")
            for state in walk
            if state.has(self.work)
        ]
        return [*shapes, *walk_shapes(left, shift), *running_shapes(state.hole, shift, self.view.legible() * 1.25)]

    def _progress_words(self, walk: list[HoleState], blockers: tuple[str, ...], stale: list[str]) -> str:
        if blockers:
            return f"Not ready to drill: {' '.join(blockers[:2])}"
        if stale:
            return f"Out of date: {stale[0]}."
        order = self._order
        if not walk or order is None:
            return ""
        at = next((n for n, state in enumerate(walk, 1) if state.hole.number == self.number), 1)
        if self.work in (HoleWork.MARKED, HoleWork.PUNCHED):
            saved = 1 - order.walk / order.row_by_row if order.row_by_row else 0.0
            return f"{at} of {len(walk)}  ·  a walk of {order.walk / 1000:.1f} m, {saved:.0%} less than row by row"
        rounds = [
            drill_round for drill_round in order.rounds if any(h.number == self.number for h in drill_round.holes)
        ]
        tool = f"  ·  {rounds[0].tool}: {len(rounds[0].holes)} of them" if rounds else ""
        return f"{at} of {len(walk)}  ·  {len(order.rounds)} tools, each taken in hand once{tool}"

    def choose(self, key: Key | None) -> None:
        """Turns to a hole by its key; nothing happens when it is on another surface."""
        if isinstance(key, HoleKey) and key.number in self.states:
            self.number = key.number
            self.show_current()
            self.session.select(key)

    def turn_to(self, work: HoleWork) -> None:
        """Turns to another work, at its first hole that is open."""
        self.work = work
        self._to_open(start=True)
        self.show_current()

    def _to_open(self, *, start: bool = False) -> None:
        walk = self.walk()
        numbers = [state.hole.number for state in walk]
        at = 0 if start or self.number not in numbers else numbers.index(self.number)
        later = [state for state in walk[at:] + walk[:at] if not state.has(self.work)]
        state = later[0] if later else walk[0] if walk else None
        self.number = state.hole.number if state else next(iter(self.states), "")

    def step(self, by: int) -> None:
        """Goes to another hole in the order of the work."""
        numbers = [state.hole.number for state in self.walk()]
        if numbers:
            at = numbers.index(self.number) if self.number in numbers else 0
            self.number = numbers[(at + by) % len(numbers)]
            self.show_current()

    def tick_now(self) -> None:
        """Ticks the work of now on this hole and goes to the next that is open."""
        state, work = self._state(), self.work
        if state is None or state.has(work) or work not in state.hole.operations:
            return
        blockers, closed = self._blockers(), self.closed()
        if work is HoleWork.MADE and blockers:
            self.session.say(f"Not ready to drill: {blockers[0]}", wrong=True)
            return
        if closed:
            self.session.say(f"This hole is locked. {closed[0].critical.name}: {closed[0].said}", wrong=True)
            return
        evaluation = self.session.evaluation
        if self.session.job.door is None and self.face in {leaf.name for leaf in evaluation.get(DOOR).leaves}:
            self.session.edit("door begun: operators stay", FixDoor())
        hole = state.hole
        if self.session.record(hole_subject(hole), hole_facts(hole, work)):
            self.refresh()
            self._to_open()
            self.show_current()

    def take_back(self) -> None:
        """Takes the last thing done to this hole back, with a correcting entry."""
        state = self._state()
        if state and state.done:
            work, _, record = state.done[-1]
            self.session.record(hole_subject(state.hole), TakenBack(work.value), corrects=record)
            self.refresh()

    def _ask_measure(self) -> None:
        closed = self.closed()
        if closed:
            self.measure_asked.emit(closed[0].critical.key)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of the bench."""
        if not self.take_key(event):
            super().keyPressEvent(event)

    def take_key(self, event: QKeyEvent) -> bool:
        """Whether a key was for the bench."""
        text = event.text()
        if event.key() == Qt.Key.Key_Space:
            self.tick_now()
        elif event.key() == Qt.Key.Key_Backspace:
            self.take_back()
        elif event.key() in (Qt.Key.Key_Right, Qt.Key.Key_Down):
            self.step(1)
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Up):
            self.step(-1)
        elif text and text in "1234":
            self.turn_to(list(HoleWork)[int(text) - 1])
        else:
            return False
        return True

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)
