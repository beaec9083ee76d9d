"""Where the house's own practice is kept."""

from riktig.places import house_file

__all__ = ["house_file"]
