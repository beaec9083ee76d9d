"""What a trace must find: ways known by hand on the demonstration, both directions, through relays and cards."""

import pytest

from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Rect, bounds_of
from riktig.core.job import DeviceId, Job, read_pin
from riktig.core.keys import DeviceKey, ElementKey, Key, LoadKey, NetKey, read_key
from riktig.core.schematic import CIRCUITS, NAMES, NETS, TRACER, Trace, elements_of, remove_element, trace, trace_line
from riktig.core.views import trace_page
from riktig.demo_job import demo_job
from tests.effort import some
from tests.shared_plan import plan_for


@pytest.fixture(scope="module")
def evaluation() -> Evaluation[Job]:
    return plan_for(demo_job("kelp-shed"))


def crossed(evaluation: Evaluation[Job], found: Trace, number: int = 0) -> list[str]:
    """Tags with the unit, in the order met; terminals by tag and mark."""
    tags, devices = evaluation.get(NAMES).tag, evaluation.get(CIRCUITS).by_id
    said = []
    for step in found.paths[number].steps:
        device = devices[step.crossing.device]
        said.append(f"{tags[device.id]}:{device.mark}" if device.strip else f"{tags[device.id]} {step.crossing.unit}")
    return said


def whys(evaluation: Evaluation[Job], found: Trace) -> list[str]:
    tags = evaluation.get(NAMES).tag
    return [
        "".join(tags.get(DeviceId(part), part) for part in way.why.replace("}", "{").split("{")) for way in found.paths
    ]


