"""Clauses about supply, protection, protective conductors and control circuits."""

from collections.abc import Iterator

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import IMPLIED, Earthing, PinRef, Recipe
from riktig.core.keys import DeviceKey, PartKey, ValueKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import PASS, Device, NetClass, joined_nets, reached
from riktig.core.standards import allowed_colours

__all__ = ["ELECTRICAL"]


NEC_MOST = 1.40 / 1.25
"""How far an overload may be set above what is proposed when the motor would not start: 140 for 125 % (NEC 430.32(C),
from memory; of a motor with a service factor of 1.15, of others less)."""
LAMP_MEANS = {"green": "normal", "yellow": "abnormal", "red": "emergency", "blue": "mandatory", "white": "other"}
"""What a lamp of each asked colour is lit for (IEC 60204-1 Table 4, from memory)."""
_LOADS = {Behaviour.COIL, Behaviour.LAMP, Behaviour.WINDING, Behaviour.LOAD, Behaviour.INPUT}


def _result(
    code: str, group: Group, title: str, clause: str, evidence: list[str], findings: list[Finding]
) -> ClauseResult:
    return ClauseResult(code, group, title, clause, tuple(evidence), tuple(findings))


def supply_has_neutral(view: View) -> ClauseResult:
    """Loads between phase and neutral need a neutral from the supply."""
    clause = view.source("E01")
    supply = view.supply
    users = sorted(
        {
            view.tag(device.id)
            for net in view.nets.nets
            if net.net_class is NetClass.NEUTRAL
            for device in (view.circuits.device(pin.device) for pin in net.pins)
            if not any(device.kind.can(ability) for ability in (Can.NEUTRAL_TERMINAL, Can.NEUTRAL_BAR, Can.SUPPLY))
        }
    )
    findings = []
    if users and not supply.neutral:
        findings.append(
            Finding(
                "E01",
                Verdict.FAILS,
                f"The supply brings no neutral, but {', '.join(users)} work on "
                f"{supply.voltage_to_neutral_v:g} V to neutral: they would have no return.",
                PartKey("supply"),
                clause,
                "Have the customer bring a neutral, and say so in the Brief.",
                QuickFix("The supply brings a neutral", "neutral"),
            )
        )
    evidence = [f"supply {supply.system_name}", f"{len(users)} devices to neutral"]
    return _result("E01", Group.SUPPLY, "Neutral where loads need it", clause, evidence, findings)


def main_switch(view: View) -> ClauseResult:
    """A supply disconnecting device, hand-operated, large enough."""
    clause = view.source("E02")
    findings = []
    evidence = []
    for device in view.circuits.devices:
        if device.kind.can(Can.MAIN_SWITCH):
            part = view.sizing.parts[device.id]
            need = max(view.supply.upstream_a, view.sizing.full_load_a)
            evidence.append(f"{view.tag(device.id)}: {part.rated_a:g} A for {need:g} A, through the door")
            if part.rated_a < need:
                findings.append(
                    Finding(
                        "E02",
                        Verdict.FAILS,
                        f"{view.tag(device.id)} carries {part.rated_a:g} A; the panel needs {need:g} A.",
                        DeviceKey(device.id),
                        clause,
                        "Lower the protection upstream, or add a larger isolator to the catalogue.",
                    )
                )
            if view.supply.neutral and view.supply.earthing is Earthing.TT and not _cuts_neutral(view, device):
                text = f"{view.tag(device.id)} leaves the neutral on; on a TT supply it is cut off with the lines."
                remedy = "Take a switch that has a pole for the neutral, or sign that it is cut off elsewhere."
                findings.append(Finding("E02", Verdict.JUDGE, text, DeviceKey(device.id), clause, remedy))
    return _result("E02", Group.SUPPLY, "Main switch", clause, evidence, findings)


def _cuts_neutral(view: View, device: Device) -> bool:
    """Whether a pole of a switch lies in the neutral."""
    pins = (device.pin(pin) for unit in device.kind.units for pin in unit.pins)
    return any((net := view.nets.of_pin.get(pin)) is not None and "N" in net.nodes for pin in pins)


