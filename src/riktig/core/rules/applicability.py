"""To which panels a clause does not apply, and why: it is then said of nothing that it meets."""

from collections.abc import Callable, Mapping

from riktig.core.catalogue import Behaviour, Can
from riktig.core.rules.view import View
from riktig.core.schematic import NetClass

__all__ = ["why_not_applicable"]


FREE_NEUTRAL = 2
"""Pins of a neutral that only arrives: the supply and its terminal."""


def _has(view: View, *abilities: Can) -> bool:
    return any(device.kind.can(able) for device in view.circuits.devices for able in abilities)


def _without(words: str, *abilities: Can) -> Callable[[View], str]:
    """Does not apply where no part can any of this."""
    return lambda view: "" if _has(view, *abilities) else words


def _without_motors(view: View) -> str:
    return "" if any(device.kind.is_motor for device in view.circuits.devices) else "no motor is drawn"


def _without_loads(view: View) -> str:
    takes = {Behaviour.COIL, Behaviour.LAMP, Behaviour.WINDING, Behaviour.LOAD, Behaviour.INPUT}
    drawn = any(unit.behaviour in takes for device in view.circuits.devices for unit in device.kind.units)
    return "" if drawn else "no load is drawn"


def _without_coils(view: View) -> str:
    return "" if any(device.kind.has_coil for device in view.circuits.devices) else "no coil is drawn"


def _without_neutral(view: View) -> str:
    return "" if view.supply.neutral else "the supply brings no neutral"


def _without_overloads(view: View) -> str:
    return "" if any(d.kind.can(Can.SET_TO_MOTOR) for d in view.circuits.devices) else "no dial of an overload is drawn"


def _without_jumpers(view: View) -> str:
    return "" if view.wiring.jumpers or view.wiring.links else "no jumper is planned"


def _without_floats(view: View) -> str:
    return "" if _has(view, Can.FLOAT) else "no float is drawn"


def _of_north_america(view: View) -> str:
    here = view.rulebook.north_american
    return "" if here else "the roles of feeder, branch and supplementary protection are of the North American rulebook"


def _of_europe(view: View) -> str:
    away = view.rulebook.north_american
    return "the North American rulebook sizes conductors by their protection alone, see W05" if away else ""


def _without_pairs(view: View) -> str:
    return "" if view.pressed_together else "no two buttons call opposite contactors"


def _without_field_inputs(view: View) -> str:
    return "" if view.inputs_follow else "the controller reads no contact in the field"


def _without_starts(view: View) -> str:
    return "" if view.restarts else "no load has a command of its own"


def _without_operators(view: View) -> str:
    return "" if any(device.zone.value == "door" for device in view.circuits.devices) else "nothing stands on the door"


def _without_field(view: View) -> str:
    return "" if any(load for load in view.loads) or view.signals else "nothing stands in the field"


def _without_neutral_loads(view: View) -> str:
    users = [net for net in view.nets.nets if net.net_class is NetClass.NEUTRAL and len(net.pins) > FREE_NEUTRAL]
    return "" if users else "nothing works between a line and the neutral"


_WHY: Mapping[str, Callable[[View], str]] = {
    "E01": _without_neutral_loads,
    "E04": _without_loads,
    "E05": _without_overloads,
    "E10": _without_motors,
    "E14": _without_neutral,
    "E16": _of_north_america,
    "E17": _without("no surge protector is drawn", Can.SURGE),
    "E18": _without("no transformer is drawn", Can.TRANSFORMS),
    "E20": _of_europe,
    "C01": _without_coils,
    "C02": _without("no starter is drawn", Can.SWITCHES_LOAD, Can.STARTS_SOFTLY, Can.VARIES_SPEED),
    "C03": _without_operators,
    "C06": _without("no lamp is drawn", Can.SHOWS),
    "C07": _without_coils,
    "C12": _without("no small source feeds several circuits", Can.TRANSFORMS, Can.MAKES_DC),
    "C14": _without_starts,
    "C15": _without("nothing can be left in hand", Can.HAND_OFF_AUTO),
    "C16": _without_coils,
    "C17": _without_motors,
    "C19": _without("no lamp is drawn", Can.SHOWS),
    "C20": _without_pairs,
    "C21": _without_floats,
    "C22": _without_field_inputs,
    "W06": _without_field,
    "W10": _without_jumpers,
    "P08": _without_operators,
    "P09": _without("nothing can be left in hand", Can.HAND_OFF_AUTO),
    "N03": _without("no controller is drawn", Can.CONTROLLER),
}
"""By the code of the clause; every other clause applies to every panel."""


def why_not_applicable(code: str, view: View) -> str:
    """Why a clause does not apply to a panel; empty where it does.

    Args:
        code: Of the clause.
        view: The panel as derived.
    """
    why = _WHY.get(code)
    return why(view) if why else ""
