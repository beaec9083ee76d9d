"""The truth of “missing”: a panel of which everything was done lacks nothing, and each single omission is named."""

from collections.abc import Callable
from dataclasses import replace

import msgspec
import pytest
from tests.core.handover.complete import WHEN, as_log, complete_entries, drum
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.handover import (
    Missing,
    MissingFor,
    as_built_entry,
    as_built_of,
    dispatch_entry,
    dispatched_of,
    is_as_built,
    missing_of,
)
from riktig.core.job import Job, change_load, set_heading, set_marks
from riktig.core.labels import LABELS, Medium, print_entries
from riktig.core.production import BuildStage
from riktig.core.proving import ProvingStage
from riktig.core.records import (
    ChangeClosed,
    ChangeOpened,
    ClauseJudged,
    FindingNoted,
    JobIssued,
    LabelPrinted,
    LiveStepDone,
    NewRecord,
    Operation,
    Outcome,
    PapersWritten,
    ReadingTaken,
    RedLine,
    SiteItemDone,
    TakenBack,
    TaskDone,
    WireDone,
)
from riktig.core.schematic import with_names_recorded
from riktig.core.views import statuses

ENTRIES = complete_entries(drum())


def texts(entries: list[NewRecord], evaluation: Evaluation[Job] | None = None) -> list[str]:
    return [item.text for item in missing_of(evaluation or drum(), as_log(entries))]


def without(drop: Callable[[NewRecord], bool], count: int = 1) -> list[NewRecord]:
    """All entries but the first so many of a kind; no count drops all."""
    kept, left = [], count
    for entry in ENTRIES:
        if left and drop(entry):
            left -= 1
        else:
            kept.append(entry)
    assert len(kept) < len(ENTRIES), "nothing was left out"
    return kept


def test_a_panel_of_which_everything_was_done_lacks_nothing() -> None:
    assert texts(ENTRIES) == []


STAGES = [
    stage for stage in BuildStage
    if any(isinstance(e.facts, TaskDone) and e.facts.stage == stage.value for e in ENTRIES)
]  # fmt: skip
OMISSIONS: list[tuple[str, Callable[[NewRecord], bool], str]] = [
    *(
        (f"a wire not {operation.words}",
         lambda e, o=operation: isinstance(e.facts, WireDone) and e.facts.operation is o, "wires are not finished")
        for operation in Operation
        if operation is not Operation.STRIPPED  # what was landed was stripped before
    ),
    *(
        (f"a task of “{stage.value}”", lambda e, s=stage: isinstance(e.facts, TaskDone) and e.facts.stage == s.value,
         f"{stage.value.lower()}: 1 of")
        for stage in STAGES
    ),
    ("a dead test", lambda e: isinstance(e.facts, ReadingTaken), "1 of 56 dead tests outstanding"),
    *(
        (f"a step of “{stage.value}”",
         lambda e, s=stage: isinstance(e.facts, LiveStepDone) and e.facts.stage == s.value,
         "1 of 35 settings and live steps outstanding")
        for stage in ProvingStage
        if any(isinstance(e.facts, LiveStepDone) and e.facts.stage == stage.value for e in ENTRIES)
    ),
    *(
        (f"the judgement of {entry.subject}",
         lambda e, s=entry.subject: e.subject == s and isinstance(e.facts, ClauseJudged),
         "waits for a judgement")
        for entry in ENTRIES
        if isinstance(entry.facts, ClauseJudged)
    ),
    *(
        (f"a label of {medium.value}",
         lambda e, m=medium: isinstance(e.facts, LabelPrinted) and e.subject.startswith(f"{m.name.lower()}/"),
         "must be printed again" if len(drum().get(LABELS).on(medium)) > 1 else "never printed: ")
        for medium in Medium
        if drum().get(LABELS).on(medium)
    ),
    ("the issue", lambda e: isinstance(e.facts, JobIssued), "never issued"),
    ("the papers", lambda e: isinstance(e.facts, PapersWritten), "were not written"),
    ("an item of the site", lambda e: isinstance(e.facts, SiteItemDone), "1 of 5 items of the site list"),
]  # fmt: skip


