"""The values of the choices where practice differs. The words are those shown to the builder."""

from enum import Enum

__all__ = [
    "Batching", "CodesOn", "Colours", "Continuity", "ControlSupply", "ControlTap", "Coordination", "DcInput",
    "DeviceLabelsOn", "Distribution", "DoorOrder", "EarthScheme", "EndStyle", "FieldCables", "FirstSide", "Fixing",
    "InspectedBy", "LegendCapitals", "Letters", "MaintainedColour", "MarkedWires", "MarkerText", "MotorNumbers",
    "NewBetween", "Numbering", "OverloadContact", "OverloadDirection", "OverloadMount", "PairNumbers", "PhaseNames",
    "RelayCommons", "Rulebook", "RunLamp", "SecondReading", "ShaftFitting", "SignedBy", "StarDeltaOverload",
    "StripOrder", "TagStyle", "TerminalTemperature", "TransformerVoltage", "TripLamp", "WayOrder", "WiringOrder",
]  # fmt: skip


class Rulebook(Enum):
    """The rule set that every check follows."""

    IEC = "IEC 60204-1 and IEC 61439"
    UL = "UL 508A, NFPA 79 and NEC"

    @property
    def north_american(self) -> bool:
        """Whether conductors are AWG and the NEC's tables count."""
        return self is Rulebook.UL


class Colours(Enum):
    """Conductor colours."""

    RULEBOOK = "power black, control red, neutral light blue"
    THREE_PHASE = "phases brown, black and grey, control red, neutral light blue"
    OLD_PHASES = "older phases red, yellow and blue, neutral black, control grey"
    HOUSE = "the house's own table"


class EarthScheme(Enum):
    """Where the protective conductor of an outgoing circuit lands."""

    BESIDE = "a terminal beside its circuit"
    BAR = "the common earth bar"
    RAIL = "a terminal that earths through its rail"


class OverloadContact(Enum):
    """Where the overload's opening contact sits in the control path."""

    FIRST = "first, before the stop button"
    RETURN = "on the return side of the coil"


class RunLamp(Enum):
    """What lights the run lamp."""

    AUXILIARY = "an auxiliary contact of the contactor"
    COIL = "the coil's own supply"


class ControlTap(Enum):
    """Where the control supply is taken."""

    BEFORE = "ahead of the motor breaker"
    AFTER = "behind the motor breaker"

    @property
    def ahead(self) -> bool:
        """Whether control can be fed with the motor breaker off."""
        return self is ControlTap.BEFORE


class CodesOn(Enum):
    """Whether labels and cards carry a code for a scanner beside their words."""

    NOTHING = "nothing"
    LABELS = "device labels, cable tags, the nameplate and batch cards"


class LegendCapitals(Enum):
    """In what letters the legends on the door stand."""

    ALL = "all in capitals, the name above the function"
    AS_WRITTEN = "as written"


class DeviceLabelsOn(Enum):
    """Where the label of a device is put."""

    BOTH = "the part and the plate beside it"
    PART = "the part"
    PLATE = "the plate beside it"

    @property
    def copies(self) -> int:
        """How many labels a device has."""
        return 2 if self is DeviceLabelsOn.BOTH else 1


class MarkerText(Enum):
    """What a wire marker says."""

    NUMBER = "the number"
    NUMBER_AND_FAR_END = "the number and the far end"
    CLAMPS = "the clamps at both ends, no number"


class Fixing(Enum):
    """How rail and duct are fixed to the plate."""

    TAPPED = "drilled and tapped"
    SELF_DRILLING = "self-drilling screws"


class Batching(Enum):
    """To what length the wires of a batch are cut."""

    LONGEST = "to the longest of the batch, trimmed on fitting"
    EXACT = "each to its own length"


class DoorOrder(Enum):
    """When the door is wired."""

    LAST = "after the plate"
    FIRST = "before the plate"


class ShaftFitting(Enum):
    """Where the hole for the isolator's shaft is cut."""

    WORKSHOP = "in the workshop, from the measured centre"
    SITE = "on site, once the panel hangs"


class ControlSupply(Enum):
    """Where control voltage comes from."""

    BY_RULEBOOK = "as the rulebook asks"
    DIRECT = "line and neutral"
    TRANSFORMER = "a control transformer"
    DC = "a 24 V DC supply"


class OverloadMount(Enum):
    """Where the overload relay of a direct-on-line starter stands."""

    PLUGGED = "plugged under its contactor"
    APART = "on a base by itself, wired"


class OverloadDirection(Enum):
    """Which way the overload's contacts are wired."""

    UP = "in at 95, out at 96"
    DOWN = "in at 96, out at 95"


class TagStyle(Enum):
    """How devices are named."""

    COUNTED = "class letter and running number"
    PLACED = "class letter, sheet and column"
    PLACED_TWO = "class letter, sheet in two digits and column"


class Numbering(Enum):
    """How wires are numbered."""

    BY_NODE = "one running number a potential"
    BY_RUNG = "by rung, one number a potential"
    BY_PLACE = "by sheet and column"
    BY_WIRE = "a number of its own for every wire"
    BY_SHEET = "by sheet and running number"
    BY_GROUP = "by group digit and running number"
    HOUSE = "by the house's own scheme"


class NewBetween(Enum):
    """What number a potential gets that comes between numbered ones."""

    NEXT = "the next free number"
    SUFFIX = "its neighbour's number and a letter"


class MotorNumbers(Enum):
    """What a conductor to a motor is numbered by."""

    TAG = "the motor's tag and the phase letter"
    COUNTED = "a number as all others"


