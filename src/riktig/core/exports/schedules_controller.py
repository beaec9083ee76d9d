"""The points of the controller as a list for whoever writes its program."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.keys import DeviceKey
from riktig.core.schematic import CIRCUITS, NAMES, NETS, PinLabels, elements_of, io_address

__all__ = ["SCHEDULES"]


def _io(evaluation: Evaluation[Job]) -> Schedule:
    """Every point of every card, spare ones too: its address, its clamp, its wire, and what it is for."""
    circuits, names, of_pin = evaluation.get(CIRCUITS), evaluation.get(NAMES), evaluation.get(NETS).of_pin
    label = PinLabels(circuits, names)
    purpose = {
        (pole.device, pole.unit): rung.title
        for rung in circuits.rungs
        for element in elements_of(rung.path)
        for pole in element.poles
    }
    rows: list[tuple[Value, ...]] = []
    for device in circuits.devices:
        for unit in device.kind.units:
            address = io_address(device, unit.name)
            if not address:
                continue
            pin = device.pin(unit.pins[device.kind.point_pin or 0])
            net = of_pin.get(pin)
            used = (device.id, unit.name) in purpose
            words = purpose.get((device.id, unit.name), "").partition(address)[2].strip() if used else "spare"
            others = [label(pin) for pin in net.pins if pin.device != device.id] if net and used else []
            rows.append(
                (
                    address,
                    names.tag[device.id],
                    pin.marking,
                    words or purpose[device.id, unit.name],
                    names.number.get(net.id, "") if net and used else "",
                    ", ".join(dict.fromkeys(others)),
                    device.kind.name,
                    str(DeviceKey(device.id)),
                )
            )
    columns = (
        ("address", "Address"),
        ("card", "Card"),
        ("clamp", "Clamp"),
        ("for", "For"),
        ("number", "Wire number"),
        ("joins", "Leads to"),
        ("kind", "Kind of card"),
        ("key", "Key"),
    )
    return Schedule("io", "Points of the controller", columns, tuple(rows))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"io": _io}
