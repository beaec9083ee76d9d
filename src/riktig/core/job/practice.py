"""Practice: where the trade disagrees, the job chooses, and each default is argued."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.job.practice_values import (
    Batching,
    Colours,
    ControlTap,
    DoorOrder,
    EarthScheme,
    Fixing,
    MarkerText,
    OverloadContact,
    Rulebook,
    RunLamp,
    ShaftFitting,
)

__all__ = ["CHOICES", "Choice", "Practice"]


@dataclass(frozen=True, slots=True)
class Practice:
    """One value a disagreement; lengths in mm.

    Raises:
        ValueError: a length or share that cannot be.
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


@dataclass(frozen=True, slots=True)
class Choice:
    """One choice as the Brief asks it: the field, the question, and the default argued."""

    field: str
    question: str
    argument: str
    values: type[Enum]


CHOICES: tuple[Choice, ...] = (
    Choice("rulebook", "Rulebook", "The market the panel goes to decides; Europe here.", Rulebook),
    Choice("colours", "Conductor colours", "The rulebook's recommended colours read the same in every panel.", Colours),
    Choice(
        "earths",
        "Motor earth on",
        "Beside its circuit, one motor comes off with four neighbouring screws.",
        EarthScheme,
    ),
    Choice(
        "overload_contact",
        "Overload contact",
        "Ahead of the coil, an earth fault on the return cannot bypass it.",
        OverloadContact,
    ),
    Choice(
        "run_lamp",
        "Run lamp lit by",
        "An auxiliary shows that the contactor is in, not only that its coil is fed.",
        RunLamp,
    ),
    Choice(
        "control_tap",
        "Control supply taken",
        "Ahead of it, control can be tested with the motor breaker off.",
        ControlTap,
    ),
    Choice("marker", "A wire marker says", "The number alone fits every marker and is read at a glance.", MarkerText),
    Choice(
        "fixing",
        "Rail and duct fixed by",
        "A tapped hole can be undone and done again; self-drilling is quicker.",
        Fixing,
    ),
    Choice(
        "batching", "Wires cut", "Cutting alike is quicker than it wastes; ends are trimmed when they are in.", Batching
    ),
    Choice("door_order", "Door wired", "The loom then lies on top and can be changed.", DoorOrder),
    Choice(
        "shaft",
        "Shaft hole cut",
        "A measured centre can be cut true in the shop; a wall out of square is for the site.",
        ShaftFitting,
    ),
)
