"""Labels and rows, bodies that are shown one at a time, and work that waits until the window is painted."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QObject, Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QLabel, QLayout, QScrollArea, QSizePolicy, QWidget

from riktig.desk.widgets.flow import FlowLayout

__all__ = ["after_paint", "flowing", "plain_label", "replace_body", "row_of", "show_only"]


AFTER_PAINT_MS = 1
"""A timer of 0 is served before the window is painted, this one after."""


def after_paint(owner: QObject, work: Callable[[], None]) -> QTimer:
    """A timer that, when started, does some work once the window is painted; started twice it does it once."""
    timer = QTimer(owner)
    timer.setSingleShot(True)
    timer.setInterval(AFTER_PAINT_MS)
    timer.timeout.connect(work)
    return timer


def plain_label(text: str = "", role: str = "", *, wraps: bool = False) -> QLabel:
    """A label of plain text in a role of the style sheet."""
    label = QLabel(text)
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setWordWrap(wraps)
    if role:
        label.setObjectName(role)
    return label


def row_of(items: Sequence[QWidget | QLayout | None], *, gap: int = 8) -> QHBoxLayout:
    """Widgets side by side; None is a stretch."""
    row = QHBoxLayout()
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(gap)
    for item in items:
        if item is None:
            row.addStretch(1)
        elif isinstance(item, QLayout):
            row.addLayout(item)
        else:
            row.addWidget(item)
    return row


def flowing(items: Sequence[QWidget | None], *, gap: int = 6) -> QWidget:
    """Widgets side by side, in as many lines as the width asks for."""
    holder = QWidget()
    row = FlowLayout(holder, gap=gap, lead=4)
    for item in items:
        if item is not None:
            row.addWidget(item)
    policy = holder.sizePolicy()
    policy.setHorizontalPolicy(QSizePolicy.Policy.Expanding)
    policy.setVerticalPolicy(QSizePolicy.Policy.Minimum)
    policy.setHeightForWidth(True)
    holder.setSizePolicy(policy)
    return holder


def show_only(*widgets: tuple[QWidget, bool]) -> None:
    """Hides and shows widgets, those that go first: never are both there at once, which would push the window wider."""
    for widget, shown in sorted(widgets, key=lambda shown_widget: shown_widget[1]):
        widget.setVisible(shown)


def replace_body(area: QScrollArea, body: QWidget) -> None:
    """Puts a new body into a scroll area; the old one goes later, since it may be the sender."""
    old = area.takeWidget()
    if old is not None:
        old.hide()
        old.deleteLater()
    area.setWidget(body)
