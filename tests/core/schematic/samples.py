"""One small job for every recipe and variant, in either rulebook."""

from dataclasses import replace

from riktig.core.job import (
    Command,
    ControlSupply,
    Direction,
    Distribution,
    Job,
    LoadKind,
    Param,
    Protection,
    Recipe,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    add_source,
    new_job,
    set_box,
    set_heading,
    set_practice,
    set_supply,
)
from riktig.core.schematic import CIRCUIT_TEMPLATES, add_circuit, set_param, with_names_recorded

__all__ = ["SAMPLES", "sample"]

WAY = {"phases": 1, "start": Start.WAY, "command": Command.ALWAYS, "run_lamp": False, "trip_lamp": False}
LOADS: dict[str, dict[str, object]] = {
    "direct-on-line": {},
    "direct-on-line by a protector": {"protection": Protection.PROTECTOR},
    "direct-on-line behind fuses": {"protection": Protection.FUSES},
    "direct-on-line from a station": {"command": Command.STATION},
    "direct-on-line, hand off auto": {"command": Command.SELECTOR},
    "direct-on-line by the controller": {"command": Command.CONTROLLER},
    "pump by level": {"command": Command.LEVEL, "level_alarm": True},
    "both ways": {"start": Start.REVERSING, "command": Command.BOTH_WAYS},
    "both ways by a protector": {
        "start": Start.REVERSING, "command": Command.BOTH_WAYS, "protection": Protection.PROTECTOR,
    },
    "star-delta": {"start": Start.STAR_DELTA},
    "star-delta, hand off auto": {"start": Start.STAR_DELTA, "command": Command.SELECTOR},
    "soft start": {"start": Start.SOFT},
    "soft start, hand off auto": {"start": Start.SOFT, "command": Command.SELECTOR},
    "drive": {"start": Start.DRIVE},
    "drive by the controller": {"start": Start.DRIVE, "command": Command.CONTROLLER},
    "heater between two lines": {
        "phases": 2, "start": Start.CONTACTOR, "command": Command.SELECTOR, "kind": LoadKind.HEATER,
    },
    "three-phase way": {**WAY, "phases": 3, "kind": LoadKind.HEATER},
    "three-phase way behind fuses": {**WAY, "phases": 3, "kind": LoadKind.HEATER, "protection": Protection.FUSES},
}  # fmt: skip
ON_NEUTRAL: dict[str, dict[str, object]] = {
    "way": {**WAY, "kind": LoadKind.LIGHTING},
    "maintained services of the Brief": {**WAY, "kind": LoadKind.OTHER, "maintained": True},
    "single-phase pump by level": {"phases": 1, "command": Command.LEVEL, "level_alarm": True},
}
"""Loads that only a supply with a neutral has."""
WITH_PARAMS: dict[str, tuple[str, str, str]] = {
    "pump that fills": ("pump by level", "pump", "fills"),
    "soft start with a bypass contactor": ("soft start", "bypass", "contactor"),
    "both ways without a block": ("both ways", "mechanical interlock", "no"),
    "starter read by the controller": ("direct-on-line", "status to the controller", "yes"),
    "both ways read by the controller": ("both ways", "status to the controller", "yes"),
    "star-delta read by the controller": ("star-delta", "status to the controller", "yes"),
}
"""Variants: which load, which parameter, which value."""


def _base(north_american: bool) -> Job:
    job = set_box(new_job("S-1", "sample"), 1200.0, 2000.0, 500.0)
    job = set_heading(job, maker="Riktig demonstration shop", serial="S-1-01", drawing_number="S-1-10")
    job = set_heading(job, made="2026-12", standard="IEC 61439-2, IEC 60204-1")
    job = set_supply(set_practice(replace(job, sources_asked=True), duct_width=80.0), upstream_a=20.0)
    if north_american:
        job = set_practice(job, rulebook=Rulebook.UL)
        return set_supply(
            job, voltage_v=480.0, voltage_to_neutral_v=277.0, neutral=False, frequency_hz=60.0, upstream_a=15.0
        )
    return job


