"""What the last answer changed downstream, one line under the letter."""

from PySide6.QtWidgets import QPushButton, QWidget

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.views import ListChange, Snapshot, snapshot, what_changed
from riktig.desk.session import Session
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["ChangesLine"]

MOST = 4


class ChangesLine(QWidget):
    """Compares the lists before and after each answer; a value named in it leads to its reasons."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.setObjectName("card")
        self.setAccessibleName("What the last answer changed")
        self._row = FlowLayout(self, gap=10, lead=1)
        self._row.setContentsMargins(10, 3, 10, 3)
        self._job: Job | None = None
        self._before: Snapshot | None = None
        self.shown: tuple[ListChange, ...] = ()
        self._items: list[QWidget] = []
        self._say([plain_label("The effect of your last change is shown here.", "quiet")])

    def follow(self, name: str) -> None:
        """Compares with what was before, and keeps what is now; called when everything has been worked out."""
        evaluation: Evaluation[Job] = self._session.evaluation
        if evaluation.document is self._job:
            return
        self._job = evaluation.document
        after = snapshot(evaluation)
        before, self._before = self._before, after
        if before is None or not name:
            return
        self.shown = what_changed(before, after)
        self._show(name)

    def forget(self) -> None:
        """Begins anew: another job."""
        self._job, self._before, self.shown = None, None, ()
        self._say([plain_label("The effect of your last change is shown here.", "quiet")])

    def _show(self, name: str) -> None:
        items: list[QWidget] = [plain_label(f"{name[:1].upper()}{name[1:]}:", "second")]
        if not self.shown:
            items.append(plain_label("no effect on the design.", "quiet"))
        for change in self.shown[:MOST]:
            if change.link:
                button = QPushButton(change.text)
                button.setFlat(True)
                button.clicked.connect(lambda _=False, key=change.link: self._session.select(key))
                items.append(button)
            else:
                items.append(plain_label(change.text))
        if len(self.shown) > MOST:
            rest = plain_label(f"and {len(self.shown) - MOST} more", "quiet")
            rest.setToolTip("\n".join(change.text for change in self.shown[MOST:]))
            items.append(rest)
        self._say(items)

    def _say(self, items: list[QWidget]) -> None:
        for old in self._items:
            self._row.removeWidget(old)
            old.hide()
            old.deleteLater()
        self._items = items
        for item in items:
            self._row.addWidget(item)
