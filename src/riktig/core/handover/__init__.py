"""The panel leaves the house: what is missing, issues and their comparison, dispatch, evidence, finding it again.

Words: an *issue* is the job as it was given out under a letter; a *pack* is one archive with all evidence of a panel;
*as built* says that the drawing is what hangs on the wall.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
