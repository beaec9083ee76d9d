"""Words that mean the same thing in the trade: whichever one learned finds it."""

import re
from functools import cache

__all__ = ["LINE_NAMES", "SYNONYMS", "in_house_words", "line_names", "same_words"]

SYNONYMS: tuple[tuple[str, ...], ...] = (
    ("isolator", "disconnect", "main switch", "disconnector"),
    ("duct", "trunking", "raceway", "wireway"),
    ("earth", "ground", "pe", "cpc", "protective", "bond"),
    ("contactor", "relay"),
    ("push-button", "button", "pushbutton"),
    ("lamp", "light", "indicator", "pilot"),
    ("overload", "thermal"),
    ("breaker", "mcb", "circuit-breaker"),
    ("motor protector", "motor protective circuit breaker", "manual motor starter", "mpcb"),
    ("residual", "rcd", "gfci", "ground-fault"),
    ("hold", "seal-in", "hold-in", "latch", "maintain", "self-holding"),
    ("start", "forward"),
    ("bridge", "jumper", "loop"),
    ("comb", "busbar"),
    ("terminal", "block", "clamp"),
    ("strip", "terminal block"),
    ("drive", "inverter", "vfd", "frequency converter"),
    ("soft starter", "soft start"),
    ("rail", "din"),
    ("plate", "backplate", "backpan", "mounting panel"),
    ("emergency stop", "e-stop", "mushroom"),
    ("selector", "hand off auto", "hoa"),
    ("supply", "incomer", "feed", "mains"),
    ("24 v", "power supply", "psu"),
    ("transformer", "control transformer"),
    ("float", "level switch"),
    ("end switch", "limit switch"),
    ("motor", "machine"),
    ("net", "node", "potential"),
    ("cable", "cord"),
    ("controller", "plc"),
    ("buzzer", "horn", "sounder"),
    ("surge", "spd", "arrester"),
    ("valve", "solenoid"),
    ("temperature", "thermostat"),
    ("spare", "free"),
    ("phase", "line"),
)
"""Words for one thing, the preferred one first (common practice, no source)."""


LINE_NAMES: tuple[tuple[str, str, str], ...] = (("L1", "L2", "L3"), ("R", "S", "T"), ("R", "Y", "B"), ("A", "B", "C"))
"""What the three lines of a supply are called, from shop to shop (common practice, no source)."""


def line_names(line: int) -> tuple[str, ...]:
    """All names of a line of the supply, counted from 1, and each with the word “phase”; none for what is no line."""
    if line not in (1, 2, 3):
        return ()
    names = dict.fromkeys(names[line - 1] for names in LINE_NAMES)
    return (*names, *(f"phase {name}" for name in names), *(f"line {name}" for name in names))


@cache
def in_house_words(text: str) -> str:
    """A text with the trade's phrases of several words in Riktig's own: “limit switch” is an “end switch”.

    Args:
        text: What was typed, in small letters; a hyphen or a blank within a phrase are the same.
    """
    replaced = text.replace("-", " ")
    changed = False
    for preferred, *others in SYNONYMS:
        for phrase in others:
            words = phrase.replace("-", " ")
            if " " in words and re.search(rf"\b{re.escape(words)}\b", replaced):
                replaced, changed = re.sub(rf"\b{re.escape(words)}\b", preferred, replaced), True
    return replaced if changed else text


@cache
def same_words(word: str) -> tuple[str, ...]:
    """The word and all that mean the same, plural or not."""
    bare = word.removesuffix("s") if len(word) > 3 else word
    words = dict.fromkeys((word,))
    for group in SYNONYMS:
        if word in group or bare in group:
            words |= dict.fromkeys(group)
    return tuple(words)