def _for_ways(job: Job) -> Job:
    """With a supply that feeds ways and sockets too: each counts what its breaker lets through."""
    return set_supply(job, upstream_a=15.0 if job.practice.rulebook.north_american else 50.0)


def _with_load(job: Job, said: dict[str, object], name: str = "brine pump") -> Job:
    job = add_load(job, name, 2.2, **said)  # type: ignore[arg-type]
    load = job.loads[-1].id
    command = said.get("command", Command.BUTTONS)
    if command is Command.LEVEL:
        for name in ("low float", "start float", "high-level float"):
            job = add_signal(job, name, place="pit", load=load)
    elif command is Command.BOTH_WAYS:
        for name in ("end switch, hall", "end switch, door"):
            job = add_signal(job, name, place="hall", load=load)
    elif command is Command.SELECTOR:
        job = add_signal(job, "frost thermostat", place="row 12", load=load)
    return job


def _param(job: Job, name: str, value: str) -> Job:
    return set_param(job, job.circuits[-1].id, name, value)


def _several(north_american: bool) -> Job:
    """A drive and a starter by the controller, sensors on both supplies, a foreign contact, screen, emergency stop."""
    job = _with_load(_base(north_american), LOADS["drive by the controller"])
    job = _with_load(job, LOADS["direct-on-line by the controller"], "rinse pump")
    job = add_source(job, "hall panel", 24.0, "the hall")
    job = add_signal(job, "belt photocell", wetting=Wetting.DC, load=job.loads[0].id, watts=1.5)
    job = add_signal(job, "damper", wetting=Wetting.DC, direction=Direction.OUT, load=job.loads[0].id, watts=3.0)
    job = add_signal(job, "pit sensor", wetting=Wetting.LIMITED, load=job.loads[1].id, watts=1.0)
    job = add_signal(job, "hall door contact", wetting=Wetting.FOREIGN, load=job.loads[1].id)
    job = add_circuit(job, Recipe.SCREEN, "door screen", (Param("door lamp", "fault"),))
    job = add_circuit(job, Recipe.LAMP_TEST)
    return add_circuit(job, Recipe.EMERGENCY_STOP)


def _made() -> dict[str, Job]:
    found: dict[str, Job] = {}
    for north_american, name in ((False, ""), (True, ", North American")):
        for what, said in {**LOADS, **({} if north_american else ON_NEUTRAL)}.items():
            found[what + name] = _with_load(_base(north_american), said)
        for what, (load, param, value) in WITH_PARAMS.items():
            found[what + name] = _param(_with_load(_base(north_american), LOADS[load]), param, value)
        for entry in CIRCUIT_TEMPLATES:
            if entry.make is None:
                continue
            base = _with_load(_base(north_american), LOADS["direct-on-line"])
            if entry.recipe in (Recipe.SIGNALLED_WAYS, Recipe.SOCKET, Recipe.MAINTAINED):
                base = _for_ways(base)
            added = add_circuit(base, entry.recipe)
            bare = replace(added.circuits[-1], params=())  # as every choice stands where nothing is said
            found[entry.recipe.value + name] = replace(added, circuits=(*added.circuits[:-1], bare))
            for parameter in entry.params:
                for value in parameter.choices[1:]:
                    key = f"{entry.recipe.value}, {parameter.name} {value}{name}"
                    found[key] = add_circuit(base, entry.recipe, "", (Param(parameter.name, value),))
        found["all of it by the controller" + name] = _several(north_american)
        loads = _with_load(_base(north_american), LOADS["direct-on-line"])
        blocks = loads if north_american else set_supply(loads, upstream_a=40.0)
        found["distribution blocks" + name] = set_practice(blocks, distribution=Distribution.BLOCKS)
        found["control at 24 V" + name] = set_practice(loads, control_supply=ControlSupply.DC)
        if not north_american:
            found["through-feed of the Brief"] = set_supply(loads, through_a=32.0, upstream_a=50.0)
    return {name: with_names_recorded(job) for name, job in found.items()}


SAMPLES = _made()


def sample(name: str) -> Job:
    """The job of that name."""
    return SAMPLES[name]
