"""Edits: typed values with one text form; a list of them is done all or none, and done again gives the same job."""

import json
import random
import re
from collections.abc import Sequence
from dataclasses import fields as fields_of
from pathlib import Path
from typing import get_type_hints

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.edits.examples import EXAMPLES
from tests.shared_plan import plan_for

from riktig.cli import main
from riktig.core.edits import (
    EDITS,
    AddLoad,
    ChangeLoad,
    Edit,
    History,
    PutIn,
    RemoveLoad,
    SetBox,
    SetHeading,
    SetPractice,
    TakeOut,
    after_edit,
    after_edits,
    dump_action,
    edit_name,
    load_action,
    load_actions,
)
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Act,
    ChangedLoadFields,
    ChangedSignalFields,
    EnclosureFields,
    FurtherLoadFields,
    HeadingFields,
    Insertable,
    Job,
    Letters,
    Load,
    LoadFields,
    LoadId,
    PracticeFields,
    Signal,
    SignalFields,
    Source,
    SourceFields,
    Supply,
    SupplyFields,
)
from riktig.core.job import Enclosure as Box
from riktig.core.job import Practice as HousePractice
from riktig.core.records import NewRecord, Operation, PieceCut, WireDone
from riktig.core.schematic import CIRCUITS, Band, elements_of
from riktig.core.store import JobFile, dump_job
from riktig.demo_job import kelp_shed, wash_drum

DOCS = Path(__file__).parents[3] / "docs" / "edits.md"


def test_there_is_an_example_of_every_edit() -> None:
    assert {edit_name(type(edit)) for edit in EXAMPLES} == set(EDITS)


@pytest.mark.parametrize("edit", EXAMPLES, ids=lambda edit: edit_name(type(edit)))
def test_the_text_form_of_every_edit_reads_back_as_the_same_value(edit: Edit) -> None:
    assert load_action(dump_action(edit)) == edit


@pytest.mark.parametrize("edit", EXAMPLES, ids=lambda edit: edit_name(type(edit)))
def test_every_edit_is_carried_out_or_refused_by_our_own_error(edit: Edit) -> None:
    evaluation = plan_for(kelp_shed())
    before = evaluation.document
    try:
        after = after_edit(evaluation, edit)
    except RiktigError as error:
        assert error.message
        return
    assert evaluation.document is before
    assert after_edit(plan_for(kelp_shed()), edit) == after, "the same edit of the same job gives the same job"


def test_the_guide_documents_every_edit_with_an_example_that_can_be_read() -> None:
    lines = [line for line in DOCS.read_text(encoding="utf-8").splitlines() if line.startswith('{"')]
    documented = [action for _, action in load_actions(lines, "docs/edits.md")]
    assert {edit_name(type(a)) for a in documented if not isinstance(a, NewRecord)} == set(EDITS)
    kinds = {type(action.facts).__name__ for action in documented if isinstance(action, NewRecord)}
    assert len(kinds) >= 10, "and every kind of record that the window makes"


@pytest.mark.parametrize(
    ("kind", "given", "left_out"),
    [
        (Load, FurtherLoadFields, {"id", "name", "kw"}),
        (Load, LoadFields, {"id", "name"}),
        (Load, ChangedLoadFields, {"id"}),
        (Signal, SignalFields, {"id", "name"}),
        (Signal, ChangedSignalFields, {"id"}),
        (Source, SourceFields, {"id"}),
        (Supply, SupplyFields, set()),
        (Box, EnclosureFields, set()),
        (HousePractice, PracticeFields, set()),
    ],
)
def test_the_fields_that_edits_may_give_are_those_of_the_document(kind: type, given: type, left_out: set[str]) -> None:
    hints = get_type_hints(kind)
    assert get_type_hints(given) == {f.name: hints[f.name] for f in fields_of(kind) if f.name not in left_out}


def test_the_heading_fields_are_those_of_the_job() -> None:
    hints = get_type_hints(Job)
    assert all(hints[name] == of for name, of in get_type_hints(HeadingFields).items())


def random_edit(job: Job, evaluation: Evaluation[Job], rng: random.Random) -> Edit:
    """One edit as it comes; the job may refuse it."""
    paths = [rung.path for rung in evaluation.get(CIRCUITS).rungs if rung.band is Band.CONTROL]
    element = rng.choice([element.id for path in paths for element in elements_of(path)])
    load = rng.choice(job.loads).id
    choices: list[Edit] = [
        SetHeading({"title": f"title {rng.randint(0, 9)}"}),
        AddLoad(f"fan {rng.randint(0, 99)}", {"kw": rng.choice((0.75, 4.0, 11.0))}),
        SetBox(800.0, 1200.0, 300.0),
        SetPractice({"letters": rng.choice(list(Letters))}),
        ChangeLoad(load, {"kw": rng.choice((1.5, 7.5))}),
        RemoveLoad(load) if len(job.loads) > 1 else SetHeading({"revision": "C"}),
        PutIn(element, Insertable.FIELD_CONTACT, "more", Act.AFTER),
        TakeOut(element),
    ]
    return rng.choice(choices)


def random_edits(seed: int, count: int) -> tuple[Job, list[Edit]]:
    """Edits that the job takes, one after another; the last job."""
    rng = random.Random(seed)
    evaluation = plan_for(wash_drum())
    done: list[Edit] = []
    for _ in range(count):
        edit = random_edit(evaluation.document, evaluation, rng)
        try:
            evaluation.move_to(after_edit(evaluation, edit))
        except RiktigError:
            continue
        done.append(edit)
    return evaluation.document, done


