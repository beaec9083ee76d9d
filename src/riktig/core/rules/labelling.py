"""Clauses about labels: wires marked or excused, texts that fit, one name for one thing, the lines of the supply."""

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import DeviceId, MarkedWires, PinRef
from riktig.core.keys import DeviceKey, Key, PartKey, PinKey, WireKey
from riktig.core.labels import LEAST_CAPITAL, MOST_UNMARKED, Label, Medium, label_names, misfit_texts, why_marked
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.wiring import Wire, WireId

__all__ = ["LABELLING"]


def wires_marked(view: View) -> ClauseResult:
    """Both ends of every wire carry a marker that can hold its text, or somebody allowed that it goes without."""
    clause = view.source("M02")
    markers = view.labels.on(Medium.WIRE)
    findings = [
        Finding(
            "M02",
            Verdict.FAILS,
            f"“{label.lines[0]}” does not fit on a wire marker: its letters would be under {label.limits.least:g} mm.",
            label.key,
            clause,
            "Shorten the tag, or let markers say the number only.",
            QuickFix("Markers say the number", "short markers"),
        )
        for label in markers
        if misfit_texts(label) and not misfit_texts(replace(label, lines=(label.lines[0].split()[0],)))
    ]
    marked = {label.key for label in markers}
    bare = [w for w in view.wiring.wires if w.net in view.names.number and WireKey(w.key) not in marked]
    findings += _of_bare(view, bare, clause)
    excused = {entry.wire: entry for entry in view.unmarked}
    what = "stickers beside clamps" if view.practice.marked is MarkedWires.STICKERS else "markers"
    evidence = [f"{len(markers)} {what} for {len(view.wiring.wires)} wires"]
    evidence += [
        f"{wire.name} without markers: {excused[wire.key].reason} ({excused[wire.key].allowed_by})"
        for wire in bare
        if wire.key in excused
    ]
    return ClauseResult("M02", Group.MARKING, "Wire markers", clause, tuple(evidence), tuple(findings))


def _of_bare(view: View, bare: list[Wire], clause: str) -> Iterator[Finding]:
    """What is wrong with wires that have no marker: out of sight, too many, excused wires that are gone."""
    excused = {entry.wire for entry in view.unmarked}
    for wire in bare:
        if wire.key in excused and (why := why_marked(wire)):
            yield Finding(
                "M02", Verdict.FAILS, f"Wire {wire.name} goes without markers, and {why}.", WireKey(wire.key), clause,
                "Give it its markers again.",
            )  # fmt: skip
    if view.practice.marked is MarkedWires.STICKERS and bare:
        text = (
            f"The numbers of {len(bare)} wires stand beside their clamps, not on the wires: once loosened, nobody can "
            "tell them apart."
        )
        remedy, fix = "Sign that this is wanted, or mark every wire.", QuickFix("Mark every wire", "mark all")
        yield Finding("M02", Verdict.JUDGE, text, PartKey("practice"), clause, remedy, fix)
        return
    hidden = [wire for wire in bare if wire.key not in excused]
    if hidden and len(view.wiring.wires) > MOST_UNMARKED:
        yield Finding(
            "M02",
            Verdict.JUDGE,
            f"{len(hidden)} wires have no marker; above {MOST_UNMARKED} wires in a panel every wire is marked.",
            PartKey("practice"),
            clause,
            "Mark every wire.",
            QuickFix("Mark every wire", "mark all"),
        )
    for wire_id in sorted(excused):
        if WireId(wire_id) not in view.wiring.by_key:
            yield Finding(
                "M02", Verdict.JUDGE, "A wire that goes without markers is not there any more.", PartKey("practice"),
                clause, "Look whether another took its place, and drop the permission on Labels.",
            )  # fmt: skip


def labels_hold_their_texts(view: View) -> ClauseResult:
    """Every text on a label fits it at letters that can be read; wire markers are judged by themselves."""
    clause = view.source("M05")
    labels = [label for label in view.labels.labels if label.medium is not Medium.WIRE]
    misfits = list(
        dict.fromkeys((text, label.medium, label.key, label.limits) for label in labels for text in misfit_texts(label))
    )
    findings = [
        Finding(
            "M05",
            Verdict.FAILS,
            f"“{text}” does not fit on its label ({medium.value}): its letters would be under {limits.least:g} mm, or "
            "cannot be printed.",
            key,
            clause,
            "Shorten the text: the name of the load, the legend or the mark.",
        )
        for text, medium, key, limits in misfits
    ]
    strays, all_labels = view.labels.strays, view.labels.labels
    named = dict(zip(label_names(all_labels), all_labels, strict=True)) if strays else {}
    for name in strays:
        label = named.get(name)
        if label is None:
            where: Key = PartKey("practice")
            text = "A label with a text of its own is not there any more."
        else:
            text = f"“{' '.join(label.lines)}” was written by hand ({label.own}), and the plan has changed since."
            where = label.key or PartKey("practice")
        remedy = "Read it once more on Labels: keep it, change it, or take Riktig's text."
        findings.append(Finding("M05", Verdict.JUDGE, text, where, clause, remedy))
    fitting = sum(not misfit_texts(label) for label in labels)
    evidence = (f"{fitting} of {len(labels)} labels hold their texts at {LEAST_CAPITAL:g} mm or more",)
    return ClauseResult("M05", Group.MARKING, "Labels hold their texts", clause, evidence, tuple(findings))


