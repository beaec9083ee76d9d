"""The door as lists: its operators with their build-up, cable entries, what travels to the site."""

from collections.abc import Callable

from riktig.core.door import DOOR, SHAFTS, engagement_of, may_move, stack_of, things_behind, when_let_go, wiring_room
from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.holes import ENTRIES
from riktig.core.job import Fitting, Isolation, Job, Load, ShaftFitting, Start
from riktig.core.keys import DeviceKey
from riktig.core.plate import LAYOUT
from riktig.core.proving import SWITCH_BOX, Imitates
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.simulation import RATINGS, described
from riktig.core.sizing import PROPOSAL

__all__ = ["SCHEDULES", "site_items"]


def _operators(evaluation: Evaluation[Job]) -> Schedule:
    """Every operator in reading order: its legend, what it is made up of, who may move it."""
    door, tags, box = evaluation.get(DOOR), evaluation.get(NAMES).tag, evaluation.document.enclosure
    devices = evaluation.get(CIRCUITS).by_id
    ratings = evaluation.get(RATINGS)
    american = evaluation.document.practice.rulebook.north_american
    behind = things_behind(evaluation.get(LAYOUT), box)
    rows: list[tuple[Value, ...]] = []
    for seat in sorted(door.seats, key=lambda seat: (seat.leaf, seat.y, seat.x)):
        stack = stack_of(seat.part.kind, seat.part, seat.legend)
        lamp = any(block.what.startswith("lamp") for block in stack.blocks)
        rows.append(
            (
                tags[seat.device],
                seat.legend,
                devices[seat.device].purpose if lamp or not stack.blocks else "",
                described(seat.part, ratings.get(seat.device, ()), north_american=american),
                stack.said,
                f"{stack.taken} of {stack.limit}" if stack.limit else "",
                seat.depth,
                round(wiring_room(seat, behind, box.plate_depth), 1) if not seat.is_shaft else "",
                may_move(seat.part.kind),
                when_let_go(seat.part.kind),
                seat.leaf,
                seat.x,
                seat.y,
                str(DeviceKey(seat.device)),
            )
        )
    columns = (
        ("tag", "Tag"),
        ("legend", "Legend"),
        ("means", "Means"),
        ("part", "Part"),
        ("blocks", "Blocks from behind"),
        ("places", "Contact places"),
        ("depth", "Depth, mm"),
        ("wiring_room", "Room for wires, mm"),
        ("moved_by", "Moved by"),
        ("let_go", "Let go"),
        ("door", "Door"),
        ("x", "x, mm"),
        ("y", "y, mm"),
        ("key", "Key"),
    )
    return Schedule("operators", "Operators of the door", columns, tuple(rows))


def _entries(evaluation: Evaluation[Job]) -> Schedule:
    """Every cable with its gland or hub and where that is."""
    rows: list[tuple[Value, ...]] = [
        (
            entry.cable,
            entry.diameter,
            entry.fitting.size if entry.fitting else "none",
            entry.fitting.hole if entry.fitting else "",
            entry.hole.face if entry.hole else "",
            entry.hole.number if entry.hole else "",
            entry.hole.x if entry.hole else "",
            entry.hole.y if entry.hole else "",
            entry.hole.rating if entry.hole else "",
        )
        for entry in evaluation.get(ENTRIES).entries
    ]
    columns = (
        ("cable", "Cable"),
        ("diameter", "About, mm"),
        ("fitting", "Gland or hub"),
        ("hole_mm", "Hole, mm"),
        ("in", "In"),
        ("hole", "Hole"),
        ("x", "x, mm"),
        ("y", "y, mm"),
        ("class", "Class"),
    )
    return Schedule("entries", "Cable entries", columns, tuple(rows))


