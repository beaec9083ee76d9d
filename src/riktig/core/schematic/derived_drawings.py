"""The drawings that this step offers the evaluation: apart, since most lists need none of them."""

from collections.abc import Sequence

from riktig.core.evaluation import reads
from riktig.core.geometry import Drawing
from riktig.core.job import JOB_CLIENT, JOB_DRAWING_NUMBER, JOB_NUMBER, JOB_PRACTICE, JOB_REVISION, JOB_TITLE
from riktig.core.schematic.derived import CIRCUITS, NAMES, NETS, SHEETS
from riktig.core.schematic.drawing.draw_sheets import SheetInputs, SheetPen

__all__ = ["SHEET_DRAWINGS", "SHEET_PEN"]

_SHEET_INPUTS = (
    reads(SHEETS)
    & CIRCUITS
    & NETS
    & NAMES
    & JOB_PRACTICE
    & JOB_NUMBER
    & JOB_TITLE
    & JOB_CLIENT
    & JOB_DRAWING_NUMBER
    & JOB_REVISION
).derive("sheet inputs", SheetInputs)
SHEET_PEN = reads(_SHEET_INPUTS).derive_with_memory("sheet pen", lambda memory, inputs: SheetPen(inputs, memory))
"""Draws one sheet at a time: what is on the screen does not wait for the others."""


def _all_drawings(pen: SheetPen) -> Sequence[Drawing]:
    return pen.all()


SHEET_DRAWINGS = reads(SHEET_PEN).derive("sheet drawings", _all_drawings)
