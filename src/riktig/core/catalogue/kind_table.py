"""Kinds of parts: what every contactor, every breaker has in common."""

import tomllib
from dataclasses import replace
from functools import cache
from importlib import resources
from typing import Required, TypedDict, cast

from riktig.core.catalogue.capabilities import Can
from riktig.core.catalogue.kind_model import (
    Behaviour,
    Clamp,
    Draw,
    Kind,
    Mounting,
    Pin,
    Quickness,
    Side,
    TimerSetting,
    Unit,
)

__all__ = ["AUX_BLOCK", "SIGNALLED", "SIGNAL_BLOCK", "is_kind", "kind", "kinds", "with_aux_block"]


class _DrawRow(TypedDict, total=False):
    va: Required[float]
    ohm: float
    dc: bool
    pick: float
    hold: float


class _KindRow(TypedDict, total=False):
    """A section of the data file."""

    letter: Required[str]
    name: Required[str]
    mounting: Required[str]
    like: str
    row: str
    pins: list[tuple[str, float, str, str]]
    top: str
    bottom: str
    units: Required[list[str | list[str | list[str]]]]
    can: list[str]
    door_order: int
    head: str
    cut_out_rim: float
    positions: list[str]
    draw: _DrawRow
    quick: tuple[float, float, float, float]
    timer: tuple[float, float]
    at_rest: str
    sized_as: str
    primary: dict[str, str]
    dc_pins: list[str]
    own_loops: list[str]
    point_pin: int
    function: str
    plugs_onto: str
    north_american_name: str


@cache
def kinds() -> tuple[Kind, ...]:
    """All kinds, as shipped."""
    made: list[Kind] = []
    for file in ("kinds.toml", "kinds_more.toml"):
        path = resources.files("riktig.core.catalogue") / "data" / file
        rows = cast(dict[str, _KindRow], tomllib.loads(path.read_text(encoding="utf-8")))
        for name, row in rows.items():
            made.append(
                Kind(
                    name,
                    row["letter"],
                    row["name"],
                    Mounting(row["mounting"]),
                    _pins(row),
                    tuple(_unit(row_unit) for row_unit in row["units"]),
                    row.get("like", ""),
                    row.get("row", "starters"),
                    abilities=frozenset(Can(text) for text in row.get("can", ())),
                    door_order=row.get("door_order", 4),
                    head=row.get("head", ""),
                    cut_out_rim=row.get("cut_out_rim", 0.0),
                    positions=tuple(row.get("positions", ())),
                    draw=Draw(**row["draw"]) if "draw" in row else None,
                    quick=Quickness(*row["quick"]) if "quick" in row else None,
                    timer=TimerSetting(*row["timer"]) if "timer" in row else None,
                    at_rest=row.get("at_rest", ""),
                    sized_as=row.get("sized_as", ""),
                    primary=tuple(row.get("primary", {}).items()),
                    dc_pins=tuple(row.get("dc_pins", ())),
                    own_loops=tuple(row.get("own_loops", ())),
                    point_pin=row.get("point_pin"),
                    function=row.get("function", ""),
                    north_american_name=row.get("north_american_name", ""),
                    plugs_onto=Can(row["plugs_onto"]) if "plugs_onto" in row else None,
                )
            )
    return tuple(
        made
        + [_with_block(made_kind) for made_kind in made if made_kind.id in ("contactor", "contactor_wired", "relay")]
        + [_with_signal(made_kind) for made_kind in made if made_kind.id in SIGNALLED]
    )


SIGNALLED = ("motor_breaker", "panel_breaker", "breaker_two", "way_breaker")
"""Breakers that take a signal contact at their side."""
SIGNAL_BLOCK = "_with_signal"
"""Ends the id of a breaker with a signal contact."""
AUX_BLOCK = "_with_block"
"""Ends the id of a kind that carries an auxiliary block."""


def with_aux_block(own_kind: Kind) -> Kind | None:
    """The same kind with an auxiliary block on its front; None when it can carry none, or carries one."""
    return next((other for other in kinds() if other.id == own_kind.id + AUX_BLOCK), None)


def is_kind(kind_id: str) -> bool:
    """Whether there is a kind of that id."""
    return any(known_kind.id == kind_id for known_kind in kinds())


_BLOCK = (("53-54", Behaviour.NO), ("61-62", Behaviour.NC), ("71-72", Behaviour.NC), ("83-84", Behaviour.NO))
"""Contacts of an auxiliary block: second digits by function, first by place (EN 50012, from memory)."""


def _with_block(own_kind: Kind) -> Kind:
    """The same kind with an auxiliary block of two closing and two opening contacts on its front."""
    units = tuple(Unit(name, tuple(name.split("-")), behaviour) for name, behaviour in _BLOCK)
    pins = tuple(
        Pin(pin, 0.3 + 0.13 * n, side, Clamp.CONTROL)
        for n, unit in enumerate(units)
        for pin, side in zip(unit.pins, (Side.TOP, Side.BOTTOM), strict=True)
    )
    return replace(
        own_kind,
        id=own_kind.id + AUX_BLOCK,
        name=f"{own_kind.name} with auxiliary block",
        pins=own_kind.pins + pins,
        units=own_kind.units + units,
        like=own_kind.family,
        block=True,
    )


def _with_signal(own_kind: Kind) -> Kind:
    """The same breaker with a contact at its side that closes while it is off or has tripped."""
    pins = (Pin("95", 0.97, Side.TOP, Clamp.CONTROL), Pin("98", 0.97, Side.BOTTOM, Clamp.CONTROL))
    return replace(
        own_kind,
        id=own_kind.id + SIGNAL_BLOCK,
        name=f"{own_kind.name} with signal contact",
        pins=own_kind.pins + pins,
        units=(*own_kind.units, Unit("95-98", ("95", "98"), Behaviour.NO, "trip")),
        like=own_kind.family,
        signals=True,
        abilities=own_kind.abilities | {Can.SIGNALS_OFF},
    )


_CLAMPS = {"c": Clamp.CONTROL, "f": Clamp.FIELD, "p": Clamp.PLUG}


def _pins(row: _KindRow) -> tuple[Pin, ...]:
    """The pins, listed one by one or, in short form, by side: a small letter at the end names the clamp."""
    if "pins" in row:
        return tuple(Pin(n, float(a), Side(s), Clamp(c)) for n, a, s, c in row["pins"])
    made: list[Pin] = []
    for side in (Side.TOP, Side.BOTTOM):
        names = (row["top"] if side is Side.TOP else row["bottom"]).split()
        for n, name in enumerate(names):
            clamp = _CLAMPS.get(name[-1]) if len(name) > 1 else None
            bare = name[:-1] if clamp else name
            made.append(Pin(bare, round((n + 0.5) / len(names), 3), side, clamp or Clamp.POWER))
    return tuple(made)


def _unit(row: str | list[str | list[str]]) -> Unit:
    """A unit, as a list or in short form: “13-14 no push”."""
    if isinstance(row, str):
        name, behaviour, *symbol = row.split(" ", 2)
        return Unit(name, tuple(name.split("-")), Behaviour(behaviour), symbol[0] if symbol else "")
    name_, pins, behaviour_, *rest = row
    return Unit(str(name_), tuple(pins), Behaviour(behaviour_), str(rest[0]) if rest else "")


@cache
def kind(kind_id: str) -> Kind:
    """The kind with that id.

    Raises:
        KeyError: there is none.
    """
    for known_kind in kinds():
        if known_kind.id == kind_id:
            return known_kind
    raise KeyError(kind_id)
