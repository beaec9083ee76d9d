"""The front of the panel with power on: lamps by what feeds them, words for what is not at rest."""

from collections.abc import Sequence

import pytest

from riktig.core.catalogue import Behaviour
from riktig.core.door import DOOR
from riktig.core.geometry import Circle, Line, Text
from riktig.core.job import DeviceId, Job
from riktig.core.plate import RULER
from riktig.core.schematic import CIRCUITS, NETS, SHEETS
from riktig.core.simulation import (
    front_shapes,
    lit_lamps,
    live_shapes,
    operate,
    operators_of,
    panel_of,
    path_words,
    roles_of,
)
from riktig.demo_job import frost_fan, kelp_shed, wash_drum
from tests.shared_plan import plan_for


def shed(job: Job) -> tuple:  # type: ignore[type-arg]
    evaluation = plan_for(job)
    circuits = evaluation.get(CIRCUITS)
    panel = panel_of(job, circuits, evaluation.get(NETS), (), None)
    return panel, evaluation.get(DOOR), operators_of(circuits), circuits


def words(shapes: Sequence[object]) -> set[str]:
    return {shape.text for shape in shapes if isinstance(shape, Text)}


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan(), wash_drum()], ids=["shed", "fan", "drum"])
def test_a_lamp_is_lit_exactly_when_it_is_fed_whatever_is_operated(job: Job) -> None:
    panel, door, operators, circuits = shed(job)
    lamps = {
        device.id: [unit.name for unit in device.kind.units if unit.behaviour is Behaviour.LAMP]
        for device in circuits.devices
        if door.seat(device.id) is not None
    }
    lamps = {device: units for device, units in lamps.items() if units}
    assert lamps
    seen: set[frozenset[str]] = set()
    for operator in operators:
        for position in (*operator.positions[1:], operator.positions[0]):
            if operator.touch.name == "SIGNAL":
                continue
            operate(panel, operator, position)
            lit = lit_lamps(panel, door)
            assert lit == {d for d, units in lamps.items() if any(panel.is_fed(d, unit) for unit in units)}
            seen.add(lit)
    assert len(seen) > 2, "lamps have come and gone meanwhile"


def test_a_lit_lamp_has_rays_around_its_own_place_and_a_dark_one_none() -> None:
    panel, door, operators, _ = shed(wash_drum())
    start = next(o for o in operators if o.device and o.device.endswith("S.start"))
    assert lit_lamps(panel, door) == frozenset()
    assert [s for s in front_shapes(panel, door, operators) if isinstance(s, Line)] == []
    operate(panel, start, "held")
    operate(panel, start, start.positions[0])
    (lamp,) = lit_lamps(panel, door)
    seat = door.seat(lamp)
    assert seat is not None
    shapes = front_shapes(panel, door, operators)
    rings = [shape for shape in shapes if isinstance(shape, Circle) and shape.role == "live"]
    assert [(ring.x, ring.y) for ring in rings] == [(seat.x + RULER, seat.y + RULER)]
    assert sum(isinstance(shape, Line) for shape in shapes) == 12


def test_what_is_pressed_or_turned_is_said_in_words() -> None:
    panel, door, operators, _ = shed(kelp_shed())
    start = next(o for o in operators if o.device == "c2.S.start")
    turned = next(o for o in operators if o.touch.name == "TURN" and door.seat(o.device) is not None)
    assert "pressed" not in words(front_shapes(panel, door, operators))
    assert turned.positions[0] in words(front_shapes(panel, door, operators)), "a selector says where it stands at rest"
    operate(panel, start, "held")
    operate(panel, turned, turned.positions[-1])
    after = words(front_shapes(panel, door, operators))
    assert "pressed" in after
    assert turned.positions[-1] in after
    operate(panel, start, start.positions[0])
    assert "pressed" not in words(front_shapes(panel, door, operators))


class TestPathWords:
    """N025: by hand on the wash drum, whose hold contact 13-14 of K1 lies beside the start button S2 3-4."""

    def words(self, *steps: tuple[str, str]) -> dict[str, str]:
        panel, _, operators, _ = shed(wash_drum())
        for device, position in steps:
            operator = next(o for o in operators if o.device == device)
            operate(panel, operator, operator.positions[0] if position == "free" else position)
        roles = roles_of(panel)
        wanted = {"start": ("c1.S.start", "3-4"), "hold": ("c1.K", "13-14"), "stop": ("c1.S.stop", "1-2")}
        return {name: path_words(panel, roles, DeviceId(d), unit) for name, (d, unit) in wanted.items()}

    def test_at_rest_power_waits_at_the_open_contacts(self) -> None:
        words = self.words()
        assert words["start"] == words["hold"] == "open: live up to here"
        assert words["stop"].startswith("closed, and nothing that works")

    def test_while_start_is_held_both_are_parallel_and_stop_is_the_sole_path(self) -> None:
        words = self.words(("c1.S.start", "held"))
        assert words["start"].startswith("closed, one of several parallel paths")
        assert words["hold"].startswith("closed, one of several parallel paths")
        assert words["stop"].startswith("closed, sole path")

    def test_once_start_is_let_go_it_is_redundant_and_hold_is_the_sole_path(self) -> None:
        words = self.words(("c1.S.start", "held"), ("c1.S.start", "free"))
        assert words["start"].startswith("open and redundant")
        assert words["hold"].startswith("closed, sole path")

    def test_what_is_no_contact_has_no_words(self) -> None:
        panel, *_ = shed(wash_drum())
        assert path_words(panel, {}, DeviceId("c1.K"), "A1-A2") == ""
        assert path_words(panel, {}, DeviceId("no such"), "1-2") == ""


def test_what_another_supply_makes_live_is_drawn_hollow() -> None:
    panel, _, operators, _ = shed(kelp_shed())
    job = kelp_shed()
    sheets = plan_for(job).get(SHEETS).sheets
    foreign = next(o for o in operators if o.touch.name == "SOURCE")

    def hollow() -> int:
        marks = [m for sheet in sheets for m in live_shapes(panel, sheet, roles_of(panel), frozenset())]
        return sum(isinstance(m, Line) and m.role == "paper" and m.width < 0.5 for m in marks)

    assert hollow() == 0
    operate(panel, foreign, "on")
    assert hollow() > 0
