"""Everything that is bought, counted from the panel itself, and the same in kits in the order of the work."""

from collections import Counter

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.holes import ENTRIES, HOLES
from riktig.core.job import Job
from riktig.core.labels import LABELS
from riktig.core.schematic import CIRCUITS
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


@pytest.fixture(params=[kelp_shed, frost_fan, wash_drum], ids=["shed", "fan", "drum"])
def evaluation(request: pytest.FixtureRequest) -> Evaluation[Job]:
    return plan_for(request.param())


def bought(evaluation: Evaluation[Job]) -> Counter[str]:
    counts: Counter[str] = Counter()
    for row in schedule("bom", evaluation).rows:
        counts[str(row[1])] += float(str(row[2]))  # type: ignore[assignment]
    return counts


def test_box_plate_glands_screws_and_labels_are_on_the_list(evaluation: Evaluation[Job]) -> None:
    counts, job = bought(evaluation), evaluation.document
    boxes = [text for text in counts if text.startswith("enclosure ")]
    assert len(boxes) == 1
    assert f"{job.enclosure.width:g}" in boxes[0]
    assert job.enclosure.rating in boxes[0]
    fitted = Counter(entry.fitting.size for entry in evaluation.get(ENTRIES).entries if entry.fitting)
    what = "conduit hub" if job.practice.rulebook.north_american else "cable gland with nut"
    assert {size: counts[f"{what} {size}"] for size in fitted} == fitted
    tapped = Counter(hole.tap for hole in evaluation.get(HOLES) if hole.tap)
    assert {tap: counts[f"screw {tap} with washers"] for tap in tapped} == tapped
    labels = sum(label.copies for label in evaluation.get(LABELS).labels)
    listed = sum(float(str(row[2])) for row in schedule("bom", evaluation).rows if row[5] == "6 labels")
    assert listed == labels
    assert counts["end stop"] == 2 * len(evaluation.get(STRIPS).strips)


def test_every_part_of_the_panel_is_bought_once_whatever_its_kit(evaluation: Evaluation[Job]) -> None:
    rows = [row for row in schedule("bom", evaluation).rows if row[0]]
    inside = [part for part in evaluation.get(SIZING).parts.values() if part.kind.mounting.value != "field"]
    assert Counter(part.ref for part in inside) == Counter(
        {ref: sum(int(str(row[2])) for row in rows if row[0] == ref) for ref in {str(row[0]) for row in rows}}
    )
    devices = evaluation.get(CIRCUITS).devices
    on_door = {d.id for d in devices if d.zone.value == "door" and not d.strip} & set(evaluation.get(SIZING).parts)
    door = sum(int(str(row[2])) for row in rows if row[5] == "5 door")
    assert door == sum(evaluation.get(SIZING).parts[d].kind.mounting.value != "field" for d in on_door)


def test_the_pick_list_has_the_same_lines_in_the_order_of_the_work(evaluation: Evaluation[Job]) -> None:
    bom, picks = schedule("bom", evaluation), schedule("picks", evaluation)
    assert Counter(row[:5] for row in bom.rows) == Counter(row[1:6] for row in picks.rows)
    kits = [str(row[0]) for row in picks.rows]
    assert kits == sorted(kits)
    assert {kit[0] for kit in kits} >= {"1", "2", "3", "4", "5", "6", "7"}
    assert all(row[6:] == ("", "") for row in picks.rows), "what was put ready is written in by hand"
