"""Steps under voltage tried on a panel with faults: from the instant at which the faults first make a difference."""

from collections import defaultdict
from collections.abc import Iterable, Sequence

from riktig.core.errors import RiktigError
from riktig.core.ids import DeviceId, PinRef, read_pin
from riktig.core.job import CircuitId
from riktig.core.proving.fault_effects import Faults
from riktig.core.proving.function import Scripts
from riktig.core.proving.influence import Influence
from riktig.core.proving.live_evidence import LiveEvidence
from riktig.core.proving.live_seen import MakesPanel, SeenAfterStep, is_so, seen_of
from riktig.core.simulation import IN_WIRES, MAINS, FaultKind, InjectedFault, Panel, Runner, inject_faults

__all__ = ["LiveTrial"]

_NO_POLE = -1


class LiveTrial:
    """The steps that were seen, tried on panels with faults.

    Method:
        The sound panel does each script once, and how it stood before every step is kept. As long as a contact
        that a fault holds closed would join nothing that is apart, one that it holds open carries nothing, and a load
        that it breaks has no voltage, and what it bridges is at one potential, the panel with the fault does what the
        sound one does; so a trial begins with the step in which that ends. Wires off or on another clamp change the
        network itself: for them a panel is made.
    """

    def __init__(
        self, make: MakesPanel, scripts: Scripts, evidence: LiveEvidence, faults: Iterable[InjectedFault]
    ) -> None:
        self._make, self._measured = make, evidence.measured
        seen: dict[CircuitId, list[SeenAfterStep]] = defaultdict(list)
        for entry in evidence.seen:
            seen[entry.circuit].append(entry)
        shorts = [fault for fault in faults if fault.wrong is FaultKind.SHORT]
        sound = make()
        self._gives = _gives_all(sound, self._measured)
        self._dark = _without_power(sound)
        self._circuits = [
            _CircuitTrial(sound.fork(), circuit, scripts[circuit], entries, shorts) for circuit, entries in seen.items()
        ]
        looked_at = {device for entry in evidence.seen for device, _ in entry.seen}
        pins = [pin for first, last, _ in self._measured for pin in (first, last)]
        always = set(range(len(sound.network.contacts))).intersection(*(each.always for each in self._circuits))
        poles = {(pole.system, pole.name) for pole in sound.volts.poles}
        poles.intersection_update(*(each.poles for each in self._circuits))
        self._influence = Influence(sound, always, poles, looked_at, pins)

    def reaches(self, fault: InjectedFault) -> bool:
        """Whether a fault can make a difference to what was seen; else the panel with it does as the sound one."""
        return self._influence.reaches(fault)

    def agreement(self, faults: Faults) -> tuple[bool, int]:
        """Whether a panel with faults would be seen so after every step; and how many wrong steps it explains."""
        whole, count = True, 0
        for circuit in self._circuits:
            felt = _earliest(map(circuit.first_felt, faults))
            if felt is None:
                agrees, explained = circuit.agreement_of_sound
            elif felt and not any(fault.wrong in IN_WIRES for fault in faults):
                agrees, explained = circuit.agreement(_with(circuit.before[felt - 1], faults), felt)
            else:
                panel = self._at_rest(circuit, faults)
                if panel is None or panel.shorts or not _gives_all(panel, self._measured):
                    return False, 0
                agrees, explained = circuit.agreement(panel, 1)
            if not self._gives and (felt is None or felt):
                return False, 0
            whole, count = whole and agrees, count + explained
        return whole, count

    def _at_rest(self, circuit: "_CircuitTrial", faults: Faults) -> Panel | None:
        """The panel with faults, power on and nothing operated; None where a wire is not there any more."""
        if any(fault.wrong in IN_WIRES for fault in faults):
            try:
                return self._make(faults)
            except RiktigError:
                return None
        at_rest = circuit.before[0]
        panel = _with(at_rest, faults)
        now, before = panel.operator_state, at_rest.operator_state
        if panel.shorts or (now.tripped, now.lost) != (before.tripped, before.lost):
            # What trips depends on what comes on first.
            panel = _with(self._dark, faults)
            panel.operator_state.lost.clear()
            panel.run_until_stable()
            panel.run_until_stable()  # what tripped has cleared its short; one that nothing clears is found again
        return panel