def site_items(evaluation: Evaluation[Job]) -> tuple[tuple[str, str], ...]:
    """What is left for the site, and why: it travels with the panel."""
    job, tags = evaluation.document, evaluation.get(NAMES).tag
    items: list[tuple[str, str]] = []
    for shaft in evaluation.get(SHAFTS):
        engaged = engagement_of(shaft, job.practice)
        tag, at = tags[shaft.device], f"{shaft.on_leaf.x:g}, {shaft.on_leaf.y:g} mm from the datum of the {shaft.leaf}"
        if job.practice.shaft is ShaftFitting.SITE:
            items += [
                (
                    f"Supply isolated and locked off: project the centre of {tag} onto the closed door, measure it "
                    f"twice (drawn at {at}), cut the hole, saw the shaft to {shaft.length:g} mm, fit the handle.",
                    "A wall out of square moves the centre; the hole is cut once the panel hangs.",
                )
            ]
        items.append(
            (f"Try the handle of {tag} with the panel hung: off, on, door locked in on, padlock in off.", engaged.said)
        )
    items.append(
        (
            "Supply isolated, locked off and proved dead: tighten all power terminals again, by the torque list.",
            "Transport loosens screws; conductors settle in their clamps.",
        )
    )
    items += [
        (
            f"{load.name}: fit a lockable isolator beside it, {_isolator(load, evaluation)}.",
            "As the Brief asks: it is cut off alone where it stands.",
        )
        for load in job.loads
        if load.isolation is Isolation.LOCAL
    ]
    items += [
        (f"{load.name}: final fit on site.", "As the customer asked in the Brief.")
        for load in job.loads
        if load.fitting is Fitting.SITE
    ]
    items += [
        (
            f"{load.name}: hang the floats at {_heights(load)} above the bottom; lift each by hand and try it.",
            "Their order decides whether the pump rests.",
        )
        for load in job.loads
        if any(load.float_heights.values())
    ]
    items += _site_tests(evaluation)
    items.append(
        ("Close the door slowly over its loom: nothing is pinched, no stack touches.", "The loom settles in transport.")
    )
    return tuple(items)


def _site_tests(evaluation: Evaluation[Job]) -> list[tuple[str, str]]:
    """What can be tested only with the supply and the field of the site; everything else was tested before."""
    items = [
        (
            "By a qualified person: measure the voltages and the rotation at the incoming terminals before anything is "
            "switched on.",
            "A supply that turns the other way turns every motor the other way.",
        )
    ]
    if not evaluation.document.practice.rulebook.north_american:
        items.append(
            (
                "By a qualified person: measure the earth-fault loop at the incoming terminals and at the farthest "
                "motor and socket; every protective device must open in the time that the rulebook allows.",
                "It depends on the supply and the cables of the site (IEC 60204-1 18.2.3, from memory).",
            )
        )
    switched = (Imitates.SWITCH, Imitates.BUTTON, Imitates.SENSOR, Imitates.SUPPLY)
    stood_in = [place.tag for place in evaluation.get(SWITCH_BOX) if place.imitates in switched]
    if stood_in:
        items.append(
            (f"Try {', '.join(stood_in)} themselves: each must do what the switch box did.",
             "In the workshop they were imitated at their terminals.")
        )  # fmt: skip
    return items


def _isolator(load: Load, evaluation: Evaluation[Job]) -> str:
    """What the isolator beside a load must be: its rating, and behind a drive a contact that opens first."""
    need = evaluation.get(PROPOSAL).value(f"{load.id}.disconnect")
    words = f"for at least {need.amount:g} A" if need else "for its current"
    if load.start is Start.DRIVE:
        words += ", with a contact that opens first and stops the drive"
    return words


def _heights(load: Load) -> str:
    """“0.4 m (stop), 1.2 m (start)”."""
    return ", ".join(f"{height:g} m ({what})" for what, height in load.float_heights.items() if height)


def _site(evaluation: Evaluation[Job]) -> Schedule:
    rows = tuple((n, what, why, "", "") for n, (what, why) in enumerate(site_items(evaluation), 1))
    columns = (("n", "No."), ("what", "To do on site"), ("why", "Why"), ("who", "Done by"), ("when", "When"))
    return Schedule("site", "List that travels to the site", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {
    "operators": _operators,
    "entries": _entries,
    "site": _site,
}
