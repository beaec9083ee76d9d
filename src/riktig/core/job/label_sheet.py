"""A sheet of labels as it is bought: where its labels lie on the paper, and how many of a begun one are used."""

from dataclasses import dataclass, replace
from enum import Enum
from math import isfinite

from riktig.core.errors import ImpossibleValueError

__all__ = ["LabelForm", "LabelSheet"]

LARGEST_MM = 1000.0
LONGEST_ROLL_MM = 50_000.0
LEAST_CAPITAL_MM = 0.8
"""No medium is printed with smaller letters (chosen by us: about 3 point, read under a lens)."""
MOST = 10_000
"""Labels on a sheet, and sheets on a shelf (chosen by us: a slip of a digit is found)."""
SLACK = 0.05
"""By how much labels may run beyond the paper or into each other by rounding, mm."""


class LabelForm(Enum):
    """As what labels of one medium are bought."""

    SHEET = "sheet for an office printer"
    TAPE = "continuous tape"
    SLEEVES = "sleeves on a strip"
    CLIPS = "clip-on markers on a strip"
    TAGS = "terminal tags on a strip"
    PLATES = "plates for engraving"

    @property
    def noun(self) -> str:
        """One of them in a sentence: “sheet”, “roll”, “strip”, “plate”."""
        return {LabelForm.SHEET: "sheet", LabelForm.TAPE: "roll", LabelForm.PLATES: "plate"}.get(self, "strip")


@dataclass(frozen=True, slots=True)
class LabelSheet:
    """A sheet, strip or roll for one medium. Sizes mm; ``left`` and ``top`` from its corner to the first label.

    ``medium`` is what is printed on it, in the words of the labels; ``across`` and ``down`` are from label to label.
    ``used`` are the labels gone of the begun sheet, in the order they are printed: row by row. ``sheets`` are the
    sheets on the shelf with the begun one, None where nobody counts them. ``form`` is what it is: of a roll ``columns``
    labels come off, ``paper_width`` is its length and ``paper_height`` the width of the tape. ``characters`` are the
    most letters in a line, 0 without a limit, ``least`` the smallest capital that it takes, mm.

    Raises:
        ValueError: a size that cannot be, labels beyond the paper or one over the other, more used than there are.
    """

    medium: str
    name: str
    width: float
    height: float
    columns: int
    rows: int
    left: float
    top: float
    across: float
    down: float
    paper_width: float = 210.0
    paper_height: float = 297.0
    used: int = 0
    sheets: int | None = None
    form: LabelForm = LabelForm.SHEET
    characters: int = 0
    least: float = 1.6

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise ImpossibleValueError("a sheet of labels needs a name")
        for what, value, least in (
            ("label", self.width, 2.0),
            ("label", self.height, 2.0),
            (self.form.noun, self.paper_width, 4.0),
            (self.form.noun, self.paper_height, 4.0),
            ("margin", self.left, 0.0),
            ("margin", self.top, 0.0),
            ("capital", self.least, LEAST_CAPITAL_MM),
        ):
            longest = LONGEST_ROLL_MM if self.form is LabelForm.TAPE and value == self.paper_width else LARGEST_MM
            if not (isfinite(value) and least <= value <= longest):
                raise ImpossibleValueError(f"a {what} of {value:g} mm cannot be")
        if not 0 <= self.characters <= MOST:
            raise ImpossibleValueError(f"a line of {self.characters} letters cannot be")
        if not (1 <= self.columns <= MOST and 1 <= self.rows <= MOST and self.places <= MOST):
            raise ImpossibleValueError(f"{self.columns} × {self.rows} labels cannot lie on a sheet")
        if self.columns > 1 and self.across < self.width - SLACK:
            raise ImpossibleValueError(f"labels {self.width:g} mm wide cannot lie {self.across:g} mm apart")
        if self.rows > 1 and self.down < self.height - SLACK:
            raise ImpossibleValueError(f"labels {self.height:g} mm high cannot lie {self.down:g} mm apart")
        right = self.left + (self.columns - 1) * self.across + self.width
        bottom = self.top + (self.rows - 1) * self.down + self.height
        if right > self.paper_width + SLACK or bottom > self.paper_height + SLACK:
            raise ImpossibleValueError(f"the labels reach {right:g} × {bottom:g} mm, beyond the {self.form.noun}")
        if not 0 <= self.used < self.places:
            raise ImpossibleValueError(f"{self.used} of {self.places} labels cannot be gone of a begun sheet")
        if self.sheets is not None and not 0 <= self.sheets <= MOST:
            raise ImpossibleValueError(f"{self.sheets} sheets cannot lie on a shelf")

    @property
    def tape_mm(self) -> float | str:
        """The width of the tape, mm; "" for what is no tape."""
        return self.paper_height if self.form is LabelForm.TAPE else ""

    @property
    def places(self) -> int:
        """Labels on a whole sheet."""
        return self.columns * self.rows

    @property
    def labels_left(self) -> int | None:
        """Labels on the shelf, those of the begun sheet too; None where nobody counts."""
        return None if self.sheets is None else max(self.sheets * self.places - self.used, 0)

    def sheets_for(self, count: int) -> int:
        """How many sheets go through the printer for so many labels, the begun one first."""
        return -(-(self.used + count) // self.places) if count else 0

    def place(self, number: int) -> tuple[float, float]:
        """The upper left corner of a label, mm from the paper's, counted row by row from 0."""
        row, column = divmod(number, self.columns)
        return self.left + column * self.across, self.top + row * self.down

    def after(self, count: int) -> "LabelSheet":
        """The sheet once so many labels were printed: the next begin where these ended."""
        whole, used = divmod(self.used + count, self.places)
        left = None if self.sheets is None else max(self.sheets - whole, 0)
        return replace(self, used=used, sheets=left)
