"""The builder's changes, worked into what a recipe gave."""

from collections.abc import Callable
from dataclasses import replace

from riktig.core.catalogue import is_kind, with_aux_block
from riktig.core.ids import circuit_of, read_contact, role_of
from riktig.core.job import Act, Change, Circuit, CircuitId, DeviceId, ElementId, Insertable, OwnDevice, OwnRung
from riktig.core.schematic.layout.branch_layout import lines_of_path
from riktig.core.schematic.model.elements import (
    Band,
    Branch,
    Device,
    Element,
    Landing,
    Parallel,
    Pole,
    Rung,
    Series,
    Zone,
    elements_of,
    touched,
)
from riktig.core.schematic.model.notation import NotationError, parse_path

__all__ = ["INSERTS", "changed", "own_device", "own_rung", "read_rung", "said", "still_used", "with_unit", "without"]

INSERTS: dict[Insertable, tuple[str, str, Zone]] = {
    Insertable.STOP_BUTTON: ("stop_button", "1-2", Zone.DOOR),
    Insertable.START_BUTTON: ("start_button", "3-4", Zone.DOOR),
    Insertable.FIELD_CONTACT: ("field_contact", "1-2", Zone.FIELD),
    Insertable.FIELD_MAKE: ("field_contact_no", "1-2", Zone.FIELD),
    Insertable.SELECTOR: ("selector_two", "13-14", Zone.DOOR),
    Insertable.KEY_SWITCH: ("key_two", "13-14", Zone.DOOR),
    Insertable.EMERGENCY_STOP: ("emergency_stop", "11-12", Zone.DOOR),
    Insertable.FLOAT: ("float_no", "1-2", Zone.FIELD),
    Insertable.END_SWITCH: ("end_switch", "1-2", Zone.FIELD),
    Insertable.THERMOSTAT: ("thermostat", "1-2", Zone.PLATE),
    Insertable.LAMP: ("lamp", "X1-X2", Zone.DOOR),
    Insertable.BUZZER: ("buzzer", "X1-X2", Zone.DOOR),
    Insertable.RELAY: ("relay", "A1-A2", Zone.PLATE),
    Insertable.TIMER: ("timer_on", "A1-A2", Zone.PLATE),
    Insertable.FUSE: ("fuse", "1-2", Zone.PLATE),
}
"""What is put in: its kind, the unit that goes into the path, and where it stands."""
Made = tuple[list[Device], list[Rung]]


def said(change: Change) -> str:
    """A change in words, for a clash."""
    if change.act is Act.NAMED:
        return f"the name “{change.text}” was given to {change.element}, which is no longer there"
    what = f"{change.what.value} “{change.text or change.to}”" if change.what else "it"
    if change.act in (Act.FROM, Act.TO):
        return f"the {change.act.value} {change.to} at {change.element}, which is no longer there"
    if change.act is Act.MOVED:
        return f"{change.element} was moved to after {change.to}; one of the two is no longer there"
    return f"{what} was {change.act.value} {change.element}, which is no longer there"


def changed(circuit: Circuit, change: Change, devices: list[Device], rungs: list[Rung], mark: int) -> Made | None:
    """Devices and rungs with one change worked in, or None when it finds no hold.

    Args:
        circuit: The circuit.
        change: The change.
        devices: Those of the circuit.
        rungs: Those of the circuit.
        mark: The highest mark of a numbered terminal that the recipe gave.
    """
    place = next((n for n, rung in enumerate(rungs) if _holds(rung, change.element)), None)
    if place is None:
        return None
    rung = rungs[place]
    made: list[Device] = []
    match change.act:
        case Act.OUT:
            return devices, [
                *rungs[:place],
                replace(rung, path=without(rung.path, change.element)),
                *rungs[place + 1 :],
            ]
        case Act.MOVED:
            return _moved(change, devices, rungs)
        case Act.FROM:
            return devices, [*rungs[:place], replace(rung, start=(change.to,)), *rungs[place + 1 :]]
        case Act.TO:
            return devices, [*rungs[:place], replace(rung, end=(change.to,)), *rungs[place + 1 :]]
        case Act.NAMED:
            owner = next(e.device for e in elements_of(rung.path) if e.id == change.element)
            return [replace(d, purpose=change.text, legend=d.legend and change.text) if d.id == owner else d
                    for d in devices], rungs  # fmt: skip
        case _:
            put = _inserted(circuit, change, mark, devices)
            if put is None:
                return None
            devices, made, part = put
            path = _swap(rung.path, change.element, _act(change.act, part))
    new = path if isinstance(path, Series) else Series((path,) if path else ())
    return [*devices, *made], [*rungs[:place], replace(rung, path=new), *rungs[place + 1 :]]


