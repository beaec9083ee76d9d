"""The tasks of the bench, made from the plan: what is received, cut, fixed, mounted, built, covered and looked at.

Minutes are chosen by us from what such work takes a practised hand; they are no promise.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can, Part
from riktig.core.door import DoorPlan, PlacedOperator, stack_of
from riktig.core.holes import Hole
from riktig.core.ids import DeviceId
from riktig.core.job import INCOMER_ID, PinRef, Practice
from riktig.core.keys import DeviceKey, DuctKey, HoleKey, Key, PieceKey, PinKey, RailKey
from riktig.core.plate import Layout, Piece, Stand
from riktig.core.production.inspection import LookedAt, inspection_points
from riktig.core.production.machining import hole_facts, hole_subject, piece_facts, piece_subject
from riktig.core.production.mounted import mounted_facts, mounted_subject
from riktig.core.production.operator_tests import operator_tests
from riktig.core.production.work_model import BuildStage, WorkTask
from riktig.core.records import HoleWork, PartReceived, TaskDone
from riktig.core.schematic import Circuits, Names, Zone
from riktig.core.simulation import Rating, described
from riktig.core.sizing import Sizing
from riktig.core.standards import conductor_name, is_awg, torque_name
from riktig.core.terminals import Strip, Strips, jumpers_on
from riktig.core.wiring import DuctUse, Wiring

__all__ = ["SERIAL_NUMBERS", "WorkInputs", "make_work"]

SERIAL_NUMBERS = (Can.VARIES_SPEED, Can.STARTS_SOFTLY, Can.CONTROLLER)
"""Parts whose serial number is noted: what is set up by software and replaced like for like (chosen by us)."""
MINUTES = {
    "receive": 1.0, "hole": 0.8, "piece": 2.0, "fix": 3.0, "finger": 0.15, "mount": 1.5, "label": 0.3,
    "terminal": 0.5, "operator": 4.0, "lid": 1.0, "clean": 5.0,
}  # fmt: skip
"""What one takes, min (chosen by us)."""
LEAST_AGAIN_MM2 = 4.0
"""Of the conductors of the supply those that settle: thinner ones keep their clamp (chosen by us)."""
SWARF = "Wear eye protection; keep swarf off parts that are mounted already."


@dataclass(frozen=True, slots=True)
class WorkInputs:
    """What the tasks follow from."""

    circuits: Circuits
    names: Names
    sizing: Sizing
    layout: Layout
    door: DoorPlan
    holes: tuple[Hole, ...]
    cuts: tuple[Piece, ...]
    uses: tuple[DuctUse, ...]
    strips: Strips
    practice: Practice
    wiring: Wiring
    ratings: Mapping[DeviceId, tuple[Rating, ...]]
    clauses: tuple[LookedAt, ...]
    """Of the rulebook, those that are looked at on the panel."""

    def text_of(self, device: DeviceId, part: Part) -> str:
        """A part as it is bought: what it is, and for which voltage."""
        american = self.practice.rulebook.north_american
        return described(part, self.ratings.get(device, ()), north_american=american)


def make_work(inputs: WorkInputs) -> tuple[WorkTask, ...]:
    """All tasks but those of wires, stage by stage in the order they are done."""
    return (
        *_received(inputs),
        *_holes(inputs.holes),
        *_pieces(inputs.cuts),
        *_fixed(inputs.layout),
        *_fingers(inputs.uses),
        *_mounted(inputs),
        *_tags(inputs),
        *(_strip(strip) for strip in inputs.strips.strips),
        *operator_tests(inputs.door, inputs.names, inputs.text_of),
        *(_operator(seat, inputs.names) for seat in _in_order(inputs.door)),
        *_supply_again(inputs),
        *_covers(inputs),
        *_clean(inputs),
        *inspection_points(inputs.practice.rulebook, inputs.clauses),
    )


def _received(inputs: WorkInputs) -> list[WorkTask]:
    """A task for each part of the list: how many are there."""
    wanted: dict[tuple[str, str], list[DeviceId]] = {}
    parts: dict[str, Part] = {}
    for device, part in inputs.sizing.parts.items():
        if inputs.circuits.device(device).zone is not Zone.FIELD:
            wanted.setdefault((part.ref, inputs.text_of(device, part)), []).append(device)
            parts[part.ref] = part
    tasks: list[WorkTask] = []
    for (ref, text), devices in wanted.items():
        tags = " ".join(dict.fromkeys(inputs.names.tag[device] for device in devices))
        how = [text, f"for {tags}"]
        if any(parts[ref].kind.can(ability) for ability in SERIAL_NUMBERS):
            how.append("note serial number and batch")
        facts = PartReceived(ref, len(devices), len(devices))
        where = tuple(DeviceKey(device) for device in devices)
        title = f"{len(devices)} × {ref}"
        tasks.append(
            WorkTask(BuildStage.RECEIVE, f"received:{ref} {text}", title, tuple(how), facts, where, MINUTES["receive"])
        )
    return tasks


def _holes(holes: tuple[Hole, ...]) -> list[WorkTask]:
    """The last operation of each hole: it stands for those before it."""
    return [
        WorkTask(
            BuildStage.HOLES,
            hole_subject(hole),
            f"{hole.number} {hole.size}",
            (hole.purpose, f"{hole.face}: {hole.x:g}, {hole.y:g} mm"),
            hole_facts(hole, hole.operations[-1] if hole.operations else HoleWork.MADE),
            (HoleKey(hole.number),),
            MINUTES["hole"],
            SWARF,
        )
        for hole in holes
    ]


def _pieces(pieces: tuple[Piece, ...]) -> list[WorkTask]:
    return [
        WorkTask(
            BuildStage.CUT,
            piece_subject(piece),
            f"{piece.name} {piece.length:g} mm",
            (piece.stock, "deburr both ends"),
            piece_facts(piece),
            (PieceKey(piece.name),),
            MINUTES["piece"],
            SWARF,
        )
        for piece in pieces
    ]


def _fixed(layout: Layout) -> list[WorkTask]:
    """Rails and ducts on the plate."""
    tasks = [
        _task(
            BuildStage.RAILS, f"rail {rail.name}", f"Rail {rail.name}, {rail.length:g} mm",
            (f"middle {rail.y:g} mm down, from {rail.x1:g} to {rail.x2:g} mm across", "straight, every screw tight"),
            f"{rail.x1:g} to {rail.x2:g} at {rail.y:g}", MINUTES["fix"], RailKey(rail.name),
        )
        for rail in layout.rails
    ]  # fmt: skip
    return tasks + [
        _task(
            BuildStage.RAILS, f"duct {duct.name}", f"Duct {duct.name}, {duct.length:g} mm",
            (f"corner at {duct.rect.x:g}, {duct.rect.y:g} mm", "no sharp edge or screw head stands into it"),
            f"{duct.rect.x:g}, {duct.rect.y:g}, {duct.rect.width:g} × {duct.rect.height:g}", MINUTES["fix"],
            DuctKey(duct.name),
        )
        for duct in layout.ducts
    ]  # fmt: skip


def _fingers(uses: tuple[DuctUse, ...]) -> list[WorkTask]:
    """A task for each duct that wires need an opening in."""
    tasks: list[WorkTask] = []
    for use in uses:
        out = [opening for opening in use.openings if opening.fingers]
        count = sum(opening.fingers for opening in out)
        if not count:
            continue
        how = tuple(f"{o.side} at {o.at:g} mm: {o.fingers} for {o.wires} {_wires(o.wires)}" for o in out)
        true_of = "; ".join(f"{o.side} {o.at:g}: {o.fingers}" for o in out)
        title = f"{use.name} {count} {'finger' if count == 1 else 'fingers'}"
        tasks.append(
            _task(
                BuildStage.FINGERS,
                f"fingers {use.name}",
                title,
                how,
                true_of,
                count * MINUTES["finger"],
                DuctKey(use.name),
            )
        )
    return tasks


def _wires(count: int) -> str:
    return "wire" if count == 1 else "wires"


def _mounted(inputs: WorkInputs) -> list[WorkTask]:
    """A task for each block of the plate: where it stands and how it is held."""
    tasks: list[WorkTask] = []
    for stand in sorted(inputs.layout.stands, key=lambda stand: (stand.rail or 99, stand.x)):
        tags = dict.fromkeys(inputs.names.tag[device] for device, *_ in stand.block.members)
        part = stand.block.members[0][1]
        strip = inputs.circuits.device(stand.block.lead).strip
        what = (
            "terminal strip with an end stop on each side" if strip else inputs.text_of(stand.block.members[0][0], part)
        )
        keys = tuple(DeviceKey(device) for device, *_ in stand.block.members)
        tasks.append(
            WorkTask(
                BuildStage.PARTS,
                mounted_subject(stand.block.lead),
                f"{' '.join(tags)}  {what}",
                _place_of(stand, inputs.layout),
                mounted_facts(stand),
                keys,
                MINUTES["mount"],
            )
        )
    return tasks


def _place_of(stand: Stand, layout: Layout) -> tuple[str, ...]:
    rail = layout.rail(stand.rail)
    fixed = f"on {rail.name}, its left edge {stand.x - rail.x1:.1f} mm from the rail's end" if rail else (
        f"screwed to the plate, corner at {stand.x:.1f}, {stand.y:.1f} mm"
    )  # fmt: skip
    turned = "head down" if stand.block.turned else "head up"
    return fixed, f"{stand.block.width:g} mm wide, {turned}"


def _tags(inputs: WorkInputs) -> list[WorkTask]:
    """The label on each part, or on the first of a strip."""
    tasks: list[WorkTask] = []
    for stand in inputs.layout.stands:
        tags = tuple(dict.fromkeys(inputs.names.tag[device] for device, *_ in stand.block.members))
        tasks.append(
            _task(
                BuildStage.TAGS, f"tags {stand.block.lead}", " ".join(tags),
                ("on the part, and beside it on the plate where the part may be replaced",), " ".join(tags),
                MINUTES["label"] * len(tags), *(DeviceKey(device) for device, *_ in stand.block.members),
            )
        )  # fmt: skip
    for seat in (seat for seat in _in_order(inputs.door) if not seat.is_shaft):
        tag = inputs.names.tag[seat.device]
        how = (f"behind the {seat.leaf}, beside its blocks",)
        tasks.append(
            _task(BuildStage.TAGS, f"tags {seat.device}", tag, how, tag, MINUTES["label"], DeviceKey(seat.device))
        )
    return tasks


def _strip(strip: Strip) -> WorkTask:
    """A strip from left to right with its jumpers."""
    marks = " ".join(row.mark for row in strip.rows)
    jumpers = [f"{jumper.kind}: {' '.join(row.mark for row in jumper.joins)}" for jumper in jumpers_on(strip)]
    bodies = [f"{row.mark} {row.kind_id} {row.colour}".strip() for row in strip.rows]
    how = (f"from the left: {marks}", *jumpers, "end plate, end stops, marks, the strip's name")
    where = tuple(DeviceKey(row.device) for row in strip.rows)
    return _task(
        BuildStage.STRIPS, f"strip {strip.rows[0].device}", f"{strip.tag}, {len(strip.rows)} terminals", how,
        ", ".join([*bodies, *jumpers]), MINUTES["terminal"] * len(strip.rows), *where,
    )  # fmt: skip


def _in_order(door: DoorPlan) -> list[PlacedOperator]:
    return sorted(door.seats, key=lambda seat: (seat.leaf, seat.y, seat.x))


def _operator(seat: PlacedOperator, names: Names) -> WorkTask:
    """An operator put together through the door, from the front to the last block."""
    stack = stack_of(seat.part.kind, seat.part, seat.legend)
    steps = []
    for number, item in enumerate(stack.items, 1):
        pins = f" {'-'.join(item.pins)}" if item.pins else ""
        place = f", {item.way}, layer {item.layer}: press until it clicks" if item.layer else ""
        steps.append(f"{number}. {item.what}{pins}{place}")
    if seat.hole:
        steps.append("nose in the notch of the hole: the legend must not turn")
    true_of = f"{seat.part.ref}; {seat.legend}; {stack.said}"
    title = f"{names.tag[seat.device]} {seat.legend or seat.part.description}"
    return _task(
        BuildStage.OPERATORS, f"operator {seat.device}", title, tuple(steps), true_of, MINUTES["operator"],
        DeviceKey(seat.device),
    )  # fmt: skip


def _supply_again(inputs: WorkInputs) -> list[WorkTask]:
    """Every clamp of the supply, tightened a second time: conductors settle in their clamps after the first.

    Source:
        Common practice, no source; the torque is that of the part.
    """
    tasks: list[WorkTask] = []
    landed: dict[PinRef, tuple[str, float, float]] = {}
    for wire in inputs.wiring.wires:
        for end in (wire.start, wire.end):
            device = inputs.circuits.device(end.pin.device)
            if device.circuit == INCOMER_ID and not device.kind.can(Can.EARTH_STUD) and wire.mm2 >= LEAST_AGAIN_MM2:
                landed[end.pin] = (end.label, end.torque_n_m, wire.mm2)
    for pin, (label, torque, mm2) in landed.items():
        how = (f"{torque_name(torque, awg=is_awg(mm2))}, with everything of the panel dead", "mark the screw anew")
        tasks.append(
            _task(
                BuildStage.SUPPLY_AGAIN, f"again {pin}", f"{label} {conductor_name(mm2)}", how,
                f"{label} {torque:g} N·m", MINUTES["label"], DeviceKey(pin.device), PinKey(pin),
            )
        )  # fmt: skip
    return tasks


def _covers(inputs: WorkInputs) -> list[WorkTask]:
    """The lids of the ducts, and the cover over the supply's side of the main switch."""
    tasks = [
        _task(
            BuildStage.COVERS, f"lid {duct.name}", f"Lid of {duct.name}",
            ("no wire pinched, no lid cut short",), f"{duct.length:g} mm", MINUTES["lid"], DuctKey(duct.name),
        )
        for duct in inputs.layout.ducts
    ]  # fmt: skip
    for device in inputs.circuits.devices:
        if device.kind.can(Can.MAIN_SWITCH):
            tag = inputs.names.tag[device.id]
            how = ("over the terminals of the supply, with its mark: they are live with the switch off",)
            tasks.append(
                _task(
                    BuildStage.COVERS, f"cover {device.id}", f"Cover of {tag}", how, tag, MINUTES["lid"],
                    DeviceKey(device.id),
                )
            )  # fmt: skip
    return tasks


def _clean(inputs: WorkInputs) -> list[WorkTask]:
    """What is left to be put in order before anybody looks (common practice, no source)."""
    points = [
        ("swarf", "Swarf and cut-offs out", ("sucked out, never blown: ducts, bottom, behind the plate",)),
        ("tools", "Tools and loose parts counted", ("nothing lies in the panel that does not belong there",)),
        ("straight", "Ducts, rails and parts straight", ("wires lie parallel, none crosses a vent",)),
        ("wiped", "Wiped inside and outside", ("no marks of marking-out on the door",)),
    ]
    for leaf in inputs.door.leaves:
        points.append((f"seal {leaf.name}", f"Seal of the {leaf.name} clean", ("whole all round, nothing under it",)))
    return [_task(BuildStage.CLEAN, f"clean {key}", title, how, title, MINUTES["clean"]) for key, title, how in points]


def _task(
    stage: BuildStage, key: str, title: str, how: tuple[str, ...], true_of: str, minutes: float, *where: Key
) -> WorkTask:
    """A task whose record says what it was done to."""
    return WorkTask(stage, f"task:{key}", title, how, TaskDone(stage.value, title, true_of), where, minutes)
