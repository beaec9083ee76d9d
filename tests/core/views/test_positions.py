"""The truth table of a selector in its details: which contacts are closed in which position."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import Command, Rulebook, add_load, new_job, set_practice
from riktig.core.keys import DeviceKey
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.views import details_of


def page_of(command: Command, kind: str, rulebook: Rulebook = Rulebook.IEC) -> dict[str, dict[str, str]]:
    job = set_practice(new_job("P", "positions"), rulebook=rulebook)
    evaluation = plan_for(with_names_recorded(add_load(job, "pump", 1.5, command=command)))
    device = next(d for d in evaluation.get(CIRCUITS).devices if kind in d.kind_id)
    page = details_of(evaluation, DeviceKey(device.id), ())
    assert page is not None
    return {section.title: {row.name: row.value for row in section.rows} for section in page.sections}


@pytest.mark.parametrize(
    ("command", "kind", "closed"),
    [
        (Command.LEVEL, "_hoa", {"off": "no contact closed", "hand": "13-14", "auto": "23-24"}),
        (Command.SELECTOR, "_two", {"off": "21-22", "on": "13-14"}),
    ],
)
def test_each_position_says_which_contacts_it_closes(command: Command, kind: str, closed: dict[str, str]) -> None:
    """Hand by the first contact, automatic by the second, off by none (common practice, no source)."""
    assert page_of(command, kind)["Positions"] == closed


def test_what_is_not_turned_has_no_positions() -> None:
    assert "Positions" not in page_of(Command.BUTTONS, "start_button")


@pytest.mark.parametrize("rulebook", list(Rulebook))
def test_where_a_contact_is_drawn_is_said_by_sheet_or_by_line(rulebook: Rulebook) -> None:
    where = page_of(Command.LEVEL, "_hoa", rulebook)["Where"]
    word = "Line, 13-14" if rulebook is Rulebook.UL else "Sheet, 13-14"
    assert word in where
    assert ("sheet" in where[word]) is (rulebook is Rulebook.UL)
