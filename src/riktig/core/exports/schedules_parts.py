"""The parts list: what is bought, what joins it, the bars and wires it is cut from, and what goes on the ends."""

from collections import Counter
from collections.abc import Callable, Mapping

from riktig.core.catalogue import Can
from riktig.core.evaluation import Evaluation
from riktig.core.exports.purchasing import PURCHASE, line_of, purchase_cells, shortage, table_of
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.holes import ENTRIES, HOLES
from riktig.core.job import DeviceId, EndStyle, Job, JoinHow, PinRef, Practice, circuit_of
from riktig.core.labels import LABELS
from riktig.core.plate import ASSEMBLIES, BAR_PITCH, CUTS, LAYOUT, Assembly, BarSystem, Stand, bridged_pins
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Device, Zone
from riktig.core.simulation import RATINGS, described
from riktig.core.sizing import SIZING
from riktig.core.standards import conductor_name, conductor_type
from riktig.core.terminals import STRIPS, jumpers_on
from riktig.core.wiring import WIRING

__all__ = ["SCHEDULES", "bought", "conductor_text"]

Row = tuple[Value, ...]
"""Part, description, quantity, unit, tags, and the kit in which it is put ready."""
BOX_KIT, PLATE_KIT, DOOR_KIT = "1 enclosure and metal", "2 plate", "5 door"
STRIPS_KIT, WIRE_KIT, LABEL_KIT, ENTRY_KIT = "3 terminal strips", "4 wiring", "6 labels", "7 cable entries"
"""In the order in which a panel is built (common practice, no source)."""
POLES = 3
"""Links of a fuse switch."""


def _parts(evaluation: Evaluation[Job]) -> list[Row]:
    """What the devices of the panel are, each part once for each kit with the tags of all that it is."""
    sizing, names, devices = evaluation.get(SIZING), evaluation.get(NAMES), evaluation.get(CIRCUITS).by_id
    ratings, american = evaluation.get(RATINGS), evaluation.document.practice.rulebook.north_american
    tags: dict[tuple[str, str, str], list[str]] = {}
    for device, part in sizing.parts.items():
        if part.kind.mounting.value != "field":
            owner = devices[device]
            kit = STRIPS_KIT if owner.strip else DOOR_KIT if owner.zone is Zone.DOOR else PLATE_KIT
            bought = (part.ref, described(part, ratings.get(device, ()), north_american=american), kit)
            tags.setdefault(bought, []).append(names.tag[device])
    return [
        (ref, what, len(owners), "pc", " ".join(dict.fromkeys(owners)), kit)
        for (ref, what, kit), owners in tags.items()
    ]


def _enclosure(evaluation: Evaluation[Job]) -> list[Row]:
    """The box and its plate, the glands of its cables, and the screws of tapped holes."""
    box = evaluation.document.enclosure
    doors = "one door" if box.doors == 1 else f"{box.doors} doors"
    text = f"enclosure {box.size_name} mm, {box.rating}, {box.material}, {doors}"
    rows: list[Row] = [
        ("", text, 1, "pc", "", BOX_KIT),
        ("", f"mounting plate {box.plate_width:g} × {box.plate_height:g} mm", 1, "pc", "", BOX_KIT),
    ]
    american = evaluation.document.practice.rulebook.north_american
    fittings: dict[str, list[str]] = {}
    for entry in evaluation.get(ENTRIES).entries:
        if entry.fitting:
            fittings.setdefault(entry.fitting.size, []).append(entry.cable)
    what = "conduit hub" if american else "cable gland with nut"
    rows += [("", f"{what} {size}", len(of), "pc", " ".join(of), ENTRY_KIT) for size, of in fittings.items()]
    screened = [cable.tag for cable in evaluation.get(STRIPS).cables if cable.screen]
    if screened:
        rows.append(("", "clamp for the screen of a cable", len(screened), "pc", " ".join(screened), ENTRY_KIT))
    screws = Counter(hole.tap for hole in evaluation.get(HOLES) if hole.tap)
    rows += [("", f"screw {tap} with washers", count, "pc", "", BOX_KIT) for tap, count in sorted(screws.items())]
    return rows