def _holds(rung: Rung, element: ElementId) -> bool:
    return rung.band is Band.CONTROL and any(e.id == element for e in elements_of(rung.path))


def _act(act: Act, part: Branch) -> Callable[[Element], Branch | None]:
    made: dict[Act, Callable[[Element], Branch | None]] = {
        Act.AFTER: lambda at: Series((at, part)),
        Act.BEFORE: lambda at: Series((part, at)),
        Act.ACROSS: lambda at: Parallel((at, part)),
        Act.INSTEAD: lambda at: part,
    }
    return made[act]


def without(path: Series, element: ElementId) -> Series:
    """The path without an element; what stands in the field takes its two terminals along."""
    owner = next(e.device for e in elements_of(path) if e.id == element)
    left: Branch | None = path
    for element_here in [e for e in elements_of(path) if e.id == element or _is_end_of(e.device, owner)]:
        left = _swap(left, element_here.id, lambda at: None) if left else None
    return left if isinstance(left, Series) else Series((left,) if left else ())


def _is_end_of(device: DeviceId, owner: DeviceId) -> bool:
    """Whether a device is one of the two terminals at which another in the field is connected."""
    return circuit_of(device) == circuit_of(owner) and role_of(device).startswith(f"{role_of(owner)}.X")


def _moved(change: Change, devices: list[Device], rungs: list[Rung]) -> Made | None:
    """An element out of its place and in after another, also in another rung of the circuit."""
    source = next((r for r in rungs if _holds(r, change.element)), None)
    target = ElementId(change.to)
    if source is None or change.element == target or not any(_holds(r, target) for r in rungs):
        return None
    moving = next(e for e in elements_of(source.path) if e.id == change.element)
    done = []
    for rung in rungs:
        path: Branch | None = rung.path
        if _holds(rung, change.element):
            path = _swap(rung.path, change.element, lambda at: None)
        if path is not None and any(e.id == target for e in elements_of(path)):
            path = _swap(path, target, lambda at: Series((at, moving)))
        done.append(replace(rung, path=path if isinstance(path, Series) else Series((path,) if path else ())))
    return devices, done


def _inserted(
    circuit: Circuit, change: Change, mark: int, devices: list[Device]
) -> tuple[list[Device], list[Device], Branch] | None:
    """What is put in: the devices as they are now, new ones, and the stretch of path."""
    assert change.what is not None
    if change.what is Insertable.CONTACT:
        return _contact(change, devices)
    kind, unit, zone = INSERTS[change.what]
    role = f"x{change.number}"
    device_id = DeviceId(f"{circuit.id}.{role}")
    legend = change.text if zone is Zone.DOOR else ""
    device = Device(device_id, circuit.id, kind, zone, change.text, legend=legend)
    element = Element(ElementId(f"{device_id}/{unit}"), (Pole(device_id, unit),))
    if zone is not Zone.FIELD:
        return devices, [device], element
    first = mark + 2 * change.number - 1
    ends = [
        Device(DeviceId(f"{device_id}.X{end}"), circuit.id, "terminal", Zone.PLATE, change.text, f"{circuit.id}.X",
               str(first + n))
        for n, end in enumerate("ab")
    ]  # fmt: skip
    joints = [Element(ElementId(f"{end.id}/i-f"), (Pole(end.id, "i-f", flipped=n > 0),)) for n, end in enumerate(ends)]
    return devices, [*ends, device], Series((joints[0], element, joints[1]))


