"""Which drawings of the sheets are on the screen: of a large job the wires are worked out aside."""

from riktig.core.annotation import BARE_SHEET_PEN, SHEET_PEN
from riktig.core.schematic import SheetPen
from riktig.desk.session import Session

__all__ = ["sheet_pen"]


def sheet_pen(session: Session) -> SheetPen:
    """Draws the sheets with ratings and conductors; without them while the wires of a large job are not known."""
    return session.evaluation.get(SHEET_PEN if session.shows_wires else BARE_SHEET_PEN)
