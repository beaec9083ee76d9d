"""The words people use for columns and answers of a load list (common practice, no source)."""

from enum import Enum
from typing import Any

from riktig.core.job import Access, CableLaying, Command, Duty, Fitting, Isolation, LoadKind, Protection, Start

__all__ = ["ANSWERS", "COLUMNS", "HEADINGS", "LEFT_OUT", "YES_NO"]

COLUMNS = (
    "load",
    "kw",
    "hp",
    "power",
    "nameplate_a",
    "phases",
    "voltage_v",
    "kind",
    "start",
    "command",
    "protection",
    "duty",
    "isolation",
    "access",
    "fitting",
    "place",
    "cable_m",
    "laying",
    "cables_together",
    "maintained",
    "service_factor",
    "reason",
)
"""What a column can mean, by the field it fills; “power” carries its unit in each cell."""
LEFT_OUT = "-"
"""A column with this meaning, or a heading that begins with it, is left out on purpose."""

HEADINGS: dict[str, tuple[str, ...]] = {
    "load": ("load", "motor", "what turns", "name", "load name", "motor name", "consumer", "equipment"),
    "kw": ("kw", "p kw", "power kw", "rating kw", "rated kw", "output kw"),
    "hp": ("hp", "power hp", "rating hp", "rated hp", "horsepower", "bhp"),
    "power": ("power with unit",),
    "nameplate_a": (
        "nameplate_a",
        "nameplate a",
        "flc",
        "fla",
        "full load current",
        "current a",
        "amps",
        "in a",
        "flc a",
    ),
    "phases": ("phases", "ph", "no of phases", "number of phases"),
    "voltage_v": ("voltage", "volts", "voltage_v", "voltage v", "v"),
    "kind": ("kind", "load kind", "kind of load"),
    "start": ("start", "starter", "started", "starting", "starting method", "how started"),
    "command": ("command", "commanded by", "how commanded", "operated by"),
    "protection": ("protection", "guarded by"),
    "duty": ("duty",),
    "isolation": ("isolation", "isolator", "cut off by"),
    "access": ("access", "moved by", "who may move it"),
    "fitting": ("fitting", "work done"),
    "place": ("place", "location", "where", "area", "room", "position"),
    "cable_m": ("cable_m", "cable m", "cable length", "cable length m", "length m", "run m"),
    "laying": ("laying", "cable laying", "laid", "installation method"),
    "cables_together": ("cables_together", "cables together", "grouped cables"),
    "maintained": ("maintained", "stays live", "maintained supply"),
    "service_factor": ("service factor", "service_factor", "sf"),
    "reason": ("reason", "because", "note", "notes", "remark", "remarks"),
}
"""Headings that are certain."""
GUESSES: dict[str, tuple[str, ...]] = {
    "load": ("description", "item", "designation", "function", "machine", "drive"),
    "power": ("power", "rating", "size", "output", "p"),
    "nameplate_a": ("current", "a", "i", "amp", "rated current"),
    "phases": ("phase", "supply"),
    "start": ("type", "method", "starter type", "control type"),
    "command": ("control", "controls", "control from"),
    "cable_m": ("length", "cable", "distance", "m", "run"),
    "place": ("site", "zone"),
    "reason": ("comment", "comments"),
}
"""Headings that may mean it: taken, but shown as doubtful."""

YES_NO = {"yes": True, "y": True, "x": True, "1": True, "true": True, "no": False, "n": False, "": False, "0": False}

