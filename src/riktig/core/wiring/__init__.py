"""Nets to wires: which clamp to which, by which way, how long, with what on the ends.

Words: a *stage* is what a wire belongs to; a *batch* is cut and marked together; a *fitting* is
what goes on an end; the *door loop* is the slack that lets the door open.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
