"""Generic parts: kinds, pins, contacts, outlines, clamps, losses and ratings.

Words: a *kind* says which *pins* a part has and which *units* (contacts, coils, poles) join
them; a *part* of that kind adds sizes and ratings; a *clamp* is where a wire lands.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
