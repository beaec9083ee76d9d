"""The purchasing table: taken in from the parts list itself, refused by name, and what is short is counted."""

import csv
from dataclasses import replace
from pathlib import Path

import openpyxl
import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import SetPurchases
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import purchase_summary, schedule
from riktig.core.imports import read_purchases
from riktig.core.job import Job, OverloadMount, Purchase, set_practice
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.store import dump_job, load_job
from riktig.core.wiring import WIRING
from riktig.demo_job import kelp_shed, wash_drum


def table(path: Path, *rows: tuple[object, ...]) -> Path:
    with path.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file).writerows(rows)
    return path


def evaluation_with(job: Job, *purchases: Purchase) -> Evaluation[Job]:
    return plan_for(SetPurchases(purchases).apply(plan_for(job)))


def test_the_parts_list_as_csv_filled_in_is_taken_in_again(tmp_path: Path) -> None:
    """Written with another library, a price for each line, and read back: every line of the list is found again."""
    bom = schedule("bom", plan_for(wash_drum()))
    keys = [key for key, _ in bom.columns]
    filled: dict[str, tuple[object, ...]] = {}
    for n, row in enumerate(bom.rows):
        own = {"order_number": f"N-{n}", "price": n + 0.5}
        filled[str(row[0] or row[1])] = tuple(own.get(key, cell) for key, cell in zip(keys, row, strict=True))
    taken = read_purchases(table(tmp_path / "bom.csv", tuple(keys), *filled.values()))
    assert len(taken) == len(filled) > 20
    after = schedule("bom", evaluation_with(wash_drum(), *taken))
    assert all(row["order_number"] for row in after.as_dicts())
    for line in after.as_dicts():
        assert line["sum"] == pytest.approx(float(str(line["price"])) * float(str(line["quantity"])), abs=0.006)


def test_a_workbook_of_the_house_with_its_own_headings(tmp_path: Path) -> None:
    book = openpyxl.Workbook()
    sheet = book.active
    assert sheet is not None
    for row in (("Article", "Order no", "Unit price", "Stock", "Lead time"), ("con-9", "A1", "12,50", 2, "10 days")):
        sheet.append(row)
    book.save(tmp_path / "house.xlsx")
    assert read_purchases(tmp_path / "house.xlsx") == (Purchase("con-9", "A1", "", 12.5, 2.0, 10),)


@pytest.mark.parametrize(
    ("rows", "said"),
    [
        ([("colour", "weight"), ("red", "2")], "names no part"),
        ([("part", "price"), ("CON-9", "twelve")], "line 2"),
        ([("part", "price"), ("CON-9", "-3")], "line 2"),
        ([("part", "price"), ("CON-9", "3"), ("con-9", "4")], "twice"),
        ([("part", "stock"), ("", "4")], "line 2"),
        ([("part", "price"), ("CON-9", "")], "says anything"),
        ([("part", "lead days"), ("CON-9", "1e9")], "line 2"),
    ],
)
def test_a_table_that_cannot_be_used_is_refused_by_line_with_the_remedy(
    tmp_path: Path, rows: list[tuple[object, ...]], said: str
) -> None:
    with pytest.raises(RiktigError) as caught:
        read_purchases(table(tmp_path / "stock.csv", *rows))
    text = str(caught.value) + " ".join(str(fault) for fault in caught.value.faults)
    assert said in text
    assert "stock.csv" in text


def test_what_lies_on_the_shelf_is_not_ordered() -> None:
    rows = schedule("bom", plan_for(kelp_shed())).as_dicts()
    need = sum(float(str(row["quantity"])) for row in rows if row["part"] == "CON-9")
    evaluation = evaluation_with(
        kelp_shed(),
        Purchase("CON-9", "A-9", "north", 10.0, need - 1, 4),
        Purchase("OL-7-10", "B-7", "north", 20.0, 99.0, 30),
    )
    orders = schedule("orders", evaluation).as_dicts()
    by_part = {str(row["part"]): row for row in orders}
    assert (by_part["CON-9"]["order"], by_part["CON-9"]["sum"]) == (1, 10.0)
    assert "OL-7-10" not in by_part
    assert orders[-1]["note"], "what the table does not know stands last, with a word"
    bom = {str(row["part"]): row for row in schedule("bom", evaluation).as_dicts()}
    assert (bom["CON-9"]["short"], bom["OL-7-10"]["short"]) == (1, 0)


def test_without_a_table_nothing_is_ordered_and_nothing_said() -> None:
    evaluation = plan_for(kelp_shed())
    assert schedule("orders", evaluation).rows == ()
    assert purchase_summary(schedule("bom", evaluation), ()) == ""


def test_the_summary_counts_what_is_short_and_names_the_longest_wait() -> None:
    evaluation = evaluation_with(
        kelp_shed(), Purchase("CON-9", "A-9", stock=0.0), Purchase("OL-7-10", lead_days=30), Purchase("left-handed nut")
    )
    text = purchase_summary(schedule("bom", evaluation), evaluation.document.purchases)
    assert "short: 1" in text
    assert "30 days: OL-7-10" in text
    assert "nothing in this panel: 1" in text


def test_the_table_goes_with_the_job() -> None:
    job = replace(kelp_shed(), purchases=(Purchase("CON-9", "A-9", "north", 10.0, 3.0, 4),))
    assert load_job(dump_job(job)).purchases == job.purchases


def test_an_overload_apart_from_its_contactor_has_a_base_and_wires_of_its_own() -> None:
    """By hand: three poles from contactor to overload, for each of the shed's directly started motors."""
    plugged, apart = (
        plan_for(with_names_recorded(set_practice(kelp_shed(), overload_mount=mount)))
        for mount in (OverloadMount.PLUGGED, OverloadMount.APART)
    )

    def bases(evaluation: Evaluation[Job]) -> int:
        rows = schedule("bom", evaluation).as_dicts()
        return sum(int(str(r["quantity"])) for r in rows if "base for an overload" in str(r["description"]))

    more = bases(apart) - bases(plugged)
    assert more == 2, "wash drum and brine pump"
    assert len(apart.get(WIRING).wires) - len(plugged.get(WIRING).wires) == 3 * more
    stands = {stand.block.lead for stand in apart.get(LAYOUT).stands}
    assert {"c2.FO", "c4.FO"} <= stands
    assert [f for r in apart.get(RULES) for f in r.findings if f.verdict is Verdict.FAILS] == []
