"""Plan for me: the plate as a problem, the search for a better plan, and what may honestly be said of it.

Words: a *unit* is a block as numbers; a *tie* is a wire whose length the plan decides; a *wish* is anything
beside wire that makes a plan better, counted in mm of wire.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
