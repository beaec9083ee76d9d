"""Field cables planned by hand or shared by practice: no core is lost, none is called twice, power stays apart."""

from collections import Counter
from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import DropCable, Edit, PlanCable, RemoveLoad, SetPractice
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.holes import ENTRIES
from riktig.core.ids import DeviceId, LoadId, PinRef
from riktig.core.job import FieldCables, Job, OwnCable
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, NETS, with_names_recorded
from riktig.core.store import dump_job, load_job
from riktig.core.terminals import EARTH_CORE, STRIPS, Cable
from riktig.demo_job import frost_fan, kelp_shed

FLOATS = tuple(DeviceId(f"c4.B.{name}") for name in ("stop", "start", "alarm"))


@pytest.fixture
def evaluation() -> Evaluation[Job]:
    return plan_for(kelp_shed())


def done(evaluation: Evaluation[Job], *edits: Edit) -> Evaluation[Job]:
    for edit in edits:
        evaluation = plan_for(with_names_recorded(edit.apply(evaluation)))
    return evaluation


def cable_to(evaluation: Evaluation[Job], device: DeviceId) -> Cable:
    (cable,) = [cable for cable in evaluation.get(STRIPS).cables if device in cable.devices]
    return cable


def landings(evaluation: Evaluation[Job]) -> dict[PinRef, PinRef]:
    """By the pin in the field, where its core lands in the panel."""
    cores = [core for cable in evaluation.get(STRIPS).cables for core in cable.cores]
    assert len({core.field_pin for core in cores}) == len(cores)
    return {core.field_pin: core.panel_pin for core in cores}


def sound(evaluation: Evaluation[Job], before: Evaluation[Job]) -> None:
    assert landings(evaluation) == landings(before), "a core is never lost and lands where it did"
    for cable in evaluation.get(STRIPS).cables:
        names = Counter(core.name for core in cable.cores if core.name != EARTH_CORE)
        assert not [name for name, count in names.items() if count > 1], cable.tag
        assert cable.sold >= len(cable.cores)
    entries = Counter(entry.cable for entry in evaluation.get(ENTRIES).entries)
    assert entries == Counter(cable.tag for cable in evaluation.get(STRIPS).cables if cable.enters)
    for code in ("W04", "W06"):
        now, then = ([r for r in of.get(RULES) if r.code == code] for of in (evaluation, before))
        assert [r.verdict for r in now] == [r.verdict for r in then]


def test_three_floats_share_one_cable_with_spare_cores(evaluation: Evaluation[Job]) -> None:
    after = done(evaluation, PlanCable(OwnCable(FLOATS, bought=8)))
    cable = cable_to(after, FLOATS[0])
    assert cable.devices == FLOATS
    assert [core.name for core in cable.cores] == ["1", "2", "3", "4", "5", "6"]
    assert (cable.sold, cable.spare, cable.make_up) == (8, 2, "8 × 1 mm²")
    assert len(after.get(STRIPS).cables) == len(evaluation.get(STRIPS).cables) - 2
    assert len(after.get(ENTRIES).entries) == len(evaluation.get(ENTRIES).entries) - 2, "one gland for the three"
    sound(after, evaluation)
    (row,) = [row for row in schedule("cables", after).as_dicts() if row["cable"] == cable.tag]
    assert (row["cores"], row["spare"]) == (6, 2)
    routes = {str(row["to"]): row for row in schedule("routes", after).as_dicts()}
    three = [row for to, row in routes.items() if "float" in to]
    assert [row["conductors"] for row in three] == [2, 2, 2]
    back = done(after, DropCable(FLOATS[1]))
    assert back.document.cables == ()
    sound(back, evaluation)


def test_a_core_is_called_as_he_says_and_the_others_make_way(evaluation: Evaluation[Job]) -> None:
    plan = OwnCable(FLOATS[:2], ((f"{FLOATS[0]}:1", "4"), (f"{FLOATS[1]}:1", "1")))
    after = done(evaluation, PlanCable(plan))
    names = {str(core.field_pin): core.name for core in cable_to(after, FLOATS[0]).cores}
    assert names[f"{FLOATS[0]}:1"] == "4"
    assert names[f"{FLOATS[1]}:1"] == "1"
    assert set(names.values()) == {"1", "2", "3", "4"}
    sound(after, evaluation)
    listed = {row["mark"]: row["core"] for row in schedule("terminals", after).as_dicts() if row["strip"] == "X6"}
    assert listed["1"] == "4", "the terminal schedule has the same"


