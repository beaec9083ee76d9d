"""W09: the colour of a terminal's body says what lands on it; green is the earth's alone."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import ChoosePart, KeepParts
from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId
from riktig.core.job import Job, OwnPart
from riktig.core.keys import DeviceKey
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.demo_job import frost_fan, kelp_shed


def judged(job: Job) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == "W09")


def with_part(device: str, kind: str, colour: str) -> Job:
    own = OwnPart("T-OWN", kind, "terminal of our own", 6.2, 48.0, 42.0, max_mm2=4.0, colour=colour)
    job = KeepParts((own,)).apply(plan_for(kelp_shed()))
    return ChoosePart(DeviceId(device), "T-OWN").apply(plan_for(job))


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["kelp shed", "frost fan"])
def test_the_terminals_of_the_catalogue_have_the_colours_of_their_roles(job: Job) -> None:
    result = judged(job)
    assert result.findings == ()
    assert any(line.startswith("earth: green-yellow") for line in result.evidence)


@pytest.mark.parametrize(
    ("device", "kind", "colour", "verdict"),
    [
        ("c2.X.U", "terminal", "green", Verdict.FAILS),
        ("c2.X.U", "terminal", "green-yellow", Verdict.FAILS),
        ("c2.X.U", "terminal", "light blue", Verdict.JUDGE),
        ("c2.X.PE", "earth_terminal", "grey", Verdict.JUDGE),
        ("c6.X.N", "neutral_terminal", "grey", Verdict.JUDGE),
        ("c6.X.N", "neutral_terminal", "blue", None),
        ("c2.X.U", "terminal", "orange", None),
        ("c2.X.U", "terminal", "", None),
    ],
)
def test_one_of_another_colour_is_said(device: str, kind: str, colour: str, verdict: Verdict | None) -> None:
    result = judged(with_part(device, kind, colour))
    assert [(f.where, f.verdict) for f in result.findings] == (
        [(DeviceKey(DeviceId(device)), verdict)] if verdict else []
    )
    assert all(colour in f.message for f in result.findings)


def test_a_colour_that_no_terminal_has_is_refused() -> None:
    with pytest.raises(ImpossibleValueError, match="tartan"):
        OwnPart("T-1", "terminal", colour="tartan")
