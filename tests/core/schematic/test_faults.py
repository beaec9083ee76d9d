"""Faults of the circuits: each is found on a panel made to have it, not on the sound one, and says the remedy."""

from collections.abc import Callable
from dataclasses import replace

import pytest

from riktig.core.catalogue import Behaviour, kinds
from riktig.core.job import Act, ElementId, Insertable, Job, OwnDevice, OwnRung
from riktig.core.keys import read_key
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import (
    CIRCUITS,
    FAULTS,
    NAMES,
    NETS,
    CircuitFault,
    Circuits,
    Element,
    Insertion,
    Parallel,
    Series,
    add_written,
    find_nets,
    insert_element,
    move_element,
    name_element,
    remove_element,
    rewire,
    with_names_recorded,
)
from riktig.core.schematic.faults.find import find_faults
from tests.core.schematic.builders import COIL, START, STOP, one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.shared_plan import plan_for


def own(*rungs: tuple[str, str, str], devices: tuple[OwnDevice, ...] = ()) -> Job:
    """The wash drum with rungs of one's own: from, path, to."""
    given = (OwnDevice("K", "relay", "plate", "own"), OwnDevice("H", "lamp", "door", "own", "OWN"), *devices)
    used = tuple(d for d in given if any(f"{d.role}:" in path for _, path, _ in rungs))
    return with_names_recorded(
        add_written(
            one_motor(), "own", used, [OwnRung(f"r{n}", f"own {n}", a, p, b) for n, (a, p, b) in enumerate(rungs)]
        )
    )


def unnamed(job: Job) -> Job:
    return with_names_recorded(name_element(job, ElementId("c1.H.run/X1-X2"), "-"))


BROKEN: dict[str, Callable[[], Job]] = {
    "contact without coil": lambda: with_names_recorded(remove_element(one_motor(), COIL)),
    "coil without contact": lambda: own(("c1.control", "K:A1-A2", "N")),
    "short": lambda: own(("c1.control", "K:13-14", "N"), ("c1.control", "K:A1-A2", "N")),
    "loop": lambda: own(("c1.control", "K:13-14", "c1.control"), ("c1.control", "K:A1-A2", "N")),
    "no supply": lambda: own(("a", "K:13-14 H:X1-X2", "b"), ("b", "K:21-22", "a"), ("c1.control", "K:A1-A2", "N")),
    "load without return": lambda: own(("c1.control", "K:13-14 H:X1-X2", "nowhere"), ("c1.control", "K:A1-A2", "N")),
    "path ends nowhere": lambda: own(("c1.control", "K:13-14 H:X1-X2", "nowhere"), ("c1.control", "K:A1-A2", "N")),
    "interlock bypassed": lambda: with_names_recorded(
        move_element(
            sample("both ways"),
            ElementId(f"{sample('both ways').circuits[-1].id}.KR/21-22"),
            ElementId(f"{sample('both ways').circuits[-1].id}.S.start/3-4"),
        )
    ),
    "two sources on one net": lambda: own(
        ("N", "T1:P-M", "zero"), ("N", "T2:P-M", "zero2"), ("zero", "K:A1-A2", "zero2"), ("zero", "K:13-14", "zero2"),
        devices=(OwnDevice("T1", "dc_supply", "plate", "one"), OwnDevice("T2", "dc_supply", "plate", "two")),
    ),
}  # fmt: skip


def kinds_of(job: Job) -> set[str]:
    return {fault.kind for fault in plan_for(job).get(FAULTS)}


@pytest.mark.parametrize("kind", BROKEN)
def test_it_is_found_where_it_is_and_says_what_mends_it(kind: str) -> None:
    assert kind not in kinds_of(one_motor())
    job = BROKEN[kind]()
    evaluation = plan_for(job)
    found = [fault for fault in evaluation.get(FAULTS) if fault.kind == kind]
    assert found
    devices = {device.id for device in evaluation.get(CIRCUITS).devices}
    for fault in found:
        assert fault.remedy.endswith(".")
        assert str(fault.where).partition(":")[0] in ("device", "element", "net")
        owner = str(fault.where).partition(":")[2].split("/")[0]
        assert owner in devices or owner.rsplit(":", 1)[0] in devices, "a click leads somewhere"
    assert "{" not in "".join(f.message for r in evaluation.get(RULES) for f in r.findings), (
        "devices are called by their tags"
    )
    codes = {r.code for r in evaluation.get(RULES) if r.verdict is not Verdict.MEETS}
    assert codes & {"C01", "C04", "C05", "C06", "C07", "C08"}


def with_rungs(job: Job, change: Callable[[Circuits], Circuits]) -> tuple[CircuitFault, ...]:
    circuits = change(plan_for(job).get(CIRCUITS))
    return find_faults(circuits, find_nets(circuits))


def test_a_contact_drawn_twice_is_more_than_the_device_has() -> None:
    def doubled(circuits: Circuits) -> Circuits:
        run = next(r for r in circuits.rungs if r.id == "c1.run")
        return replace(circuits, rungs=(*circuits.rungs, replace(run, id="c1.again")))

    found = with_rungs(one_motor(), doubled)
    assert [f.kind for f in found].count("more contacts than the device has") > 3
    assert any("K} 13-14 is drawn 2 times" in f.text for f in found)


STRAIGHT = [((), "not exchanged at all"), ((0, 1, 2), "not exchanged at all"), ((1, 2, 0), "not exchanged at all")]


@pytest.mark.parametrize(("cross", "words"), STRAIGHT)
def test_phases_that_are_not_exchanged_once_are_found(cross: tuple[int, ...], words: str) -> None:
    """A turn of all three phases leaves the sense of rotation as it is: common practice, no source."""
    assert "turn the same way" in phase_fault(cross).text
    assert words in phase_fault(cross).text


