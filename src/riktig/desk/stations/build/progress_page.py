"""Progress as pictures: the panel as it stands, the work beside its plan, hours by stage, and what waits for what."""

from collections.abc import Callable, Collection, Sequence

from PySide6.QtWidgets import QSplitter, QVBoxLayout, QWidget

from riktig.core.door import DOOR
from riktig.core.ids import DeviceId
from riktig.core.keys import Key
from riktig.core.plate import LAYOUT
from riktig.core.production import (
    HOURS_A_DAY,
    Shown,
    StageState,
    days_done,
    draw_hours,
    draw_panel_now,
    draw_run,
    hours_of_stages,
    panel_now,
)
from riktig.core.schematic import NAMES
from riktig.core.wiring import WIRING
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label

__all__ = ["ProgressPage"]


class ProgressPage(QWidget):
    """How far the panel is, for who plans and for who waits.

    Args:
        session: The job at hand.
        tested: Gives the devices all of whose tests have passed.
        show: Called when a part is pressed.
    """

    def __init__(
        self, session: Session, tested: Callable[[], Collection[DeviceId]], show: Callable[[Key | None], None]
    ) -> None:
        super().__init__()
        self.session, self._tested = session, tested
        self.panel = DrawingView("The panel as it stands")
        self.panel.chosen.connect(show)
        self.run, self.hours = DrawingView("Done beside the plan"), DrawingView("Hours by stage")
        self.blocks = plain_label("", "second", wraps=True)
        for view in (self.panel, self.run, self.hours):
            view.setMinimumSize(1, 80)
        right = QWidget()
        column = QVBoxLayout(right)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.run, 2)
        column.addWidget(self.hours, 3)
        column.addWidget(self.blocks)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        split = QSplitter()
        split.addWidget(self.panel)
        split.addWidget(right)
        split.setSizes([520, 420])
        whole.addWidget(split)

    def show_stages(self, stages: Sequence[StageState]) -> None:
        """Shows how far everything is."""
        session, evaluation = self.session, self.session.evaluation
        now = panel_now(stages, session.progress, self._tested())
        self.panel.show_drawing(
            draw_panel_now(evaluation.get(LAYOUT), evaluation.get(DOOR), evaluation.get(NAMES), now, Shown.ALL)
        )
        hours = hours_of_stages(stages, evaluation.get(WIRING), session.records)
        total = sum(h.planned_done + h.planned_left for h in hours)
        people = {name for h in hours for name, _ in h.by_person}
        days = days_done(session.progress, stages, session.records)
        self.run.show_drawing(draw_run(days, total, len(people) or 1))
        self.hours.show_drawing(draw_hours(hours))
        waiting = [
            f"{s.stage.value} waits for {_names(s.shut)}" for s in stages if s.shut and not s.complete and not s.passed
        ]
        waits = ". ".join(waiting[:3]) + ("." if waiting else "Nothing waits for anything.")
        self.blocks.setText(f"{self._today(stages)} {waits}".strip())

    def _today(self, stages: Sequence[StageState]) -> str:
        """What who is at the bench has worked today by the log, and what a day still has."""
        session = self.session
        day = session.clock()[:10]
        my_records = [record for record in session.records if record.when[:10] == day and record.who == session.who]
        hours = hours_of_stages(stages, session.evaluation.get(WIRING), my_records)
        taken = sum(of_stage.taken for of_stage in hours)
        if not my_records:
            return ""
        left = max(HOURS_A_DAY * 60 - taken, 0.0)
        return f"{session.who} today: {taken:.0f} min at this panel, {left:.0f} min left of {HOURS_A_DAY:g} h."

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        for view in (self.panel, self.run, self.hours):
            view.set_theme(theme)


def _names(shut: Sequence[str]) -> str:
    return " and ".join(line.partition(":")[0].lower() for line in shut)
