"""The live function tests that the panel will be led through: the scripts of its circuits, with tags."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TypeAlias

from riktig.core.job import Circuit, CircuitId, CircuitInputs
from riktig.core.schematic import Circuits, Names, all_circuits, script_of
from riktig.core.simulation import PressedTogether, guard_of, with_tags

__all__ = ["FunctionStep", "Scripts", "live_script", "live_scripts", "plan_function"]

Scripts: TypeAlias = Mapping[CircuitId, tuple[str, ...]]
"""The script of every circuit as it is done at the panel, by the roles of its devices."""
ONLY_ON_PAPER = ("push", "let")
"""Steps tried on the model alone: nobody pushes an armature by hand under voltage."""
_AT_THE_PANEL = {"spend": "pull the module out of {}, or part its signal contact", "renew": "put the module of {} back"}
"""How a step of the model is done at the panel: nobody spends a surge protector to see its lamp."""


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
    function_steps: list[FunctionStep] = []
    for circuit in whole:
        script = live_script(circuit, inputs, whole)
        for number, text in enumerate(script, 1):
            done, _, rest = text.partition(":")
            expected = (part.strip() for part in rest.split(",") if part.strip() and not part.strip().endswith(" any"))
            function_steps.append(
                FunctionStep(
                    circuit.id,
                    titles.get(circuit.id, circuit.title),
                    number,
                    _at_the_panel(with_tags(_of_guard(done.strip(), circuit.id, circuits), circuit.id, names.tag)),
                    tuple(with_tags(words, circuit.id, names.tag) for words in expected),
                )
            )
        for pair in (tried for tried in together if tried.circuit == circuit.id):
            buttons, contactors = (" and ".join(names.tag[d] for d in ids) for ids in (pair.buttons, pair.contactors))
            both, never = f"press {buttons} at the same instant", f"{contactors} never in together"
            function_steps.append(FunctionStep(circuit.id, titles[circuit.id], len(script) + 1, both, (never,)))
    return tuple(function_steps)


def _of_guard(done: str, circuit: CircuitId, circuits: Circuits) -> str:
    """“trip guard” with the device that guards the load of a circuit."""
    verb, _, what = done.partition(" ")
    device = guard_of(circuits.by_id, circuit) if what == "guard" else None
    return f"{verb} {device}" if device else done


def _at_the_panel(done: str) -> str:
    verb, _, tag = done.partition(" ")
    return _AT_THE_PANEL[verb].format(tag) if verb in _AT_THE_PANEL else done


def live_script(circuit: Circuit, inputs: CircuitInputs, whole: tuple[Circuit, ...]) -> tuple[str, ...]:
    """The steps of a circuit that are done at the panel, by the roles of its devices.

    Args:
        circuit: The circuit.
        inputs: What the circuits follow from.
        whole: All circuits of the job, those that the Brief implies too.
    """
    load = next((load for load in inputs.loads if load.id == circuit.load), None)
    script = script_of(circuit, load, inputs.signals, whole, inputs.supply.system.lines, inputs.practice)
    return tuple(text for text in script if text.split()[0] not in ONLY_ON_PAPER)


def live_scripts(inputs: CircuitInputs) -> Scripts:
    """The scripts of all circuits.

    Args:
        inputs: What the circuits follow from.
    """
    whole = all_circuits(inputs)
    return {circuit.id: live_script(circuit, inputs, whole) for circuit in whole}
