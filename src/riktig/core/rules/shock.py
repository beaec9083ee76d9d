"""Protection against electric shock with the door open: fingers, extra-low voltage, and charge that stays."""

from collections import defaultdict

from riktig.core.catalogue import Behaviour, Can, insulation_of
from riktig.core.job import CircuitId, DeviceId, PinRef, circuit_of
from riktig.core.keys import DeviceKey, PartKey
from riktig.core.labels import Label, Medium
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict, with_the_rest
from riktig.core.rules.shared_ducts import net_volts
from riktig.core.rules.view import View
from riktig.core.schematic import Device, NetClass, Zone
from riktig.core.standards import american_spacings as spacings_of
from riktig.core.standards import clearance, creepage, impulse_voltage, rule

__all__ = ["SHOCK", "device_volts"]

MOST_NAMED = 6
"""Parts of which a finding is made, those that fail first; they stand for the others (chosen by us)."""


def device_volts(view: View) -> dict[DeviceId, float]:
    """The highest voltage between the pins of everything in the panel or on its door, and from them to earth, V.

    Method:
        Between two lines of the supply that meet at one part stands the voltage between lines, else that to the
        neutral; a potential of unknown line counts as both. What stays live stands at what its own source gives;
        its return, and what lies behind a contact there, at what is live in its circuit.
    """
    volts_of, supply = view.once(net_volts), view.supply
    live = {live_net.net: live_net.volts for live_net in view.live_off}
    of_circuit: dict[CircuitId, float] = {}
    for live_net in view.live_off:
        for circuit in {circuit_of(pin.device) for pin in live_net.pins}:
            of_circuit[circuit] = max(of_circuit.get(circuit, 0.0), live_net.volts)
    volts: dict[DeviceId, float] = {}
    for device in view.circuits.devices:
        if device.zone is Zone.FIELD:
            continue
        nets = [net for pin in device.pins.values() if (net := view.nets.of_pin.get(pin))]
        lines = {net.line for net in nets if net.net_class is NetClass.POWER}
        of_others = [volts_of[net.id] for net in nets if net.net_class in (NetClass.CONTROL, NetClass.DC)]
        of_others += [
            live.get(net.id, of_circuit.get(device.circuit, supply.voltage_to_neutral_v))
            for net in nets
            if net.net_class is NetClass.EXCEPTED
        ]
        between = supply.voltage_v if len(lines) > 1 or -1 in lines else supply.voltage_to_neutral_v if lines else 0.0
        volts[device.id] = max(between, *of_others, 0.0)
    return volts


def fingers_kept_off(view: View) -> ClauseResult:
    """With the door open no finger reaches what is live: every part says so by its data, or has a cover."""
    clause = view.source("E31")
    title = "Live parts out of reach of fingers"
    least = rule("extra-low voltage").value
    live = [device for device in view.circuits.devices if view.once(device_volts).get(device.id, 0.0) > least]
    unknown: list[Device] = []
    bare: list[Device] = []
    for device in live:
        insulation = insulation_of(view.sizing.parts[device.id])
        if insulation is None:
            unknown.append(device)
        elif insulation.touch == "bare":
            bare.append(device)
    safe = len(live) - len(unknown) - len(bare)
    evidence = (
        f"{safe} of {len(live)} parts above {least:g} V are finger-safe by the figures of generic parts",
        "those figures are invented but lifelike: compare with the makers'",
    )
    reached = [
        Finding(
            "E31",
            Verdict.FAILS,
            f"{view.tag(device.id)} has bare live metal that a finger reaches.",
            DeviceKey(device.id),
            clause,
            "Cover it, or take a part that is finger-safe.",
        )
        for device in bare
    ]
    not_known = [
        Finding("E31", Verdict.JUDGE,
                f"Whether {view.tag(device.id)} ({view.sizing.parts[device.id].ref}) is finger-safe is not known.",
                DeviceKey(device.id), clause, "Read its data, cover it where it is not, and sign.")
        for device in unknown
    ]  # fmt: skip
    findings = with_the_rest(reached, MOST_NAMED) + with_the_rest(not_known, MOST_NAMED)
    none = "" if live else f"nothing in the panel stands above {least:g} V"
    return ClauseResult("E31", Group.PROTECTION, title, clause, evidence, tuple(findings), none)


