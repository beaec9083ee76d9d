"""What the sheets say beside their circuits: ratings, conductors, cables and voltages; and the sheets drawn with them.

The circuits are drawn by ``schematic``, which knows no part and no wire; here later steps add what they worked out.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