_WORDS: dict[type[Enum], dict[Any, tuple[str, ...]]] = {
    Start: {
        Start.DIRECT: ("dol", "d.o.l.", "direct", "direct on line", "across the line", "full voltage"),
        Start.REVERSING: ("reversing", "rev", "forward reverse", "fwd/rev", "both ways", "dol reversing", "f/r"),
        Start.STAR_DELTA: ("star delta", "star/delta", "y-d", "y/d", "yd", "wye delta", "wye-delta", "s/d"),
        Start.SOFT: ("soft start", "soft starter", "softstarter", "soft", "ss", "rvss"),
        Start.DRIVE: ("drive", "vfd", "vsd", "inverter", "variable speed", "frequency converter", "by a drive"),
        Start.CONTACTOR: ("contactor", "switched"),
        Start.WAY: ("feeder", "way", "breaker", "breaker only", "own breaker", "fused feeder"),
    },
    Command: {
        Command.BUTTONS: ("start-stop on the door", "start stop", "start/stop", "buttons", "push buttons", "local"),
        Command.BOTH_WAYS: ("forward reverse stop", "fwd/rev/stop", "forward, reverse, stop"),
        Command.SELECTOR: ("hoa", "h-o-a", "hand off auto", "hand-off-auto", "selector", "auto/man"),
        Command.LEVEL: ("level", "floats", "float", "by level", "level floats", "float switches"),
        Command.STATION: ("station", "push button station", "field station", "remote", "local station"),
        Command.CONTROLLER: ("controller", "plc", "automatic", "auto", "bms", "scada"),
        Command.ALWAYS: ("always", "always on", "none", "-", "n/a"),
    },
    LoadKind: {
        LoadKind.MOTOR: ("motor", "pump", "fan", "m"),
        LoadKind.HEATER: ("heater", "heating", "heat", "resistive"),
        LoadKind.LIGHTING: ("lighting", "lights", "light", "lamps"),
        LoadKind.SOCKETS: ("sockets", "socket", "socket outlet", "receptacle", "receptacles", "outlet"),
        LoadKind.OTHER: ("other", "feeder", "load"),
    },
    Protection: {
        Protection.BREAKER: ("breaker", "mcb", "breaker and overload"),
        Protection.PROTECTOR: ("motor protector", "protector", "mpcb"),
        Protection.FUSES: ("fuses", "fuse"),
    },
    Duty: {
        Duty.NORMAL: ("normal", "continuous", "s1", "ac-3", "ac3"),
        Duty.INCHING: ("inching", "jogging", "ac-4", "ac4", "plugging"),
    },
    Isolation: {
        Isolation.STARTER: ("starter", "padlock", "lock-off", "lockable"),
        Isolation.LOCAL: ("local", "local isolator", "isolator"),
        Isolation.MAIN: ("main", "main switch", "none"),
    },
    CableLaying: {
        CableLaying.WALL: ("c", "wall", "clipped", "surface", "open tray", "open"),
        CableLaying.CONDUIT: ("b2", "conduit", "raceway", "duct", "trunking", "buried conduit"),
        CableLaying.PERFORATED: ("e", "perforated tray", "tray", "ladder", "free air"),
    },
    Access: {Access.ANYONE: ("anyone", "all", "open"), Access.KEY: ("key", "key holder", "locked", "keyed")},
    Fitting: {Fitting.WORKSHOP: ("workshop", "shop"), Fitting.SITE: ("site", "on site")},
}


def _plain(text: str) -> str:
    return " ".join(text.lower().replace("–", "-").replace("_", " ").split())


ANSWERS: dict[str, dict[str, Any]] = {
    field: {_plain(word): value for value in kind for word in (value.value, *_WORDS[kind].get(value, ()))}
    for field, kind in (
        ("start", Start),
        ("command", Command),
        ("kind", LoadKind),
        ("protection", Protection),
        ("duty", Duty),
        ("isolation", Isolation),
        ("access", Access),
        ("fitting", Fitting),
        ("laying", CableLaying),
    )
}
"""Every word that answers a question of choice, by field."""


def meaning_of(heading: str) -> tuple[str, bool]:
    """What a column's heading means and whether that is certain; "" when it is not known."""
    plain = _plain(heading)
    for sign in "()[]:/":
        plain = plain.replace(sign, " ")
    plain = " ".join(plain.split())
    if heading.strip().startswith(LEFT_OUT):
        return LEFT_OUT, True
    for table, sure in ((HEADINGS, True), (GUESSES, False)):
        for meaning, words in table.items():
            if plain in {" ".join(word.replace("_", " ").split()) for word in words}:
                return meaning, sure
    for unit, meaning in (("kw", "kw"), ("hp", "hp")):
        if unit in plain.split():
            return meaning, False
    return "", False
