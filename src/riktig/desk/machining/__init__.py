"""At the bench with scribe, drill and rule: marking out, measuring twice, templates. Shown by Plate and Door alike."""

from riktig.desk.machining.faces import face_drawing
from riktig.desk.machining.pages import MetalPages

__all__ = ["MetalPages", "face_drawing"]
