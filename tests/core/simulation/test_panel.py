"""The live panel: order of contacts, races, shorts, voltages, time; known by hand or worked out another way."""

import random
from itertools import permutations

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from riktig.core.job import (
    DeviceId,
    ElementId,
    Insertable,
    Job,
    OwnDevice,
    OwnRung,
    RunLamp,
    Start,
    add_load,
    new_job,
    set_practice,
)
from riktig.core.schematic import (
    CIRCUITS,
    NETS,
    add_written,
    insert_contact,
    move_element,
    remove_element,
    with_names_recorded,
)
from riktig.core.simulation import (
    ContactStage,
    Operator,
    Panel,
    Role,
    Touch,
    called,
    operate,
    operators_of,
    roles_of,
    why,
)
from riktig.core.simulation.connectivity import Connectivity
from riktig.core.simulation.network import Contact
from riktig.demo_job import demo_job
from tests.core.schematic.builders import STOP, one_motor
from tests.core.schematic.samples import sample
from tests.effort import some, times
from tests.shared_plan import plan_for

K, KR = DeviceId("c1.K"), DeviceId("c1.KR")
START, REVERSE, STOPPED = DeviceId("c1.S.start"), DeviceId("c1.S.reverse"), DeviceId("c1.S.stop")


def live(job: Job) -> Panel:
    evaluation = plan_for(job)
    return Panel(evaluation.get(CIRCUITS), evaluation.get(NETS), job.supply)


def both_ways(*, bypassed: bool = False) -> Panel:
    """Forward and reverse; bypassed: the hold contact re-joins past the interlock."""
    job = sample("both ways")
    if bypassed:
        for one, start in (("KR/21-22", "S.start/3-4"), ("K/21-22", "S.reverse/3-4")):
            job = with_names_recorded(move_element(job, ElementId(f"c1.{one}"), ElementId(f"c1.{start}")))
    return live(job)


def tap(panel: Panel, did: DeviceId) -> None:
    panel.operator_state.pressed.add(did)
    panel.run_until_stable()
    panel.operator_state.pressed.discard(did)
    panel.run_until_stable()


@pytest.mark.parametrize("lit_by", list(RunLamp))
def test_the_run_lamp_of_a_star_delta_starter_shines_in_star_and_in_triangle(lit_by: RunLamp) -> None:
    """What the lamp says is that the motor is fed: from the first moment on (common practice, no source)."""
    job = set_practice(new_job("T", "fan"), run_lamp=lit_by)
    panel = live(add_load(job, "fan", 11.0, start=Start.STAR_DELTA, run_lamp=True))
    lamp, star, delta = (DeviceId(f"c1.{role}") for role in ("H.run", "KS", "KD"))
    tap(panel, START)
    assert {lamp, star} <= panel.on
    assert delta not in panel.on
    panel.wait(40.0)
    assert {lamp, delta} <= panel.on
    assert star not in panel.on
    tap(panel, STOPPED)
    assert lamp not in panel.on


class TestOrder:
    def test_a_contact_that_opens_does_so_before_another_closes(self) -> None:
        panel = live(one_motor())
        panel.operator_state.pressed.add(START)
        panel.run_until_stable()
        # By hand: 15 ms until the armature leaves, 22 ms until it arrives; the log has the arrival.
        assert [(e.at_s, e.text) for e in panel.events][:1] == [(0.022, "{c1.K} in")]
        assert panel.stage[K] is ContactStage.IN

    def test_it_falls_more_quickly_than_it_comes_in(self) -> None:
        panel = live(one_motor())
        tap(panel, START)
        before = panel.clock_s
        panel.operator_state.pressed.add(STOPPED)
        panel.run_until_stable()
        assert panel.clock_s - before == pytest.approx(0.014)
        assert panel.stage[K] is ContactStage.OUT


