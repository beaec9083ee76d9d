"""Capabilities: kinds are asked what they can do, and nowhere outside the catalogue what they are called."""

import ast
from pathlib import Path

import pytest
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can, Mounting, kinds, part, parts
from riktig.core.ids import CircuitId
from riktig.core.job import circuit_inputs, new_job
from riktig.core.schematic import CIRCUITS
from riktig.core.schematic.templates.circuit_builder import CircuitBuilder
from riktig.core.schematic.templates.implied_circuits import job_supply_context
from riktig.demo_job import DEMOS, demo_job

SOURCES = Path(__file__).parents[3] / "src" / "riktig"
NAMES = {"kind_id", "family"}


def names_a_kind(node: ast.expr) -> bool:
    """Whether an expression is the name of a kind or family: ``x.kind_id``, ``x.family``, ``kind.id``."""
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
        return names_a_kind(node.func.value)  # .removesuffix(...), .startswith(...)
    if isinstance(node, ast.Attribute):
        return node.attr in NAMES or (node.attr == "id" and ast.unparse(node.value).rpartition(".")[2] == "kind")
    return isinstance(node, ast.Name) and node.id == "kind_id"


def asked_by_name(path: Path) -> list[str]:
    """Every place of a file that decides by the name of a kind: comparisons, look-ups in tables, matches."""
    found = []
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        decides = (
            (isinstance(node, ast.Compare) and any(map(names_a_kind, (node.left, *node.comparators))))
            or (isinstance(node, ast.Subscript) and names_a_kind(node.slice))
            or (isinstance(node, ast.Match) and names_a_kind(node.subject))
            or (
                isinstance(node, ast.Call)
                and isinstance(node.func, ast.Attribute)
                and (
                    (node.func.attr == "get" and any(map(names_a_kind, node.args)))
                    or (node.func.attr in ("startswith", "endswith") and names_a_kind(node.func.value))
                )
            )
        )
        if decides:
            found.append(f"{path}:{getattr(node, 'lineno', 0)} {ast.unparse(node)}")
    return found


def test_no_code_outside_the_catalogue_decides_by_the_name_of_a_kind() -> None:
    asked = [
        place
        for path in sorted(SOURCES.rglob("*.py"))
        if "catalogue" not in path.parts
        for place in asked_by_name(path)
    ]
    assert asked == []


@pytest.mark.parametrize(
    "text",
    [
        'device.kind_id == "stud"',
        'seat.part.kind.family in ("lamp", "buzzer")',
        "TABLE[device.kind_id]",
        "TABLE.get(device.kind.family, 0)",
        'device.kind_id.startswith("load")',
        'kind.id != "drive"',
        "match device.kind_id:\n    case 'stud':\n        pass",
    ],
)
def test_the_count_sees_every_way_to_ask(tmp_path: Path, text: str) -> None:
    (tmp_path / "a.py").write_text(text)
    assert len(asked_by_name(tmp_path / "a.py")) == 1


def test_every_capability_is_some_kinds() -> None:
    given = {ability for kind in kinds() for ability in kind.abilities}
    assert given == set(Can)


def test_every_rating_stands_in_the_field_of_its_unit() -> None:
    for one in parts():
        fields = {"A": one.rated_a, "VA": one.rated_va, "m³/h": one.flow_m3_h}
        assert sum(bool(value) for value in fields.values()) <= 1, one.ref
        assert bool(one.rated_va) == one.kind.can(Can.TRANSFORMS), one.ref
        assert bool(one.flow_m3_h) == one.kind.can(Can.VENTILATES), one.ref
    assert part("TR-100").rated_va == 100.0
    assert part("FF-55").flow_m3_h == 55.0


def test_what_is_plugged_under_another_says_under_what() -> None:
    """An overload stands under what switches its motor, and under nothing else."""
    under = [kind for kind in kinds() if kind.mounting is Mounting.UNDER]
    assert under
    assert {kind.plugs_onto for kind in under} == {Can.SWITCHES_LOAD}
    assert all(kind.plugs_onto is None for kind in kinds() if kind.mounting is not Mounting.UNDER)
    job = new_job()
    builder = CircuitBuilder(CircuitId("c1"), "pump", job_supply_context(circuit_inputs(job)))
    builder.plate("F", "motor_breaker")
    with pytest.raises(ValueError, match="does not plug under motor_breaker"):
        builder.plate("FO", "overload", under="F")


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_what_is_plugged_in_a_job_stands_under_what_it_plugs_onto(name: str) -> None:
    circuits = plan_for(demo_job(name)).get(CIRCUITS)
    plugged = [device for device in circuits.devices if device.under]
    for device in some(plugged):
        wanted = device.kind.plugs_onto
        assert wanted
        assert device.under
        assert circuits.device(device.under).kind.can(wanted)


def test_a_clamp_for_the_protective_conductor_is_the_need_of_one() -> None:
    """Motors, heaters and drives have one (common practice, no source); lamps and contactors do not."""
    needing = {kind.id for kind in kinds() if kind.needs_earth}
    assert any(kind.is_motor for kind in kinds() if kind.id in needing)
    assert all(kind.needs_earth for kind in kinds() if kind.is_motor)
    assert not {"contactor", "lamp", "overload", "control_breaker"} & needing