def phase_fault(cross: tuple[int, ...], *, both: bool = False) -> CircuitFault:
    def straight(circuits: Circuits) -> Circuits:
        rungs = []
        for rung in circuits.rungs:
            parts = []
            for part in rung.path.parts:
                if isinstance(part, Parallel) and rung.id.endswith(".power"):
                    first, second = part.parts
                    assert isinstance(second, Element)
                    assert isinstance(first, Element)
                    second = replace(second, cross=cross)
                    first = replace(first, cross=cross) if both else first
                    part = Parallel((first, second))
                parts.append(part)
            rungs.append(replace(rung, path=Series(tuple(parts))))
        return replace(circuits, rungs=tuple(rungs))

    return next(f for f in with_rungs(sample("both ways"), straight) if f.kind == "phase exchange")


def test_phases_exchanged_by_both_contactors_are_found() -> None:
    assert "exchanged twice" in phase_fault((0, 2, 1), both=True).text


def test_a_monitor_fed_behind_the_contactor_it_lets_in_is_found() -> None:
    name = "main contactor, monitored"

    def behind(circuits: Circuits) -> Circuits:
        return replace(
            circuits,
            rungs=tuple(
                replace(r, start=("held.L1", "held.L2", "held.L3")) if r.id.endswith(".monitor") else r
                for r in circuits.rungs
            ),
        )

    assert not any(f.kind == "monitor downstream" for f in plan_for(sample(name)).get(FAULTS))
    assert any(f.kind == "monitor downstream" for f in with_rungs(sample(name), behind))


def test_a_lamp_of_which_nothing_says_what_it_means_is_found() -> None:
    def silent(circuits: Circuits) -> Circuits:
        return replace(
            circuits, devices=tuple(replace(d, purpose="") if d.kind_id == "lamp" else d for d in circuits.devices)
        )

    assert sum(f.kind == "lamp without meaning" for f in with_rungs(one_motor(), silent)) == 2


def test_a_load_fed_past_every_breaker_fails_its_clause() -> None:
    job = with_names_recorded(rewire(one_motor(), ElementId("c1.H.run/X1-X2"), "main.L1", start=True))
    result = next(r for r in plan_for(job).get(RULES) if r.code == "E04")
    assert result.verdict is Verdict.FAILS
    tag = plan_for(job).get(NAMES).tag
    lamp = next(t for d, t in tag.items() if d == "c1.H.run")
    assert any(f.message.startswith(lamp) and f.where == read_key("device:c1.H.run") for f in result.findings)


@pytest.mark.parametrize("kind", [k for k in kinds() if k.mounting.value != "field"], ids=lambda k: k.id)
def test_contact_numbers_follow_the_published_convention(kind: object) -> None:
    """Function digits: 1-2 open, 3-4 close, 5-6 open late, 7-8 close late; 95-96 and 97-98 of an overload.

    Source: IEC 60947-5-1 Annex L (EN 50005, EN 50011, EN 50012), from memory; main poles 1-2, 3-4, 5-6
    and coils A1-A2 by the same. A changeover contact has its common on ..1 and is used to ..4 or ..2.
    """
    ends = {Behaviour.NC: ({"1", "2"}, {"5", "6"}), Behaviour.NO: ({"3", "4"}, {"7", "8"}, {"1", "4"}, {"5", "8"})}
    for unit in kind.units:  # type: ignore[attr-defined]
        digits = [pin for pin in unit.pins if len(pin) == 2 and pin.isdigit()]
        if unit.behaviour in ends and len(digits) == 2 and unit.symbol != "contactor":
            assert {pin[1] for pin in digits} in ends[unit.behaviour], (unit.name, unit.behaviour)
            assert digits[0][0] == digits[1][0] or unit.name == "17-28", "both pins of a contact carry its place"
        if unit.behaviour is Behaviour.COIL:
            assert unit.pins == ("A1", "A2")


def test_a_contact_whose_numbers_say_otherwise_is_found(monkeypatch: pytest.MonkeyPatch) -> None:
    """A part of a careless catalogue: 13-14 that opens."""
    relay = next(k for k in kinds() if k.id == "relay")
    units = tuple(replace(u, behaviour=Behaviour.NC) if u.name == "13-14" else u for u in relay.units)
    wrong = replace(relay, units=units)
    job = own(("c1.control", "K:13-14 H:X1-X2", "N"), ("c1.control", "K:A1-A2", "N"))
    careless = {k.id: k for k in kinds()} | {"relay": wrong}
    monkeypatch.setattr("riktig.core.schematic.model.elements.kind", careless.__getitem__)
    circuits, nets = plan_for(job).get(CIRCUITS), plan_for(job).get(NETS)
    assert [f.kind for f in find_faults(circuits, nets)] == ["contact numbers"]


def test_a_spare_contact_put_to_use_brings_no_fault_and_a_second_use_is_refused() -> None:
    from riktig.core.errors import RiktigError

    job = insert_element(one_motor(), STOP, Insertion(Insertable.CONTACT, "", Act.AFTER, to="c1.K:21-22"))
    assert kinds_of(with_names_recorded(job)) == set()
    with pytest.raises(RiktigError, match="not a free contact"):
        insert_element(job, START, Insertion(Insertable.CONTACT, "", Act.AFTER, to="c1.K:21-22"))


@pytest.mark.parametrize("name", SAMPLES)
def test_faults_are_found_in_the_same_order_each_time(name: str) -> None:
    evaluation = plan_for(sample(name))
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    assert find_faults(circuits, nets) == find_faults(circuits, nets)
