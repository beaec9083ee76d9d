"""Lamps of the phases: all white, or each in the colour of its phase."""

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.job import Job, Param, Recipe
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, add_circuit, with_names_recorded


def lamps(colours: str) -> Job:
    return with_names_recorded(add_circuit(one_motor(), Recipe.PHASE_LAMPS, "phases", (Param("colours", colours),)))


@pytest.mark.parametrize(
    ("colours", "drawn", "bought"),
    [
        ("white", ["white"] * 3, {"LED signal lamp white, for 230 V 50 Hz": 3}),
        (
            "red, yellow, blue",
            ["red", "yellow", "blue"],
            {f"LED signal lamp {colour}, for 230 V 50 Hz": 1 for colour in ("red", "blue")},
        ),
    ],
)
def test_the_colour_is_drawn_and_bought(colours: str, drawn: list[str], bought: dict[str, int]) -> None:
    evaluation = plan_for(lamps(colours))
    of_phases = [d for d in evaluation.get(CIRCUITS).devices if d.purpose.endswith("present")]
    assert [device.colour for device in of_phases] == drawn
    counted = {row[1]: row[2] for row in schedule("bom", evaluation).rows}
    assert bought.items() <= counted.items()


@pytest.mark.parametrize(("colours", "signed"), [("white", 0), ("red, yellow, blue", 2)])
def test_a_person_signs_for_red_and_blue(colours: str, signed: int) -> None:
    """IEC 60204-1 Table 4, from memory: red says danger, blue what must be done."""
    clause = next(r for r in plan_for(lamps(colours)).get(RULES) if r.code == "C03")
    assert [f.verdict for f in clause.findings] == [Verdict.JUDGE] * signed
