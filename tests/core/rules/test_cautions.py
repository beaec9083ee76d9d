"""The cautions of docs/cautions.md: each stands there once, with a test that sees it said at its step."""

import re
from pathlib import Path

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import Job
from riktig.core.labels import LABELS, Medium
from riktig.core.proving import FUNCTION
from riktig.core.rules import RULES
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

ROOT = Path(__file__).parents[3]
ROWS = [
    [cell.strip() for cell in line.strip("|").split("|")]
    for line in (ROOT / "docs" / "cautions.md").read_text(encoding="utf-8").splitlines()
    if re.match(r"\| S\d\d ", line)
]
WRITTEN = "\n".join(path.read_text(encoding="utf-8") for path in (ROOT / "tests").rglob("test_*.py"))


def test_every_caution_stands_there_once() -> None:
    assert [row[0] for row in ROWS] == [f"S{number:02}" for number in range(1, 30)]
    assert {row[2] for row in ROWS} == {"on the panel", "at the step", "judged"}


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row[0])
def test_the_test_that_sees_it_is_there(row: list[str]) -> None:
    codes = {result.code for result in plan_for(wash_drum()).get(RULES)}
    assert len(row) == 5
    assert re.search(rf"def {row[4]}\(", WRITTEN), f"{row[0]}: {row[4]}"
    for code in re.findall(r"\b[BCEMNPW]\d\d\b", row[3]):
        assert code in codes, f"{row[0]} names {code}, which is no clause"


@pytest.mark.parametrize("job", [wash_drum(), kelp_shed(), frost_fan()], ids=["drum", "shed", "fan"])
def test_the_door_says_who_may_open_it_and_what_to_do_first(job: Job) -> None:
    """S01 and S16."""
    plates = [label for label in plan_for(job).get(LABELS).on(Medium.WARNING) if label.where == "door, outside"]
    door = next(label for label in plates if "INSIDE" in label.lines[0])
    assert re.search(r"Only skilled persons .* switch off, lock and prove dead", door.lines[1])


def test_a_motor_that_reverses_is_stopped_between_its_ways() -> None:
    """S10: between running one way and starting the other it is off, or a press of the other changes nothing."""
    running = ""
    for step in plan_for(kelp_shed()).get(FUNCTION):
        ways = {words.rpartition(" ")[2] for words in step.expected if words.startswith("M3 ")}
        for way in ("forward", "reverse"):
            if way in ways:
                assert running in ("", way), f"{step.done}: from {running} straight to {way}"
                running = way
        if ways & {"off", "stopped"}:
            running = ""
    assert running in ("", "forward", "reverse")
