"""What a repair takes with it: the ticks of the wires that come out again, and the tests that must be repeated."""

from collections.abc import Iterable, Sequence

from riktig.core.ids import DeviceId
from riktig.core.proving.fault_effects import Faults
from riktig.core.proving.tests import Test, TestPlan
from riktig.core.records import NewRecord, Operation, ReadingTaken, Record, TakenBack, WireDone, log_of, taken_back
from riktig.core.simulation import FaultKind

__all__ = ["repair_entries", "repeated_after"]

_OF_WIRES = (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)
_LOOSENED = (Operation.LANDED_START, Operation.LANDED_END, Operation.TIGHTENED)


def repeated_after(faults: Faults, plan: TestPlan) -> tuple[Test, ...]:
    """The tests that are true of what is taken out or put in for a repair.

    Args:
        faults: What is put right.
        plan: All tests of the panel.
    """
    wires, devices, pins = _concerned(faults)
    return tuple(
        test
        for test in plan.tests
        if wires & set(test.true_of.split())
        or (wires and test.wire in wires)
        or {test.black.pin.device, test.red.pin.device} & devices
        or {str(test.black.pin), str(test.red.pin)} & pins
    )


def _concerned(faults: Faults) -> tuple[set[str], set[DeviceId], set[str]]:
    wires: set[str] = set()
    devices: set[DeviceId] = set()
    pins: set[str] = set()
    for fault in faults:
        if fault.wrong in _OF_WIRES:
            wires |= {fault.what} | ({fault.to} if fault.wrong is FaultKind.SWAPPED else set())
        elif fault.wrong is FaultKind.SHORT:
            pins |= {fault.where, fault.to}
        else:
            devices.add(DeviceId(fault.what))
    return wires, devices, pins


def repair_entries(faults: Faults, plan: TestPlan, records: Iterable[Record], why: str) -> list[NewRecord]:
    """The corrections that open the work and the tests again.

    Landing and tightening of the wires concerned are taken back, so that they stand among the half-done wires in Build;
    so is every reading that is true of what is touched.

    Args:
        faults: What is put right.
        plan: All tests of the panel.
        records: The log, oldest first.
        why: What was found.
    """
    log: Sequence[Record] = log_of(records)
    gone = taken_back(log)
    wires, _, _ = _concerned(faults)
    again = {test.key for test in repeated_after(faults, plan)}
    entries: list[NewRecord] = []
    for record in log:
        if record.id in gone or record.corrects:
            continue
        match record.facts:
            case WireDone(operation=operation) if record.subject in wires and operation in _LOOSENED:
                entries.append(NewRecord(record.subject, TakenBack(operation.words, why), record.id))
            case ReadingTaken(title=title) if record.subject in again:
                entries.append(NewRecord(record.subject, TakenBack(f"reading of {title}", why), record.id))
    return entries
