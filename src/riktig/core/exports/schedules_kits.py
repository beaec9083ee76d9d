"""What is made ready for the bench: looms, a bar's neutrals, network cables, drums; and what joins without a wire."""

from collections.abc import Callable

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.exports.purchasing import line_of, table_of
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.exports.schedules_parts import conductor_text
from riktig.core.geometry import Drawing
from riktig.core.job import Job
from riktig.core.schematic import CIRCUITS, NAMES, NETS, PinLabels
from riktig.core.standards import conductor_name
from riktig.core.wiring import (
    WIRING,
    Loom,
    colour_legend,
    draw_colour_legend,
    drums_of,
    loom_cards,
    looms_of,
    network_cards,
    neutral_cards,
    neutral_kits,
)

__all__ = ["SCHEDULES", "kit_cards"]


def _labels(evaluation: Evaluation[Job]) -> PinLabels:
    return PinLabels(evaluation.get(CIRCUITS), evaluation.get(NAMES))


def _looms(evaluation: Evaluation[Job]) -> tuple[Loom, ...]:
    devices, practice = evaluation.get(CIRCUITS).by_id, evaluation.document.practice
    return looms_of(evaluation.get(WIRING), devices, evaluation.get(DOOR), practice)


def kit_cards(evaluation: Evaluation[Job]) -> tuple[Drawing, ...]:
    """The cards of what is made ready away from the plate."""
    tags, labels, wiring = evaluation.get(NAMES).tag, _labels(evaluation), evaluation.get(WIRING)
    kits = neutral_kits(wiring, evaluation.get(CIRCUITS).by_id, evaluation.get(NETS))
    colours, job = colour_legend(wiring.wires, evaluation.get(NETS)), evaluation.document
    return (
        *(card for loom in _looms(evaluation) for card in loom_cards(loom, tags, labels)),
        *neutral_cards(kits, tags),
        *network_cards(wiring.network, labels),
        *([draw_colour_legend(colours, f"{job.number}  {job.title}".strip())] if colours else []),
    )


def _colours(evaluation: Evaluation[Job]) -> Schedule:
    uses = colour_legend(evaluation.get(WIRING).wires, evaluation.get(NETS))
    rows: tuple[tuple[Value, ...], ...] = tuple((use.colour, "; ".join(use.means), use.wires) for use in uses)
    columns = (("colour", "Colour"), ("means", "Means"), ("wires", "Wires"))
    return Schedule("colours", "Colours of the conductors", columns, rows)


def _loom(evaluation: Evaluation[Job]) -> Schedule:
    labels = _labels(evaluation)
    rows: list[tuple[Value, ...]] = []
    for loom in _looms(evaluation):
        name = loom.leaf.name
        for item in loom.over:
            wire, what = item.wire, "bond" if item.bonds else "over the hinge"
            ends = (item.plate_end.label, item.door_end.label)
            lengths: tuple[Value, ...] = (round(item.along), round(item.beyond), wire.cut)
            rows.append((name, what, wire.number, *ends, conductor_name(wire.mm2), wire.colour, *lengths, wire.key))
        for wire in loom.links:
            ends = (wire.start.label, wire.end.label)
            size = conductor_name(wire.mm2)
            rows.append((name, "stays on the door", wire.number, *ends, size, wire.colour, "", "", wire.cut, wire.key))
        for cable in loom.cables:
            ends = (labels(cable.start), labels(cable.end))
            rows.append((name, "network cable", "", *ends, "", "", "", "", cable.length, ""))
    columns = (
        ("door", "Door"),
        ("part", "Part of the loom"),
        ("number", "Number"),
        ("plate_end", "On the plate"),
        ("door_end", "On the door"),
        ("size", "Size"),
        ("colour", "Colour"),
        ("leaves_mm", "Leaves it at, mm"),
        ("past_hinge_mm", "Past the hinge, mm"),
        ("cut_mm", "Cut, mm"),
        ("key", "Key"),
    )
    return Schedule("loom", "Looms of the doors", columns, tuple(rows))


def _neutrals(evaluation: Evaluation[Job]) -> Schedule:
    tags = evaluation.get(NAMES).tag
    kits = neutral_kits(evaluation.get(WIRING), evaluation.get(CIRCUITS).by_id, evaluation.get(NETS))
    rows: tuple[tuple[Value, ...], ...] = tuple(
        (
            tags[kit.bar],
            conductor_name(kit.mm2),
            round(kit.trunk),
            tail.wire.number,
            tail.end.label,
            conductor_name(tail.wire.mm2),
            round(tail.along),
            round(tail.length),
            tail.wire.key,
        )
        for kit in kits
        for tail in kit.tails
    )
    columns = (
        ("bar", "Bar"),
        ("trunk", "Trunk"),
        ("trunk_mm", "Trunk, mm"),
        ("number", "Number"),
        ("to", "Tail to"),
        ("size", "Tail"),
        ("at_mm", "From the bar, mm"),
        ("tail_mm", "Tail, mm"),
        ("key", "Key"),
    )
    return Schedule("neutrals", "Neutrals as a kit", columns, rows)


def _network(evaluation: Evaluation[Job]) -> Schedule:
    labels = _labels(evaluation)
    rows: tuple[tuple[Value, ...], ...] = tuple(
        (
            n,
            labels(cable.start),
            labels(cable.end),
            "in the panel" if cable.inside else "outside, measured there",
            round(cable.route.length) if cable.route else "",
            cable.length or "",
            " ".join(cable.route.ducts) if cable.route else "",
        )
        for n, cable in enumerate(evaluation.get(WIRING).network, 1)
    )
    columns = (
        ("order", "Order"),
        ("from", "From"),
        ("to", "To"),
        ("where", "Where"),
        ("way_mm", "Way, mm"),
        ("cable_mm", "Ready made, mm"),
        ("ducts", "Through"),
    )
    return Schedule("network", "Cables of the network", columns, rows)


def _drums(evaluation: Evaluation[Job]) -> Schedule:
    wiring, practice = evaluation.get(WIRING), evaluation.document.practice
    known = table_of(evaluation.document.purchases)
    rows: list[tuple[Value, ...]] = []
    for drum in drums_of(wiring.wires, wiring.batches):
        text = conductor_text(drum.mm2, drum.colour, practice)
        line = line_of(known, "", text)
        wanted = drum.cut / 1000 * (1 + practice.wire_spare)
        stock = line.stock if line else None
        rows.append(
            (
                text,
                drum.wires,
                round(drum.cut / 1000, 2),
                round(wanted, 2),
                "" if stock is None else stock,
                "" if stock is None else round(max(wanted - stock, 0.0), 2),
                round(drum.trimmed / 1000, 2),
                drum.again,
                round(drum.saved / 1000, 2),
            )
        )
    columns = (
        ("conductor", "Conductor"),
        ("wires", "Wires"),
        ("cut_m", "To cut, m"),
        ("with_spare_m", "With spare, m"),
        ("stock_m", "On the shelf, m"),
        ("short_m", "Short, m"),
        ("trimmed_m", "Trimmed off, m"),
        ("from_ends", "Wires from trimmed ends"),
        ("saved_m", "Saved by them, m"),
    )
    return Schedule("drums", "Conductors by drum", columns, tuple(rows))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {
    "loom": _loom,
    "neutrals": _neutrals,
    "network": _network,
    "drums": _drums,
    "colours": _colours,
}
