"""Labels as they are shown before they are printed: papers below each other, and what is left out, in words."""

from collections.abc import Sequence

from riktig.core.geometry import Drawing, Rect, Shape, moved
from riktig.core.labels import Label, misfit_texts
from riktig.core.plate import box

__all__ = ["WIDEST_WORDS", "below_each_other", "left_out"]

WIDEST_WORDS = 3
"""Faults said at once; the drawer has the rest."""


def below_each_other(pages: Sequence[Drawing], title: str) -> Drawing:
    """Papers one below the other, each with its edge, as they come out of the printer."""
    shapes: list[Shape] = []
    top = 0.0
    for page in pages:
        shapes.append(box(Rect(0, top, page.width, page.height), "hair", 0.3))
        shapes += [moved(mark, 0.0, top) for mark in page.shapes]
        top += page.height + BETWEEN
    return Drawing(max((page.width for page in pages), default=100.0), max(top, 20.0), tuple(shapes), title)


BETWEEN = 8.0
"""Between two papers on the screen, mm (chosen by us)."""


def left_out(labels: Sequence[Label]) -> str:
    """What was not printed because its text does not fit, by name; "" when all of it was."""
    texts = list(dict.fromkeys(text for label in labels for text in misfit_texts(label)))
    if not texts:
        return ""
    more = f" and {len(texts) - WIDEST_WORDS} more" if len(texts) > WIDEST_WORDS else ""
    names = ", ".join(f"“{text}”" for text in texts[:WIDEST_WORDS])
    return f" Not printed, because they do not fit: {names}{more}. Shorten them and print again."
