"""Lists that come in: load lists and part lists, pasted, as CSV or as XLSX.

Words: a *grid* is the cells of a list with the place that each came from; a *column* is what a heading was recognised
as.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
