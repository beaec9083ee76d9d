"""What an answer changed downstream, and the company standard."""

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.job import (
    Colours,
    Job,
    MarkedWires,
    OverloadDirection,
    Practice,
    SecondReading,
    add_load,
    change_load,
    override,
    set_practice,
)
from riktig.core.keys import read_key
from riktig.core.labels import LABELS, Medium
from riktig.core.rules import RULES, Verdict, apply_mend, findings_of
from riktig.core.schematic import with_names_recorded
from riktig.core.store import dump_job, keep_user_practice, load_job, user_practice
from riktig.core.views import ADDED, CHANGED, REMOVED, change_order, details_of, effects, snapshot, summary
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job, kelp_shed


def said(job: Job, change: Callable[[Job], Job]) -> list[str]:
    before = snapshot(plan_for(job))
    return [effect.text for effect in effects(before, snapshot(plan_for(with_names_recorded(change(job)))))]


def test_a_larger_motor_names_its_values_and_every_wire_that_is_thicker(demo: Job) -> None:
    texts = said(demo, lambda job: change_load(job, job.loads[0].id, kw=7.5))
    assert "value wash drum, current: 8.5 A → 15.5 A" in texts
    assert "value wash drum, breaker: 13 A type D → 20 A type D" in texts
    assert "value wash drum, panel conductors: 1.5 mm² → 2.5 mm²" in texts
    assert any(text.startswith("wire 4 F1:2 to K1:1: ") and "1.5 mm²" in text for text in texts)


def test_one_more_load_adds_and_the_same_load_gone_removes_by_name(demo: Job) -> None:
    """Against sets of keys taken from the results themselves, not from the lists that are compared."""
    larger = with_names_recorded(add_load(demo, "rinse pump", 1.1))
    before, after = plan_for(demo), plan_for(larger)
    there, back = effects(snapshot(before), snapshot(after)), effects(snapshot(after), snapshot(before))
    new_wires = {w.key for w in after.get(WIRING).wires} - {w.key for w in before.get(WIRING).wires}
    added = [effect for effect in there if effect.noun == "wire" and effect.how == ADDED]
    assert {str(effect.link) for effect in added} == {f"wire:{key}" for key in new_wires}
    removed = [effect for effect in back if effect.noun == "wire" and effect.how == REMOVED]
    assert sorted(effect.name for effect in removed) == sorted(effect.name for effect in added)
    assert all(effect.link is None for effect in removed), "what is gone leads nowhere"
    assert {effect.station for effect in there} >= {"Brief", "Circuits", "Plate", "Door", "Wires", "Terminals", "Prove"}
    counted = dict(summary(there))["Wires"]
    assert f"{len(added)} wires added" in counted
    assert all(effect.was != effect.now for effect in there if effect.how == CHANGED)


def test_a_change_order_has_a_line_for_every_effect_and_room_to_sign(demo: Job) -> None:
    larger = with_names_recorded(change_load(demo, demo.loads[0].id, kw=7.5))
    found = effects(snapshot(plan_for(demo)), snapshot(plan_for(larger)))
    order = change_order(found, "power of wash drum")
    assert len(order.rows) == len(found) > 10
    assert order.columns[-1][1] == "Done by, date"
    assert {row[-1] for row in order.rows} == {""}


def test_an_answer_that_nothing_depends_on_changes_nothing(demo: Job) -> None:
    assert said(demo, lambda job: set_practice(job, second_reading=SecondReading.NOBODY)) == []
    assert said(demo, lambda job: job) == []


def test_markers_only_on_wires_that_enter_duct_are_fewer(demo: Job) -> None:
    evaluation = plan_for(with_names_recorded(set_practice(demo, marked=MarkedWires.IN_DUCT)))
    marked = len(evaluation.get(LABELS).on(Medium.WIRE))
    in_duct = sum(bool(wire.ducts) for wire in evaluation.get(WIRING).wires)
    assert marked == 2 * in_duct


def test_above_ten_wires_unmarked_ones_are_a_matter_for_a_person(demo: Job) -> None:
    some = with_names_recorded(set_practice(demo, marked=MarkedWires.IN_DUCT))
    found = [f for f in findings_of(plan_for(some).get(RULES)) if f.code == "M02"]
    assert not all(wire.ducts for wire in plan_for(some).get(WIRING).wires), "the two door wires lie in none"
    (finding,) = found
    assert finding.quick_fix
    assert apply_mend(some, finding.quick_fix).practice.marked is MarkedWires.ALL


