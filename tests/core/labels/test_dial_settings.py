"""The setting of a dial stands on the label of its device, and a part is called as its market calls it."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports.lists import schedule
from riktig.core.job import (
    Job,
    Protection,
    Rulebook,
    StarDeltaOverload,
    Start,
    add_load,
    new_job,
    override,
    set_practice,
)
from riktig.core.keys import DeviceKey
from riktig.core.labels import LABELS, Medium
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.sizing import DIAL_SETTINGS
from riktig.core.views import details_of


def mixer(protection: Protection = Protection.BREAKER, start: Start = Start.DIRECT) -> Job:
    return add_load(new_job("D", "dairy"), "mixer", 7.5, nameplate_a=15.2, protection=protection, start=start)


def on_labels(job: Job) -> dict[str, str]:
    evaluation = plan_for(job)
    tags = evaluation.get(NAMES).tag
    dials = {tags[device] for device in evaluation.get(DIAL_SETTINGS)}
    labels = evaluation.get(LABELS).on(Medium.DEVICE)
    return {label.lines[0]: label.lines[1] for label in labels if label.lines[0] in dials}


@pytest.mark.parametrize("protection", [Protection.BREAKER, Protection.PROTECTOR, Protection.FUSES])
def test_the_label_of_a_dial_says_the_nameplate_current(protection: Protection) -> None:
    """IEC 60947-4-1, from memory: an overload relay is set to the motor's rated current."""
    assert list(on_labels(mixer(protection)).values()) == ["set to 15.2 A"]


def test_inside_the_triangle_the_dial_is_set_to_the_current_of_a_winding() -> None:
    """1/√3 of the line current flows in a winding."""
    inside, line = (
        on_labels(set_practice(mixer(start=Start.STAR_DELTA), star_delta_overload=at)) for at in StarDeltaOverload
    )
    assert list(line.values()) == ["set to 15.2 A"]
    (text,) = inside.values()
    assert float(text.split()[2]) == pytest.approx(15.2 / 3**0.5, abs=0.05)


def test_what_the_builder_sets_stands_on_the_label() -> None:
    job = mixer()
    key = f"{job.loads[0].id}.setting"
    assert list(on_labels(override(job, key, 14.0, "measured")).values()) == ["set to 14 A"]


def test_a_drive_has_no_dial() -> None:
    assert on_labels(mixer(start=Start.DRIVE)) == {}


def test_a_thermal_magnetic_device_has_the_name_of_its_market() -> None:
    """“Motor circuit protector” means a magnetic-only device in North America (common practice, no source)."""
    called = {}
    for book in Rulebook:
        evaluation = plan_for(set_practice(mixer(Protection.PROTECTOR), rulebook=book))
        device = next(d for d in evaluation.get(CIRCUITS).devices if d.kind.sized_as == "motor protector")
        bought = next(str(r[1]) for r in schedule("bom", evaluation).rows if "13 to 18 A" in str(r[1]))
        shown = details_of(evaluation, DeviceKey(device.id), ())
        assert shown and bought.startswith(shown.kind)
        called[book] = shown.kind
    assert called == {Rulebook.IEC: "motor protector", Rulebook.UL: "self-protected combination starter"}
