"""Painting display lists on the screen."""

from riktig.desk.canvas.opening import FITS, LEAST_PX, PAGES, SHEET, WORKSHOP, Opening
from riktig.desk.canvas.painter import paint, paint_batched
from riktig.desk.canvas.thumb import thumb
from riktig.desk.canvas.view import DrawingView, Gesture

__all__ = [
    "FITS",
    "LEAST_PX",
    "PAGES",
    "SHEET",
    "WORKSHOP",
    "DrawingView",
    "Gesture",
    "Opening",
    "paint",
    "paint_batched",
    "thumb",
]
