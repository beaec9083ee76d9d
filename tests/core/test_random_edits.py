"""Random edits, undo, redo and reopening: kept results equal fresh ones, nothing confirmed is lost."""

import shutil
import tempfile
from pathlib import Path

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    ControlTap,
    EarthScheme,
    ElementId,
    Insertable,
    Job,
    Protection,
    Rulebook,
    Start,
    add_load,
    change_load,
    new_job,
    override,
    remove_load,
    set_practice,
    set_supply,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.production import Operation, progress_of, tick_facts
from riktig.core.proving import TESTS
from riktig.core.records import Record
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, NAMES, insert_contact, with_names_recorded
from riktig.core.sizing import PROPOSAL
from riktig.core.store import JobFile
from riktig.core.wiring import WIRING
from tests.effort import times
from tests.shared_plan import plan_for

KW = st.sampled_from([0.37, 1.5, 4.0, 7.5, 11.0])


class Builder(RuleBasedStateMachine):
    """A builder who edits, ticks, takes back, and now and then closes and opens the job."""

    @initialize()
    def start(self) -> None:
        self.folder = Path(tempfile.mkdtemp())
        self.job = with_names_recorded(new_job("R-1", "random"))
        self.file = JobFile.create(self.folder / "r.riktig", self.job, who="Ida", at="t")
        self.evaluation: Evaluation[Job] = plan_for(self.job)
        self.undo: list[Job] = []
        self.redo: list[Job] = []
        self.ticked: list[Record] = []

    def _turn(self, job: Job) -> None:
        self.job = job
        self.evaluation.move_to(job)
        self.file.add_revision(job, who="Ida", at="t", why="edit")

    def _edit(self, job: Job) -> None:
        self.undo.append(self.job)
        self.redo = []
        self._turn(with_names_recorded(job))

    @rule(kw=KW)
    @precondition(lambda self: len(self.job.loads) < 3)
    def add(self, kw: float) -> None:
        self._edit(add_load(self.job, f"fan {len(self.undo)}", kw))

    @rule(kw=KW, run=st.booleans())
    @precondition(lambda self: self.job.loads)
    def change(self, kw: float, run: bool) -> None:
        self._edit(change_load(self.job, self.job.loads[0].id, kw=kw, run_lamp=run))

    @rule()
    @precondition(lambda self: self.job.loads)
    def take_out(self) -> None:
        self._edit(remove_load(self.job, self.job.loads[-1].id))

    @rule(start=st.sampled_from(Start), guard=st.sampled_from(Protection))
    @precondition(lambda self: self.job.loads)
    def start_otherwise(self, start: Start, guard: Protection) -> None:
        self._edit(change_load(self.job, self.job.loads[-1].id, start=start, protection=guard))

    @rule(name=st.sampled_from(["breaker", "section", "current"]), amount=st.sampled_from([2.5, 16.0, 40.0]))
    @precondition(lambda self: self.job.loads)
    def decide(self, name: str, amount: float) -> None:
        self._edit(override(self.job, f"{self.job.loads[0].id}.{name}", amount, "it is on the shelf"))

    @rule(rulebook=st.sampled_from(Rulebook), volts=st.sampled_from([400.0, 480.0]))
    def other_market(self, rulebook: Rulebook, volts: float) -> None:
        self._edit(set_supply(set_practice(self.job, rulebook=rulebook), voltage_v=volts))

    @rule(tap=st.sampled_from(ControlTap), earths=st.sampled_from(EarthScheme))
    def practise(self, tap: ControlTap, earths: EarthScheme) -> None:
        self._edit(set_practice(self.job, control_tap=tap, earths=earths))

    @rule(what=st.sampled_from([one for one in Insertable if one is not Insertable.CONTACT]))
    @precondition(lambda self: any(d.kind_id == "contactor" for d in self.evaluation.get(CIRCUITS).devices))
    def put_in(self, what: Insertable) -> None:
        circuit = next(d.circuit for d in self.evaluation.get(CIRCUITS).devices if d.kind_id == "contactor")
        self._edit(insert_contact(self.job, ElementId(f"{circuit}.S.stop/1-2"), what, "more"))

    @rule(offset=st.floats(0, 200), rail=st.integers(1, 2))
    @precondition(lambda self: any(b.lead.endswith(".K") for b, _, _ in self.evaluation.get(LAYOUT).blocks))
    def move(self, offset: float, rail: int) -> None:
        layout = self.evaluation.get(LAYOUT)
        lead = next(b.lead for b, _, _ in layout.blocks if b.lead.endswith(".K"))
        self._edit(move_block(self.job, layout, lead, rail, offset))

    @rule()
    @precondition(lambda self: self.undo)
    def go_back(self) -> None:
        before = self.undo.pop()
        self.redo.append(self.job)
        self._turn(before)
        assert self.job is before

    @rule()
    @precondition(lambda self: self.redo)
    def go_on(self) -> None:
        self.undo.append(self.job)
        self._turn(self.redo.pop())

    @rule(which=st.integers(0, 50), operation=st.sampled_from(Operation))
    @precondition(lambda self: self.evaluation.get(WIRING).wires)
    def tick(self, which: int, operation: Operation) -> None:
        wires = self.evaluation.get(WIRING).wires
        wire = wires[which % len(wires)]
        number = len(self.ticked)
        facts = tick_facts(wire, operation)
        record = Record(f"id{number}", wire.key, facts, "Ida", f"t{number}", self.file.revision())
        self.file.add_records([record])
        self.ticked.append(record)

    @rule()
    def reopen(self) -> None:
        path = self.file.path
        self.file.close()
        self.file = JobFile(path, who="Ola")
        assert self.file.job() == self.job
        assert self.file.records() == self.ticked
        self.undo, self.redo = [], []
        self.evaluation = plan_for(self.file.job())
        self.job = self.evaluation.document

    @rule()
    @precondition(lambda self: not self.job.loads)
    def refuse(self) -> None:
        try:
            insert_contact(self.job, ElementId("c1.S.stop/1-2"), Insertable.STOP_BUTTON, "none")
        except RiktigError:
            return
        raise AssertionError("there is nothing to put it into")

    @invariant()
    def kept_results_equal_fresh_ones(self) -> None:
        if not hasattr(self, "plan"):
            return
        fresh = Evaluation(self.job)
        for derived in (PROPOSAL, NAMES, LAYOUT, WIRING, TESTS, RULES):
            assert self.evaluation.get(derived) == fresh.get(derived), derived.name
        keys = [w.key for w in self.evaluation.get(WIRING).wires]
        assert len(keys) == len(set(keys))

    @invariant()
    def every_tick_counts_or_is_said_to_be_out_of_date(self) -> None:
        if not hasattr(self, "plan"):
            return
        progress = progress_of(self.evaluation.get(WIRING), self.ticked)
        counted = {s.wire.key for s in progress.states if s.done}
        assert {r.subject for r in self.ticked} <= counted | {s.subject for s in progress.stale}

    def teardown(self) -> None:
        if hasattr(self, "file"):
            self.file.close()
            shutil.rmtree(self.folder, ignore_errors=True)


TestBuilder = Builder.TestCase
TestBuilder.settings = settings(max_examples=times(5, 60), stateful_step_count=14, deadline=None)