class PairNumbers(Enum):
    """How the two conductors of a signal pair are numbered."""

    SEPARATE = "a number each"
    SHARED = "one number with + and −"


class Letters(Enum):
    """The class letters that tags begin with."""

    SHORT = "one letter a class, as most shops read them"
    IEC = "the two letters of IEC 81346-2"
    OLD = "the older letters of IEC 750"
    AMERICAN = "the North American codes"
    HOUSE = "the house's own table"


class MarkedWires(Enum):
    """Which wires get markers."""

    ALL = "every wire"
    IN_DUCT = "those that enter duct"
    STICKERS = "no wire: a sticker with the number beside each clamp"
    NONE = "no wire"


class StripOrder(Enum):
    """How terminals are ordered in the strip."""

    BY_CIRCUIT = "by circuit, line, neutral and earth together"
    BY_FUNCTION = "by function, neutrals in one row, earths in one"


class FieldCables(Enum):
    """Whether what one circuit has in the field shares a control cable."""

    EACH = "a cable for each thing in the field"
    SHARED = "one control cable for all of a circuit"


class Coordination(Enum):
    """What is asked of starters after a short circuit (IEC 60947-4-1 8.2.5.1, from memory)."""

    TYPE_1 = "type 1, may need repair"
    TYPE_2 = "type 2, fit for further use"


class Distribution(Enum):
    """How the supply reaches several breakers."""

    LOOPS = "wires looped from breaker to breaker"
    BLOCKS = "distribution blocks"
    COMB = "a comb bar"
    BAR = "a bar system"


class RelayCommons(Enum):
    """How the common of relay coils is joined."""

    BRIDGES = "plug-in bridges of eight"
    LOOPS = "looped wires"


class EndStyle(Enum):
    """Conductors and how their ends are made."""

    FERRULES = "flexible, with ferrules"
    CRIMPS = "stranded, with crimps"


class WiringOrder(Enum):
    """Order of the groups when the plate is wired."""

    THICK_FIRST = "thick first, field terminals last"
    SUPPLY_FIRST = "supply terminals, power, then control"
    CONTROL_FIRST = "control first"
    BY_CIRCUIT = "circuit by circuit, power before control"


class DoorHoles(Enum):
    """How holes are made in door, sides and gland plate."""

    PUNCH = "punched"
    HOLE_SAW = "cut with a hole saw"


class NameplateFixing(Enum):
    """How the nameplate is held."""

    GLUED = "glued"
    RIVETED = "riveted"


class InspectedBy(Enum):
    """Who makes the visual inspection."""

    ANOTHER = "somebody who built nothing of it"
    ANYONE = "anyone who may inspect"


class SignedBy(Enum):
    """Who accepts that a clause fails and stays so."""

    ONE = "one person who may sign"
    TWO = "two people who may sign"


class Continuity(Enum):
    """What is read from end to end before power comes on."""

    EVERY = "every conductor"
    BY_FUNCTION = "power and earth; control wires by their function"


class SecondReading(Enum):
    """Who repeats a measurement before a cut."""

    ANOTHER = "a second person"
    SAME = "the same person, afresh"
    NOBODY = "nobody"


class MaintainedColour(Enum):
    """Colour of conductors that stay live with the main switch off."""

    RULEBOOK = "as the rulebook has it"
    ORANGE = "orange"
    YELLOW = "yellow"


class WayOrder(Enum):
    """How single-phase ways are spread over the phases."""

    IN_TURN = "first, second, third phase in turn"
    EVEN = "each to the phase that carries least"


class TerminalTemperature(Enum):
    """What the clamps are marked for; decides the column of the North American tables."""

    C60 = "60 °C up to 100 A, 75 °C above"
    C75 = "75 °C marked throughout"


class StarDeltaOverload(Enum):
    """Where the overload of a star-delta starter sits."""

    INSIDE = "inside the triangle"
    LINE = "in the line"


class PhaseNames(Enum):
    """What the three lines of the supply are called."""

    L = "L1, L2, L3"
    RST = "R, S, T"
    RYB = "R, Y, B"

    @property
    def names(self) -> tuple[str, ...]:
        """The name of each line, in phase order."""
        return tuple(self.value.split(", "))

    def of(self, line: str) -> str:
        """The name of a line by its marking on the supply (“L1”); of anything else the marking itself."""
        return self.names[int(line[1]) - 1] if line in ("L1", "L2", "L3") else line


class TransformerVoltage(Enum):
    """What a control transformer gives."""

    RULEBOOK = "230 V, in North America 120 V"
    V110 = "110 V"
    V48 = "48 V"
    V24 = "24 V"


class DcInput(Enum):
    """What a 24 V DC supply is fed from."""

    NEUTRAL = "line and neutral where a neutral arrives, else as control is"
    LINES = "two lines"
    TRANSFORMER = "the control transformer, where there is one"


class FirstSide(Enum):
    """Which side of a circuit is wired first within its group."""

    GROUPS = "what its group says: power, neutrals, control"
    LIVE = "the live side, returns after it"
    RETURN = "neutral and returns, the live side after them"


class TripLamp(Enum):
    """What lights the trip lamp of a starter."""

    OVERLOAD = "what guards the motor against overload"
    BREAKER_TOO = "that, and the breaker when it is off or has tripped"


class ResetBy(Enum):
    """Who puts a breaker or an overload that has tripped in again."""

    SKILLED = "a skilled person at the panel"
    INSTRUCTED = "an instructed person, told by telephone"
