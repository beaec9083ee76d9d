"""Surveys: potentials against a graph library, contradictions put in one by one, and the way back into a job."""

from collections.abc import Callable
from itertools import pairwise
from pathlib import Path

import networkx as nx
import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Behaviour, Can
from riktig.core.errors import RiktigError
from riktig.core.ids import PinRef, device_id
from riktig.core.imports import (
    FoundPotentials,
    Survey,
    SurveyedPart,
    SurveyedSource,
    SurveyedWire,
    circuit_found,
    grid_of_text,
    read_survey,
    survey_findings,
    survey_of_grid,
)
from riktig.core.job import FoundNames, Job, add_load, new_job
from riktig.core.schematic import CIRCUITS, NAMES, NETS, add_written, names_taken, taken_words, with_names_recorded
from riktig.core.store import WrittenCircuit, dump_rungs, load_rungs
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

EXAMPLE = Path(__file__).parents[3] / "examples" / "survey.csv"
HEADING = "what,tag,kind,place,from,to,number,mm2,colour,note\n"


def survey_of_plan(job: Job) -> Survey:
    """What somebody would note who traced every conductor of a planned panel."""
    plan = plan_for(job)
    circuits, nets = plan.get(CIRCUITS), plan.get(NETS)
    supply = {device.id for device in circuits.devices if device.kind.can(Can.SUPPLY)}
    parts = tuple(SurveyedPart(str(d.id), d.kind, d.zone.value) for d in circuits.devices if d.id not in supply)
    wires, sources = [], []
    for net in nets.nets:
        clamps = [(str(pin.device), pin.marking) for pin in net.pins if pin.device not in supply]
        wires += [SurveyedWire(first, last) for first, last in pairwise(clamps)]
        sources += [SurveyedSource(pin.marking, clamps[0]) for pin in net.pins if pin.device in supply]
    return Survey(parts, tuple(wires), tuple(sources))


@pytest.mark.parametrize("build", [wash_drum, frost_fan, kelp_shed])
def test_potentials_are_those_of_a_graph_library(build: Callable[[], Job]) -> None:
    survey = survey_of_plan(build())
    graph: nx.Graph[tuple[str, str]] = nx.Graph()
    for wire in survey.wires:
        assert wire.start
        assert wire.end
        graph.add_edge(wire.start, wire.end)
    for source in survey.sources:
        graph.add_node(source.clamp)
    for part in survey.parts:
        for unit in part.kind.units:
            if unit.behaviour is Behaviour.JOINT:
                nx.add_star(graph, [(part.tag, pin) for pin in unit.pins])
    found = FoundPotentials(survey)
    assert {frozenset(clamps) for clamps in found.clamps.values()} == set(
        map(frozenset, nx.connected_components(graph))
    )


@pytest.mark.parametrize("build", [wash_drum, frost_fan])
def test_the_circuits_found_are_drawn_in_a_job_with_the_same_potentials(build: Callable[[], Job]) -> None:
    found = FoundPotentials(survey_of_plan(build()))
    written = load_rungs(dump_rungs(circuit_found(found)))
    renamed = [
        type(rung)(rung.role, rung.title, f"x.{rung.start}", rung.path, f"x.{rung.end}" if rung.end else "", rung.band)
        for rung in written.rungs
    ]
    job = add_written(new_job("R-1", "Found"), "as found", written.devices, renamed)
    nets = plan_for(job).get(NETS)
    circuit = job.circuits[-1].id
    drawn: dict[object, set[tuple[str, str]]] = {}
    for net in nets.nets:
        for pin in net.pins:
            if str(pin.device).startswith(f"{circuit}."):
                drawn.setdefault(net.id, set()).add((str(pin.device).removeprefix(f"{circuit}."), pin.marking))
    on_rungs = {clamp for clamps in drawn.values() for clamp in clamps}
    asked = [set(clamps) & on_rungs for clamps in found.clamps.values()]
    assert {frozenset(clamps) for clamps in drawn.values()} == {frozenset(clamps) for clamps in asked if clamps}
    assert len(on_rungs) >= 0.9 * len(found.of), "what was traced is on the rungs"


