"""The work at the bench: every delivered and planned thing is in one task, gates say what keeps them shut."""

import itertools
from collections import Counter
from dataclasses import replace

import networkx as nx
import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.door import DOOR
from riktig.core.exports import schedule
from riktig.core.job import INCOMER_ID, DoorOrder, Job, Rulebook, set_practice
from riktig.core.keys import DeviceKey
from riktig.core.plate import LAYOUT, move_block
from riktig.core.production import (
    NEEDS,
    WORK,
    BuildStage,
    Operation,
    Shown,
    StageState,
    TaskState,
    WorkTask,
    draw_operator,
    draw_panel_now,
    gate_facts,
    gate_subject,
    needs_of,
    panel_now,
    progress_of,
    received,
    stage_states,
    task_states,
    tick_facts,
    wires_of_stage,
)
from riktig.core.records import Facts, PartReceived, Record, TakenBack, TaskDone
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.standards import clause_look, table
from riktig.core.terminals import STRIPS
from riktig.core.wiring import DUCT_USES, WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

_count = itertools.count(1)


def said(subject: str, facts: Facts, who: str = "Ida", corrects: str = "") -> Record:
    return Record(f"r{next(_count)}", subject, facts, who, "2026-12-01T08:00:00+00:00", 1, corrects)


def done(tasks: "list[WorkTask] | tuple[WorkTask, ...]") -> list[Record]:
    return [said(task.subject, task.facts) for task in tasks]


def states(job: Job, records: list[Record]) -> dict[BuildStage, StageState]:
    evaluation = plan_for(job)
    progress = progress_of(evaluation.get(WIRING), records)
    return {state.stage: state for state in stage_states(evaluation.get(WORK), progress, records)}


def of_stage(job: Job, stage: BuildStage) -> list[WorkTask]:
    return [task for task in plan_for(job).get(WORK) if task.stage is stage]


def state_of(tasks: list[WorkTask], records: list[Record], title: str) -> TaskState:
    return next(state for state in task_states(tasks, records) if state.task.title == title)


@pytest.fixture(scope="module", params=[kelp_shed, frost_fan], ids=["kelp shed", "frost fan"])
def job(request: pytest.FixtureRequest) -> Job:
    made: Job = request.param()
    return made


def test_everything_that_is_bought_with_a_reference_is_received(job: Job) -> None:
    """Against the parts list, which is made elsewhere."""
    bought: Counter[str] = Counter()
    for row in schedule("bom", plan_for(job)).as_dicts():
        if row["part"]:
            bought[str(row["part"])] += int(float(str(row["quantity"])))
    asked: Counter[str] = Counter()
    for task in of_stage(job, BuildStage.RECEIVE):
        assert isinstance(task.facts, PartReceived)
        asked[task.facts.part] += task.facts.wanted
        line = [row for row in schedule("bom", plan_for(job)).as_dicts() if row["part"] == task.facts.part]
        assert task.how[0] in {row["description"] for row in line}, "with the voltage it is bought for"
    assert asked == bought


def test_every_piece_part_strip_operator_and_duct_is_in_one_task_of_its_stage(job: Job) -> None:
    evaluation = plan_for(job)
    layout, door = evaluation.get(LAYOUT), evaluation.get(DOOR)

    def devices(stage: BuildStage) -> Counter[object]:
        return Counter(key for task in of_stage(job, stage) for key in task.where)

    on_plate = Counter(DeviceKey(device) for stand in layout.stands for device, *_ in stand.block.members)
    assert devices(BuildStage.PARTS) == on_plate
    assert devices(BuildStage.OPERATORS) == Counter(DeviceKey(seat.device) for seat in door.seats)
    terminals = Counter(DeviceKey(row.device) for strip in evaluation.get(STRIPS).strips for row in strip.rows)
    assert devices(BuildStage.STRIPS) == terminals
    assert len(of_stage(job, BuildStage.RAILS)) == len(layout.rails) + len(layout.ducts)
    fingers = sum(opening.fingers for use in evaluation.get(DUCT_USES) for opening in use.openings)
    assert sum(int(task.title.split()[1]) for task in of_stage(job, BuildStage.FINGERS)) == fingers


def test_every_wire_belongs_to_one_stage_of_wiring(job: Job) -> None:
    wiring = plan_for(job).get(WIRING)
    progress = progress_of(wiring, ())
    stages = [stage for stage in BuildStage if stage.is_wiring]
    counted = Counter(state.wire.key for stage in stages for state in wires_of_stage(stage, progress))
    assert counted == Counter(wire.key for wire in wiring.wires)


