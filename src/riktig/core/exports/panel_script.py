"""A script done to the whole panel, with the states of everything after each step, called by tags."""

from typing import Any

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import CircuitId, DeviceId, Job, PinRef
from riktig.core.schematic import CIRCUITS, NAMES, NETS, by_tags
from riktig.core.simulation import Panel, Runner, panel_of

__all__ = ["run_panel_script", "states_of"]


def run_panel_script(evaluation: Evaluation[Job], steps: tuple[str, ...]) -> dict[str, Any]:
    """The steps with their verdicts, and after each the states; keys as in docs/schedules.md.

    Args:
        evaluation: Of the job.
        steps: The steps, each “what is done: what must then be so”.

    Raises:
        RiktigError: a step that cannot be read, or names what is not there, with its number.
    """
    names = evaluation.get(NAMES)
    panel = panel_of(evaluation.document, evaluation.get(CIRCUITS), evaluation.get(NETS))
    runner = Runner(panel, CircuitId(""), {tag: device_id for device_id, tag in names.tag.items()})
    rows = []
    for number, step in enumerate(steps, 1):
        try:
            result = runner.step(step)
        except RiktigError as error:
            raise RiktigError(error.message, hint=error.hint, where=f"step {number}") from error
        rows.append(
            {
                "step": number,
                "done": result.done,
                "expected": list(result.expected),
                "passed": result.passed,
                "otherwise": list(result.otherwise),
                "why": [by_tags(reason, names.tag) for reason in result.why],
                "events": [{"at_s": event.at_s, "text": by_tags(event.text, names.tag)} for event in result.events],
                "states": states_of(panel, names.tag, names.number),
            }
        )
    return {"job": evaluation.document.number, "steps": rows}


def states_of(panel: Panel, tags: dict[DeviceId, str], numbers: dict[PinRef, str]) -> dict[str, Any]:
    """What is on, what turns and how, what is live by number; all sorted.

    Args:
        panel: The panel with power on.
        tags: The tag of every device.
        numbers: The number of every net.
    """
    live = {}
    for net, number in numbers.items():
        known = panel.volts.at[panel.network.point[net]]
        if known is not None and abs(known[0]) + abs(known[1]) > 1.0:
            live[number] = round(float((abs(known[0]) ** 2 + known[1] ** 2) ** 0.5), 1)
    motors = {tags[d.id]: panel.turns(d.id) for d in panel.circuits.devices if d.kind.is_motor}
    return {
        "on": sorted(tags[device_id] for device_id in panel.on),
        "motors": dict(sorted(motors.items())),
        "live_v": dict(sorted(live.items())),
        "clock_s": round(panel.clock_s, 3),
    }
