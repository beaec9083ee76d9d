"""The command ``survey``: what the survey of a panel without papers shows, and its circuits as rungs."""

import argparse

from riktig.core.catalogue import kinds
from riktig.core.errors import RiktigError
from riktig.core.imports import FoundPotentials, circuit_found, read_survey, survey_findings
from riktig.core.store import dump_rungs

__all__ = ["survey"]


def survey(arguments: argparse.Namespace) -> int:
    """Prints potentials and findings; exit 1 where something contradicts itself or is not known."""
    if arguments.kinds:
        for kind in kinds():
            print(f"{kind.id:24} {kind.name}: {' '.join(pin.name for pin in kind.pins)}")
        return 0
    if arguments.sheet is None:
        raise RiktigError("No survey was named.", hint="riktig survey SURVEY.csv; docs/survey.md describes the form.")
    potentials = FoundPotentials(read_survey(arguments.sheet))
    findings = survey_findings(potentials)
    noted = potentials.survey
    print(f"{len(noted.parts)} parts, {len(noted.wires)} wires, {len(potentials.clamps)} potentials")
    for potential, clamps in sorted(potentials.clamps.items()):
        names = "/".join((*potentials.sources.get(potential, ()), *potentials.numbers.get(potential, ()))) or "-"
        print(f"{names:16} {' '.join(':'.join(clamp) for clamp in clamps)}")
    for finding in findings:
        print(f"{finding.kind:12} {finding.text}")
    if arguments.rungs:
        _write(arguments, potentials)
    return 1 if findings else 0


def _write(arguments: argparse.Namespace, found: FoundPotentials) -> None:
    try:
        arguments.rungs.write_text(dump_rungs(circuit_found(found)), encoding="utf-8")
    except OSError as error:
        raise RiktigError(
            f"{arguments.rungs} could not be written ({error.strerror or error}).", hint="Choose another place."
        ) from error
    print(f"{arguments.rungs} written: what was found, nothing else. Add it to a job with riktig add.")
