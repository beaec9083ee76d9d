"""Derived things in words, for the screen: details, route card, trace page, what an edit changed.

Words: a *details* is everything about one thing; a *status* is how far a station is.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