def test_no_gate_waits_for_a_later_stage_and_all_lead_to_the_inspection() -> None:
    order = list(BuildStage)
    graph = nx.DiGraph([(needed, stage) for stage, before in NEEDS.items() for needed in before])
    assert all(order.index(needed) < order.index(stage) for needed, stage in graph.edges)
    assert nx.is_directed_acyclic_graph(graph)
    assert nx.ancestors(graph, BuildStage.INSPECTION) == set(order) - {BuildStage.INSPECTION}


def test_a_gate_opens_when_everything_before_it_is_done() -> None:
    job = frost_fan()
    records: list[Record] = []
    for stage in BuildStage:
        before = states(job, records)[stage]
        assert before.may_begin, f"{stage}: {before.shut}"
        if stage.is_wiring:
            wires = wires_of_stage(stage, progress_of(plan_for(job).get(WIRING), records))
            records += [said(s.wire.key, tick_facts(s.wire, operation)) for s in wires for operation in Operation]
        records += done(of_stage(job, stage))
        assert states(job, records)[stage].complete
    assert all(state.minutes_left == 0 for state in states(job, records).values())


@pytest.mark.parametrize("stage", NEEDS)
def test_a_shut_gate_names_each_stage_that_is_not_finished(stage: BuildStage) -> None:
    state = states(frost_fan(), [])[stage]
    assert not state.may_begin
    assert [line.partition(":")[0] for line in state.shut] == [needed.value for needed in NEEDS[stage]]


def test_a_gate_is_passed_with_a_reason_which_stays_and_can_be_taken_back() -> None:
    job = frost_fan()
    shut = states(job, [])[BuildStage.WIRES]
    with pytest.raises(ValueError, match="reason"):
        gate_facts(shut, "  ")
    with pytest.raises(ValueError, match="open"):
        gate_facts(states(job, [])[BuildStage.RECEIVE], "because")
    record = said(gate_subject(BuildStage.WIRES), gate_facts(shut, "the labels come on Friday"), "Ola")
    passed = states(job, [record])[BuildStage.WIRES]
    assert passed.may_begin
    assert passed.passed is not None
    assert (passed.passed.who, passed.passed.reason) == ("Ola", "the labels come on Friday")
    assert all(line in passed.passed.open_work for line in shut.shut)
    assert not states(job, [record])[BuildStage.DOOR].may_begin, "each gate is passed by itself"
    back = said(record.subject, TakenBack("gate"), corrects=record.id)
    assert not states(job, [record, back])[BuildStage.WIRES].may_begin


def test_parts_that_are_short_stay_open_until_the_rest_comes() -> None:
    tasks = of_stage(kelp_shed(), BuildStage.RECEIVE)
    task = next(task for task in tasks if isinstance(task.facts, PartReceived) and task.facts.wanted > 2)
    assert isinstance(task.facts, PartReceived)
    short = said(task.subject, received(task.facts, task.facts.wanted - 1, "", ""))
    state = state_of(tasks, [short], task.title)
    assert state.done is None
    assert state.stale == f"{task.facts.wanted - 1} of {task.facts.wanted} are there"
    whole = said(task.subject, received(task.facts, task.facts.wanted, " 12, 13 ", "B7"))
    assert state_of(tasks, [short, whole], task.title).done is not None
    assert isinstance(whole.facts, PartReceived)
    assert (whole.facts.serials, whole.facts.batch) == ("12, 13", "B7")
    with pytest.raises(ValueError, match="none"):
        received(task.facts, -1, "", "")


def test_more_parts_than_came_are_asked_for_after_an_edit() -> None:
    task = of_stage(frost_fan(), BuildStage.RECEIVE)[0]
    assert isinstance(task.facts, PartReceived)
    more = replace(task, facts=PartReceived(task.facts.part, task.facts.wanted + 2, task.facts.wanted + 2))
    (state,) = task_states([more], done([task]))
    assert state.done is None
    assert state.stale == f"{task.facts.wanted} of {task.facts.wanted + 2} are there"