class TestInterlock:
    """The cases of the interlock and the hold contact; common practice, no source."""

    def test_right_the_other_one_pushed_in_drops_the_first(self) -> None:
        panel = both_ways()
        tap(panel, START)
        panel.operator_state.pushed.add(KR)
        panel.run_until_stable()
        panel.operator_state.pushed.discard(KR)
        panel.run_until_stable()
        assert not panel.is_fed(K)
        assert panel.shorts == []

    def test_bypassed_the_other_one_pushed_in_brings_both_in_and_shorts_two_lines(self) -> None:
        panel = both_ways(bypassed=True)
        tap(panel, START)
        panel.operator_state.pushed.add(KR)
        panel.run_until_stable()
        assert panel.stage[K] is panel.stage[KR] is ContactStage.IN
        panel.operator_state.pushed.discard(KR)
        panel.run_until_stable()
        assert panel.is_fed(K)
        assert panel.is_fed(KR), "both stay in: each holds itself past the interlock"
        said = [event for event in panel.events if event.wrong]
        assert any(event.text.startswith("Both in: {c1.KR} and {c1.K}.") for event in said)
        assert any("{c1.K} is fed through {c1.end1} 1-2, {c1.K} 13-14" in event.text for event in said), "with the way"
        assert any("L2 meets L3" in event.text and "{c1.F} trips" in event.text for event in said)

    def test_both_buttons_at_once_are_a_race_and_are_said_to_be_one(self) -> None:
        panel = both_ways()
        panel.operator_state.pressed |= {START, REVERSE}
        panel.run_until_stable()
        assert set(panel.restless) == {K, KR}
        assert any(event.text.startswith("Race: {c1.K} and {c1.KR}") for event in panel.events if event.wrong)

    def test_a_welded_contact_holds_its_opener_open(self) -> None:
        panel = both_ways()
        tap(panel, START)
        panel.operator_state.welded.add((K, "1-2"))
        panel.operator_state.pressed.add(STOPPED)
        panel.run_until_stable()
        panel.operator_state.pressed.discard(STOPPED)
        panel.run_until_stable()
        tap(panel, REVERSE)
        assert not panel.is_fed(KR), "the welded one keeps its normally closed contact open"


class TestShort:
    def test_both_in_trip_the_nearest_guard_and_say_the_way(self) -> None:
        panel = both_ways()
        panel.operator_state.pushed |= {K, KR}
        panel.run_until_stable()
        *_, event = [one for one in panel.events if one.wrong]
        assert panel.shorts == ["L2 meets L3"]
        assert "{c1.K} " in event.text and "{c1.KR} " in event.text
        assert DeviceId("c1.F") in panel.operator_state.tripped

    def test_a_control_wire_to_neutral_trips_the_control_breaker_not_the_feed(self) -> None:
        job = with_names_recorded(
            add_written(one_motor(), "wrong", [OwnDevice("S9", "start_button", "door", "wrong")],
                        [OwnRung("one", "wrong", "c1.control", "S9:3-4", "N")])
        )  # fmt: skip
        panel = live(job)
        panel.operator_state.pressed.add(next(d.id for d in panel.circuits.devices if d.purpose.endswith("wrong")))
        panel.run_until_stable()
        assert panel.operator_state.tripped == {DeviceId("c1.FC")}
        assert panel.source_of(panel.network.point[panel.nets.nets[0].id]) is not None


