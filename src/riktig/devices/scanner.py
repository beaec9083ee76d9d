"""A stand-in for a code scanner and for a foot switch: both are keyboards, and type into whatever has the focus.

A real scanner set to type what it reads with Enter behind it, and a real foot switch set to Page Down, take their place
without a change.
"""

from collections.abc import Callable

__all__ = ["FOOT_SWITCH_KEY", "FootSwitch", "Scanner"]

FOOT_SWITCH_KEY = "PageDown"
"""What a foot switch types (chosen by us: most can be set to it, and no field uses it)."""


class Scanner:
    """Types codes, with Enter behind each.

    Args:
        type_text: Types a text where the focus is.
        type_key: Presses a key by its name there.
    """

    def __init__(self, type_text: Callable[[str], None], type_key: Callable[[str], None]) -> None:
        self._type_text, self._type_key = type_text, type_key
        self.read: list[str] = []

    def scan(self, code: str) -> None:
        """Reads a code once."""
        self.read.append(code)
        self._type_text(code)
        self._type_key("Return")


class FootSwitch:
    """Presses its key at each step.

    Args:
        type_key: Presses a key by its name where the focus is.
    """

    def __init__(self, type_key: Callable[[str], None]) -> None:
        self._type_key = type_key
        self.steps = 0

    def step(self) -> None:
        """One step on it."""
        self.steps += 1
        self._type_key(FOOT_SWITCH_KEY)
