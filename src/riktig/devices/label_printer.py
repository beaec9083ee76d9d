"""A label printer that is only imagined: it takes a strip of labels, and may jam, run out or cut wrong.

It is a bench for learning: what it prints is on the screen and never in the record of a job.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import Enum

__all__ = ["LabelPrinterStandIn", "PrinterFault", "StripPiece"]


class PrinterFault(Enum):
    """What goes wrong, as real ones do it."""

    NONE = "works"
    JAMS = "jams after a third of the labels"
    RUNS_OUT = "runs out of tape half way"
    CUTS_WRONG = "cuts 3 mm too early"


CUT_EARLY_MM = 3.0


@dataclass(frozen=True, slots=True)
class StripPiece:
    """A label as it came out: its number in the order of printing, its length, mm, and whether it is spoilt."""

    number: int
    length: float
    spoilt: bool


@dataclass(slots=True)
class LabelPrinterStandIn:
    """Prints strips of one width.

    ``tape_mm`` is what is left on its roll; ``fault`` is what goes wrong with the next print.
    """

    tape_mm: float = 8000.0
    fault: PrinterFault = PrinterFault.NONE
    log: list[str] = field(default_factory=list)

    def put_in_roll(self, length: float) -> None:
        """A new roll, mm; what jammed is cleared with it."""
        self.tape_mm, self.fault = length, PrinterFault.NONE
        self.log.append(f"new roll of {length:g} mm")

    def print_labels(self, lengths: Sequence[float]) -> tuple[StripPiece, ...]:
        """Prints labels of these lengths, mm, until all are out or something goes wrong.

        Returns:
            What came out. Fewer than asked for when it jammed or ran out; the last may be spoilt.
        """
        count = len(lengths)
        stop = {PrinterFault.JAMS: count // 3, PrinterFault.RUNS_OUT: count // 2}.get(self.fault, count)
        pieces: list[StripPiece] = []
        for number, length in enumerate(lengths, 1):
            if self.tape_mm < length:
                self.log.append(f"out of tape at label {number}")
                break
            early = CUT_EARLY_MM if self.fault is PrinterFault.CUTS_WRONG else 0.0
            jammed = number > stop
            self.tape_mm -= length - early
            pieces.append(StripPiece(number, length - early, jammed or early > 0))
            if jammed:
                self.log.append(f"{self.fault.value}: label {number} is spoilt")
                if self.fault is PrinterFault.RUNS_OUT:
                    self.tape_mm = 0.0
                break
        if early_cut := sum(piece.spoilt for piece in pieces):
            self.log.append(f"{early_cut} of {len(pieces)} labels are spoilt")
        return tuple(pieces)
