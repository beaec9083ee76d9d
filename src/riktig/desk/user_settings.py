"""Where the company standard is kept."""

from riktig.places import settings_file

__all__ = ["settings_file"]
