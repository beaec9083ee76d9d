"""Labels: what text goes on what, in how many copies, on which medium.

Words: a *marker* is on a wire or terminal; a *legend* on the door; the *nameplate* outside.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
