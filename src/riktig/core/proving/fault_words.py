"""Suspected faults in words, and what to select to see them."""

from collections.abc import Callable, Mapping

from riktig.core.ids import DeviceId, PinRef, WireId, read_pin, read_wire
from riktig.core.keys import DeviceKey, Key, PinKey, WireKey
from riktig.core.proving.fault_effects import Faults
from riktig.core.schematic import by_tags
from riktig.core.simulation import FaultKind, InjectedFault

__all__ = ["fault_keys", "fault_words", "repair_words"]

_OF_WIRES = (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)


def fault_words(faults: Faults, label: Callable[[PinRef], str], tags: Mapping[DeviceId, str]) -> str:
    """What is wrong in a line; two faults at once with “and” between them.

    Args:
        faults: What is wrong.
        label: How a pin is called on the panel.
        tags: The tags of devices.
    """
    return " and ".join(by_tags(_of_wire(fault, label) or fault.said(label), tags) for fault in faults)


def _of_wire(fault: InjectedFault, label: Callable[[PinRef], str]) -> str:
    """Of a wire: of one that is off a reading between its clamps does not tell at which end."""
    where, to, other = (read_pin(text) for text in (fault.where, fault.to, fault.other))
    match fault.wrong:
        case FaultKind.OFF:
            first, last = (label(pin) for pin in read_wire(WireId(fault.what)))
            return f"Wire {first} to {last} missing, or off at one end"
        case FaultKind.NEIGHBOUR:
            return f"Wire from {_far(fault.what, fault.where, label)} in {label(to)} instead of {label(where)}"
        case FaultKind.SWAPPED:
            ends = f"{_far(fault.what, fault.where, label)} and {_far(fault.to, fault.other, label)}"
            return f"Wires from {ends} changed over at {label(where)} and {label(other)}"
    return ""


def _far(wire: str, pin: str, label: Callable[[PinRef], str]) -> str:
    """How the other end of a wire is called."""
    return next((label(end) for end in read_wire(WireId(wire)) if str(end) != pin), "")


def repair_words(fault: InjectedFault, label: Callable[[PinRef], str], tags: Mapping[DeviceId, str]) -> str:
    """What to do about it.

    Args:
        fault: What is wrong.
        label: How a pin is called on the panel.
        tags: The tags of devices.
    """
    where, to, other = (read_pin(text) for text in (fault.where, fault.to, fault.other))
    tag = tags.get(DeviceId(fault.what), "")
    match fault.wrong:
        case FaultKind.OFF:
            first, last = (label(pin) for pin in read_wire(WireId(fault.what)))
            return f"Look at both ends, {first} and {last}; make the wire, or land and tighten it."
        case FaultKind.NEIGHBOUR:
            return f"Move the end from {label(to)} to {label(where)}."
        case FaultKind.SWAPPED:
            return f"Change the two ends at {label(where)} and {label(other)} over."
        case FaultKind.SHORT:
            return f"Look between {label(where)} and {label(to)} for strands, a jumper, a screw."
        case FaultKind.WRONG_BLOCK:
            return f"Change the contact block {fault.where} of {tag}."
        case FaultKind.BLOWN:
            return f"Put in a new fuse-link, or switch {tag} on; look at its pole {fault.where}."
    return f"Put in another {tag}."


def fault_keys(faults: Faults) -> tuple[Key, ...]:
    """What to select to see them: the wires, or the parts and pins.

    Args:
        faults: What is wrong.
    """
    keys: dict[Key, None] = {}
    for fault in faults:
        if fault.wrong in _OF_WIRES:
            keys[WireKey(WireId(fault.what))] = None
        elif fault.wrong is FaultKind.SHORT:
            keys.update({PinKey(read_pin(fault.where)): None, PinKey(read_pin(fault.to)): None})
        else:
            keys[DeviceKey(DeviceId(fault.what))] = None
    return tuple(keys)
