"""At the bench with scribe, drill and rule: marking out, measuring twice, templates. Shown by Plate and Door alike."""

from riktig.desk.metal.faces import face_drawing
from riktig.desk.metal.pages import MetalPages

__all__ = ["MetalPages", "face_drawing"]
