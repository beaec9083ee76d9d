"""The plate: where everything stands, whether it fits, what is cut.

Words: a *block* is what moves as one; a *seat* is a device's outline on the plate; a *misfit*
says by how many mm a thing does not fit; the *datum* is the upper left corner of plate or door.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