def insulated_for_voltage(view: View) -> ClauseResult:
    """Every part is insulated for the voltage at its clamps and for the impulses of the supply."""
    clause = view.source("W15")
    title = "Clearance and creepage"
    supply, least = view.supply, rule("extra-low voltage").value
    impulse = impulse_voltage(max(supply.voltage_to_neutral_v, supply.voltage_v / 3**0.5))
    evidence = list(_distances(view, impulse.value if impulse else None))
    findings: list[Finding] = []
    looked_at = 0
    for device, volts in view.once(device_volts).items():
        if volts <= least:
            continue
        part = view.sizing.parts[device]
        insulation = insulation_of(part)
        if insulation is None:
            name = f"{view.tag(device)} ({part.ref})"
            text = f"For which voltage {name} is insulated is not known; it stands at {volts:g} V."
            remedy = "Read its rated insulation and impulse voltage, compare, and sign."
            findings.append(Finding("W15", Verdict.JUDGE, text, DeviceKey(device), clause, remedy))
            continue
        looked_at += 1
        too_low = insulation.rated_v < volts
        if too_low or (impulse and insulation.impulse_kv < impulse.value and _on_lines(view, device)):
            text = (
                f"{view.tag(device)} ({part.ref}) is insulated for {insulation.rated_v:g} V and impulses of "
                f"{insulation.impulse_kv:g} kV; it stands at {volts:g} V"
                + ("." if too_low else f", where impulses of {impulse.value if impulse else 0:g} kV are reckoned with.")
            )
            remedy = "Take a part that is made for this voltage."
            findings.append(Finding("W15", Verdict.FAILS, text, DeviceKey(device), clause, remedy))
    evidence.append(f"{looked_at} parts above {least:g} V, each by its own rated voltages")
    if impulse is None:
        text = f"The tables of distances end below {supply.voltage_v:g} V."
        findings.append(Finding("W15", Verdict.JUDGE, text, PartKey("supply"), clause, "Compare by hand and sign."))
    findings.sort(key=lambda finding: finding.verdict is not Verdict.FAILS)
    none = "" if looked_at or findings else f"nothing in the panel stands above {least:g} V"
    return ClauseResult(
        "W15", Group.WIRING, title, clause, tuple(evidence), tuple(with_the_rest(findings, MOST_NAMED)), none
    )


def _distances(view: View, impulse_kv: float | None) -> list[str]:
    """What bare metal has to keep, in words."""
    volts = view.supply.voltage_v
    if view.rulebook.north_american:
        spacings = spacings_of(volts)
        if spacings is None:
            return []
        air, surface, wall = spacings
        return [f"bare metal of branch circuits at {volts:g} V: {air:g} mm in air, {surface:g} mm over a surface, "
                f"{wall:g} mm to the wall"]  # fmt: skip
    air_mm, surface_mm = clearance(impulse_kv) if impulse_kv else None, creepage(volts)
    if air_mm is None or surface_mm is None:
        return []
    return [
        f"at {volts:g} V and impulses of {impulse_kv:g} kV (category III): {air_mm.value:g} mm in air, "
        f"{surface_mm.value:g} mm over a surface (pollution degree 3)"
    ]


def _on_lines(view: View, device: DeviceId) -> bool:
    """Whether a part hangs on the lines of the supply itself: behind a transformer impulses are less."""
    pins = view.circuits.device(device).kind.pins
    nets = [view.nets.of_pin.get(PinRef(device, pin.name)) for pin in pins]
    return any(net is not None and net.net_class is NetClass.POWER for net in nets)


