"""The words of labels: legends as plates say them, the house's translations and abbreviations, texts of one's own."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.shared_plan import plan_for

from riktig.core.door import capitals, legend_lines
from riktig.core.edits import DropLabelText, SetLabelSheet, SetLabelText, SetPractice
from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.job import Job, LabelSheet, LabelText, LabelWord, LegendCapitals, Practice, change_load, set_practice
from riktig.core.labels import LABELS, Label, Medium, label_names, misfit_texts, printed_lines, translated
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.store import dump_job, load_job
from riktig.demo_job import kelp_shed, wash_drum

NAMES = ("Feed pump", "Feed pump stop", "Fan")
CAPITALS = Practice()
DOTLESS, DOTTED = "\N{LATIN SMALL LETTER DOTLESS I}", "\N{LATIN CAPITAL LETTER I WITH DOT ABOVE}"
LONG = "washing and rinsing drum for long brown kelp of the western bay"


@pytest.mark.parametrize(
    ("legend", "lines"),
    [
        ("Feed pump RUNS", ("FEED PUMP", "RUNS")),
        ("feed pump running", ("FEED PUMP", "RUNNING")),
        ("MAIN SWITCH", ("MAIN SWITCH",)),
        ("Feed pump stop STOP", ("FEED PUMP", "STOP")),
        ("Pump ON / OFF", ("PUMP ON", "OFF")),
        ("Belt – end reached", ("BELT – END REACHED",)),
        ("Fan", ("FAN",)),
        ("Fanlight ON", ("FANLIGHT", "ON")),
        ("  ", ()),
    ],
)
def test_a_legend_is_the_name_above_the_function(legend: str, lines: tuple[str, ...]) -> None:
    """By hand: common practice, no source: what plates on doors say, nothing twice."""
    assert legend_lines(legend, sorted(NAMES, key=len, reverse=True), CAPITALS) == lines


def test_as_written_leaves_the_letters_alone() -> None:
    practice = replace(CAPITALS, legends=LegendCapitals.AS_WRITTEN)
    assert legend_lines("Feed pump RUNS", NAMES, practice) == ("Feed pump RUNS",)


@pytest.mark.parametrize(
    ("language", "text", "wanted"),
    [
        ("", "titanic", "TITANIC"), ("tr", f"ilk {DOTLESS}s{DOTLESS}", f"{DOTTED}LK ISI"),
        ("el", "Κινητήρας", "ΚΙΝΗΤΗΡΑΣ"), ("de", "straße", "STRASSE"), ("ru", "насос", "НАСОС"),
    ],
)  # fmt: skip
def test_capitals_follow_the_language(language: str, text: str, wanted: str) -> None:
    """From memory: Turkish keeps the dot of its i, Greek drops its accents, ß becomes SS."""
    assert capitals(text, language) == wanted


ROWS = (LabelWord("stop", "halt"), LabelWord("emergency stop", "NOT-HALT"), LabelWord("motor", "Motor"))


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("stop", "halt"), ("STOP", "HALT"), ("Emergency stop of the line", "NOT-HALT of the line"),
        ("stopper", "stopper"), ("one motor, two motors", "one Motor, two motors"), ("", ""),
    ],
)  # fmt: skip
def test_whole_words_are_replaced_the_longest_phrase_first(text: str, wanted: str) -> None:
    assert translated(text, ROWS) == wanted


@given(st.text(max_size=40), st.lists(st.tuples(st.text(min_size=1, max_size=8), st.text(max_size=8)), max_size=5))
def test_no_table_breaks_a_text(text: str, pairs: list[tuple[str, str]]) -> None:
    """Whatever signs a house writes into its table, a text comes out, and without a matching row it is as it was."""
    rows = tuple(LabelWord(words, instead) for words, instead in pairs if words.strip())
    worded = translated(text, rows)
    if not any(row.words.strip().casefold() in text.casefold() for row in rows):
        assert worded.split() == text.split()


def labels_of(job: Job, medium: Medium) -> tuple[Label, ...]:
    return plan_for(with_names_recorded(job)).get(LABELS).on(medium)


def test_the_language_of_the_labels_changes_words_and_no_names() -> None:
    rows = (
        LabelWord("starts", "x", "pl"), LabelWord("stop", "zatrzymaj", "de"), LabelWord("STOP", "HALT", "de"),
        LabelWord("main isolator", "Hauptschalter", "de"), LabelWord("Q1", "Z9", "de"),
    )  # fmt: skip
    job = set_practice(wash_drum(), label_language="de", label_words=rows)
    devices = {label.lines[0]: label.lines[1] for label in labels_of(job, Medium.DEVICE)}
    assert devices["Q1"] == "Hauptschalter", "the tag stays, the words change"
    legends = {label.lines for label in labels_of(job, Medium.LEGEND)}
    assert ("WASH DRUM", "HALT") in legends
    wires = [label.lines for label in labels_of(job, Medium.WIRE)]
    assert wires == [label.lines for label in labels_of(wash_drum(), Medium.WIRE)]


def test_what_the_table_does_not_say_is_named() -> None:
    job = set_practice(wash_drum(), label_language="de", label_words=(LabelWord("main isolator", "Schalter", "de"),))
    missing = plan_for(job).get(LABELS).untranslated
    assert "earth bar" in missing
    assert "main isolator" not in missing
    assert plan_for(wash_drum()).get(LABELS).untranslated == ()


def test_an_abbreviation_is_taken_only_where_the_whole_does_not_fit() -> None:
    job = change_load(wash_drum(), wash_drum().loads[0].id, name=f"{LONG}, east side")
    long_texts = [label for label in labels_of(job, Medium.DEVICE) if misfit_texts(label)]
    assert long_texts, "without the table it does not fit"
    rows = (LabelWord(LONG, "drum"), LabelWord("main isolator", "main sw."))
    abbreviated = labels_of(set_practice(job, label_words=rows), Medium.DEVICE)
    assert not [label for label in abbreviated if misfit_texts(label)]
    lines = {label.lines[0]: printed_lines(label) for label in abbreviated}
    assert any(" ".join(text).startswith("drum, east side") for _tag, *text in lines.values())
    assert lines["Q1"][1] == "main isolator", "this one fits as it is"


def skilled(job: Job) -> tuple[str, Label]:
    labels = plan_for(job).get(LABELS).labels
    return next(pair for pair in zip(label_names(labels), labels, strict=True) if "skilled" in pair[0])


def test_a_text_of_ones_own_stays_through_edits_and_goes_back() -> None:
    job = wash_drum()
    name, label = skilled(job)
    own = SetLabelText(name, ("400 V", "Electricians only."), "the shop's words").apply(plan_for(job))
    own = change_load(own, own.loads[0].id, kw=2.2)
    assert skilled(own)[1].lines == ("400 V", "Electricians only.")
    assert load_job(dump_job(own)) == own
    assert skilled(DropLabelText(name).apply(plan_for(own)))[1].lines == label.lines
    results = {result.code: result for result in plan_for(own).get(RULES)}
    assert results["M09"].verdict is Verdict.JUDGE, "nobody but a person can say what those words mean"


def test_a_text_of_ones_own_over_a_plan_that_has_changed_is_found() -> None:
    job = wash_drum()
    labels = plan_for(job).get(LABELS).labels
    name = next(n for n, x in zip(label_names(labels), labels, strict=True) if x.lines[:1] == ("K1",))
    own = SetLabelText(name, ("K1", "the drum"), "shorter").apply(plan_for(job))
    assert {r.code: r for r in plan_for(own).get(RULES)}["M05"].verdict is Verdict.MEETS
    other = change_load(own, own.loads[0].id, name="mixer")
    result = {r.code: r for r in plan_for(other).get(RULES)}["M05"]
    assert result.verdict is Verdict.JUDGE
    assert "the drum" in result.findings[0].message


@pytest.mark.parametrize(
    ("lines", "words"),
    [
        (("K9", "the drum"), "name of the thing"), (("K1", "Waschtrommel " * 30), "does not fit"),
        (("K1", "\N{CLAPPER BOARD}"), "does not fit"), (("K1", "מנוע"), "does not fit"),
    ],
)  # fmt: skip
def test_a_text_that_cannot_be_printed_or_renames_the_thing_is_refused(lines: tuple[str, ...], words: str) -> None:
    job = wash_drum()
    labels = plan_for(job).get(LABELS).labels
    name = next(n for n, x in zip(label_names(labels), labels, strict=True) if x.lines[:1] == ("K1",))
    with pytest.raises(RiktigError, match=words):
        SetLabelText(name, lines, "try").apply(plan_for(job))


@pytest.mark.parametrize(
    "make",
    [
        lambda: LabelText("a", ("x",), (), " "), lambda: LabelText("a", ("",), (), "why"),
        lambda: LabelText("a", ("x",) * 21, (), "why"), lambda: LabelWord(" ", "x"), lambda: LabelWord("a", "x", "DE"),
        lambda: LabelWord("a", "x", "deutsch"),
    ],
)  # fmt: skip
def test_what_says_nothing_is_refused(make: object) -> None:
    with pytest.raises(ImpossibleValueError):
        make()  # type: ignore[operator]


TEXTS = [
    "x" * 200, "word " * 40, "Κινητήρας αντλίας", "Насос подачи", "İstanbul ığüşöç",
    "motor \N{ROCKET}", "משאבה", "مضخة", "=1+1", "é", "水泵",
]  # fmt: skip


@pytest.mark.parametrize("name", TEXTS, ids=lambda name: name[:8])
def test_hard_names_are_fitted_or_refused_by_name(name: str) -> None:
    """Every text either fits with glyphs for each of its letters, or stands among the misfits."""
    from riktig.core.exports.fonts import missing_glyphs  # the faces themselves, read by the PDF library

    job = wash_drum()
    try:
        job = change_load(job, job.loads[0].id, name=name)
    except RiktigError:
        return  # refused where it was typed
    for label in labels_of(job, Medium.DEVICE) + labels_of(job, Medium.LEGEND):
        refused = set(misfit_texts(label))
        for line in printed_lines(label):
            assert line in refused or (not missing_glyphs(line) and len(line) < 190), line


def test_practice_takes_the_tables_by_edit() -> None:
    row = LabelWord("stop", "halt", "de")
    job = SetPractice({"label_words": (row,), "label_language": "de"}).apply(plan_for(kelp_shed()))
    assert job.practice.label_words == (row,)
    sheet = LabelSheet("door legends", "plates", 50, 12, 1, 1, 0, 0, 50, 12, 50, 12)
    assert SetLabelSheet(sheet).apply(plan_for(job)).label_sheets == (sheet,)


def test_a_fuse_on_a_small_label_says_at_least_what_it_is_replaced_by() -> None:
    job = change_load(kelp_shed(), kelp_shed().loads[0].id, name="very long conveyor of the southern hall, number 12")
    fuses = [label for label in labels_of(job, Medium.DEVICE) if label.short and "conveyor" in label.lines[1]]
    assert fuses
    for label in fuses:
        assert not misfit_texts(label)
    assert any(" ".join(printed_lines(label)[1:]).startswith("replace by") for label in fuses)
