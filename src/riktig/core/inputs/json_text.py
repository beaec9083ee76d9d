"""JSON from outside: everything said once, no deeper than we write, no number that is none."""

import json
from collections.abc import Iterator

from riktig.core.errors import InputFault, RiktigError
from riktig.core.inputs.texts import unfit, without_unfit

__all__ = ["parse_json"]

DEEPEST = 60
"""Levels of brackets; a job has nine."""
LONGEST_NUMBER = 40
"""Figures in a number."""
LONGEST = 1_000_000
"""Letters of one text."""
MOST_FAULTS = 50
SEVERAL_LINES = ("reason",)
"""Fields that may have several lines."""


class _TwiceError(ValueError):
    pass


def parse_json(text: str, *, what: str, where: str = "", hint: str = "", mend: bool = False) -> object:
    """What a JSON text says: dicts, lists, texts, numbers, truth values and None.

    Args:
        text: The JSON.
        what: What it ought to be, with its article: “a job”, “a rung file”.
        where: The file, for the message.
        hint: What to do when it is not.
        mend: Letters that cannot be kept are replaced by a sign that says so, and not refused: for our own older
            files, which must open.

    Raises:
        RiktigError: it is no JSON, says one thing twice, goes too deep, or holds a number or a text that cannot be
            kept; with the place.
    """
    try:
        parsed: object = json.loads(
            text, object_pairs_hook=_once, parse_constant=_no_number, parse_int=_whole, parse_float=_fraction
        )
    except RecursionError as error:
        raise _wrong(what, "its brackets go too deep", where, hint) from error
    except json.JSONDecodeError as error:
        line = "" if where and "\n" not in text else f"line {error.lineno}, "
        place = f"{line}column {error.colno}"
        raise _wrong(what, error.msg, f"{where}, {place}" if where else place, hint) from error
    except ValueError as error:
        raise _wrong(what, str(error), where, hint) from error
    if mend:
        parsed = _mended(parsed)
    faults: list[InputFault] = []
    for fault in _faults(parsed):
        faults.append(fault)
        if len(faults) == MOST_FAULTS:
            break
    if faults:
        raise RiktigError(
            f"This is not {what}: {faults[0].message}",
            hint=hint,
            where=f"{where} {faults[0].where}".strip(),
            faults=faults[1:],
        )
    return parsed


def _mended(value: object, name: str = "", depth: int = 0) -> object:
    if depth > DEEPEST:
        return value
    if isinstance(value, str):
        return without_unfit(value, lines=name in SEVERAL_LINES) if not value.isprintable() else value
    if isinstance(value, dict):
        return {key: _mended(part, str(key), depth + 1) for key, part in value.items()}
    return [_mended(part, name, depth + 1) for part in value] if isinstance(value, list) else value


def _wrong(what: str, why: str, where: str, hint: str) -> RiktigError:
    return RiktigError(f"This is not {what}: it cannot be read as JSON ({why}).", hint=hint, where=where)


def _once(pairs: list[tuple[str, object]]) -> dict[str, object]:
    content = dict(pairs)
    if len(content) < len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise _TwiceError(f"“{twice[:60]}” stands twice in one place")
    return content


def _no_number(text: str) -> object:
    raise ValueError(f"{text} is no number that JSON knows")


def _whole(text: str) -> int:
    if len(text) > LONGEST_NUMBER:
        raise ValueError(f"a number of {len(text)} figures")
    return int(text)


def _fraction(text: str) -> float:
    if len(text) > LONGEST_NUMBER:
        raise ValueError(f"a number of {len(text)} figures")
    value = float(text)
    if value in (float("inf"), float("-inf")):
        raise ValueError(f"{text} is beyond all numbers")
    return value


def _faults(root: object) -> Iterator[InputFault]:
    """Without a call for each level: the text may have been made to exhaust them."""
    todo: list[tuple[str, object, int]] = [("$", root, 1)]
    while todo:
        path, value, depth = todo.pop()
        if depth > DEEPEST:
            yield InputFault(path[:200], "its brackets go too deep.")
            return
        if isinstance(value, str):
            why = unfit(value, lines=True, longest=LONGEST)
            if why:
                yield InputFault(path, f"this text {why}.")
        elif isinstance(value, dict):
            for name, part in value.items():
                why = unfit(name)
                if why:
                    yield InputFault(path, f"a name here {why}.")
                todo.append((f"{path}.{name[:60]}", part, depth + 1))
        elif isinstance(value, list):
            todo.extend((f"{path}[{index}]", part, depth + 1) for index, part in enumerate(value))