def _labels(evaluation: Evaluation[Job]) -> list[Row]:
    """Labels and markers by medium and size, each as often as it is stuck on."""
    counts: Counter[tuple[str, tuple[float, float]]] = Counter()
    for label in evaluation.get(LABELS).labels:
        counts[label.medium.value, label.size] += label.copies
    return [
        ("", f"{name}, {width:g} × {height:g} mm", count, "pc", "", LABEL_KIT)
        for (name, (width, height)), count in counts.items()
    ]


def _accessories(evaluation: Evaluation[Job]) -> list[Row]:
    """What is bought with a part and has no place of its own: the handle inside, the links of a fuse switch."""
    sizing, names, rows = evaluation.get(SIZING), evaluation.get(NAMES), list[Row]()
    links: dict[str, list[str]] = {}
    for device, part in sizing.parts.items():
        if part.kind.can(Can.HANDLE_INSIDE):
            text = f"handle inside for {part.ref}: switches with the door open, by hand and on purpose"
            rows.append(("", text, 1, "pc", names.tag[device], PLATE_KIT))
        load = sizing.load_of(circuit_of(device))
        guard = load.proposal.value("breaker") if load else None
        if guard and part.kind.sized_as == "fuse switch":
            links.setdefault(f"fuse-link {guard.text}", []).append(names.tag[device])
    apart = [names.tag[d.id] for d in evaluation.get(CIRCUITS).devices if _on_a_base(d)]
    if apart:
        rows.append(("", "base for an overload relay by itself", len(apart), "pc", " ".join(apart), PLATE_KIT))
    for tied in evaluation.get(CIRCUITS).tied:
        text = f"handle tie for {len(tied)} breakers: they open together"
        rows.append(("", text, 1, "pc", " ".join(names.tag[device] for device in tied), PLATE_KIT))
    rows += [("", text, POLES * len(tags), "pc", " ".join(tags), PLATE_KIT) for text, tags in links.items()]
    return rows


def _on_a_base(device: Device) -> bool:
    """Whether it is an overload relay that is plugged under no contactor."""
    return device.kind.can(Can.OVERLOAD) and device.under is None and device.zone is Zone.PLATE


def _joining(evaluation: Evaluation[Job]) -> list[Row]:
    """What joins parts without a wire: links, combs, busbars, jumpers of terminals."""
    names, rows = evaluation.get(NAMES), list[Row]()
    for join in evaluation.get(ASSEMBLIES):
        stands = evaluation.get(LAYOUT).stand_of(join.devices[0])
        own_tags = " ".join(names.tag[device] for device in join.devices if device in names.tag)
        if join.how is JoinHow.LINK:
            rows.append(("", "link module, one above the other", len(join.devices) - 1, "pc", own_tags, PLATE_KIT))
        elif stands and stands.block.comb:
            rows += _comb(evaluation, join, stands, own_tags)
        elif stands and stands.block.bars:
            rows += _bar_system(stands.block.bars, names.tag, own_tags)
    of_kind: dict[str, list[str]] = {}
    for strip in evaluation.get(STRIPS).strips:
        for jumper in jumpers_on(strip):
            of_kind.setdefault(jumper.kind, []).append(f"{strip.tag}:{jumper.joins[0].mark}")
    rows += [("", kind, len(at), "pc", " ".join(at), STRIPS_KIT) for kind, at in sorted(of_kind.items())]
    rows.append(("", "end stop", 2 * len(evaluation.get(STRIPS).strips), "pc", "", STRIPS_KIT))
    return rows


