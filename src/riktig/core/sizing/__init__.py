"""Which part and which section everything is, from the published tables, with the reasons.

Words: the *proposal* is everything sized from the Brief, before a circuit is drawn; a *value* is one
sized figure with its why; the *setting* is what the overload's dial is set to; the *feeder* runs from
the supply terminals to the breakers; an *alternative* is another answer with what it costs; a *doubt*
is an answer that cannot stand; a *shortfall* is a device the catalogue has nothing large enough for.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
