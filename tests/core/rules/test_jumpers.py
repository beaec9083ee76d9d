"""W10: what a plug-in jumper of terminals passes over, and the pitch it is made for."""

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import each_once, share
from tests.shared_plan import plan_for

from riktig.core.edits import ChoosePart, KeepParts, SetStrip, SetWireOrder
from riktig.core.exports import schedule
from riktig.core.ids import DeviceId
from riktig.core.job import Command, Job, OwnPart, StripOrder, WireOrder, add_load, new_job, set_practice
from riktig.core.keys import DeviceKey
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.terminals import STRIPS
from riktig.demo_job import kelp_shed

STOP, START = "c4.B.stop.Xb", "c4.B.start.Xa"
"""Two terminals of one number in the strip of the wash drum: a jumper joins them."""


def judged(job: Job) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == "W10")


def with_between(*between: str) -> Job:
    """The kelp shed with terminals put between the two that a jumper joins."""
    order = tuple(DeviceId(name) for name in (STOP, *between, START))
    return SetStrip("own", order).apply(plan_for(kelp_shed()))


def test_side_by_side_a_jumper_meets_and_is_said() -> None:
    result = judged(kelp_shed())
    assert result.findings == ()
    assert result.evidence == ("X6:2 to 3, number 66: plug-in jumper, 2 ways",)


@pytest.mark.parametrize(
    ("between", "verdict", "words"),
    [
        ("c4.X.U", Verdict.FAILS, "carries mains"),
        ("c2.X.V", Verdict.FAILS, "carries mains"),
        ("s4.B1.XO", Verdict.FAILS, "carries 24 V"),
        ("c4.X.PE", Verdict.JUDGE, "protective conductor"),
    ],
)
def test_what_must_be_apart_is_not_passed_over(between: str, verdict: Verdict, words: str) -> None:
    (finding,) = judged(with_between(between)).findings
    assert (finding.verdict, finding.where) == (verdict, DeviceKey(DeviceId(between)))
    assert words in finding.message


def test_over_control_of_its_own_kind_it_goes_without_contacts_there() -> None:
    job = with_between("c4.B.alarm.Xa", "c4.B.alarm.Xb")
    result = judged(job)
    assert result.findings == ()
    assert any("plug-in jumper, 4 ways, 2 contacts taken out" in line for line in result.evidence)
    bought = [row for row in schedule("bom", plan_for(job)).rows if "plug-in jumper" in str(row)]
    assert ["4 ways, 2 contacts taken out" in str(row) for row in bought] == [True]


def test_terminals_of_two_widths_take_no_one_jumper() -> None:
    own = OwnPart("T-WIDE", "terminal", "wide terminal of our own", 12.0, 48.0, 42.0, max_mm2=10.0)
    job = KeepParts((own,)).apply(plan_for(kelp_shed()))
    job = ChoosePart(DeviceId(START), "T-WIDE").apply(plan_for(job))
    (finding,) = judged(job).findings
    assert finding.verdict is Verdict.JUDGE
    assert "12 mm" in finding.message
    assert finding.where == DeviceKey(DeviceId(START))


def test_a_terminal_has_room_for_two_jumpers() -> None:
    """Three pumps whose bridged float terminals are interleaved: a1 b1 c1 a2 b2 c2."""
    job = new_job("J", "pumps")
    for name in "abc":
        job = add_load(job, name, 1.5, command=Command.LEVEL)
    job = with_names_recorded(job)
    bridged: dict[str, list[DeviceId]] = {}
    for strip in plan_for(job).get(STRIPS).strips:
        for row in strip.rows:
            if row.jumper:
                bridged.setdefault(row.jumper, []).append(row.device)
    pairs = list(bridged.values())
    assert [len(pair) for pair in pairs] == [2, 2, 2]

    def mixed(count: int) -> ClauseResult:
        order = tuple(pair[side] for side in (0, 1) for pair in pairs[:count])
        return judged(SetStrip("own", order).apply(plan_for(job)))

    assert mixed(2).findings == ()
    assert {f.where for f in mixed(3).findings} == {DeviceKey(pairs[2][0]), DeviceKey(pairs[0][1])}
    assert all("3 jumpers lie over" in f.message and f.verdict is Verdict.JUDGE for f in mixed(3).findings)


@pytest.mark.parametrize(("name", "order"), share(each_once(SAMPLES, StripOrder), 0))
def test_no_strip_in_its_usual_order_breaks_it(name: str, order: StripOrder) -> None:
    """The commons of a transformer once stood apart, with earth terminals under their jumper."""
    assert judged(set_practice(sample(name), strip_order=order)).findings == ()


RETURNS = "ways with trip lamps, ways 2, North American"
"""A transformer of its own whose earthed return two ways share, under a jumper."""


def test_an_earthing_link_behind_a_jumper_is_said_and_beside_its_transformer_is_not() -> None:
    job = with_names_recorded(sample(RETURNS))
    assert not [f for f in judged(job).findings if "earths its circuit" in f.message]
    behind = SetWireOrder(WireOrder((("c100.T:7", "c100.X1.N:i", "c100.XL:1"),))).apply(plan_for(job))
    (finding,) = [f for f in judged(behind).findings if "earths its circuit" in f.message]
    assert (finding.verdict, finding.where) == (Verdict.JUDGE, DeviceKey(DeviceId("c100.XL")))
    beside = SetWireOrder(WireOrder((("c100.XL:1", "c100.T:7", "c100.X1.N:i"),))).apply(plan_for(job))
    assert not [f for f in judged(beside).findings if "earths its circuit" in f.message]
