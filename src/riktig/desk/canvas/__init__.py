"""Painting display lists on the screen."""

from riktig.desk.canvas.painter import paint, paint_batched
from riktig.desk.canvas.thumb import thumb
from riktig.desk.canvas.view import DrawingView, Gesture

__all__ = ["DrawingView", "Gesture", "paint", "paint_batched", "thumb"]
