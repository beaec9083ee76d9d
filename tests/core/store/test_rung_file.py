"""A circuit written by hand: read, checked with the place of every fault, drawn; any circuit goes out and comes in."""

import json
import time

import pytest
from tests.core.schematic.builders import one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import some, times
from tests.shared_plan import plan_for

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, circuit_of
from riktig.core.keys import ElementKey
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import (
    CIRCUITS,
    FAULTS,
    NETS,
    SHEETS,
    add_written,
    as_written,
    elements_of,
    with_names_recorded,
)
from riktig.core.store import WrittenCircuit, dump_job, dump_rungs, load_job, load_rungs
from riktig.core.wiring import WIRING

GOOD = {
    "rungs format": 1,
    "title": "bay light",
    "devices": [
        {"role": "S", "kind": "selector_two", "place": "door", "purpose": "light", "legend": "BAY LIGHT"},
        {"role": "K", "kind": "relay", "purpose": "light"},
        {"role": "H", "kind": "lamp", "place": "door", "purpose": "light on", "legend": "LIGHT ON", "colour": "green"},
    ],
    "rungs": [
        {"role": "run", "title": "light", "from": "c1.control", "path": "S:13-14 K:A1-A2", "to": "N"},
        {"role": "lamp", "from": "c1.control", "path": "K:13-14 H", "to": "N"},
    ],
}


def added(text: str, job: Job | None = None) -> Job:
    written = load_rungs(text, where="bay.json")
    return with_names_recorded(add_written(job or one_motor(), written.title, written.devices, written.rungs))


def test_a_circuit_written_by_hand_is_drawn_numbered_and_judged_like_any_other() -> None:
    job = added(json.dumps(GOOD))
    evaluation = Evaluation(job)
    assert evaluation.get(FAULTS) == ()
    assert evaluation.get(CIRCUITS).clashes == ()
    circuit = job.circuits[-1].id
    nets = [n for n in evaluation.get(NETS).nets if any(circuit_of(pin.device) == circuit for pin in n.pins)]
    assert len(nets) == 4, "the supply, behind the selector, behind the contact, and the return"
    assert any(circuit in sheet.circuits for sheet in evaluation.get(SHEETS).sheets)
    assert not [r.code for r in evaluation.get(RULES) if r.verdict is Verdict.FAILS and r.code.startswith("C")]


def test_the_written_circuit_is_part_of_the_job_and_its_file() -> None:
    job = added(json.dumps(GOOD))
    assert load_job(dump_job(job)) == job


@pytest.mark.parametrize("name", SAMPLES)
def test_any_circuit_goes_out_as_a_rung_file_and_comes_back_the_same(name: str) -> None:
    circuits = Evaluation(sample(name)).get(CIRCUITS)
    for cid, title in some(circuits.titles):
        devices, rungs = as_written(circuits, cid)
        whole = WrittenCircuit(title, devices, rungs)
        assert load_rungs(dump_rungs(whole)) == whole


@pytest.mark.parametrize("name", ["direct-on-line", "both ways", "star-delta", "pump by level", "emergency stop"])
def test_a_recipe_written_out_and_read_in_again_joins_the_same_pins(name: str) -> None:
    job = sample(name)
    circuits, circuit = Evaluation(job).get(CIRCUITS), job.circuits[-1].id
    devices, rungs = as_written(circuits, circuit)
    again = with_names_recorded(add_written(job, "again", devices, rungs))
    copy = again.circuits[-1].id
    after = Evaluation(again).get(NETS)

    def groups(cid: str) -> set[frozenset[str]]:
        mine = (
            frozenset(str(p).removeprefix(f"{cid}.") for p in n.pins if circuit_of(p.device) == cid) for n in after.nets
        )
        return {one for one in mine if len(one) > 1}

    assert groups(copy) == groups(circuit)


def changed(**fields: object) -> str:
    return json.dumps(GOOD | fields)


def with_rung(**fields: object) -> str:
    return changed(rungs=[GOOD["rungs"][0] | fields, GOOD["rungs"][1]])  # type: ignore[index]


def with_device(**fields: object) -> str:
    return changed(devices=[GOOD["devices"][0] | fields, *GOOD["devices"][1:]])  # type: ignore[index]


