"""Which protective device may stand where under the North American rulebook: feeder, branch, supplementary."""

from riktig.core.catalogue import Behaviour, Part, parts
from riktig.core.job import PinRef
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Device, source_reach

__all__ = ["ROLES"]

_LINES = ("L1", "L2", "L3")


def guards_in_their_roles(view: View) -> ClauseResult:
    """The first guard from the supply on is made to guard a branch, and a feeder where more guards follow.

    Method:
        From the lines of the supply through everything that can close, up to the first device that may guard a
        branch. What is reached there has no such guard ahead of it. Behind one, and behind a transformer, a
        supplementary protector may stand.
    """
    clause = view.source("E16")
    title = "Protective devices in their roles"
    if not view.rulebook.north_american:
        return ClauseResult("E16", Group.PROTECTION, title, clause, ())
    parts_of_devices = view.sizing.parts
    reach = source_reach(
        view.circuits,
        view.nets,
        without=lambda device: device.kind.is_protective and "branch" in parts_of_devices[device.id].serves,
    )
    unguarded = frozenset().union(*(on for pin, on in reach.nets.items() if pin.marking in _LINES))
    evidence: list[str] = []
    findings: list[Finding] = []
    for device in view.circuits.devices:
        ends = _ends(view, device) if device.kind.is_protective else []
        if not any(net in unguarded for net in ends):
            continue
        part, role = parts_of_devices[device.id], _role(view, device, unguarded)
        if role in part.serves.split():
            evidence.append(f"{view.tag(device.id)} {part.ref}: {role}")
        else:
            findings.append(_finding(view, device, part, role))
    return ClauseResult(
        "E16",
        Group.PROTECTION,
        title,
        clause,
        tuple(evidence) or ("no protective device hangs on the lines of the supply",),
        tuple(findings),
    )


def _ends(view: View, device: Device) -> list[PinRef]:
    """The nets of its poles."""
    pins = [pin for unit in device.kind.units if unit.behaviour is Behaviour.POLE for pin in unit.pins]
    return [net.id for pin in pins if (net := view.nets.of_pin.get(device.pin(pin)))]


def _role(view: View, device: Device, unguarded: frozenset[PinRef]) -> str:
    """“feeder” where further protective devices hang behind it, else “branch”."""
    behind = {net for net in _ends(view, device) if net not in unguarded}
    followed = any(
        behind.intersection(_ends(view, other))
        for other in view.circuits.devices
        if other.kind.is_protective and other.id != device.id
    )
    return "feeder" if followed else "branch"


def _finding(view: View, device: Device, part: Part, role: str) -> Finding:
    clause = view.source("E16")
    where = f"{view.tag(device.id)} ({part.ref}) is the {role} protection of its circuit"
    is_own = all(known.ref != part.ref for known in parts())
    if is_own:
        text = f"{where}. Of the builder's own part it is not known what it is listed for, so a person must look."
        return Finding(
            "E16", Verdict.JUDGE, text, DeviceKey(device.id), clause, "Read its marking and sign, or take another."
        )
    listed = f"made for {part.serves.replace(' ', ' and ')} only" if part.serves else "not listed for that"
    remedy = "Take an inverse-time breaker or fuses listed for branch circuits, or put one ahead of it."
    return Finding("E16", Verdict.FAILS, f"{where}, but it is {listed}.", DeviceKey(device.id), clause, remedy)


ROLES = (guards_in_their_roles,)
