"""Random changes of circuits: every rung stays drawable, kept results equal fresh ones, undo is exact."""

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Act, ElementId, Insertable, Job, Recipe
from riktig.core.schematic import (
    CIRCUIT_TEMPLATES,
    CIRCUITS,
    FAULTS,
    NAMES,
    NETS,
    SHEETS,
    Band,
    Insertion,
    add_circuit,
    circuit_template_of,
    elements_of,
    free_contacts,
    insert_element,
    move_element,
    named_nodes,
    remove_element,
    rewire,
    set_param,
    take_back,
    with_names_recorded,
)
from riktig.core.store import dump_job, load_job
from tests.core.schematic.samples import sample
from tests.effort import times
from tests.shared_plan import plan_for

PLACES = [Act.AFTER, Act.BEFORE, Act.ACROSS, Act.INSTEAD]
STARTS = ["direct-on-line", "both ways", "star-delta", "pump by level", "emergency stop", "all of it by the controller"]


class Changer(RuleBasedStateMachine):
    """A builder who changes circuits as it comes."""

    @initialize(name=st.sampled_from(STARTS))
    def start(self, name: str) -> None:
        self.job: Job = sample(name)
        self.evaluation: Evaluation[Job] = plan_for(self.job)
        self.undo: list[tuple[Job, object]] = []

    def _elements(self) -> list[ElementId]:
        rungs = self.evaluation.get(CIRCUITS).rungs
        return [e.id for rung in rungs if rung.band is Band.CONTROL for e in elements_of(rung.path)]

    def _edit(self, job: Job) -> None:
        self.undo.append((self.job, self.evaluation.get(SHEETS)))
        self.job = with_names_recorded(job)
        self.evaluation.move_to(self.job)

    def _try(self, job: object) -> None:
        try:
            self._edit(job())  # type: ignore[operator]
        except RiktigError as error:
            assert error.hint

    @rule(at=st.integers(0, 400), what=st.sampled_from([i for i in Insertable if i is not Insertable.CONTACT]),
          act=st.sampled_from(PLACES))  # fmt: skip
    @precondition(lambda self: self._elements())
    def put(self, at: int, what: Insertable, act: Act) -> None:
        elements = self._elements()
        self._try(lambda: insert_element(self.job, elements[at % len(elements)], Insertion(what, "more", act)))

    @rule(at=st.integers(0, 400), which=st.integers(0, 400), act=st.sampled_from(PLACES))
    @precondition(lambda self: bool(self._elements() and free_contacts(self.job)))
    def use_a_contact(self, at: int, which: int, act: Act) -> None:
        elements, free = self._elements(), free_contacts(self.job)
        to = free[which % len(free)][0]
        self._try(
            lambda: insert_element(
                self.job, elements[at % len(elements)], Insertion(Insertable.CONTACT, "", act, to=to)
            )
        )

    @rule(at=st.integers(0, 400))
    @precondition(lambda self: self._elements())
    def take_out(self, at: int) -> None:
        elements = self._elements()
        self._try(lambda: remove_element(self.job, elements[at % len(elements)]))

    @rule(at=st.integers(0, 400), to=st.integers(0, 400))
    @precondition(lambda self: self._elements())
    def move(self, at: int, to: int) -> None:
        elements = self._elements()
        self._try(lambda: move_element(self.job, elements[at % len(elements)], elements[to % len(elements)]))

    @rule(at=st.integers(0, 400), node=st.integers(0, 400), start=st.booleans())
    @precondition(lambda self: self._elements())
    def wire_elsewhere(self, at: int, node: int, start: bool) -> None:
        elements, nodes = self._elements(), list(named_nodes(self.job))
        self._try(lambda: rewire(self.job, elements[at % len(elements)], nodes[node % len(nodes)], start=start))

    @rule(recipe=st.sampled_from([entry.recipe for entry in CIRCUIT_TEMPLATES if entry.make is not None]))
    @precondition(lambda self: len(self.job.circuits) < 6)
    def add(self, recipe: Recipe) -> None:
        self._edit(add_circuit(self.job, recipe))

    @rule(which=st.integers(0, 20), choice=st.integers(0, 20))
    def choose(self, which: int, choice: int) -> None:
        circuit = self.job.circuits[which % len(self.job.circuits)]
        params = circuit_template_of(circuit.recipe).params
        if params:
            parameter = params[choice % len(params)]
            value = parameter.choices[choice % len(parameter.choices)]
            self._edit(set_param(self.job, circuit.id, parameter.name, value))

    @rule()
    def take_one_back(self) -> None:
        found = next(((c, c.changes[0]) for c in self.job.circuits if c.changes), None)
        if found:
            self._edit(take_back(self.job, found[0].id, found[1]))

    @rule()
    @precondition(lambda self: self.undo)
    def go_back(self) -> None:
        self.job, sheets = self.undo.pop()
        self.evaluation.move_to(self.job)
        assert self.evaluation.get(SHEETS) == sheets

    @invariant()
    def every_rung_is_drawn(self) -> None:
        if not hasattr(self, "plan"):
            return
        places = self.evaluation.get(SHEETS).places
        for element in self._elements():
            assert element in places
        circuits = self.evaluation.get(CIRCUITS)
        kept = {str(clash.change) for clash in circuits.clashes}
        drawn = {device.id for device in circuits.devices}
        for circuit in self.job.circuits:
            for change in circuit.changes:
                if change.number and change.what is not Insertable.CONTACT and str(change) not in kept:
                    later = circuit.changes[circuit.changes.index(change) + 1 :]
                    gone = any(f".x{change.number}" in c.element for c in later)
                    assert f"{circuit.id}.x{change.number}" in drawn or gone, "nothing is dropped in silence"

    @invariant()
    def kept_results_equal_fresh_ones(self) -> None:
        if not hasattr(self, "plan"):
            return
        again = Evaluation(load_job(dump_job(self.job)))
        for derived in (CIRCUITS, NETS, NAMES, FAULTS, SHEETS, SHEET_DRAWINGS):
            assert self.evaluation.get(derived) == again.get(derived), derived.name


TestChanger = Changer.TestCase
TestChanger.settings = settings(max_examples=times(8, 100), stateful_step_count=10, deadline=None)
