"""Whatever is taken out of a circuit that matters is found: lamps, interlocks, fuses, a pole of a guard, an input."""

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.job import (
    CircuitId,
    Command,
    Direction,
    ElementId,
    Job,
    OwnDevice,
    OwnRung,
    Recipe,
    Rulebook,
    RunLamp,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    pick_part,
    set_practice,
)
from riktig.core.rules import RULES, ClauseResult, Finding, Verdict
from riktig.core.schematic import CIRCUITS, add_device, add_rung, remove_element, with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed


def clause(job: Job, code: str) -> ClauseResult:
    return next(r for r in plan_for(job).get(RULES) if r.code == code)


def fails_without(job: Job, element: str, code: str) -> list[Finding]:
    """What the clause fails once an element is taken out; before it, nothing."""
    job = with_names_recorded(job)
    assert not [f for f in clause(job, code).findings if f.verdict is Verdict.FAILS]
    cut = with_names_recorded(remove_element(job, ElementId(element)))
    return [f for f in clause(cut, code).findings if f.verdict is Verdict.FAILS]


def load(command: Command, start: Start = Start.DIRECT, **said: object) -> Job:
    return add_load(new_job("O", "out"), "pump", 2.2, command=command, start=start, **said)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("start", "command", "run", "trip"),
    [
        (Start.DIRECT, Command.BUTTONS, "c1.K/43-44", "c1.FO/97-98"),
        (Start.DIRECT, Command.LEVEL, "c1.K/43-44", "c1.FO/97-98"),
        (Start.REVERSING, Command.BOTH_WAYS, "c1.KR/43-44", "c1.FO/97-98"),
        (Start.STAR_DELTA, Command.BUTTONS, "c1.K/83-84", "c1.FO/97-98"),
        (Start.SOFT, Command.BUTTONS, "c1.U/13-14", "c1.U/97-98"),
        (Start.DRIVE, Command.BUTTONS, "c1.K/43-44", "c1.U/RC-RD"),
    ],
)
def test_a_lamp_that_no_longer_follows_its_starter_is_found(
    start: Start, command: Command, run: str, trip: str
) -> None:
    job = load(command, start)
    assert fails_without(job, run, "C11")
    assert fails_without(job, trip, "C11")


def test_the_run_lamp_of_a_drive_goes_out_when_the_drive_trips() -> None:
    """The controller asks on; the lamp must not say that it runs."""
    assert fails_without(load(Command.CONTROLLER, Start.DRIVE), "c1.U/RA-RB", "C11")


@pytest.mark.parametrize("command", [Command.BUTTONS, Command.SELECTOR, Command.LEVEL, Command.STATION])
@pytest.mark.parametrize("element", ["c1.KD/21-22", "c1.KS/21-22"])
def test_either_interlock_of_star_and_delta_is_missed(element: str, command: Command) -> None:
    """IEC 60204-1 9.3.4, from memory: contactors that must not be in together are interlocked."""
    assert fails_without(load(command, Start.STAR_DELTA), element, "C11")


def test_a_selector_that_no_longer_parts_automatic_from_off_is_found() -> None:
    assert fails_without(load(Command.LEVEL), "c1.S.select/23-24", "C11")
    job = add_signal(load(Command.SELECTOR), "pressure low", load=load(Command.SELECTOR).loads[0].id)
    assert fails_without(job, "c1.S.select/23-24", "C11")
    assert fails_without(job, "c1.auto1/1-2", "C11")


def test_the_frost_fan_starts_in_the_cold_by_its_thermostat() -> None:
    thermostat = next(d for d in plan_for(frost_fan()).get(CIRCUITS).devices if d.kind_id == "field_thermostat")
    assert thermostat.kind.positions == ("mild", "cold")
    assert fails_without(frost_fan(), f"{thermostat.id}/1-2", "C11")


@pytest.mark.parametrize("element", ["B.heat/1-2", "S.door/21-22"])
def test_light_and_heater_follow_their_switches(element: str) -> None:
    shed = kelp_shed()
    circuit = next(c.id for c in shed.circuits if c.recipe is Recipe.MAINTAINED)
    assert fails_without(shed, f"{circuit}.{element}", "C11")


