"""The mistakes of docs/mistakes.md: each stands there once, with a test that makes it and sees it caught."""

import re
from pathlib import Path

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.job import Recipe, Rulebook, set_marks, set_practice
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, add_circuit, with_names_recorded
from riktig.core.short_circuit import POWER_PATHS
from riktig.demo_job import frost_fan, wash_drum

ROOT = Path(__file__).parents[3]
ROWS = [
    [cell.strip() for cell in line.strip("|").split("|")]
    for line in (ROOT / "docs" / "mistakes.md").read_text(encoding="utf-8").splitlines()
    if re.match(r"\| M\d\d ", line)
]
WRITTEN = "\n".join(path.read_text(encoding="utf-8") for path in (ROOT / "tests").rglob("test_*.py"))


def clauses(job: object) -> dict[str, ClauseResult]:
    return {result.code: result for result in plan_for(job).get(RULES)}  # type: ignore[arg-type]


CODES = set(clauses(wash_drum()))


def test_every_mistake_stands_there_once() -> None:
    assert [row[0] for row in ROWS] == [f"M{number:02}" for number in range(1, 54)]
    assert {row[2] for row in ROWS} == {"impossible", "found", "tested"}


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row[0])
def test_the_test_that_makes_it_is_there(row: list[str]) -> None:
    assert len(row) == 5
    assert re.search(rf"def {row[4]}\(", WRITTEN), f"{row[0]}: {row[4]}"
    for code in re.findall(r"\b[BCEMNPW]\d\d\b", row[3]):
        assert code in CODES, f"{row[0]} names {code}, which is no clause"


def test_an_overload_that_is_plugged_stands_under_its_contactor() -> None:
    """M02."""
    evaluation = plan_for(wash_drum())
    devices = evaluation.get(CIRCUITS).by_id
    overload = next(device for device in devices.values() if device.kind.can(Can.OVERLOAD))
    contactor = next(device for device in devices.values() if device.kind.can(Can.SWITCHES_LOAD))
    blocks = [{member[0] for member in stand.block.members} for stand in evaluation.get(LAYOUT).stands]
    (block,) = [block for block in blocks if contactor.id in block]
    assert overload.id in block, "one block on the rail, moved and placed together"


def test_an_overload_relay_is_no_guard_against_a_short() -> None:
    """M39: it opens the control line; what breaks a short stands ahead of it."""
    evaluation = plan_for(wash_drum())
    paths = evaluation.get(POWER_PATHS)
    overload = next(part for part in paths.parts if part.device.kind.can(Can.OVERLOAD))
    assert not overload.is_guard
    assert [evaluation.get(NAMES).tag[guard] for guard in overload.ahead] == ["F1"]


def test_the_mark_of_the_enclosure_is_not_that_of_the_panel() -> None:
    """M20: what the panel carries is asked for in both markets, never claimed."""
    for job in (wash_drum(), frost_fan()):
        result = clauses(job)["M06"]
        assert result.verdict is Verdict.JUDGE
        assert "covers the enclosure alone" in result.findings[0].message
    assert "industrial control panel" in clauses(frost_fan())["M06"].findings[0].message


def test_each_mark_is_kept_apart_and_neither_stands_for_the_other() -> None:
    """M20: what the Brief says of the panel's mark is evidence for whoever signs, never a verdict that it meets."""
    whole = {"panel": "industrial control panel", "number": "P-1042", "date": "2026-12-01"}
    marked = clauses(set_marks(frost_fan(), enclosure="type 4X", **whole))["M06"]
    assert marked.verdict is Verdict.JUDGE
    said = " ".join(marked.evidence)
    assert all(words in said for words in ("type 4X", *whole.values()))
    same = clauses(set_marks(frost_fan(), **whole | {"enclosure": " Industrial  control panel"}))["M06"]
    assert same.verdict is Verdict.FAILS
    assert "mark of the empty enclosure" in same.findings[0].message


@pytest.mark.parametrize("part", ["panel", "number", "date"])
def test_a_mark_of_the_panel_lacks_nothing_that_makes_it_one(part: str) -> None:
    whole = {"panel": "industrial control panel", "number": "P-1042", "date": "2026-12-01"}
    result = clauses(set_marks(frost_fan(), **whole | {part: " "}))["M06"]
    assert result.verdict is Verdict.FAILS
    assert [f.message for f in result.findings if f.verdict is Verdict.FAILS] == [
        f"The Brief says that the panel carries a mark, and not its {'words' if part == 'panel' else part}."
    ]


def test_a_fuse_is_judged_as_overcurrent_protection_and_a_surge_protector_by_its_leads() -> None:
    """M40."""
    without = clauses(wash_drum())
    assert without["E17"].verdict is Verdict.NOT_APPLICABLE
    assert "surge" in without["E17"].not_applicable
    with_one = clauses(with_names_recorded(add_circuit(wash_drum(), Recipe.SURGE)))
    assert with_one["E17"].verdict is not Verdict.NOT_APPLICABLE


def test_a_european_breaker_counts_as_supplementary_in_a_north_american_rating() -> None:
    """M27: two hundred ampere, whatever it breaks at home."""
    job = with_names_recorded(set_practice(wash_drum(), rulebook=Rulebook.UL))
    paths = plan_for(job).get(POWER_PATHS)
    assert not [part for part in paths.parts if part.part.ref.startswith("MB3-")], "none is proposed there"
