"""Where the house's own practice is kept."""

from riktig.places import settings_file

__all__ = ["settings_file"]
