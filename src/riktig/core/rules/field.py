"""Terminals for the field, screens of cables, the loom of the door, and what a drive leaks to earth."""

from riktig.core.catalogue import Can
from riktig.core.job import EndStyle, PinRef
from riktig.core.keys import DeviceKey, Key, WireKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict, with_the_rest
from riktig.core.rules.view import View
from riktig.core.schematic import NetClass, Zone
from riktig.core.standards import conductor_name, conductor_type, rule, torque_name
from riktig.core.wiring import Wire, over_hinge

__all__ = ["FIELD"]

MOST_NAMED = 6
"""Things of which a finding is made one by one (chosen by us)."""


def field_terminals(view: View) -> ClauseResult:
    """Every terminal for the field has a mark and a torque; whether it takes its cores, W04 says."""
    clause = view.source("W14")
    title = "Terminals for the field"
    findings: list[Finding] = []
    torques: dict[str, int] = {}
    american = view.rulebook.north_american
    looked_at = 0
    for strip in view.strips.strips:
        for row in strip.rows:
            if not row.cores:
                continue
            looked_at += 1
            part = view.sizing.parts[row.device]
            where, name = DeviceKey(row.device), f"{strip.tag}:{row.mark or row.position}"
            if not row.mark:
                text = f"Terminal {row.position} of {strip.tag} has no mark, so nobody knows what lands there."
                findings.append(Finding("W14", Verdict.FAILS, text, where, clause, "Give it a mark."))
            if part.power.torque_n_m <= 0:
                text = f"With which torque {name} ({part.ref}) is tightened is not known."
                remedy = "Enter it with the part, or sign that its clamp has no screw."
                findings.append(Finding("W14", Verdict.JUDGE, text, where, clause, remedy))
            else:
                torque = torque_name(part.power.torque_n_m, awg=american)
                torques[torque] = torques.get(torque, 0) + 1
    warm = view.practice.terminal_c.value
    marked = sum(bool(row.mark) for strip in view.strips.strips for row in strip.rows if row.cores)
    evidence = [f"{looked_at} terminals take cores from the field, {marked} of them with a mark"]
    evidence += [f"{count} at {torque}" for torque, count in torques.items()]
    if american:
        evidence.append(f"conductors of {warm} copper, as the sections are reckoned")
    none = "" if looked_at else "no core from the field lands on a terminal"
    return ClauseResult(
        "W14", Group.WIRING, title, clause, tuple(evidence), tuple(with_the_rest(findings, MOST_NAMED)), none
    )


def screens_landed(view: View) -> ClauseResult:
    """Cables behind drives and of values are screened, and somebody says that their screens are landed."""
    clause = view.source("W12")
    title = "Screens of cables"
    screened = [
        (cable.device, f"{cable.tag} to {cable.to}, {cable.make_up}: its screen is to be landed {cable.screen}")
        for cable in view.strips.cables
        if cable.screen
    ]
    findings = [
        Finding("W12", Verdict.JUDGE, f"{words}.", DeviceKey(device), clause,
                "Look at it when it is connected; sign that it is landed so, or how your maker of drives wants it.")
        for device, words in screened
    ]  # fmt: skip
    findings = with_the_rest(findings, MOST_NAMED)
    evidence = tuple(words for _device, words in screened)
    none = "" if screened else "no cable lies behind a drive or carries a value"
    return ClauseResult("W12", Group.WIRING, title, clause, evidence, tuple(findings), none)


def door_loom(view: View) -> ClauseResult:
    """What crosses the hinge is flexible, and long enough that the door opens without pulling."""
    clause = view.source("W13")
    title = "Loom of the door"
    wires = [wire for wire in view.wiring.wires if _on_door(view, wire.start.pin) is not _on_door(view, wire.end.pin)]
    if not wires:
        return ClauseResult("W13", Group.WIRING, title, clause, (), (), "no wire crosses a hinge")
    flexible = view.practice.ends is EndStyle.FERRULES
    kinds = ", ".join(sorted({conductor_type(wire.mm2, flexible=flexible) for wire in wires}))
    straight = max(over_hinge(view.layout, view.enclosure, leaf) for leaf in view.door.leaves)
    evidence = (
        f"{len(wires)} wires cross the hinge, {kinds}",
        f"{max(view.practice.door_loop, straight):.0f} mm of each for {straight:.0f} mm from duct to hinge",
    )
    short = [wire for wire in wires if wire.length < straight]
    findings = [
        Finding("W13", Verdict.FAILS, f"Wire {wire.name} is {wire.length:.0f} mm long: it pulls when the door opens.",
                WireKey(wire.key), clause, "Give it the loop of the hinge.")
        for wire in short
    ]  # fmt: skip
    findings = with_the_rest(findings, MOST_NAMED)
    if not flexible:
        text = (
            f"{len(wires)} wires cross the hinge and are not flexible ({kinds}): they break where the door bends them."
        )
        remedy = "Wire the door with flexible conductors, or sign that these are made for it."
        fix = QuickFix("Wire with flexible conductors", "flexible")
        findings.append(Finding("W13", Verdict.JUDGE, text, WireKey(wires[0].key), clause, remedy, fix))
    return ClauseResult("W13", Group.WIRING, title, clause, evidence, tuple(findings))


