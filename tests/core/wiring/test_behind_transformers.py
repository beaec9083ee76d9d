"""Wires behind transformers are sized and judged by what protects them there, and not as control."""

from dataclasses import replace

from tests.shared_plan import plan_for

from riktig.core.job import Job, Recipe, Rulebook, Supply, add_load, new_job, set_practice
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import add_circuit
from riktig.core.standards import panel_conductor_current
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING, Wire


def shop() -> Job:
    """No neutral arrives, so the ways hang on a transformer of their own."""
    supply = Supply(480.0, 277.0, 60.0, neutral=False, upstream_a=60.0)
    job = set_practice(replace(new_job("T", "shop"), supply=supply, sources_asked=True), rulebook=Rulebook.UL)
    return add_circuit(add_load(job, "mill", hp=5.0), Recipe.SIGNALLED_WAYS)


def wires_of(job: Job, tag: str, marking: str) -> list[Wire]:
    evaluation = plan_for(job)
    return [w for w in evaluation.get(WIRING).wires for e in (w.start, w.end) if e.label == f"{tag}:{marking}"]


def own_transformer(job: Job) -> str:
    labels = [e.label for w in plan_for(job).get(WIRING).wires for e in (w.start, w.end)]
    return max(label.partition(":")[0] for label in labels if label.startswith("T"))


def test_what_leaves_the_transformer_carries_all_its_breakers() -> None:
    """Three ways of 10 A: 30 A, 10 AWG; both sides of the winding (UL 508A Table 28.1, from memory)."""
    job = shop()
    tag = own_transformer(job)
    for marking in ("5", "7"):
        wires = [w for w in wires_of(job, tag, marking) if w.colour != "green-yellow"]
        thickest = max(panel_conductor_current(w.mm2, 60.0).value for w in wires)
        assert thickest >= 30, marking


def test_a_way_behind_it_is_no_thinner_than_power_may_be() -> None:
    """NFPA 79 12.6, from memory: power conductors are 14 AWG (2.08 mm²) at least, their cables too."""
    evaluation = plan_for(shop())
    strip = next(s for s in evaluation.get(STRIPS).strips if any(row.mark == "N1" for row in s.rows))
    marks = {f"{strip.tag}:{row.mark}" for row in strip.rows if row.mark.startswith("L")}
    landed = [w.mm2 for w in evaluation.get(WIRING).wires for e in (w.start, w.end) if e.label in marks]
    assert landed
    assert min(landed) >= 2.08
    cables = [c for c in evaluation.get(STRIPS).cables if c.tag.startswith("WE")]
    assert cables
    assert all(cable.mm2 >= 2.08 for cable in cables)


def test_the_rules_look_at_what_a_transformer_feeds() -> None:
    results = plan_for(shop()).get(RULES)
    w05 = next(r for r in results if r.code == "W05")
    assert w05.verdict is Verdict.MEETS
    counts = [int(line.split()[0]) for line in w05.evidence]
    assert counts[0] > 2 * counts[2], "most of the wires"
