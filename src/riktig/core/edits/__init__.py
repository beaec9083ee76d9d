"""Every change of the document as a typed value with one text form, and how changes are taken back.

Words: an *edit* turns a job into another; an *action* is an edit or an entry of the log; a *step* is what undo takes
back.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
