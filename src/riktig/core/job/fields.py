"""The fields that edits may give, each with its type: a field that is left out stays as it is.

A test holds them against the document's own types.
"""

from typing import TypedDict

from riktig.core.ids import LoadId, SourceId
from riktig.core.job.enclosure import EnclosureMounting, EntrySide, HingeSide, Ventilation
from riktig.core.job.house_tables import ClassLetters, ReservedNumber
from riktig.core.job.label_words import LabelWord
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
from riktig.core.job.practice_values import (
    Batching,
    CodesOn,
    Colours,
    Continuity,
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
from riktig.core.job.signal import Direction, Form, Wetting
from riktig.core.job.supply import Earthing, SupplySystem, UpstreamDevice

__all__ = [
    "ChangedLoadFields",
    "ChangedSignalFields",
    "EnclosureFields",
    "FurtherLoadFields",
    "HeadingFields",
    "LoadFields",
    "MarkFields",
    "PracticeFields",
    "SignalFields",
    "SourceFields",
    "SupplyFields",
]


class FurtherLoadFields(TypedDict, total=False):
    """The fields of a load beside its name and its rated output in kW."""

    place: str
    nameplate_a: float | None
    cable_m: float
    run_lamp: bool
    trip_lamp: bool
    hp: float | None
    kind: LoadKind
    phases: int
    voltage_v: float | None
    start: Start
    command: Command
    isolation: Isolation
    duty: Duty
    protection: Protection
    access: Access
    fitting: Fitting
    service_factor: float
    level_alarm: bool
    maintained: bool
    phase: int
    reason: str
    neutral_of: LoadId | None
    laying: CableLaying
    cables_together: int
    stop_float_m: float
    start_float_m: float
    alarm_float_m: float


class LoadFields(FurtherLoadFields, total=False):
    """The fields of a load that an edit may give."""

    kw: float | None


class ChangedLoadFields(LoadFields, total=False):
    """The same, and its name."""

    name: str


class SupplyFields(TypedDict, total=False):
    """The fields of the supply."""

    voltage_v: float
    voltage_to_neutral_v: float
    frequency_hz: float
    neutral: bool
    earthing: Earthing
    upstream_a: float
    fault_ka: float
    name: str
    through_a: float
    fed_from: str
    system: SupplySystem
    upstream_device: UpstreamDevice
    transformer_kva: float
    transformer_uk: float
    feeder_m: float
    feeder_mm2: float


class EnclosureFields(TypedDict, total=False):
    """The fields of the enclosure."""

    width: float
    height: float
    depth: float
    plate_width: float
    plate_height: float
    plate_depth: float
    plate_thickness: float
    hinge: HingeSide
    entry: EntrySide
    rating: str
    material: str
    ambient_c: float
    field_entry: EntrySide
    standing: EnclosureMounting
    ventilation: Ventilation
    room_c: float
    environment: str
    doors: int
    door_thickness: float
    plate_left: float | None
    plate_top: float | None
    door_left: float | None
    door_top: float | None
    above_floor: float | None


class PracticeFields(TypedDict, total=False):
    """The choices of practice."""

    rulebook: Rulebook
    colours: Colours
    earths: EarthScheme
    overload_contact: OverloadContact
    overload_mount: OverloadMount
    run_lamp: RunLamp
    control_tap: ControlTap
    codes: CodesOn
    legends: LegendCapitals
    device_labels: DeviceLabelsOn
    label_language: str
    label_words: tuple[LabelWord, ...]
    marker: MarkerText
    fixing: Fixing
    batching: Batching
    door_order: DoorOrder
    shaft: ShaftFitting
    spare_share: float
    spare_terminals: float
    spare_duct: float
    finger_room: float
    door_loop: float
    end_allowance: float
    batch_minutes: float
    hour_price: float
    metre_price: float
    wire_spare: float
    duct_width: float
    bar_length: float
    saw_kerf: float
    bar_trim: float
    lid_gap: float
    door_holes: DoorHoles
    nameplate: NameplateFixing
    shaft_in_switch: float
    shaft_in_handle: float
    handle_tolerance: float
    wall_skew: float
    reading_tolerance: float
    long_piece: float
    house_colours: tuple[str, ...]
    dc_colours: tuple[str, ...]
    maintained_colour: MaintainedColour
    tags: TagStyle
    numbering: Numbering
    reserved_numbers: int
    number_step: int
    reserved: tuple[ReservedNumber, ...]
    scheme: str
    new_between: NewBetween
    motor_numbers: MotorNumbers
    pairs: PairNumbers
    letters: Letters
    house_letters: tuple[ClassLetters, ...]
    marked: MarkedWires
    strip_order: StripOrder
    field_cables: FieldCables
    coordination: Coordination
    distribution: Distribution
    relay_commons: RelayCommons
    ends: EndStyle
    overload_direction: OverloadDirection
    wiring_order: WiringOrder
    second_reading: SecondReading
    inspected_by: InspectedBy
    deviation_signed_by: SignedBy
    continuity: Continuity
    control_supply: ControlSupply
    way_order: WayOrder
    terminal_c: TerminalTemperature
    star_delta_overload: StarDeltaOverload
    phase_names: PhaseNames
    transformer_voltage: TransformerVoltage
    dc_input: DcInput
    first_side: FirstSide
    trip_lamp: TripLamp
    reset_by: ResetBy


class SignalFields(TypedDict, total=False):
    """The fields of a field device."""

    place: str
    direction: Direction
    form: Form
    wetting: Wetting
    watts: float
    load: LoadId | None
    source: SourceId | None


class ChangedSignalFields(SignalFields, total=False):
    """The same, and its name."""

    name: str


class SourceFields(TypedDict, total=False):
    """The fields of a further supply."""

    name: str
    voltage_v: float
    comes_from: str
    direct: bool | None
    protected_a: float


class MarkFields(TypedDict, total=False):
    """The marks of approval."""

    enclosure: str
    panel: str
    number: str
    date: str


class HeadingFields(TypedDict, total=False):
    """What stands at the head of a job."""

    number: str
    title: str
    client: str
    drawing_number: str
    revision: str
    maker: str
    serial: str
    made: str
    standard: str
    sources_asked: bool