def _contact(change: Change, devices: list[Device]) -> tuple[list[Device], list[Device], Branch] | None:
    """A contact of a device of this or another circuit; one of its auxiliary block when it has none left.

    A device of another circuit gets its block in ``with_blocks``: each circuit changes only its own.
    """
    device_id, unit = read_contact(change.to)
    element = Element(ElementId(f"{device_id}/{unit}"), (Pole(device_id, unit),))
    return [with_unit(d, unit) if d.id == device_id else d for d in devices], [], element


def with_unit(device: Device, unit: str) -> Device:
    """The device with an auxiliary block where only that has the unit."""
    if any(known_unit.name == unit for known_unit in device.kind.units):
        return device
    blocked = with_aux_block(device.kind)
    if blocked and any(known_unit.name == unit for known_unit in blocked.units):
        return replace(device, kind_id=blocked.id)
    return device


def _swap(branch: Branch, target: ElementId, act: Callable[[Element], Branch | None]) -> Branch | None:
    """The tree with ``act`` done to the element ``target``; None when nothing is left."""
    match branch:
        case Element(id=eid):
            return act(branch) if eid == target else branch
        case Landing():
            return branch
        case Series(parts) | Parallel(parts):
            new = [changed for part in parts if (changed := _swap(part, target, act)) is not None]
            if not new:
                return None
            if isinstance(branch, Parallel):
                return Parallel(tuple(new)) if len(new) > 1 else new[0]
            flat: list[Branch] = []
            for swapped in new:
                flat += swapped.parts if isinstance(swapped, Series) else (swapped,)
            return Series(tuple(flat))


def own_device(circuit: Circuit, own: OwnDevice) -> Device | str:
    """A device the builder added, or what is wrong with it."""
    known = {zone.value: zone for zone in Zone}
    if own.zone not in known:
        return f"{own.role}: “{own.zone}” is not a place; use plate, door or field"
    if not is_kind(own.kind):
        return f"{own.role}: there is no kind “{own.kind}”"
    strip = f"{circuit.id}.X" if own.mark else ""
    return Device(
        DeviceId(f"{circuit.id}.{own.role}"), circuit.id, own.kind, known[own.zone], own.purpose, strip, own.mark,
        legend=own.legend, colour=own.colour,
    )  # fmt: skip


def own_rung(circuit: Circuit, index: int, devices: dict[str, Device], nodes: Callable[[str], str]) -> Rung | str:
    """A rung the builder added, or what is wrong with it."""
    rung = circuit.rungs[index]
    try:
        return read_rung(circuit.id, rung, devices, nodes)
    except NotationError as error:
        return f"rung “{rung.title or rung.role}”, character {error.at} of its path: {error.message}"


def read_rung(cid: CircuitId, own: OwnRung, devices: dict[str, Device], nodes: Callable[[str], str]) -> Rung:
    """A rung as it is written down.

    Raises:
        NotationError: its path cannot be read, or its ends have other lines than its path.
    """
    path = parse_path(own.path, lambda role: devices.get(f"{cid}.{role}") or devices.get(role))
    ends = [tuple(nodes(node) for node in end.split("/")) if end else () for end in (own.start, own.end)]
    lines = lines_of_path(path)
    for end in ends:
        if end and path.parts and len(end) != lines:
            raise NotationError(f"“{'/'.join(end)}” names {len(end)} lines where the path has {lines}", 1)
    band = Band.POWER if own.band == Band.POWER.value else Band.CONTROL
    return Rung(f"{cid}.{own.role}", cid, band, own.title, ends[0], ends[1], path)


def still_used(before: set[DeviceId], devices: list[Device], rungs: list[Rung]) -> list[Device]:
    """Without the devices whose every element was taken out: of the recipe's own (``before``) and of changes."""
    used = {device_id for rung in rungs for device_id in touched(rung.path)}

    def stays(device: Device) -> bool:
        put_in = any(word.startswith("x") for word in device.role.split("."))
        return device.id in used or not (device.id in before or put_in)

    return [device for device in devices if stays(device)]
