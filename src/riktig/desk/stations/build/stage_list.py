"""The stages of the work under each other: a ring that fills, a lock where the gate is shut, counts and minutes."""

from collections.abc import Sequence

from PySide6.QtCore import QModelIndex, QPersistentModelIndex, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPen, QPolygonF
from PySide6.QtWidgets import (
    QListWidget,
    QListWidgetItem,
    QSizePolicy,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from riktig.core.production import BuildStage, StageState
from riktig.desk.theme import LIGHT, Theme, grown, words_font

__all__ = ["StageList", "minutes_words"]

RADIUS = 8.0
NARROW, WIDE = 46, 190
"""Width of the list with its signs alone, and with its names, px."""


def minutes_words(minutes: float) -> str:
    """“25 min”, “3.5 h”."""
    return f"{minutes:.0f} min" if minutes < 100 else f"{minutes / 60:.1f} h"


class _StageDelegate(QStyledItemDelegate):
    """Paints a stage: shape first, colour second."""

    def __init__(self) -> None:
        super().__init__()
        self.theme: Theme = LIGHT

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return QSize(20, grown(32))

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        state = index.data(Qt.ItemDataRole.UserRole)
        if not isinstance(state, StageState):
            return
        rect: QRectF = QRectF(option.rect)
        chosen = bool(option.state & QStyle.StateFlag.State_Selected)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if chosen:
            painter.fillRect(rect, self.theme.colour("chosen"))
        middle = QPointF(rect.x() + 18, rect.center().y())
        self._sign(painter, middle, state)
        if rect.width() < grown(WIDE) / 2:
            painter.restore()
            return
        painter.setPen(self.theme.colour("ink"))
        painter.setFont(words_font(10, bold=chosen))
        left, half = rect.x() + 33, rect.height() / 2
        name = QRectF(left, rect.y(), rect.width() - 40, half)
        painter.drawText(name, Qt.AlignmentFlag.AlignBottom, state.stage.value)
        painter.setFont(words_font(9))
        painter.setPen(self.theme.colour("judgement" if state.passed else "third"))
        painter.drawText(name.translated(0, half), Qt.AlignmentFlag.AlignTop, _line(state))
        painter.restore()

    def _sign(self, painter: QPainter, at: QPointF, state: StageState) -> None:
        colour = self.theme.colour("act" if state.finished else "third")
        painter.setPen(QPen(colour, 1.6))
        painter.setBrush(self.theme.colour("card"))
        if not state.may_begin and not state.complete:
            painter.drawRoundedRect(QRectF(at.x() - 6, at.y() - 1, 12, 9), 1.5, 1.5)
            painter.drawArc(QRectF(at.x() - 4, at.y() - 8, 8, 13), 0, 180 * 16)
            return
        painter.drawEllipse(at, RADIUS, RADIUS)
        painter.setBrush(colour)
        if state.complete and state.count:
            painter.drawEllipse(at, RADIUS, RADIUS)
            painter.setPen(QPen(self.theme.colour("on act"), 2))
            painter.drawPolyline(QPolygonF([at + QPointF(-3.6, 0.2), at + QPointF(-1, 3), at + QPointF(4, -3)]))
        elif state.finished:
            whole = QRectF(at.x() - RADIUS, at.y() - RADIUS, 2 * RADIUS, 2 * RADIUS)
            painter.drawPie(whole, 90 * 16, -round(360 * 16 * state.finished / state.count))


def _line(state: StageState) -> str:
    if not state.count:
        return "nothing to do here"
    counts = f"{state.finished} of {state.count}"
    if state.passed and state.shut:
        return f"{counts}  ·  passed"
    return counts if state.complete else f"{counts}  ·  {minutes_words(state.minutes_left)}"


class StageList(QListWidget):
    """All stages; ``stage_chosen`` carries the one to go to."""

    stage_chosen = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("Stages of the work")
        self._delegate = _StageDelegate()
        self.setItemDelegate(self._delegate)
        self.setMinimumWidth(grown(NARROW))
        self.setMaximumWidth(grown(WIDE))
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Expanding)
        self.setUniformItemSizes(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.currentItemChanged.connect(self._picked)

    def sizeHint(self) -> QSize:
        """As wide as its names; where the window is narrow it shows its signs alone."""
        return QSize(grown(WIDE), 200)

    def show_stages(self, states: Sequence[StageState], now: BuildStage) -> None:
        """Shows how far each is, and which one is at hand."""
        self.blockSignals(True)
        if self.count() != len(states):
            self.clear()
            for _ in states:
                self.addItem(QListWidgetItem())
        for row, state in enumerate(states):
            item = self.item(row)
            if state.stage is now:
                self.setCurrentItem(item)
            if item.data(Qt.ItemDataRole.UserRole) == state:
                continue
            item.setData(Qt.ItemDataRole.UserRole, state)
            gate = "\n".join(["The gate is shut:", *state.shut]) if state.shut else "The gate is open."
            item.setToolTip(f"{state.stage.value}: {_line(state)}\n{gate}")
            item.setText(f"{state.stage.value}  {_line(state)}")  # what is copied and read aloud; the delegate paints
        self.blockSignals(False)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self._delegate.theme = theme
        self.viewport().update()

    def _picked(self, item: QListWidgetItem | None) -> None:
        state = item.data(Qt.ItemDataRole.UserRole) if item else None
        if isinstance(state, StageState):
            self.stage_chosen.emit(state.stage)
