"""What a person has to accept about how the panel runs: restarts, hand, and contacts in the return of a coil."""

from collections import defaultdict
from collections.abc import Iterable

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import CircuitId, DeviceId, PinRef
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import ALARM, Device, Net, Zone
from riktig.core.simulation import Restart

__all__ = ["OPERATION"]

IN_HAND = "in hand"
_CONTACTS = (Behaviour.NO, Behaviour.NC)


def restarts_accepted(view: View) -> ClauseResult:
    """Automatic restarts when the supply returns or a guard is reset, tried on the circuits as they are drawn."""
    clause = view.source("C14")
    of_motor: dict[DeviceId, list[Restart]] = defaultdict(list)
    for restart in view.restarts:
        of_motor[restart.motor].append(restart)
    findings: list[Finding] = []
    evidence: list[str] = []
    for motor, tried in of_motor.items():
        by_itself = [restart for restart in tried if restart.ran and restart.asks]
        ran = [restart.how for restart in tried if restart.ran]
        if not by_itself:
            how = f"{'; '.join(ran)}: stays off" if ran else "never ran"
            evidence.append(f"{view.tag(motor)}, {how}")
            continue
        when = [f"{restart.how}, when {' and when '.join(_occasions(restart))}" for restart in by_itself]
        text = f"{view.tag(motor)} starts by itself: {'; '.join(when)}."
        remedy = "Sign that nobody is hurt when it starts, and say so on its label; or start it by a button."
        findings.append(Finding("C14", Verdict.JUDGE, text, DeviceKey(motor), clause, remedy))
        evidence.append(f"{view.tag(motor)}: {'; '.join(when)}")
    words = tuple(evidence) or ("no load with a command of its own",)
    return ClauseResult("C14", Group.CONTROL, "Starts by itself", clause, words, tuple(findings))


def _occasions(restart: Restart) -> Iterable[str]:
    if restart.after_power:
        yield "the supply returns"
    if restart.after_reset:
        yield "its guard is reset"


def hand_accepted(view: View) -> ClauseResult:
    """What a load in hand passes by: the contacts in the field that were open while it ran."""
    clause = view.source("C15")
    findings: list[Finding] = []
    evidence: list[str] = []
    for restart in view.restarts:
        if restart.how != IN_HAND or not restart.ran:
            continue
        passed = sorted(view.tag(device.id) for device in _open_at_rest(view, restart.circuit))
        name = view.tag(restart.motor)
        if not passed:
            evidence.append(f"{name} in hand: no contact in the field was open")
            continue
        evidence.append(f"{name} in hand ran with {', '.join(passed)} open")
        text = f"In hand {name} runs whatever {', '.join(passed)} {'says' if len(passed) == 1 else 'say'}."
        remedy = "Sign that who leaves it in hand watches it, or put what must not be passed by ahead of the selector."
        findings.append(Finding("C15", Verdict.JUDGE, text, DeviceKey(restart.motor), clause, remedy))
    words = tuple(evidence) or ("no load can be left in hand",)
    return ClauseResult("C15", Group.CONTROL, "What hand passes by", clause, words, tuple(findings))


def _open_at_rest(view: View, circuit: CircuitId) -> Iterable[Device]:
    """The contacts in the field of a circuit that are open while nothing moves them; another panel's own apart."""
    for device in view.circuits.devices:
        kind = device.kind
        elsewhere = device.circuit != circuit or device.zone is not Zone.FIELD or kind.can(Can.FOREIGN_SUPPLY)
        if elsewhere or kind.can(Can.STATION) or device.role == ALARM:
            continue
        if any(unit.behaviour is Behaviour.NO for unit in kind.units):
            yield device


def returns_free(view: View) -> ClauseResult:
    """No contact stands between a coil and its return, where an earth fault would pass it by."""
    clause = view.source("C16")
    findings: list[Finding] = []
    coils = {
        net.id
        for device in view.circuits.devices
        for unit in device.kind.units
        if unit.behaviour is Behaviour.COIL and (net := view.nets.of_pin.get(device.pin(unit.pins[-1])))
    }
    looked_at = 0
    for device in view.circuits.devices:
        for unit in device.kind.units:
            ends = _ends(view, device, unit) if unit.behaviour in _CONTACTS else None
            if ends is None:
                continue
            looked_at += 1
            inner = [net for net, other in (ends, ends[::-1]) if _is_return(other) and not _is_return(net)]
            if any(net.id in coils for net in inner):
                text = f"{view.tag(device.id)} {unit.name} opens the return of a coil: an earth fault passes it by."
                remedy = "Put it ahead of the coil, or sign that the circuit is watched for earth faults."
                findings.append(Finding("C16", Verdict.JUDGE, text, DeviceKey(device.id), clause, remedy))
    words = (f"{looked_at} contacts, {len(findings)} of them between a coil and its return",)
    return ClauseResult("C16", Group.CONTROL, "Contacts in the return", clause, words, tuple(findings))


