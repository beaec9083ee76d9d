"""The prospective short-circuit current at the panel, and what flows in an earth fault at the end of a cable."""

from math import sqrt

__all__ = ["prospective_ka"]


def prospective_ka(
    volts: float, transformer_kva: float, uk_percent: float, feeder_m: float, feeder_mm2: float
) -> float:
    """The prospective three-phase current behind a transformer and a copper cable, kA.

    Args:
        volts: Between lines.
        transformer_kva: Its rated power.
        uk_percent: Its short-circuit voltage.
        feeder_m: Length of the cable; 0: at the transformer.
        feeder_mm2: Section of the cable, mm².

    Source:
        IEC 60909-0 as it is taught: the network ahead counts as infinite, the transformer as reactance; cable 18.51 Ω a
        mm² and km (copper at 20 °C, IEC 60028), 0.08 Ω a km (common practice).
    """
    transformer = uk_percent / 100 * volts**2 / (transformer_kva * 1000)
    resistance = 0.01851 * feeder_m / feeder_mm2 if feeder_mm2 else 0.0
    reactance = transformer + 0.00008 * feeder_m
    return volts / sqrt(3) / sqrt(resistance**2 + reactance**2) / 1000