def test_a_socket_whose_neutral_passes_its_breaker_is_found() -> None:
    """IEC 60364-4-41 411.3.3, from memory: what returns past the breaker trips it, or hides a fault."""
    shed = kelp_shed()
    circuit = next(c.id for c in shed.circuits if c.recipe is Recipe.MAINTAINED)
    (found,) = fails_without(shed, f"{circuit}.F.socket/3-4", "E15")
    assert "past any residual-current breaker" in found.message


@pytest.mark.parametrize("book", Rulebook)
class TestTransformers:
    """IEC 60204-1 7.2.7; NFPA 79 7.2.11 and NEC 450.3(B): from memory."""

    def job(self, book: Rulebook) -> Job:
        made = new_job("O", "out")
        for name in ("mill", "sieve", "belt"):
            made = add_load(made, name, 1.5)
        return with_names_recorded(set_practice(made, rulebook=book))

    def test_as_proposed_it_is_guarded_on_both_sides(self, book: Rulebook) -> None:
        result = clause(self.job(book), "E18")
        assert not result.findings and "it gives" in result.evidence[0]

    def test_without_its_fuse_behind_a_person_decides_or_it_fails(self, book: Rulebook) -> None:
        cut = remove_element(self.job(book), ElementId("s1.FS/1-2"))
        (found,) = clause(with_names_recorded(cut), "E18").findings
        assert found.verdict is not Verdict.MEETS and "T1" in found.message

    def test_one_that_the_builder_hangs_on_two_lines_without_fuses_fails(self, book: Rulebook) -> None:
        job, c1 = self.job(book), CircuitId("c1")
        job = add_device(job, c1, OwnDevice("T9", "transformer", "plate", "own"))
        job = add_device(job, c1, OwnDevice("H9", "lamp", "door", "own", "OWN", colour="white"))
        job = add_rung(job, c1, OwnRung("p", "own", "main.L1/main.L2", "@T9:1/3", "", "power"))
        job = add_rung(job, c1, OwnRung("s", "own", "own.live", "T9:5-7", "own.back", "control"))
        job = add_rung(job, c1, OwnRung("h", "own", "own.live", "H9:X1-X2", "own.back", "control"))
        found = clause(with_names_recorded(job), "E18").findings
        assert [f.verdict for f in found] == [Verdict.FAILS] and "past any fuse" in found[0].message

    def test_a_fuse_of_the_builders_own_that_is_too_large_is_found(self, book: Rulebook) -> None:
        job = self.job(book)
        fuse = next(d.id for d in plan_for(job).get(CIRCUITS).devices if d.id == "s1.FS")
        larger = pick_part(job, fuse, "CC1-10" if book is Rulebook.UL else "FU-6.3")
        found = clause(larger, "E18").findings
        assert found


def controlled() -> Job:
    job = add_load(new_job("O", "out"), "press", 2.2, start=Start.DRIVE, command=Command.CONTROLLER)
    job = add_signal(job, "guard shut", wetting=Wetting.DC)
    job = add_signal(job, "belt photocell", wetting=Wetting.DC, watts=1.5)
    return with_names_recorded(add_signal(job, "clamp", wetting=Wetting.DC, direction=Direction.OUT, watts=8.0))


def test_every_contact_in_the_field_moves_an_input() -> None:
    result = clause(controlled(), "C22")
    assert not result.findings and result.evidence[0].startswith("2 of 2")


def test_a_sensor_that_the_controller_no_longer_reads_is_found() -> None:
    (found,) = fails_without(controlled(), "s4.B2/P-O", "C22")
    assert "moves no input" in found.message


def test_a_contact_that_is_gone_from_the_drawing_is_missed_in_the_brief() -> None:
    cut = with_names_recorded(remove_element(controlled(), ElementId("s4.B1/1-2")))
    assert any("guard shut" in f.message for f in clause(cut, "B05").findings)
    assert clause(cut, "C22").evidence[0].startswith("1 of 1")


def test_run_lamps_beside_the_coil_are_tried_too() -> None:
    job = set_practice(one_motor(), run_lamp=RunLamp.COIL)
    assert not clause(job, "C11").findings
