"""Inputs that have gone wrong: bytes flipped, cut, doubled and spliced; values of JSON made wild."""

import json
import random
from collections.abc import Iterator

__all__ = ["WILD", "mutated_bytes", "mutated_json"]

ODD = (b'"', b"{", b"[" * 200, b",", b";", b"\x00", b"\xff\xfe", b"9" * 60, b"\\u")
WILD: tuple[object, ...] = (
    None, True, False, 0, -1, 1, 2**31, -(2**63), 10**30, 0.0, -37.0, 1e-300, 1e308, -1e308, 0.1, "", "x", "=1+1",
    "\ud800", "\x00", "a\nb", "\u202etxt", "é" * 300, "x" * 5000, [], {}, [[]], [None], {"a": 1}, "c0", "c1.K", "inf",
)  # fmt: skip
"""Values that stand where others are expected."""


def mutated_bytes(data: bytes, rng: random.Random) -> bytes:
    """The bytes with one to twenty changes."""
    found = bytearray(data)
    for _ in range(rng.choice((1, 1, 2, 5, 20))):
        place = rng.randrange(len(found) + 1)
        match rng.randrange(7):
            case 0 if found:
                found[place % len(found)] = rng.randrange(256)
            case 1 if found:
                found[place % len(found)] ^= 1 << rng.randrange(8)
            case 2:
                del found[place : place + rng.choice((1, 2, 8, 100))]
            case 3:
                found[place:place] = found[place : place + rng.choice((1, 4, 50, 400))] * rng.choice((1, 2, 50))
            case 4:
                found[place:place] = rng.randbytes(rng.choice((1, 2, 8)))
            case 5:
                other = rng.randrange(len(found) + 1)
                found[place : place + 20] = found[other : other + 20]
            case _:
                found[place:place] = rng.choice(ODD)
    return bytes(found)


def mutated_json(text: str, rng: random.Random) -> str:
    """The JSON with one to four of its values made wild, taken out, doubled or put elsewhere."""
    root: object = json.loads(text)
    for _ in range(rng.choice((1, 1, 2, 4))):
        places = list(_places(root))
        if not places:
            break
        holder, key = rng.choice(places)
        match rng.randrange(6):
            case 0:
                _put(holder, key, rng.choice(WILD))
            case 1 | 2:
                _put(holder, key, json.loads(json.dumps(_alike(holder[key], places, rng))))  # type: ignore[index]
            case 3 if isinstance(holder, dict):
                holder.pop(str(key), None)
            case 4 if isinstance(holder, list):  # copies, for a list that held itself could not be written
                more = holder[:] if rng.random() < 0.5 else holder[-1:] * rng.choice((1, 50))
                holder.extend(json.loads(json.dumps(more)))
            case _:
                other, name = rng.choice(places)
                _put(holder, key, json.loads(json.dumps(other[name])))  # type: ignore[index]
        if len(json.dumps(root)) > 3_000_000:
            break
    return json.dumps(root)


Place = tuple[dict[str, object] | list[object], str | int]
NUMBERS = (0, 1, 2, 3, 7, -1, -37.0, 0.0, 0.5, 12.0, 99.0, 400.0, 1500.0, 9999.0, 1e-3, 1e308)


def _alike(value: object, places: list[Place], rng: random.Random) -> object:
    """Another value of the same kind: an odd one, or one that stands elsewhere."""
    if isinstance(value, bool):
        return not value
    if isinstance(value, int | float):
        return rng.choice((*NUMBERS, value * 2, -value))
    if isinstance(value, str):
        texts = [other for holder, key in places if isinstance(other := holder[key], str)]  # type: ignore[index]
        return rng.choice((rng.choice(texts), rng.choice(texts), value + "x", "", value[: len(value) // 2]))
    return rng.choice(WILD)


def _places(value: object) -> Iterator[Place]:
    if isinstance(value, dict):
        for key, part in value.items():
            yield value, key
            yield from _places(part)
    elif isinstance(value, list):
        for index, part in enumerate(value):
            yield value, index
            yield from _places(part)


def _put(holder: dict[str, object] | list[object], key: str | int, value: object) -> None:
    holder[key] = value  # type: ignore[index]
