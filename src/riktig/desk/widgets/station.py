"""What every station is: a widget that shows the plan and is refreshed only when seen."""

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QAbstractScrollArea, QApplication, QLayout, QMenu, QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import KeepPrinted
from riktig.core.evaluation import Derived, Evaluation
from riktig.core.exports import STATION_PAPERS, file_stem, write_station_papers
from riktig.core.ids import LoadId
from riktig.core.job import Job
from riktig.core.keys import Key, LoadKey
from riktig.core.schematic import numbers_on_paper
from riktig.desk.canvas import DrawingView
from riktig.desk.printing.job import PrintJob
from riktig.desk.session import LARGE_PINS, Session
from riktig.desk.theme import LIGHT, Theme
from riktig.desk.widgets.covers import Cover, EmptyNote
from riktig.desk.widgets.small import flowing, plain_label, row_of
from riktig.desk.widgets.tab_order import first_field

__all__ = ["Station"]

NUMBERS_OUT = "Its wire numbers count as printed from then on and will not be reused."


class Station(QWidget):
    """Base of the stations: a bar of actions above, the picture or list below.

    ``refresh`` is called when the station is seen and the job, the records or the theme have
    changed since; ``show_selection`` whenever the selection changes while it is seen.
    """

    needs: ClassVar[tuple[Derived[Job, object], ...]] = ()
    """What it cannot show anything without; in a large job that is worked out aside."""
    aside_from: ClassVar[int] = LARGE_PINS
    """The pins of a job from which on the screen does not wait for that."""
    waits_for: ClassVar[str] = ""
    """What is said of a job without loads and circuits, in one line; empty where one begins."""
    usable_empty: ClassVar[bool] = False
    """Whether something can be done here before there is a load; else all of it is covered."""
    asked = Signal(object)
    """A place elsewhere that the builder wants to see: the window goes there."""
    led = Signal(str, object)
    """A station by its name, and what is to be looked at there."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.theme: Theme = LIGHT
        self.stale = True
        self.add_common: Callable[[QMenu, Key | None], None] = lambda menu, key: None
        """Adds to a menu what can be done with anything that is drawn; the window sets it."""
        waiting = plain_label("Wires, rules and tests are being worked out …", "second")
        waiting.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._cover = Cover(self, waiting)
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._body = QVBoxLayout(self)
        self._body.setContentsMargins(14, 10, 14, 8)
        self._body.setSpacing(8)
        self.note = EmptyNote(self.waits_for)
        self.note.lead.clicked.connect(lambda: self.asked.emit(LoadKey(LoadId(""))))
        self._empty = self.note if self.usable_empty else Cover(self, self.note)
        if self.usable_empty:
            self._body.addWidget(self.note)
        self._empty.hide()

    def add_bar(self, items: Sequence[QWidget | None]) -> None:
        """Adds the bar of actions, which breaks its line where the window is narrow; after None stands to the right."""
        left, right = list(items), list[QWidget | None]()
        if None in left:
            at = left.index(None)
            left, right = left[:at], left[at + 1 :]
        self._body.addLayout(row_of((flowing(left), *right)))

    def add_body(self, item: QWidget | QLayout, stretch: int = 1) -> None:
        """Adds what the station is about."""
        if isinstance(item, QLayout):
            self._body.addLayout(item, stretch)
        else:
            self._body.addWidget(item, stretch)

    def button(self, text: str, tip: str, *, checkable: bool = False, main: bool = False) -> QPushButton:
        """An action with its explanation."""
        button = QPushButton(text)
        button.setToolTip(tip)
        button.setAccessibleDescription(tip)
        button.setCheckable(checkable)
        if main:
            button.setObjectName("main")
        return button

    def show_waiting(self) -> None:
        """What it shows is still worked out: the old state is covered, so that nobody takes it for that of now."""
        self._cover.lay_over()
        if self.isAncestorOf(QApplication.focusWidget() or self):
            self.setFocus()

    def show_now(self) -> None:
        """Shows the plan of now, and takes the cover away."""
        self.stale = False
        waited = self.covered and self.hasFocus()
        self._cover.hide()
        self.refresh()
        empty = bool(self.waits_for) and not self.session.job.loads and not self.session.job.circuits
        if isinstance(self._empty, Cover) and empty:
            self._empty.lay_over()
        else:
            self._empty.setVisible(empty)
        if waited:
            self.take_focus()

    @property
    def empty(self) -> bool:
        """Whether it says what it waits for, having nothing to show."""
        return self._empty.isVisibleTo(self)

    def work_place(self) -> QWidget | None:
        """Where work begins: the largest picture, list or page, else the first field or button."""
        places = [*self.findChildren(DrawingView), *self.findChildren(QAbstractScrollArea)]
        wanted = Qt.FocusPolicy.TabFocus
        shown = [place for place in places if place.isVisible() and place.focusPolicy() & wanted]
        return max(shown, key=lambda place: place.width() * place.height(), default=first_field(self))

    def take_focus(self) -> None:
        """Takes the focus to where work begins, so that its keys work at once."""
        if self.covered:
            self.setFocus()
            return
        place = self.note.lead if self.empty and not self.usable_empty else self.work_place()
        (place or self).setFocus(Qt.FocusReason.OtherFocusReason)

    @property
    def covered(self) -> bool:
        """Whether it waits for what it shows."""
        return self._cover.isVisibleTo(self)

    def refresh(self) -> None:
        """Shows the plan of now."""

    def job_changed(self) -> None:
        """The job is another one now; what is under way for the one before ends here. ``refresh`` follows."""

    def show_derived(self) -> None:
        """Called when wires, rules and tests are all known again; what needs them all is shown now."""

    def show_selection(self, key: Key | None) -> None:
        """Marks what is selected."""

    def print_job(self) -> PrintJob:
        """What “Print …” prints of this station: its drawings and lists. Numbers on paper are never given again."""
        session, name = self.session, self.session.place
        job, made, who, records = session.job, session.clock()[:10], session.who, session.records
        numbered = STATION_PAPERS[name].numbered

        def write(evaluation: Evaluation[Job], path: Path) -> int:
            return write_station_papers(evaluation, records, name, path, made=made, who=who)

        def printed() -> str:
            if session.read_only or not numbered:
                return ""
            session.edit("papers printed", KeepPrinted(numbers_on_paper(job)))
            return "Its wire numbers count as printed."

        file, note = f"{file_stem(job)}_{name.lower().replace(' ', '_')}.pdf", NUMBERS_OUT if numbered else ""
        return PrintJob(name, file, write, printed, note=note)

    def open_thing(self, key: Key | None) -> None:
        """Someone wants to see a thing here: more than marked, where it is one page of several."""
        self.show_selection(key)

    def shut(self) -> None:
        """The window closes: whatever still runs is ended."""

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.theme = theme
