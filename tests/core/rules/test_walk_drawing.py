"""The picture of the walk: every group and every circuit once, with the verdicts and findings that are theirs."""

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.geometry import Face, Poly, Text, run_of
from riktig.core.ids import circuit_of
from riktig.core.job import ElementId, Job
from riktig.core.keys import DeviceKey, PartKey
from riktig.core.rules import RULES, WALK_DRAWING, Group, Verdict, circuit_at, group_key, group_of_key
from riktig.core.schematic import CIRCUITS, remove_element, with_names_recorded
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed


def texts(job: Job) -> list[str]:
    return [shape.text for shape in plan_for(job).get(WALK_DRAWING).shapes if isinstance(shape, Text)]


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["shed", "fan"])
def test_every_group_and_every_circuit_stands_there_once(job: Job) -> None:
    evaluation = plan_for(job)
    drawing = evaluation.get(WALK_DRAWING)
    keys = [shape.key for shape in drawing.shapes if isinstance(shape, Poly) and shape.key]
    assert [group_of_key(key) for key in keys if isinstance(key, PartKey)] == list(Group)
    at = [circuit_of(key.device) for key in keys if isinstance(key, DeviceKey)]
    circuits = evaluation.get(CIRCUITS)
    drawn = {device.circuit for device in circuits.devices}
    assert at == [circuit for circuit, _title in circuits.titles if circuit in drawn]


def test_the_counts_are_those_of_the_clauses() -> None:
    job = kelp_shed()
    results = plan_for(job).get(RULES)
    shown = texts(job)
    for verdict, sign in ((Verdict.MEETS, "✓"), (Verdict.JUDGE, "?")):
        by_group = [sum(r.verdict is verdict for r in results if r.group is group) for group in Group]
        assert [f"{sign} {count}" for count in by_group if count] == [
            text for text in shown[: shown.index("Incomer")] if text.startswith(sign)
        ]


def test_a_fault_is_marked_at_its_circuit() -> None:
    job = with_names_recorded(remove_element(kelp_shed(), ElementId("c3.KR/21-22")))
    evaluation = plan_for(job)
    findings = [f for r in evaluation.get(RULES) for f in r.findings if f.verdict is Verdict.FAILS]
    wiring = evaluation.get(WIRING)
    assert {circuit_at(finding.where, wiring) for finding in findings} == {"c3"}
    assert any(text.startswith(f"✗ {len(findings)}") for text in texts(job))


@pytest.mark.parametrize("name", share(SAMPLES, 0)[::3])
def test_no_text_leaves_the_picture_whatever_the_job(name: str) -> None:
    drawing = plan_for(sample(name)).get(WALK_DRAWING)
    for shape in drawing.shapes:
        if isinstance(shape, Text):
            assert shape.text
            length = run_of(shape.text, mono=shape.face in (Face.PRINTED, Face.PRINTED_BOLD)) * shape.size
            assert shape.x >= 0
            assert shape.x + length <= drawing.width + 0.1, shape.text
            assert shape.y <= drawing.height


def test_a_key_stands_for_its_group_and_no_other_key_does() -> None:
    assert [group_of_key(group_key(group)) for group in Group] == list(Group)
    assert group_of_key(PartKey("supply")) is None
    assert group_of_key(None) is None
