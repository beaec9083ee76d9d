"""The live function tests that the panel will be led through: the scripts of its circuits, with tags."""

from dataclasses import dataclass

from riktig.core.job import CircuitId, CircuitInputs
from riktig.core.schematic import Circuits, Names, all_circuits, script_of
from riktig.core.simulation import PressedTogether, with_tags

__all__ = ["FunctionStep", "plan_function"]

ONLY_ON_PAPER = ("push", "let", "spend", "renew")
"""Steps tried on the model alone: nobody pushes an armature by hand under voltage, nor spends a surge protector."""


@dataclass(frozen=True, slots=True)
class FunctionStep:
    """One step of a circuit's function test: what is done, and what must then be so."""

    circuit: CircuitId
    title: str
    number: int
    done: str
    expected: tuple[str, ...]


def plan_function(
    inputs: CircuitInputs, circuits: Circuits, names: Names, together: tuple[PressedTogether, ...] = ()
) -> tuple[FunctionStep, ...]:
    """All steps, circuit by circuit. They are live tests: planned here, led by a qualified person only.

    Args:
        inputs: What the circuits follow from.
        circuits: All devices and rungs of the job.
        names: Tags of devices and numbers of nets.
        together: Opposite buttons, which are pressed at once at the end of their circuit's test.
    """
    whole = all_circuits(inputs)
    titles = dict(circuits.titles)
    of_load = {load.id: load for load in inputs.loads}
    function_steps: list[FunctionStep] = []
    for circuit in whole:
        load = of_load.get(circuit.load) if circuit.load else None
        script = [
            text
            for text in script_of(circuit, load, inputs.signals, whole, inputs.supply.system.lines, inputs.practice)
            if text.split()[0] not in ONLY_ON_PAPER
        ]
        for number, text in enumerate(script, 1):
            done, _, rest = text.partition(":")
            expected = (part.strip() for part in rest.split(",") if part.strip() and not part.strip().endswith(" any"))
            function_steps.append(
                FunctionStep(
                    circuit.id,
                    titles.get(circuit.id, circuit.title),
                    number,
                    with_tags(done.strip(), circuit.id, names.tag),
                    tuple(with_tags(words, circuit.id, names.tag) for words in expected),
                )
            )
        for pair in (tried for tried in together if tried.circuit == circuit.id):
            buttons, contactors = (" and ".join(names.tag[d] for d in ids) for ids in (pair.buttons, pair.contactors))
            both, never = f"press {buttons} at the same instant", f"{contactors} never in together"
            function_steps.append(FunctionStep(circuit.id, titles[circuit.id], len(script) + 1, both, (never,)))
    return tuple(function_steps)
