"""The rulebook: one small function a clause, with evidence and remedy.

Words: a *clause* meets, fails, or needs judgement (a person decides and signs); a *finding* is
one thing to see to; a *mend* is a remedy Riktig can carry out. Riktig never claims certification:
local codes and licensed practice decide.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