BAD = {
    "not JSON": ("{", "cannot be read as JSON", ""),
    "another file": ('{"format": 1}', "no “rungs format”", ""),
    "newer": (changed(**{"rungs format": 9}), "newer edition", ""),
    "misspelt field": (with_rung(form="x"), "there is no such field", "$.rungs[0].form"),
    "wrong type": (with_rung(path=7), "Expected `str`", "$.rungs[0].path"),
    "no title": (changed(title=""), "no sheet can name it", "$.title"),
    "no rungs": (changed(rungs=[]), "there is none", "$.rungs"),
    "unknown device": (with_rung(path="S:13-14 K9:A1-A2"), "no device “K9”", "$.rungs[0].path, character 9"),
    "unknown unit": (with_rung(path="S:13-15 K:A1-A2"), "has no unit 13-15", "$.rungs[0].path, character 1"),
    "unknown pin": (with_rung(path="@K:99"), "has no pin 99", "$.rungs[0].path, character 1"),
    "open bracket": (with_rung(path="(S:13-14 K:A1-A2"), "never closed", "$.rungs[0].path, character 1"),
    "bridged": (with_rung(path="(S:13-14 | ) K:A1-A2"), "would be bridged", "$.rungs[0].path, character 12"),
    "stray bracket": (with_rung(path="S:13-14 ) K:A1-A2"), "no bracket before it", "$.rungs[0].path, character 9"),
    "which unit": (with_rung(path="S K:A1-A2"), "say which of", "$.rungs[0].path, character 1"),
    "lines differ": (with_rung(path="c1.K:1-2/3-4/5-6 K:A1-A2"), "has 1 lines", "$.rungs[0].path, character 18"),
    "ends differ": (with_rung(**{"from": "main.L1/main.L2"}), "names 2 lines", "$.rungs[0].path, character 1"),
    "deep": (with_rung(path="(" * 60 + "K:A1-A2" + ")" * 60), "stand more than 30 deep", "$.rungs[0].path"),
    "unknown kind": (with_device(kind="zebra"), "no kind “zebra”", "$.devices[0].kind"),
    "unknown place": (with_device(place="roof"), "is not a place", "$.devices[0].place"),
    "wrong place": (with_device(kind="float_no", place="door"), "stands outside the panel", "$.devices[0].place"),
    "role with a sign": (with_device(role="S:1"), "no role", "$.devices[0].role"),
    "role twice": (with_device(role="K", kind="relay", place="plate"), "there twice", "$.devices[1].role"),
    "rung twice": (with_rung(role="lamp"), "there twice", "$.rungs[1].role"),
    "unknown band": (with_rung(band="middle"), "no kind of sheet", "$.rungs[0].band"),
}


@pytest.mark.parametrize("name", BAD)
def test_what_is_wrong_is_said_with_its_place_and_nothing_is_added(name: str) -> None:
    text, words, where = BAD[name]
    with pytest.raises(RiktigError) as caught:
        added(text)
    assert words in str(caught.value)
    assert where in str(caught.value)
    assert caught.value.hint


def test_all_faults_come_at_once() -> None:
    devices = [*GOOD["devices"], {"role": "Q", "kind": "zebra"}]  # type: ignore[misc]
    rungs = [{"role": f"r{n}", "from": "c1.control", "path": f"K{n}:13-14", "to": "N"} for n in range(5)]
    with pytest.raises(RiktigError) as caught:
        added(changed(devices=devices, rungs=rungs))
    assert [f.where for f in caught.value.faults] == [
        "$.devices[3].kind", *(f"$.rungs[{n}].path, character 1" for n in range(5)),
    ]  # fmt: skip


def test_a_loop_of_named_nodes_and_a_short_from_source_to_source_are_findings_not_hangs() -> None:
    relays = [{"role": f"K{n}", "kind": "relay", "purpose": "ring"} for n in range(4)]
    ring = [
        {"role": f"r{n}", "from": f"n{n}", "path": f"K{n}:13-14", "to": f"n{(n + 1) % 4}"} for n in range(4)
    ]  # fmt: skip
    coils = [{"role": f"c{n}", "from": "c1.control", "path": f"K{n}:A1-A2", "to": "N"} for n in range(4)]
    short = [{"role": "s", "from": "main.L2", "path": "K0:33-34", "to": "x"},
             {"role": "s2", "from": "x", "path": "K1:33-34", "to": "main.L3"}]  # fmt: skip
    job = added(changed(devices=relays, rungs=[*ring, *coils, *short]))
    found = {f.kind: f for f in plan_for(job).get(FAULTS)}
    assert {"no supply", "short"} <= set(found)
    assert "L2" in found["short"].text
    assert "L3" in found["short"].text
    assert isinstance(found["short"].where, ElementKey)


