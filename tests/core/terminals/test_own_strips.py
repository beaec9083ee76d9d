"""Strips of the builder's own: order, split, spare terminals, markings; kept through edits, nothing lost."""

from collections import Counter
from itertools import pairwise

import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import (
    ChangeLoad,
    DropStrip,
    Edit,
    InsertSpareTerminal,
    NumberStrip,
    RemoveLoad,
    SetPractice,
    SetStrip,
    SplitStrip,
)
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId, LoadId, PinRef
from riktig.core.job import Job, OwnStrip, StripOrder, add_load
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, NETS, with_names_recorded
from riktig.core.store import dump_job, load_job
from riktig.core.terminals import STRIPS
from riktig.demo_job import kelp_shed

STRIP = tuple(DeviceId(f"c2.X.{name}") for name in ("U", "V", "W", "PE"))
FLOATS = "c4.B.stop.Xa"


@pytest.fixture
def evaluation() -> Evaluation[Job]:
    return plan_for(kelp_shed())


def done(evaluation: Evaluation[Job], *edits: Edit) -> Evaluation[Job]:
    for edit in edits:
        evaluation = plan_for(with_names_recorded(edit.apply(evaluation)))
    return evaluation


def strip_of(evaluation: Evaluation[Job], terminal: str) -> list[DeviceId]:
    """The terminals of a strip from the left, as the schedule has them."""
    (strip,) = [s for s in evaluation.get(STRIPS).strips if terminal in [row.device for row in s.rows]]
    return [row.device for row in strip.rows]


def sound(evaluation: Evaluation[Job], before: Evaluation[Job]) -> None:
    """Nothing is lost: the same terminals but spare ones, each once, all potentials and cores as they were."""
    ids = Counter(device.id for device in evaluation.get(CIRCUITS).devices)
    assert set(ids.values()) == {1}
    assert set(before.get(CIRCUITS).by_id) <= set(ids)

    def potentials(of: Evaluation[Job]) -> set[frozenset[PinRef]]:
        return {frozenset(p for p in net.pins if "spare" not in p.device) for net in of.get(NETS).nets} - {frozenset()}

    assert potentials(evaluation) == potentials(before)
    cores = [
        {(core.panel_pin, core.field_end) for cable in of.get(STRIPS).cables for core in cable.cores}
        for of in (evaluation, before)
    ]
    assert cores[0] == cores[1]
    for strip in evaluation.get(STRIPS).strips:
        marks = [row.mark for row in strip.rows]
        assert len(set(marks)) == len(marks), strip.tag
    tags = Counter((evaluation.get(NAMES).tag[s.rows[0].device]) for s in evaluation.get(STRIPS).strips)
    assert set(tags.values()) == {1}, "no two strips have one tag"
    failing = {r.code for r in evaluation.get(RULES) if r.verdict is Verdict.FAILS}
    assert failing <= {r.code for r in before.get(RULES) if r.verdict is Verdict.FAILS}


def test_the_order_of_a_strip_is_that_of_the_plate_and_of_the_schedule(evaluation: Evaluation[Job]) -> None:
    usual = strip_of(evaluation, STRIP[0])
    assert usual == list(STRIP)
    turned = tuple(reversed(STRIP))
    after = done(evaluation, SetStrip(evaluation.get(CIRCUITS).by_id[STRIP[0]].strip, turned))
    assert strip_of(after, STRIP[0]) == list(turned)
    seats = {seat.device: seat.rect for seat in after.get(LAYOUT).seats}
    assert [seats[a].x < seats[b].x for a, b in pairwise(turned)] == [True] * 3
    before = {seat.device: seat.rect for seat in evaluation.get(LAYOUT).seats}
    assert min(seats[t].x for t in turned) == min(before[t].x for t in STRIP), "the strip stands where it stood"
    assert len({after.get(NAMES).tag[t] for t in STRIP}) == 1
    assert after.get(NAMES).tag[STRIP[0]] == evaluation.get(NAMES).tag[STRIP[0]]
    sound(after, evaluation)


def test_a_strip_is_parted_and_put_together_again(evaluation: Evaluation[Job]) -> None:
    after = done(evaluation, SplitStrip(STRIP[2]))
    assert strip_of(after, STRIP[0]) == list(STRIP[:2])
    assert strip_of(after, STRIP[2]) == list(STRIP[2:])
    tags = after.get(NAMES).tag
    assert tags[STRIP[0]] == evaluation.get(NAMES).tag[STRIP[0]] != tags[STRIP[2]]
    sound(after, evaluation)
    again = done(after, SplitStrip(STRIP[3]))
    assert strip_of(again, STRIP[3]) == [STRIP[3]]
    sound(again, evaluation)
    back = done(again, DropStrip(STRIP[3]))
    assert back.document.strips == ()
    assert strip_of(back, STRIP[0]) == list(STRIP)
    sound(back, evaluation)


