"""Anything that can be labelled is found by its label, and by the words people use for it."""

import re
from dataclasses import dataclass

from riktig.core.circuit import Circuits, Names, Nets
from riktig.core.job import Load
from riktig.core.plate import Hole, Layout, Piece
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring

__all__ = ["SYNONYMS", "Entry", "find", "make_index"]

SYNONYMS: tuple[tuple[str, ...], ...] = (
    ("isolator", "disconnect", "main switch"),
    ("duct", "trunking"),
    ("earth", "ground", "pe", "cpc", "protective"),
    ("contactor", "relay"),
    ("push-button", "button"),
    ("lamp", "light", "indicator", "pilot"),
    ("overload", "thermal"),
    ("breaker", "mcb"),
)
"""Words for one thing, the preferred one first (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Entry:
    """One thing that can be found: its label, what it is, and its selection key."""

    label: str
    what: str
    key: str


def make_index(
    circuits: Circuits,
    nets: Nets,
    names: Names,
    layout: Layout,
    holes: tuple[Hole, ...],
    cuts: tuple[Piece, ...],
    wiring: Wiring,
    strips: Strips,
    loads: tuple[Load, ...],
) -> tuple[Entry, ...]:
    """Every label of the job, loads and devices first."""
    entries = [Entry(load.name, f"load, {load.power_name}, {load.place}", f"load:{load.id}") for load in loads]
    for device in circuits.devices:
        tag = names.tag[device.id]
        label = f"{tag}:{device.mark}" if device.strip else tag
        key = f"device:{device.id}"
        entries.append(Entry(label, f"{device.kind.name}, {device.purpose}", key))
        if device.legend:
            entries.append(Entry(device.legend, f"legend of {tag}", key))
        if not device.strip:
            entries += [
                Entry(f"{tag}:{pin.name}", f"pin of {device.kind.name}", f"pin:{device.id}:{pin.name}")
                for pin in device.kind.pins
            ]
    entries += [
        Entry(names.number[net.id], f"net, {net.net_class.value}, {len(net.pins)} pins", f"net:{net.id}")
        for net in nets.nets
        if net.id in names.number
    ]
    entries += [
        Entry(wire.number, f"wire {wire.start.label} to {wire.end.label}", f"wire:{wire.key}") for wire in wiring.wires
    ]
    entries += [Entry(cable.tag, f"cable to {cable.to}", f"device:{cable.device}") for cable in strips.cables]
    entries += [Entry(rail.name, "rail", f"rail:{rail.name}") for rail in layout.rails]
    entries += [Entry(duct.name, "duct", f"duct:{duct.name}") for duct in layout.ducts]
    entries += [
        Entry(cut.name, f"piece, {cut.stock}, {cut.length:g} mm", f"piece:{cut.name}")
        for cut in cuts
        if cut.name.endswith("lid")
    ]
    entries += [Entry(hole.number, f"hole for {hole.purpose}", f"hole:{hole.number}") for hole in holes]
    return tuple(entries)


def find(index: tuple[Entry, ...], text: str, limit: int = 12) -> tuple[Entry, ...]:
    """The entries that best answer what was typed.

    Method:
        A place of the sheets (“2.3”, “2.3.C”, “sheet 2”) first; exact labels, then labels that begin
        with it, then words in what the thing is; a word stands for all its synonyms.
    """
    wanted = text.strip().lower()
    if not wanted:
        return ()
    place = _PLACE.fullmatch(wanted)
    if place:
        there = (place[1] or place[2]).upper()
        entry = Entry(there, "place on the sheets: sheet, column, row", f"place:{there}")
        return (entry, *_ranked(index, wanted, limit - 1))
    return _ranked(index, wanted, limit)


_PLACE = re.compile(r"sheet (\d{1,3})|(\d{1,3}\.\d(?:\.[a-f])?)")


def _ranked(index: tuple[Entry, ...], wanted: str, limit: int) -> tuple[Entry, ...]:
    words = next((group for group in SYNONYMS if wanted in group), (wanted,))
    ranked: list[tuple[int, int, Entry]] = []
    for place, entry in enumerate(index):
        label, what = entry.label.lower(), entry.what.lower()
        if label == wanted:
            rank = 0
        elif label.startswith(wanted):
            rank = 1
        elif any(word in what or word in label for word in words):
            rank = 2
        else:
            continue
        ranked.append((rank, place, entry))
    ranked.sort(key=lambda one: one[:2])
    return tuple(entry for _, _, entry in ranked[:limit])
