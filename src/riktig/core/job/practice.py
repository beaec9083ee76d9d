"""Practice: where the trade disagrees, the job chooses."""

from dataclasses import dataclass

from riktig.core.job.practice_values import (
    Batching,
    Colours,
    ControlSupply,
    ControlTap,
    Distribution,
    DoorOrder,
    EarthScheme,
    Ends,
    Fixing,
    MaintainedColour,
    MarkedWires,
    MarkerText,
    Numbering,
    OverloadContact,
    OverloadDirection,
    RelayCommons,
    Rulebook,
    RunLamp,
    SecondReading,
    ShaftFitting,
    StarDeltaOverload,
    StripOrder,
    TagStyle,
    TerminalTemperature,
    WayOrder,
    WiringOrder,
)

__all__ = ["COLOUR_NAMES", "HOUSE_COLOURS", "Practice"]

COLOUR_NAMES = ("black", "brown", "grey", "red", "yellow", "blue", "light blue", "white", "orange", "violet")
"""Insulation colours that are sold; green and green-yellow are kept for earth."""
HOUSE_COLOURS = ("black", "black", "black", "light blue", "red", "blue")
"""L1, L2, L3, neutral, AC control, DC control: the rulebook's, until the house says otherwise."""


@dataclass(frozen=True, slots=True)
class Practice:
    """One value a disagreement; lengths in mm.

    Raises:
        ValueError: a length or share that cannot be, or a colour that is not sold.
    """

    rulebook: Rulebook = Rulebook.IEC
    colours: Colours = Colours.RULEBOOK
    earths: EarthScheme = EarthScheme.BESIDE
    overload_contact: OverloadContact = OverloadContact.FIRST
    run_lamp: RunLamp = RunLamp.AUXILIARY
    control_tap: ControlTap = ControlTap.BEFORE
    marker: MarkerText = MarkerText.NUMBER
    fixing: Fixing = Fixing.TAPPED
    batching: Batching = Batching.LONGEST
    door_order: DoorOrder = DoorOrder.LAST
    shaft: ShaftFitting = ShaftFitting.WORKSHOP
    spare_share: float = 0.20
    finger_room: float = 20.0
    door_loop: float = 350.0
    end_allowance: float = 35.0
    duct_width: float = 30.0
    house_colours: tuple[str, ...] = HOUSE_COLOURS
    maintained_colour: MaintainedColour = MaintainedColour.RULEBOOK
    tags: TagStyle = TagStyle.COUNTED
    numbering: Numbering = Numbering.BY_NODE
    reserved_numbers: int = 0
    marked: MarkedWires = MarkedWires.ALL
    strip_order: StripOrder = StripOrder.BY_CIRCUIT
    distribution: Distribution = Distribution.LOOPS
    relay_commons: RelayCommons = RelayCommons.BRIDGES
    ends: Ends = Ends.FERRULES
    overload_direction: OverloadDirection = OverloadDirection.UP
    wiring_order: WiringOrder = WiringOrder.THICK_FIRST
    second_reading: SecondReading = SecondReading.ANOTHER
    control_supply: ControlSupply = ControlSupply.BY_RULEBOOK
    way_order: WayOrder = WayOrder.IN_TURN
    terminal_c: TerminalTemperature = TerminalTemperature.C60
    star_delta_overload: StarDeltaOverload = StarDeltaOverload.INSIDE

    def __post_init__(self) -> None:
        if not 0 <= self.spare_share <= 0.9:
            raise ValueError(f"a spare share of {self.spare_share:g} cannot be planned")
        for what, value, largest in (
            ("finger room", self.finger_room, 200),
            ("door loop", self.door_loop, 3000),
            ("end allowance", self.end_allowance, 500),
        ):
            if not 0 <= value <= largest:
                raise ValueError(f"a {what} of {value:g} mm cannot be planned")
        if not 15 <= self.duct_width <= 150:
            raise ValueError(f"a duct {self.duct_width:g} mm wide is not made")
        if not 0 <= self.reserved_numbers <= 999:
            raise ValueError(f"{self.reserved_numbers} reserved numbers cannot be kept free")
        if len(self.house_colours) != len(HOUSE_COLOURS) or not set(self.house_colours) <= set(COLOUR_NAMES):
            raise ValueError("the house's colours are six out of " + ", ".join(COLOUR_NAMES))
