"""Warning plates: which switch, which source, which voltage, in words a stranger reads."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.geometry import Poly
from riktig.core.job import (
    Job,
    Param,
    Recipe,
    SourceId,
    Wetting,
    add_load,
    add_signal,
    add_source,
    change_signal,
    change_source,
    new_job,
    set_supply,
)
from riktig.core.labels import LABELS, Medium, draw_medium
from riktig.core.rules import RULES, Verdict, findings_of
from riktig.core.schematic import CIRCUITS, add_circuit, with_names_recorded
from riktig.core.simulation import LIVE_WITH_MAIN_OFF, RATINGS


def motor() -> Job:
    return set_supply(add_load(new_job("W", "warnings"), "fan", 1.5), upstream_a=20.0)


def with_contact(volts: float, *, direct: bool | None = None) -> Job:
    """A contact of another panel, and the only supply from elsewhere that the Brief names."""
    job = add_source(motor(), "hall panel", volts, "the drying hall")
    job = change_source(job, job.sources[0].id, direct=direct)
    return with_names_recorded(add_signal(job, "hall ready", wetting=Wetting.FOREIGN, load=job.loads[0].id))


def plates(job: Job) -> list[str]:
    return [" ".join(label.lines) for label in plan_for(with_names_recorded(job)).get(LABELS).on(Medium.WARNING)]


def codes(job: Job, verdict: Verdict) -> set[str]:
    found = findings_of(plan_for(with_names_recorded(job)).get(RULES))
    return {finding.code for finding in found if finding.verdict is verdict}


@pytest.mark.parametrize(
    ("volts", "direct", "said", "kind"),
    [
        (24.0, None, "24 V DC", "relay_dc"),
        (24.0, False, "24 V AC", "relay"),
        (110.0, True, "110 V DC", "relay"),
        (230.0, None, "230 V AC", "relay"),
        (120.0, None, "120 V AC", "relay"),
    ],
)
def test_a_foreign_contact_has_the_voltage_that_was_declared(
    volts: float, direct: bool | None, said: str, kind: str
) -> None:
    """Plate, live list, relay and its coil: all of them what the Brief says of the source."""
    job = with_contact(volts, direct=direct)
    evaluation = plan_for(job)
    relay = next(d for d in evaluation.get(CIRCUITS).devices if d.role == "KF1")
    assert relay.kind_id == kind
    found = [text for text in plates(job) if "the drying hall" in text]
    assert len(found) == 2, "one at the door, one where it enters"
    assert all(said in text for text in found)
    assert any("does not switch it off" in text for text in found)
    live = [n for n in evaluation.get(LIVE_WITH_MAIN_OFF) if n.source == "c1.KF1.W"]
    assert {round(n.volts) for n in live} == {round(volts)}
    if kind == "relay":
        (rating,) = evaluation.get(RATINGS)[relay.id]
        assert (rating.volts, rating.hz > 0) == (volts, "AC" in said)
    assert "E11" not in codes(job, Verdict.FAILS) | codes(job, Verdict.JUDGE)


def test_a_contact_without_its_source_is_for_a_person() -> None:
    job = with_names_recorded(add_signal(motor(), "hall ready", wetting=Wetting.FOREIGN, load=motor().loads[0].id))
    assert "E11" in codes(job, Verdict.JUDGE)
    assert any("A voltage the Brief lacks" in text for text in plates(job))


def test_of_two_sources_the_one_that_is_said_counts() -> None:
    job = add_source(with_contact(24.0), "fire alarm", 230.0, "the gate")
    assert "E11" in codes(job, Verdict.JUDGE), "which of the two is not said"
    said = change_signal(job, job.signals[0].id, source=job.sources[1].id)
    assert "E11" not in codes(said, Verdict.JUDGE)
    assert "B06" in codes(said, Verdict.JUDGE), "nothing is on the hall panel now"
    gone = change_signal(job, job.signals[0].id, source=SourceId("e99"))
    assert "E11" in codes(gone, Verdict.JUDGE)


@pytest.mark.parametrize("recipe", [Recipe.FOREIGN_INTERLOCK, Recipe.SOCKET])
def test_circuits_of_the_book_take_a_source_too(recipe: Recipe) -> None:
    job = add_source(add_source(motor(), "hall panel", 24.0), "yard supply", 110.0, "the yard")
    params = (Param("source", "second of the Brief"), Param("fed", "outside source, separately protected"))
    made = add_circuit(job, recipe, "second", params if recipe is Recipe.SOCKET else params[:1])
    entering = [text for text in plates(made) if "does not switch it off" in text]
    assert len(entering) == 1
    assert "110 V AC from the yard" in entering[0]


def test_a_declared_source_that_feeds_nothing_is_found() -> None:
    assert "B06" in codes(add_source(motor(), "hall panel", 24.0), Verdict.JUDGE)
    assert "B06" not in codes(with_contact(24.0), Verdict.JUDGE)


def test_what_the_own_supply_keeps_live_is_told_by_its_colour() -> None:
    """However much hangs ahead of the switch, all of it is named: its isolators, and its wires by their colour."""
    job = add_circuit(add_circuit(motor(), Recipe.MAINTAINED), Recipe.SOCKET)
    text = next(text for text in plates(job) if "upper clamps" in text)
    assert "and more" not in text
    assert text.endswith("at Q2, Q3 and in all orange wires when Q1 is off.")


def test_the_plate_carries_the_sign_of_electricity() -> None:
    """ISO 7010 W012: a triangle, and a flash in it, both drawn as paths of their own."""
    drawing = draw_medium(plan_for(with_names_recorded(motor())).get(LABELS), Medium.WARNING)
    sign = [shape for shape in drawing.shapes if isinstance(shape, Poly) and shape.layer == "sign"]
    assert len(sign) == 6, "on the plate of the door and on that over the incoming terminals"
    edge, inside, flash = sign[:3]
    assert len(edge.points) == len(inside.points) == 3
    assert (edge.fill, inside.fill, flash.fill) == ("sign ink", "lens yellow", "sign ink")
    xs, ys = [p.x for p in inside.points], [p.y for p in inside.points]
    assert all(min(xs) < p.x < max(xs) and min(ys) < p.y < max(ys) for p in flash.points)
