"""What a part bears and breaks of a short circuit: the figures of the generic parts, or those of the builder's own."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib import resources

from riktig.core.catalogue.part_table import Part

__all__ = ["Combination", "ShortCircuitFigures", "read_combinations", "short_circuit_figures"]


@dataclass(frozen=True, slots=True)
class Combination:
    """A tested combination: with which kind of guard ahead of up to how many A the part bears how many kA."""

    guard: str
    up_to_a: float
    ka: float
    type_2: bool = False
    """Whether it is fit for use after the short (IEC 60947-4-1 8.2.5.1, type 2); else it may need repair."""


@dataclass(frozen=True, slots=True)
class ShortCircuitFigures:
    """Figures of a part; 0 and "" are not known. Currents kA, energies kA²s.

    ``guard`` is what it is to what stands behind it: “breaker”, “gG”, “class J”, “type E”. ``breaks_ka`` is what it
    breaks at up to ``at_v``; with ``slash`` only in a star whose middle is earthed. ``marked_ka`` is what it bears by
    itself, ``icw_ka`` for one second. ``energy_6`` and ``energy_10`` are let through at 6 and 10 kA. ``category`` is
    that of UL 508A table SB4.1.
    """

    guard: str = ""
    breaks_ka: float = 0.0
    at_v: float = 0.0
    slash: bool = False
    marked_ka: float = 0.0
    tested: tuple[Combination, ...] = ()
    energy_6: float = 0.0
    energy_10: float = 0.0
    energy_top: float = 0.0
    """Let through at what it breaks: of the builder's own parts."""
    peak_ka: float = 0.0
    """The peak let through at what it breaks, of a current-limiting breaker."""
    icw_ka: float = 0.0
    category: str = ""
    source: str = ""


NOT_KNOWN = ShortCircuitFigures()


def short_circuit_figures(part: Part, *, north_american: bool) -> ShortCircuitFigures:
    """The figures of a part in one of the two markets; nothing known where nobody has given them.

    Args:
        part: The part.
        north_american: Whether the North American figures are asked for.
    """
    return _figures(part.ref, part.rated_a, north_american)


@cache
def _figures(ref: str, rated_a: float, north_american: bool) -> ShortCircuitFigures:
    market, family = "na" if north_american else "iec", ref.partition("-")[0]
    for row in _rows():
        if row["family"] == family and row["market"] == market and rated_a <= float(row["to_a"] or "inf"):
            return _read(row)
    return NOT_KNOWN


@cache
def _rows() -> tuple[dict[str, str], ...]:
    path = resources.files("riktig.core.catalogue") / "data" / "short_circuit.csv"
    return tuple(csv.DictReader(path.read_text(encoding="utf-8").splitlines()[1:]))


def _read(row: dict[str, str]) -> ShortCircuitFigures:
    def number(column: str) -> float:
        return float(row[column] or 0)

    return ShortCircuitFigures(
        guard=row["guard"],
        breaks_ka=number("breaks_ka"),
        at_v=number("at_v"),
        slash=row["slash"] == "yes",
        marked_ka=number("marked_ka"),
        tested=read_combinations(row["tested"]),
        energy_6=number("energy_6"),
        energy_10=number("energy_10"),
        icw_ka=number("icw"),
        category=row["category"],
        source="figures of the generic part: invented but lifelike, the maker's decide",
    )


def read_combinations(text: str) -> tuple[Combination, ...]:
    """Tested combinations as they are written: “class J 60: 100; gG 50: 50*”.

    Raises:
        ValueError: one of them has no number where one belongs.
    """
    return tuple(map(_tested, filter(str.strip, text.split(";"))))


def _tested(text: str) -> Combination:
    left, _, ka = text.partition(":")
    guard, _, amps = left.strip().rpartition(" ")
    return Combination(guard, float(amps), float(ka.strip().rstrip("*")), type_2=ka.strip().endswith("*"))
