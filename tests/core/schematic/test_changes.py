"""What the builder changes survives, or is reported as a clash; nothing is dropped in silence."""

import pytest

from riktig.core.errors import RiktigError
from riktig.core.job import ElementId, Insertable, OverloadContact, change_load, set_practice
from riktig.core.schematic import CIRCUITS, elements_of, insert_contact, remove_element, take_back, with_names_recorded
from tests.core.schematic.builders import COIL, START, STOP, joins, one_motor
from tests.shared_plan import plan_for


def control_path(job: object) -> list[str]:
    circuits = plan_for(job).get(CIRCUITS)  # type: ignore[arg-type]
    rung = next(r for r in circuits.rungs if r.id == "c1.run")
    return [e.id for e in elements_of(rung.path)]


def test_a_second_stop_goes_in_series_behind_the_first() -> None:
    job = insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "stop at the bay")
    assert control_path(job) == ["c1.FO/95-96", STOP, "c1.x1/1-2", START, "c1.K/13-14", COIL]


def test_a_second_start_goes_across_the_first() -> None:
    job = with_names_recorded(
        insert_contact(one_motor(), START, Insertable.START_BUTTON, "second start", parallel=True)
    )
    assert {"S2:3", "S3:3", "K1:13"} <= joins(job)["9"]
    assert {"S2:4", "S3:4", "K1:14"} <= joins(job)["10"]


def test_a_field_contact_brings_its_terminals_and_lies_between_them() -> None:
    job = with_names_recorded(insert_contact(one_motor(), STOP, Insertable.FIELD_CONTACT, "guard switch"))
    found = joins(job)
    assert found["13"] == {"S1:2", "X2:1/i", "X2:1/f", "B1:1"}
    assert {"X2:2/i", "X2:2/f", "B1:2"} <= found["9"]


def test_a_start_taken_out_leaves_the_hold_contact_in_its_place_and_no_orphan() -> None:
    job = with_names_recorded(remove_element(one_motor(), START))
    assert control_path(job) == ["c1.FO/95-96", STOP, "c1.K/13-14", COIL]
    assert not any(d.id == "c1.S.start" for d in plan_for(job).get(CIRCUITS).devices)


def test_changes_survive_another_parameter_of_the_recipe() -> None:
    job = insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop")
    job = set_practice(job, overload_contact=OverloadContact.RETURN)
    job = change_load(job, job.loads[0].id, run_lamp=False)
    assert "c1.x1/1-2" in control_path(job)
    assert plan_for(job).get(CIRCUITS).clashes == ()


def test_a_change_without_its_hold_is_a_clash_and_comes_back_with_it() -> None:
    lamp = ElementId("c1.H.run/X1-X2")
    job = remove_element(one_motor(), lamp)
    gone = change_load(job, job.loads[0].id, run_lamp=False)
    clashes = plan_for(gone).get(CIRCUITS).clashes
    assert len(clashes) == 1
    assert "c1.H.run" in clashes[0].text
    back = change_load(gone, job.loads[0].id, run_lamp=True)
    assert plan_for(back).get(CIRCUITS).clashes == ()
    change = gone.circuits[1].changes[0]
    assert plan_for(take_back(gone, gone.circuits[1].id, change)).get(CIRCUITS).clashes == ()


@pytest.mark.parametrize("element", ["c1.F/1-2", "c9.K/1-2", "c0.Q/1-2"])
def test_only_control_paths_are_changed(element: str) -> None:
    with pytest.raises(RiktigError, match="not in a control path"):
        remove_element(one_motor(), ElementId(element))


def test_everything_may_be_taken_out_and_what_is_left_still_derives() -> None:
    job = one_motor()
    for element in control_path(job):
        job = with_names_recorded(remove_element(job, ElementId(element)))
    assert control_path(job) == []
    assert plan_for(job).get(CIRCUITS).clashes == ()
