"""Change orders as work, and red-lines from the bench: what is open, where it lies, and what closes it."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QFileDialog,
    QFormLayout,
    QInputDialog,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QSpinBox,
    QVBoxLayout,
    QWidget,
)

from riktig.core.evaluation import Evaluation
from riktig.core.exports import write_set
from riktig.core.exports.paper_sets import head_of, paper_of
from riktig.core.job import Job
from riktig.core.keys import Key
from riktig.core.plate import LAYOUT
from riktig.core.production import (
    ACCEPTED,
    REJECTED,
    ChangeOrder,
    OpenRedLine,
    change_orders,
    done_again,
    draw_change,
    next_change,
    red_lines,
)
from riktig.core.records import ChangeClosed, ChangeOpened, NewRecord, RedLineAnswered, TakenBack
from riktig.core.views import ChangeLine, ChangeWork, change_paper, change_work
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme, grown, words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["ChangeAsked", "ChangePage"]


ROOM_FOR_PICTURE = 600
"""Narrower pages have no picture beside orders and work, px (chosen by us)."""


class ChangeAsked(QDialog):
    """What a new change order says."""

    def __init__(self, newest: int, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("New change order")
        self.title, self.why, self.asked_by = QLineEdit(), QLineEdit(), QLineEdit()
        self.base = QSpinBox()
        self.base.setRange(1, max(newest, 1))
        self.base.setValue(newest)
        self.base.setToolTip("The revision that is built, or was when the change began; everything since is its work")
        form = QFormLayout()
        for name, field in (
            ("What is changed", self.title),
            ("Why", self.why),
            ("Who asked", self.asked_by),
            ("Since revision", self.base),
        ):
            field.setAccessibleName(name)
            form.addRow(name, field)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addLayout(form)
        layout.addWidget(buttons)
        self.resize(420, 0)

    @property
    def said(self) -> ChangeOpened:
        """What is recorded of it."""
        texts = [field.text().strip() for field in (self.title, self.why, self.asked_by)]
        return ChangeOpened(texts[0], texts[1], texts[2], self.base.value())


class ChangePage(QWidget):
    """Orders and red-lines on the left, the work of the chosen order in the middle, its wires on the plate beside it.

    Args:
        session: The job at hand.
        show: Called to show a thing at its own place.
    """

    def __init__(self, session: Session, show: Callable[[Key], None]) -> None:
        super().__init__()
        self.session, self._show_there = session, show
        self.subject = ""
        self.work = ChangeWork(())
        self._before: tuple[str, int, Evaluation[Job]] | None = None
        self._asked: ChangeAsked | None = None
        self.orders, self.lines = QListWidget(), QListWidget()
        self.orders.setAccessibleName("Change orders and red-lines")
        self.orders.setMaximumWidth(grown(250))
        self.orders.setMinimumWidth(grown(90))
        self.orders.setWordWrap(True)
        self.orders.currentItemChanged.connect(self._chosen)
        self.lines.setAccessibleName("The work of this change")
        self.lines.setFont(words_font(10))
        self.lines.setWordWrap(True)
        self.lines.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.lines.installEventFilter(self)
        self.lines.itemActivated.connect(lambda _item: self.show_line())
        self.said = plain_label("", "second", wraps=True)
        self.view = DrawingView("The wires of this change on the plate")
        self.view.setMinimumSize(1, 120)
        new = _button(
            "New change order …",
            "A change that somebody asked for: everything that it touches becomes work",
            self.ask_new,
        )
        self.tick = _button("Done", "Ticks the chosen line, where it is done here (Space)", self.tick_line)
        self.there = _button("Show", "Goes to where the chosen line is done (Enter)", self.show_line)
        self.close_order = _button("Close order", "Everything of it is done, drawn and tested again", self.close_it)
        self.paper = _button("Print …", "The work of this change as a list, with room to sign", self.ask_where)
        self.accept_line = _button("Accept", "The drawing says so now", lambda: self.answer(ACCEPTED))
        self.reject_line = _button(
            "Reject", "It is built as drawn: its ends are to be landed again", lambda: self.answer(REJECTED)
        )
        left = QVBoxLayout()
        left.addWidget(new)
        left.addWidget(self.orders, 1)
        middle = QVBoxLayout()
        middle.addWidget(self.said)
        middle.addWidget(self.lines, 1)
        middle.addLayout(
            row_of((self.tick, self.there, self.paper, self.close_order, self.accept_line, self.reject_line, None))
        )
        row = row_of((), gap=10)
        row.addLayout(left, 1)
        row.addLayout(middle, 2)
        row.addWidget(self.view, 2)
        row.setContentsMargins(0, 0, 0, 0)
        self.setLayout(row)

    @property
    def open_count(self) -> int:
        """Orders and red-lines that are open."""
        records = self.session.records
        unanswered = sum(line.answer is None for line in red_lines(records))
        return unanswered + sum(order.is_open for order in change_orders(records))

    def refresh(self) -> None:
        """Shows the orders and red-lines of now, and the work of the chosen one."""
        records = self.session.records
        self.orders.blockSignals(True)
        self.orders.clear()
        for order in change_orders(records):
            sign = "○" if order.is_open else "✓"
            self._add(f"{sign} {order.number}  {order.said.title}", order.subject)
        for line in red_lines(records):
            sign = "○" if line.answer is None else "✓"
            self._add(f"{sign} red-line {line.said.name}", line.record.id)
        if not self.subject and self.orders.count():
            self.subject = str(self.orders.item(self.orders.count() - 1).data(Qt.ItemDataRole.UserRole))
            self.orders.setCurrentRow(self.orders.count() - 1)
        self.orders.blockSignals(False)
        self._show()

    def _add(self, text: str, subject: str) -> None:
        item = QListWidgetItem(text)
        item.setData(Qt.ItemDataRole.UserRole, subject)
        self.orders.addItem(item)
        if subject == self.subject:
            self.orders.setCurrentItem(item)

    def _chosen(self, item: QListWidgetItem | None) -> None:
        if item:
            self.subject = str(item.data(Qt.ItemDataRole.UserRole))
            self._show()

    @property
    def order(self) -> ChangeOrder | None:
        """The chosen order, None where a red-line is chosen or nothing."""
        orders = change_orders(self.session.records)
        return next((order for order in orders if order.subject == self.subject), None)

    @property
    def red_line(self) -> OpenRedLine | None:
        """The chosen red-line."""
        return next((line for line in red_lines(self.session.records) if line.record.id == self.subject), None)

    def _show(self) -> None:
        order, red = self.order, self.red_line
        self.work = self._work_of(order) if order else ChangeWork(())
        self._fill_lines()
        for button, shown in (
            (self.tick, order), (self.there, order), (self.paper, order), (self.close_order, order and order.is_open),
            (self.accept_line, red and not red.answer), (self.reject_line, red and not red.answer),
        ):  # fmt: skip
            button.setVisible(bool(shown))
        drawn = order is None or self._is_drawn(order)
        self.close_order.setText("Close order" if drawn else "Withdraw order")
        self.close_order.setEnabled(not self.work.left)
        if order:
            state = (
                f"closed by {order.closed.who}"
                if order.closed
                else f"{len(self.work.left)} of {len(self.work.lines)} open"
            )
            self.said.setText(
                f"{order.said.title}: {order.said.why}. Asked by {order.said.asked_by or 'nobody named'}, opened by "
                f"{order.who}, since revision {order.said.base}. It touches {self.work.counts}; {state}."
            )
        elif red:
            facts = red.answer.facts if red.answer else None
            answer = f" {facts.answer.capitalize()}: {facts.why}." if isinstance(facts, RedLineAnswered) else ""
            self.said.setText(
                f"{red.said.name}: drawn {red.said.drawn}, built {red.said.built}. Noted by {red.record.who}.{answer}"
            )
        else:
            self.said.setText(
                "No change order and no red-line. What is built otherwise than drawn is noted at the wire."
            )
        works = [line.wire for line in self.work.lines if line.wire]
        self.view.show_drawing(draw_change(self.session.evaluation.get(LAYOUT), works))

    def _fill_lines(self) -> None:
        row = self.lines.currentRow()
        self.lines.clear()
        for line in self.work.lines:
            why = f"  ({line.why})" if line.why else ""
            item = QListWidgetItem(f"{'✓' if line.done else '○'}  {line.what}: {line.name}{why}")
            item.setToolTip(f"{line.station}: {line.what} {line.name}{why}")
            self.lines.addItem(item)
        self.lines.setCurrentRow(min(max(row, 0), self.lines.count() - 1))

    def _work_of(self, order: ChangeOrder) -> ChangeWork:
        session = self.session
        return change_work(self._evaluation_before(order), session.evaluation, session.records, self.subject)

    def _evaluation_before(self, order: ChangeOrder) -> Evaluation[Job]:
        """The job as it was when the change began."""
        session, base = self.session, order.said.base
        name = str(session.file.path) if session.file else ""
        if self._before is None or self._before[:2] != (name, base):
            job = session.file.job_at(base) if session.file else session.job
            self._before = (name, base, Evaluation(job))
        return self._before[2]

    def _is_drawn(self, order: ChangeOrder) -> bool:
        """Whether the drawing is another than when the change began."""
        return self._evaluation_before(order).document != self.session.job

    @property
    def line(self) -> ChangeLine | None:
        """The chosen line."""
        row = self.lines.currentRow()
        return self.work.lines[row] if 0 <= row < len(self.work.lines) else None

    def tick_line(self) -> None:
        """Ticks the chosen line where it is done here, else goes to where it is done."""
        line, row = self.line, self.lines.currentRow()
        if line is None or line.done:
            return
        if not line.by_hand:
            self.show_line()
            return
        if self.session.record_all(list(line.by_hand)):
            self.refresh()
            self.lines.setCurrentRow(min(row + 1, self.lines.count() - 1))

    def show_line(self) -> None:
        """Goes to where the chosen line is done."""
        if self.line and self.line.key:
            self._show_there(self.line.key)

    def ask_new(self) -> None:
        """Asks what a new change order says, and opens it."""
        newest = self.session.file.revision() if self.session.file else 1
        if self._asked is not None:
            self._asked.deleteLater()
        self._asked = dialog = ChangeAsked(newest, self)
        dialog.accepted.connect(lambda: self.open_order(dialog.said))
        dialog.open()

    def open_order(self, said: ChangeOpened) -> bool:
        """Opens a change order; whether it is in the record."""
        if not said.title or not said.why:
            self.session.say("No change order was opened: it says what is changed, and why.", wrong=True)
            return False
        subject = next_change(self.session.records)
        if not self.session.record(subject, said):
            return False
        self.subject = subject
        self.refresh()
        return True

    def close_it(self) -> None:
        """Closes the chosen order, when everything of it is done; one that was never drawn is withdrawn instead."""
        order = self.order
        if order is None or not order.is_open or self.work.left:
            return
        if self._is_drawn(order):
            self.session.record(self.subject, ChangeClosed(self.work.counts))
        else:
            opened = next(r for r in self.session.records if r.subject == self.subject and r.facts == order.said)
            self.session.record(self.subject, TakenBack(order.said.title), corrects=opened.id)
        self.refresh()

    def ask_where(self) -> None:
        """Asks where the list is written."""
        chosen, _ = QFileDialog.getSaveFileName(self, "Change order", "change_order.pdf", "PDF (*.pdf)")
        if chosen:
            self.write_paper(Path(chosen))

    def write_paper(self, path: Path) -> bool:
        """Writes the work of the chosen order as a PDF; whether that could be done."""
        session, order = self.session, self.order
        if order is None:
            return False
        head, paper = head_of(session.job, session.clock(), session.who), paper_of(session.job)
        try:
            write_set(path, head, (), [change_paper(self.work, order.said.title)], paper=paper)
        except OSError as error:
            session.say(f"{path} cannot be written ({error.strerror}); the list is still here.", wrong=True)
            return False
        session.say(f"The change order is in {path}.")
        return True

    def answer(self, answer: str) -> None:
        """The planner's answer to the chosen red-line."""
        red = self.red_line
        if red is None:
            return
        question = "What was changed in the drawing?" if answer == ACCEPTED else "Why is it built as drawn?"
        why, given = QInputDialog.getText(self, "Red-line", question)
        if given:
            self.answer_with(red, answer, why.strip())

    def answer_with(self, red: OpenRedLine, answer: str, why: str) -> bool:
        """Records the answer; accepted only once the drawing is another, rejected with its landings taken back."""
        session = self.session
        newest = session.file.revision() if session.file else 0
        if not why:
            session.say("The red-line stays open: an answer says why.", wrong=True)
            return False
        if answer == ACCEPTED and newest <= red.record.revision:
            session.say(
                "The red-line stays open: the drawing is still what it was then. Change it first, then accept.",
                wrong=True,
            )
            return False
        entries = [NewRecord(red.record.subject, RedLineAnswered(answer, red.record.id, why))]
        if answer == REJECTED:
            entries += done_again(red.record.subject, session.records, why)
        done = session.record_all(entries)
        self.refresh()
        return done

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Shows or hides the picture by the room there is."""
        super().resizeEvent(event)
        self.view.setVisible(self.width() >= grown(ROOM_FOR_PICTURE))

    def eventFilter(self, watched: object, event: object) -> bool:
        """Space ticks the chosen line."""
        if isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress and event.key() == Qt.Key.Key_Space:
            self.tick_line()
            return True
        return False

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)


def _button(text: str, tip: str, done: Callable[[], None]) -> QPushButton:
    button = QPushButton(text)
    button.setToolTip(tip)
    button.setAccessibleDescription(tip)
    button.clicked.connect(lambda _=False: done())
    return button
