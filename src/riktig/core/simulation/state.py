"""What has been done to a panel, and from it where every contact stands."""

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from enum import IntEnum

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import DeviceId
from riktig.core.schematic import Device

__all__ = ["CHANGED_OVER", "ContactStage", "OperatorState", "is_closed"]


CHANGED_OVER = {Behaviour.NO: Behaviour.NC, Behaviour.NC: Behaviour.NO}
"""What a contact is when the other block sits in its place."""


class ContactStage(IntEnum):
    """Where what moves contacts stands; on the way both kinds of contact are open.

    Of a timer: out, running, between its two contacts, run out.
    """

    OUT = 0
    WAY = 1
    IN = 2
    DONE = 3


@dataclass
class OperatorState:
    """What people, levels and faults have done: all that the state of a panel depends on beside time.

    ``pressed`` are buttons held, floats raised and other contacts moved from outside; ``blown`` single
    poles; ``welded`` contacts that stay closed, ``stuck`` that stay open, ``changed_over`` that open where they should
    close; ``dead`` coils and loads that are open inside;
    ``reference`` the share (0 to 1) that an analogue output gives, by system.
    """

    pressed: set[DeviceId] = field(default_factory=set)
    pressed_units: set[tuple[DeviceId, str]] = field(default_factory=set)
    position: dict[DeviceId, str] = field(default_factory=dict)
    opened: set[DeviceId] = field(default_factory=set)
    tripped: set[DeviceId] = field(default_factory=set)
    lost: set[str] = field(default_factory=set)
    outputs: set[tuple[DeviceId, str]] = field(default_factory=set)
    foreign: set[DeviceId] = field(default_factory=set)
    pushed: set[DeviceId] = field(default_factory=set)
    blown: set[tuple[DeviceId, str]] = field(default_factory=set)
    welded: set[tuple[DeviceId, str]] = field(default_factory=set)
    dead: set[tuple[DeviceId, str]] = field(default_factory=set)
    stuck: set[tuple[DeviceId, str]] = field(default_factory=set)
    changed_over: set[tuple[DeviceId, str]] = field(default_factory=set)
    reference: dict[str, float] = field(default_factory=dict)

    def copy(self) -> "OperatorState":
        """As it is now, to compare with later."""
        return OperatorState(**{entry.name: getattr(self, entry.name).copy() for entry in fields(self)})

    def tie_handles(self, was: "OperatorState", mates: Mapping[DeviceId, frozenset[DeviceId]]) -> None:
        """One handle moves all breakers that it is tied to; a trip moves one alone.

        Args:
            was: How everything stood before.
            mates: The breakers that each is tied to.
        """
        for device_id in sorted(self.opened ^ was.opened):
            for mate in mates.get(device_id, ()):
                (self.opened.add if device_id in self.opened else self.opened.discard)(mate)


def is_closed(operator_state: OperatorState, device: Device, unit: Unit, stage: ContactStage, *, powered: bool) -> bool:
    """Whether a unit leads on.

    Args:
        operator_state: What has been pressed, turned, opened and broken.
        device: The device.
        unit: The name of a unit of the device, such as “13-14”.
        stage: Where the device's coil, timer or electronics have its contacts.
        powered: Whether the electronics that move it have power: of a controller's output, a sensor.
    """
    device_id = device.id
    if (device_id, unit.name) in operator_state.welded:
        return True
    if (device_id, unit.name) in operator_state.stuck:
        return False
    if (device_id, unit.name) in operator_state.changed_over:
        unit = replace(unit, behaviour=CHANGED_OVER.get(unit.behaviour, unit.behaviour))
    match unit.behaviour:
        case Behaviour.JOINT | Behaviour.HEATER:
            return True
        case Behaviour.POLE:
            return (
                device_id not in operator_state.opened
                and device_id not in operator_state.tripped
                and (device_id, unit.name) not in operator_state.blown
            )
        case Behaviour.NO:
            return _moved(operator_state, device, unit, stage, powered=powered) == ContactStage.IN
        case Behaviour.NC:
            is_actuated = any(
                (device_id, unit.name) in operator_state.welded
                for unit in device.kind.units
                if unit.behaviour is Behaviour.NO
            )
            return not is_actuated and _moved(operator_state, device, unit, stage, powered=powered) == ContactStage.OUT
    return False


def _moved(
    operator_state: OperatorState, device: Device, unit: Unit, stage: ContactStage, *, powered: bool
) -> ContactStage:
    """Where a contact stands: out as at rest, in when moved, on the way between."""
    device_id, kind = device.id, device.kind
    tripped = device_id in operator_state.tripped
    if kind.can(Can.SIGNALS_OFF):
        return _if(tripped or device_id in operator_state.opened)
    if unit.symbol == "trip" or kind.can(Can.OVERLOAD):
        return _if(tripped)
    if kind.can(Can.RIDES_THROUGH_TRIP):
        return _if(not tripped and device_id not in operator_state.opened)
    if kind.can(Can.ELECTRONIC_STARTER):
        return ContactStage.OUT if tripped else stage
    if kind.can(Can.STAR_DELTA_TIMER):
        return _if(stage == (ContactStage.WAY if unit.name == "17-18" else ContactStage.DONE))
    if kind.can(Can.LATE_TIMER):
        return _if(stage == ContactStage.DONE)
    if kind.can(Can.GIVES_OUTPUTS):
        return _if(powered and (device_id, unit.name) in operator_state.outputs)
    if kind.can(Can.SENSOR):
        return _if(powered and device_id in operator_state.pressed)
    if device_id in operator_state.position or kind.can(Can.TURNED):
        return _if(operator_state.position.get(device_id, "off") in unit.moved_in)
    if kind.has_coil or kind.can(Can.WATCHES_PHASES):
        return stage
    return _if(device_id in operator_state.pressed or (device_id, unit.name) in operator_state.pressed_units)


def _if(moved: bool) -> ContactStage:
    return ContactStage.IN if moved else ContactStage.OUT
