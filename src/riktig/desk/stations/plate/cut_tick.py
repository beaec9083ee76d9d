"""Ticking pieces as cut, one after the other as the saw goes; long ones only when they are measured."""

from PySide6.QtWidgets import QPushButton, QWidget

from riktig.core.geometry import Align, Drawing, Face, Shape, Text, bounds_of
from riktig.core.keys import Key, PieceKey
from riktig.core.plate import CUT_PLAN, CUTS, CutPlan
from riktig.core.production import (
    CRITICALS,
    PieceState,
    closed_for,
    judged_all,
    piece_facts,
    piece_states,
    piece_subject,
)
from riktig.core.records import TakenBack
from riktig.desk.session import Session
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["CutTick", "said_of_cuts"]


def said_of_cuts(plan: CutPlan) -> str:
    """How much stock it takes, and how sure that is."""
    proven = "the minimum" if plan.proven else f"at least {plan.least} are needed"
    longest = max((bar.left for bar in plan.bars), default=0.0)
    return f"{plan.new_bars} new lengths needed ({proven})  ·  longest offcut {longest:g} mm"


class CutTick(QWidget):
    """The piece that is chosen, or the next at the saw, large; and a button to say that it is cut."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.piece = ""
        self._states: dict[str, PieceState] = {}
        self.words = plain_label("", wraps=True)
        self.words.setFont(words_font(15, bold=True))
        self.tick = QPushButton("Mark as cut")
        self.tick.setObjectName("main")
        self.tick.setMinimumHeight(40)
        self.tick.clicked.connect(self.toggle)
        row = row_of((self.words,))
        row.setStretch(0, 1)
        row.addWidget(self.tick)
        row.setContentsMargins(0, 0, 0, 0)
        self.setLayout(row)

    def _order(self) -> list[str]:
        """Pieces in the order of the saw: bar by bar."""
        return [piece.name for bar in self._session.evaluation.get(CUT_PLAN).bars for piece in bar.pieces]

    def refresh(self) -> None:
        """Reads what is cut, and turns to the next piece at the saw when nothing is chosen."""
        states = piece_states(self._session.evaluation.get(CUTS), self._session.records)
        self._states = {state.piece.name: state for state in states}
        if self.piece not in self._states:
            self.piece = next((name for name in self._order() if not self._states[name].done), "")
        self._show()

    def show_piece(self, key: Key | None) -> None:
        """Turns to a piece that was chosen."""
        if isinstance(key, PieceKey) and key.name in self._states:
            self.piece = key.name
            self._show()

    def _show(self) -> None:
        state = self._states.get(self.piece)
        cut = sum(state.done is not None for state in self._states.values())
        head = f"{cut} of {len(self._states)} cut"
        self.tick.setEnabled(state is not None)
        if state is None:
            self.words.setText(f"{head}: all pieces are cut.")
            return
        text = f"{head}  ·  {state.piece.name}: {state.piece.length:g} mm of {state.piece.stock}"
        if state.stale:
            text += f". Out of date: {state.stale}"
        elif state.done:
            text += f", cut by {state.done.who or 'nobody named'} {state.done.when[11:16]}"
        self.words.setText(text)
        self.tick.setText("Take back" if state.done else "Mark as cut")

    def toggle(self) -> None:
        """Says that the piece is cut, or takes that back with a correcting entry."""
        session, state = self._session, self._states.get(self.piece)
        if state is None:
            return
        subject = piece_subject(state.piece)
        if state.done:
            session.record(subject, TakenBack("piece cut"), corrects=state.record)
        else:
            judged = judged_all(session.evaluation.get(CRITICALS), session.records, session.job.practice)
            closed = closed_for(subject, judged)
            if closed:
                why = closed[0].said
                session.say(f"{state.piece.name} is long and is measured before it is cut. {why}", wrong=True)
                return
            if session.record(subject, piece_facts(state.piece)):
                self.piece = ""
        self.refresh()

    def shapes(self, drawing: Drawing) -> list[Shape]:
        """A tick on every piece of the drawing that is cut."""
        done: set[Key | None] = {PieceKey(name) for name, state in self._states.items() if state.done}
        shapes: dict[Key | None, Shape] = {}
        for mark in drawing.shapes:
            if mark.key in done and mark.layer == "piece" and mark.key not in shapes:
                box = bounds_of(mark)
                shapes[mark.key] = Text(
                    box.right - 1.5, box.bottom - 1.2, "✓", 3.0, "meets", Face.BOLD, Align.RIGHT, key=mark.key
                )
        return list(shapes.values())
