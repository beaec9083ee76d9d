"""The recipe book: what each recipe is for, what can be chosen about it, and what makes it."""

from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.job import Circuit, Recipe
from riktig.core.schematic.templates import controls, emergency, services, supplies
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit
from riktig.core.schematic.templates.supply_context import ONLY_SOURCE, PLACES, SupplyContext

__all__ = ["CIRCUIT_TEMPLATES", "CircuitTemplate", "Parameter", "circuit_template_of"]

Make = Callable[[Circuit, SupplyContext], BuiltCircuit]


@dataclass(frozen=True, slots=True)
class Parameter:
    """What can be chosen about a recipe: its name, the choices with the default first."""

    name: str
    choices: tuple[str, ...]

    @property
    def default(self) -> str:
        """What counts until something else is chosen."""
        return self.choices[0]


@dataclass(frozen=True, slots=True)
class CircuitTemplate:
    """One recipe: when to use it in one line, its parameters. ``make`` is None where the Brief asks for it."""

    recipe: Recipe
    when: str
    params: tuple[Parameter, ...] = ()
    make: Make | None = None


_BLOCK = Parameter("mechanical interlock", ("yes", "no"))
_PUMP = Parameter("pump", ("empties", "fills"))
_STATUS = Parameter("status to the controller", ("no", "yes"))

_SOURCE = Parameter("source", (ONLY_SOURCE, *(f"{place} of the Brief" for place in PLACES)))
"""Which of the supplies from elsewhere that the Brief names."""

