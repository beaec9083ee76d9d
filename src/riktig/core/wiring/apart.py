"""What is kept apart in ducts: the signals of a controller from the pulses behind a drive."""

from collections.abc import Iterable, Mapping, Sequence

from riktig.core.catalogue import Can
from riktig.core.job import PinRef
from riktig.core.schematic import Circuits, Nets
from riktig.core.wiring.duct_lines import in_common
from riktig.core.wiring.fill import Span

__all__ = ["beside_mm", "mm_in", "pulse_nets", "stretches_of"]

OUTPUTS = ("U", "V", "W", "T1", "T2", "T3")
"""Pins of a drive whose conductors carry its pulses."""


def pulse_nets(circuits: Circuits, nets: Nets) -> frozenset[PinRef]:
    """The potentials behind drives, by their ids: their pulses disturb what lies beside them.

    Args:
        circuits: All devices of the job.
        nets: All nets of these circuits.
    """
    drives = [device for device in circuits.devices if device.kind.can(Can.VARIES_SPEED)]
    pins = [device.pin(pin.name) for device in drives for pin in device.kind.pins if pin.name in OUTPUTS]
    return frozenset(nets.of_pin[pin].id for pin in pins if pin in nets.of_pin)


def beside_mm(first: Iterable[Span], second: Sequence[Span]) -> dict[str, float]:
    """How far two wires lie beside each other in each duct that they share, mm.

    Args:
        first: Where one lies.
        second: Where the other lies.
    """
    shared: dict[str, float] = {}
    for span in first:
        for other in second:
            length = in_common(span.begin, span.end, [(other.begin, other.end)]) if span.duct == other.duct else 0.0
            if length:
                shared[span.duct] = shared.get(span.duct, 0.0) + length
    return shared


def stretches_of(wires: Iterable[Sequence[Span]]) -> dict[str, list[tuple[float, float]]]:
    """The parts of ducts in which some wires lie, from where to where along each, mm; those that touch are one.

    Args:
        wires: Where each of them lies.
    """
    parts: dict[str, list[tuple[float, float]]] = {}
    for span in sorted(span for spans in wires for span in spans):
        of_duct = parts.setdefault(span.duct, [])
        if of_duct and span.begin <= of_duct[-1][1]:
            of_duct[-1] = (of_duct[-1][0], max(of_duct[-1][1], span.end))
        else:
            of_duct.append((span.begin, span.end))
    return parts


def mm_in(spans: Iterable[Span], stretches: Mapping[str, Sequence[tuple[float, float]]]) -> float:
    """How much of a wire lies in stretches of ducts, mm.

    Args:
        spans: Where it lies.
        stretches: Parts of ducts by name, none within another.
    """
    return sum(in_common(span.begin, span.end, stretches.get(span.duct, ())) for span in spans)
