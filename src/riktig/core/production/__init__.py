"""The shop floor: what is done to every wire, by whom and when, and what no longer counts.

Words: an *operation* is one thing done to a wire; a *tick* records it; a tick is *out of date*
when what it was true of has changed; a *critical* dimension is measured twice, its *gate* opens when the readings
agree.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
