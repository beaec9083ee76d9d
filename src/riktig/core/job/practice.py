"""Practice: where the trade disagrees, the job chooses."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError
from riktig.core.job.house_tables import POTENTIALS, ClassLetters, ReservedNumber, scheme_fault
from riktig.core.job.label_words import LabelWord
from riktig.core.job.number_ranges import PRACTICE_LIMITS
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

__all__ = ["COLOUR_NAMES", "DC_COLOURS", "HOUSE_COLOURS", "Practice"]

COLOUR_NAMES = ("black", "brown", "grey", "red", "yellow", "blue", "light blue", "white", "orange", "violet")
"""Insulation colours that are sold; green and green-yellow are kept for earth."""
HOUSE_COLOURS = ("black", "black", "black", "light blue", "red", "blue")
"""L1, L2, L3, neutral, AC control, DC control: the rulebook's, until the house says otherwise."""

DC_COLOURS = ("0 V", "digital inputs", "signal +", "signal −")
"""What a house may colour apart from its DC control."""


@dataclass(frozen=True, slots=True)
class Practice:
    """One value a disagreement; lengths in mm.

    Rail, duct and lids come in bars of ``bar_length``, whose end is trimmed; lids between
    uprights are ``lid_gap`` shorter.

    The isolator's shaft goes ``shaft_in_switch`` into it and ``shaft_in_handle`` into the handle, which still takes
    it ``handle_tolerance`` from its middle; a wall ``wall_skew`` mm/m out of square is reckoned with. Two readings of a
    dimension may differ by ``reading_tolerance``; pieces from ``long_piece`` on are measured twice.

    Of numbers: the first ``reserved_numbers`` are given to no wire, ``reserved`` says which of the common
    potentials has which; with a ``number_step`` every circuit begins at a new multiple of it, so that the
    rest of its range stays free for growth; ``scheme`` is the house's own way, see ``scheme_fault``.

    Labels are in ``label_language``, a code such as “de”, as far as the rows of ``label_words`` in that language go;
    those without a language are the abbreviations.

    Raises:
        ValueError: a length or share that cannot be, a colour that is not sold, a scheme that cannot be read.
    """

    rulebook: Rulebook = Rulebook.IEC
    colours: Colours = Colours.RULEBOOK
    earths: EarthScheme = EarthScheme.BESIDE
    overload_contact: OverloadContact = OverloadContact.FIRST
    overload_mount: OverloadMount = OverloadMount.PLUGGED
    run_lamp: RunLamp = RunLamp.AUXILIARY
    control_tap: ControlTap = ControlTap.BEFORE
    codes: CodesOn = CodesOn.NOTHING
    legends: LegendCapitals = LegendCapitals.ALL
    device_labels: DeviceLabelsOn = DeviceLabelsOn.BOTH
    label_language: str = ""
    label_words: tuple[LabelWord, ...] = ()
    marker: MarkerText = MarkerText.NUMBER
    fixing: Fixing = Fixing.TAPPED
    batching: Batching = Batching.LONGEST
    door_order: DoorOrder = DoorOrder.LAST
    shaft: ShaftFitting = ShaftFitting.WORKSHOP
    spare_share: float = 0.20
    spare_terminals: float = 0.0
    """Share of each strip's terminals that is kept free at its end."""
    spare_duct: float = 0.0
    """Share of what a duct may hold that is kept free: wires go another way before they fill it."""
    finger_room: float = 20.0
    door_loop: float = 350.0
    end_allowance: float = 35.0
    batch_minutes: float = 3.0
    """What it takes to begin a batch: to fetch the drum, to make the markers ready, to walk there and back."""
    hour_price: float = 60.0
    metre_price: float = 0.3
    """Of a conductor, for each mm² of its section; in the same money as an hour."""
    wire_spare: float = 0.1
    """Share of each conductor that is drawn beyond what is cut: for a wire spoiled, and for what is added."""
    duct_width: float = 30.0
    bar_length: float = 2000.0
    saw_kerf: float = 2.0
    bar_trim: float = 5.0
    lid_gap: float = 1.0
    door_holes: DoorHoles = DoorHoles.PUNCH
    nameplate: NameplateFixing = NameplateFixing.GLUED
    shaft_in_switch: float = 15.0
    shaft_in_handle: float = 25.0
    handle_tolerance: float = 3.0
    wall_skew: float = 5.0
    reading_tolerance: float = 0.5
    long_piece: float = 1000.0
    house_colours: tuple[str, ...] = HOUSE_COLOURS
    dc_colours: tuple[str, ...] = ("", "", "", "")
    """In the order of ``DC_COLOURS``; an empty one is that of DC control. They count with the house's own table."""
    maintained_colour: MaintainedColour = MaintainedColour.RULEBOOK
    tags: TagStyle = TagStyle.COUNTED
    numbering: Numbering = Numbering.BY_NODE
    reserved_numbers: int = 0
    number_step: int = 0
    reserved: tuple[ReservedNumber, ...] = ()
    scheme: str = "{sheet}{count:02}"
    new_between: NewBetween = NewBetween.NEXT
    motor_numbers: MotorNumbers = MotorNumbers.TAG
    pairs: PairNumbers = PairNumbers.SEPARATE
    letters: Letters = Letters.SHORT
    house_letters: tuple[ClassLetters, ...] = ()
    marked: MarkedWires = MarkedWires.ALL
    strip_order: StripOrder = StripOrder.BY_CIRCUIT
    field_cables: FieldCables = FieldCables.EACH
    coordination: Coordination = Coordination.TYPE_1
    distribution: Distribution = Distribution.LOOPS
    relay_commons: RelayCommons = RelayCommons.BRIDGES
    ends: EndStyle = EndStyle.FERRULES
    overload_direction: OverloadDirection = OverloadDirection.UP
    wiring_order: WiringOrder = WiringOrder.THICK_FIRST
    second_reading: SecondReading = SecondReading.ANOTHER
    inspected_by: InspectedBy = InspectedBy.ANOTHER
    deviation_signed_by: SignedBy = SignedBy.ONE
    continuity: Continuity = Continuity.EVERY
    control_supply: ControlSupply = ControlSupply.BY_RULEBOOK
    way_order: WayOrder = WayOrder.IN_TURN
    terminal_c: TerminalTemperature = TerminalTemperature.C60
    star_delta_overload: StarDeltaOverload = StarDeltaOverload.INSIDE
    phase_names: PhaseNames = PhaseNames.L
    transformer_voltage: TransformerVoltage = TransformerVoltage.RULEBOOK
    dc_input: DcInput = DcInput.NEUTRAL
    first_side: FirstSide = FirstSide.GROUPS
    trip_lamp: TripLamp = TripLamp.OVERLOAD
    reset_by: ResetBy = ResetBy.SKILLED

    @property
    def transformer_v(self) -> float:
        """The voltage of a control transformer's secondary, V (the rulebook's: common practice, no source)."""
        if self.transformer_voltage is TransformerVoltage.RULEBOOK:
            return 120.0 if self.rulebook.north_american else 230.0
        return float(self.transformer_voltage.value.split()[0])

    @property
    def reads_control_wires(self) -> bool:
        """Whether control wires are read from end to end, or proved by their function alone."""
        return self.continuity is Continuity.EVERY

    def __post_init__(self) -> None:
        for name, limit in PRACTICE_LIMITS.items():
            limit.see(getattr(self, name))
        if fault := scheme_fault(self.scheme):
            raise ImpossibleValueError(fault)
        self._check_tables()

    def _check_tables(self) -> None:
        """Looks at the house's own numbers, letters and colours."""
        for reserved_number in self.reserved:
            if reserved_number.potential not in POTENTIALS:
                raise ImpossibleValueError(
                    f"there is no common potential “{reserved_number.potential}”; there are {', '.join(POTENTIALS)}"
                )
            if not reserved_number.number or any(c.isspace() or c == "~" for c in reserved_number.number):
                raise ImpossibleValueError(
                    f"“{reserved_number.number}” cannot be the number of the {POTENTIALS[reserved_number.potential]}"
                )
        for row in self.house_letters:
            if not row.letters.isalpha() or len(row.letters) > 4:
                raise ImpossibleValueError(f"“{row.letters}” cannot be the letters of a class: use 1 to 4 letters")
        if len(self.house_colours) != len(HOUSE_COLOURS) or not set(self.house_colours) <= set(COLOUR_NAMES):
            raise ImpossibleValueError("the house's colours are six out of " + ", ".join(COLOUR_NAMES))
        if len(self.dc_colours) != len(DC_COLOURS) or not set(self.dc_colours) <= {"", *COLOUR_NAMES}:
            names = ", ".join(COLOUR_NAMES)
            raise ImpossibleValueError(f"the house's DC colours are four, each empty or out of {names}")