def extra_low_voltage(view: View) -> ClauseResult:
    """An extra-low voltage comes from a safe source and has one side earthed; which potentials it meets, C04 says."""
    clause = view.source("E32")
    title = "Extra-low voltage"
    least = rule("extra-low voltage").value
    sources = [device for device in view.circuits.devices if device.kind.can(Can.MAKES_DC)]
    if view.practice.transformer_v <= least:
        sources += [device for device in view.circuits.devices if device.kind.can(Can.TRANSFORMS)]
    earthed = _earthed_nets(view)
    findings: list[Finding] = []
    evidence: list[str] = []
    for device in sources:
        part, tag, where = view.sizing.parts[device.id], view.tag(device.id), DeviceKey(device.id)
        if insulation_of(part) is None:
            text = f"Whether {tag} ({part.ref}) keeps its output safely apart from the supply is not known."
            remedy = "Read its data: a safety transformer or a supply for PELV. Then sign."
            findings.append(Finding("E32", Verdict.JUDGE, text, where, clause, remedy))
        nets = [net for pins in _outputs(device) for pin in pins if (net := view.nets.of_pin.get(pin))]
        if nets and not any(net.id in earthed for net in nets):
            text = f"No side of the extra-low voltage of {tag} is earthed: the first fault to earth stays unseen."
            remedy = "Earth one side by a link, or sign that it stands free and is watched."
            findings.append(Finding("E32", Verdict.JUDGE, text, where, clause, remedy))
        elif nets:
            evidence.append(f"{tag}: one side earthed")
    generic = [view.tag(device.id) for device in sources if insulation_of(view.sizing.parts[device.id])]
    if generic:
        evidence.append(f"{', '.join(generic)} taken as safely apart from the supply: generic parts, compare with data")
    none = "" if sources else "no extra-low voltage is made in the panel"
    return ClauseResult("E32", Group.PROTECTION, title, clause, tuple(evidence), tuple(findings), none)


def _outputs(device: Device) -> list[tuple[PinRef, ...]]:
    return [pins for unit, pins in device.unit_pins if unit.behaviour is Behaviour.SOURCE]


def _earthed_nets(view: View) -> set[PinRef]:
    """The potentials that a link joins to the protective conductor."""
    earthed: set[PinRef] = set()
    for device in view.circuits.devices:
        for unit, pins in device.unit_pins:
            if unit.symbol == "link":
                nets = [net for pin in pins if (net := view.nets.of_pin.get(pin))]
                if any(net.net_class is NetClass.EARTH for net in nets):
                    earthed |= {net.id for net in nets}
    return earthed


def stored_charge(view: View) -> ClauseResult:
    """What keeps its charge after the main switch is off has a plate that says how long to wait."""
    clause = view.source("E33")
    title = "Charge that stays"
    drives = [device for device in view.circuits.devices if device.kind.can(Can.VARIES_SPEED)]
    plates: dict[DeviceId, list[Label]] = defaultdict(list)
    for label in view.labels.on(Medium.WARNING):
        if isinstance(label.key, DeviceKey):
            plates[label.key.device].append(label)
    findings = [
        Finding("E33", Verdict.FAILS, f"{view.tag(device.id)} keeps its charge, and no plate says how long.",
                DeviceKey(device.id), clause, "Put the plate on it.")
        for device in drives
        if not plates[device.id]
    ]  # fmt: skip
    findings += [
        Finding("E33", Verdict.JUDGE, f"The plate on {view.tag(device.id)} says “{' '.join(label.lines)}” by the "
                f"builder's word ({label.own}).", DeviceKey(device.id), clause, "Sign that it says how long to wait.")
        for device in drives
        for label in plates[device.id]
        if label.own
    ]  # fmt: skip
    evidence = tuple(
        f"{view.tag(device.id)}: {' '.join(label.lines)}" for device in drives for label in plates[device.id][:1]
    )
    none = "" if drives else "no drive or capacitor is drawn"
    return ClauseResult("E33", Group.PROTECTION, title, clause, evidence, tuple(findings), none)


SHOCK = (fingers_kept_off, insulated_for_voltage, extra_low_voltage, stored_charge)
