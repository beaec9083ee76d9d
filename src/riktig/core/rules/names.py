"""Clauses about names: numbers and tags that are unique, of one kind, and that a label can hold."""

import re
from collections import defaultdict
from collections.abc import Callable

from riktig.core.catalogue import class_of, letters_of
from riktig.core.job import POTENTIALS, DeviceId, PinRef
from riktig.core.keys import DeviceKey, NetKey, PartKey, PinKey
from riktig.core.labels import Label, Medium, misfit_texts
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import io_address

__all__ = ["NAMES_CLAUSES"]

_HEAD = re.compile(r"[A-Za-z]+")


def numbers_are_unique(view: View) -> ClauseResult:
    """Every potential has a number of its own that a marker can hold."""
    clause = view.source("N01")
    at: dict[str, list[PinRef]] = defaultdict(list)
    for net in view.nets.nets:
        number = view.names.number.get(net.id)
        if number is not None and not net.is_shared:
            at[number].append(net.id)
    findings = []
    for number, nets in at.items():
        if len(nets) > 1:
            findings.append(
                Finding(
                    "N01",
                    Verdict.FAILS,
                    f"{len(nets)} potentials carry the number {number}: wires joined by number would short.",
                    NetKey(nets[1]),
                    clause,
                    "Give the scheme a count, or let Riktig number by another school.",
                )
            )
        if misfit_texts(Label(Medium.WIRE, (number,), 1, "", None)):
            findings.append(
                Finding(
                    "N01",
                    Verdict.FAILS,
                    f"The number “{number}” has {len(number)} signs: a wire marker does not hold it.",
                    NetKey(nets[0]),
                    clause,
                    "Shorten the scheme or the reserved number.",
                )
            )
    findings += _reserved_twice(view, clause)
    lines = (f"{len(at)} numbers on {sum(map(len, at.values()))} potentials, {view.practice.numbering.value}",)
    return ClauseResult("N01", Group.MARKING, "Numbers of potentials", clause, lines, tuple(findings))


def _reserved_twice(view: View, clause: str) -> list[Finding]:
    of: dict[str, list[str]] = defaultdict(list)
    for reserved_number in view.practice.reserved:
        of[reserved_number.number].append(POTENTIALS[reserved_number.potential])
    return [
        Finding(
            "N01",
            Verdict.FAILS,
            f"The number {number} is kept for more than one potential: {', '.join(whose)}.",
            PartKey("practice"),
            clause,
            "Keep another number for one of them.",
        )
        for number, whose in of.items()
        if len(whose) > 1
    ]


def tags_are_unique(view: View) -> ClauseResult:
    at: dict[str, list[DeviceId]] = defaultdict(list)
    heads: dict[str, dict[str, list[DeviceId]]] = defaultdict(lambda: defaultdict(list))
    strips: set[tuple[str, str]] = set()
    practice = view.practice
    for device in view.circuits.devices:
        tag = view.tag(device.id)
        if device.strip:
            if (tag, device.strip) in strips:
                continue
            strips.add((tag, device.strip))
        at[tag].append(device.id)
        matched = _HEAD.match(tag)
        heads[class_of(device.kind_id)][matched[0] if matched else ""].append(device.id)
    findings = [
        Finding(
            "N02",
            Verdict.FAILS,
            f"{len(devices)} devices are called {tag}: a label would be found twice.",
            DeviceKey(devices[1]),
            view.source("N02"),
            "Give one of them another tag.",
        )
        for tag, devices in at.items()
        if len(devices) > 1
    ]
    kinds = {device.id: device.kind_id for device in view.circuits.devices}
    for of, by_head in heads.items():
        if len(by_head) > 1:
            wanted = letters_of(kinds[next(iter(by_head.values()))[0]], practice.letters, practice.house_letters)
            odd = next((ids for head, ids in by_head.items() if head != wanted), [])
            findings.append(
                Finding(
                    "N02",
                    Verdict.JUDGE,
                    f"Of the class “{of}” some are called by {', some by '.join(sorted(by_head))}: readers infer "
                    "what a device is from its letters.",
                    DeviceKey(odd[0]),
                    view.source("N02"),
                    f"Call them all by {wanted}, or decide that the difference is meant.",
                )
            )
    lines = (f"{len(at)} tags, {practice.tags.value}; {practice.letters.value}",)
    return ClauseResult("N02", Group.MARKING, "Tags of devices", view.source("N02"), lines, tuple(findings))


def addresses_are_unique(view: View) -> ClauseResult:
    """Every point of the controller's cards has an address of its own."""
    at: dict[str, list[PinRef]] = defaultdict(list)
    for device in view.circuits.devices:
        for unit in device.kind.units:
            address = io_address(device, unit.name)
            if address:
                at[address].append(device.pin(unit.pins[device.kind.point_pin or 0]))
    clause = view.source("N03")
    findings = [
        Finding(
            "N03",
            Verdict.FAILS,
            f"{address} stands at {' and '.join(f'{view.tag(pin.device)}:{pin.marking}' for pin in pins)}: the program "
            "would read or switch the wrong one.",
            PinKey(pins[1]),
            clause,
            "Give one of the cards another first address.",
        )
        for address, pins in at.items()
        if len(pins) > 1
    ]
    cards = {pin.device for pins in at.values() for pin in pins}
    lines = (f"{len(at)} addresses on {len(cards)} cards" if cards else "no card of a controller",)
    return ClauseResult("N03", Group.MARKING, "Addresses of the controller", clause, lines, tuple(findings))


NAMES_CLAUSES: tuple[Callable[[View], ClauseResult], ...] = (numbers_are_unique, tags_are_unique, addresses_are_unique)
