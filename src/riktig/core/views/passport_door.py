"""What the passport says of an operator or of the isolator's shaft."""

from riktig.core.door import DOOR, SHAFTS, engagement_of, may_move, stack_of, things_behind, wiring_room
from riktig.core.job import Job
from riktig.core.plan import Plan
from riktig.core.plate import LAYOUT
from riktig.core.schematic import Device
from riktig.core.standards import Why
from riktig.core.views.passport_model import Row, Section

__all__ = ["door_sections"]


def door_sections(plan: Plan[Job], device: Device) -> tuple[tuple[Section, ...], tuple[Why, ...]]:
    """The build-up of an operator from the front to the last block, or the shaft of an isolator; nothing else's."""
    seat = plan.get(DOOR).seat(device.id)
    if seat is None:
        return (), ()
    if seat.is_shaft:
        shaft = next(one for one in plan.get(SHAFTS) if one.device == device.id)
        engaged = engagement_of(shaft, plan.document.practice)
        rows = (
            Row("Centre on the door", f"x {shaft.on_leaf.x:g}  y {shaft.on_leaf.y:g} mm"),
            Row("Shaft to cut", f"{shaft.length:g} mm"),
            Row("Misses at worst", f"{engaged.misses:.1f} of {engaged.tolerance:g} mm"),
            Row("Wall at most", f"{engaged.most_skew:.0f} mm/m out of square"),
            Row("Handle inside", "yes: pulled on purpose, without a tool" if shaft.inner_handle else "none"),
        )
        return (Section("Shaft", rows),), (shaft.why,)
    stack = stack_of(device.kind, seat.part, seat.legend)
    rows_of = [
        Row(str(n), f"{item.what} {'-'.join(item.pins)} {item.way}".strip()) for n, item in enumerate(stack.items, 1)
    ]
    box = plan.document.enclosure
    room = wiring_room(seat, things_behind(plan.get(LAYOUT), box), box.plate_depth)
    rows_of += [Row("Depth", f"{seat.depth:g} mm behind the door"), Row("Room for wires", f"{room:.0f} mm behind it")]
    if stack.limit:
        rows_of.append(Row("Contacts", f"{stack.taken} of {stack.limit} places"))
    if who := may_move(device.kind):
        rows_of.append(Row("Moved by", who))
    if any(block.what.startswith("lamp") for block in stack.blocks):
        rows_of.append(Row("Means", device.purpose))
    return (Section("Build-up, from the front", tuple(rows_of)),), ()
