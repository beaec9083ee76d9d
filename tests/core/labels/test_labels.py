"""Labels: every label that is wanted once, at its true size, and found by what it says."""

import re
from collections import Counter

import pytest
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.edits import InsertSpareTerminal
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Rect, Text, bounds_of
from riktig.core.ids import DeviceId
from riktig.core.job import EarthScheme, Job, MarkerText, add_load, new_job
from riktig.core.keys import Key, PlaceKey, WireKey, read_key
from riktig.core.labels import (
    INDEX,
    LABELS,
    NAME_INDEX,
    NAMEPLATE,
    SYNONYMS,
    Label,
    Medium,
    draw_medium,
    find,
    label_pages,
    misfit_texts,
)
from riktig.core.labels.spare_ways import named_ways
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, with_names_recorded
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from riktig.demo_job import demo_job, kelp_shed


def test_each_wire_has_a_marker_for_both_ends(evaluation: Evaluation[Job]) -> None:
    markers = Counter(label.key for label in evaluation.get(LABELS).on(Medium.WIRE))
    assert markers == {WireKey(w.key): 2 for w in evaluation.get(WIRING).wires}


def test_a_marker_says_the_number_or_the_far_end_too() -> None:
    plain = [label.lines[0] for label in plan_for(one_motor()).get(LABELS).on(Medium.WIRE)]
    with_ends = plan_for(one_motor(marker=MarkerText.NUMBER_AND_FAR_END)).get(LABELS).on(Medium.WIRE)
    both = [label.lines[0] for label in with_ends if label.lines[0].startswith("L1")]
    assert plain.count("L1") == 2
    assert both == ["L1 Q1:1", "L1 X1:L1"]


@pytest.mark.parametrize(
    ("medium", "texts"),
    [
        (Medium.DEVICE, {"Q1", "F1", "F2", "F3", "K1", "PE", "E1", "E2", "E3", "X1", "X2"}),
        (Medium.TERMINAL, {"L1", "L2", "L3", "N", "PE", "U", "V", "W"}),
        (Medium.CABLE, {"W1", "WM1"}),
        (Medium.LEGEND, {"MAIN SWITCH", "WASH DRUM STOP", "WASH DRUM START", "WASH DRUM RUNS", "WASH DRUM TRIPPED"}),
    ],
    ids=lambda value: getattr(value, "value", ""),
)
def test_each_medium_carries_what_it_must(evaluation: Evaluation[Job], medium: Medium, texts: set[str]) -> None:
    labels = evaluation.get(LABELS).on(medium)
    assert {" ".join(label.lines) if medium is Medium.LEGEND else label.lines[0] for label in labels} == texts


def test_the_warning_plate_says_what_stays_live(evaluation: Evaluation[Job]) -> None:
    door, plate = evaluation.get(LABELS).on(Medium.WARNING)
    assert (door.lines[0], door.where) == ("400/230 V INSIDE", "door, outside")
    assert "Only skilled persons" in door.lines[1]
    assert plate.lines[1] == "400/230 V (20 A, 6 kA) stay live at X1, at the upper clamps of Q1 when Q1 is off."


def test_the_nameplate_is_filled_from_the_job(evaluation: Evaluation[Job]) -> None:
    fields = {f.name: f.value for f in evaluation.get(LABELS).nameplate}
    assert fields["Supply"] == "3/N/PE 400/230 V 50 Hz"
    assert fields["Largest motor"] == "8.5 A"
    assert fields["Full-load current"] == "8.5 A"  # and 9.2 VA at 230 V, 0.04 A, for control
    assert all(f.value for f in evaluation.get(LABELS).nameplate if f.required)


@pytest.mark.parametrize("medium", list(Medium), ids=lambda m: m.value)
def test_a_medium_prints_every_copy_at_true_size_with_a_line_to_check(
    evaluation: Evaluation[Job], medium: Medium
) -> None:
    labels = evaluation.get(LABELS)
    drawing = draw_medium(labels, medium)
    outlines = [m for m in drawing.shapes if m.layer == "label"]
    assert len(outlines) == sum(label.copies for label in labels.on(medium))
    for outline in outlines:
        xs = [p.x for p in outline.points]  # type: ignore[union-attr]
        assert max(xs) - min(xs) == pytest.approx(labels.on(medium)[0].size[0])
        assert max(xs) <= drawing.width
    assert any(isinstance(m, Text) and m.text.startswith("100 mm") for m in drawing.shapes)