@given(st.integers(0, 10_000))
@settings(max_examples=25, deadline=None)
def test_edits_written_out_and_done_again_give_the_same_job(seed: int) -> None:
    job, edits = random_edits(seed, 6)
    lines = [dump_action(edit) for edit in edits]
    again = [(where, a) for where, a in load_actions(lines, "list") if not isinstance(a, NewRecord)]
    assert dump_job(after_edits(Evaluation(wash_drum()), again)) == dump_job(job)


@pytest.mark.parametrize(
    ("line", "where"),
    [
        ("not json", "line 1, column 1"),
        ('{"a": 1}', "line 1"),
        ('{"edit": "change lod"}', "line 1.edit"),
        ('{"edit": "set box", "width": 400}', "line 1"),
        ('{"edit": "set box", "width": "wide", "height": 1, "depth": 1}', "line 1.width"),
        ('{"edit": "set box", "width": 1, "height": 1, "depth": 1, "colour": "red"}', "line 1.colour"),
        ('{"edit": "change load", "load": "m1", "fields": {"kilowat": 4}}', "line 1.fields.kilowat"),
        ('{"edit": "change load", "load": "m1", "fields": {"kw": "four"}}', "line 1.fields.kw"),
        ('{"edit": "change load", "load": "m1", "fields": {"start": "by magic"}}', "line 1.fields.start"),
        ('{"record": "tick", "facts": {}}', "line 1"),
        ('{"record": "smelt", "subject": "w", "facts": {}}', "line 1.facts"),
        ('{"record": "tick", "subject": "w", "facts": {"operation": "bent"}}', "line 1.facts"),
        ("[" * 100_000, "line 1"),
    ],
)
def test_a_fault_in_a_list_is_named_with_its_place(line: str, where: str) -> None:
    with pytest.raises(RiktigError) as caught:
        load_actions([line], "edits.jsonl")
    assert [fault.where for fault in caught.value.faults] == [where]


class TestCommand:
    def job(self, tmp_path: Path) -> Path:
        path = tmp_path / "a.riktig"
        JobFile.create(path, wash_drum(), who="Ida", at="t").close()
        return path

    def write(self, tmp_path: Path, *actions: Edit | NewRecord | str) -> Path:
        path = tmp_path / "edits.jsonl"
        lines = [one if isinstance(one, str) else dump_action(one) for one in actions]
        path.write_text("\n".join(lines), encoding="utf-8")
        return path

    def test_a_list_is_one_revision_and_its_records_are_in_the_log(self, tmp_path: Path) -> None:
        job = self.job(tmp_path)
        edits = self.write(
            tmp_path,
            "# our own habits",
            SetHeading({"revision": "Z"}),
            "",
            ChangeLoad(LoadId("m1"), {"kw": 5.5}),
            NewRecord("piece:R1", PieceCut("35 mm rail", 300.0)),
        )
        assert main(["edit", str(job), str(edits), "--who", "Ola"]) == 0
        file = JobFile(job, read_only=True)
        assert (file.job().revision, file.job().loads[0].kw, file.revision()) == ("Z", 5.5, 2)
        (record,) = file.records()
        assert (record.facts, record.who, record.revision) == (PieceCut("35 mm rail", 300.0), "Ola", 2)
        file.close()

    def test_tried_out_nothing_is_changed(self, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
        job = self.job(tmp_path)
        before = job.read_bytes()
        assert main(["edit", str(job), str(self.write(tmp_path, SetHeading({"title": "x"}))), "--dry-run"]) == 0
        assert "1 edit and 0 records would be done" in capsys.readouterr().out
        assert job.read_bytes() == before

    @pytest.mark.parametrize(
        "wrong",
        [
            ChangeLoad(LoadId("m99"), {"kw": 4.0}),
            ChangeLoad(LoadId("m1"), {"kw": -4.0}),
            SetBox(1.0, 1.0, 1.0),
            '{"edit": "no such"}',
        ],
    )
    def test_all_or_none_with_the_place_of_the_fault(
        self, tmp_path: Path, wrong: Edit | str, capsys: pytest.CaptureFixture[str]
    ) -> None:
        job = self.job(tmp_path)
        tick = NewRecord("w", WireDone(Operation.CUT))
        edits = self.write(tmp_path, SetHeading({"title": "x"}), tick, wrong)
        assert main(["edit", str(job), str(edits)]) == 2
        assert re.search(r"line 3\b", capsys.readouterr().err)
        file = JobFile(job, read_only=True)
        assert (file.job(), file.records(), file.revision()) == (wash_drum(), [], 1)
        file.close()


def test_a_step_taken_back_is_not_in_the_list_and_one_made_again_is() -> None:
    first, second = wash_drum(), kelp_shed()
    edit = SetHeading({"title": "x"})
    history = History().with_edit("title", first, edit).with_edit("box", second, SetBox(1.0, 2.0, 3.0))
    assert history.edits_since(1) == (SetBox(1.0, 2.0, 3.0),)
    taken = history.back(second)
    assert taken is not None
    history, step = taken
    assert (step.name, step.before) == ("box", second)
    assert history.edits_since(0) == (edit,)
    made = history.forward()
    assert made is not None
    assert [type(one) for one in made[0].edits_since(0)] == [SetHeading, SetBox]


def test_nudges_that_join_into_one_step_are_all_in_the_list() -> None:
    edits: Sequence[Edit] = [SetHeading({"title": str(n)}) for n in range(3)]
    history = History()
    for edit in edits:
        history = history.with_edit("nudge", wash_drum(), edit, merge="n")
    assert len(history.done) == 1
    assert history.edits_since(0) == tuple(edits)
    assert json.loads(dump_action(edits[0])) == {"edit": "set heading", "fields": {"title": "0"}}
