"""Star-delta starters: triangle, star and interlock counted by hand; sizes inside the triangle; the chain behind."""

import pytest

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.geometry import Text
from riktig.core.ids import read_pin
from riktig.core.job import (
    Distribution,
    Job,
    Practice,
    Protection,
    StarDeltaOverload,
    Start,
    add_load,
    circuit_of,
    new_job,
    set_box,
    set_supply,
)
from riktig.core.plate import LAYOUT
from riktig.core.proving import TESTS
from riktig.core.rules import RULES, Verdict, findings_of
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, Net, SheetKind, elements_of, with_names_recorded
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from tests.shared_plan import plan_for


def fan(protection: Protection = Protection.BREAKER, practice: Practice | None = None, kw: float = 11.0) -> Job:
    job = set_supply(set_box(new_job("S", "fan", practice), 600.0, 800.0, 300.0), upstream_a=32.0)
    return with_names_recorded(
        add_load(job, "drying fan", kw, start=Start.STAR_DELTA, protection=protection, cable_m=24.0)
    )


def nets(job: Job) -> dict[str, Net]:
    return {str(pin): net for pin, net in plan_for(job).get(NETS).of_pin.items()}


def same(found: dict[str, Net], *pins: str) -> bool:
    return len({found[f"c1.{pin}"].id for pin in pins}) == 1


@pytest.fixture(scope="module")
def found() -> dict[str, Net]:
    return nets(fan())


@pytest.mark.parametrize(("pole", "end"), [("2", "W2"), ("4", "U2"), ("6", "V2")])
def test_the_triangle_contactor_feeds_the_end_beside_each_phase(found: dict[str, Net], pole: str, end: str) -> None:
    """U1-W2, V1-U2, W1-V2: each winding then lies between two lines (IEC 60034-8, from memory)."""
    assert same(found, f"KD:{pole}", f"X.{end}:i", f"M:{end}")
    assert same(found, f"KD:{int(pole) - 1}", f"K:{int(pole) - 1}", f"F:{pole}")


def test_every_winding_lies_between_two_lines_in_triangle_and_at_the_star_point_in_star(found: dict[str, Net]) -> None:
    begins = {found[f"c1.M:{end}"].line: end for end in ("U1", "V1", "W1")}
    ends = {found[f"c1.M:{end}"].line: end for end in ("U2", "V2", "W2")}
    assert begins == {0: "U1", 1: "V1", 2: "W1"}
    assert ends == {0: "W2", 1: "U2", 2: "V2"}, "no winding has one line at both ends"
    assert same(found, "KS:2", "KS:4", "KS:6")
    assert [same(found, f"KS:{n}", f"KD:{n + 1}") for n in (1, 3, 5)] == [True] * 3


def test_star_and_triangle_never_close_together(found: dict[str, Net]) -> None:
    assert same(found, "KT:18", "KD:21")
    assert same(found, "KD:22", "KS:A1")
    assert same(found, "KT:28", "KS:21")
    assert same(found, "KS:22", "KD:A1")


def test_the_line_contactor_comes_in_by_the_star_and_holds_itself(found: dict[str, Net]) -> None:
    assert same(found, "KS:14", "K:44", "K:A1")
    assert same(found, "KS:13", "K:43", "KT:17", "KT:A1", "K:14", "S.start:4")
    assert same(found, "K:13", "S.start:3", "S.stop:2")
    assert same(found, "K:A2", "KD:A2", "KS:A2", "KT:A2")


def test_the_overload_sits_inside_the_triangle_or_in_the_line_as_the_house_wants(found: dict[str, Net]) -> None:
    assert same(found, "K:2", "FO:1")
    assert same(found, "FO:2", "X.U1:i")
    line = nets(fan(practice=Practice(star_delta_overload=StarDeltaOverload.LINE)))
    assert same(line, "F:2", "FO:1")
    assert same(line, "FO:2", "K:1", "KD:1")


