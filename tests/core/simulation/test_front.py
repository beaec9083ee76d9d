"""The front of the panel with power on: lamps by what feeds them, words for what is not at rest."""

from collections.abc import Sequence

import pytest

from riktig.core.catalogue import Behaviour
from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Circle, Line, Text
from riktig.core.job import Job
from riktig.core.plate import RULER
from riktig.core.schematic import CIRCUITS, NETS
from riktig.core.simulation import front_shapes, lit_lamps, operate, operators_of, panel_of
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


def shed(job: Job) -> tuple:  # type: ignore[type-arg]
    evaluation = Evaluation(job)
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
