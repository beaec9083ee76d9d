"""The door: operators and what stands behind them, the isolator's shaft, seen from the front and from behind.

Words: a *leaf* is one door of one or two; a *stack* is what an operator is made up of; a *shaft* couples the
isolator on the plate to its handle on the door.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
