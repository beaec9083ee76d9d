"""What short-circuit current the panel may be connected to: the weakest part of the power circuits, by both rulebooks.

Words: a *guard* is a breaker or fuse that breaks a short circuit; a *feeder* guard has further guards behind it, a
*branch* guard none; a *limit* is what one part lets the panel be connected to, and why.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