class TestByHand:
    def test_a_motor_on_a_drive_leads_to_the_card_point_that_lets_it_run(self, evaluation: Evaluation[Job]) -> None:
        found = trace(evaluation.get(TRACER), DeviceId("c5.M"))
        assert crossed(evaluation, found) == ["X1:L1", "Q1 1-2", "F17 1-2", "U1 L1-U", "X7:U", "M5 winding"]
        assert whys(evaluation, found)[1:] == [
            "What switches U1 R1-0",
            "What switches U1 REF-COM",
            "What energises K11",
        ]
        assert "A3 L-Q0" in crossed(evaluation, found, 3)

    def test_a_reversing_motor_is_let_in_by_either_contactor(self, evaluation: Evaluation[Job]) -> None:
        found = trace(evaluation.get(TRACER), DeviceId("c3.M"))
        assert whys(evaluation, found) == ["M3", "What energises K7", "What energises K8"]

    def test_the_automatic_side_is_followed_too_with_its_floats_and_their_terminals(
        self, evaluation: Evaluation[Job]
    ) -> None:
        """Read off sheets 10 and 11 by hand: the selector's hand contact 13-14, its automatic 23-24 behind floats."""
        found = trace(evaluation.get(TRACER), DeviceId("c4.M"))
        assert whys(evaluation, found) == ["M4", "What energises K9", "Another way that energises K9"]
        hand, auto = crossed(evaluation, found, 1), crossed(evaluation, found, 2)
        assert "S8 13-14" in hand
        begins, ends = auto.index("F16 95-96"), auto.index("K9 A1-A2")
        assert auto[begins + 1 : ends] == ["X6:1", "B4 1-2", "X6:2", "X6:3", "B5 1-2", "X6:4", "S8 23-24"]
        assert auto[: begins + 1] == hand[: hand.index("F16 95-96") + 1], "the same up to the selector"
        assert auto[ends:] == hand[hand.index("K9 A1-A2") :]

    def test_what_stands_beside_a_button_is_no_way_of_its_own(self, evaluation: Evaluation[Job]) -> None:
        for device in ("c1.M", "c2.M", "c3.M"):
            found = trace(evaluation.get(TRACER), DeviceId(device))
            assert not [why for why in whys(evaluation, found) if why.startswith("Another")], device

    def test_a_coil_asked_for_by_itself_has_all_its_ways(self, evaluation: Evaluation[Job]) -> None:
        found = trace(evaluation.get(TRACER), DeviceId("c4.K"), "A1-A2")
        assert [way.split()[0] for way in whys(evaluation, found)] == ["K9", "Another"]

    def test_the_way_to_a_coil_goes_by_the_button_and_names_the_hold_contact_beside_it(
        self, evaluation: Evaluation[Job]
    ) -> None:
        found = trace(evaluation.get(TRACER), DeviceId("c1.K"), "A1-A2")
        start = next(step for step in found.paths[0].steps if step.crossing.device == "c1.S.start")
        assert start.beside == ((DeviceId("c1.K"), "13-14"),)

    def test_a_stop_button_leads_back_and_on(self, evaluation: Evaluation[Job]) -> None:
        way = trace(evaluation.get(TRACER), DeviceId("c1.S.stop")).paths[0]
        at = next(n for n, step in enumerate(way.steps) if step.asked)
        assert way.begins == read_pin("c0.W:L1")
        assert way.finishes == read_pin("c0.W:L2")
        assert 0 < at < len(way.steps) - 1
        assert DeviceId("c1.K") in way.also

    def test_a_number_is_followed_as_its_devices_are(self, evaluation: Evaluation[Job]) -> None:
        nets = evaluation.get(NETS)
        net = nets.of_pin[read_pin("c1.K:A1")]
        way = trace_line(evaluation.get(TRACER), net.pins, "29").paths[0]
        assert any(step.crossing.device == "c1.K" for step in way.steps)
        assert way.begins == read_pin("c0.W:L1")

    def test_the_lines_of_a_motor_are_followed_each_on_its_own(self, evaluation: Evaluation[Job]) -> None:
        for line in some("UVW"):
            way = trace(evaluation.get(TRACER), DeviceId(f"c2.X.{line}")).paths[0]
            last = way.steps[-1].crossing
            assert last.device == "c2.M"
            assert last.enters == read_pin(f"c2.M:{line}1")

    def test_the_start_of_a_soft_starter_is_a_loop_through_its_contact(self) -> None:
        fan = plan_for(demo_job("frost-fan"))
        found = trace(fan.get(TRACER), DeviceId("c1.M"))
        told = next(way for way in found.paths if way.why.endswith("S1-S2"))
        assert told.begins is None
        assert [step.crossing.device for step in told.steps] == ["c1.K", "c1.U"]

    def test_what_makes_a_potential_of_its_own_is_fed_and_feeds(self, evaluation: Evaluation[Job]) -> None:
        way = trace(evaluation.get(TRACER), DeviceId("s1.T")).paths[0]
        at = next(n for n, step in enumerate(way.steps) if step.asked)
        assert way.begins == read_pin("c0.W:L1")
        assert way.steps[at].crossing.enters == read_pin("s1.T:1")
        assert way.steps[at].crossing.leaves == read_pin("s1.T:5")
        assert len(way.also) > 3

    def test_a_card_shows_each_point_that_is_wired(self, evaluation: Evaluation[Job]) -> None:
        found = trace(evaluation.get(TRACER), DeviceId("s4.AQ0"))
        assert whys(evaluation, found)[0] == "A3 L-Q0"

    def test_no_way_is_told_twice_and_there_are_few(self, evaluation: Evaluation[Job]) -> None:
        for device in some(evaluation.get(CIRCUITS).devices):
            paths = trace(evaluation.get(TRACER), device.id).paths
            met = [tuple(step.crossing for step in way.steps) for way in paths]
            assert len(set(met)) == len(met) <= 12, device.id

    def test_what_is_not_known_has_no_way(self, evaluation: Evaluation[Job]) -> None:
        assert trace(evaluation.get(TRACER), DeviceId("c99.K")).paths == ()
        assert trace(evaluation.get(TRACER), read_pin("c99.K:A1")).paths == ()
        assert trace(evaluation.get(TRACER), DeviceId("c1.K"), "no such unit").paths == ()


