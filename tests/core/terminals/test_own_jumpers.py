"""Jumpers that the builder chooses: parted, a terminal taken off, joined again; every potential stays joined."""

from dataclasses import replace

import networkx
import pytest
from tests.core.schematic.samples import sample
from tests.shared_plan import plan_for

from riktig.core.edits import DropJumpers, Edit, PlanJumpers, SetOneConductor, SetStrip, SplitStrip
from riktig.core.errors import RiktigError
from riktig.core.exports import schedule
from riktig.core.geometry import Line
from riktig.core.ids import DeviceId, PinRef
from riktig.core.job import Job, OwnJumper
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import NETS, with_names_recorded
from riktig.core.terminals import STRIPS, Jumper, Strip, draw_blocks, joined_to, jumper_of, jumpers_on, parted_left
from riktig.core.wiring import WIRING, Wiring
from riktig.demo_job import kelp_shed

EIGHT = "input terminals with bridges, sensors 8"
"""A controller with eight sensors: eight terminals of 24 V under one jumper, eight of 0 V under another."""


def eight() -> Job:
    return with_names_recorded(sample(EIGHT))


def strip_of(job: Job, mark: str) -> Strip:
    (strip,) = [s for s in plan_for(job).get(STRIPS).strips if mark in [row.mark for row in s.rows]]
    return strip


def terminals(job: Job, *marks: str) -> tuple[DeviceId, ...]:
    device_of = {row.mark: row.device for row in strip_of(job, marks[0]).rows}
    return tuple(device_of[mark] for mark in marks)


def jumpers(job: Job, mark: str) -> list[list[str]]:
    """The markings under each jumper of a strip that carry the potential of a terminal."""
    strip = strip_of(job, mark)
    number = next(row.number for row in strip.rows if row.mark == mark)
    return [[row.mark for row in j.joins] for j in jumpers_on(strip) if j.joins[0].number == number]


def after(job: Job, *edits: Edit) -> Job:
    for edit in edits:
        job = edit.apply(plan_for(job))
    return job


def pieces_of(wiring: Wiring) -> "networkx.Graph[PinRef]":
    """The clamps as its wires, jumpers and links alone join them."""
    graph: networkx.Graph[PinRef] = networkx.Graph()
    graph.add_edges_from((wire.start.pin, wire.end.pin) for wire in wiring.wires)
    for pins in (*wiring.jumpers, *wiring.links):
        networkx.add_path(graph, pins)
    return graph


def assert_all_joined(job: Job) -> None:
    """Every potential is as much in one piece as with the usual jumpers, and no clamp holds more than it did."""
    plan = plan_for(job)
    wiring, usual = plan.get(WIRING), plan_for(eight()).get(WIRING)
    graph, usual_graph = pieces_of(wiring), pieces_of(usual)
    checked = 0
    for net in plan.get(NETS).nets:
        clamps = [pin for pin in net.pins if pin in graph or pin in usual_graph]
        if clamps and networkx.is_connected(usual_graph.subgraph(clamps)):
            assert networkx.is_connected(graph.subgraph(clamps)), net.id
            checked += 1
    assert checked > 20
    assert wiring.crowded == usual.crowded


def test_usually_one_jumper_joins_all_of_a_potential() -> None:
    assert jumpers(eight(), "1P") == [[f"{n}P" for n in range(1, 9)]]


def test_a_parted_jumper_is_two_and_a_wire_feeds_each() -> None:
    job = eight()
    (fifth,) = terminals(job, "5P")
    parted = after(job, PlanJumpers(parted_left(strip_of(job, "5P"), fifth)))
    assert jumpers(parted, "1P") == [["1P", "2P", "3P", "4P"], ["5P", "6P", "7P", "8P"]]
    wires, before = plan_for(parted).get(WIRING).wires, plan_for(job).get(WIRING).wires
    assert len(wires) == len(before) + 1
    assert_all_joined(parted)
    bought = [row for row in schedule("bom", plan_for(parted)).rows if "plug-in jumper" in str(row)]
    # 1P 1O 1M 2P …: from 1P to 4P there are ten terminals, and six contacts are taken out. By hand.
    assert [row[1:3] for row in bought][:1] == [("plug-in jumper, 10 ways, 6 contacts taken out", 2)]


def test_parted_in_four_the_wire_goes_in_at_one_terminal_and_out_at_another() -> None:
    """A terminal takes one conductor inside: at the first of a jumper a second would be one too many."""
    job = eight()
    for mark in ("3P", "5P", "7P"):
        (at,) = terminals(job, mark)
        job = after(job, PlanJumpers(parted_left(strip_of(job, mark), at)))
    assert jumpers(job, "1P") == [["1P", "2P"], ["3P", "4P"], ["5P", "6P"], ["7P", "8P"]]
    assert_all_joined(job)


def test_a_terminal_that_is_taken_off_stands_at_the_end_of_its_chain() -> None:
    job = eight()
    (third,) = terminals(job, "3P")
    job = after(job, PlanJumpers((OwnJumper((third,)),)))
    assert jumpers(job, "1P") == [["1P", "2P", "4P", "5P", "6P", "7P", "8P"]]
    ends = [end.pin for wire in plan_for(job).get(WIRING).wires for end in (wire.start, wire.end)]
    assert ends.count(PinRef(third, "i")) == 1
    assert_all_joined(job)
    (jumper,) = [j for j in jumpers_on(strip_of(job, "1P")) if j.joins[0].mark == "1P"]
    assert "3P" in [row.mark for row in jumper.passes]
    assert jumper.kind == "plug-in jumper, 22 ways, 15 contacts taken out"  # 1P to 8P, 7 of them with a contact


