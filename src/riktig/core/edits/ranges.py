"""Which numbers an answer of the Brief may have: what a low-voltage panel can meet, and what a field says of it."""

from collections.abc import Mapping

from riktig.core.job.number_ranges import BOX_LIMITS, LOAD_LIMITS, PRACTICE_LIMITS, SIGNAL_WATTS, Range

__all__ = ["RANGES", "Range", "check_ranges", "range_words"]


_LOW_VOLTAGE = "low-voltage panels end at 1000 V alternating current (IEC 61439-1 clause 1, from memory)"
_FREQUENCIES = "supplies of machines have 16.7 to 400 Hz (common practice, no source)"
_BREAKING = "no breaker is rated to break more (common practice, no source)"
_LARGER = "larger ones are main supplies (chosen by us)"
_FRAMES = "the largest breaker frames carry 6300 A (common practice, no source)"

RANGES: Mapping[str, Range] = {
    "voltage_v": Range(24, 1000, "V", "the voltage between two lines", _LOW_VOLTAGE),
    "voltage_to_neutral_v": Range(24, 1000, "V", "the voltage to neutral", _LOW_VOLTAGE),
    "frequency_hz": Range(15, 400, "Hz", "the frequency", _FREQUENCIES),
    "upstream_a": Range(1, 6300, "A", "the protection upstream", _FRAMES),
    "fault_ka": Range(0.1, 200, "kA", "the fault current", _BREAKING),
    "through_a": Range(1, 6300, "A", "the protection of what feeds a further panel", _FRAMES, zero="none"),
    "transformer_kva": Range(1, 6300, "kVA", "the transformer", _LARGER, zero="not known"),
    "transformer_uk": Range(1, 15, "%", "the short-circuit voltage", "no transformer has another (common practice)"),
    "feeder_m": Range(1, 2000, "m", "the cable from the transformer", _LARGER, zero="none"),
    "feeder_mm2": Range(1.5, 1000, "mm²", "the section of the cable", _LARGER, zero="none"),
    "source_v": Range(1, 1000, "V", "the voltage of a supply from elsewhere", _LOW_VOLTAGE),
    "protected_a": Range(0.1, 1000, "A", "its protection", _LARGER, zero="not stated"),
    "watts": SIGNAL_WATTS,
    **BOX_LIMITS,
    **LOAD_LIMITS,
    **PRACTICE_LIMITS,
}
"""By the name of the answer; chosen by us where no source stands."""


def range_words(key: str) -> str:
    """What a field says of the numbers that it takes; empty where it has no range.

    Args:
        key: The name of the answer.
    """
    return RANGES[key].words if key in RANGES else ""


def check_ranges(fields: Mapping[str, object], *, names: Mapping[str, str] | None = None) -> None:
    """Refuses an answer outside its range, with the range; a job that has such a value still opens.

    Args:
        fields: The answers that are given.
        names: Under which other names their ranges stand.

    Raises:
        ImpossibleValueError: one is outside.
    """
    for key, value in fields.items():
        limits = RANGES.get((names or {}).get(key, key))
        if limits and isinstance(value, int | float) and not isinstance(value, bool):
            limits.see(value)
