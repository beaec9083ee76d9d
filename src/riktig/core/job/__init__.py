"""The design document: frozen values, one file a noun. Everything else is derived from it.

Words: a *job* is one panel; a *load* what the customer wants run; a *circuit* is made from a *recipe*, with *changes*.
"""

from riktig.core.ids import (
    CircuitId,
    ContactRef,
    DeviceId,
    ElementId,
    LoadId,
    PinRef,
    SignalId,
    SourceId,
    circuit_of,
    device_id,
    device_of_element,
    read_contact,
    read_pin,
    role_of,
)
from riktig.core.job.approval_marks import ApprovalMarks
from riktig.core.job.choices import CHOICES, Choice
from riktig.core.job.circuit import (
    IMPLIED,
    INCOMER_ID,
    Act,
    Change,
    Circuit,
    Insertable,
    OwnDevice,
    OwnRung,
    Param,
    Recipe,
)
from riktig.core.job.design_reason import DesignReason
from riktig.core.job.door import DoorFix, DoorPlace, Opening, Surface
from riktig.core.job.edits import (
    PLATE_LESS,
    add_load,
    add_signal,
    add_source,
    change_load,
    change_signal,
    change_source,
    new_job,
    override,
    pick_part,
    remove_load,
    remove_part,
    remove_signal,
    remove_source,
    set_box,
    set_enclosure,
    set_heading,
    set_marks,
    set_part,
    set_practice,
    set_script,
    set_supply,
)
from riktig.core.job.enclosure import Enclosure, EnclosureMounting, EntrySide, HingeSide, Ventilation
from riktig.core.job.fields import (
    ChangedLoadFields,
    ChangedSignalFields,
    EnclosureFields,
    FurtherLoadFields,
    HeadingFields,
    LoadFields,
    MarkFields,
    PracticeFields,
    SignalFields,
    SourceFields,
    SupplyFields,
)
from riktig.core.job.house_tables import POTENTIALS, SCHEME_FIELDS, ClassLetters, ReservedNumber, scheme_fault
from riktig.core.job.inputs import JOB_CIRCUIT_INPUTS, CircuitInputs, circuit_inputs
from riktig.core.job.job import Job
from riktig.core.job.label_sheet import LabelForm, LabelSheet
from riktig.core.job.label_words import LabelText, LabelWord, UnmarkedWire
from riktig.core.job.limits import LONGEST_PATH, MOST_WRITTEN, beyond_limits
from riktig.core.job.load import (
    KW_PER_HP,
    LARGEST_HP,
    LARGEST_KW,
    Load,
    read_count,
    read_current,
    read_power,
    read_power_hp,
    read_quantity,
)
from riktig.core.job.load_values import (
    Access,
    CableLaying,
    Command,
    Duty,
    Fitting,
    Isolation,
    LoadKind,
    Protection,
    Start,
)
from riktig.core.job.numbering import FoundNames, GivenNumber, GivenTag
from riktig.core.job.override import Override, load_of_value, word_of_value
from riktig.core.job.own_cable import MOST_CORES, OwnCable
from riktig.core.job.own_jumper import OwnJumper
from riktig.core.job.own_part import BODY_COLOURS, OwnHole, OwnPart, Pick
from riktig.core.job.own_strip import OwnStrip
from riktig.core.job.person import Person
from riktig.core.job.plate import DuctFix, Join, JoinHow, Placement, PlateFix, RailFix, Spot
from riktig.core.job.practice import COLOUR_NAMES, DC_COLOURS, Practice
from riktig.core.job.practice_values import (
    Batching,
    CodesOn,
    Colours,
    ControlSupply,
    ControlTap,
    Coordination,
    DcInput,
    DeviceLabelsOn,
    Distribution,
    DoorHoles,
    DoorOrder,
    EarthScheme,
    EndStyle,
    FieldCables,
    FirstSide,
    Fixing,
    InspectedBy,
    LegendCapitals,
    Letters,
    MaintainedColour,
    MarkedWires,
    MarkerText,
    MotorNumbers,
    NameplateFixing,
    NewBetween,
    Numbering,
    OverloadContact,
    OverloadDirection,
    OverloadMount,
    PairNumbers,
    PhaseNames,
    RelayCommons,
    ResetBy,
    Rulebook,
    RunLamp,
    SecondReading,
    ShaftFitting,
    SignedBy,
    StarDeltaOverload,
    StripOrder,
    TagStyle,
    TerminalTemperature,
    TransformerVoltage,
    TripLamp,
    WayOrder,
    WiringOrder,
)
from riktig.core.job.purchase import Purchase
from riktig.core.job.reading import (
    JOB_CABLES,
    JOB_CIRCUITS,
    JOB_CLIENT,
    JOB_DOOR,
    JOB_DOORS,
    JOB_DRAWING_NUMBER,
    JOB_ENCLOSURE,
    JOB_JOINS,
    JOB_JUMPERS,
    JOB_LABEL_SHEETS,
    JOB_LABEL_TEXTS,
    JOB_LAST_NUMBER,
    JOB_LID_GAP,
    JOB_LOADS,
    JOB_MADE,
    JOB_MAKER,
    JOB_MARKS,
    JOB_NUMBER,
    JOB_NUMBERS,
    JOB_ONE_CONDUCTOR,
    JOB_OPENINGS,
    JOB_OVERRIDES,
    JOB_PARTS,
    JOB_PICKS,
    JOB_PLATE,
    JOB_PRACTICE,
    JOB_PRINTED,
    JOB_REVISION,
    JOB_SCRIPTS,
    JOB_SERIAL,
    JOB_SHELF,
    JOB_SIGNALS,
    JOB_SOURCES,
    JOB_SOURCES_ASKED,
    JOB_STANDARD,
    JOB_STRIPS,
    JOB_SUPPLY,
    JOB_TAGS,
    JOB_TITLE,
    JOB_UNMARKED,
    JOB_VENTILATION,
    JOB_WIRE_ORDERS,
)
from riktig.core.job.script import OwnScript
from riktig.core.job.shelf import Offcut
from riktig.core.job.signal import Direction, Form, Signal, Source, Wetting
from riktig.core.job.supply import EARTHED_LINE, HIGH_LINE, Earthing, Supply, SupplySystem, UpstreamDevice
from riktig.core.job.wire_order import WireOrder