def _comb(evaluation: Evaluation[Job], join: Assembly, stand: Stand, own_tags: str) -> list[Row]:
    """A comb with its length and the potentials of its poles in their order, its infeed, and caps for its cut ends."""
    nets, names = evaluation.get(NETS), evaluation.get(NAMES)
    first = bridged_pins((join,), evaluation.get(CIRCUITS).by_id)
    on_nets = [nets.of_pin.get(pin) for pin in first if pin.device == join.devices[0]]
    order = " ".join(names.number.get(net.id, "") for net in on_nets if net)
    width, poles = stand.block.width, len(evaluation.get(SIZING).parts[join.devices[0]].kind.units)
    pitch = f"{len(join.devices)} × {width / len(join.devices):g} = {width:g} mm"
    comb = stand.block.comb.name if stand.block.comb else "comb"
    return [
        ("", f"{comb}, {poles}-pole, {pitch}, joins {order}", 1, "pc", own_tags, PLATE_KIT),
        ("", f"infeed terminal of a comb, {poles}-pole", 1, "pc", own_tags, PLATE_KIT),
        ("", f"end cap of a comb, {poles}-pole", 2, "pc", own_tags, PLATE_KIT),  # its cut ends are live
    ]


def _bar_system(bars: BarSystem, tag: Mapping[DeviceId, str], own_tags: str) -> list[Row]:
    """What belongs to busbars besides the bars, which are cut: adapters by width, infeed, holders, covers."""
    lines = f"{bars.lines} busbars {BAR_PITCH:g} mm apart"
    on_width: dict[float, list[str]] = {}
    for adapter in bars.adapters:
        on_width.setdefault(adapter.width, []).append(tag.get(adapter.device, ""))
    rows: list[Row] = [
        ("", f"adapter {width:g} mm wide for {lines}", len(tags), "pc", " ".join(tags), PLATE_KIT)
        for width, tags in sorted(on_width.items())
    ]
    rows.append(("", f"infeed terminals for {lines}, {bars.amps:g} A", 1, "pc", own_tags, PLATE_KIT))
    rows.append(("", f"holder for {lines}", len(bars.holders), "pc", own_tags, PLATE_KIT))
    rows.append(("", f"end cover for {lines}", 2, "pc", own_tags, PLATE_KIT))
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
    practice = evaluation.document.practice
    lengths = [(conductor_text(mm2, colour, practice), length) for (mm2, colour), length in wire.items()]
    return [
        *_network_cables(evaluation),
        *(("", text, length / 1000, "m", "", WIRE_KIT) for text, length in lengths),
        *(("", name, count, "pc", "", WIRE_KIT) for name, count in ends.items()),
    ]


def conductor_text(mm2: float, colour: str, practice: Practice) -> str:
    """A conductor as the parts list has it: “flexible wire 1.5 mm² blue, H07V-K, class 5”.

    Args:
        mm2: Its section.
        colour: Its colour.
        practice: Whether conductors are flexible, with ferrules.
    """
    flexible = practice.ends is EndStyle.FERRULES
    made = "flexible" if flexible else "stranded"
    return f"{made} wire {conductor_name(mm2)} {colour}, {conductor_type(mm2, flexible=flexible)}"


def _network_cables(evaluation: Evaluation[Job]) -> list[Row]:
    """The ready-made cables of a network by length; those outside are ordered once they are measured."""
    cables = evaluation.get(WIRING).network
    inside = Counter(cable.length for cable in cables if cable.inside)
    rows: list[Row] = [
        ("", f"network cable, ready made, {length / 1000:g} m", count, "pc", "", WIRE_KIT)
        for length, count in sorted(inside.items())
    ]
    outside = sum(not cable.inside for cable in cables)
    if outside:
        rows.append(("", "network cable to the field, length by measure", outside, "pc", "", ENTRY_KIT))
    return rows