def test_a_part_that_the_plan_moved_or_changed_is_mounted_again() -> None:
    job = kelp_shed()
    evaluation = plan_for(job)
    records = done(of_stage(job, BuildStage.PARTS))
    layout = evaluation.get(LAYOUT)
    stand = [stand for stand in layout.stands if stand.rail][-1]
    moved = move_block(job, layout, stand.block.lead, stand.rail, stand.x + 3.0)
    stale = [state for state in task_states(of_stage(moved, BuildStage.PARTS), records) if state.done is None]
    assert stale
    assert all("away from where it was mounted" in state.stale for state in stale)
    task = of_stage(job, BuildStage.PARTS)[0]
    other = said(task.subject, replace_part(task))
    (state,) = task_states([task], [other])
    assert state.stale.startswith("OTHER-1 was mounted")


def replace_part(task: WorkTask) -> Facts:
    import msgspec

    return msgspec.structs.replace(task.facts, part="OTHER-1")


def test_what_was_done_to_something_else_no_longer_counts() -> None:
    job = kelp_shed()
    records = done(plan_for(job).get(WORK))
    changed = set_practice(job, duct_width=80.0)
    stale = [state for state in task_states(plan_for(changed).get(WORK), records) if state.stale]
    assert {state.task.stage for state in some(stale)} >= {BuildStage.RAILS, BuildStage.CUT}
    rail = next(state for state in stale if state.task.stage is BuildStage.RAILS)
    assert "it is now" in rail.stale
    assert isinstance(rail.task.facts, TaskDone)


def test_the_points_of_the_inspection_name_the_clauses_of_the_rulebook() -> None:
    """IEC 61439-1:2011, 11.2 to 11.8, then IEC 60204-1, from memory; in North America its own sources are named."""
    points = [t for t in of_stage(kelp_shed(), BuildStage.INSPECTION) if t.subject.startswith("task:look ")]
    clauses = [task.how[-1] for task in points]
    assert [line.split()[3].rstrip(",") for line in clauses] == [
        *(f"11.{n}" for n in range(2, 9)), "8.2", "13.2", "16.4", "16.3",
    ]  # fmt: skip
    american = of_stage(set_practice(kelp_shed(), rulebook=Rulebook.UL), BuildStage.INSPECTION)
    assert not any("IEC" in task.how[-1] for task in american)


@pytest.mark.parametrize("rulebook", [Rulebook.IEC, Rulebook.UL])
def test_every_clause_that_can_be_seen_is_looked_at_where_it_applies_and_only_there(rulebook: Rulebook) -> None:
    """Against the clauses as Rules judges them: both a drum, which has few, and a shed."""
    for job in (wash_drum(), kelp_shed()):
        evaluation = plan_for(set_practice(job, rulebook=rulebook))
        results = {result.code: result for result in evaluation.get(RULES)}
        tasks = [t for t in evaluation.get(WORK) if t.subject.startswith("task:clause ")]
        looked_at = {task.subject.removeprefix("task:clause ") for task in tasks}
        applies = {code for code, result in results.items() if result.verdict is not Verdict.NOT_APPLICABLE}
        assert looked_at == {code for code in applies if clause_look(code)}
        assert len(looked_at) > 35
        for task in tasks:
            assert results[task.title.split()[0]].clause in task.how[-1]
            assert not (rulebook is Rulebook.UL and "IEC" in task.how[-1])


def test_what_is_looked_at_is_a_clause_and_says_it_in_a_sentence() -> None:
    codes = {result.code for result in plan_for(wash_drum()).get(RULES)}
    rows = table("clause_looks").rows
    assert {row["code"] for row in rows} <= codes
    assert len(rows) == len({row["code"] for row in rows}) >= 50
    assert all(row["look"].endswith(".") for row in rows)
    assert clause_look("B04") == "", "what the builder typed cannot be seen on the panel"


def test_all_tasks_have_keys_of_their_own(job: Job) -> None:
    from riktig.core.records import slot_of

    slots = Counter(slot_of(task.subject, task.facts) for task in plan_for(job).get(WORK))
    assert max(slots.values()) == 1


def test_every_thick_conductor_of_the_supply_is_tightened_a_second_time(job: Job) -> None:
    """Told from the wire list: clamps of what belongs to the incoming supply, 4 mm² and above; earth studs apart."""
    evaluation = plan_for(job)
    supply = {device.id for device in evaluation.get(CIRCUITS).devices if device.circuit == INCOMER_ID}
    studs = {device.id for device in evaluation.get(CIRCUITS).devices if device.kind.can(Can.EARTH_STUD)}
    clamps = {
        end.label
        for wire in evaluation.get(WIRING).wires
        for end in (wire.start, wire.end)
        if end.pin.device in supply - studs and wire.mm2 >= 4
    }
    titles = [task.title for task in of_stage(job, BuildStage.SUPPLY_AGAIN)]
    assert len(titles) == len(clamps) > 5
    assert all(any(title.startswith(clamp) for clamp in clamps) for title in titles)


