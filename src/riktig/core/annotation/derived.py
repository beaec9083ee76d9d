"""What this step offers the evaluation: the sheets drawn, with all that is said beside the circuits."""

from collections.abc import Sequence

from riktig.core.annotation.conductors import field_cables, pin_conductors
from riktig.core.annotation.ratings import device_ratings
from riktig.core.annotation.voltages import net_voltages, supply_lines
from riktig.core.evaluation import reads
from riktig.core.geometry import Drawing
from riktig.core.job import (
    JOB_CIRCUIT_INPUTS,
    JOB_CLIENT,
    JOB_DRAWING_NUMBER,
    JOB_NUMBER,
    JOB_PRACTICE,
    JOB_REVISION,
    JOB_SUPPLY,
    JOB_TITLE,
    DeviceId,
    PinRef,
    Supply,
)
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, PinConductor, SheetInputs, SheetNotes, SheetPen
from riktig.core.simulation import NETWORK, RATINGS
from riktig.core.sizing import DIAL_SETTINGS, ELECTRICAL, SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = ["BARE_SHEET_PEN", "SHEET_DRAWINGS", "SHEET_PEN"]

_DEVICE_RATINGS = (reads(CIRCUITS) & SIZING & DIAL_SETTINGS & ELECTRICAL & RATINGS & JOB_CIRCUIT_INPUTS).derive(
    "ratings on sheets", device_ratings
)
_VOLTAGES = (reads(NETS) & NETWORK & JOB_SUPPLY).derive("voltages of nets", net_voltages)
_CONDUCTORS = reads(WIRING).derive("conductors at pins", pin_conductors)
_CABLES = reads(STRIPS).derive("cables on sheets", field_cables)


def _notes(
    ratings: dict[DeviceId, tuple[str, ...]],
    conductors: dict[PinRef, PinConductor],
    cables: dict[DeviceId, tuple[str, str]],
    voltages: dict[PinRef, str],
    supply: Supply,
) -> SheetNotes:
    return SheetNotes(ratings, conductors, cables, voltages, supply_lines(supply))


_NOTES = (reads(_DEVICE_RATINGS) & _CONDUCTORS & _CABLES & _VOLTAGES & JOB_SUPPLY).derive("notes of sheets", _notes)
_SHEETS = (
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
)
_SHEET_INPUTS = (_SHEETS & _NOTES).derive("sheet inputs", SheetInputs)
SHEET_PEN = reads(_SHEET_INPUTS).derive_with_memory("sheet pen", lambda memory, inputs: SheetPen(inputs, memory))
"""Draws one sheet at a time: what is on the screen does not wait for the others."""
_BARE_INPUTS = _SHEETS.derive("bare sheet inputs", SheetInputs)
BARE_SHEET_PEN = reads(_BARE_INPUTS).derive_with_memory(
    "bare sheet pen", lambda memory, inputs: SheetPen(inputs, memory, "drawing of a bare sheet")
)
"""The circuits alone: ratings and conductors of a large job are worked out aside."""


def _all_drawings(pen: SheetPen) -> Sequence[Drawing]:
    return pen.all()


SHEET_DRAWINGS = reads(SHEET_PEN).derive("sheet drawings", _all_drawings)
