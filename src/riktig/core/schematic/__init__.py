"""Recipes to devices and rungs, rungs to nets, nets to numbers, all of it drawn on sheets.

Words: a *rung* is a path between named nodes; an *element* is what it crosses; a *net* is all
pins at one potential, and crossing any device element starts a new one; a *tag* names a device.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
