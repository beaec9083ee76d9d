"""What leaves the program: PDF, DXF, SVG, XLSX, CSV and JSON.

Words: a *schedule* is a derived list as a table with stable keys; the *set* is the PDF of all drawings and schedules; a
*paper* is one file of the hand-over.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