def feeder_holds(view: View) -> ClauseResult:
    """The panel draws no more than the protection upstream lets through."""
    clause = view.source("E03")
    need, has = view.sizing.full_load_a, view.supply.upstream_a
    findings = []
    if need > has:
        findings.append(
            Finding(
                "E03",
                Verdict.FAILS,
                f"The panel draws {need:g} A, but the supply is protected at {has:g} A and would trip.",
                PartKey("supply"),
                clause,
                "Agree a larger supply with the customer, and say so in the Brief.",
            )
        )
    return _result(
        "E03", Group.SUPPLY, "Supply large enough", clause, [f"full load {need:g} A, protected at {has:g} A"], findings
    )


def _unprotected(view: View) -> set[PinRef]:
    """Nets that a supply or a transformer reaches past every protective device, by their ids."""

    def leads_on(device: Device, unit: Unit) -> bool:
        return unit.behaviour in PASS and not device.kind.is_protective

    return reached(joined_nets(view.circuits, view.nets, leads_on, across_shared=True), _source_nets(view))


def _source_nets(view: View) -> Iterator[PinRef]:
    """Nets that a supply or the winding of a transformer feeds."""
    for device in view.circuits.devices:
        pins = ["L1", "L2", "L3"] if device.kind.can(Can.SUPPLY) else []
        pins += [unit.pins[0] for unit in device.kind.units if unit.symbol == "source winding"]
        for pin in pins:
            net = view.nets.of_pin.get(device.pin(pin))
            if net:
                yield net.id


def every_circuit_protected(view: View) -> ClauseResult:
    """No way from the supply, or from a transformer, to a load without a protective device."""
    clause = view.source("E04")
    seen = _unprotected(view)
    findings = []
    loads = 0
    for device in view.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour not in _LOADS:
                continue
            loads += 1
            nets = [view.nets.of_pin.get(device.pin(pin)) for pin in unit.pins]
            if any(net and net.id in seen for net in nets):
                findings.append(
                    Finding(
                        "E04",
                        Verdict.FAILS,
                        f"{view.tag(device.id)} is fed past every "
                        "breaker: a short circuit there would be cleared upstream only.",
                        DeviceKey(device.id),
                        clause,
                        "Feed it through a breaker.",
                    )
                )
    return _result(
        "E04",
        Group.PROTECTION,
        "Every circuit protected",
        clause,
        [f"{loads} loads traced back to the supply"],
        findings,
    )


def overloads_set(view: View) -> ClauseResult:
    """Every motor guarded against overload, at its own current."""
    clause = view.source("E05")
    findings = []
    evidence = []
    for device in view.circuits.devices:
        size = view.sizing.load_of(device.circuit)
        if not device.kind.can(Can.SET_TO_MOTOR) or size is None:
            continue
        part = view.sizing.parts[device.id]
        text = f"{part.min_a:g} A ≤ {size.setting_a:g} A ≤ {part.max_a:g} A"
        evidence.append(f"{view.tag(device.id)}: {text}")
        if not part.min_a <= size.setting_a <= part.max_a:
            findings.append(
                Finding(
                    "E05",
                    Verdict.FAILS,
                    f"{view.tag(device.id)} cannot be set to "
                    f"{size.setting_a:g} A: its dial goes from {part.min_a:g} to "
                    f"{part.max_a:g} A.",
                    DeviceKey(device.id),
                    clause,
                    "Check the motor's current in the Brief, or add a part with that range.",
                )
            )
    findings += _settings_of_own(view, clause)
    return _result("E05", Group.PROTECTION, "Overload range and setting", clause, evidence, findings)


def _settings_of_own(view: View, clause: str) -> Iterator[Finding]:
    """Settings of the builder's own above what guards the motor: its current, or what the NEC lets a motor have."""
    american = view.rulebook.north_american
    for proposal in view.proposal.loads:
        value = proposal.value("setting")
        if value is None or not value.overridden:
            continue
        most = (value.proposed or value.amount) * (NEC_MOST if american else 1.0)
        if value.amount <= most * 1.001:
            continue
        name = next((load.name for load in view.loads if load.id == proposal.load), str(proposal.load))
        yield Finding(
            "E05",
            Verdict.FAILS,
            f"The overload of {name} is set to {value.amount:g} A; its motor may have {most:.4g} A at most.",
            ValueKey(value.key),
            clause,
            "Set it to the motor's current, or take the value of your own back.",
        )