class TestPage:
    def test_every_step_has_its_number_its_place_and_its_address(self, evaluation: Evaluation[Job]) -> None:
        page = trace_page(
            evaluation, LoadKey(next(c.load for c in evaluation.document.circuits if c.id == "c5" and c.load))
        )
        assert page is not None
        words = [stop.words for column in page.columns for stop in column]
        assert any("%QX0.0" in line and "sheet 6." in line for line in words)
        assert all(any(place in line for place in ("sheet", "rail", "field", "plate at")) for line in words)

    def test_a_terminal_says_its_place_on_the_strip_and_what_lies_outside_its_cable_and_core(
        self, evaluation: Evaluation[Job]
    ) -> None:
        motor = next(
            device for device in evaluation.get(CIRCUITS).devices if evaluation.get(NAMES).tag[device.id] == "M3"
        )
        page = trace_page(evaluation, DeviceKey(motor.id))
        assert page is not None
        words = [stop.words for stop in page.columns[0]]
        # By hand: the incoming cable's brown core is line 1; the motor's terminal U is the first of its strip.
        assert words[0].split()[1] == "X1:L1" and "place 1 of strip X1" in words[0]
        assert words[0].endswith("cable W1, core brown")
        assert words[-2].split()[1] == "X5:U" and "place 1 of strip X5" in words[-2]
        assert "cable" not in words[-2]
        assert words[-1].split()[1:3] == ["M3", "U1"] and words[-1].endswith("cable WM3, core brown")

    def test_a_switch_in_the_field_is_reached_by_two_cores_of_its_cable(self, evaluation: Evaluation[Job]) -> None:
        page = trace_page(evaluation, next(DeviceKey(d) for d, tag in evaluation.get(NAMES).tag.items() if tag == "B2"))
        assert page is not None
        words = [stop.words for column in page.columns for stop in column]
        assert sum("cable WB2, core 1" in line for line in words) == 1
        assert sum("cable WB2, core 2" in line for line in words) == 1

    @pytest.mark.parametrize(
        "key",
        [
            "",
            read_key("device:none.X"),
            read_key("net:none"),
            read_key("wire:none"),
            read_key("load:none"),
            read_key("duct:D1"),
            read_key("place:2.3"),
        ],
    )
    def test_what_cannot_be_followed_has_no_page(self, evaluation: Evaluation[Job], key: Key | None) -> None:
        assert trace_page(evaluation, key) is None

    def test_every_device_that_is_drawn_has_a_page_or_none_and_never_fails(self, evaluation: Evaluation[Job]) -> None:
        made = [trace_page(evaluation, DeviceKey(device.id)) for device in evaluation.get(CIRCUITS).devices]
        assert sum(page is not None for page in made) > 100


@pytest.mark.parametrize("demo", ["kelp-shed", "frost-fan"])
def test_every_text_of_every_page_stands_on_the_page(demo: str) -> None:
    evaluation = plan_for(demo_job(demo))
    for device in some(evaluation.get(CIRCUITS).devices[::4]):
        page = trace_page(evaluation, DeviceKey(device.id))
        if page is None:
            continue
        paper = Rect(0, 0, page.drawing.width, page.drawing.height)
        for mark in some(page.drawing.shapes):
            assert bounds_of(mark).sticks_out_of(paper) < 0.1, (device.id, mark)


def test_a_step_that_goes_out_of_a_job_goes_out_of_its_trace(evaluation: Evaluation[Job]) -> None:
    lamp = trace(evaluation.get(TRACER), DeviceId("c1.H.run")).paths[0]
    contact = next(step for step in lamp.steps if step.crossing.device == "c1.K")
    assert contact.element is not None
    without = plan_for(remove_element(evaluation.document, contact.element))
    again = trace(without.get(TRACER), DeviceId("c1.H.run")).paths[0]
    assert [step.crossing.device for step in again.steps] == [
        step.crossing.device for step in lamp.steps if step.crossing.device != "c1.K"
    ]


def test_every_number_and_every_contact_can_be_asked_for(evaluation: Evaluation[Job]) -> None:
    keys: list[Key] = [NetKey(net.id) for net in evaluation.get(NETS).nets]
    keys += [ElementKey(e.id) for rung in evaluation.get(CIRCUITS).rungs for e in elements_of(rung.path)]
    made = [page for key in keys if (page := trace_page(evaluation, key))]
    assert len(made) > 0.9 * len(keys)
    assert all(len(page.columns) == len(page.headings) == len(page.ends) for page in made)