@pytest.mark.parametrize(("drop", "words"), [case[1:] for case in OMISSIONS], ids=[case[0] for case in OMISSIONS])
def test_each_single_omission_is_named_and_leads_somewhere(drop: Callable[[NewRecord], bool], words: str) -> None:
    missing = missing_of(drum(), as_log(without(drop)))
    assert [item for item in missing if words in item.text], [item.text for item in missing]
    assert all(item.station in ("Brief", "Build", "Prove", "Rules", "Labels", "Hand over") for item in missing)


def changed(entry: NewRecord, **fields: object) -> NewRecord:
    return NewRecord(entry.subject, msgspec.structs.replace(entry.facts, **fields))


READING = next(entry for entry in ENTRIES if isinstance(entry.facts, ReadingTaken))
STEP = next(entry for entry in ENTRIES if isinstance(entry.facts, LiveStepDone))
ADDED: list[tuple[str, list[NewRecord], str]] = [
    ("a failed test", [changed(READING, outcome=Outcome.FAILED)], "1 of 56 dead tests failed"),
    ("a skipped test", [changed(READING, outcome=Outcome.SKIPPED, ohm="", reason="no time")],
     "1 of 56 dead tests skipped"),
    ("a test without an instrument", [changed(READING, meter="")], "passed without an instrument"),
    ("a simulated reading", [changed(READING, meter="bench meter (simulated)")], "1 of 56 dead tests outstanding"),
    ("a reading of another wire", [changed(READING, true_of="something else")], "1 readings are out of date"),
    ("a failed live step", [changed(STEP, outcome=Outcome.FAILED)], "1 of 35 settings and live steps outstanding"),
    ("an open finding", [NewRecord("device:c1.K", FindingNoted("the cover is cracked", "K1"))], "is open"),
    ("an open change order", [NewRecord("change:1", ChangeOpened("more lamps"))], "change order 1 is open"),
    ("a red-line", [NewRecord("wire:x", RedLine("K1:13 to X2:4"))], "a red-line is open"),
    ("a print that was taken back", [], "must be printed again"),
]  # fmt: skip


def test_there_are_at_least_forty_omissions() -> None:
    assert len(OMISSIONS) + len(ADDED) >= 40


@pytest.mark.parametrize(("more", "words"), [case[1:] for case in ADDED], ids=[case[0] for case in ADDED])
def test_what_went_wrong_later_is_missing_again(more: list[NewRecord], words: str) -> None:
    entries = [*ENTRIES, *more]
    if not more:
        at = next(n for n, entry in enumerate(ENTRIES) if isinstance(entry.facts, LabelPrinted))
        entries.append(NewRecord(ENTRIES[at].subject, TakenBack("it jammed"), f"r{at}"))
    assert [text for text in texts(entries) if words in text], texts(entries)


def test_a_closed_order_is_missing_no_more() -> None:
    log = [*ENTRIES, NewRecord("change:1", ChangeOpened("more lamps")), NewRecord("change:1", ChangeClosed())]
    assert texts(log) == []


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda job: set_heading(job, serial=""), "serial number"),
        (lambda job: set_heading(job, maker=""), "maker"),
        (lambda job: set_heading(job, title=""), "title"),
        (lambda job: set_heading(job, drawing_number=""), "drawing number"),
        (lambda job: set_marks(job, panel="declared", number="P-1042"), "mark of the panel has no date"),
        (lambda job: set_marks(job, panel="declared", date="2026-12"), "nameplate lacks its number of the mark"),
        (lambda job: set_heading(job, revision="C"), "have changed since issue B"),
        (lambda job: change_load(job, job.loads[0].id, name="rinse drum"), "must be printed again"),
        (lambda job: change_load(job, job.loads[0].id, kw=5.5), "out of date"),
        (lambda job: change_load(job, job.loads[0].id, run_lamp=False), "taken off the panel"),
    ],
    ids=[
        "serial",
        "maker",
        "title",
        "drawing",
        "date of the mark",
        "number of the mark",
        "letter",
        "name",
        "power",
        "lamp",
    ],
)
def test_what_changes_in_the_job_is_missing_again(change: Callable[[Job], Job], words: str) -> None:
    other = plan_for(with_names_recorded(change(drum().document)))
    now_missing = texts(ENTRIES, other)
    assert [text for text in now_missing if words in text], now_missing


