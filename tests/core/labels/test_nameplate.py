"""The nameplate against the published lists of both rulebooks; each missing item named; nothing claimed."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import Job, Rulebook, add_source, set_enclosure, set_heading, set_marks, set_practice, set_supply
from riktig.core.labels import NAMEPLATE, Medium, misfit_texts
from riktig.core.labels.derived import LABELS
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.standards.tables import table
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

ITEMS = {
    # What the lists ask for, by a word of theirs, and the field that says it (nameplate_items.csv, from memory).
    "name or trade mark of supplier": "Maker", "assembly manufacturer": "Maker", "manufacturer name": "Maker",
    "manufacturer name, trademark": "Maker", "name or trademark": "Maker",
    "type designation": "Designation", "serial number": "Serial number", "main document": "Document",
    "rated voltage": "Supply", "supply voltage": "Supply", "identifying date": "Made", "IEC 61439-X": "Standard",
    "largest motor": "Largest motor", "short-circuit": "Short-circuit rating", "enclosure type": "Enclosure type",
    "wiring diagram": "Document", "electrical diagram": "Document", "full-load current": "Full-load current",
    "maximum ampere rating": "Main protection",
    "certification mark": "Panel mark", "more than one disconnecting": "Supplies",
}  # fmt: skip
ELSEWHERE = ("field-wiring", "service equipment", "product information")
"""Asked for, and not on the plate: field wiring has a plate, the rest is in the documents."""


def fields(job: Job) -> dict[str, tuple[str, bool]]:
    return {f.name: (f.value, f.required) for f in plan_for(job).get(NAMEPLATE)}


def test_every_item_of_the_published_lists_has_its_field_or_is_said_elsewhere() -> None:
    names = set(fields(frost_fan())) | set(fields(kelp_shed()))
    for row in table("nameplate_items").rows:
        item = row["item"]
        if any(word in item for word in ELSEWHERE):
            continue
        said_by = {field for words, field in ITEMS.items() if words in item}
        assert said_by, item
        assert said_by <= names, item


@pytest.mark.parametrize(
    ("name", "value"),
    [
        ("Maker", "Riktig demonstration shop"), ("Designation", "KS-0418"), ("Serial number", "0418-01"),
        ("Made", "2026-12"), ("Document", "KS-0418-10"), ("Supply", "3/N/PE 400/230 V 50 Hz"),
        ("Short-circuit rating", "10 kA at 400 V"), ("Enclosure type", "IP65"), ("Control voltage", "230 V"),
        ("Supplies", "2: switch off all before work, see their plates"), ("Largest motor", "22 A"),
    ],
)  # fmt: skip
def test_the_plate_of_the_kelp_shed(name: str, value: str) -> None:
    assert fields(kelp_shed())[name][0] == value


@pytest.mark.parametrize(
    ("blank", "name", "rulebook"),
    [
        ({"maker": ""}, "maker", Rulebook.IEC), ({"serial": ""}, "serial number", Rulebook.IEC),
        ({"made": ""}, "made", Rulebook.IEC), ({"standard": ""}, "standard", Rulebook.IEC),
        ({"drawing_number": ""}, "document", Rulebook.IEC), ({"number": ""}, "designation", Rulebook.IEC),
        ({"maker": ""}, "maker", Rulebook.UL), ({"serial": ""}, "serial number", Rulebook.UL),
        ({"drawing_number": ""}, "document", Rulebook.UL),
    ],
)  # fmt: skip
def test_each_missing_item_is_named_with_what_asks_for_it(blank: dict[str, str], name: str, rulebook: Rulebook) -> None:
    job = set_practice(wash_drum(), rulebook=rulebook)
    result = next(r for r in plan_for(set_heading(job, **blank)).get(RULES) if r.code == "M01")  # type: ignore[arg-type]
    texts = [finding.message for finding in result.findings if finding.verdict is Verdict.FAILS]
    assert any(
        text.startswith(f"Nameplate: {name} missing (") and ("IEC" in text or "NEC" in text or "NFPA" in text)
        for text in texts
    )


def test_an_enclosure_without_its_type_is_missed_in_north_america_alone() -> None:
    job = set_enclosure(wash_drum(), rating="")
    assert fields(job)["Enclosure type"] == ("", False)
    assert fields(set_practice(job, rulebook=Rulebook.UL))["Enclosure type"] == ("", True)


def test_one_supply_says_nothing_of_several_and_two_do() -> None:
    assert fields(wash_drum())["Supplies"] == ("", False)
    several = fields(add_source(wash_drum(), "Fire alarm", 24.0, "the fire panel"))["Supplies"]
    assert several[0].startswith("2:")
    assert several[1]


def test_a_mark_of_the_panel_stands_on_its_plate_with_its_number_and_is_never_proposed() -> None:
    assert fields(frost_fan())["Panel mark"] == fields(frost_fan())["Number of the mark"] == ("", False)
    marked = set_marks(frost_fan(), enclosure="type 4X", panel="industrial control panel", number="P-1042")
    assert fields(marked)["Panel mark"] == ("industrial control panel", True)
    assert fields(marked)["Number of the mark"] == ("P-1042", True)
    assert "type 4X" not in " ".join(value for value, _ in fields(marked).values()), "that is of the empty box"


def test_a_mark_without_its_number_is_missed_on_the_plate() -> None:
    job = set_marks(wash_drum(), panel="declared", date="2026-12-01")
    result = next(r for r in plan_for(job).get(RULES) if r.code == "M01")
    assert any(f.message.startswith("Nameplate: number of the mark missing (common practice") for f in result.findings)


def test_the_date_and_the_standard_are_never_proposed() -> None:
    """What a panel is declared to, its maker says."""
    bare = replace(wash_drum(), made="", standard="")
    assert fields(bare)["Made"] == ("", True)
    assert fields(bare)["Standard"] == ("", True)


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan(), wash_drum()], ids=["shed", "fan", "drum"])
def test_everything_stands_on_the_plate_and_fits(job: Job) -> None:
    evaluation = plan_for(with_names_recorded(job))
    (plate,) = evaluation.get(LABELS).on(Medium.NAMEPLATE)
    filled = [f"{f.name}: {f.value}" for f in evaluation.get(NAMEPLATE) if f.value]
    assert list(plate.lines) == filled
    assert misfit_texts(plate) == ()


def test_the_rating_is_that_of_the_panel_whatever_the_supply_gives() -> None:
    """By hand: the weakest part of the shed bears 10 kA; a supply of 3 kA makes it no more and no less."""
    assert fields(set_supply(kelp_shed(), fault_ka=3.0))["Short-circuit rating"][0] == "10 kA at 400 V"
