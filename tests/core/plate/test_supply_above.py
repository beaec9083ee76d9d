"""A supply that comes in from above: its terminals stand at the top beside the switch, field side up."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import MoveParts, PartPlace
from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId
from riktig.core.job import EntrySide, Job, Start, add_load, new_job, set_enclosure
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.wiring import WIRING

X1 = DeviceId("c0.X.L1")


def pump_house(entry: EntrySide, field: EntrySide = EntrySide.BOTTOM) -> Job:
    job = new_job("P-9", "pump house")
    for n in range(4):
        job = add_load(job, f"pump {n}", 4.0, start=Start.SOFT if n < 2 else Start.DIRECT)
    job = set_enclosure(job, width=800.0, height=1000.0, plate_width=750.0, plate_height=950.0)
    return with_names_recorded(set_enclosure(job, entry=entry, field_entry=field))


def at_entry(evaluation: Evaluation[Job]) -> list[str]:
    return [f.message for r in evaluation.get(RULES) if r.code == "P11" for f in r.findings]


def test_they_stand_on_the_first_rail_with_the_cable_side_up() -> None:
    evaluation = plan_for(pump_house(EntrySide.TOP))
    layout = evaluation.get(LAYOUT)
    assert layout.misfits == ()
    first = min(layout.rails, key=lambda rail: rail.y)
    stand = layout.stand_of(X1)
    assert stand is not None
    assert stand.rail == first.number
    for name in ("L1", "L2", "L3"):
        seat = layout.seat(DeviceId(f"c0.X.{name}"))
        assert seat is not None
        assert seat.pin_point("f").y < seat.pin_point("i").y, "the cable comes from above"
    assert at_entry(evaluation) == []
    others = {d.id for d in evaluation.get(CIRCUITS).devices if d.strip and d.circuit != "c0"}
    last = max(layout.rails, key=lambda rail: rail.y)
    assert {s.rail for d in others if (s := layout.stand_of(d))} == {last.number}, "those of the field stay below"


def test_its_conductors_to_the_switch_are_shorter_than_from_below() -> None:
    def to_switch(entry: EntrySide) -> float:
        wires = plan_for(pump_house(entry)).get(WIRING).wires
        return sum(w.length for w in wires if {w.start.pin.device, w.end.pin.device} & {X1, DeviceId("c0.X.L2")})

    assert to_switch(EntrySide.TOP) < to_switch(EntrySide.BOTTOM)


@pytest.mark.parametrize(
    ("entry", "field"), [(EntrySide.BOTTOM, EntrySide.BOTTOM), (EntrySide.TOP, EntrySide.TOP)], ids=["below", "above"]
)
def test_with_all_cables_on_one_side_all_strips_stand_there(entry: EntrySide, field: EntrySide) -> None:
    evaluation = plan_for(pump_house(entry, field))
    assert at_entry(evaluation) == []
    layout = evaluation.get(LAYOUT)
    strips = [d.id for d in evaluation.get(CIRCUITS).devices if d.strip]
    assert len({s.rail for d in strips if (s := layout.stand_of(d))}) == 1


def test_where_the_builder_put_them_lower_they_stay_and_that_is_said() -> None:
    evaluation = plan_for(pump_house(EntrySide.TOP))
    layout = evaluation.get(LAYOUT)
    last = max(layout.rails, key=lambda rail: rail.y)
    moved = MoveParts((PartPlace(X1, last.number, 260.0, last.y),)).apply(evaluation)
    after = plan_for(moved)
    stand = after.get(LAYOUT).stand_of(X1)
    assert stand is not None
    assert stand.rail == last.number
    assert not stand.block.turned
    assert len(at_entry(after)) == 1
