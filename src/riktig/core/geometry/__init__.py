"""Rectangles, the one tolerance, and drawings as lists of marks in millimetres.

Axes: x to the right, y downwards, from the datum in the upper left corner, as one reads a plate.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