@pytest.mark.parametrize(
    ("typed", "key"),
    [
        ("K1", read_key("device:c1.K")),
        ("k1:13", read_key("pin:c1.K:13")),
        ("X2:U", read_key("device:c1.X.U")),
        ("M1-U", read_key("net:c1.FO:2")),
        ("D4", read_key("duct:D4")),
        ("R2", read_key("rail:R2")),
        ("P3", read_key("hole:P3")),
        ("M1-W", read_key("net:c1.FO:6")),
        ("WM1", read_key("device:c1.M")),
        ("Wash drum RUNS", read_key("device:c1.H.run")),
        ("H1", read_key("device:c1.H.run")),
        ("D1 lid", read_key("piece:D1 lid")),
    ],
)
def test_anything_is_found_by_its_label(evaluation: Evaluation[Job], typed: str, key: Key | None) -> None:
    assert find(evaluation.get(INDEX), typed)[0].key == key


@pytest.mark.parametrize(
    ("word", "key"),
    [
        ("disconnect", read_key("device:c0.Q")),
        ("trunking", read_key("duct:D1")),
        ("ground", read_key("device:c0.X.PE")),
        ("thermal", read_key("device:c1.FO")),
        ("pilot", read_key("device:c1.H.run")),
        ("raceway", read_key("duct:D1")),
        ("main switch", read_key("device:c0.Q")),
        ("cpc", read_key("device:c0.X.PE")),
        ("seal-in", read_key("element:c1.K/13-14")),
        ("hold-in", read_key("element:c1.K/13-14")),
        ("latch", read_key("element:c1.K/13-14")),
        ("maintain", read_key("element:c1.K/13-14")),
        ("mcbs", read_key("device:c1.F")),
        ("lights", read_key("device:c1.H.run")),
        ("MTR1", read_key("device:c1.M")),
        ("OL3", read_key("device:c1.FO")),
        ("drum contactor", read_key("device:c1.K")),
        ("k1 13", read_key("pin:c1.K:13")),
        ("wm", read_key("device:c1.M")),
    ],
)
def test_the_words_people_use_find_the_same_things(evaluation: Evaluation[Job], word: str, key: Key | None) -> None:
    """Words of the trade: common practice, no source; letters by the published sets, from memory."""
    found = [entry.key for entry in find(evaluation.get(INDEX), word, limit=99)]
    assert key in found


@pytest.mark.parametrize("group", SYNONYMS)
def test_every_word_of_a_group_finds_what_the_first_finds(evaluation: Evaluation[Job], group: tuple[str, ...]) -> None:
    index = plan_for(kelp_shed()).get(INDEX) if group[0] in ("drive", "float") else evaluation.get(INDEX)
    first = {entry.key for entry in index.entries if group[0] in f"{entry.label} {entry.what}".lower()}
    for word in some(group[1:]):
        assert first <= {entry.key for entry in find(index, word, limit=10_000)}, word


def test_everything_is_found_by_its_own_label_before_all_that_only_begins_with_it() -> None:
    index = plan_for(kelp_shed()).get(INDEX)
    for entry in some(index.entries[::7]):
        found = find(index, entry.label.upper(), limit=60)
        ranks = [one.label.lower() == entry.label.lower() for one in found if not one.what.startswith("place on")]
        assert entry.key in {one.key for one in found}, entry
        assert ranks == sorted(ranks, reverse=True), "the label itself first"


def test_an_address_a_legend_a_sheet_and_a_cable_are_found() -> None:
    evaluation = plan_for(kelp_shed())
    index = evaluation.get(INDEX)
    addresses = [entry for entry in index.entries if entry.what.startswith("address")]
    assert len(addresses) == 18, "eight inputs, eight outputs, two values"
    assert all(find(index, one.label)[0].key == one.key for one in addresses)
    assert isinstance(find(index, "earth tree")[0].key, PlaceKey)
    assert {entry.label for entry in index.entries if entry.what.startswith("cable")} >= {"WM1", "WM2"}
    quick = {entry.key for entry in evaluation.get(NAME_INDEX).entries}
    assert quick < {entry.key for entry in index.entries}


