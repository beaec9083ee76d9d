"""What the builder can do to a circuit: every act in its place, exact undo, clashes with a choice, spares."""

from collections.abc import Callable

import pytest

from riktig.core.catalogue import AUX_BLOCK
from riktig.core.errors import RiktigError
from riktig.core.job import (
    Act,
    CircuitId,
    DeviceId,
    ElementId,
    Insertable,
    Job,
    OwnDevice,
    OwnRung,
    Recipe,
    change_load,
)
from riktig.core.rules import RULES
from riktig.core.rules.quick_fixes import apply_mend
from riktig.core.schematic import (
    CIRCUITS,
    FAULTS,
    NAMES,
    NETS,
    SHEETS,
    Insertion,
    add_circuit,
    add_device,
    add_rung,
    elements_of,
    free_contacts,
    insert_contact,
    insert_element,
    move_element,
    name_element,
    named_nodes,
    reapply_change,
    remove_circuit,
    remove_element,
    rename,
    renumber,
    rewire,
    set_param,
    take_back,
    with_names_recorded,
)
from tests.core.schematic.builders import START, STOP, one_motor
from tests.core.schematic.samples import sample
from tests.shared_plan import plan_for

RUN = ["c1.FO/95-96", "c1.S.stop/1-2", "c1.S.start/3-4", "c1.K/13-14", "c1.K/A1-A2"]
LAMP = ElementId("c1.H.run/X1-X2")


def run_path(job: Job, rung: str = "run") -> list[str]:
    found = next(r for r in plan_for(job).get(CIRCUITS).rungs if r.id == f"c1.{rung}")
    return [e.id for e in elements_of(found.path)]


PLACES = {
    Act.AFTER: [*RUN[:2], "c1.x1/1-2", *RUN[2:]],
    Act.BEFORE: [RUN[0], "c1.x1/1-2", *RUN[1:]],
    Act.ACROSS: [*RUN[:2], "c1.x1/1-2", *RUN[2:]],
    Act.INSTEAD: [RUN[0], "c1.x1/1-2", *RUN[2:]],
}


@pytest.mark.parametrize("act", PLACES)
def test_it_goes_in_where_it_was_asked_for(act: Act) -> None:
    job = with_names_recorded(
        insert_element(one_motor(), STOP, Insertion(Insertable.STOP_BUTTON, "stop at the bay", act))
    )
    assert run_path(job) == PLACES[act]
    parallel = any("Parallel" in type(p).__name__ for p in plan_for(job).get(CIRCUITS).rungs[-3].path.parts[1:2])
    assert parallel is (act is Act.ACROSS)


@pytest.mark.parametrize("what", [one for one in Insertable if one is not Insertable.CONTACT])
def test_everything_that_may_be_put_in_is_drawn_tagged_and_labelled(what: Insertable) -> None:
    job = with_names_recorded(insert_element(one_motor(), STOP, Insertion(what, "for a reason")))
    evaluation = plan_for(job)
    device = next(d for d in evaluation.get(CIRCUITS).devices if d.id == "c1.x1")
    assert device.purpose == "for a reason"
    assert (device.legend != "") is (device.zone.value == "door")
    assert evaluation.get(NAMES).tag[device.id]
    assert any(element.startswith("c1.x1/") for element in evaluation.get(SHEETS).places)
    terminals = [d for d in evaluation.get(CIRCUITS).devices if d.id.startswith("c1.x1.X")]
    assert len(terminals) == (2 if device.zone.value == "field" else 0)


EDITS: dict[str, Callable[[Job], Job]] = {
    "put in": lambda job: insert_element(job, STOP, Insertion(Insertable.STOP_BUTTON, "again")),
    "across": lambda job: insert_contact(job, START, Insertable.START_BUTTON, "again", parallel=True),
    "taken out": lambda job: remove_element(job, START),
    "moved": lambda job: move_element(job, STOP, START),
    "rewired": lambda job: rewire(job, LAMP, "main.L2", start=True),
    "named": lambda job: name_element(job, LAMP, "drum turns"),
    "renamed": lambda job: rename(job, DeviceId("c1.K"), "K77"),
    "spare": lambda job: insert_element(job, STOP, Insertion(Insertable.CONTACT, "", to="c1.K:21-22")),
    "device": lambda job: add_device(job, CircuitId("c1"), OwnDevice("K.more", "relay", "plate", "more")),
    "rung": lambda job: add_rung(
        add_device(job, CircuitId("c1"), OwnDevice("H.two", "lamp", "door", "two", "TWO")),
        CircuitId("c1"),
        OwnRung("own1", "second lamp", "c1.control", "K:31-32 H.two:X1-X2", "N"),
    ),
    "circuit": lambda job: add_circuit(job, Recipe.LEVEL_ALARM, "settling tank"),
    "parameter": lambda job: set_param(job, CircuitId("c1"), "status to the controller", "yes"),
    "renumbered": lambda job: renumber(remove_element(job, START)),
}


