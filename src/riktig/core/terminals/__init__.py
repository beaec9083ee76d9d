"""Terminal strips: what lands inside and outside of each terminal, and the field cables.

Words: a *strip* is a run of terminals with one tag; a terminal's *mark* is printed on it; a
*core* is one conductor of a field cable.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
