"""What the finder answers first, how many answers it gives, and what it calls contacts and lines of the ladder."""

from tests.shared_plan import plan_for

from riktig.core.job import DeviceId, Rulebook, add_load, new_job, set_practice, set_supply
from riktig.core.keys import DeviceKey, PlaceKey
from riktig.core.labels import INDEX, find
from riktig.core.labels.index import IndexEntry, index_of
from riktig.core.schematic import SHEETS, with_names_recorded


def entries(*labels: str) -> list[IndexEntry]:
    return [IndexEntry(label, "device", DeviceKey(DeviceId(f"c1.{n}"))) for n, label in enumerate(labels)]


def labels(found: tuple[IndexEntry, ...]) -> list[str]:
    return [entry.label for entry in found]


def test_the_label_itself_comes_before_those_that_begin_with_it() -> None:
    index = index_of(entries("K12", "K1", "K11", "X1:K1"))
    assert labels(find(index, "k1"))[0] == "K1"
    assert set(labels(find(index, "k1"))[1:3]) == {"K12", "K11"}


def test_the_first_of_the_sorted_labels_is_found_too() -> None:
    """The search begins at the first label that is not smaller: one that is equal counts."""
    index = index_of(entries("a1", "b1", "c1"))
    assert labels(find(index, "a1")) == ["a1"]
    assert labels(find(index, "c1")) == ["c1"]


def test_no_more_answers_come_than_are_asked_for() -> None:
    index = index_of(entries(*(f"K{n}" for n in range(40))))
    assert len(find(index, "k", 5)) == 5
    assert len(find(index, "k")) == 12
    # A place of the sheets is the first of them, and counts.
    index = index_of(entries(*(f"2.3 {n}" for n in range(40))))
    answers = find(index, "2.3", 5)
    assert len(answers) == 5
    assert answers[0].key == PlaceKey("2.3")


def test_a_contact_that_keeps_its_own_coil_in_is_called_its_hold() -> None:
    job = with_names_recorded(add_load(new_job(), "fan", 1.5))
    index = plan_for(job).get(INDEX)
    contacts = {
        entry.label: entry.what for entry in index.entries if "contact" in entry.what and ":" not in entry.label
    }
    holds = [label for label, what in contacts.items() if what.startswith("hold contact")]
    lamps = [label for label, what in contacts.items() if what.startswith(("closing", "opening"))]
    assert len(holds) == 1  # a direct-on-line starter with buttons has one
    assert lamps  # its lamps hang on other contacts
    assert not set(holds) & set(lamps)


def test_every_line_of_the_ladder_is_found_once_at_its_own_number() -> None:
    job = set_supply(new_job(), voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
    job = with_names_recorded(add_load(set_practice(job, rulebook=Rulebook.UL), "fan", 1.5))
    evaluation = plan_for(job)
    lines = [entry for entry in evaluation.get(INDEX).entries if entry.label.startswith("line ")]
    sheets = evaluation.get(SHEETS).sheets
    drawn = sum(len(sheet.lines) for sheet in sheets)
    assert drawn
    assert len(lines) == len({entry.label for entry in lines}) == drawn
    for sheet in sheets:
        own = [entry for entry in lines if entry.what.endswith(f"sheet {sheet.number}")]
        numbers = [int(entry.label.split()[1]) for entry in own]
        assert numbers == list(range(sheet.first_line, sheet.first_line + len(sheet.lines)))
