"""Faults put in on purpose: wires off, on the neighbour's clamp or swapped, shorts, welded contacts, open coils."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from enum import Enum
from itertools import pairwise

from riktig.core.catalogue import Behaviour
from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, PinRef, read_pin
from riktig.core.simulation.conductors import Conductor
from riktig.core.simulation.figures import LINK_OHM
from riktig.core.simulation.run import Panel
from riktig.core.simulation.state import OperatorState
from riktig.core.wiring import Wiring

__all__ = ["IN_WIRES", "FaultKind", "InjectedFault", "conductors_with_faults", "faults_at", "inject_faults"]


class FaultKind(Enum):
    """What is wrong."""

    OFF = "wire off at one end"
    NEIGHBOUR = "wire on another clamp"
    SWAPPED = "two wires swapped at their ends"
    SHORT = "short between two clamps"
    WELDED = "contact welded"
    OPEN_COIL = "coil open inside"
    BLOWN = "fuse blown"
    STUCK = "contact never closes"
    WRONG_BLOCK = "opens where it should close"


IN_WIRES = (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)
"""Faults that change how the panel is wired."""


@dataclass(frozen=True, slots=True)
class InjectedFault:
    """One fault; what its fields mean depends on its kind.

    OFF: wire key, pin. NEIGHBOUR: wire key and pin it belongs on; ``to`` the pin it is on. SWAPPED: the two
    wires' keys in ``what`` and ``to``, the pins they belong on in ``where`` and ``other``. SHORT: two pins
    in ``where`` and ``to``. WELDED, OPEN_COIL, BLOWN, STUCK and WRONG_BLOCK: device in ``what``, unit in ``where``.
    """

    wrong: FaultKind
    what: str
    where: str
    to: str = ""
    other: str = ""

    def said(self, label: Callable[[PinRef], str]) -> str:
        """In words; device ids in braces. ``label`` says how a pin is called on the panel."""
        where, to = read_pin(self.where), read_pin(self.to)
        match self.wrong:
            case FaultKind.OFF:
                far = next((pin for pin in self.what.split("~") if pin != self.where), "")
                return f"Wire off at {label(where)}, that to {label(read_pin(far))}"
            case FaultKind.NEIGHBOUR:
                return f"Wire of {label(where)} on {label(to)}"
            case FaultKind.SWAPPED:
                return f"Wires of {label(where)} and {label(read_pin(self.other))} swapped"
            case FaultKind.SHORT:
                return f"Short between {label(where)} and {label(to)}"
            case FaultKind.WELDED:
                return f"{{{self.what}}} {self.where} welded"
            case FaultKind.OPEN_COIL:
                return f"{{{self.what}}} {self.where} open inside"
            case FaultKind.BLOWN:
                return f"{{{self.what}}} {self.where} blown"
            case FaultKind.STUCK:
                return f"{{{self.what}}} {self.where} never closes"
            case FaultKind.WRONG_BLOCK:
                return f"{{{self.what}}} {self.where} opens where it should close: the other contact block"


def conductors_with_faults(conductors: Sequence[Conductor], faults: Iterable[InjectedFault]) -> tuple[Conductor, ...]:
    """The conductors with the faults that lie in them.

    Args:
        conductors: The conductors without faults.
        faults: The faults to put in.

    Raises:
        RiktigError: a wire that is not there, or does not land on that pin.
    """
    with_faults = list(conductors)
    for fault in faults:
        where, to, other = read_pin(fault.where), read_pin(fault.to), read_pin(fault.other)
        if fault.wrong is FaultKind.OFF:
            with_faults.remove(_wire(with_faults, fault.what, where))
        elif fault.wrong is FaultKind.NEIGHBOUR:
            _move(with_faults, fault.what, where, to)
        elif fault.wrong is FaultKind.SWAPPED:
            _move(with_faults, fault.what, where, read_pin("~"))
            _move(with_faults, fault.to, other, where)
            _move(with_faults, fault.what, read_pin("~"), other)
        elif fault.wrong is FaultKind.SHORT:
            with_faults.append(Conductor(where, to, LINK_OHM))
    return tuple(with_faults)


def _wire(conductors: Sequence[Conductor], key: str, pin: PinRef) -> Conductor:
    for conductor in conductors:
        if conductor.key == key and pin in (conductor.a, conductor.b):
            return conductor
    raise RiktigError(f"No wire {key} lands on {pin}.", hint="Choose a wire and one of its two ends.")


def _move(conductors: list[Conductor], key: str, pin: PinRef, to: PinRef) -> None:
    conductor = _wire(conductors, key, pin)
    conductors[conductors.index(conductor)] = (
        replace(conductor, a=to) if conductor.a == pin else replace(conductor, b=to)
    )


def inject_faults(operator_state: OperatorState, faults: Iterable[InjectedFault]) -> None:
    """Puts in the faults that lie in devices.

    Args:
        operator_state: What has been pressed, turned, opened and broken.
        faults: The faults to put in.
    """
    place = {
        FaultKind.WELDED: operator_state.welded,
        FaultKind.OPEN_COIL: operator_state.dead,
        FaultKind.BLOWN: operator_state.blown,
        FaultKind.STUCK: operator_state.stuck,
        FaultKind.WRONG_BLOCK: operator_state.changed_over,
    }
    for end in place.values():
        end.clear()
    for fault in faults:
        if fault.wrong in place:
            place[fault.wrong].add((DeviceId(fault.what), fault.where))


def faults_at(panel: Panel, wiring: Wiring, device: DeviceId) -> tuple[InjectedFault, ...]:
    """The faults that a device can have: its wires off, beside or swapped, its clamps shorted, its parts spoilt.

    Args:
        panel: The panel with power on.
        wiring: All wires, in the order of their batches.
        device: Which device.
    """
    struck = panel.network.devices[device]
    injected_faults: list[InjectedFault] = []
    for unit in struck.kind.units:
        if unit.behaviour is Behaviour.NO and struck.kind.has_coil:
            injected_faults.append(InjectedFault(FaultKind.WELDED, device, unit.name))
            injected_faults.append(InjectedFault(FaultKind.STUCK, device, unit.name))
        elif unit.behaviour in (Behaviour.NO, Behaviour.NC):
            injected_faults.append(InjectedFault(FaultKind.STUCK, device, unit.name))
        elif unit.behaviour is Behaviour.POLE:
            injected_faults.append(InjectedFault(FaultKind.BLOWN, device, unit.name))
        elif unit.behaviour in (Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT):
            injected_faults.append(InjectedFault(FaultKind.OPEN_COIL, device, unit.name))
    pins = [struck.pin(pin.name) for pin in struck.kind.pins if struck.pin(pin.name) in panel.network.point]
    landed = [(end.pin, str(wire.key)) for wire in wiring.wires for end in (wire.start, wire.end) if end.pin in pins]
    landed.sort(key=lambda landed_pin: pins.index(landed_pin[0]))
    injected_faults += [InjectedFault(FaultKind.OFF, key, str(pin)) for pin, key in landed]
    for (pin, key), (other, beside) in pairwise(landed):
        if other != pin:
            injected_faults.append(InjectedFault(FaultKind.NEIGHBOUR, key, str(pin), str(other)))
            injected_faults.append(InjectedFault(FaultKind.SWAPPED, key, str(pin), beside, str(other)))
    injected_faults += [InjectedFault(FaultKind.SHORT, "", str(a), str(b)) for a, b in pairwise(pins)]
    return tuple(injected_faults)