def test_a_tag_by_another_set_of_letters_comes_behind_what_is_really_called_so() -> None:
    index = plan_for(kelp_shed()).get(INDEX)
    for typed in ("QA1", "TA1", "CR5", "PF2"):
        found = find(index, typed)
        assert found, typed
        assert all(typed[-1] in entry.label for entry in found)
    assert find(index, "M1")[0].label == "M1"


def test_nothing_typed_finds_nothing(evaluation: Evaluation[Job]) -> None:
    assert find(evaluation.get(INDEX), "  ") == ()
    assert find(evaluation.get(INDEX), "no such thing") == ()


def test_a_cable_is_marked_at_both_of_its_ends(evaluation: Evaluation[Job]) -> None:
    cables = evaluation.get(LABELS).on(Medium.CABLE)
    assert len(cables) == len(evaluation.get(STRIPS).cables)
    assert {label.copies for label in some(cables)} == {2}


def as_printed(evaluation: Evaluation[Job], label: Label) -> tuple[list[Text], Rect]:
    """The texts of one label on its sheet, and its outline."""
    (page,) = label_pages(evaluation.get(LABELS), label.medium, (label,))
    texts = [mark for mark in page.shapes if isinstance(mark, Text) and not mark.text.startswith("100 mm")]
    return texts, bounds_of(next(mark for mark in page.shapes if mark.layer == "label"))


@pytest.mark.parametrize("text", ["7", "1234", "12345678", "K12:13/K11:A2", "L1 Q1:1"])
def test_what_stands_on_a_marker_stays_inside_it_and_can_be_read(text: str, evaluation: Evaluation[Job]) -> None:
    """A marker is cut out along its edge: what reaches over it is lost. In two lines where one does not hold it."""
    texts, card = as_printed(evaluation, Label(Medium.WIRE, (text,), 1, "", None))
    assert "".join(mark.text for mark in texts).replace(" ", "") == text.replace(" ", "")
    for mark in texts:
        box = bounds_of(mark)
        assert card.x <= box.x and box.right <= card.right
        assert card.y <= box.y and mark.y <= card.bottom
        assert mark.size >= 1.6


@pytest.mark.parametrize("text", ["W" * 40, "1234567890", "an_endless_name_of_a_thing"])
def test_a_text_that_does_not_fit_is_named_and_never_cut_or_shrunk(text: str, evaluation: Evaluation[Job]) -> None:
    label = Label(Medium.WIRE, (text,), 1, "", None)
    texts, _ = as_printed(evaluation, label)
    assert texts == []
    assert misfit_texts(label) == (text,)


@pytest.mark.parametrize("medium", list(Medium), ids=lambda m: m.value)
def test_every_label_of_the_shed_is_printed_at_true_size_on_sheets_that_fit_the_paper(medium: Medium) -> None:
    """A4 and Letter have 184 × 225 mm between margins, head and check line: nothing is scaled to fit."""
    labels = plan_for(demo_job("kelp-shed")).get(LABELS)
    pages = label_pages(labels, medium)
    outlines = [mark for page in pages for mark in page.shapes if mark.layer == "label"]
    assert len(outlines) == sum(label.copies for label in labels.on(medium))
    width, height = labels.on(medium)[0].size
    for outline in outlines:
        box = bounds_of(outline)
        assert box.width == pytest.approx(width)
        assert box.height == pytest.approx(height)
    for page in pages:
        assert page.width <= 184
        assert page.height <= 235
        written = [mark for mark in page.shapes if isinstance(mark, Text)]
        assert all(mark.size >= 1.6 for mark in written)
        assert any(mark.text.startswith("100 mm") for mark in written)
        assert len(written) > 1, "no sheet is blank"


def test_the_nameplate_asks_for_what_its_standard_lists(evaluation: Evaluation[Job]) -> None:
    """IEC 60204-1 16.4 and IEC 61439-1 6.1, from memory: maker, designation, date, standard, supply."""
    asked = {field.name for field in evaluation.get(NAMEPLATE) if field.required}
    of_60204 = {"Maker", "Designation", "Serial number", "Document", "Supply", "Full-load current"}
    assert asked == of_60204 | {"Made", "Standard"}


def test_the_rules_name_a_label_that_does_not_hold_its_text_and_count_the_others() -> None:
    long = "the very long name of a fan in the far corner of the drying hall beside the second door of the shed"
    results = plan_for(with_names_recorded(add_load(new_job(), long, 1.5))).get(RULES)
    (clause,) = (result for result in results if result.code == "M05")
    assert clause.verdict is Verdict.FAILS
    assert any(long.upper()[:20] in finding.message.upper() for finding in clause.findings)
    fitting, of = (int(word) for word in clause.evidence[0].split() if word.isdecimal())
    assert 0 < fitting < of


