"""Jobs written before an answer was asked: what is not said in the file is as a new job has it."""

import json

import pytest

from riktig.core.errors import RiktigError
from riktig.core.job import Command, Direction, Practice, Protection, Start, add_load, add_signal, new_job
from riktig.core.store import dump_job, load_job
from riktig.demo_job import kelp_shed, wash_drum

LATER = {
    "job": ("sources", "sources_asked", "signals", "overrides"),
    "loads": (
        "hp",
        "kind",
        "phases",
        "start",
        "command",
        "protection",
        "duty",
        "service_factor",
        "reason",
        "neutral_of",
    ),
    "practice": ("tags", "numbering", "control_supply", "house_colours", "second_reading", "way_order"),
    "supply": ("through_a", "fed_from"),
    "enclosure": ("room_c", "standing", "ventilation", "field_entry", "environment"),
}


def without(names: dict[str, tuple[str, ...]]) -> str:
    data = json.loads(dump_job(wash_drum()))
    job = data["job"]
    for name in names["job"]:
        del job[name]
    for part in ("practice", "supply", "enclosure"):
        for name in names[part]:
            del job[part][name]
    for load in job["loads"]:
        for name in names["loads"]:
            del load[name]
    return json.dumps(data)


def test_a_job_written_before_these_answers_were_asked_still_opens() -> None:
    job = load_job(without(LATER))
    assert job.loads[0].start is Start.DIRECT
    assert job.loads[0].protection is Protection.BREAKER
    assert job.practice == Practice()
    assert job.sources_asked is False
    assert job.loads[0].kw == 4


@pytest.mark.parametrize(
    ("spoil", "path"),
    [
        (lambda job: job["loads"][0].update(start="by rope"), "$.job.loads[0].start"),
        (lambda job: job["loads"][0].update(kw=None, nameplate_a=None), "$.job.loads[0]"),
        (lambda job: job["overrides"].append({"key": "m1.breaker", "amount": -4, "reason": "x"}), "$.job.overrides[0]"),
        (lambda job: job["signals"][0].update(watts="much"), "$.job.signals[0].watts"),
        (lambda job: job["sources"][0].update(voltage_v=0), "$.job.sources[0]"),
        (lambda job: job["practice"].update(house_colours=["mauve"]), "$.job.practice"),
    ],
)
def test_a_wrong_answer_in_a_job_is_named_by_its_path(spoil: object, path: str) -> None:
    data = json.loads(dump_job(kelp_shed()))
    spoil(data["job"])  # type: ignore[operator]
    with pytest.raises(RiktigError) as caught:
        load_job(json.dumps(data))
    assert path in str(caught.value)


def test_a_reversing_starter_of_an_earlier_format_is_read_under_its_old_name() -> None:
    """Up to format 2 it was called “direct-on-line, both ways”, in loads and circuits."""
    job = add_load(new_job("R-1", "old"), "winch", 4.0, start=Start.REVERSING, command=Command.BOTH_WAYS)
    text = dump_job(job)
    assert text.count('"direct-on-line, reversing"') == 2
    old = text.replace("direct-on-line, reversing", "direct-on-line, both ways").replace('"format":3', '"format":2')
    assert '"format":2' in old
    assert load_job(old) == job
    with pytest.raises(RiktigError):
        load_job(text.replace("direct-on-line, reversing", "direct-on-line, three ways"))


def test_a_field_device_of_an_earlier_format_is_read_under_its_old_name() -> None:
    job = add_signal(new_job("R-2", "old"), "damper", direction=Direction.OUT)
    text = dump_job(job)
    assert '"receives from the panel"' in text
    assert load_job(text.replace("receives from the panel", "is told by the panel")) == job
