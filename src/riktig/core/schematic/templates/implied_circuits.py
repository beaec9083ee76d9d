"""The circuits that the Brief implies beside those of the job, and what all of them stand on."""

from dataclasses import replace

from riktig.core.job import (
    IMPLIED,
    Circuit,
    CircuitInputs,
    Command,
    ControlSupply,
    Form,
    Load,
    Recipe,
    Ventilation,
    Wetting,
)
from riktig.core.schematic.templates.commands import WITH_STATUS
from riktig.core.schematic.templates.controls import ControllerPoint
from riktig.core.schematic.templates.field_signals import is_value_given, is_value_read
from riktig.core.schematic.templates.supply_context import HELD, SupplyContext, supply_context

__all__ = ["all_circuits", "controller_points", "job_supply_context"]

ON_24_V = {Recipe.SCREEN, Recipe.NETWORK, Recipe.CONTROLLER, Recipe.SENSOR_TERMINALS}
"""Recipes that ask for a 24 V supply."""


def job_supply_context(inputs: CircuitInputs) -> SupplyContext:
    """What the recipes of a job stand on."""
    circuits, loads = inputs.circuits, inputs.loads
    recipes = {circuit.recipe for circuit in circuits}
    wanted = bool(recipes & ON_24_V or controller_points(circuits, loads)) or any(
        load.command is Command.CONTROLLER for load in loads
    )
    base = supply_context(loads, inputs.supply, inputs.practice, inputs.signals, inputs.sources, dc_asked=wanted)
    main = next((c for c in circuits if c.recipe is Recipe.PHASE_MONITOR), None)
    everything = main is not None and main.param("holds", "single-phase ways") == "all loads"
    return replace(
        base,
        lamp_test=Recipe.LAMP_TEST in recipes,
        way_lines=HELD[: len(base.lines)] if main else base.way_lines,
        load_lines=HELD[: len(base.lines)] if everything else base.load_lines,
    )


def controller_points(circuits: tuple[Circuit, ...], loads: tuple[Load, ...]) -> list[ControllerPoint]:
    """The points of the controller that circuits end at: what says that a contactor is in, the lamp of a screen."""
    names = {load.id: load.name for load in loads}
    points: list[ControllerPoint] = []
    for circuit in circuits:
        if circuit.recipe in WITH_STATUS and circuit.param("status to the controller", "no") == "yes":
            name = names.get(circuit.load, "") if circuit.load else ""
            points.append(ControllerPoint(f"{circuit.id}.status", f"{name} runs", True))
            if circuit.recipe is Recipe.REVERSING:
                points.append(ControllerPoint(f"{circuit.id}.status2", f"{name} runs back", True))
        elif circuit.recipe is Recipe.SCREEN and circuit.param("door lamp", "healthy") != "none":
            points.append(
                ControllerPoint(f"{circuit.id}.lamp", f"panel {circuit.param('door lamp', 'healthy')}", False)
            )
    return points


def all_circuits(inputs: CircuitInputs) -> tuple[Circuit, ...]:
    """The circuits of the job and those that the Brief implies, in the order in which they are drawn."""
    ground = job_supply_context(inputs)
    circuits, loads = inputs.circuits, inputs.loads
    dc_contacts = any(
        is_value_read(s) or is_value_given(s, ()) or (s.wetting is Wetting.DC and s.form is Form.DIGITAL)
        for s in inputs.signals
    )
    commanded = any(load.command is Command.CONTROLLER for load in loads)
    has_controller = dc_contacts or bool(controller_points(circuits, loads)) or commanded
    fed = bool(circuits[1:]) or has_controller or ground.limited
    wanted = {
        Recipe.CONTROL_SUPPLY: ground.control is ControlSupply.TRANSFORMER and fed,
        Recipe.DC_SUPPLY: ground.dc and fed,
        Recipe.LIMITED_SUPPLY: ground.limited,
        Recipe.CONTROLLER: has_controller,
        Recipe.THROUGH_FEED: inputs.supply.through_a > 0,
        Recipe.VENTILATION: inputs.ventilation is Ventilation.FAN,
    }
    by_id = {circuit.id: circuit for circuit in circuits}
    implied = [by_id.get(cid, Circuit(cid, recipe)) for recipe, cid in IMPLIED.items() if wanted[recipe]]
    first = [c for c in circuits if c.recipe is Recipe.INCOMER]
    rest = [c for c in circuits if c.recipe is not Recipe.INCOMER and c.id not in IMPLIED.values()]
    unbound = [c for c in rest if c.load is None]
    strayed = [c for c in circuits if c.id in IMPLIED.values() and not wanted[c.recipe] and c.changes]
    return (*first, *implied, *unbound, *(c for c in rest if c.load is not None), *strayed)