@pytest.mark.parametrize("name", EDITS)
def test_undo_is_exact_and_numbers_hold(name: str) -> None:
    """The job before is the very object it was, and what it derives is as if nothing had been."""
    before = one_motor()
    evaluation = plan_for(before)
    drawn = (evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.get(NAMES), evaluation.get(SHEETS))
    after = with_names_recorded(EDITS[name](before))
    assert after != before
    evaluation.move_to(after)
    changed = evaluation.get(NAMES)
    evaluation.move_to(before)
    assert (evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.get(NAMES), evaluation.get(SHEETS)) == drawn
    if name not in ("renumbered", "renamed"):
        kept = {net: n for net, n in drawn[2].number.items() if net in changed.number}
        moved = [net for net, n in kept.items() if changed.number[net] != n]
        assert len(moved) <= 1, "an edit keeps every number it can"
        assert {d: t for d, t in drawn[2].tag.items() if d in changed.tag}.items() <= changed.tag.items()


def test_an_element_moves_into_another_rung_of_its_circuit() -> None:
    job = with_names_recorded(move_element(one_motor(), STOP, ElementId("c1.K/43-44")))
    assert run_path(job) == [RUN[0], *RUN[2:]]
    assert run_path(job, "lamp") == ["c1.K/43-44", STOP, LAMP]


def test_a_rung_is_wired_to_another_named_potential_at_either_end() -> None:
    nodes = named_nodes(one_motor())
    assert {"main.L2", "c1.control", "N"} <= set(nodes)
    job = with_names_recorded(rewire(rewire(one_motor(), LAMP, "main.L2", start=True), LAMP, "c1.control", start=False))
    rung = next(r for r in plan_for(job).get(CIRCUITS).rungs if r.id == "c1.lamp")
    assert (rung.start, rung.end) == (("main.L2",), ("c1.control",))


def test_spares_are_offered_first_and_then_those_of_an_auxiliary_block() -> None:
    job = one_motor()
    offered = dict(free_contacts(job))
    assert "c1.K:21-22" in offered
    assert "opening" in offered["c1.K:21-22"]
    assert offered["c1.K:53-54"].endswith("closing, with an auxiliary block")
    job = with_names_recorded(insert_element(job, STOP, Insertion(Insertable.CONTACT, "", to="c1.K:53-54")))
    contactor = next(d for d in plan_for(job).get(CIRCUITS).devices if d.id == "c1.K")
    assert contactor.kind_id == "contactor" + AUX_BLOCK
    assert "c1.K/53-54" in run_path(job)
    assert "c1.K:53-54" not in dict(free_contacts(job))


def test_a_contact_of_a_device_in_another_circuit_brings_its_block_there() -> None:
    from riktig.core.job import add_load

    job = with_names_recorded(add_load(one_motor(), "rinse pump", 1.5))
    job = with_names_recorded(insert_element(job, STOP, Insertion(Insertable.CONTACT, "", to="c2.K:61-62")))
    devices = plan_for(job).get(CIRCUITS).by_id
    assert devices[DeviceId("c2.K")].kind.block
    assert not devices[DeviceId("c1.K")].kind.block
    assert plan_for(job).get(FAULTS) == ()


def test_names_become_legends_and_reach_the_labels() -> None:
    job = with_names_recorded(name_element(one_motor(), LAMP, "drum turns"))
    lamp = next(d for d in plan_for(job).get(CIRCUITS).devices if d.id == "c1.H.run")
    assert (lamp.purpose, lamp.legend) == ("drum turns", "drum turns")


