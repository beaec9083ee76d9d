"""What the records of live steps say of the panel: what was seen after which step, and what was measured."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from riktig.core.ids import DeviceId, PinRef
from riktig.core.proving.function import Scripts
from riktig.core.proving.live_results import LiveResult
from riktig.core.proving.live_seen import MakesPanel, SeenAfterStep, read_seen, states_after, watched_in
from riktig.core.proving.live_step import LiveStep
from riktig.core.proving.verdicts import Outcome

__all__ = ["LiveEvidence", "live_evidence", "seen_after"]


@dataclass(frozen=True, slots=True)
class LiveEvidence:
    """What was seen after steps, and between which points at least so many volts were measured."""

    seen: tuple[SeenAfterStep, ...]
    measured: tuple[tuple[PinRef, PinRef, float], ...]

    @property
    def is_wrong(self) -> bool:
        """Whether anything came otherwise than expected, said in a way that can be reckoned with."""
        return any(not entry.as_expected for entry in self.seen)


def seen_after(make: MakesPanel, scripts: Scripts, step: LiveStep) -> dict[DeviceId, str]:
    """What a sound panel does after a step of a function test: every device of the circuit of which something is seen.

    Args:
        make: Makes the panel with power on.
        scripts: The scripts as they are done at the panel.
        step: The step; of none of a function test nothing is seen.
    """
    script = scripts.get(step.circuit, ()) if step.circuit else ()
    if step.circuit is None or not 0 < step.number <= len(script):
        return {}
    panel = make()
    states = states_after(panel, step.circuit, script[: step.number], watched_in(panel, step.circuit))
    return dict(states[-1]) if len(states) == step.number else {}


def live_evidence(
    results: Sequence[LiveResult], devices: Mapping[str, DeviceId], make: MakesPanel, scripts: Scripts
) -> LiveEvidence:
    """What counts of the records of live steps. A failure said in free words only is no evidence.

    Args:
        results: All steps with what came of them.
        devices: The devices by their tags.
        make: Makes the panel with power on.
        scripts: The scripts as they are done at the panel.
    """
    seen: list[SeenAfterStep] = []
    measured: list[tuple[PinRef, PinRef, float]] = []
    for result in results:
        step, record = result.step, result.said
        if record is None:
            continue
        passed = record.outcome is Outcome.PASSED
        if step.circuit is not None and step.number:
            seen_here = read_seen(", ".join(step.expected) if passed else record.reason, devices)
            if seen_here:
                base = {} if passed else seen_after(make, scripts, step)
                seen.append(SeenAfterStep(step.circuit, step.number, tuple((base | dict(seen_here)).items()), passed))
        elif passed and step.points and step.low:
            measured.append((*step.points, step.low))
    return LiveEvidence(tuple(seen), tuple(measured))