NAMED = (Medium.CABLE, Medium.PIECE)
"""What has a name of its own beside devices and strips."""


def one_name_for_one_thing(view: View) -> ClauseResult:
    """No cable, piece or strip is called like another thing, over all labels."""
    clause = view.source("N04")
    at: dict[str, dict[tuple[str, Key | None], Label]] = defaultdict(dict)
    for label in view.labels.labels:
        if label.medium in NAMED or label.medium is Medium.DEVICE:
            at[label.lines[0]][label.medium.value, _thing(view, label)] = label
    findings = []
    for name, things in at.items():
        if len(things) < 2 or not any(label.medium in NAMED for label in things.values()):
            continue  # devices that share a tag: the clause about tags
        where = " and ".join(f"on the {medium} of {label.where}" for (medium, _), label in things.items())
        text = f"“{name}” stands {where}: it names two things."
        key = next(iter(things.values())).key
        findings.append(Finding("N04", Verdict.FAILS, text, key, clause, "Give one of them another name."))
    counted = sum(label.medium in NAMED for label in view.labels.labels)
    evidence = (f"{len(at)} names on labels of devices, strips, cables and pieces, {counted} of cables and pieces",)
    return ClauseResult("N04", Group.MARKING, "One name for one thing", clause, evidence, tuple(findings))


def _thing(view: View, label: Label) -> Key | None:
    """What a label names: of a strip all its terminals are one thing."""
    if label.medium is Medium.DEVICE and isinstance(label.key, DeviceKey):
        device = view.circuits.device(label.key.device)
        if device.strip:
            return PartKey(device.strip)
    return label.key


def supply_lines_keep_their_names(view: View) -> ClauseResult:
    """Each line of the supply has one name from the core of its cable to the pole of the main switch, in order.

    A line that changes places between terminal and switch turns every motor the other way, and every test by its name
    is of another conductor.
    """
    clause = view.source("E36")
    title = "Lines of the supply"
    cables = [cable for cable in view.strips.cables if cable.is_supply]
    mains = [device for device in view.circuits.devices if device.kind.can(Can.MAIN_SWITCH)]
    lines = {core.panel_pin: core.number for cable in cables for core in cable.cores}
    mark_of = {row.device: row.mark for strip in view.strips.strips for row in strip.rows}
    findings = []
    for pin, number in lines.items():
        mark = mark_of.get(pin.device)
        if mark is not None and mark != number and not number.endswith(mark):
            text = f"The core {number} of the supply is connected to the terminal {mark}."
            remedy = "Let core and terminal carry one name, agreed with whoever brings the supply."
            findings.append(Finding("E36", Verdict.FAILS, text, PinKey(pin), clause, remedy))
    order = [mark_of.get(pin.device, number) for pin, number in lines.items()]
    arriving = {net: mark_of.get(pin.device, "") for pin in lines if (net := _net(view, pin))}
    seen: list[str] = []
    for main in mains:
        at_poles = list(_at_poles(view, main.id, arriving))
        seen += [f"{view.tag(main.id)}: {', '.join(at_poles)}"] if at_poles else []
        wanted = [mark for mark in order if mark in at_poles]
        if at_poles and at_poles != wanted:
            text = f"The poles of {view.tag(main.id)} take the lines in the order {', '.join(at_poles)}."
            remedy = f"Wire them in the order of the terminals: {', '.join(wanted)}."
            findings.append(Finding("E36", Verdict.FAILS, text, DeviceKey(main.id), clause, remedy))
    none = "" if lines and mains else "no supply arrives at a main switch"
    evidence = (f"cores {', '.join(lines.values())}", *seen)
    return ClauseResult("E36", Group.SUPPLY, title, clause, evidence, tuple(findings), none)


def _net(view: View, pin: PinRef) -> PinRef | None:
    net = view.nets.of_pin.get(pin)
    return net.id if net else None


def _at_poles(view: View, device: DeviceId, arriving: dict[PinRef, str]) -> Iterator[str]:
    """The marks of the terminals that the poles of a switch are joined to, pole by pole."""
    of = view.circuits.device(device)
    for unit in of.kind.units:
        if unit.behaviour is not Behaviour.POLE:
            continue
        marks = [arriving[net] for pin in unit.pins if (net := _net(view, of.pin(pin))) in arriving]
        if marks and marks[0]:
            yield marks[0]


LABELLING = (wires_marked, labels_hold_their_texts, one_name_for_one_thing, supply_lines_keep_their_names)
