"""What may be wrong when a step under voltage came otherwise than expected, with all dead readings held against it."""

from collections.abc import Callable, Sequence
from itertools import combinations

from riktig.core.ids import DeviceId, PinRef, WireId, read_pin, read_wire
from riktig.core.job import CircuitId
from riktig.core.proving.dead_panel import DeadPanel
from riktig.core.proving.fault_effects import Faults
from riktig.core.proving.function import Scripts
from riktig.core.proving.live_evidence import LiveEvidence
from riktig.core.proving.live_seen import MakesPanel
from riktig.core.proving.live_trial import LiveTrial
from riktig.core.proving.locate import PRIOR, TWO_AT_ONCE, Probe, Suspect, agreeing, as_suspects
from riktig.core.proving.wrong_panel import single_faults
from riktig.core.schematic import Nets
from riktig.core.simulation import IN_WIRES, FaultKind, InjectedFault

__all__ = ["locate_live"]

MOST_TRIED = 800
"""Faults that are tried in simulation, the nearest to the circuit first (chosen by us: within seconds)."""
MOST_IN_PAIRS = 24
"""Faults that are tried by two (chosen by us: within seconds)."""
FAR = 3
"""How near a fault is that has nothing to do with a circuit."""


def locate_live(
    panel: DeadPanel, nets: Nets, probes: Sequence[Probe], evidence: LiveEvidence, make: MakesPanel, scripts: Scripts
) -> tuple[Suspect, ...]:
    """All single faults that explain what was seen and every dead reading, the likeliest first; else two at once.

    Args:
        panel: The dead panel as it should be.
        nets: All nets.
        probes: The dead readings so far.
        evidence: What was seen after steps under voltage, right and wrong, and measured with everything on, at rest.
        make: Makes the panel with power on, with faults in it.
        scripts: The scripts as they are done at the panel.

    Returns:
        Empty where nothing came otherwise, or nothing explains it.
    """
    wrong = [entry for entry in evidence.seen if not entry.as_expected]
    if not wrong:
        return ()
    circuits = list(dict.fromkeys(entry.circuit for entry in wrong))
    near = _nearness(panel, nets, circuits)
    every = single_faults(panel)
    trial = LiveTrial(make, scripts, evidence, every)
    # A wire that is off or elsewhere reaches far, and hardly one is left by the readings; of the others few reach.
    may_be = [fault for fault in every if fault.wrong in IN_WIRES or (_can_show(panel, fault) and trial.reaches(fault))]
    singles = [
        fault for fault in agreeing(panel, may_be, probes) if fault.wrong not in IN_WIRES or trial.reaches(fault)
    ]
    tried = sorted(singles, key=lambda fault: (near(fault), -PRIOR[fault.wrong]))[:MOST_TRIED]
    explains = {fault: trial.agreement((fault,)) for fault in tried}
    suspects: list[tuple[Faults, float]] = [
        ((fault,), PRIOR[fault.wrong]) for fault, (whole, _) in explains.items() if whole
    ]
    if not suspects:
        useful = [fault for fault, (_, count) in explains.items() if count][:MOST_IN_PAIRS]
        suspects = [
            ((a, b), TWO_AT_ONCE * PRIOR[a.wrong] * PRIOR[b.wrong])
            for a, b in combinations(useful, 2)
            if trial.agreement((a, b))[0]
        ]
    return as_suspects(panel, sorted(suspects, key=lambda suspect: -suspect[1]), len(wrong))


def _nearness(panel: DeadPanel, nets: Nets, circuits: Sequence[CircuitId]) -> Callable[[InjectedFault], int]:
    """How near a fault is to some circuits: in them, on their potentials, on those beside, or far."""
    owner = {device.id: device.circuit for device in panel.devices.values()}
    near_circuits = set(circuits)
    beside = {
        owner.get(pin.device)
        for net in nets.nets
        if any(owner.get(pin.device) in near_circuits for pin in net.pins)
        for pin in net.pins
    }

    def near(fault: InjectedFault) -> int:
        pins = [read_pin(text) for text in (fault.where, fault.to, fault.other) if ":" in text]
        for wire in (fault.what, fault.to) if fault.wrong in IN_WIRES else ():
            pins += read_wire(WireId(wire)) if "~" in wire else ()
        devices = [DeviceId(fault.what), *(pin.device for pin in pins)]
        if any(owner.get(device) in near_circuits for device in devices):
            return 0
        reached = (nets.of_pin.get(pin) for pin in pins)
        if any(owner.get(other.device) in near_circuits for net in reached if net for other in net.pins):
            return 1
        return 2 if any(owner.get(device) in beside for device in devices) else FAR

    return near


def _can_show(panel: DeadPanel, fault: InjectedFault) -> bool:
    """Whether anything is joined to what a fault concerns: a free contact or clamp changes nothing that is seen."""
    if fault.wrong in IN_WIRES:
        return True
    pins = (
        [read_pin(fault.where), read_pin(fault.to)] if fault.wrong is FaultKind.SHORT else _pins_of_unit(panel, fault)
    )
    counts = panel.joined_pins
    return all(pin in panel.node and counts[panel.potentials[panel.node[pin]]] > 1 for pin in pins)


def _pins_of_unit(panel: DeadPanel, fault: InjectedFault) -> list[PinRef]:
    device = panel.devices.get(DeviceId(fault.what))
    units = device.kind.units if device else ()
    return [device.pin(pin) for unit in units if unit.name == fault.where for pin in unit.pins] if device else []
