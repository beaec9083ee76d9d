"""Who may do what at the bench, and who is meant by initials, a badge or a name."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import RemovePerson, SetPerson
from riktig.core.errors import RiktigError
from riktig.core.job import InspectedBy, Job, Person, Practice
from riktig.core.production import BuildStage, may_not, may_not_sign, person_called
from riktig.core.records import GatePassed, Record, TakenBack, TaskDone, WireDone
from riktig.demo_job import frost_fan

IDA = Person("IV", "Ida Vik", "B-1", builds=True, inspects=True)
OLA = Person("OS", "Ola Sand", "B-2", builds=True)
EVA = Person("EH", "Eva Holm", "B-3", builds=False, inspects=True)
ALL = (IDA, OLA, EVA)
ANOTHER, ANYONE = Practice(), Practice(inspected_by=InspectedBy.ANYONE)
TICK = Record("r1", "a~b", WireDone(), "ida  vik", "t", 1)


@pytest.mark.parametrize("said", ["IV", "iv", "B-1", "Ida Vik", "IDA VIK", " iv "])
def test_initials_badge_and_name_mean_the_same_person(said: str) -> None:
    assert person_called(ALL, said) is IDA


@pytest.mark.parametrize("said", ["", "  ", "X", "b-9", "Ida"])
def test_nobody_is_meant_by_anything_else(said: str) -> None:
    assert person_called(ALL, said) is None


@pytest.mark.parametrize(
    ("who", "stage", "practice", "log", "why"),
    [
        ("Ola Sand", BuildStage.WIRES, ANOTHER, (), ""),
        ("Ola Sand", BuildStage.INSPECTION, ANOTHER, (), "Ola Sand may not inspect"),
        ("Eva Holm", BuildStage.WIRES, ANOTHER, (), "Eva Holm may not build"),
        ("Eva Holm", BuildStage.INSPECTION, ANOTHER, (TICK,), ""),
        ("Ida Vik", BuildStage.INSPECTION, ANOTHER, (), ""),
        ("Ida Vik", BuildStage.INSPECTION, ANOTHER, (TICK,), "Ida Vik built part of it"),
        ("Ida Vik", BuildStage.INSPECTION, ANYONE, (TICK,), ""),
        ("Nils", BuildStage.WIRES, ANOTHER, (), "Nils is not among the people"),
        (" ", BuildStage.WIRES, ANOTHER, (), "nobody is at the bench"),
    ],
)
def test_who_may_do_what(who: str, stage: BuildStage, practice: Practice, log: tuple[Record, ...], why: str) -> None:
    refused = may_not(who, stage, ALL, practice, log)
    assert refused.startswith(why)
    assert bool(refused) is bool(why)


@pytest.mark.parametrize(
    ("who", "people", "why"),
    [
        ("Ida Vik", (), ""),
        ("", (), "nobody has said who signs"),
        ("Ida Vik", ALL, "Ida Vik may not sign"),
        ("Nils", ALL, "Nils is not among the people"),
        ("Siv Dal", (*ALL, Person("SD", "Siv Dal", builds=False, signs=True)), ""),
    ],
)
def test_who_may_sign(who: str, people: tuple[Person, ...], why: str) -> None:
    assert may_not_sign(who, people).startswith(why)
    assert bool(may_not_sign(who, people)) is bool(why)


def test_without_people_anybody_builds_but_nobody_inspects_his_own_work() -> None:
    assert may_not("Nils", BuildStage.WIRES, (), ANOTHER, ()) == ""
    assert "somebody else inspects it" in may_not("Ida Vik", BuildStage.INSPECTION, (), ANOTHER, (TICK,))
    assert may_not("Nils", BuildStage.INSPECTION, (), ANOTHER, (TICK,)) == ""


def test_what_was_taken_back_a_gate_and_an_inspection_are_no_building() -> None:
    gone = Record("r2", "a~b", TakenBack("cut"), "Ida Vik", "t", 1, "r1")
    gate = Record("r3", "gate:wires", GatePassed("Wires", "late", "x"), "Ida Vik", "t", 1)
    look = Record("r4", "task:look 11.2", TaskDone(BuildStage.INSPECTION.value, "seals"), "Ida Vik", "t", 1)
    assert may_not("Ida Vik", BuildStage.INSPECTION, ALL, ANOTHER, (TICK, gone, gate, look)) == ""
    built = Record("r5", "task:lid D1", TaskDone(BuildStage.COVERS.value, "Lid of D1"), "Ida Vik", "t", 1)
    assert "built part of it" in may_not("Ida Vik", BuildStage.INSPECTION, ALL, ANOTHER, (built,))


def with_people(*people: Person) -> Job:
    job = frost_fan()
    for person in people:
        job = SetPerson(person).apply(plan_for(job))
    return job


def test_a_person_is_changed_by_his_initials_and_taken_out() -> None:
    job = with_people(IDA, OLA, Person("iv", "Ida Vik-Holm", "B-1"))
    assert [person.name for person in job.people] == ["Ola Sand", "Ida Vik-Holm"]
    assert RemovePerson("OS").apply(plan_for(job)).people == (Person("iv", "Ida Vik-Holm", "B-1"),)
    with pytest.raises(RiktigError, match="initials"):
        RemovePerson("XX").apply(plan_for(job))


def test_two_people_have_neither_one_badge_nor_one_name() -> None:
    evaluation = plan_for(with_people(IDA))
    with pytest.raises(RiktigError, match="badge"):
        SetPerson(Person("X", "Xaver", "B-1")).apply(evaluation)
    with pytest.raises(RiktigError, match="already"):
        SetPerson(Person("X", "IDA VIK", "")).apply(evaluation)


@pytest.mark.parametrize(("initials", "name"), [("", "Ida"), ("I V", "Ida"), ("ABCDEFGHI", "Ida"), ("IV", " ")])
def test_initials_are_one_short_word_and_a_name_is_said(initials: str, name: str) -> None:
    with pytest.raises(ValueError, match=r"initials|name"):
        Person(initials, name)