def test_joined_again_and_the_usual_one_are_as_before() -> None:
    job = eight()
    first, fifth = terminals(job, "1P", "5P")
    parted = after(job, PlanJumpers(parted_left(strip_of(job, "5P"), fifth)))
    joined = after(parted, PlanJumpers(joined_to(strip_of(parted, "1P"), first, fifth)))
    assert jumpers(joined, "1P") == jumpers(job, "1P")
    assert plan_for(joined).get(WIRING).wires == plan_for(job).get(WIRING).wires
    usual = after(parted, DropJumpers(first))
    assert usual.jumpers == ()
    assert usual == job


def test_the_choice_outlives_other_edits() -> None:
    job = eight()
    (fifth,) = terminals(job, "5P")
    job = after(job, PlanJumpers(parted_left(strip_of(job, "5P"), fifth)), SetOneConductor("s2.T:P", False))
    order = tuple(row.device for row in reversed(strip_of(job, "5P").rows))
    job = after(job, SetStrip("turned", order))
    assert sorted(map(sorted, jumpers(job, "1P"))) == [["1P", "2P", "3P", "4P"], ["5P", "6P", "7P", "8P"]]


def test_what_a_jumper_cannot_join_any_more_is_said_and_wired() -> None:
    """A strip parted under a jumper of the builder's own: each part has its jumper, W10 names what left it."""
    job = eight()
    chosen = terminals(job, *(f"{n}P" for n in range(1, 9)))
    job = after(job, PlanJumpers((OwnJumper(chosen),)), SplitStrip(chosen[6]))
    assert jumpers(job, "1P") == [["1P", "2P", "3P", "4P", "5P", "6P"]]
    assert jumpers(job, "7P") == [["7P", "8P"]]
    assert_all_joined(job)
    (result,) = [result for result in plan_for(job).get(RULES) if result.code == "W10"]
    off = [finding for finding in result.findings if "jumper of your own" in finding.message]
    assert [finding.verdict for finding in off] == [Verdict.JUDGE, Verdict.JUDGE]
    assert "7P" in off[0].message
    assert "another strip" in off[0].message


def test_a_terminal_that_is_gone_is_named_and_forgotten_with_the_usual_one() -> None:
    job = eight()
    (first,) = terminals(job, "1P")
    gone = DeviceId("c100.X.nine")
    broken = replace(job, jumpers=(OwnJumper((first, gone)),))
    (result,) = [result for result in plan_for(broken).get(RULES) if result.code == "W10"]
    assert any("not in the panel any more" in finding.message for finding in result.findings)
    assert after(broken, DropJumpers(first)).jumpers == ()


@pytest.mark.parametrize(
    ("wanted", "words"),
    [
        ((("c9.X.none",),), "no terminal of this panel"),
        ((("c2.K",),), "no terminal of this panel"),
        ((("c4.X.U",),), "No jumper lies on"),
        ((("c4.X.PE",),), "No jumper lies on"),
        ((("c4.B.stop.Xb", "c4.B.stop.Xa"),), "one strip and one potential"),
        ((("c4.B.stop.Xb", "c4.B.start.Xa"), ("c4.B.start.Xa",)), "two jumpers"),
    ],
)
def test_what_no_jumper_can_join_is_refused_by_name(wanted: tuple[tuple[str, ...], ...], words: str) -> None:
    edit = PlanJumpers(tuple(OwnJumper(tuple(map(DeviceId, names))) for names in wanted))
    with pytest.raises(RiktigError, match=words):
        edit.apply(plan_for(kelp_shed()))


def test_there_must_be_a_jumper_of_ones_own_to_go_back_from() -> None:
    with pytest.raises(RiktigError, match="usual one"):
        DropJumpers(DeviceId("c4.B.stop.Xb")).apply(plan_for(kelp_shed()))
    with pytest.raises(RiktigError, match="no terminal"):
        DropJumpers(DeviceId("c2.K")).apply(plan_for(kelp_shed()))


def test_a_terminal_without_jumper_is_alone() -> None:
    job = eight()
    strip = strip_of(job, "1P")
    assert all(isinstance(jumper, Jumper) for jumper in jumpers_on(strip))
    free = next(row.device for row in strip.rows if not row.jumper)
    assert jumper_of(strip, free) == (free,)
    with pytest.raises(KeyError):
        jumper_of(strip, DeviceId("c2.K"))


def test_the_parts_of_a_jumper_are_drawn_at_one_height_as_they_lie_in_one_channel() -> None:
    job = eight()
    (fifth,) = terminals(job, "5P")
    job = after(job, PlanJumpers(parted_left(strip_of(job, "5P"), fifth)))
    drawing = draw_blocks(strip_of(job, "1P"), in_line=30)
    combs = [s for s in drawing.shapes if isinstance(s, Line) and s.layer == "terminal" and s.y1 == s.y2]
    assert len(combs) == 3
    assert len({comb.y1 for comb in combs}) == 2, "the M under all of them lies at its own height"


def test_what_earths_a_transformer_hangs_on_no_jumper() -> None:
    """Two ways behind a transformer of their own: a jumper joins their returns, the earthing link is wired past it."""
    plan = plan_for(with_names_recorded(sample("ways with trip lamps, ways 2, North American")))
    wiring = plan.get(WIRING)
    (link,) = [w for w in wiring.wires if {w.start.pin, w.end.pin} & {PinRef(DeviceId("c100.XL"), "1")}]
    assert PinRef(DeviceId("c100.T"), "7") in (link.start.pin, link.end.pin)
    assert any(pin.device.startswith("c100.X") for jumper in wiring.jumpers for pin in jumper)