def test_parts_and_conductors_are_those_of_their_place() -> None:
    """By hand, 11 kW: 22 A. Line and triangle 22 / √3 = 12.7 A: 18 A frames. Star 7.3 A: 9 A. Panel 4 mm² (24 A),
    inside the triangle 2.5 mm²: six conductors are two circuits, 1.5 mm² 13.5 × 0.80 = 10.8 A.
    """
    evaluation = plan_for(fan())
    parts = {str(device): part.ref for device, part in evaluation.get(SIZING).parts.items()}
    assert (parts["c1.K"], parts["c1.KD"], parts["c1.KS"], parts["c1.KT"]) == (
        "CON-18 + AB-22",
        "CON-18",
        "CON-9",
        "TM-YD",
    )
    assert evaluation.get(SIZING).loads[0].setting_a == 12.7
    of = {
        w.number: w.mm2
        for w in evaluation.get(WIRING).wires
        if circuit_of(w.net.device) == "c1" and w.colour == "black"
    }
    numbers = evaluation.get(NAMES).number
    ids = evaluation.get(NETS).of_pin
    fed, inside, star = (of[numbers[ids[read_pin(pin)].id]] for pin in ("c1.F:2", "c1.X.U1:i", "c1.KS:2"))
    assert (fed, inside, star) == (4, 2.5, 2.5)


def test_its_cable_has_six_numbered_cores_and_an_earth() -> None:
    cable = next(c for c in plan_for(fan()).get(STRIPS).cables if c.device == "c1.M")
    assert [core.name for core in cable.cores][-1] == "green-yellow"
    assert len(cable.cores) == 7
    assert cable.make_up.startswith("7 G")


def test_its_conductors_are_named_by_both_ends_of_the_motor() -> None:
    names = plan_for(fan()).get(NAMES).number.values()
    assert {"M1-U1", "M1-V1", "M1-W1", "M1-U2", "M1-V2", "M1-W2"} <= set(names)


@pytest.mark.parametrize("protection", list(Protection))
@pytest.mark.parametrize("overload", list(StarDeltaOverload))
def test_the_whole_chain_stands_behind_it(protection: Protection, overload: StarDeltaOverload) -> None:
    evaluation = plan_for(fan(protection, Practice(star_delta_overload=overload, distribution=Distribution.BLOCKS)))
    circuits = evaluation.get(CIRCUITS)
    assert circuits.undrawn == ()
    placed = set(evaluation.get(SHEETS).places)
    assert {one.id for rung in circuits.rungs for one in elements_of(rung.path) if rung.start != ("PE",)} <= placed
    assert evaluation.get(LAYOUT).misfits == ()
    assert evaluation.get(WIRING).unrouted == ()
    assert {w.key for w in evaluation.get(WIRING).wires} == {t.wire for t in evaluation.get(TESTS).tests if t.wire}
    failing = [
        f.message for f in findings_of(evaluation.get(RULES)) if f.verdict is Verdict.FAILS and f.code[0] in "ECW"
    ]
    assert failing == []


def test_it_stands_on_a_sheet_with_room_for_it_and_says_where_its_ends_go() -> None:
    job = add_load(fan(), "drum", 4.0)
    evaluation = plan_for(with_names_recorded(job))
    power = [sheet for sheet in evaluation.get(SHEETS).sheets if sheet.kind is SheetKind.POWER]
    assert len(power) == 2
    assert "c1" not in power[0].circuits, "beside the incoming supply there is no height for it"
    texts = [m.text for m in evaluation.get(SHEET_DRAWINGS)[1].shapes if isinstance(m, Text)]
    assert "of M1" in texts
    assert {"W2", "U2", "V2"} <= set(texts)


def test_the_mirror_under_each_coil_says_where_its_contacts_are_and_which_are_spare() -> None:
    drawing = next(d for d in plan_for(fan()).get(SHEET_DRAWINGS) if "control" in d.title)
    texts = [m.text for m in drawing.shapes if isinstance(m, Text)]
    assert texts.count("1 to 6") == 3
    assert "spare 21 31 53 61 71" in " ".join(texts), "of the line contactor, whose 83-84 lights the lamp"
    assert "spare 31 43" in texts, "of the star"
    assert "spare 13 31 43" in texts, "of the triangle"
