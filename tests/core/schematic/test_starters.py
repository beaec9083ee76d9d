"""Starters for both ways and with a motor protector: nets counted by hand, interlock, sheets, the chain behind."""

import pytest

from riktig.core.door import DOOR
from riktig.core.job import (
    Command,
    Job,
    OverloadContact,
    Practice,
    Protection,
    Start,
    add_load,
    add_signal,
    new_job,
    set_box,
)
from riktig.core.plate import LAYOUT
from riktig.core.proving import TESTS
from riktig.core.rules import RULES, Verdict, findings_of
from riktig.core.schematic import (
    CIRCUITS,
    NETS,
    SHEETS,
    Band,
    Circuits,
    Net,
    SheetKind,
    elements_of,
    with_names_recorded,
)
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING
from riktig.demo_job import demo_job
from tests.effort import some
from tests.shared_plan import plan_for

BOTH = {"start": Start.REVERSING, "command": Command.BOTH_WAYS}


def rake(protection: Protection = Protection.BREAKER, ends: int = 0, practice: Practice | None = None) -> Job:
    job = new_job("R", "rake", practice)
    job = add_load(job, "rake carriage", 1.5, protection=protection, **BOTH)  # type: ignore[arg-type]
    for n in range(ends):
        job = add_signal(job, f"end switch {n + 1}", load=job.loads[0].id)
    return with_names_recorded(job)


def nets(job: Job) -> dict[str, Net]:
    return {str(pin): net for pin, net in plan_for(job).get(NETS).of_pin.items()}


def same(found: dict[str, Net], *pins: str) -> bool:
    return len({found[f"c1.{pin}"].id for pin in pins}) == 1


class TestBothWays:
    def test_the_second_and_third_phase_change_places_once_on_the_output(self) -> None:
        """By hand: inputs straight through, 2 with 2, 4 with 6, 6 with 4."""
        found = nets(rake())
        for pin in ("1", "3", "5"):
            assert same(found, f"K:{pin}", f"KR:{pin}", f"F:{int(pin) + 1}")
        assert same(found, "K:2", "KR:2", "FO:1")
        assert same(found, "K:4", "KR:6", "FO:3")
        assert same(found, "K:6", "KR:4", "FO:5")
        assert not same(found, "K:4", "K:6")

    def test_each_phase_is_where_its_line_says_for_either_contactor(self) -> None:
        found = nets(rake(Protection.PROTECTOR))
        assert [found[f"c1.M:{leg}"].line for leg in ("U1", "V1", "W1")] == [0, 1, 2]

        def order(contactor: str) -> list[int]:
            out = {found[f"c1.{contactor}:{pin}"].id: line for line, pin in enumerate(("2", "4", "6"))}
            return [out[found[f"c1.M:{leg}"].id] for leg in ("U1", "V1", "W1")]

        assert order("K") == [0, 1, 2]
        assert order("KR") == [0, 2, 1], "exactly one exchange turns the motor round"

    def test_each_coil_stands_behind_the_others_opening_contact(self) -> None:
        found = nets(rake())
        assert same(found, "K:A1", "KR:22")
        assert same(found, "KR:A1", "K:22")
        assert same(found, "K:A2", "KR:A2")

    def test_the_hold_contact_rejoins_ahead_of_the_interlock(self) -> None:
        """M32: a hold contact landed past the interlock would keep the other way in."""
        found = nets(rake())
        assert same(found, "K:14", "S.start:4", "KR:21")
        assert not same(found, "K:14", "K:A1")
        assert same(found, "K:13", "S.start:3", "S.reverse:3", "S.stop:2")

    def test_a_stop_and_a_trip_open_both_ways(self) -> None:
        found = nets(rake())
        assert same(found, "FC:2", "FO:95")
        assert same(found, "FO:96", "S.stop:1")
        returned = nets(rake(practice=Practice(overload_contact=OverloadContact.RETURN)))
        assert same(returned, "K:A2", "KR:A2", "FO:95")

    def test_the_end_switches_of_the_brief_stop_each_its_own_way(self) -> None:
        found = nets(rake(ends=2))
        assert same(found, "K:14", "end1:1")
        assert same(found, "end1:2", "KR:21")
        assert same(found, "KR:14", "end2:1")
        assert same(found, "end2:2", "K:21")
        shapes = [d.mark for d in plan_for(rake(ends=2)).get(CIRCUITS).devices if d.strip == "c1.X"]
        assert shapes == ["U", "V", "W", "PE", "1", "2", "3", "4"]

    def test_lamps_say_which_way_it_runs_and_both_are_green(self) -> None:
        evaluation = plan_for(rake())
        lamps = {
            d.legend: evaluation.get(SIZING).parts[d.id].colour
            for d in evaluation.get(CIRCUITS).devices
            if d.kind_id == "lamp"
        }
        assert lamps == {
            "Rake carriage RUNS FORWARD": "green",
            "Rake carriage RUNS REVERSE": "green",
            "Rake carriage TRIPPED": "yellow",
        }

    def test_its_operators_on_the_door_do_not_touch(self) -> None:
        seats = plan_for(demo_job()).get(DOOR).seats
        for n, one in some(enumerate(seats)):
            for other in seats[n + 1 :]:
                assert abs(one.x - other.x) >= 30 or abs(one.y - other.y) >= 40, (one.device, other.device)