def test_many_hundred_rungs_in_one_circuit_are_drawn_and_judged_without_a_hang() -> None:
    """No time is promised here: the benchmark gives it; this only must come to an end, and soon."""
    many = times(400, 1000)
    relays = [{"role": f"K{n}", "kind": "relay", "purpose": f"step {n}"} for n in range(many)]
    rungs = [
        part
        for n in range(many)
        for part in (
            {"role": f"a{n}", "from": "c1.control", "path": f"K{(n + 1) % many}:13-14 K{n}:A1-A2", "to": "N"},
            {"role": f"b{n}", "from": "c1.control", "path": f"K{n}:33-34 K{(n + 7) % many}:43-44", "to": f"n{n}"},
        )
    ]
    begun = time.monotonic()
    job = added(changed(devices=relays, rungs=rungs))
    evaluation = plan_for(job)
    sheets = evaluation.get(SHEETS)
    assert (
        len({e.id for r in evaluation.get(CIRCUITS).rungs for e in elements_of(r.path)} & set(sheets.places)) > 4 * many
    )
    assert len(evaluation.get(SHEET_DRAWINGS)) == len(sheets.sheets) > 0.28 * many
    assert sum(f.kind == "path ends nowhere" for f in evaluation.get(FAULTS)) == many
    assert time.monotonic() - begun < 120


def test_a_path_of_three_hundred_contacts_goes_over_many_columns() -> None:
    relays = [{"role": f"K{n}", "kind": "relay", "purpose": f"step {n}"} for n in range(100)]
    chain = " ".join(f"K{n}:13-14 K{n}:33-34 K{n}:43-44" for n in range(100))
    coils = [{"role": f"c{n}", "from": "c1.control", "path": f"K{n}:A1-A2", "to": "N"} for n in range(100)]
    lamp = {"role": "H", "kind": "lamp", "place": "door", "purpose": "all", "legend": "ALL"}
    rungs = [{"role": "long", "from": "c1.control", "path": f"{chain} H", "to": "N"}, *coils]
    job = added(changed(devices=[*relays, lamp], rungs=rungs))
    evaluation = Evaluation(job)
    places = evaluation.get(SHEETS).places
    rung = next(r for r in evaluation.get(CIRCUITS).rungs if r.id.endswith(".long"))
    assert all(e.id in places for e in elements_of(rung.path))
    assert evaluation.get(FAULTS) == ()


INCOMER: dict[str, object] = {
    "rungs format": 1,
    "title": "Second incomer",
    "devices": [
        {"role": "W", "kind": "supply", "place": "field", "purpose": "supply"},
        {"role": "X.PE", "kind": "earth_terminal", "purpose": "incoming PE", "mark": "PE"},
        {"role": "PE", "kind": "earth_bar", "purpose": "earth bar"},
        {"role": "E.door", "kind": "stud", "place": "door", "purpose": "door bond"},
        {"role": "E.box", "kind": "stud", "purpose": "enclosure bond"},
    ],
    "rungs": [{"role": "PE", "path": "@W:PE <X.PE:i-f", "title": "PE", "to": "PE", "band": "power"}],
}
ROOT = {"role": "PE.root", "path": "@PE:1", "title": "PE", "from": "PE", "band": "power"}


@pytest.mark.parametrize(
    "odd", ["bar that nothing joins", "bar for a stud of the box", "bar on the door", "block apart"]
)
def test_a_bar_that_is_not_on_the_net_takes_none_of_its_wires(odd: str) -> None:
    text = json.loads(json.dumps(INCOMER))
    kinds = {"bar for a stud of the box": 4, "bar on the door": 3}
    if odd in kinds:
        text["devices"][kinds[odd]]["kind"] = "earth_bar"
        text["rungs"].append(ROOT)
    if odd == "block apart":
        text["devices"].append({"role": "B", "kind": "dist_block", "purpose": "a block that nothing feeds"})
    evaluation = plan_for(added(json.dumps(text)))
    of_pin = evaluation.get(NETS).of_pin
    for wire in evaluation.get(WIRING).wires:
        assert of_pin[wire.start.pin] is of_pin[wire.end.pin], "a wire joins pins of one net"
        assert of_pin[wire.start.pin].id == wire.net
    assert evaluation.get(RULES)