CIRCUIT_TEMPLATES: tuple[CircuitTemplate, ...] = (
    CircuitTemplate(
        Recipe.INCOMER,
        "The supply comes in: terminals, main switch, earth bar.",
        (Parameter("handle inside", ("by the rulebook", "yes", "no")),),
    ),
    CircuitTemplate(Recipe.DIRECT_ON_LINE, "A motor that may start at full voltage.", (_PUMP, _STATUS)),
    CircuitTemplate(Recipe.REVERSING, "A reversing motor.", (_BLOCK, _STATUS)),
    CircuitTemplate(Recipe.STAR_DELTA, "A larger motor with six ends and a light start.", (_BLOCK, _PUMP, _STATUS)),
    CircuitTemplate(
        Recipe.SOFT_START,
        "A motor whose start must be gentle on the supply or the machine.",
        (Parameter("bypass", ("built in", "contactor")), _PUMP),
    ),
    CircuitTemplate(Recipe.DRIVE, "A motor whose speed is set.", (_PUMP,)),
    CircuitTemplate(Recipe.CONTACTOR, "A heater, lights or another load that is switched.", (_STATUS,)),
    CircuitTemplate(Recipe.WAY, "A load that needs protection and nothing else."),
    CircuitTemplate(
        Recipe.MAINTAINED,
        "Light, socket and heater that stay alive with the main switch off.",
        (Parameter("socket", ("maintained", "none")),),
        lambda circuit, context: services.maintained(circuit, None, context),
    ),
    CircuitTemplate(
        Recipe.CONTROL_SUPPLY, "Control apart from the supply: the rulebook asks for it from two starters up."
    ),
    CircuitTemplate(Recipe.DC_SUPPLY, "24 V for relays, sensors and a controller, in protected groups."),
    CircuitTemplate(Recipe.LIMITED_SUPPLY, "A supply so small that what hangs on it need not be judged."),
    CircuitTemplate(
        Recipe.CONTROLLER,
        "Loads or contacts that a controller commands or reads.",
        (Parameter(controls.INPUTS_FROM, controls.FIRST_BYTES), Parameter(controls.OUTPUTS_FROM, controls.FIRST_BYTES)),
    ),
    CircuitTemplate(
        Recipe.EMERGENCY_STOP,
        "One emergency stop with a monitored reset; drops out the supply to every starter.",
        (Parameter("built of", (emergency.THREE_RELAYS, emergency.SAFETY_RELAY)),),
        emergency.emergency_stop,
    ),
    CircuitTemplate(
        Recipe.LEVEL_ALARM, "A tank that must not run over, with no pump of its own.", (), controls.level_alarm
    ),
    CircuitTemplate(
        Recipe.PHASE_MONITOR,
        "Loads that must drop when a phase is lost or the main contactor is let go.",
        (
            Parameter("holds", ("single-phase ways", "all loads")),
            Parameter("monitor", ("yes", "no")),
            Parameter(supplies.SWITCHED_BY, (supplies.SELECTOR, supplies.MAIN_SWITCH)),
            Parameter(supplies.DOOR_SWITCH, ("no", "yes")),
            Parameter("rated A", ("as the supply", "25", "40", "63")),
        ),
        supplies.phase_monitor,
    ),
    CircuitTemplate(
        Recipe.PHASE_LAMPS,
        "To see at the door which phase is gone.",
        (Parameter("colours", ("white", "red, yellow, blue")),),
        supplies.phase_lamps,
    ),
    CircuitTemplate(Recipe.THROUGH_FEED, "A further panel hangs on the same feeder.", (), supplies.through_feed),
    CircuitTemplate(Recipe.VENTILATION, "A box whose skin does not give off its heat: filter and fan."),
    CircuitTemplate(
        Recipe.SOCKET,
        "A socket for the laptop.",
        (
            Parameter(
                "fed",
                (
                    "maintained, ahead of the main switch",
                    "behind the panel's own switch",
                    "outside source, separately protected",
                ),
            ),
            _SOURCE,
        ),
        services.socket,
    ),
    CircuitTemplate(Recipe.SURGE, "A site with overhead lines or sensitive electronics.", (), supplies.surge),
    CircuitTemplate(
        Recipe.SIGNALLED_WAYS,
        "Ways whose tripping must be seen at the door.",
        (Parameter("ways", ("3", "1", "2", "4", "6")), Parameter("rated A", ("10", "6", "16", "20"))),
        services.signalled_ways,
    ),
    CircuitTemplate(Recipe.LAMP_TEST, "A dark lamp must mean what it says.", (), controls.lamp_test),
    CircuitTemplate(
        Recipe.SEASON_SWITCH,
        "Plant that runs in one season only.",
        (Parameter("first season", ("summer", "dry")), Parameter("second season", ("winter", "wet"))),
        controls.season_switch,
    ),
    CircuitTemplate(
        Recipe.FOREIGN_INTERLOCK,
        "Another panel must agree, by a live signal of its own.",
        (_SOURCE,),
        controls.foreign_interlock,
    ),
    CircuitTemplate(Recipe.VALVE, "A valve that is opened from the door.", (), controls.valve),
    CircuitTemplate(
        Recipe.FUSED_BRANCHES, "Two branches that must not take each other down.", (), controls.fused_branches
    ),
    CircuitTemplate(
        Recipe.SELECTED_LAMP, "Hand, off, auto for something a relay switches.", (), controls.selected_lamp
    ),
    CircuitTemplate(Recipe.LIT_BUTTON, "A button that shows what it started.", (), controls.lit_button),
    CircuitTemplate(
        Recipe.SCREEN, "A screen on the door.", (Parameter("door lamp", ("healthy", "fault", "none")),), controls.screen
    ),
    CircuitTemplate(
        Recipe.NETWORK,
        "Controller, screen and devices that talk.",
        (Parameter("devices", ("2", "1", "3", "4", "6")),),
        controls.network,
    ),
    CircuitTemplate(
        Recipe.SENSOR_TERMINALS,
        "Many three-wire sensors on one strip.",
        (Parameter("sensors", ("4", "2", "6", "8")),),
        controls.sensor_terminals,
    ),
    CircuitTemplate(
        Recipe.FREE, "What no recipe has: rungs and devices of your own.", (), lambda circuit, context: ([], [], [])
    ),
)


def circuit_template_of(recipe: Recipe) -> CircuitTemplate:
    """The entry of a recipe.

    Raises:
        KeyError: the book has none.
    """
    for circuit_template in CIRCUIT_TEMPLATES:
        if circuit_template.recipe is recipe:
            return circuit_template
    raise KeyError(recipe)
