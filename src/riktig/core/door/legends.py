"""What stands on the legend plate of an operator: the thing's name above what it does, in the letters of practice."""

from collections.abc import Iterable, Mapping

from riktig.core.job import DeviceId, LegendCapitals, Load, Practice
from riktig.core.schematic import Circuits

__all__ = ["capitals", "legend_lines", "legends_of"]

LINE_BREAK = " / "
"""Where somebody wants a line to end, he types this."""
_WITHOUT_ACCENTS = str.maketrans("ΆΈΉΊΌΎΏ", "ΑΕΗΙΟΥΩ")
"""Greek drops its accents in capitals; Python keeps them."""
_TURKISH = str.maketrans({"i": "İ", "ı": "I"})
"""Turkish and Azerbaijani keep the dot of their i."""


def capitals(text: str, language: str = "") -> str:
    """A text in capitals, by the rules of its language.

    Args:
        text: The text.
        language: Its code, such as “tr”; "" for none in particular.
    """
    if language in ("tr", "az"):
        text = text.translate(_TURKISH)
    return text.upper().translate(_WITHOUT_ACCENTS)


def legends_of(circuits: Circuits, loads: Iterable[Load], practice: Practice) -> Mapping[DeviceId, tuple[str, ...]]:
    """The lines of the legend of every operator and lamp that has one.

    Args:
        circuits: All devices of the job.
        loads: Their names begin the legends.
        practice: In what letters legends stand.
    """
    names = tuple(sorted({load.name for load in loads if load.name}, key=lambda name: (-len(name), name)))
    return {
        device.id: legend_lines(device.legend, names, practice) for device in circuits.devices if device.legend.strip()
    }


def legend_lines(legend: str, names: Iterable[str], practice: Practice) -> tuple[str, ...]:
    """The lines of a legend: “Feed pump RUNS” is FEED PUMP above RUNS; nothing stands on it twice.

    A line ends after the name of a load, ahead of the last words in capitals, or at “ / ” as it was typed. As written
    means in one text, wrapped where it must be.

    Args:
        legend: What the operator or lamp is for.
        names: Names of loads, the longest first.
        practice: In what letters legends stand.
    """
    if not legend.strip():
        return ()
    typed = [part.strip() for part in legend.split(LINE_BREAK) if part.strip()]
    if practice.legends is LegendCapitals.AS_WRITTEN:
        return tuple(typed)
    lines = typed if len(typed) > 1 else list(_without_repeats(*_parted(legend.strip(), names)))
    return tuple(capitals(line, practice.label_language) for line in lines if line)


def _parted(legend: str, names: Iterable[str]) -> tuple[str, str]:
    """Name and function of a legend in one line."""
    for name in names:
        rest = legend[len(name) :]
        if legend.lower().startswith(name.lower()) and (not rest or rest[0] == " "):
            return legend[: len(name)], rest.strip()
    words = legend.split()
    first = len(words)
    while first and words[first - 1] == words[first - 1].upper():
        first -= 1
    return " ".join(words[:first]), " ".join(words[first:])


def _without_repeats(name: str, function: str) -> tuple[str, str]:
    """No doubled “on” or “stop”: words that the name ends with are not said again at once."""
    begin, end = name.split(), function.split()
    for count in range(min(len(begin), len(end)), 0, -1):
        if [word.lower() for word in begin[-count:]] == [word.lower() for word in end[:count]]:
            return " ".join(begin[:-count]), function
    return name, function
