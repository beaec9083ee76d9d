"""The house's own tables of names: which potential has which number, which class which letters, the scheme."""

from dataclasses import dataclass
from string import Formatter

__all__ = ["POTENTIALS", "SCHEME_FIELDS", "ClassLetters", "ReservedNumber", "scheme_fault"]

POTENTIALS = {
    "control.live": "control supply",
    "control.back": "control return",
    "safe.live": "control supply behind the emergency stop",
    "dc.plus": "24 V for relays",
    "dc.devices": "24 V for devices",
    "dc.zero": "0 V",
    "limited.plus": "limited-energy supply",
    "limited.zero": "limited-energy return",
    "lamps.test": "lamp test",
}
"""The potentials that many circuits share, by the name of their node, in the order they are met."""
SCHEME_FIELDS = ("count", "sheet", "column", "rung", "group")
"""What a house's scheme may hold in braces."""


@dataclass(frozen=True, slots=True)
class ReservedNumber:
    """A number kept for one of the common potentials, by the name of its node."""

    potential: str
    number: str


@dataclass(frozen=True, slots=True)
class ClassLetters:
    """The letters that the house gives to a class of devices, such as “contactor”."""

    of: str
    letters: str


def scheme_fault(scheme: str) -> str:
    """What is wrong with a scheme such as “{sheet}{count:02}”; empty when it can be used.

    A field may say how many digits it has at least: a colon, a zero and the digits.
    """
    try:
        parts = list(Formatter().parse(scheme))
    except ValueError as error:
        return f"“{scheme}” cannot be read ({error})"
    for _, name, form, conversion in parts:
        if name is None:
            continue
        if name not in SCHEME_FIELDS:
            return f"“{scheme}” asks for “{name}”; there are {', '.join(SCHEME_FIELDS)}"
        if conversion or (form and not (form.isdecimal() and form[0] == "0" and 0 < int(form) <= 9)):
            return f"“{scheme}”: after “{name}” only a width such as :02 can stand"
    if not any(name for _, name, _, _ in parts):
        return f"“{scheme}” has no field, so every wire would carry the same number"
    if any(c.isspace() or c in "~" for text, *_ in parts for c in text):
        return f"“{scheme}” holds a sign that no number may have"
    return ""
