"""The card of one reading: two points in very large type, where they are, how the switches stand, what must be read."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing
from riktig.core.proving import CountedReading, Instrument, Outcome, Test, judge, ohm_text, without_leads
from riktig.desk.canvas import DrawingView
from riktig.desk.stations.prove.typed import TypedReading
from riktig.desk.theme import Theme, grown, words_font
from riktig.desk.widgets import FittedLabel, plain_label, row_of

__all__ = ["NO_METER", "ProofCard", "Verdict", "verdict_of"]

SWITCHES_PX = 112
"""Height of the picture of the switches, px (chosen by us: two rows of eleven, readable)."""


@dataclass(frozen=True, slots=True)
class Verdict:
    """What stands beside the reading: the reading itself, the verdict, and the role that colours both."""

    reading: str
    words: str
    role: str


NO_METER = "No reading without its meter: press M and say what it is, its serial number, calibration and leads."


def verdict_of(test: Test, ohm: float | None, meter: Instrument | None, last: CountedReading | None) -> Verdict:
    """What is said of a reading that lies before the meter, or of the last one on record.

    Args:
        test: The test.
        ohm: What the meter shows, ohm; None where nothing was read yet.
        meter: The meter at hand.
        last: The reading on record that counts.
    """
    if ohm is not None and meter is not None:
        good = judge(test, ohm, meter.zero) is Outcome.PASSED
        words = (
            "✓ As expected. Enter accepts."
            if good
            else "✗ Not as expected. F records the failure, W says what may be wrong; or read again."
        )
        return Verdict(ohm_text(without_leads(ohm, meter.zero)), words, "meets" if good else "fails")
    if last is not None:
        role = {"passed": "meets", "failed": "fails"}.get(last.outcome.value, "judgement")
        who_when = f"{last.outcome.value.capitalize()}, {last.who}, {last.when[:16].replace('T', ' ')}"
        return Verdict(last.text, who_when, role)
    if meter is None:
        return Verdict("–", NO_METER, "judgement")
    return Verdict("–", "Touch both points, then type what your meter shows.", "second")


class ProofCard(QWidget):
    """One test. Its typed field takes what a meter shows.

    Args:
        typed: Called when a reading was typed.
    """

    def __init__(self, typed: Callable[[], None]) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.title = plain_label("", "title", wraps=True)
        self.count = plain_label("", "second", wraps=True)
        self.points: list[tuple[QLabel, QLabel]] = []
        points = row_of((), gap=16)
        for name in ("black probe", "red probe"):
            column = QVBoxLayout()
            column.setSpacing(0)
            column.addWidget(plain_label(f"■ {name}", "fails" if name[0] == "r" else "second"))
            label = FittedLabel(54.0, 24.0, mono=True, bold=True)
            place = plain_label("", "second", wraps=True)
            column.addWidget(label)
            column.addWidget(place)
            column.addStretch(1)
            points.addLayout(column, 1)
            self.points.append((label, place))
        self.first = plain_label("", "judgement", wraps=True)
        self.first.setFont(words_font(12))
        self.switches = plain_label("", "second", wraps=True)
        self.switch_view = DrawingView("How the switches stand; filled ones are to be changed")
        self.switch_view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.switch_view.setFixedHeight(grown(SWITCHES_PX))
        self.expected = FittedLabel(32.0, 14.0)
        self.why = plain_label("", "second", wraps=True)
        self.reading = FittedLabel(40.0, 24.0, bold=True)
        self.verdict = plain_label("", wraps=True)
        self.verdict.setFont(words_font(15, bold=True))
        self.typed = TypedReading()
        self.typed.setPlaceholderText("0.3, 1.2 k or open")
        self.typed.setToolTip("What your meter shows, in ohm, leads and all: 0.3, 1.2 k, 5 M or open")
        self.typed.setAccessibleName("Typed reading in ohm")
        self.typed.setMaximumWidth(grown(260))
        self.typed.setMinimumWidth(self.typed.fontMetrics().horizontalAdvance(self.typed.placeholderText()) + 20)
        self.typed.returnPressed.connect(typed)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(20, 10, 20, 10)
        layout.setSpacing(6)
        layout.addWidget(self.title)
        layout.addWidget(self.count)
        layout.addLayout(points)
        layout.addWidget(self.first)
        layout.addWidget(self.switch_view)
        layout.addWidget(self.switches)
        readings = row_of((), gap=16)
        left, right = QVBoxLayout(), QVBoxLayout()
        for item in (plain_label("Should read", "second"), self.expected):
            left.addWidget(item)
        right.addWidget(plain_label("Reads", "second"))
        right.addWidget(self.reading)
        right.addWidget(self.typed)
        left.addStretch(1)
        right.addStretch(1)
        readings.addLayout(left, 1)
        readings.addLayout(right, 1)
        layout.addLayout(readings)
        layout.addWidget(self.why)
        layout.addWidget(self.verdict)
        layout.addStretch(1)

    def show_test(self, test: Test, count: str, switches: Drawing) -> None:
        """Shows a test; its reading is shown apart."""
        self.title.setText(test.title)
        self.count.setText(count)
        for (label, place), point in zip(self.points, (test.black, test.red), strict=True):
            label.setText(point.label)
            place.setText(point.place)
        words = " ".join(part for part in (test.first, test.caution) if part)
        self.first.setText(words)
        self.first.setVisible(bool(words))
        self.switches.setText(test.switches)
        self.switch_view.show_drawing(switches)
        self.expected.setText(test.expected.text)
        self.why.setText(test.expected.why)

    def show_nothing(self, words: str) -> None:
        """Shows that there is no test."""
        self.title.setText(words)
        self.count.setText("")

    def show_verdict(self, verdict: Verdict) -> None:
        """Shows the reading and what it means."""
        self.reading.setText(verdict.reading)
        self.verdict.setText(verdict.words)
        for label in (self.verdict, self.reading):
            label.setObjectName(verdict.role)
            label.style().unpolish(label)
            label.style().polish(label)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.switch_view.set_theme(theme)
