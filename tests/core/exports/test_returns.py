"""The list of returns: every coil and lamp is on it, and one that does not come back is said to be so."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Behaviour
from riktig.core.exports import schedule
from riktig.core.ids import CircuitId, PinRef
from riktig.core.job import Circuit, Job, OwnDevice, OwnRung, Recipe
from riktig.core.schematic import CIRCUITS, NAMES, NETS, with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed

Row = dict[str, str]


def rows(job: Job) -> list[Row]:
    return [{key: str(value) for key, value in row.items()} for row in schedule("returns", plan_for(job)).as_dicts()]


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["kelp shed", "frost fan"])
def test_every_coil_and_lamp_has_its_return_on_the_list_and_its_number(job: Job) -> None:
    evaluation = plan_for(job)
    found = {(row["tag"], row["return"]): row for row in rows(job)}
    tags, of_pin, numbers = evaluation.get(NAMES).tag, evaluation.get(NETS).of_pin, evaluation.get(NAMES).number
    wanted = 0
    for device in evaluation.get(CIRCUITS).devices:
        for unit in device.kind.units:
            if unit.behaviour not in (Behaviour.COIL, Behaviour.LAMP) or not all(
                device.pin(pin) in of_pin for pin in unit.pins
            ):
                continue
            ends = [(tags[device.id], f"{tags[device.id]}:{pin}") for pin in unit.pins]
            here = [end for end in ends if end in found]
            assert len(here) == 1, device.id
            row = found[here[0]]
            pin = PinRef(device.id, here[0][1].rpartition(":")[2])
            assert row["number"] == numbers[of_pin[pin].id]
            assert row["state"] == "at its source"
            wanted += 1
    assert wanted > 5


@pytest.mark.parametrize(
    ("end", "state", "back"),
    [
        ("control.back", "at its source", "7 of T1"),
        ("PE", "returns through the protective conductor", "PE of the supply"),
        ("dc.zero", "between two sources", "M of T2"),
        ("nowhere", "no return", ""),
    ],
)
def test_a_coil_is_said_to_come_back_where_it_is_drawn_to(end: str, state: str, back: str) -> None:
    coil = OwnDevice("K.x", "contactor", "plate", "extra")
    rung = OwnRung("own1", "extra", "control.live", "K.x:A1-A2", end)
    free = Circuit(CircuitId("c90"), Recipe.FREE, title="free", devices=(coil,), rungs=(rung,))
    job = kelp_shed()
    job = with_names_recorded(replace(job, circuits=(*job.circuits, free)))
    (row,) = [row for row in rows(job) if row["for"] == "extra"]
    assert row["state"] == state
    assert back in row["comes_back_to"]
    assert bool(row["comes_back_to"]) == bool(back)


def test_what_lies_between_lines_has_no_return() -> None:
    listed = {row["tag"] for row in rows(kelp_shed())}
    motors = {f"M{n}" for n in range(1, 6)}
    assert not listed & motors
    assert "T1" not in listed, "its primary lies between two lines"