def parts_large_enough(view: View) -> ClauseResult:
    """Nothing in the panel is smaller than its duty."""
    clause = view.source("E06")
    findings = [
        Finding(
            "E06",
            Verdict.FAILS,
            f"{view.tag(device)}, {view.sizing.parts[device].ref}, does not suit its duty ({need}).",
            DeviceKey(device),
            clause,
            "Take another part or one of your own, split the load, or change what the Brief says.",
        )
        for device, need in view.sizing.shortfalls
    ]
    return _result(
        "E06", Group.PROTECTION, "Parts large enough", clause, [f"{len(view.sizing.parts)} parts chosen"], findings
    )


def control_transformer(view: View) -> ClauseResult:
    """Whether the control circuits may do without a transformer."""
    clause = view.source("C02")
    starters = len({d.circuit for d in view.circuits.devices if d.kind.can(Can.SWITCHES_LOAD)})
    devices = sum(d.kind.can(Can.CONTROL_DEVICE) for d in view.circuits.devices)
    findings = []
    apart = any(
        d.circuit == IMPLIED[Recipe.CONTROL_SUPPLY] for d in view.circuits.devices
    ) or view.practice.control_supply.value.endswith("DC supply")
    if apart:
        words = [f"{starters} starters, {devices} control devices, on a supply of their own"]
        return _result("C02", Group.CONTROL, "Control supply", clause, words, [])
    if starters > 1 or devices > 2:
        findings.append(
            Finding(
                "C02",
                Verdict.JUDGE,
                f"{starters} starters and {devices} control devices work "
                "straight from phase and neutral. The rulebook frees a single starter with at "
                "most two control devices from a control transformer.",
                PartKey("control"),
                clause,
                "Decide whether a control transformer is wanted, and sign.",
            )
        )
    return _result(
        "C02", Group.CONTROL, "Control supply", clause, [f"{starters} starter, {devices} control devices"], findings
    )


def operator_colours(view: View) -> ClauseResult:
    """Buttons and lamps in the colours their function may have."""
    clause = view.source("C03")
    findings = []
    evidence = []
    phase_lamps = {circuit.id for circuit in view.own_circuits if circuit.recipe is Recipe.PHASE_LAMPS}
    for device in view.circuits.devices:
        colour = view.sizing.parts[device.id].colour
        if device.kind.can(Can.SHOWS):
            ask = ("indicator light", LAMP_MEANS.get(device.colour, "other"))
        elif device.kind.function:
            ask = ("push-button", device.kind.function)
        else:
            continue
        allowed, _ = allowed_colours(*ask)
        evidence.append(f"{view.tag(device.id)}: {colour}")
        if colour not in allowed:
            findings.append(
                Finding(
                    "C03",
                    Verdict.FAILS,
                    f"{view.tag(device.id)} is {colour}; {clause.removesuffix(', from memory')} gives "
                    f"{', '.join(allowed)} for what it shows or does.",
                    DeviceKey(device.id),
                    clause,
                    "Use a part in an allowed colour.",
                )
            )
        elif colour in ("red", "blue") and device.circuit in phase_lamps:
            findings.append(
                Finding(
                    "C03",
                    Verdict.JUDGE,
                    f"{view.tag(device.id)} shows by {colour} that a phase is there; elsewhere on a door {colour} says "
                    f"{'that someone must act at once' if colour == 'red' else 'what someone must do'}.",
                    DeviceKey(device.id),
                    clause,
                    "Sign that the user of the panel wants phases in these colours, or make the lamps white.",
                )
            )
    return _result("C03", Group.CONTROL, "Button and lamp colours", clause, evidence, findings)


ELECTRICAL = (
    supply_has_neutral,
    main_switch,
    feeder_holds,
    every_circuit_protected,
    overloads_set,
    parts_large_enough,
    control_transformer,
    operator_colours,
)
