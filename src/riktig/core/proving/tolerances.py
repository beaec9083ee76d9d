"""Between which resistances a sound piece of the panel lies, as an ohm-meter finds it on the dead panel."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf

from riktig.core.catalogue import Behaviour, Can, Part, Unit
from riktig.core.schematic import Device
from riktig.core.simulation import Rating
from riktig.core.standards import wire_resistance
from riktig.core.wiring import Wire

__all__ = ["CLOSED_CONTACT", "ELECTRONIC", "JOINT", "Ohms", "unit_ohms", "wire_ohms"]

CATALOGUE_V = 230.0
"""The voltage of the coils whose resistance the catalogue has, V."""


@dataclass(frozen=True, slots=True)
class Ohms:
    """What a piece reads when it is sound, ohm: the least, the usual and the most; ``high`` may be infinite."""

    low: float
    usual: float
    high: float

    def spread(self, low: float, high: float) -> "Ohms":
        """The same between shares of the usual."""
        return Ohms(self.usual * low, self.usual, self.usual * high)


JOINT = Ohms(0.0, 0.001, 0.01)
"""A terminal, a jumper, a plugged joint (common practice, no source)."""
CLOSED_CONTACT = Ohms(0.0, 0.02, 0.2)
"""A closed contact at the small current of a meter (common practice, no source)."""
WIRE_SHARES = (0.8, 1.3)
"""Its length as laid, its temperature and the bound of IEC 60228 against what is made (chosen by us)."""
PROTECTION_SHARES = (0.2, 1.6)
"""A breaker, fuse or heater by its loss at rated current (chosen by us: that loss is for a warm part, and a top)."""
ELECTRONIC_SHARE = 0.3
"""Of what a lamp or timer takes at its voltage, the least that a meter reads of it (chosen by us)."""
COIL_SHARES = (0.6, 1.4)
"""A coil against its data (chosen by us: makes, temperature)."""
WINDING_SHARES = (0.3, 2.5)
"""A transformer winding against its losses (chosen by us)."""
COPPER_SHARE = 0.7
"""Of a transformer's losses those in its windings, half of it in each (common practice, no source)."""
ELECTRONIC = Ohms(20.0, 2000.0, inf)
"""Lamps, supplies, inputs, timers: anything from this up to open, as the meter happens to test (chosen by us)."""


def wire_ohms(wire: Wire) -> Ohms:
    """Of a wire, by its length and section."""
    ohm = wire_resistance(wire.mm2).value * wire.length / 1e6
    return Ohms(0.0, ohm, 0.0).spread(*WIRE_SHARES)


def unit_ohms(device: Device, unit: Unit, part: Part | None, ratings: Sequence[Rating]) -> Ohms | None:
    """Of a unit of a device that leads on, or while it leads on; None where nothing lies between its pins for a meter.

    Args:
        device: The device.
        unit: Which of its units.
        part: What is bought for it.
        ratings: For which voltages it is bought.

    Method:
        What protects by heat has the resistance of its loss at rated current, divided by its poles. A coil has that of
        the catalogue, which goes with the square of the voltage at the same power. What is electronic reads anything
        from some ohm to open.
    """
    match unit.behaviour:
        case Behaviour.JOINT:
            return JOINT
        case Behaviour.POLE | Behaviour.HEATER:
            return _protection(device, part)
        case Behaviour.NO | Behaviour.NC:
            return CLOSED_CONTACT
        case Behaviour.COIL:
            return _coil(device, part, ratings)
        case Behaviour.WINDING | Behaviour.SOURCE if device.kind.can(Can.TRANSFORMS):
            return _winding(unit, part, ratings)
        case Behaviour.LAMP | Behaviour.LOAD | Behaviour.INPUT | Behaviour.SOURCE:
            return _electronic(part, ratings)
    return None


def _protection(device: Device, part: Part | None) -> Ohms:
    poles = sum(unit.behaviour in (Behaviour.POLE, Behaviour.HEATER) for unit in device.kind.units)
    if part is None or not part.loss_w or not part.rated_a:
        return CLOSED_CONTACT
    ohm = part.loss_w / poles / part.rated_a**2
    band = Ohms(0.0, ohm, 0.0).spread(*PROTECTION_SHARES)
    # A dial at its low end carries less current for the same loss: more resistance.
    least_a = part.min_a or part.rated_a
    top = part.loss_w / poles / least_a**2 * PROTECTION_SHARES[1]
    return Ohms(band.low, ohm, top + CLOSED_CONTACT.high)


def _coil(device: Device, part: Part | None, ratings: Sequence[Rating]) -> Ohms:
    ohm = part.coil_ohm if part else 0.0
    if device.kind.can(Can.TIMED) or not ohm:
        return _electronic(part, ratings)
    if device.kind.draw is not None and device.kind.draw.dc:
        return Ohms(0.0, ohm, 0.0).spread(*COIL_SHARES)
    if len(ratings) != 1 or not ratings[0].hz:
        return ELECTRONIC  # a coil for direct current is another one than the catalogue's
    return Ohms(0.0, ohm * (ratings[0].volts / CATALOGUE_V) ** 2, 0.0).spread(*COIL_SHARES)


def _winding(unit: Unit, part: Part | None, ratings: Sequence[Rating]) -> Ohms:
    """Primary and secondary have the first and the last of the ratings."""
    if part is None or not part.rated_va or not part.loss_w or not ratings:
        return Ohms(0.05, 10.0, inf)
    volts = (ratings[0] if unit.behaviour is Behaviour.WINDING else ratings[-1]).volts
    ohm = part.loss_w * COPPER_SHARE / 2 / (part.rated_va / volts) ** 2
    return Ohms(0.0, ohm, 0.0).spread(*WINDING_SHARES)


def _electronic(part: Part | None, ratings: Sequence[Rating]) -> Ohms:
    """Lamps, supplies, inputs and timers; those bought for one voltage hold off a share of what they take at it."""
    if part is None or not part.coil_ohm or len(ratings) != 1:
        return ELECTRONIC
    ohm = part.coil_ohm * (ratings[0].volts / CATALOGUE_V) ** 2
    return Ohms(max(ohm * ELECTRONIC_SHARE, ELECTRONIC.low), ohm, inf)
