"""The drawer at the foot: counts, the last thing said, and the findings with their mends."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from riktig.core.rules import ClauseResult, Finding, QuickFix, Verdict, findings_of
from riktig.desk.widgets import ElidedLabel, plain_label, replace_body

__all__ = ["FindingsDrawer", "finding_row"]

LONG = 70
"""A message of so many letters may be longer than the line, and can be opened."""
LOW, TALL = 60, 230
"""Least and usual height of the open list, pixels."""
SIGNS = {Verdict.FAILS: "✗", Verdict.JUDGE: "?", Verdict.MEETS: "✓", Verdict.NOT_APPLICABLE: "–"}
ROLES = {
    Verdict.FAILS: "fails", Verdict.JUDGE: "judgement", Verdict.MEETS: "meets", Verdict.NOT_APPLICABLE: "quiet",
}  # fmt: skip


def finding_row(finding: Finding, go: object, quick_fix: object, *, signed: str = "") -> QWidget:
    """A finding: what, which clause, what would mend it, and the mend where there is one.

    Args:
        finding: The finding.
        go: Called with the key of where it is.
        quick_fix: The remedy.
        signed: Who signed for it, when it needs judgement and has it.
    """
    row = QWidget()
    layout = QHBoxLayout(row)
    layout.setContentsMargins(6, 3, 6, 3)
    layout.addWidget(plain_label(SIGNS[finding.verdict], ROLES[finding.verdict]), 0, Qt.AlignmentFlag.AlignTop)
    words = QVBoxLayout()
    words.setSpacing(1)
    words.addWidget(plain_label(finding.message, wraps=True))
    remedy = f"{finding.remedy}  {finding.clause}."
    words.addWidget(plain_label(f"{remedy} {signed}".strip(), "quiet", wraps=True))
    layout.addLayout(words, 1)
    show = QPushButton("Show")
    show.setAccessibleName(f"Show where: {finding.message}")
    show.clicked.connect(lambda: go(finding.where))  # type: ignore[operator]
    layout.addWidget(show)
    if finding.quick_fix:
        button = QPushButton(finding.quick_fix.text)
        button.setObjectName("main")
        button.clicked.connect(lambda: quick_fix(finding.quick_fix))  # type: ignore[operator]
        layout.addWidget(button)
    return row


class FindingsDrawer(QWidget):
    """One line of counts; opens to the list."""

    go = Signal(object)
    quick_fix = Signal(object)
    try_again = Signal()
    read_asked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("drawer")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.opener = QPushButton("Findings")
        self.opener.setCheckable(True)
        self.opener.setToolTip("Opens the list of findings (F8)")
        self.opener.toggled.connect(self._open)
        self.counts = [plain_label("", role) for role in ROLES.values()]
        self.message: str = ""
        """The last thing said, whole."""
        self.said = ElidedLabel("second")
        self.said.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.whole = QPushButton("Read all")
        self.whole.setToolTip("The whole message")
        self.whole.clicked.connect(lambda: self.read_asked.emit(self.message))
        self.whole.hide()
        self.kept = plain_label("All changes saved", "quiet")
        self.again = QPushButton("Retry save")
        self.again.hide()
        self.again.clicked.connect(self.try_again)
        line = QHBoxLayout()
        line.addWidget(self.opener)
        for label in self.counts:
            line.addWidget(label)
        line.addSpacing(10)
        line.addWidget(self.said, 1)
        line.addWidget(self.whole)
        line.addWidget(self.again)
        line.addWidget(self.kept)
        self._list = QScrollArea()
        self._list.setWidgetResizable(True)
        self._list.setFrameShape(QFrame.Shape.NoFrame)
        self._list.setAccessibleName("Findings")
        self._list.setMinimumHeight(LOW)  # never a fixed height: it would make a low window grow
        self._list.setMaximumHeight(TALL)
        self._list.hide()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(12, 4, 12, 4)
        layout.setSpacing(4)
        layout.addWidget(self._list)
        layout.addLayout(line)
        self._results: tuple[ClauseResult, ...] = ()

    def _open(self, opened: bool) -> None:
        self._list.setVisible(opened)
        if opened:
            self._fill()

    def show_waiting(self) -> None:
        """No verdict is shown, and no remedy can be pressed, while the panel is judged anew."""
        for label, verdict in zip(self.counts, ROLES, strict=True):
            label.setText(f"{SIGNS[verdict]} …")
        self._list.setEnabled(False)

    def show_results(self, results: tuple[ClauseResult, ...]) -> None:
        """Counts, and the list if it is open."""
        self._results = results
        self._list.setEnabled(True)
        words = {
            Verdict.FAILS: "fail",
            Verdict.JUDGE: "need judgement",
            Verdict.MEETS: "meet",
            Verdict.NOT_APPLICABLE: "do not apply",
        }
        for label, verdict in zip(self.counts, ROLES, strict=True):
            count = sum(result.verdict is verdict for result in results)
            label.setText(f"{SIGNS[verdict]} {count} {words[verdict]}")
        if self._list.isVisible():
            self._fill()

    def _fill(self) -> None:
        body = QWidget()
        layout = QVBoxLayout(body)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        findings = findings_of(self._results)
        for finding in findings:
            layout.addWidget(finding_row(finding, self.go.emit, self._mended))
        if not findings:
            layout.addWidget(plain_label("No findings.", "second"))
        layout.addStretch(1)
        replace_body(self._list, body)

    def _mended(self, quick_fix: QuickFix) -> None:
        self.quick_fix.emit(quick_fix)

    def say(self, text: str, wrong: bool) -> None:
        """The last thing said; what went wrong stays until something else is said."""
        self.message = text
        self.said.show_text(" ".join(text.splitlines()))
        self.whole.setVisible(len(text) > LONG or "\n" in text)
        self.said.setObjectName("fails" if wrong else "second")
        self.said.style().unpolish(self.said)
        self.said.style().polish(self.said)

    def show_kept(self, unwritten: bool, last: str) -> None:
        """Whether everything is in the file."""
        self.kept.setText("NOT SAVED" if unwritten else f"All changes saved{last}")
        self.again.setVisible(unwritten)
