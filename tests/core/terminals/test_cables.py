"""The cable schedule and the conductors by route, counted from circuits, wires and cables by themselves."""

import re
from collections import Counter

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.holes import ENTRIES, cable_diameter
from riktig.core.ids import DeviceId, PinRef
from riktig.core.job import EndStyle, Job, set_practice
from riktig.core.schematic import CIRCUITS, NETS, Zone, with_names_recorded
from riktig.core.standards import conductor_type, cores_sold
from riktig.core.terminals import EARTH_CORE, STRIPS, Cable, Core
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

JOBS = {"shed": kelp_shed, "fan": frost_fan, "drum": wash_drum}
NAMES_ = [*JOBS, *list(SAMPLES)[:: times(12, 1)]]


def evaluated(name: str) -> Evaluation[Job]:
    return plan_for(JOBS[name]() if name in JOBS else with_names_recorded(sample(name)))


def cable_of(cores: int, mm2: float = 1.0, *, earth: bool = False) -> Cable:
    made = [
        Core(str(n + 1), str(n), f"X1:{n}", f"B1:{n}", PinRef(DeviceId("x"), "f"), PinRef(DeviceId("b"), str(n)), mm2)
        for n in range(cores)
    ]
    if earth:
        made[-1] = Core(
            EARTH_CORE, "PE", "X1:PE", "B1:PE", PinRef(DeviceId("x"), "f"), PinRef(DeviceId("b"), "PE"), mm2
        )
    return Cable("WB1", DeviceId("b"), "B1 float", mm2, tuple(made), 12.0)


@pytest.mark.parametrize(
    ("used", "sold"), [(1, 1), (2, 2), (5, 5), (6, 7), (7, 7), (8, 12), (13, 18), (19, 25), (26, 34), (40, 40)]
)
def test_cables_have_as_many_cores_as_are_sold(used: int, sold: int) -> None:
    """Common practice, no source: control cables with 2, 3, 4, 5, 7, 12, 18, 25 and 34 cores."""
    assert cores_sold(used) == sold
    cable = cable_of(used)
    assert (cable.sold, cable.spare) == (sold, sold - used)
    assert cable.make_up == f"{sold} × 1 mm²"


def test_a_spare_core_is_counted_in_the_make_up_and_makes_the_cable_thicker() -> None:
    cable = cable_of(6, 1.5, earth=True)
    assert cable.make_up == "7 G 1.5 mm²"
    assert cable.spare == 1
    assert cable_diameter(cable.sold, 1.5) >= cable_diameter(6, 1.5)
    american = cable_of(6, 2.08, earth=True)  # 14 AWG in conduit: single conductors, none of them spare
    assert american.spare == 0
    assert american.make_up == "6 G 14 AWG"


@pytest.mark.parametrize("name", NAMES_)
def test_every_field_device_that_is_wired_has_its_cable_and_every_core_both_its_ends(name: str) -> None:
    """The pins are read from nets and circuits: a field pin on a net that reaches the panel has a core, once."""
    evaluation = evaluated(name)
    rows = schedule("cables", evaluation).rows
    columns = [key for key, _ in schedule("cables", evaluation).columns]
    devices, of_pin = evaluation.get(CIRCUITS).by_id, evaluation.get(NETS).of_pin
    landed = Counter(end for row in rows for end in re.findall(r" to (\S+?)(?:;|$)", str(row[columns.index("lands")])))
    assert all(count == 1 for count in landed.values()), "no field end twice"
    assert len({row[0] for row in rows}) == len(rows), "no tag twice"
    for row in rows:
        device = devices[DeviceId(str(row[columns.index("key")]).partition(":")[2])]
        wired = {of_pin[device.pin(pin.name)].id for pin in device.kind.pins if device.pin(pin.name) in of_pin}
        if row[columns.index("cores")]:
            assert row[columns.index("cores")] == len(wired), device.id
    entries = {entry.cable for entry in evaluation.get(ENTRIES).entries}
    # On a network the first cable comes in, the next run from thing to thing outside.
    cored = {row[0] for row in rows if row[columns.index("cores")]}
    ready_made = {row[0] for row in rows if row[columns.index("make_up")] == "network cable"}
    assert cored <= entries
    assert entries - cored <= ready_made
    assert len(entries - cored) == (1 if ready_made else 0)


@pytest.mark.parametrize("name", NAMES_)
def test_conductors_of_a_route_are_as_many_as_its_sizes_say_and_those_of_the_door_are_its_wires(name: str) -> None:
    evaluation = evaluated(name)
    rows = schedule("routes", evaluation).rows
    devices = evaluation.get(CIRCUITS).by_id
    cables = {cable.to: cable for cable in evaluation.get(STRIPS).cables}
    crossing = sum(
        (devices[w.start.pin.device].zone is Zone.DOOR) != (devices[w.end.pin.device].zone is Zone.DOOR)
        for w in evaluation.get(WIRING).wires
    )
    assert rows
    for to, conductors, _, _, sizes, spare, _ in rows:
        counted = sum(int(count) for count in re.findall(r"(\d+) × ", str(sizes)))
        by_colour = sum(int(count) for count in re.findall(r"[(,] ?(\d+) ", str(sizes)))
        assert counted == by_colour, to
        if to == "the door":
            assert counted == crossing
        elif str(to) in cables and cables[str(to)].cores:
            assert counted == len(cables[str(to)].cores)
            assert spare == cables[str(to)].spare
            assert counted == conductors, to


@pytest.mark.parametrize(
    ("mm2", "flexible", "words"),
    [
        (0.75, True, "H05V-K, class 5"),
        (1.0, True, "H05V-K, class 5"),
        (1.5, True, "H07V-K, class 5"),
        (16.0, False, "H07V-R, class 2"),
        (1.0, False, "PVC, class 2"),
        (2.08, True, "MTW, flexible"),
        (2.08, False, "MTW, stranded"),
    ],
)
def test_a_conductor_is_called_as_it_is_bought(mm2: float, flexible: bool, words: str) -> None:
    """EN 50525-2-31 codes, IEC 60228 classes, NFPA 79 12.3.1 MTW: all from memory."""
    assert conductor_type(mm2, flexible=flexible) == words


def test_the_type_follows_the_practice_on_the_wire_list_and_the_parts_list() -> None:
    for style, made in ((EndStyle.FERRULES, "class 5"), (EndStyle.CRIMPS, "class 2")):
        evaluation = plan_for(with_names_recorded(set_practice(wash_drum(), ends=style)))
        wires = schedule("wires", evaluation)
        at = [key for key, _ in wires.columns].index("type")
        assert {str(row[at]).rpartition(", ")[2] for row in wires.rows} == {made}
        bought = [
            str(row[1]) for row in schedule("bom", evaluation).rows if row[3] == "m" and " wire " in f" {row[1]} "
        ]
        assert bought
        assert all(text.endswith(made) for text in bought)
