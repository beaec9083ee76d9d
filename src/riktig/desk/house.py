"""Where the house's own practice is kept."""

from pathlib import Path

__all__ = ["house_file"]


def house_file() -> Path:
    """The file of the house's own practice, in the user's settings."""
    return Path.home() / ".config" / "riktig" / "house.json"
