"""The choices of practice as the Brief asks them: the question, and the default argued in one line."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.job import practice_values as values

__all__ = ["CHOICES", "Choice"]


@dataclass(frozen=True, slots=True)
class Choice:
    """One choice: the field of Practice, the question, the default argued, where it is asked."""

    field: str
    question: str
    argument: str
    values: type[Enum]
    group: str


_RULES = "Rules and supply"
_SIZES = "Starters and conductors"
_NAMES = "Names and marks"
_PLATE = "Plate, strips and earths"
_WORK = "The work"

CHOICES: tuple[Choice, ...] = (
    Choice("rulebook", "Rulebook", "The market the panel goes to decides; Europe here.", values.Rulebook, _RULES),
    Choice(
        "control_supply",
        "Control voltage from",
        "A transformer keeps control apart from the supply; one simple starter may do without.",
        values.ControlSupply,
        _RULES,
    ),
    Choice(
        "control_tap",
        "Control supply taken",
        "Ahead of it, control can be tested with the motor breaker off.",
        values.ControlTap,
        _RULES,
    ),
    Choice(
        "transformer_voltage",
        "A control transformer gives",
        "Coils, lamps and timers for the rulebook's voltage are on every shelf.",
        values.TransformerVoltage,
        _RULES,
    ),
    Choice(
        "dc_input",
        "24 V supplies fed from",
        "They are made for line voltage: a transformer in front of one adds heat, not safety.",
        values.DcInput,
        _RULES,
    ),
    Choice(
        "way_order",
        "Single-phase ways go",
        "In turn, the phase of a way follows from its place in the row.",
        values.WayOrder,
        _RULES,
    ),
    Choice(
        "distribution",
        "Several breakers fed by",
        "Looped wiring fits any make; a comb busbar is quicker from four breakers up.",
        values.Distribution,
        _RULES,
    ),
    Choice(
        "coordination",
        "After a short circuit a starter is",
        "Usual breakers give type 1; type 2 costs fuses or larger parts, and saves a standstill.",
        values.Coordination,
        _RULES,
    ),
    Choice(
        "star_delta_overload",
        "Star-delta overload sits",
        "Inside, it sees the winding in both connections and is a size smaller.",
        values.StarDeltaOverload,
        _SIZES,
    ),
    Choice(
        "terminal_c",
        "Clamps hold (North America)",
        "Unless every clamp is marked for 75 °C, the colder column counts.",
        values.TerminalTemperature,
        _SIZES,
    ),
    Choice(
        "ends",
        "Conductors and ends",
        "Flexible wire lies easily in duct, and a ferrule keeps its strands.",
        values.EndStyle,
        _SIZES,
    ),
    Choice(
        "overload_contact",
        "Overload contact",
        "Ahead of the coil, an earth fault on the return cannot bypass it.",
        values.OverloadContact,
        _SIZES,
    ),
    Choice(
        "overload_direction",
        "Overload contact wired",
        "In at the lower number, as the other contacts are.",
        values.OverloadDirection,
        _SIZES,
    ),
    Choice(
        "run_lamp",
        "Run lamp lit by",
        "An auxiliary shows that the contactor is in, not only that its coil is fed.",
        values.RunLamp,
        _SIZES,
    ),
    Choice(
        "trip_lamp",
        "Trip lamp lit by",
        "The overload trips most often; a contact at every breaker costs half a module and two wires.",
        values.TripLamp,
        _SIZES,
    ),
    Choice(
        "relay_commons",
        "Common of relay coils",
        "One bridge replaces eight terminations and leaves no loose end.",
        values.RelayCommons,
        _SIZES,
    ),
    Choice(
        "colours",
        "Conductor colours",
        "The rulebook's recommended colours read the same in every panel.",
        values.Colours,
        _NAMES,
    ),
    Choice(
        "maintained_colour",
        "Live with the switch off",
        "The rulebook's colour for it is the one an inspector looks for.",
        values.MaintainedColour,
        _NAMES,
    ),
    Choice(
        "phase_names",
        "The lines are called",
        "IEC 60445 (from memory) and the terminals of most parts say L1, L2, L3.",
        values.PhaseNames,
        _NAMES,
    ),
    Choice("tags", "Devices named by", "A running number holds when a symbol moves.", values.TagStyle, _NAMES),
    Choice(
        "numbering",
        "Wires numbered",
        "One number at one potential: whatever carries it may be joined.",
        values.Numbering,
        _NAMES,
    ),
    Choice(
        "new_between",
        "A potential that comes between gets",
        "A number of its own says nothing wrong when the circuit is changed again.",
        values.NewBetween,
        _NAMES,
    ),
    Choice(
        "motor_numbers",
        "A motor's conductors carry",
        "With the drawing gone, the far end still says which motor and which phase.",
        values.MotorNumbers,
        _NAMES,
    ),
    Choice("pairs", "A signal pair carries", "Two potentials, two numbers.", values.PairNumbers, _NAMES),
    Choice(
        "letters", "Tags begin with", "One letter is read at sight and fits the smallest label.", values.Letters, _NAMES
    ),
    Choice(
        "codes",
        "Codes for a scanner stand on",
        "Words are read without a tool; where a scanner is at the bench, a code saves typing.",
        values.CodesOn,
        _NAMES,
    ),
    Choice(
        "legends",
        "Legends on the door stand",
        "Capitals are read from farther off; the name above the function is one thought a line.",
        values.LegendCapitals,
        _NAMES,
    ),
    Choice(
        "device_labels",
        "The label of a device is put on",
        "A part that is replaced takes its own label with it; the one on the plate says what belongs there.",
        values.DeviceLabelsOn,
        _NAMES,
    ),
    Choice(
        "marker",
        "A wire marker says",
        "The number alone fits every marker and is read at a glance.",
        values.MarkerText,
        _NAMES,
    ),
    Choice(
        "marked", "Markers on", "A wire added later without its label is the one missed.", values.MarkedWires, _NAMES
    ),
    Choice(
        "earths",
        "Motor earth on",
        "Beside its circuit, one motor comes off with four neighbouring screws.",
        values.EarthScheme,
        _PLATE,
    ),
    Choice(
        "overload_mount",
        "Overload relays",
        "Plugged on it needs no wire and no room of its own; apart it keeps cool and is changed by itself.",
        values.OverloadMount,
        _PLATE,
    ),
    Choice(
        "field_cables",
        "Control cables to the field",
        "A cable that is cut stops one thing, and each is followed by itself.",
        values.FieldCables,
        _PLATE,
    ),
    Choice("strip_order", "Terminals ordered", "A cable's cores then lie side by side.", values.StripOrder, _PLATE),
    Choice(
        "fixing",
        "Rail and duct fixed by",
        "A tapped hole can be undone and done again; self-drilling is quicker.",
        values.Fixing,
        _PLATE,
    ),
    Choice(
        "shaft",
        "Shaft hole cut",
        "A measured centre can be cut true in the shop; a wall out of square is for the site.",
        values.ShaftFitting,
        _PLATE,
    ),
    Choice(
        "door_holes",
        "Holes in door and gland plate",
        "A punch leaves a clean edge and no hot swarf on the paint.",
        values.DoorHoles,
        _PLATE,
    ),
    Choice(
        "nameplate", "Nameplate", "Glued, it needs no hole that must be sealed again.", values.NameplateFixing, _PLATE
    ),
    Choice(
        "second_reading",
        "Before a cut, measured again by",
        "A spoiled door is a week lost; other eyes find what one's own repeat.",
        values.SecondReading,
        _PLATE,
    ),
    Choice(
        "inspected_by",
        "Visual inspection by",
        "A second pair of eyes sees what the first no longer does.",
        values.InspectedBy,
        _WORK,
    ),
    Choice(
        "deviation_signed_by",
        "A deviation is accepted by",
        "A shop of one can still sign; where there are two, the second sees what the first does not.",
        values.SignedBy,
        _WORK,
    ),
    Choice(
        "continuity",
        "Read from end to end",
        "A wire in the wrong clamp is found before power comes on, whoever landed it.",
        values.Continuity,
        _WORK,
    ),
    Choice(
        "reset_by",
        "What has tripped is put in again by",
        "Only who is skilled sees the cause, and nobody else belongs behind the door.",
        values.ResetBy,
        _WORK,
    ),
    Choice(
        "batching",
        "Wires cut",
        "Cutting alike is quicker than it wastes; ends are trimmed when they are in.",
        values.Batching,
        _WORK,
    ),
    Choice(
        "wiring_order",
        "Plate wired",
        "Thick wire needs the room; field terminals on top can be traced later.",
        values.WiringOrder,
        _WORK,
    ),
    Choice(
        "first_side",
        "Of a circuit first wired",
        "Power is in before the many small wires, and each group is checked when it is done.",
        values.FirstSide,
        _WORK,
    ),
    Choice("door_order", "Door wired", "The loom then lies on top and can be changed.", values.DoorOrder, _WORK),
)
