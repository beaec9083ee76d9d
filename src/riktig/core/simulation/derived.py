"""What this step offers the evaluation."""

from dataclasses import replace

from riktig.core.catalogue import Can
from riktig.core.evaluation import reads
from riktig.core.job import (
    JOB_CIRCUIT_INPUTS,
    JOB_CIRCUITS,
    JOB_LOADS,
    JOB_PRACTICE,
    JOB_SIGNALS,
    JOB_SOURCES,
    JOB_SUPPLY,
    JOB_VENTILATION,
    CircuitInputs,
    Load,
    Practice,
    Supply,
)
from riktig.core.schematic import CIRCUITS, NETS, Circuits, Nets, all_circuits
from riktig.core.simulation.behaviour import behaviours_of
from riktig.core.simulation.conductors import conductors_of, drawn_conductors
from riktig.core.simulation.feeds import FeedFault, feed_faults
from riktig.core.simulation.inputs_follow import inputs_follow
from riktig.core.simulation.live import IsolationResult, LiveNet, isolations_of, live_off
from riktig.core.simulation.network import Network, build_network
from riktig.core.simulation.panel import control_volts
from riktig.core.simulation.pressed_together import pressed_together
from riktig.core.simulation.ratings import ratings_of
from riktig.core.simulation.restart import Restart, restarts_of
from riktig.core.simulation.run import Panel
from riktig.core.simulation.transfers import transfers_of
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = [
    "BEHAVIOURS",
    "CONDUCTORS",
    "FEED_FAULTS",
    "INPUTS_FOLLOW",
    "ISOLATIONS",
    "LIVE_WITH_MAIN_OFF",
    "NETWORK",
    "PRESSED_TOGETHER",
    "RATINGS",
    "RESTARTS",
    "TRANSFERS",
]


def _with_main_off(circuits: Circuits, nets: Nets) -> tuple[LiveNet, ...]:
    main = frozenset(d.id for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH))
    return live_off(circuits, nets, main)


def _isolations(
    circuits: Circuits, nets: Nets, loads: tuple[Load, ...], supply: Supply, practice: Practice
) -> tuple[IsolationResult, ...]:
    return isolations_of(Panel(circuits, nets, supply, control_volts(loads, supply, practice)))


def _restarts(circuits: Circuits, nets: Nets, inputs: CircuitInputs) -> tuple[Restart, ...]:
    loads, supply = inputs.loads, inputs.supply
    panel = Panel(circuits, nets, supply, control_volts(loads, supply, inputs.practice))
    return restarts_of(all_circuits(inputs), loads, inputs.signals, panel)


def _without_powers(loads: tuple[Load, ...]) -> tuple[Load, ...]:
    """The same loads, all of the same power: what starts and stops them does not follow from it.

    Which line a load sits on does; that is read from the circuits as they are drawn.
    """
    return tuple(replace(load, kw=1.0, hp=None, nameplate_a=None, cable_m=0.0, reason="") for load in loads)


_COMMANDED = reads(JOB_LOADS).derive("loads without their powers", _without_powers)
COMMANDS = (
    reads(JOB_CIRCUITS) & _COMMANDED & JOB_SUPPLY & JOB_PRACTICE & JOB_SIGNALS & JOB_VENTILATION & JOB_SOURCES
).derive("commands of loads", CircuitInputs)
"""What loads are started and stopped by: another power of a load leaves it as it is."""
LIVE_WITH_MAIN_OFF = (reads(CIRCUITS) & NETS).derive("live with the main switch off", _with_main_off)
ISOLATIONS = (reads(CIRCUITS) & NETS & JOB_LOADS & JOB_SUPPLY & JOB_PRACTICE).derive("what stays live", _isolations)
RESTARTS = (reads(CIRCUITS) & NETS & COMMANDS).derive("what restarts by itself", _restarts)


def _network(circuits: Circuits, nets: Nets, inputs: CircuitInputs) -> Network:
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    return build_network(circuits, nets, inputs.supply, volts, drawn_conductors(nets), {})


def _feeds(network: Network, inputs: CircuitInputs) -> tuple[FeedFault, ...]:
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    return feed_faults(network, volts, inputs.supply.voltage_v)


BEHAVIOURS = (reads(CIRCUITS) & JOB_CIRCUIT_INPUTS).derive_with_memory(
    "behaviours", lambda memory, circuits, inputs: behaviours_of(inputs, circuits, memory)
)
PRESSED_TOGETHER = (reads(CIRCUITS) & JOB_CIRCUIT_INPUTS).derive_with_memory(
    "buttons pressed together", lambda memory, circuits, inputs: pressed_together(inputs, circuits, memory)
)
"""Opposite buttons pressed at once, and what their contactors do."""
TRANSFERS = (reads(CIRCUITS) & JOB_CIRCUIT_INPUTS).derive_with_memory(
    "transfers between hand and automatic", lambda memory, circuits, inputs: transfers_of(inputs, circuits, memory)
)
INPUTS_FOLLOW = (reads(CIRCUITS) & JOB_CIRCUIT_INPUTS).derive_with_memory(
    "inputs follow their devices", lambda memory, circuits, inputs: inputs_follow(inputs, circuits, memory)
)
"""Each contact in the field of the controller moved, and whether it noticed."""
NETWORK = (reads(CIRCUITS) & NETS & JOB_CIRCUIT_INPUTS).derive("network", _network)
"""The circuits as they are drawn, as a network; with ideal parts."""
FEED_FAULTS = (reads(NETWORK) & JOB_CIRCUIT_INPUTS).derive("feeds of loads", _feeds)
RATINGS = (reads(NETWORK) & JOB_SUPPLY).derive("ratings", ratings_of)
"""For which voltage each coil, lamp and load is bought."""
CONDUCTORS = (reads(CIRCUITS) & NETS & WIRING & STRIPS).derive("conductors", conductors_of)
