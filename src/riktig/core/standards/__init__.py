"""Published tables and clauses as data: a figure, its source and how sure we are of it.

Every figure here is quoted from memory and must be compared with the printed standard before a
panel depends on it. A change of figure is a change of one row of one file in ``data/``.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