def test_the_example_says_what_is_not_known() -> None:
    found = FoundPotentials(read_survey(EXAMPLE))
    texts = [finding.text for finding in survey_findings(found)]
    assert texts == [
        "The wire 5 at K1:21 was not followed to its other end.",
        "The single earth point was not noted: a source PE with its clamp.",
    ]
    paths = [(rung.start, rung.path, rung.end) for rung in circuit_found(found).rungs if "@" not in rung.path]
    crossed = " ".join(path for _, path, _ in paths)
    units = ("F1:1-2", "S1:1-2", "S2:3-4", "K1:13-14", "K1:A1-A2", "K1:43-44", "H1:X1-X2")
    assert sorted(item.removeprefix("<") for item in crossed.split()) == sorted(units)


def rows(*lines: str) -> FoundPotentials:
    base = [
        "part,K1,contactor,plate,,,,,,", "part,S1,start_button,door,,,,,,", "part,X1,earth_bar,plate,,,,,,",
        "source,L1,,,S1:3,,,,,", "source,PE,,,X1:1,,,,,", "wire,,,,S1:4,K1:A1,7,1,red,",
    ]  # fmt: skip
    return FoundPotentials(survey_of_grid(grid_of_text(HEADING + "\n".join([*base, *lines]), "survey.csv")))


def test_what_is_sound_has_no_finding() -> None:
    assert survey_findings(rows("wire,,,,X1:2,X1:3,PE,4,green-yellow,")) == ()


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        (["wire,,,,K1:13,K1:43,7,1,red,"], "The number 7 stands at"),
        (["wire,,,,K1:A1,K1:13,8,1,red,"], "carries the numbers 7, 8"),
        (["wire,,,,K1:21,?,9,1,red,"], "not followed to its other end"),
        (["wire,,,,K1:21,K9:13,9,1,red,"], "no K9 was noted"),
        (["wire,,,,K1:21,K1:99,9,1,red,"], "has no such clamp"),
        (["source,N,,,S1:3,,,,,"], "L1 and N are joined"),
        (["source,L1,,,K1:13,,,,,"], "L1 comes in at"),
        (["source,PE,,,K1:22,,,,,"], "more than one earth point"),
        (["wire,,,,K1:21,K1:31,9,1,green-yellow,"], "is green-yellow and no earth"),
        (["wire,,,,X1:2,X1:3,PE,1,red,"], "is an earth and red"),
        (["part,M1,motor,field,,,,,,", "wire,,,,M1:U1,K1:2,9,1,black,", "wire,,,,M1:PE,K1:4,1,1,black,"],
         "M1:PE has no way to the earth point"),
        (["part,K7,contactor,plate,,,,,,"], "No wire was traced to K7"),
        (["wire,,,,K1:A1,K1:13,7,1,red,", "wire,,,,K1:A1,K1:43,7,1,red,"], "3 conductors were noted in the clamp"),
    ],
)  # fmt: skip
def test_each_contradiction_is_found(lines: list[str], said: str) -> None:
    texts = [finding.text for finding in survey_findings(rows(*lines))]
    assert any(said in text for text in texts), texts


def test_without_a_source_nothing_is_taken_for_granted() -> None:
    found = FoundPotentials(Survey((), (SurveyedWire(("A", "1"), ("B", "1")),)))
    kinds = {finding.about for finding in survey_findings(found) if finding.kind == "not known"}
    assert kinds >= {"sources", "PE"}


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("thing,K1,,,,,,,,", "none of part, wire, source"),
        ("part,K1,flux box,,,,,,,", "no kind of part"),
        ("part,K:1,contactor,,,,,,,", "no tag"),
        ("part,K1,contactor,roof,,,,,,", "not “roof”"),
        ("wire,,,,K1,K2:1,,,,", "no clamp"),
        ("source,,,,K1:1,,,,,", "a source has a name"),
        ("part,K1,contactor,,,,,,,\npart,K1,contactor,,,,,,,", "noted before"),
    ],
)
def test_a_line_that_cannot_be_read_is_said_with_its_number(line: str, said: str) -> None:
    with pytest.raises(RiktigError) as refused:
        survey_of_grid(grid_of_text(HEADING + line, "survey.csv"))
    assert any(said in fault.message and "survey.csv" in fault.where for fault in refused.value.faults)


