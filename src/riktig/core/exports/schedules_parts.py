"""The parts list: what is bought, what joins it, the bars and wires it is cut from, and what goes on the ends."""

from collections import Counter
from collections.abc import Callable

from riktig.core.catalogue import Can
from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import EndStyle, Job, JoinHow, PinRef, circuit_of
from riktig.core.plate import ASSEMBLIES, CUTS, LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.simulation import RATINGS, described
from riktig.core.sizing import SIZING
from riktig.core.standards import conductor_name, conductor_type
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = ["SCHEDULES"]

Row = tuple[Value, ...]
POLES = 3
"""Links of a fuse switch."""


def _parts(evaluation: Evaluation[Job]) -> list[Row]:
    """What the devices of the panel are, each part once with the tags of all that it is."""
    sizing, names = evaluation.get(SIZING), evaluation.get(NAMES)
    ratings, american = evaluation.get(RATINGS), evaluation.document.practice.rulebook.north_american
    tags: dict[tuple[str, str], list[str]] = {}
    for device, part in sizing.parts.items():
        if part.kind.mounting.value != "field":
            bought = (part.ref, described(part, ratings.get(device, ()), north_american=american))
            tags.setdefault(bought, []).append(names.tag[device])
    return [(ref, what, len(owners), "pc", " ".join(dict.fromkeys(owners))) for (ref, what), owners in tags.items()]


def _accessories(evaluation: Evaluation[Job]) -> list[Row]:
    """What is bought with a part and has no place of its own: the handle inside, the links of a fuse switch."""
    sizing, names, rows = evaluation.get(SIZING), evaluation.get(NAMES), list[Row]()
    links: dict[str, list[str]] = {}
    for device, part in sizing.parts.items():
        if part.kind.can(Can.HANDLE_INSIDE):
            text = f"handle inside for {part.ref}: switches with the door open, by hand and on purpose"
            rows.append(("", text, 1, "pc", names.tag[device]))
        load = sizing.load_of(circuit_of(device))
        guard = load.proposal.value("breaker") if load else None
        if guard and part.kind.sized_as == "fuse switch":
            links.setdefault(f"fuse-link {guard.text}", []).append(names.tag[device])
    for tied in evaluation.get(CIRCUITS).tied:
        text = f"handle tie for {len(tied)} breakers: they open together"
        rows.append(("", text, 1, "pc", " ".join(names.tag[device] for device in tied)))
    rows += [("", text, POLES * len(tags), "pc", " ".join(tags)) for text, tags in links.items()]
    return rows


def _joining(evaluation: Evaluation[Job]) -> list[Row]:
    """What joins parts without a wire: links, combs, busbars, jumpers of terminals."""
    sizing, names, rows = evaluation.get(SIZING), evaluation.get(NAMES), list[Row]()
    for join in evaluation.get(ASSEMBLIES):
        stands = evaluation.get(LAYOUT).stand_of(join.devices[0])
        own_tags = " ".join(names.tag[device] for device in join.devices if device in names.tag)
        if join.how is JoinHow.LINK:
            rows.append(("", "link module, one above the other", len(join.devices) - 1, "pc", own_tags))
        elif stands and join.how is JoinHow.COMB:
            pitch, poles = stands.block.width / len(join.devices), len(sizing.parts[join.devices[0]].kind.units)
            rows.append(("", f"comb, {poles}-pole, {len(join.devices)} × {pitch:g} mm", 1, "pc", own_tags))
            rows.append(("", f"infeed terminal of a comb, {poles}-pole", 1, "pc", own_tags))
        elif stands:
            rows.append(("", "busbar", stands.block.width / 1000, "m", own_tags))
            rows.append(("", "adapter for a busbar", len(join.devices), "pc", own_tags))
            rows.append(("", "infeed of a busbar", 1, "pc", own_tags))
    of_ways: dict[int, list[str]] = {}
    for pins in evaluation.get(WIRING).jumpers:
        first = evaluation.get(CIRCUITS).device(pins[0].device)
        of_ways.setdefault(len(pins), []).append(f"{names.tag[first.id]}:{first.mark}")
    rows += [("", f"plug-in jumper, {n} ways", len(at), "pc", " ".join(at)) for n, at in sorted(of_ways.items())]
    rows.append(("", "end stop", 2 * len(evaluation.get(STRIPS).strips), "pc", ""))
    return rows


def _wires(evaluation: Evaluation[Job]) -> list[Row]:
    """Wires by size and colour as they are cut, and what goes on their ends; a twin ferrule counts once."""
    wire: Counter[tuple[float, str]] = Counter()
    ends: Counter[str] = Counter()
    shared: set[frozenset[str | PinRef]] = set()
    for w in evaluation.get(WIRING).wires:
        wire[(w.mm2, w.colour)] += round(w.cut)
        for end in (w.start, w.end):
            if end.shared:
                pair = frozenset[str | PinRef]((w.key, end.shared, end.pin))
                if pair in shared:
                    continue
                shared.add(pair)
            ends[end.fitting] += 1
    made = "stranded" if evaluation.document.practice.ends is EndStyle.CRIMPS else "flexible"
    lengths = [
        (f"{made} wire {conductor_name(mm2)} {colour}, {conductor_type(mm2, flexible=made == 'flexible')}", length)
        for (mm2, colour), length in wire.items()
    ]
    return [
        *(("", text, length / 1000, "m", "") for text, length in lengths),
        *(("", name, count, "pc", "") for name, count in ends.items()),
    ]


def _bom(evaluation: Evaluation[Job]) -> Schedule:
    stock: Counter[str] = Counter()
    for piece in evaluation.get(CUTS):
        stock[piece.stock] += round(piece.length)
    rows = (
        *_parts(evaluation),
        *_accessories(evaluation),
        *_joining(evaluation),
        *(("", name, length / 1000, "m", "") for name, length in stock.items()),
        *_wires(evaluation),
    )
    columns = (
        ("part", "Part"),
        ("description", "Description"),
        ("quantity", "Quantity"),
        ("unit", "Unit"),
        ("tags", "Tags"),
    )
    return Schedule("bom", "Parts list", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"bom": _bom}
