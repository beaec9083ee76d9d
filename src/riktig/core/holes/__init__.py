"""Every hole of the panel: where, how large, with which tool, in which order, on what paper.

Words: a *sheet* is a surface that holes are made in, a *tool* what is taken in hand for one, a *round* a walk with
one tool; the *datum* is the upper left corner of each sheet.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
