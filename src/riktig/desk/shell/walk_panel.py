"""A walk through the panel in a few steps: one line at the foot that says what is seen, and leads on."""

from collections.abc import Callable

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from riktig.core.views import WalkStep, walk_steps
from riktig.desk.session import Session
from riktig.desk.widgets import plain_label

__all__ = ["WalkPanel"]


class WalkPanel(QWidget):
    """Goes to each step and selects what it speaks of; it can be stopped at any time.

    Args:
        session: What the window works on.
        go_to: Opens a station.
    """

    def __init__(self, session: Session, go_to: Callable[[str], None]) -> None:
        super().__init__()
        self._session, self._go_to = session, go_to
        self.setObjectName("card")
        self.setAccessibleName("A walk through the panel")
        self._steps: tuple[WalkStep, ...] = ()
        self.at = -1
        self.words = plain_label("", wraps=True)
        self.back = QPushButton("Back")
        self.next = QPushButton("Next")
        self.next.setObjectName("main")
        self.stop = QPushButton("Stop the walk")
        self.back.clicked.connect(lambda: self._go(self.at - 1))
        self.next.clicked.connect(lambda: self._go(self.at + 1) if self._steps else self.begin())
        self.stop.clicked.connect(self.end)
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 5, 12, 5)
        row.addWidget(self.words, 1)
        for button in (self.back, self.next, self.stop):
            row.addWidget(button)
        self.hide()

    def offer(self) -> None:
        """Asks whether one wants to walk; nothing is shown where there is nothing to see."""
        self.end()
        if not self._session.job.loads:
            return
        # the steps are worked out when they are asked for: they need the wires
        self.words.setText("New here? A walk through this panel in seven steps, from a load to its proof.")
        self.next.setText("Begin the walk")
        self.stop.setText("No, thanks")
        self.back.hide()
        self.show()

    def begin(self) -> None:
        """Goes to the first step of the open job; says so where there is none."""
        self._steps = walk_steps(self._session.evaluation) if self._session.file else ()
        if not self._steps:
            self._session.say("There is no load yet to follow: open the demo job, or add one in the Brief.")
        self._go(0)

    def end(self) -> None:
        """Puts the walk away."""
        self._steps, self.at = (), -1
        self.hide()

    def _go(self, at: int) -> None:
        if not 0 <= at < len(self._steps):
            self.end()
            return
        self.at, step = at, self._steps[at]
        self.words.setText(f"{at + 1} of {len(self._steps)}, {step.station}. {step.title}: {step.text}")
        self.back.setVisible(True)
        self.back.setEnabled(at > 0)
        self.next.setText("Next" if at + 1 < len(self._steps) else "End")
        self.stop.setText("Stop the walk")
        self.show()
        self._go_to(step.station)
        self._session.select(step.link)
        self.next.setFocus()