class TestVoltages:
    def test_two_coils_in_series_share_the_voltage_and_neither_comes_in(self) -> None:
        """By hand: two equal coils at 230 V have 115 V each, above drop-out and below pick-up."""
        job = with_names_recorded(
            add_written(one_motor(), "series",
                        [OwnDevice("K1", "relay", "plate", "a"), OwnDevice("K2", "relay", "plate", "b")],
                        [OwnRung("one", "series", "main.L1", "K1:A1-A2 K2:A1-A2", "N")])
        )  # fmt: skip
        panel = live(job)
        relays = [d.id for d in panel.circuits.devices if d.kind_id == "relay"]
        for number, one in enumerate(panel.network.consumers):
            if one.device in relays:
                assert panel.volts.across[number] == pytest.approx(115.5, abs=0.5)
        assert not any(panel.is_fed(did) for did in relays)
        assert "has only 115 V" in why(panel, relays[0])

    def test_a_lost_line_stops_the_motor_and_comes_back_as_a_voltage_through_its_winding(self) -> None:
        panel = live(one_motor())
        tap(panel, START)
        assert panel.turns(DeviceId("c1.M")) == "forward"
        panel.operator_state.lost.add("L3")
        panel.run_until_stable()
        assert panel.turns(DeviceId("c1.M")) == "off"
        point = panel.network.at(DeviceId("c1.M"), "W1")
        assert point is not None
        known = panel.volts.at[point]
        # By hand: the dead terminal lies between L1 and L2 through equal windings: half way, 115 V to neutral.
        assert known is not None
        assert abs(known[0]) == pytest.approx(115.5, abs=0.5)


def test_a_timer_runs_out_when_its_time_has_passed_and_not_before() -> None:
    panel = live(sample("star-delta"))
    tap(panel, START)
    assert panel.turns(DeviceId("c1.M")) == "star"
    panel.wait(29.0)
    assert panel.turns(DeviceId("c1.M")) == "star"
    panel.wait(2.0)
    assert panel.turns(DeviceId("c1.M")) == "delta"


def test_a_relay_that_opens_its_own_path_never_rests_and_says_which() -> None:
    job = with_names_recorded(
        add_written(one_motor(), "ring", [OwnDevice("K1", "relay", "plate", "ring")],
                    [OwnRung("one", "ring", "main.L1", "K1:21-22 K1:A1-A2", "N")])
    )  # fmt: skip
    panel = live(job)
    assert len(panel.restless) == 1
    assert any("never comes to rest" in event.text for event in panel.events if event.wrong)
    panel.operator_state.opened.add(DeviceId("c0.Q"))
    panel.run_until_stable()
    assert not panel.restless


class TestRoles:
    def test_a_start_button_held_beside_the_hold_contact_no_longer_matters(self) -> None:
        panel = live(one_motor())
        panel.operator_state.pressed.add(START)
        panel.run_until_stable()
        roles = {called(panel, n): role for n, role in roles_of(panel).items()}
        assert roles["{c1.S.start} 3-4"] is Role.SHARED
        assert roles["{c1.K} 13-14"] is Role.SHARED
        assert roles["{c1.S.stop} 1-2"] is Role.SOLE
        panel.operator_state.pressed.clear()
        panel.run_until_stable()
        roles = {called(panel, n): role for n, role in roles_of(panel).items()}
        assert roles["{c1.K} 13-14"] is Role.SOLE

    @pytest.mark.parametrize("seed", range(6))
    def test_a_sole_contact_is_one_without_which_something_stops_and_no_other_is(self, seed: int) -> None:
        """Brute: open each closed contact in turn on a copy and look at what is still fed."""
        chance = random.Random(seed)
        panel = live(demo_job("kelp-shed"))
        able = [one for one in operators_of(panel.circuits) if one.touch in (Touch.HOLD, Touch.TURN, Touch.MOVE)]
        for _ in range(25):
            one = chance.choice(able)
            operate(panel, one, chance.choice(one.positions))
        roles = roles_of(panel)
        connectivity = panel.connectivity
        fed = {
            point for n, c in enumerate(panel.network.consumers) if panel.fed[n] for point in (c.a, c.b)
            if connectivity.root[point] >= 0
        }  # fmt: skip
        for number in some(chance.sample(sorted(roles), 40)):
            connectivity.change((number,), (), connectivity.poles)
            stops = any(connectivity.root[point] < 0 for point in fed)
            connectivity.change((), (number,), connectivity.poles)
            assert stops == (roles[number] is Role.SOLE), called(panel, number)