def _ends(view: View, device: Device, unit: Unit) -> tuple[Net, Net] | None:
    a, b = (view.nets.of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1]))
    return (a, b) if a and b else None


def _is_return(net: Net) -> bool:
    """Whether current comes back by it to its source: the neutral, the return of control, 0 V."""
    return any(node in ("N", "control.back", "dc.zero") for node in net.nodes)


def both_buttons(view: View) -> ClauseResult:
    """Opposite buttons pressed at the same instant: never both contactors in, whoever is quicker."""
    clause = view.source("C20")
    findings: list[Finding] = []
    evidence: list[str] = []
    for tried in view.pressed_together:
        buttons, contactors = (" and ".join(map(view.tag, ids)) for ids in (tried.buttons, tried.contactors))
        where = DeviceKey(tried.buttons[0])
        if tried.both_in:
            text = f"{buttons} pressed at once bring {contactors} in together: a short circuit between two lines."
            remedy = "Lead the path of each through an opening contact of the other, and fit a mechanical interlock."
            findings.append(Finding("C20", Verdict.FAILS, text, where, clause, remedy))
        elif tried.race:
            lock = "the mechanical interlock allows only one" if tried.locked else "nothing mechanical parts them"
            text = f"{buttons} pressed at once: {contactors} race, and {lock}; which of the two, chance decides."
            remedy = (
                "Press both in the function test and sign that only one comes in."
                if tried.locked
                else "Fit a mechanical interlock, or lead each path through an opening contact of the other's button."
            )
            findings.append(Finding("C20", Verdict.JUDGE, text, where, clause, remedy))
        else:
            evidence.append(f"{buttons} pressed at once: {contactors} never in together")
    words = tuple(evidence) or (f"{len(view.pressed_together)} pairs of opposite buttons",)
    return ClauseResult("C20", Group.CONTROL, "Both buttons at once", clause, words, tuple(findings))


def inputs_follow(view: View) -> ClauseResult:
    """What the controller reads in the field reaches it: each contact moved changes an input."""
    clause = view.source("C22")
    findings: list[Finding] = []
    for tried in view.inputs_follow:
        if tried.noticed:
            continue
        device = view.circuits.device(tried.device)
        text = f"{view.tag(tried.device)} ({device.purpose}) moves no input: the controller never learns of it."
        remedy = "Bring its contact into the path of its input."
        findings.append(Finding("C22", Verdict.FAILS, text, DeviceKey(tried.device), clause, remedy))
    count = len(view.inputs_follow) - len(findings)
    words = (f"{count} of {len(view.inputs_follow)} contacts in the field were moved and read",)
    return ClauseResult("C22", Group.CONTROL, "Inputs of the controller", clause, words, tuple(findings))


def lamps_show_contacts(view: View) -> ClauseResult:
    """A lamp that says that something runs lights by a contact; beside a coil it says only that the coil is fed."""
    clause = view.source("C19")
    coils: dict[frozenset[PinRef], Device] = {}
    for device in view.circuits.devices:
        if device.kind.can(Can.SWITCHES_LOAD):
            for unit in device.kind.units:
                ends = _ends(view, device, unit) if unit.behaviour is Behaviour.COIL else None
                if ends:
                    coils[frozenset(net.id for net in ends)] = device
    findings: list[Finding] = []
    looked_at = 0
    for lamp in view.circuits.devices:
        if not lamp.kind.can(Can.SHOWS) or "RUN" not in lamp.legend.upper():
            continue
        looked_at += 1
        ends = _ends(view, lamp, lamp.kind.units[0])
        coil = coils.get(frozenset(net.id for net in ends)) if ends else None
        if coil:
            text = f"{view.tag(lamp.id)} ({lamp.legend}) lights when {view.tag(coil.id)} is fed, in or not."
            remedy = "Light it by a contact of the contactor (Practice, run lamp), or sign that it is understood so."
            findings.append(Finding("C19", Verdict.JUDGE, text, DeviceKey(lamp.id), clause, remedy))
    words = (f"{looked_at} lamps say that something runs, {len(findings)} of them beside a coil",)
    return ClauseResult("C19", Group.CONTROL, "Lamps that say it runs", clause, words, tuple(findings))


OPERATION = (restarts_accepted, hand_accepted, returns_free, lamps_show_contacts, both_buttons, inputs_follow)
