"""How a panel is operated from its door: as the circuit does it, not as it was meant."""

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share, some
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.ids import DeviceId
from riktig.core.job import ElementId, Job
from riktig.core.proving import ENERGISED, OPERATING, Operating, seen_of
from riktig.core.proving.live_seen import is_seen
from riktig.core.schematic import CIRCUITS, NAMES, Zone, remove_element, with_names_recorded
from riktig.core.simulation import Runner
from riktig.demo_job import kelp_shed, wash_drum

START, STOP = DeviceId("c1.S.start"), DeviceId("c1.S.stop")


def rows_of(job: Job, circuit: str) -> list[Operating]:
    return [row for row in plan_for(job).get(OPERATING) if row.circuit == circuit]


def test_the_drum_is_started_and_stopped() -> None:
    """By hand: start runs the motor and lights its lamp, stop ends both; the overload is no matter of the door."""
    started, stopped = rows_of(wash_drum(), "c1")
    assert set(started.then) == {(DeviceId("c1.M"), "forward"), (DeviceId("c1.H.run"), "on")}
    assert set(stopped.then) == {(DeviceId("c1.M"), "off"), (DeviceId("c1.H.run"), "off")}
    assert (started.device, stopped.device) == (START, STOP)
    assert started.held == stopped.held == ()


def test_without_its_hold_contact_it_runs_only_while_the_button_is_held() -> None:
    job = with_names_recorded(remove_element(wash_drum(), ElementId("c1.K/13-14")))
    first = rows_of(job, "c1")[0]
    assert first.device == START
    assert (DeviceId("c1.M"), "forward") in first.held
    assert not any(device == "c1.M" for device, _ in first.then)
    rows = schedule("operation", plan_for(job)).as_dicts()
    assert any("while it is held: " in str(row["then"]) for row in rows)


@pytest.mark.parametrize("name", share(SAMPLES, 2)[::3])
def test_what_is_listed_is_at_the_door_or_in_the_field_and_changes_what_is_seen(name: str) -> None:
    plan = plan_for(sample(name))
    devices = {device.id: device for device in plan.get(CIRCUITS).devices}
    for row in plan.get(OPERATING):
        assert row.then or row.held
        assert row.device is None or devices[row.device].zone is not Zone.PLATE
        for device, _does in (*row.then, *row.held):
            assert devices[device].zone is not Zone.PLATE
            assert is_seen(devices[device])


def test_the_first_button_of_a_circuit_does_what_its_row_says() -> None:
    """Told again by pressing it on a panel of its own, with nothing done before."""
    plan = plan_for(kelp_shed())
    tried = 0
    for circuit in {row.circuit for row in plan.get(OPERATING)}:
        first = next(row for row in plan.get(OPERATING) if row.circuit == circuit)
        panel = plan.get(ENERGISED)()
        device = panel.network.devices[first.device] if first.device else None
        if device is None or device.zone is not Zone.DOOR or first.position or first.held:
            continue
        runner = Runner(panel, circuit)
        for step in ("foreign on", f"press {device.id}", f"release {device.id}"):
            runner.do(step)
        asked = dict(first.then)
        assert seen_of(panel, map(panel.network.devices.__getitem__, asked)) == asked
        tried += 1
    assert tried >= 3


def test_the_list_says_each_thing_by_its_tag_and_legend() -> None:
    plan = plan_for(kelp_shed())
    rows = some(schedule("operation", plan).as_dicts())
    tags = plan.get(NAMES).tag
    assert all(str(row["then"]) for row in rows)
    buttons = [row for row in rows if str(row["do"]).startswith("Press")]
    assert all(tags[DeviceId(str(row["id"]))] in str(row["do"]) for row in some(buttons))
    assert any("Wait 40 s" in str(row["do"]) and "delta" in str(row["then"]) for row in rows), "star-delta goes over"
    assert len({(row["circuit"], row["do"], row["then"]) for row in rows}) == len(rows), "nothing is said twice"