def _on_door(view: View, pin: PinRef) -> bool:
    return view.circuits.device(pin.device).zone is Zone.DOOR


def leakage_to_earth(view: View) -> ClauseResult:
    """Where drives may leak more than 10 mA, the protective conductor is thick enough, doubled or watched.

    Each section of the way counts: from the drive to the bar, from the bar to the terminal of the supply, and that of
    the supply itself.
    """
    clause = view.source("E34")
    title = "Leakage of drives"
    least = rule("leakage protective size")
    drives = [device for device in view.circuits.devices if device.kind.can(Can.VARIES_SPEED)]
    if not drives:
        return ClauseResult("E34", Group.EARTHING, title, clause, (), (), "no drive is drawn")
    findings: list[Finding] = []
    evidence: list[str] = []
    earths = _earths(view)
    for device in drives:
        leaking = [
            wire
            for wire in view.wiring.wires
            if wire.net in earths and device.id in (wire.start.pin.device, wire.end.pin.device)
        ]
        thick = [wire for wire in leaking if wire.mm2 >= least.value - 1e-9]
        tag = view.tag(device.id)
        if thick or len(_to_bars(view, leaking)) > 1:
            evidence.append(f"{tag}: {len(leaking)} of {conductor_name((thick or leaking)[0].mm2)}")
            continue
        sizes = conductor_name(leaking[0].mm2) if leaking else "none"
        text = (
            f"{tag} may leak more than 10 mA; its protective conductor is {sizes}, and neither "
            f"{conductor_name(least.value)} nor doubled."
        )
        remedy = "Take a thicker one or a second one, or sign that its maker says less than 10 mA."
        at: Key = WireKey(leaking[0].key) if leaking else DeviceKey(device.id)
        findings.append(Finding("E34", Verdict.JUDGE, text, at, clause, remedy))
    for what, mm2, count, where in _ways_of_leakage(view, earths):
        if count > 1 or mm2 >= least.value - 1e-9:
            evidence.append(f"{what}: {count} of {conductor_name(mm2)}")
            continue
        text = (
            f"What the drives leak returns by {what}, {conductor_name(mm2)}: neither {conductor_name(least.value)} "
            "nor doubled."
        )
        remedy = "Take a thicker one or a second one, or sign that all drives together leak less than 10 mA."
        findings.append(Finding("E34", Verdict.JUDGE, text, where, clause, remedy))
    return ClauseResult("E34", Group.EARTHING, title, clause, tuple(evidence), tuple(findings))


def _ways_of_leakage(view: View, earths: set[PinRef]) -> list[tuple[str, float, int, Key]]:
    """The sections that lead the leakage of all drives out: each with its least size, how many there are, where."""
    supply = next((device for device in view.circuits.devices if device.kind.can(Can.SUPPLY)), None)
    if supply is None:
        return []
    ways: list[tuple[str, float, int, Key]] = []
    for device in view.circuits.devices:
        if not device.strip or device.circuit != supply.circuit:
            continue
        leaking = [
            wire
            for wire in view.wiring.wires
            if wire.net in earths and device.id in (wire.start.pin.device, wire.end.pin.device)
        ]
        bars = _to_bars(view, leaking)
        if bars:
            names = " and ".join(wire.name for wire in bars)
            ways.append((names, min(wire.mm2 for wire in bars), len(bars), WireKey(bars[0].key)))
    ways.append(("the protective conductor of the supply", view.sizing.feeder_pe_mm2, 1, DeviceKey(supply.id)))
    return ways


def _to_bars(view: View, wires: list[Wire]) -> list[Wire]:
    """Those that lead to an earth bar: what goes on from a drive to its motor does not double its own."""
    ends = ((wire, view.circuits.device(end.pin.device)) for wire in wires for end in (wire.start, wire.end))
    return [wire for wire, device in ends if device.kind.can(Can.EARTH_BAR)]


def _earths(view: View) -> set[PinRef]:
    return {net.id for net in view.nets.nets if net.net_class is NetClass.EARTH}


FIELD = (field_terminals, screens_landed, door_loom, leakage_to_earth)