@pytest.mark.parametrize("name", list(SAMPLES)[::9])
def test_every_kind_of_job_has_tasks_of_their_own_and_pictures(name: str) -> None:
    evaluation = plan_for(sample(name))
    tasks = evaluation.get(WORK)
    assert max(Counter(task.slot for task in tasks).values()) == 1
    assert all(task.title.strip() and task.how for task in tasks)
    progress = progress_of(evaluation.get(WIRING), ())
    now = panel_now(stage_states(tasks, progress, ()), progress)
    layout, door, names = evaluation.get(LAYOUT), evaluation.get(DOOR), evaluation.get(NAMES)
    for shown in Shown:
        assert draw_panel_now(layout, door, names, now, shown).shapes
    for seat in door.seats:
        assert draw_operator(seat, names.tag[seat.device]).shapes


def test_the_loom_waits_for_the_plate_or_comes_first_by_practice() -> None:
    evaluation = plan_for(frost_fan())
    tasks, progress = evaluation.get(WORK), progress_of(evaluation.get(WIRING), ())
    last = [state.stage for state in stage_states(tasks, progress, (), DoorOrder.LAST)]
    first = [state.stage for state in stage_states(tasks, progress, (), DoorOrder.FIRST)]
    assert last.index(BuildStage.WIRES) < last.index(BuildStage.DOOR)
    assert first.index(BuildStage.DOOR) < first.index(BuildStage.WIRES)
    assert set(first) == set(last) == set(BuildStage)
    waits = {order: needs_of(BuildStage.DOOR, order) for order in DoorOrder}
    assert BuildStage.WIRES in waits[DoorOrder.LAST]
    assert BuildStage.WIRES not in waits[DoorOrder.FIRST]


def test_a_wire_that_loosens_one_of_an_earlier_stage_shuts_no_gate_behind_it() -> None:
    """Door wires land in clamps of the plate: what was tight there is not until their screws are tightened."""
    evaluation = plan_for(frost_fan())
    wiring, tasks = evaluation.get(WIRING), evaluation.get(WORK)
    progress = progress_of(wiring, ())
    plate = [s.wire for s in wires_of_stage(BuildStage.WIRES, progress)]
    door = [s.wire for s in wires_of_stage(BuildStage.DOOR, progress)]
    records = done(tasks) + [said(wire.key, tick_facts(wire, operation)) for wire in plate for operation in Operation]
    for wire in door:
        for operation in Operation:
            now = {s.stage: s for s in stage_states(tasks, progress_of(wiring, records), records)}
            assert now[BuildStage.DOOR].may_begin, now[BuildStage.DOOR].shut
            records.append(said(wire.key, tick_facts(wire, operation)))
    now = {s.stage: s for s in stage_states(tasks, progress_of(wiring, records), records)}
    assert now[BuildStage.WIRES].complete, "whoever tightens the second conductor of a clamp has tightened both"
    assert now[BuildStage.DOOR].complete


def test_the_second_tightening_is_lost_when_its_clamp_is_opened_again() -> None:
    evaluation = plan_for(frost_fan())
    tasks = of_stage(frost_fan(), BuildStage.SUPPLY_AGAIN)
    wire = next(
        wire
        for wire in evaluation.get(WIRING).wires
        if any(task.subject == f"task:again {wire.start.pin}" for task in tasks)
    )
    task = next(task for task in tasks if task.subject == f"task:again {wire.start.pin}")
    landed = said(wire.key, tick_facts(wire, Operation.LANDED_START))
    again = said(task.subject, task.facts)
    (state,) = task_states([task], [landed, again])
    assert state.done is not None
    for opening in (
        said(wire.key, tick_facts(wire, Operation.LANDED_START)),
        said(wire.key, TakenBack("landed"), corrects=landed.id),
    ):
        (state,) = task_states([task], [landed, again, opening])
        assert state.done is None
        assert "opened again" in state.stale
        (state,) = task_states([task], [landed, again, opening, said(task.subject, task.facts)])
        assert state.done is not None
