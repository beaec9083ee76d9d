"""What coils, lamps and loads draw, what a meter reads of them, and how quick contacts are."""

from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Unit

__all__ = ["BY_HAND", "CONTACT_OHM", "LINK_OHM", "QUICK", "TIMERS", "Draw", "Quickness", "draw_of"]

CONTACT_OHM, LINK_OHM = 0.01, 0.001
"""A closed contact, and a terminal or a plugged joint (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Draw:
    """One consumer: apparent power at its own voltage, VA; what an ohm-meter reads, ohm (0: that of its power).

    ``dc`` is whether it works on 24 V. ``pick`` and ``hold`` are the shares of its voltage at which
    it comes in and drops out.
    """

    va: float
    ohm: float = 0.0
    dc: bool = False
    pick: float = 0.8
    hold: float = 0.4


_BY_KIND: dict[str, Draw] = {
    "contactor": Draw(8.0, 560.0),
    "relay": Draw(6.0, 600.0),
    "relay_dc": Draw(0.5, 1150.0, dc=True),
    "timer": Draw(3.0, 17_000.0),
    "timer_on": Draw(3.0, 17_000.0),
    "phase_monitor": Draw(4.0, 80_000.0, pick=0.85, hold=0.85),
    "transformer": Draw(100.0, 12.0),
    "dc_supply": Draw(60.0, 470_000.0),
    "lamp": Draw(2.0, 66_000.0, pick=0.6, hold=0.55),
    "test_lamp": Draw(2.0, 46_000.0, pick=0.6, hold=0.55),
    "lit_button": Draw(2.0, 46_000.0, pick=0.6, hold=0.55),
    "beacon": Draw(5.0, 46_000.0, pick=0.6, hold=0.55),
    "buzzer": Draw(2.0, 12_000.0, pick=0.6, hold=0.55),
    "controller": Draw(8.0, 70.0, dc=True),
    "screen": Draw(10.0, 60.0, dc=True),
    "network_switch": Draw(3.0, 190.0, dc=True),
    "inputs": Draw(0.17, 3400.0, dc=True, pick=0.6, hold=0.25),
    "sensor": Draw(0.5, 1150.0, dc=True),
    "drive": Draw(0.17, 3400.0, dc=True, pick=0.6, hold=0.25),
    "soft_starter": Draw(10.0, 5300.0),
    "valve": Draw(10.0, 800.0),
    "motor": Draw(1300.0, 6.0, pick=0.6, hold=0.55),
    "motor6": Draw(1300.0, 6.0, pick=0.6, hold=0.55),
}
_USUAL = Draw(100.0, pick=0.6, hold=0.55)
"""Typical figures, from memory. IEC 60947-4-1 8.2.1.2: coils pick up at 85 % and drop between 20 and 75 %; controller
inputs after IEC 61131-2 type 1; a nominal share of 0.8 and 0.4 chosen by us between. All unsure."""


def draw_of(kind_id: str, unit: Unit) -> Draw:
    """What a unit of a kind draws."""
    for name in (kind_id, kind_id.split("_with_")[0].removesuffix("_wired")):
        if name in _BY_KIND:
            return _BY_KIND[name]
    return Draw(_USUAL.va, dc=unit.behaviour is Behaviour.INPUT, pick=_USUAL.pick, hold=_USUAL.hold)


@dataclass(frozen=True, slots=True)
class Quickness:
    """Seconds from the coil fed until its first contacts open and its last close, and the same when it falls."""

    leaves: float
    arrives: float
    falls: float
    rests: float


QUICK: dict[str, Quickness] = {
    "relay": Quickness(0.007, 0.012, 0.004, 0.008),
    "relay_dc": Quickness(0.005, 0.008, 0.004, 0.008),
    "phase_monitor": Quickness(0.05, 0.055, 0.05, 0.055),
    "soft_starter": Quickness(0.02, 0.03, 0.02, 0.03),
    "drive": Quickness(0.02, 0.03, 0.02, 0.03),
    "": Quickness(0.015, 0.022, 0.008, 0.014),
}
"""By kind, "" for contactors and all others: typical, from memory. Contacts that open do so before others close."""

BY_HAND = Quickness(0.03, 0.06, 0.008, 0.014)
"""An armature pushed in with a finger: slower than any coil (chosen by us)."""

TIMERS = {"timer": (30.0, 0.05), "timer_on": (10.0, 0.0)}
"""Seconds until a timer's contacts move, and the pause between star and delta (chosen by us: usual settings)."""