def test_the_overloads_contacts_are_wired_the_way_the_house_wires_them(demo: Job) -> None:
    def leaves_by(job: Job) -> set[tuple[str, str]]:
        """From which contact clamp of the overload the stop button and the trip lamp are fed."""
        wires = plan_for(with_names_recorded(job)).get(WIRING).wires
        ends = [{str(wire.start.pin), str(wire.end.pin)} for wire in wires]
        fed = {"c1.S.stop:1", "c1.H.trip:X1"}
        return {(own, pin) for pins in ends for own in pins & fed for pin in pins if ".FO:" in pin}

    up, down = demo, set_practice(demo, overload_direction=OverloadDirection.DOWN)
    assert leaves_by(up) == {("c1.S.stop:1", "c1.FO:96"), ("c1.H.trip:X1", "c1.FO:98")}
    assert leaves_by(down) == {("c1.S.stop:1", "c1.FO:95"), ("c1.H.trip:X1", "c1.FO:97")}


@pytest.mark.parametrize(
    ("colours", "expected"),
    [
        (Colours.RULEBOOK, {"black", "red", "light blue", "green-yellow"}),
        (Colours.OLD_PHASES, {"red", "yellow", "blue", "black", "grey", "green-yellow"}),
        (Colours.HOUSE, {"brown", "white", "violet", "orange", "green-yellow"}),
    ],
)
def test_conductor_colours_follow_the_practice(demo: Job, colours: Colours, expected: set[str]) -> None:
    house = ("brown", "brown", "white", "violet", "orange", "blue")
    evaluation = plan_for(with_names_recorded(set_practice(demo, colours=colours, house_colours=house)))
    assert {wire.colour for wire in evaluation.get(WIRING).wires} == expected


class TestHouse:
    def test_what_is_kept_comes_back(self, tmp_path: Path) -> None:
        path = tmp_path / "riktig" / "house.json"
        assert user_practice(path) == Practice()
        mine = replace(Practice(), second_reading=SecondReading.SAME, spare_share=0.3)
        keep_user_practice(path, mine)
        assert user_practice(path) == mine

    @pytest.mark.parametrize("text", ["", "{", '{"rulebook": "none"}', '{"spare_share": 7}'])
    def test_a_file_that_cannot_be_used_is_said_and_not_touched(self, tmp_path: Path, text: str) -> None:
        path = tmp_path / "house.json"
        path.write_text(text, encoding="utf-8")
        with pytest.raises(RiktigError, match="Riktig's own defaults"):
            user_practice(path)
        assert path.read_text(encoding="utf-8") == text

    def test_a_place_that_cannot_be_written_is_said(self, tmp_path: Path) -> None:
        (tmp_path / "taken").write_text("a file", encoding="utf-8")
        with pytest.raises(RiktigError, match="could not be kept"):
            keep_user_practice(tmp_path / "taken" / "house.json", Practice())


@pytest.mark.parametrize("name", DEMOS)
def test_every_demonstration_goes_to_json_and_back_and_judges_itself(name: str) -> None:
    job = demo_job(name)
    assert load_job(dump_job(job)) == job
    results = plan_for(job).get(RULES)
    brief = [finding for finding in findings_of(results) if finding.code[0] == "B"]
    assert all(finding.verdict is Verdict.JUDGE and finding.code == "B05" for finding in brief)


def test_an_override_that_is_too_small_fails_and_its_remedy_takes_it_back() -> None:
    job = with_names_recorded(override(kelp_shed(), "m1.section", 1.5, "what is on the drum"))
    found = next(f for f in findings_of(plan_for(job).get(RULES)) if f.where == read_key("value:m1.section"))
    assert found.verdict is Verdict.FAILS
    assert found.quick_fix
    assert apply_mend(job, found.quick_fix) == kelp_shed()


def test_the_details_of_a_value_and_of_a_load_lead_to_each_other() -> None:
    evaluation = plan_for(with_names_recorded(override(kelp_shed(), "m2.breaker", 20.0, "shelf")))
    value = details_of(evaluation, read_key("value:m2.breaker"), ())
    assert value
    assert value.title == "Breaker (yours)"
    rows = {row.name: row for section in value.sections for row in section.rows}
    assert rows["Riktig proposes"].value == "13 A"
    assert rows["Your reason"].value == "shelf"
    load = details_of(evaluation, rows["Load"].link, ())
    assert load
    links = [row.link for section in load.sections for row in section.rows if row.link]
    assert read_key("value:m2.breaker") in links
    assert all(details_of(evaluation, link, ()) for link in links)
    assert details_of(evaluation, read_key("value:m99.breaker"), ()) is None
    assert details_of(evaluation, read_key("load:m99"), ()) is None