class TestMotorProtector:
    def plain(self) -> Job:
        return with_names_recorded(add_load(new_job("P"), "drum", 4.0, protection=Protection.PROTECTOR))

    def test_it_takes_the_overloads_place_with_its_own_contacts(self) -> None:
        found = nets(self.plain())
        assert same(found, "F:13", "FC:2", "F:21")
        assert same(found, "F:14", "S.stop:1")
        assert same(found, "F:22", "H.trip:X1")
        assert same(found, "K:2", "X.U:i")

    def test_no_overload_is_left_and_every_wire_reaches_its_clamp(self) -> None:
        evaluation = plan_for(self.plain())
        kinds = [d.kind_id for d in evaluation.get(CIRCUITS).devices]
        assert "contactor_wired" in kinds
        assert not any("overload" in kind for kind in kinds)
        assert evaluation.get(WIRING).unrouted == ()
        assert evaluation.get(WIRING).crowded == ()
        landed = {str(end.pin) for w in evaluation.get(WIRING).wires for end in (w.start, w.end)}
        assert {"c1.K:2", "c1.K:4", "c1.K:6"} <= landed

    def test_the_same_part_is_bought_whether_plugged_or_wired(self) -> None:
        plugged = plan_for(with_names_recorded(add_load(new_job(), "drum", 4.0))).get(SIZING).parts
        wired = plan_for(self.plain()).get(SIZING).parts
        ref = {part.ref for device, part in wired.items() if device.endswith(".K")}
        assert ref == {part.ref for device, part in plugged.items() if device.endswith(".K")} == {"CON-9"}


@pytest.mark.parametrize("protection", list(Protection))
@pytest.mark.parametrize("both", [False, True])
def test_the_whole_chain_stands_behind_every_starter(protection: Protection, both: bool) -> None:
    fields = BOTH if both else {}
    job = set_box(new_job("C"), 600.0, 800.0, 300.0)
    evaluation = plan_for(with_names_recorded(add_load(job, "drum", 1.5, protection=protection, **fields)))  # type: ignore[arg-type]
    circuits: Circuits = evaluation.get(CIRCUITS)
    assert circuits.undrawn == ()
    placed = set(evaluation.get(SHEETS).places)
    assert {one.id for rung in circuits.rungs for one in elements_of(rung.path) if rung.start != ("PE",)} <= placed
    seated = {seat.device for seat in evaluation.get(LAYOUT).seats}
    assert {d.id for d in circuits.devices if d.zone.value == "plate" and d.kind_id != "stud"} <= seated
    wires = evaluation.get(WIRING).wires
    tested = {test.wire for test in evaluation.get(TESTS).tests if test.wire}
    assert {wire.key for wire in wires} == tested
    failing = [f for f in findings_of(evaluation.get(RULES)) if f.verdict is Verdict.FAILS and f.code[0] in "ECWP"]
    assert failing == []


def test_a_power_path_with_two_contactors_takes_two_places_and_stands_apart_from_the_supply() -> None:
    job = new_job("S")
    for n in range(2):
        job = add_load(job, f"rake {n}", 1.5, **BOTH)  # type: ignore[arg-type]
    job = add_load(job, "drum", 4.0)
    sheets = [s for s in plan_for(with_names_recorded(job)).get(SHEETS).sheets if s.kind is SheetKind.POWER]
    motors = [[r.title for r in sheet.rungs if len(r.start) == 3 and r.band is Band.POWER] for sheet in sheets]
    assert motors == [["Drum"], ["Rake 0", "Rake 1"]]
