"""How much a long test does: little in every check, much in the nightly run (``./check --nightly``)."""

import os

NIGHTLY = os.environ.get("RIKTIG_NIGHTLY", "") == "1"


def times(each_check: int, nightly: int) -> int:
    """How many times a long test tries: ``each_check`` now, ``nightly`` when the night is given to it."""
    return nightly if NIGHTLY else each_check
