"""Automatic restarts when power returns or a guard is reset: a table for every starter."""

from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.errors import RiktigError
from riktig.core.job import Circuit, CircuitId, Command, DeviceId, Load, Signal, Start
from riktig.core.schematic import ahead_of, script_of
from riktig.core.simulation.phase_rotation import LINES
from riktig.core.simulation.run import Panel
from riktig.core.simulation.script import Runner

__all__ = ["Restart", "restarts_of"]

_Way = tuple[str, tuple[str, ...]]
"""How a load is made to run, and the steps that do it."""
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


def restarts_of(
    whole: tuple[Circuit, ...], all_loads: tuple[Load, ...], signals: tuple[Signal, ...], panel: Panel
) -> tuple[Restart, ...]:
    """Every load with a command of its own, made to run in each of its ways; then power goes and comes back.

    All loads are tried together, one way each at a time. The panel is used up: give a fresh one.

    Args:
        whole: Every circuit, those that the Brief implies too.
        all_loads: The loads of the job.
        signals: The field devices of the job.
        panel: The panel with power on.
    """
    loads = {load.id: load for load in all_loads}
    tried: list[tuple[Circuit, DeviceId, list[_Way]]] = []
    for circuit in whole:
        load = loads.get(circuit.load) if circuit.load else None
        target = _target(panel, circuit.id)
        moves = load is not None and load.start is not Start.WAY
        if moves and load is not None and target is not None and script_of(circuit, load, signals, whole):
            tried.append((circuit, target, _ways(load)))
    restarts: dict[tuple[CircuitId, int], Restart] = {}
    for number in range(max((len(ways) for _, _, ways in tried), default=0)):
        targets = [(circuit, target, ways[number]) for circuit, target, ways in tried if number < len(ways)]
        for restart in _together(panel, targets, whole):
            restarts[restart.circuit, number] = restart
    order = {circuit.id: place for place, (circuit, _, _) in enumerate(tried)}
    return tuple(restarts[key] for key in sorted(restarts, key=lambda key: (order[key[0]], key[1])))


def _target(panel: Panel, circuit: CircuitId) -> DeviceId | None:
    for role in ("M", "E"):
        if DeviceId(f"{circuit}.{role}") in panel.network.devices:
            return DeviceId(f"{circuit}.{role}")
    return None


def _ways(load: Load) -> list[_Way]:
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


def _together(panel: Panel, tried: list[tuple[Circuit, DeviceId, _Way]], whole: tuple[Circuit, ...]) -> list[Restart]:
    """All of them made to run at once; what runs after a dip of the supply, and after their guards were reset."""
    operator_state = panel.operator_state
    for place in (
        operator_state.pressed,
        operator_state.pressed_units,
        operator_state.position,
        operator_state.tripped,
        operator_state.outputs,
    ):
        place.clear()
    operator_state.foreign = {d.id for d in panel.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
    _power(panel, on=False)
    _power(panel, on=True)
    runners = {circuit.id: Runner(panel, circuit.id) for circuit, _, _ in tried}
    able: dict[CircuitId, tuple[bool, bool, bool | None]] = {}

    def begin() -> None:
        for circuit, _, (_, steps) in tried:
            for step in (*ahead_of(circuit, whole), *steps):
                try:
                    runners[circuit.id].do(step)
                except RiktigError:
                    break

    begin()
    ran = set(panel.on)
    _power(panel, on=False)
    _power(panel, on=True)
    panel.wait(LONG_S)
    back = set(panel.on)
    begin()
    guards = {circuit.id: runners[circuit.id].guard() for circuit, _, _ in tried}
    tripping = {device_id for device_id in guards.values() if device_id is not None}
    operator_state.tripped |= tripping
    panel.wait(1.0)
    operator_state.tripped -= tripping
    panel.wait(LONG_S)
    again = set(panel.on)
    for circuit, target, _ in tried:
        reset = target in ran & again if guards[circuit.id] is not None else None
        able[circuit.id] = (target in ran, target in ran & back, reset)
    return [Restart(circuit.id, target, how, *able[circuit.id]) for circuit, target, (how, _) in tried]


def _power(panel: Panel, *, on: bool) -> None:
    lost = panel.operator_state.lost
    (lost.difference_update if on else lost.update)(LINES)
    panel.wait(1.0)
