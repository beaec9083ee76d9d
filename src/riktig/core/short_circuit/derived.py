"""What this step offers the evaluation."""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.catalogue import ShortCircuitFigures, every_part_of, read_combinations, short_circuit_figures
from riktig.core.evaluation import reads
from riktig.core.geometry import Drawing
from riktig.core.ids import DeviceId
from riktig.core.job import JOB_PARTS, JOB_PRACTICE, JOB_SUPPLY, JoinHow, OwnPart, Practice, Supply
from riktig.core.plate import ASSEMBLIES, Assembly
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Circuits, Names, Nets
from riktig.core.short_circuit.draw_ratings import draw_ratings
from riktig.core.short_circuit.fault_current import prospective_ka
from riktig.core.short_circuit.iec import rate_iec
from riktig.core.short_circuit.model import Rating, SharedFeed
from riktig.core.short_circuit.north_american import rate_north_american
from riktig.core.short_circuit.options import TARGETS_KA, Way, ways_to
from riktig.core.short_circuit.power_paths import PowerPaths, power_paths
from riktig.core.short_circuit.wire_energy import WireEnergy, wire_energies
from riktig.core.sizing import SIZING, Sizing
from riktig.core.wiring import WIRING, Wiring

__all__ = ["POWER_PATHS", "RATING_DRAWING", "SHORT_CIRCUIT", "WIRE_ENERGIES", "ShortCircuit"]


@dataclass(frozen=True, slots=True)
class ShortCircuit:
    """The short-circuit current at the panel, what the panel bears, and what would raise it."""

    prospective_ka: float
    rating: Rating
    ways: tuple[Way, ...]
    """In a North American job: to each rating that is asked for and that it does not have."""


def _own_figures(own: OwnPart, *, north_american: bool) -> ShortCircuitFigures:
    """What the builder gave with a part of his own; as a guard it is what generic parts of its kind are."""
    alike = (short_circuit_figures(part, north_american=north_american) for part in every_part_of(own.kind))
    guard = next((figures.guard for figures in alike if figures.guard), "")
    return ShortCircuitFigures(
        guard=guard,
        breaks_ka=own.breaking_ka,
        marked_ka=own.marked_ka,
        tested=read_combinations(own.tested_with),
        energy_top=own.energy_ka2s,
        peak_ka=own.peak_ka,
        source="the builder's own figures",
    )


def _paths(
    circuits: Circuits, nets: Nets, sizing: Sizing, own_parts: tuple[OwnPart, ...], practice: Practice
) -> PowerPaths:
    american = practice.rulebook.north_american
    figures = {own_part.ref: _own_figures(own_part, north_american=american) for own_part in own_parts}
    return power_paths(circuits, nets, sizing.parts, figures, north_american=american)


def _rated(
    paths: PowerPaths, supply: Supply, practice: Practice, names: Names, assemblies: tuple[Assembly, ...]
) -> ShortCircuit:
    tags: Mapping[DeviceId, str] = names.tag
    called = {JoinHow.COMB: "comb", JoinHow.BUSBAR: "busbar system"}
    shared = [
        SharedFeed(join.devices[0], called[join.how])
        for join in assemblies
        if join.how in called and join.devices[0] in tags
    ]
    at_panel = supply.fault_ka
    if supply.transformer_kva:
        stated = (supply.transformer_kva, supply.transformer_uk, supply.feeder_m, supply.feeder_mm2)
        at_panel = prospective_ka(supply.voltage_v, *stated)
    if not practice.rulebook.north_american:
        return ShortCircuit(at_panel, rate_iec(paths, supply, at_panel, tags, shared), ())
    rating = rate_north_american(paths, supply, tags, practice.transformer_v, shared)
    ways = (ways_to(target, paths, supply, tags, practice.transformer_v, shared) for target in TARGETS_KA)
    return ShortCircuit(at_panel, rating, tuple(way for some in ways for way in some))


def _energies(paths: PowerPaths, wiring: Wiring, practice: Practice) -> tuple[WireEnergy, ...]:
    return () if practice.rulebook.north_american else wire_energies(paths, wiring)


def _drawn(paths: PowerPaths, short_circuit: ShortCircuit, names: Names) -> Drawing:
    return draw_ratings(paths, short_circuit.rating, short_circuit.prospective_ka, names.tag)


POWER_PATHS = (reads(CIRCUITS) & NETS & SIZING & JOB_PARTS & JOB_PRACTICE).derive("power circuits", _paths)
"""The parts of all power circuits with their short-circuit figures."""
SHORT_CIRCUIT = (reads(POWER_PATHS) & JOB_SUPPLY & JOB_PRACTICE & NAMES & ASSEMBLIES).derive("short circuit", _rated)
"""What the panel may be connected to."""
RATING_DRAWING = (reads(POWER_PATHS) & SHORT_CIRCUIT & NAMES).derive("picture of the rating", _drawn)
WIRE_ENERGIES = (reads(POWER_PATHS) & WIRING & JOB_PRACTICE).derive("energy let through to wires", _energies)
"""In a European job every wire behind a guard, and up to which current that protects it."""
