"""Which stage of the work a wire belongs to, and the areas that its ends stand in."""

from collections.abc import Callable, Mapping

from riktig.core.catalogue import Can
from riktig.core.door import DoorPlan
from riktig.core.job import DeviceId, Practice, WiringOrder, circuit_of
from riktig.core.plate import Layout
from riktig.core.schematic import Device, NetClass, Zone
from riktig.core.sizing import Sizing, circuit_of_net
from riktig.core.wiring.connections import Connection, feeds
from riktig.core.wiring.model import WiringStage

__all__ = ["Stages", "areas_of"]

_OF_CLASS = {
    NetClass.NEUTRAL: WiringStage.NEUTRAL,
    NetClass.CONTROL: WiringStage.CONTROL,
    NetClass.DC: WiringStage.DC,
    NetClass.EXCEPTED: WiringStage.EXCEPTED,
    NetClass.EARTH: WiringStage.EARTH,
}


class Stages:
    """The stages of one panel."""

    def __init__(self, devices: Mapping[DeviceId, Device], sizing: Sizing, practice: Practice) -> None:
        self._devices, self._sizing = devices, sizing
        self._field_last = practice.wiring_order is WiringOrder.THICK_FIRST
        self._incomers = {device.circuit for device in devices.values() if device.kind.can(Can.MAIN_SWITCH)}

    def is_tap(self, connection: Connection) -> bool:
        """Whether a wire leads from ahead of the main switch to something that the switch does not cut off."""
        if not any(node.startswith("in.") for node in connection.net.nodes):
            return False
        return any(circuit_of(pin.device) not in self._incomers for pin in (connection.a, connection.b))

    def of(self, connection: Connection, *, via_door: bool) -> WiringStage:
        """The stage of a wire.

        Args:
            connection: Which clamp to which.
            via_door: Whether it goes over the hinge, or from one part of the door to another.
        """
        net = connection.net
        ends = [self._devices[pin.device] for pin in (connection.a, connection.b)]
        if net.net_class is NetClass.EARTH:
            return WiringStage.EARTH
        if via_door:
            return WiringStage.DOOR
        if any(node.startswith("in.") for node in net.nodes):
            return WiringStage.EXCEPTED if self.is_tap(connection) else WiringStage.MAINS
        if self._field_last and any(device.strip and device.circuit not in self._incomers for device in ends):
            return WiringStage.FIELD
        if net.net_class in _OF_CLASS:
            return _OF_CLASS[net.net_class]
        if feeds(net):
            mains = all(device.circuit in self._incomers or device.kind.can(Can.DISTRIBUTES) for device in ends)
            return WiringStage.MAINS if mains else WiringStage.FEED
        return WiringStage.FEED if self._sizing.load_of(circuit_of_net(net)) is None else WiringStage.LOAD


def areas_of(devices: Mapping[DeviceId, Device], layout: Layout, door: DoorPlan) -> Callable[[DeviceId], str]:
    """A function that says where a device stands: its rail, its leaf of the door, or the plate beside the rails.

    Args:
        devices: All devices.
        layout: The plate.
        door: The door, with what is mounted on it.
    """
    leaf_of = {seat.device: seat.leaf for seat in door.seats}

    def area_of(device: DeviceId) -> str:
        under = devices[device].under
        stand = layout.stand_of(device) or (layout.stand_of(under) if under else None)
        if stand and stand.rail:
            return f"R{stand.rail}"
        return leaf_of.get(device, "door") if devices[device].zone is Zone.DOOR else "plate"

    return area_of