def test_what_several_contacts_reach_by_closing_at_one_instant_is_worked_out_too() -> None:
    """Three in a row close together in any order: the far end hangs on the pole and is said to have changed."""
    chain = [Contact(DeviceId(f"c.K{n}"), "13-14", n, n + 1) for n in range(3)]
    for order in some(permutations(range(3))):
        connectivity = Connectivity(4, chain)
        connectivity.change((), (), {0})
        assert connectivity.change((), order, {0}) >= {1, 2, 3}
        assert connectivity.root == [0, 0, 0, 0]


DEMO = live(demo_job("kelp-shed"))
ABLE = [one for one in operators_of(DEMO.circuits) if one.touch is not Touch.SIGNAL]
MOVES = st.lists(st.tuples(st.sampled_from(ABLE), st.integers(0, 2)), max_size=40)


def move(panel: Panel, one: Operator, number: int) -> None:
    operate(panel, one, one.positions[number % len(one.positions)])


def fresh_of(panel: Panel) -> Panel:
    """The same hands and the same stages, everything else worked out from nothing."""
    other = Panel(panel.circuits, panel.nets)
    other.operator_state = panel.operator_state
    other.take_state(panel)
    other.run_until_stable()
    return other


def potentials(panel: Panel) -> list[tuple[complex, float] | None]:
    return [None if one is None else (round(one[0].real, 6) + 1j * round(one[0].imag, 6), round(one[1], 6))
            for one in panel.volts.at]  # fmt: skip


@settings(deadline=None, max_examples=times(12, 100), suppress_health_check=[HealthCheck.too_slow])
@given(MOVES)
def test_after_any_operations_nothing_has_drifted_from_what_a_fresh_look_finds(
    moves: list[tuple[Operator, int]],
) -> None:
    panel = Panel(DEMO.circuits, DEMO.nets)
    for one, number in moves:
        move(panel, one, number)
    other = fresh_of(panel)
    assert potentials(other) == potentials(panel)
    assert other.connectivity.closed == panel.connectivity.closed
    reached = [root >= 0 for root in panel.connectivity.root]
    assert [root >= 0 for root in other.connectivity.root] == reached


@settings(deadline=None, max_examples=15, suppress_health_check=[HealthCheck.too_slow])
@given(MOVES)
def test_the_same_operations_lead_to_the_same_state(moves: list[tuple[Operator, int]]) -> None:
    one, other = Panel(DEMO.circuits, DEMO.nets), live(demo_job("kelp-shed"))
    for panel in (one, other):
        for operator, number in moves:
            move(panel, operator, number)
    assert potentials(one) == potentials(other)
    assert one.on == other.on
    assert [event.text for event in one.events] == [event.text for event in other.events]


def test_ten_thousand_clicks_at_random_leave_a_state_that_a_fresh_look_finds_too() -> None:
    chance = random.Random(11)
    panel = Panel(DEMO.circuits, DEMO.nets)
    for _ in range(10_000):
        move(panel, chance.choice(ABLE), chance.randrange(3))
    other = fresh_of(panel)
    assert potentials(other) == potentials(panel)
    assert other.connectivity.crossings == panel.connectivity.crossings


def test_taking_an_edit_back_gives_back_the_behaviour() -> None:
    """A second stop put in ahead of the first changes what its button does; taken out again all is as before."""
    job = one_motor()
    changed = with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, "second stop"))
    evaluation = plan_for(changed)
    (second,) = [d.id for d in evaluation.get(CIRCUITS).devices if d.purpose.endswith("second stop")]
    panel = live(changed)
    tap(panel, START)
    tap(panel, second)
    assert not panel.is_fed(K)
    back = with_names_recorded(remove_element(changed, ElementId(f"{second}/1-2")))

    def told(one: Job) -> list[str]:
        panel = live(one)
        tap(panel, START)
        tap(panel, STOPPED)
        return [event.text for event in panel.events]

    assert second not in {d.id for d in plan_for(back).get(CIRCUITS).devices}
    assert told(back) == told(job)
    assert "{c1.K} out" in told(job)
