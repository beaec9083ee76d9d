"""What starts by itself when power returns or a guard is reset: a table for every starter."""

from dataclasses import dataclass

from riktig.core.circuit import script_of
from riktig.core.energise.run import Panel
from riktig.core.energise.script import Runner
from riktig.core.errors import RiktigError
from riktig.core.job import Circuit, CircuitId, Command, DeviceId, Job, Load, Start

__all__ = ["Restart", "restarts_of"]

LINES = ("L1", "L2", "L3")
LONG_S = 60.0
"""How long it is watched after power returns, s (chosen by us: longer than any timer here)."""


@dataclass(frozen=True, slots=True)
class Restart:
    """A load that ran in some way, and whether it runs again by itself afterwards."""

    circuit: CircuitId
    motor: DeviceId
    how: str
    ran: bool
    after_power: bool
    after_reset: bool | None
    """None where nothing trips that could be reset."""

    @property
    def asks(self) -> bool:
        """Whether someone must accept that it starts unexpectedly."""
        return self.after_power or bool(self.after_reset)


def restarts_of(job: Job, panel: Panel, circuits: tuple[Circuit, ...]) -> tuple[Restart, ...]:
    """Every load with a command of its own, made to run in each of its ways; then power goes and comes back.

    The panel is used up: give a fresh one.
    """
    loads = {load.id: load for load in job.loads}
    found = []
    for circuit in circuits:
        load = loads.get(circuit.load) if circuit.load else None
        target = _target(panel, circuit.id)
        if load is None or target is None or not script_of(circuit, load, job.signals, circuits):
            continue
        for how, steps in _ways(load):
            try:
                found.append(_tried(panel, circuit, target, how, (*_ahead(circuits), *steps)))
            except RiktigError:
                continue
    return tuple(found)


def _target(panel: Panel, circuit: CircuitId) -> DeviceId | None:
    for role in ("M", "E"):
        if DeviceId(f"{circuit}.{role}") in panel.network.devices:
            return DeviceId(f"{circuit}.{role}")
    return None


def _ahead(circuits: tuple[Circuit, ...]) -> tuple[str, ...]:
    """What must be switched on ahead of any load."""
    found: list[str] = []
    for one in circuits:
        if one.recipe.name == "EMERGENCY_STOP":
            found += [f"press {one.id}.S.reset", f"release {one.id}.S.reset"]
        elif one.recipe.name == "PHASE_MONITOR":
            found.append(f"turn {one.id}.S to on")
    return tuple(found)


def _ways(load: Load) -> list[tuple[str, tuple[str, ...]]]:
    """How a load can be made to run, and the steps."""
    if load.start is Start.REVERSING or load.command is Command.BUTTONS:
        return [("by its button", ("press S.start", "release S.start"))]
    if load.command is Command.STATION:
        return [("by its button in the field", ("press S.field start", "release S.field start"))]
    if load.command is Command.LEVEL:
        return [
            ("in hand", ("turn S.select to hand",)),
            ("by level, both floats up", ("turn S.select to auto", "raise B.stop", "raise B.start")),
            (
                "by level, between the floats",
                ("turn S.select to auto", "raise B.stop", "raise B.start", "lower B.start"),
            ),
        ]
    if load.command is Command.SELECTOR:
        return [("in hand", ("turn S.select to hand",))]
    if load.command is Command.CONTROLLER:
        return [("by the controller's output", ("output on",))]
    return [("always on", ("rest",))]


def _tried(panel: Panel, circuit: Circuit, target: DeviceId, how: str, steps: tuple[str, ...]) -> Restart:
    hands = panel.hands
    hands.pressed.clear()
    hands.pressed_units.clear()
    hands.position.clear()
    hands.tripped.clear()
    hands.outputs.clear()
    hands.foreign = {d.id for d in panel.circuits.devices if d.kind_id == "foreign_source"}
    hands.lost |= set(LINES)
    panel.settle()
    hands.lost -= set(LINES)
    panel.settle()
    runner = Runner(panel, circuit.id)
    for step in steps:
        runner.do(step)
    ran = target in panel.on
    hands.lost |= set(LINES)
    panel.wait(1.0)
    hands.lost -= set(LINES)
    panel.wait(LONG_S)
    after_power = ran and target in panel.on
    after_reset: bool | None = None
    if runner.guard() is not None:
        for step in steps:
            runner.do(step)
        runner.do("trip guard")
        panel.wait(1.0)
        runner.do("reset guard")
        panel.wait(LONG_S)
        after_reset = ran and target in panel.on
    return Restart(circuit.id, target, how, ran, after_power, after_reset)
