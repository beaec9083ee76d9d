"""What the panel may be connected to: the picture with the limits along it, each part with why, ways to more."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QListWidget, QListWidgetItem, QSplitter, QVBoxLayout, QWidget

from riktig.core.keys import DeviceKey
from riktig.core.schematic import NAMES
from riktig.core.short_circuit import RATING_DRAWING, SHORT_CIRCUIT, Limit, ShortCircuit, limits_by_tag
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme, words_font
from riktig.desk.widgets import plain_label

__all__ = ["ShortCircuitPage"]

GENERIC = (
    "Figures of the generic parts are invented but lifelike; those of your own parts are entered with them (Plate, "
    "Parts). "
    "Compare with the makers' data. Local codes and licensed practice decide; nothing here certifies."
)


class ShortCircuitPage(QWidget):
    """The picture above, below it every limit, the weakest first, and the ways to a higher rating.

    Args:
        session: The job at hand.
    """

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.head = plain_label("", wraps=True)
        self.head.setFont(words_font(15, bold=True))
        self.notes = plain_label("", "second", wraps=True)
        self.view = DrawingView("Power circuits with the short-circuit limit of every part")
        self.view.chosen.connect(session.select)
        self.list = QListWidget()
        self.list.setAccessibleName("Limits, the weakest first")
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentRowChanged.connect(self._picked)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.head)
        layout.addWidget(self.notes)
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(self.view)
        split.addWidget(self.list)
        split.setSizes([340, 200])
        layout.addWidget(split, 1)
        layout.addWidget(plain_label(GENERIC, "quiet", wraps=True))
        self._limits: list[Limit] = []

    def refresh(self) -> None:
        """Shows the rating of now."""
        evaluation = self._session.evaluation
        short_circuit, tags = evaluation.get(SHORT_CIRCUIT), evaluation.get(NAMES).tag
        self.head.setText(_head(short_circuit))
        self.notes.setText(" ".join(short_circuit.rating.notes))
        self.view.show_drawing(evaluation.get(RATING_DRAWING))
        limits = limits_by_tag(short_circuit.rating.limits, tags)
        self._limits = sorted(limits, key=lambda limit: -1.0 if limit.ka is None else limit.ka)
        self.list.blockSignals(True)
        self.list.clear()
        for way in short_circuit.ways:
            reaches = f"then {way.reaches:.3g} kA" if way.reaches is not None else "then as they say"
            room = f", {way.rail_mm:+.0f} mm" if way.rail_mm else ""
            left = ", ".join(dict.fromkeys(tags[device] for device in way.left))
            held_back = f"; held back by {left}" if left else ""
            self.list.addItem(
                f"↑ For {way.target_ka:g} kA: {way.words}: {reaches}{held_back}. {way.changed} parts{room}."
            )
        for limit in self._limits:
            self.list.addItem(QListWidgetItem(_words(limit, short_circuit)))
        self.list.blockSignals(False)

    def _picked(self, row: int) -> None:
        at = row - len(self._session.evaluation.get(SHORT_CIRCUIT).ways)  # the ways to more stand first
        if 0 <= at < len(self._limits):
            self._session.select(DeviceKey(self._limits[at].device))

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)


def _head(short_circuit: ShortCircuit) -> str:
    rating = short_circuit.rating
    gives = f"The supply can give {short_circuit.prospective_ka:.3g} kA."
    if rating.ka is None:
        return f"{gives} What the panel bears is not known."
    bears = f"{rating.name[:1].upper()}{rating.name[1:]}: {rating.ka:.3g} kA at {rating.volts:g} V."
    missing = f" {len(rating.unknown)} figures are missing: it may be less." if rating.unknown else ""
    verdict = " ✗ Too little." if rating.ka < short_circuit.prospective_ka else "" if missing else " ✓ Enough."
    return f"{bears} {gives}{missing}{verdict}"


def _words(limit: Limit, short_circuit: ShortCircuit) -> str:
    if limit.ka is None:
        return f"?  {limit.why}"
    sign = "✗" if limit.ka < short_circuit.prospective_ka else "▸" if limit.ka == short_circuit.rating.ka else "✓"
    raised = f" (raised from {limit.raised_from:.3g} kA)" if limit.raised_from is not None else ""
    return f"{sign}  {limit.ka:.3g} kA{raised}: {limit.why}"