def test_a_parameter_changed_afterwards_keeps_the_changes() -> None:
    job = sample("both ways")
    circuit = job.circuits[-1].id
    job = with_names_recorded(
        insert_element(job, ElementId(f"{circuit}.S.stop/1-2"), Insertion(Insertable.KEY_SWITCH, "locked"))
    )
    job = with_names_recorded(set_param(job, circuit, "mechanical interlock", "no"))
    circuits = plan_for(job).get(CIRCUITS)
    assert circuits.clashes == ()
    assert any(d.id == f"{circuit}.x1" for d in circuits.devices)
    assert not any(d.kind_id == "interlock_block" for d in circuits.devices)


def test_a_clash_is_a_finding_with_a_choice_take_it_back_or_make_it_elsewhere() -> None:
    job = with_names_recorded(insert_element(one_motor(), LAMP, Insertion(Insertable.LAMP, "beside it", Act.ACROSS)))
    gone = with_names_recorded(change_load(job, job.loads[0].id, run_lamp=False))
    clash = plan_for(gone).get(CIRCUITS).clashes[0]
    assert clash.change is not None
    assert "beside it" in clash.text
    finding = next(f for r in plan_for(gone).get(RULES) if r.code == "C01" for f in r.findings if f.quick_fix)
    assert "beside it" in finding.message
    assert finding.quick_fix is not None
    assert plan_for(apply_mend(gone, finding.quick_fix)).get(CIRCUITS).clashes == ()
    assert plan_for(take_back(gone, clash.circuit, clash.change)).get(CIRCUITS).clashes == ()
    there = with_names_recorded(reapply_change(gone, clash.circuit, clash.change, ElementId("c1.H.trip/X1-X2")))
    assert plan_for(there).get(CIRCUITS).clashes == ()
    assert "c1.x1/X1-X2" in run_path(there, "trip")
    back = with_names_recorded(change_load(gone, job.loads[0].id, run_lamp=True))
    assert plan_for(back).get(CIRCUITS).clashes == (), "with its hold the change is back"


REFUSED: dict[str, tuple[Callable[[Job], Job], str]] = {
    "moved onto itself": (lambda job: move_element(job, STOP, STOP), "within its own circuit"),
    "unknown potential": (lambda job: rewire(job, STOP, "nowhere", start=True), "no potential called"),
    "no purpose": (lambda job: name_element(job, STOP, "  "), "without a purpose"),
    "contact in use": (
        lambda job: insert_element(job, STOP, Insertion(Insertable.CONTACT, "", to="c1.K:13-14")),
        "not a free contact",
    ),
    "power path": (lambda job: remove_element(job, ElementId("c1.K/1-2")), "not in a control path"),
    "device twice": (lambda job: add_device(job, CircuitId("c1"), OwnDevice("K", "relay", "plate")), "there already"),
    "unknown kind": (lambda job: add_device(job, CircuitId("c1"), OwnDevice("Z", "zebra", "plate")), "no kind"),
    "unknown place": (lambda job: add_device(job, CircuitId("c1"), OwnDevice("Z", "relay", "roof")), "not a place"),
    "path unread": (
        lambda job: add_rung(job, CircuitId("c1"), OwnRung("r", "r", "c1.control", "K9:1-2", "N")),
        "no device “K9”",
    ),
    "circuit of the Brief": (lambda job: remove_circuit(job, CircuitId("c1")), "follows from the Brief"),
    "no such circuit": (lambda job: set_param(job, CircuitId("c77"), "x", "y"), "no circuit c77"),
    "tag taken": (lambda job: rename(job, DeviceId("c1.K"), "Q1"), "already the tag"),
    "tag with a space": (lambda job: rename(job, DeviceId("c1.K"), "K 1"), "cannot be a tag"),
}


@pytest.mark.parametrize("name", REFUSED)
def test_what_cannot_be_is_refused_with_words(name: str) -> None:
    edit, words = REFUSED[name]
    with pytest.raises(RiktigError, match=words) as caught:
        edit(one_motor())
    assert caught.value.hint


def test_a_circuit_added_goes_again_without_a_trace() -> None:
    before = one_motor()
    job = with_names_recorded(add_circuit(before, Recipe.SURGE))
    circuit = job.circuits[-1].id
    assert any(circuit in sheet.circuits for sheet in plan_for(job).get(SHEETS).sheets)
    back = remove_circuit(job, circuit)
    assert back.circuits == before.circuits
    assert plan_for(back).get(CIRCUITS) == plan_for(before).get(CIRCUITS)