@pytest.mark.parametrize("text", ["", "part,K1\n", HEADING.replace("what", "which")])
def test_a_sheet_of_another_form_is_refused(text: str) -> None:
    with pytest.raises(RiktigError):
        survey_of_grid(grid_of_text(text, "survey.csv"))


class TestNamesFound:
    """What stands on the panel stays: tags, and numbers of one potential each."""

    def written(self) -> WrittenCircuit:
        found = rows("part,H1,lamp,door,,,,,,", "wire,,,,K1:A2,H1:X2,8,1,red,", "wire,,,,H1:X1,K1:13,L1,1,red,")
        return load_rungs(dump_rungs(circuit_found(found)))

    def test_they_go_into_the_job_and_stay_through_edits(self) -> None:
        written = self.written()
        assert dict(written.found.tags) == {"K1": "K1", "S1": "S1", "X1": "X1", "H1": "H1"}
        assert dict(written.found.numbers)["7"] == ("S1:4", "K1:A1")
        job = new_job("R-1", "Found")
        job = with_names_recorded(add_written(job, written.title, written.devices, written.rungs, written.found))
        circuit = job.circuits[-1].id
        for _ in range(2):
            names = plan_for(job).get(NAMES)
            nets = plan_for(job).get(NETS).of_pin
            for role in ("K1", "S1", "H1"):
                assert names.tag[device_id(circuit, role)] == role
            number = names.number[nets[PinRef(device_id(circuit, "S1"), "4")].id]
            assert number == "7"
            assert names.number[nets[PinRef(device_id(circuit, "H1"), "X2")].id] == "8"
            job = with_names_recorded(add_load(job, "fan", kw=4.0))

    def test_a_name_that_the_job_has_is_said_and_another_given(self) -> None:
        job = with_names_recorded(wash_drum())
        written = self.written()
        taken = names_taken(job, written.found)
        assert {"K1", "S1", "number 7"} <= set(taken)
        assert taken_words(("K1",)) == "K1 is in this job already: what was found got another name."
        after = with_names_recorded(add_written(job, written.title, written.devices, written.rungs, written.found))
        tags, numbers = plan_for(after).get(NAMES).tag, plan_for(after).get(NAMES).number
        own = {device: tag for device, tag in tags.items() if device.startswith(f"{after.circuits[-1].id}.")}
        others = {tag for device, tag in tags.items() if device not in own}
        assert len(own) == 4 and not others & set(own.values())
        before = dict(plan_for(job).get(NAMES).number)
        assert {net: numbers[net] for net in before} == before, "what was there keeps its numbers"

    @pytest.mark.parametrize(
        ("found", "where"),
        [
            (FoundNames((("K9", "K9"),)), "$.tags.K9"),
            (FoundNames((("K1", ""),)), "$.tags.K1"),
            (FoundNames((("K1", "A"), ("S1", "A"))), "$.tags.K1"),
            (FoundNames((), (("7", ("K9:13",)),)), "$.numbers.7"),
        ],
    )
    def test_names_of_what_is_not_there_are_refused(self, found: FoundNames, where: str) -> None:
        written = self.written()
        with pytest.raises(RiktigError) as caught:
            add_written(new_job("R-1", "Found"), written.title, written.devices, written.rungs, found)
        assert any(str(fault).startswith(where) for fault in caught.value.faults)