def test_a_motor_cable_keeps_its_own_with_other_colours(evaluation: Evaluation[Job]) -> None:
    motor = DeviceId("c2.M")
    plan = OwnCable((motor,), ((f"{motor}:U1", "black"), (f"{motor}:V1", "brown")))
    after = done(evaluation, PlanCable(plan))
    names = {core.field_pin.marking: core.name for core in cable_to(after, motor).cores}
    assert (names["U1"], names["V1"], names["PE"]) == ("black", "brown", EARTH_CORE)
    sound(after, evaluation)


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["kelp shed", "frost fan"])
def test_by_practice_what_a_circuit_has_in_the_field_shares_a_control_cable(job: Job) -> None:
    before = plan_for(job)
    after = done(before, SetPractice({"field_cables": FieldCables.SHARED}))
    sound(after, before)
    circuit_of = {device.id: device.circuit for device in after.get(CIRCUITS).devices}
    control = [
        cable
        for cable in after.get(STRIPS).cables
        if cable.cores and all(core.name.isdecimal() for core in cable.cores)
    ]
    owners = Counter(circuit_of[cable.device] for cable in control if not cable.is_supply)
    assert owners
    assert set(owners.values()) == {1}
    for cable in control:
        assert {circuit_of[device] for device in cable.devices} == {circuit_of[cable.device]}


def test_what_he_planned_goes_before_the_practice_and_survives_the_file(evaluation: Evaluation[Job]) -> None:
    after = done(evaluation, PlanCable(OwnCable(FLOATS[:1])), SetPractice({"field_cables": FieldCables.SHARED}))
    assert cable_to(after, FLOATS[0]).devices == FLOATS[:1]
    assert cable_to(after, FLOATS[1]).devices == FLOATS[1:]
    assert load_job(dump_job(after.document)) == after.document
    gone = done(after, RemoveLoad(LoadId("m4")))
    assert not [cable for cable in gone.get(STRIPS).cables if set(cable.devices) & set(FLOATS)]


@pytest.mark.parametrize(
    ("plan", "words"),
    [
        (OwnCable((FLOATS[0], DeviceId("c4.M"))), "Only control cables"),
        (OwnCable((FLOATS[0], DeviceId("c4.K"))), "No cable goes to"),
        (OwnCable(FLOATS[:1], (("c4.B.start:1", "1"),)), "No core of that cable"),
        (OwnCable(FLOATS, bought=4), "6 cores are used"),
    ],
    ids=["power", "no cable", "another's pin", "too few cores"],
)
def test_a_cable_that_cannot_be_is_refused(evaluation: Evaluation[Job], plan: OwnCable, words: str) -> None:
    with pytest.raises(RiktigError, match=words):
        PlanCable(plan).apply(evaluation)


def test_what_is_fed_otherwise_shares_no_sheath(evaluation: Evaluation[Job]) -> None:
    """The contact of the fire alarm is live with the main switch off; the photocell has 24 V, the floats 230 V."""
    foreign, photocell = DeviceId("c1.KF1.W"), DeviceId("s4.B1")
    for other in (foreign, photocell):
        with pytest.raises(RiktigError, match="carry different circuits"):
            PlanCable(OwnCable((FLOATS[0], other))).apply(evaluation)
    written = replace(evaluation.document, cables=(OwnCable((FLOATS[0], foreign)),))
    apart = plan_for(written)
    assert cable_to(apart, foreign).devices == (foreign,), "not even where a file says so"
    sound(apart, evaluation)
    shared = done(evaluation, SetPractice({"field_cables": FieldCables.SHARED}))
    of_pin = shared.get(NETS).of_pin
    for cable in shared.get(STRIPS).cables:
        if cable.others:
            assert len({of_pin[core.field_pin].net_class for core in cable.cores}) == 1


@pytest.mark.parametrize(
    ("devices", "cores", "bought"),
    [((), (), 0), (("a", "a"), (), 0), (("a",), (("a:1", "1"), ("a:2", "1")), 0), (("a",), (), -1)],
    ids=["nowhere", "twice", "one core twice", "less than none"],
)
def test_a_plan_that_cannot_be_is_refused(
    devices: tuple[str, ...], cores: tuple[tuple[str, str], ...], bought: int
) -> None:
    with pytest.raises(ValueError, match="cable"):
        OwnCable(tuple(DeviceId(device) for device in devices), cores, bought)