class _CircuitTrial:
    """The script of one circuit, on the sound panel and on those with faults."""

    def __init__(
        self,
        panel: Panel,
        circuit: CircuitId,
        script: Sequence[str],
        entries: Sequence[SeenAfterStep],
        shorts: Sequence[InjectedFault],
    ) -> None:
        self._circuit = circuit
        self._after = {entry.number: entry for entry in entries}
        self._script = [text.partition(":")[0].strip() for text in script[: max(self._after)]]
        self.before: list[Panel] = []
        """The sound panel before each step."""
        self._consumer = {(each.device, each.unit): n for n, each in enumerate(panel.network.consumers)}
        self._units = defaultdict(list)
        for number, contact in enumerate(panel.network.contacts):
            self._units[contact.device].append((contact.unit, number))
        self._carries: dict[int, int] = {}
        self._holds_apart: dict[int, int] = {}
        self._has_voltage: dict[int, int] = {}
        self._apart: dict[InjectedFault, int] = {}
        self.always = frozenset(number for number, closed in enumerate(panel.connectivity.closed) if closed)
        """The contacts that stay closed all the time."""
        self.poles = frozenset((pole.system, pole.name) for pole in panel.volts.poles)
        """The poles that give voltage all the time."""
        point = panel.network.point
        self._shorts = {
            fault: (point[first], point[last])
            for fault in shorts
            if (first := read_pin(fault.where)) in point and (last := read_pin(fault.to)) in point
        }
        self._record(panel)
        self.agreement_of_sound = self.agreement(self.before[0].fork(), 1)

    def _record(self, panel: Panel) -> None:
        """Does the script on the sound panel; keeps how it stood, and in which step what made a difference first."""
        self._note_differences(panel, 0)
        step = 0

        def look() -> None:
            self._note_differences(panel, step)

        panel.after_each = look
        runner = Runner(panel, self._circuit)
        self.before.append(panel.fork())
        for step, text in enumerate(self._script, 1):  # noqa: B007 (``look`` reads it)
            try:
                runner.do(text)
            except RiktigError:  # the builder took out what it names
                return
            self.before.append(panel.fork())

    def _note_differences(self, panel: Panel, step: int) -> None:
        at, root, closed = panel.volts.at, panel.connectivity.root, panel.connectivity.closed
        self.always = frozenset(number for number in self.always if closed[number])
        self.poles &= {(pole.system, pole.name) for pole in panel.volts.poles}

        def apart(first: int, last: int) -> bool:
            if at[first] is None and at[last] is None:
                return False
            return root[first] == _NO_POLE or root[first] != root[last]

        for number, contact in enumerate(panel.network.contacts):
            if closed[number]:
                if at[contact.a] is not None:
                    self._carries.setdefault(number, step)
            elif apart(contact.a, contact.b):
                self._holds_apart.setdefault(number, step)
        for number, volts in enumerate(panel.volts.across):
            if volts > 0:
                self._has_voltage.setdefault(number, step)
        for fault, ends in self._shorts.items():
            if apart(*ends):
                self._apart.setdefault(fault, step)

    def first_felt(self, fault: InjectedFault) -> int | None:
        """The step in which a fault first makes a difference, 0 at rest; None where it never does."""
        if fault.wrong in IN_WIRES:
            return 0
        if fault.wrong is FaultKind.SHORT:
            return self._apart.get(fault)
        if fault.wrong is FaultKind.OPEN_COIL:
            number = self._consumer.get((DeviceId(fault.what), fault.where))
            return None if number is None else self._has_voltage.get(number)
        felt: list[int | None] = []
        for unit, number in self._units[DeviceId(fault.what)]:
            is_place = unit == fault.where
            if fault.wrong is FaultKind.WELDED:  # it may keep the others of its device from moving too
                felt += [self._holds_apart.get(number), None if is_place else self._carries.get(number)]
            elif is_place and fault.wrong in (FaultKind.STUCK, FaultKind.BLOWN):
                felt.append(self._carries.get(number))
            elif is_place:
                felt += [self._holds_apart.get(number), self._carries.get(number)]
        return _earliest(felt)

    def agreement(self, panel: Panel, first: int) -> tuple[bool, int]:
        """The steps from one on, until the panel does otherwise than was seen; before it, it did as the sound one.

        Args:
            panel: The panel as it stands before that step; it is operated.
            first: The step, counted from 1.

        Returns:
            Whether everything was seen so, and how many wrong steps that explains.
        """
        whole, count = True, 0
        runner = Runner(panel, self._circuit)
        for number in range(1, len(self._script) + 1):
            stands = panel
            if number >= first:
                try:
                    runner.do(self._script[number - 1])
                except RiktigError:  # the builder took out what it names
                    break
            elif number < len(self.before):
                stands = self.before[number]
            entry = self._after.get(number)
            if entry is None:
                continue
            does_now = seen_of(stands, [stands.network.devices[device] for device, _ in entry.seen])
            if all(is_so(does, does_now[device]) for device, does in entry.seen):
                count += not entry.as_expected
                continue
            whole = False
            if entry.as_expected:
                break  # no other fault beside it would put that right
        return whole, count


def _earliest(steps: Iterable[int | None]) -> int | None:
    return min((step for step in steps if step is not None), default=None)


def _with(panel: Panel, faults: Faults) -> Panel:
    """A panel with faults in its devices and shorts between its clamps, as it stands then."""
    fork = panel.fork()
    inject_faults(fork.operator_state, faults)
    for fault in faults:
        if fault.wrong is FaultKind.SHORT:
            fork.bridge(*(fork.network.point[read_pin(pin)] for pin in (fault.where, fault.to)))
    fork.run_until_stable()
    return fork


def _without_power(panel: Panel) -> Panel:
    """The panel with its incoming supply off and everything dropped out."""
    fork = panel.fork()
    fork.operator_state.lost |= {pole.name for pole in panel.network.poles if pole.system == MAINS}
    fork.run_until_stable()
    return fork


def _gives_all(panel: Panel, measured: Iterable[tuple[PinRef, PinRef, float]]) -> bool:
    """Whether at least so many volts stand between points."""
    return all(_gives(panel, *entry) for entry in measured)


def _gives(panel: Panel, first: PinRef, last: PinRef, volts: float) -> bool:
    point, at = panel.network.point, panel.volts.at
    ends = [at[point[pin]] if pin in point else None for pin in (first, last)]
    if ends[0] is None or ends[1] is None:
        return False
    (direct, alternating), (other_direct, other_alternating) = ends[0], ends[1]
    return abs(direct - other_direct) + abs(alternating - other_alternating) >= volts
