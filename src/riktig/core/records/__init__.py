"""The log of the shop floor: what was done or read, by whom and when, and whether it still counts.

Words: an *entry* is recorded once and never changed; a *slot* is what one entry supersedes another in; an
entry *counts* as long as what it was true of is still so; one that takes another back is a *correction*.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
