"""What the details says of an operator or of the isolator's shaft."""

from riktig.core.door import DOOR, SHAFTS, engagement_of, may_move, stack_of, things_behind, wiring_room
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.plate import LAYOUT
from riktig.core.schematic import Device
from riktig.core.standards import Why
from riktig.core.views.details_model import DetailsRow, DetailsSection

__all__ = ["door_sections"]


def door_sections(evaluation: Evaluation[Job], device: Device) -> tuple[tuple[DetailsSection, ...], tuple[Why, ...]]:
    """The build-up of an operator from the front to the last block, or the shaft of an isolator; nothing else's."""
    seat = evaluation.get(DOOR).seat(device.id)
    if seat is None:
        return (), ()
    if seat.is_shaft:
        shaft = next(shaft for shaft in evaluation.get(SHAFTS) if shaft.device == device.id)
        engaged = engagement_of(shaft, evaluation.document.practice)
        rows = (
            DetailsRow("Centre on the door", f"x {shaft.on_leaf.x:g}  y {shaft.on_leaf.y:g} mm"),
            DetailsRow("Shaft to cut", f"{shaft.length:g} mm"),
            DetailsRow("Misses at worst", f"{engaged.misses:.1f} of {engaged.tolerance:g} mm"),
            DetailsRow("Wall at most", f"{engaged.most_skew:.0f} mm/m out of square"),
            DetailsRow("Handle inside", "yes: pulled on purpose, without a tool" if shaft.inner_handle else "none"),
        )
        return (DetailsSection("Shaft", rows),), (shaft.why,)
    stack = stack_of(device.kind, seat.part, seat.legend)
    rows_of = [
        DetailsRow(str(n), f"{item.what} {'-'.join(item.pins)} {item.way}".strip())
        for n, item in enumerate(stack.items, 1)
    ]
    box = evaluation.document.enclosure
    room = wiring_room(seat, things_behind(evaluation.get(LAYOUT), box), box.plate_depth)
    rows_of += [
        DetailsRow("Depth", f"{seat.depth:g} mm behind the door"),
        DetailsRow("Room for wires", f"{room:.0f} mm behind it"),
    ]
    if stack.limit:
        rows_of.append(DetailsRow("Contacts", f"{stack.taken} of {stack.limit} places"))
    if who := may_move(device.kind):
        rows_of.append(DetailsRow("Moved by", who))
    if any(block.what.startswith("lamp") for block in stack.blocks):
        rows_of.append(DetailsRow("Means", device.purpose))
    return (DetailsSection("Build-up, from the front", tuple(rows_of)),), ()