def test_free_ways_of_blocks_and_bars_are_on_a_label_and_go_with_the_wires() -> None:
    """Against the wires: what is named free carries none, and together with those that do it is every way."""
    evaluation = plan_for(demo_job("kelp-shed"))
    wiring, names = evaluation.get(WIRING), evaluation.get(NAMES)
    free = {
        x.lines[0]: x.lines[1]
        for x in evaluation.get(LABELS).on(Medium.DEVICE)
        if x.lines[1:2] and "free: " in x.lines[1]
    }
    bars = [d for d in evaluation.get(CIRCUITS).devices if d.kind.can(Can.NEUTRAL_BAR) or d.kind.can(Can.EARTH_BAR)]
    assert len(bars) > 2
    for bar in bars:
        landed = {int(end.pin.marking) for w in wiring.wires for end in (w.start, w.end) if end.pin.device == bar.id}
        left = sorted(set(range(1, 9)) - landed)
        said = free.get(names.tag[bar.id], "")
        assert [int(n) for n in re.findall(r"\d+", said)] in ([], left, [left[0], left[-1]] if left else [])
        assert bool(said) == bool(left)
    assert any(said.startswith("free: L1.") for said in free.values()), "blocks too"


def test_a_way_on_which_a_core_from_the_field_lands_is_not_free() -> None:
    """Earths of cables straight on the bar: no wire is there, and the way is taken all the same."""
    evaluation = plan_for(one_motor(earths=EarthScheme.BAR))
    landed = {
        core.panel_pin.marking
        for cable in evaluation.get(STRIPS).cables
        for core in cable.cores
        if core.panel_end.startswith("PE:")
    }
    assert landed
    (said,) = [x.lines[1] for x in evaluation.get(LABELS).on(Medium.DEVICE) if x.lines[1].startswith("free: ")]
    first, last = re.findall(r"\d+", said)[0], re.findall(r"\d+", said)[-1]
    assert not landed & {str(n) for n in range(int(first), int(last) + 1)}


@pytest.mark.parametrize(
    ("ways", "said"),
    [
        (("4", "5", "6", "8"), "4–6, 8"),
        (("L1.6", "L1.7", "L3.2"), "L1.6, L1.7, L3.2"),
        (("L1.2", "L1.3", "L1.4"), "L1.2–4"),
        (("N",), "N"),
        ((), ""),
    ],
)
def test_ways_that_follow_each_other_are_one_range(ways: tuple[str, ...], said: str) -> None:
    assert named_ways(ways) == said


ONCE = (Medium.WIRE, Medium.LEGEND, Medium.PIECE, Medium.TORQUE, Medium.EARTH, Medium.WARNING, Medium.NOTICE)
TWICE = (Medium.TERMINAL, Medium.CORE, Medium.CABLE)


@pytest.mark.parametrize("name", ["kelp-shed", "wash-drum", "frost-fan"])
def test_each_label_is_printed_as_often_as_there_are_places_for_it(name: str) -> None:
    """A wire has a label of its own at each end; a terminal, a core and a cable are marked on both sides.

    A part is marked on itself and beside it on the plate; a strip, what is free on it, and what is on the door once
    (common practice, no source).
    """
    labels = plan_for(demo_job(name)).get(LABELS).labels
    counts = {medium: {label.copies for label in labels if label.medium is medium} for medium in (*ONCE, *TWICE)}
    assert counts == {medium: {1 if medium in ONCE else 2} for medium in (*ONCE, *TWICE)}
    of_devices = [label for label in labels if label.medium is Medium.DEVICE]
    once = [x for x in of_devices if x.where in ("strip", "door") or x.lines[1].startswith("free: ")]
    assert once
    assert {label.copies for label in once} == {1}
    assert {label.copies for label in of_devices if label not in once} == {2}


def test_what_is_spare_in_a_strip_is_said_once() -> None:
    plan = plan_for(InsertSpareTerminal(DeviceId("c4.X.U")).apply(plan_for(kelp_shed())))
    spare = [x for x in plan.get(LABELS).labels if x.where == "strip" and x.lines[1].startswith("spare: ")]
    assert [label.copies for label in spare] == [1]