def bought(evaluation: Evaluation[Job]) -> tuple[Row, ...]:
    """Everything that is bought for the panel, counted from the panel itself: the rows of the parts list."""
    stock: Counter[str] = Counter()
    for piece in evaluation.get(CUTS):
        stock[piece.stock] += round(piece.length)
    return (
        *_enclosure(evaluation),
        *_parts(evaluation),
        *_accessories(evaluation),
        *_joining(evaluation),
        *(("", name, length / 1000, "m", "", BOX_KIT) for name, length in stock.items()),
        *_wires(evaluation),
        *_labels(evaluation),
    )


def _bom(evaluation: Evaluation[Job]) -> Schedule:
    known = table_of(evaluation.document.purchases)
    rows: list[Row] = []
    for row in bought(evaluation):
        line = line_of(known, str(row[0]), str(row[1]))
        rows.append((*row, *(purchase_cells(line, float(str(row[2]))) if line else [""] * len(PURCHASE))))
    columns = (
        ("part", "Part"),
        ("description", "Description"),
        ("quantity", "Quantity"),
        ("unit", "Unit"),
        ("tags", "Tags"),
        ("kit", "Kit"),
        *PURCHASE,
    )
    return Schedule("bom", "Parts list", columns, tuple(rows))


def _picks(evaluation: Evaluation[Job]) -> Schedule:
    """The same parts in the order of the work, kit by kit, with room for what was put ready and what is short."""
    # The sort is stable: within a kit the lines stand as on the parts list.
    rows = sorted(bought(evaluation), key=lambda row: str(row[5]))
    columns = (
        ("kit", "Kit"),
        ("part", "Part"),
        ("description", "Description"),
        ("quantity", "Quantity"),
        ("unit", "Unit"),
        ("tags", "Tags"),
        ("ready", "Put ready"),
        ("short", "Short"),
    )
    return Schedule("picks", "Pick list", columns, tuple((row[5], *row[:5], "", "") for row in rows))


def _orders(evaluation: Evaluation[Job]) -> Schedule:
    """What is to be ordered, supplier by supplier: what the panel needs less what lies on the shelf.

    Empty until the workshop has given its purchasing table: an order without one would be a guess.
    """
    known = table_of(evaluation.document.purchases)
    needs: dict[tuple[str, str, str], float] = {}
    for row in bought(evaluation) if known else ():
        needs[str(row[0]), str(row[1]), str(row[3])] = needs.get((str(row[0]), str(row[1]), str(row[3])), 0.0) + float(
            str(row[2])
        )
    rows: list[Row] = []
    for (part, description, unit), needed in needs.items():
        line = line_of(known, part, description)
        short = shortage(line, needed)
        if short <= 0:
            continue
        price = line.price if line and line.price is not None else None
        rows.append((
            line.supplier if line else "",
            line.order_number if line else "",
            part,
            description,
            _count(needed, unit),
            line.stock if line and line.stock is not None else "",
            _count(short, unit),
            unit,
            price if price is not None else "",
            round(price * _count(short, unit), 2) if price is not None else "",
            line.lead_days if line and line.lead_days is not None else "",
            "" if line else "not in the purchasing table",
        ))  # fmt: skip
    rows.sort(key=lambda row: (row[-1] != "", str(row[0]), str(row[1]), str(row[3])))
    columns = (
        ("supplier", "Supplier"),
        ("order_number", "Order number"),
        ("part", "Part"),
        ("description", "Description"),
        ("needed", "Needed"),
        ("stock", "On the shelf"),
        ("order", "To order"),
        ("unit", "Unit"),
        ("price", "Price"),
        ("sum", "Sum"),
        ("lead_days", "Lead days"),
        ("note", "Note"),
    )
    return Schedule("orders", "To order", columns, tuple(rows))


def _count(amount: float, unit: str) -> float:
    """A quantity to order: pieces whole, metres to a tenth, both upwards."""
    return float(-(-round(amount * 10, 6) // 1) / 10) if unit == "m" else float(-(-round(amount, 6) // 1))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"bom": _bom, "picks": _picks, "orders": _orders}