def test_printing_more_labels_is_no_change_of_the_drawings() -> None:
    job = replace(drum().document, printed=("1", "2"))
    assert texts(ENTRIES, plan_for(job)) == []
    entries = [*ENTRIES, *print_entries(drum().get(LABELS), Medium.CABLE)]
    assert texts(entries) == []


class TestDispatch:
    def test_it_leaves_with_a_name_and_a_serial_number(self) -> None:
        job = drum().document
        entry = dispatch_entry(job, "shed", "", ())
        log = as_log([*ENTRIES, entry])
        gone = dispatched_of(log)
        assert gone is not None
        assert (gone.facts.to, gone.facts.serial, gone.facts.open_work) == ("shed", "0417-01", "")
        back = as_log([*ENTRIES, entry, NewRecord("dispatch", TakenBack("came back"), f"r{len(ENTRIES)}")])
        assert dispatched_of(back) is None

    @pytest.mark.parametrize(("to", "serial", "words"), [("", "1", "to whom"), ("shed", " ", "no serial number")])
    def test_without_either_it_stays(self, to: str, serial: str, words: str) -> None:
        with pytest.raises(RiktigError, match=words):
            dispatch_entry(set_heading(drum().document, serial=serial), to, "", ())

    def test_what_is_missing_needs_a_reason_which_stays_with_what_was_open(self) -> None:
        missing = (Missing("1 of 56 dead tests failed", "Prove"),)
        with pytest.raises(RiktigError, match="1 things are missing"):
            dispatch_entry(drum().document, "shed", " ", missing)
        entry = dispatch_entry(drum().document, "shed", "the customer tests it", missing)
        facts = dispatched_of(as_log([entry]))
        assert facts is not None
        assert facts.facts.open_work == "1 of 56 dead tests failed"
        assert facts.facts.reason == "the customer tests it"

    def test_what_is_left_for_the_site_does_not_hold_it(self) -> None:
        site = (Missing("5 of 5 items of the site list are open", "Hand over", None, MissingFor.AS_BUILT),)
        assert dispatch_entry(drum().document, "shed", "", site).subject == "dispatch"


class TestAsBuilt:
    def test_it_closes_only_when_nothing_is_open_and_the_panel_has_left(self) -> None:
        job, log = drum().document, as_log([*ENTRIES, dispatch_entry(drum().document, "shed", "", ())])
        entry = as_built_entry(job, log, missing_of(drum(), log))
        closed = as_built_of([*log, *as_log([entry])])
        assert closed is not None
        assert closed.when == WHEN
        whole = [*log, *as_log([entry])]
        assert is_as_built(job, whole)
        assert not is_as_built(change_load(job, job.loads[0].id, kw=5.5), whole), "a later change opens it again"
        assert not is_as_built(job, log)
        with pytest.raises(RiktigError, match="not dispatched"):
            as_built_entry(job, as_log(ENTRIES), ())
        open_site = as_log(without(lambda e: isinstance(e.facts, SiteItemDone)))
        with pytest.raises(RiktigError, match="1 things are open"):
            as_built_entry(job, log, missing_of(drum(), open_site))


def test_a_bench_without_its_server_lacks_what_the_others_may_have_found() -> None:
    """A test that failed at another bench is not known here: nothing is complete until both are in step."""
    plan, log = drum(), as_log(ENTRIES)
    (item,) = missing_of(plan, log, "2 entries wait to be handed in, the server cannot be reached")
    assert item.text.startswith("this bench and the shop's server are not in step: 2 entries wait")
    assert (item.station, item.needed_for) == ("Hand over", MissingFor.DISPATCH)
    assert statuses(plan, log)[-1].line == "complete"
    assert statuses(plan, log, "the server cannot be reached")[-1].line == "1 thing missing"
    with pytest.raises(RiktigError, match="missing"):
        dispatch_entry(plan.document, "the customer", "", [item])