def test_a_terminal_moves_to_another_strip_and_takes_a_marking_that_is_free(evaluation: Evaluation[Job]) -> None:
    name = evaluation.get(CIRCUITS).by_id[STRIP[0]].strip
    guest = DeviceId("c3.X.U")
    after = done(evaluation, SetStrip(name, (*STRIP, guest)))
    assert strip_of(after, STRIP[0]) == [*STRIP, guest]
    assert after.get(CIRCUITS).by_id[guest].mark == "U2", "U is taken there"
    assert guest not in strip_of(after, "c3.X.V")
    assert after.get(NAMES).tag[guest] == after.get(NAMES).tag[STRIP[0]]
    sound(after, evaluation)


def test_a_spare_terminal_stands_where_it_is_put_and_joins_nothing(evaluation: Evaluation[Job]) -> None:
    usual = strip_of(evaluation, FLOATS)
    after = done(evaluation, InsertSpareTerminal(DeviceId(FLOATS)), InsertSpareTerminal(DeviceId(FLOATS)))
    row = strip_of(after, FLOATS)
    at = usual.index(DeviceId(FLOATS))
    assert [device for device in row if device in usual] == usual
    new = row[at + 1 : at + 3]
    assert len(set(new)) == 2
    assert not set(new) & set(usual)
    for device in new:
        assert after.get(CIRCUITS).by_id[device].purpose == "spare"
        assert after.get(NETS).of_pin.get(PinRef(device, "i")) is None
        assert after.get(CIRCUITS).by_id[device].mark.isdecimal()
    sound(after, evaluation)


def test_markings_are_counted_from_the_left_and_letters_stay(evaluation: Evaluation[Job]) -> None:
    usual = strip_of(evaluation, FLOATS)
    name = evaluation.get(CIRCUITS).by_id[DeviceId(FLOATS)].strip
    turned = tuple(reversed(usual))
    kept = done(evaluation, SetStrip(name, turned))
    by_id = kept.get(CIRCUITS).by_id
    assert [by_id[t].mark for t in usual] == [evaluation.get(CIRCUITS).by_id[t].mark for t in usual]
    counted = done(kept, NumberStrip(DeviceId(FLOATS)))
    marks = [row.mark for s in counted.get(STRIPS).strips for row in s.rows if row.device in usual]
    figures = [mark for mark in marks if mark.isdecimal()]
    assert figures == [str(n) for n in range(1, len(figures) + 1)]
    assert len(figures) > 2
    letters = [mark for mark in marks if not mark.isdecimal()]
    assert set(letters) == {m for t in usual if not (m := by_id[t].mark).isdecimal()}
    sound(counted, evaluation)


def test_an_order_survives_other_edits_and_the_file(evaluation: Evaluation[Job]) -> None:
    name = evaluation.get(CIRCUITS).by_id[STRIP[0]].strip
    turned = tuple(reversed(STRIP))
    after = done(evaluation, SetStrip(name, turned), ChangeLoad(LoadId("m2"), {"kw": 5.5}))
    assert strip_of(after, STRIP[0])[:4] == list(turned)
    longer = plan_for(with_names_recorded(add_load(after.document, "stirrer", 0.75)))
    assert strip_of(longer, STRIP[0])[:4] == list(turned)
    assert load_job(dump_job(longer.document)) == longer.document
    functional = done(after, SetPractice({"strip_order": StripOrder.BY_FUNCTION}))
    assert strip_of(functional, STRIP[0])[:4] == list(turned), "what he ordered goes before the practice"


def test_a_terminal_that_went_is_said_and_the_others_stay(evaluation: Evaluation[Job]) -> None:
    name = evaluation.get(CIRCUITS).by_id[STRIP[0]].strip
    mixed = done(evaluation, SetStrip(name, (DeviceId("c3.X.U"), *STRIP)), RemoveLoad(LoadId("m3")))
    assert strip_of(mixed, STRIP[0]) == list(STRIP)
    texts = [f.message for r in mixed.get(RULES) if r.code == "C01" for f in r.findings]
    assert any("order of a strip with terminals of Wash drum" in text for text in texts), "by its name, not its id"


def test_the_supply_stays_by_itself(evaluation: Evaluation[Job]) -> None:
    name = evaluation.get(CIRCUITS).by_id[STRIP[0]].strip
    with pytest.raises(RiktigError, match="stay by themselves"):
        SetStrip(name, (*STRIP, DeviceId("c0.X.L1"))).apply(evaluation)
    with pytest.raises(RiktigError, match="no terminal"):
        SetStrip(name, (DeviceId("c2.K"),)).apply(evaluation)
    with pytest.raises(RiktigError, match="Nothing stands left"):
        SplitStrip(STRIP[0]).apply(evaluation)
    with pytest.raises(RiktigError, match="usual order"):
        DropStrip(STRIP[0]).apply(evaluation)


@pytest.mark.parametrize(
    ("name", "terminals", "marks"),
    [("", ("a",), ()), ("s", (), ()), ("s", ("a", "a"), ()), ("s", ("a", "b"), ("1",))],
    ids=["no name", "empty", "twice", "marks for others"],
)
def test_a_strip_that_cannot_be_is_refused(name: str, terminals: tuple[str, ...], marks: tuple[str, ...]) -> None:
    with pytest.raises(ValueError, match="strip"):
        OwnStrip(name, tuple(DeviceId(t) for t in terminals), marks)
