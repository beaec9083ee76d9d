"""The border: everything that comes in from outside passes here before anything else looks at it.

A file must be a regular file of a bearable size; a text must be one that every paper and file can hold; JSON
must say each thing once. What does not pass is refused with its place; nothing is taken in by half.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