__all__ = [
    "BODY_COLOURS", "CHOICES", "COLOUR_NAMES", "DC_COLOURS", "EARTHED_LINE", "HIGH_LINE", "IMPLIED", "INCOMER_ID",
    "JOB_CABLES", "JOB_CIRCUITS", "JOB_CIRCUIT_INPUTS", "JOB_CLIENT", "JOB_DOOR", "JOB_DOORS", "JOB_DRAWING_NUMBER",
    "JOB_ENCLOSURE", "JOB_JOINS", "JOB_JUMPERS", "JOB_LABEL_SHEETS", "JOB_LABEL_TEXTS", "JOB_LAST_NUMBER",
    "JOB_LID_GAP", "JOB_LOADS", "JOB_MADE", "JOB_MAKER", "JOB_MARKS", "JOB_NUMBER", "JOB_NUMBERS", "JOB_ONE_CONDUCTOR",
    "JOB_OPENINGS", "JOB_OVERRIDES", "JOB_PARTS", "JOB_PICKS", "JOB_PLATE", "JOB_PRACTICE", "JOB_PRINTED",
    "JOB_REVISION", "JOB_SCRIPTS", "JOB_SERIAL", "JOB_SHELF", "JOB_SIGNALS", "JOB_SOURCES", "JOB_SOURCES_ASKED",
    "JOB_STANDARD", "JOB_STRIPS", "JOB_SUPPLY", "JOB_TAGS", "JOB_TITLE", "JOB_UNMARKED", "JOB_VENTILATION",
    "JOB_WIRE_ORDERS", "KW_PER_HP", "LARGEST_HP", "LARGEST_KW", "LONGEST_PATH", "MOST_CORES", "MOST_WRITTEN",
    "PLATE_LESS", "POTENTIALS", "SCHEME_FIELDS", "Access", "Act", "ApprovalMarks", "Batching", "CableLaying", "Change",
    "ChangedLoadFields", "ChangedSignalFields", "Choice", "Circuit", "CircuitId", "CircuitInputs", "ClassLetters",
    "CodesOn", "Colours", "Command", "ContactRef", "ControlSupply", "ControlTap", "Coordination", "DcInput",
    "DesignReason", "DeviceId", "DeviceLabelsOn", "Direction", "Distribution", "DoorFix", "DoorHoles", "DoorOrder",
    "DoorPlace", "DuctFix", "Duty", "EarthScheme", "Earthing", "ElementId", "Enclosure", "EnclosureFields",
    "EnclosureMounting", "EndStyle", "EntrySide", "FieldCables", "FirstSide", "Fitting", "Fixing", "Form", "FoundNames",
    "FurtherLoadFields", "GivenNumber", "GivenTag", "HeadingFields", "HingeSide", "Insertable", "InspectedBy",
    "Isolation", "Job", "Join", "JoinHow", "LabelForm", "LabelSheet", "LabelText", "LabelWord", "LegendCapitals",
    "Letters", "Load", "LoadFields", "LoadId", "LoadKind", "MaintainedColour", "MarkFields", "MarkedWires",
    "MarkerText", "MotorNumbers", "NameplateFixing", "NewBetween", "Numbering", "Offcut", "Opening", "OverloadContact",
    "OverloadDirection", "OverloadMount", "Override", "OwnCable", "OwnDevice", "OwnHole", "OwnJumper", "OwnPart",
    "OwnRung", "OwnScript", "OwnStrip", "PairNumbers", "Param", "Person", "PhaseNames", "Pick", "PinRef", "Placement",
    "PlateFix", "Practice", "PracticeFields", "Protection", "Purchase", "RailFix", "Recipe", "RelayCommons",
    "ReservedNumber", "ResetBy", "Rulebook", "RunLamp", "SecondReading", "ShaftFitting", "Signal", "SignalFields",
    "SignalId", "SignedBy", "Source", "SourceFields", "SourceId", "Spot", "StarDeltaOverload", "Start", "StripOrder",
    "Supply", "SupplyFields", "SupplySystem", "Surface", "TagStyle", "TerminalTemperature", "TransformerVoltage",
    "TripLamp", "UnmarkedWire", "UpstreamDevice", "Ventilation", "WayOrder", "Wetting", "WireOrder", "WiringOrder",
    "add_load", "add_signal", "add_source", "beyond_limits", "change_load", "change_signal", "change_source",
    "circuit_inputs", "circuit_of", "device_id", "device_of_element", "load_of_value", "new_job", "override",
    "pick_part", "read_contact", "read_count", "read_current", "read_pin", "read_power", "read_power_hp",
    "read_quantity", "remove_load", "remove_part", "remove_signal", "remove_source", "role_of", "scheme_fault",
    "set_box", "set_enclosure", "set_heading", "set_marks", "set_part", "set_practice", "set_script", "set_supply",
    "word_of_value",
]  # fmt: skip
