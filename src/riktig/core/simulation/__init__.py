"""What is live, what works, what a meter reads, and whether circuits do what they must.

Words: *hands* is all that was done to a panel; a *pole* is one side of a supply, a *system* all poles of
one supply; a *point* is what joined pins share; a contact *leads on* while it is closed.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
