"""Papers for whoever runs the panel: faults by the lamps by simulation, care by the parts, the maker's form."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.exports.handover_record import handover_record
from riktig.core.job import Command, Job, add_load, new_job, set_heading, set_supply
from riktig.core.proving import ENERGISED, PANEL_FACTS, lamp_table
from riktig.core.records import (
    AsBuiltClosed,
    Facts,
    JobIssued,
    PanelDispatched,
    PapersWritten,
    Record,
    ServiceVisit,
    SiteItemDone,
    TakenBack,
)
from riktig.core.schematic import NAMES, with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


def test_a_tripped_overload_lights_its_own_lamp_and_no_other() -> None:
    """By hand, from the sheet of the wash drum: H2 is fed over 97-98 of F3."""
    rows = {str(row[0]): row for row in schedule("lamps", plan_for(wash_drum())).rows}
    tripped = next(row for cause, row in rows.items() if "F3" in cause)
    assert tripped[1:3] == ("H2", "none")
    assert "reset it once" in str(tripped[3])


def test_two_motors_have_a_row_each_with_their_own_lamp() -> None:
    job = set_supply(new_job("L", "lamps"), upstream_a=32.0)
    job = add_load(add_load(job, "belt", 1.5), "screw", 2.2, command=Command.BUTTONS)
    evaluation = plan_for(with_names_recorded(job))
    tags = evaluation.get(NAMES).tag
    rows = [
        row for row in lamp_table(evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED)) if row.cause.kind == "tripped"
    ]
    assert len(rows) == 2
    assert len({tags[lamp] for row in rows for lamp in row.lit}) == 2


@pytest.mark.parametrize("make", [wash_drum, kelp_shed, frost_fan])
def test_at_rest_with_nothing_wrong_no_trip_lamp_is_lit(make: object) -> None:
    evaluation = plan_for(make())  # type: ignore[operator]
    first = lamp_table(evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED))[0]
    assert first.cause.kind == "sound"
    assert first.lit == ()


@pytest.mark.parametrize(
    ("make", "has", "lacks"),
    [
        (wash_drum, "traces of heat", "filter"), (kelp_shed, "heat sink", "strike each"),
        (frost_fan, "traces of heat", "heat sink"),
    ],
)  # fmt: skip
def test_care_follows_from_what_is_built_in(make: object, has: str, lacks: str) -> None:
    rows = schedule("maintenance", plan_for(make())).rows  # type: ignore[operator]
    words = " ".join(str(row[1]) for row in rows)
    assert has in words
    assert lacks not in words
    assert "torque marks" in words
    for row in rows:
        dead, live = "proved dead" in str(row[3]), "under load" in str(row[1]) and "under no load" not in str(row[1])
        assert not (dead and live), "nobody measures a voltage at a panel that is proved dead"


def test_the_form_declares_nothing_and_leaves_blank_what_nobody_said() -> None:
    table = schedule("declaration", plan_for(set_heading(wash_drum(), standard="", maker="")))
    rows = {str(row[0]): str(row[1]) for row in table.rows}
    assert set(str(rows["Was made to the standards"])) == {"_"}
    assert str(rows["Maker, with address"]).startswith("____")
    assert "declares nothing" in str(rows["Note"])
    american: Job = frost_fan()
    assert not [row for row in schedule("declaration", plan_for(american)).rows if str(row[0]).startswith("Follows")]
    ticks = [row for row in schedule("declaration", plan_for(wash_drum())).rows if str(row[0]).startswith("Follows")]
    assert len(ticks) == 3
    assert all(str(row[1]).startswith("[  ]") for row in ticks)


def test_the_record_of_hand_over_prints_the_reason_and_leaves_out_what_was_taken_back() -> None:
    facts: list[Facts] = [
        JobIssued("A", "for consent", 3, 10, "9c1f" * 16), PapersWritten("9c1f", "A", 80, "/x"),
        PanelDispatched("shed", "0417-01", "the lamp follows", "1 wire"), SiteItemDone("close the door", "done"),
        AsBuiltClosed("0417-01", "9c1f"), ServiceVisit("fan trips", "filter washed", "mat", "2027-06"),
        JobIssued("B", "too early", 4, 11, ""),
    ]  # fmt: skip
    log = [Record(f"r{n}", "x", fact, "Ida", "2026-12-01T08:00:00", 1) for n, fact in enumerate(facts)]
    log.append(Record("r9", "x", TakenBack("too early"), "Ida", "2026-12-01T09:00:00", 1, "r6"))
    rows = handover_record(plan_for(wash_drum()), log).rows
    assert [row[0] for row in rows] == ["issue", "documents", "dispatch", "on site", "as built", "service visit"]
    assert rows[2][2] == "although the lamp follows; missing then: 1 wire"
    assert rows[5][2] == "filter washed; parts: mat; next visit: 2027-06"
