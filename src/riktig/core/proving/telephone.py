"""By telephone: somebody on site says what he sees on the door; what may be wrong follows, and what to ask next.

Nobody unskilled opens the door, and nothing is reset before its cause is known.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import log2

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import DeviceId
from riktig.core.job import CircuitId, ResetBy
from riktig.core.proving.planner import PanelFacts
from riktig.core.schematic import Device, Zone
from riktig.core.simulation import Panel

__all__ = [
    "NEVER",
    "Cause",
    "LampRow",
    "Likely",
    "Sighting",
    "TelephoneTable",
    "lamp_table",
    "likely_causes",
    "next_question",
    "telephone_table",
    "what_nobody_does",
    "who_resets",
]

NEVER = (
    "Never open the door of the panel: only a skilled person does, with the supply locked off.",
    "Never reset anything twice, and not once before its cause is known.",
    "If it smells, hums, smokes or is hot: leave it, keep away and call somebody skilled.",
)
INSTRUCTED = (
    "Never open the door of the panel unless instructed to, and with the main switch off; touch only what is said.",
    "Put in again only what you are told to, once, and never before its cause is known.",
    NEVER[2],
)
RESET_BY = {
    ResetBy.SKILLED: "a skilled person, once, when the cause is known and mended",
    ResetBy.INSTRUCTED: "an instructed person, once, main switch off, told by telephone; then a skilled person",
}
"""Skilled and instructed persons are those of IEC 60050-195 (195-04-01 and -02, from memory)."""


def what_nobody_does(reset_by: ResetBy) -> tuple[str, ...]:
    """What somebody on site is told first.

    Args:
        reset_by: Who may put in again what has tripped, by the practice of the job.
    """
    return INSTRUCTED if reset_by is ResetBy.INSTRUCTED else NEVER


def who_resets(kind: str, reset_by: ResetBy) -> str:
    """Who may put in again what is off; "" for a cause that nothing is put in again for.

    Args:
        kind: Of the cause.
        reset_by: By the practice of the job.
    """
    return RESET_BY[reset_by] if kind in ("tripped", "off") else ""


START = "START / ON"
"""What the button that starts a load does, as the table of colours calls it."""
SOMETHING_ELSE = 0.1
"""What is kept for causes that are not looked at here (chosen by us)."""
PRIOR = {"tripped": 1.0, "off": 0.6, "lost": 0.5, "stopped": 0.5, "coil": 0.2, "lamp": 0.2, "main": 0.4}
"""How often each is met in service against a trip (chosen by us; only their order matters)."""


@dataclass(frozen=True, slots=True)
class Cause:
    """What may be wrong: in words, of which device, and what a skilled person does about it."""

    kind: str
    words: str
    device: DeviceId | None
    skilled: str


@dataclass(frozen=True, slots=True)
class Sighting:
    """What can be seen or tried from outside, as a question in words that anybody understands."""

    key: str
    question: str


@dataclass(frozen=True, slots=True)
class TelephoneTable:
    """What would be seen with each cause; the first row is that nothing is wrong with the panel."""

    causes: tuple[Cause, ...]
    sightings: tuple[Sighting, ...]
    seen: tuple[tuple[bool, ...], ...]


@dataclass(frozen=True, slots=True)
class Likely:
    """A cause that fits all answers, and how sure that is against the others."""

    cause: Cause
    share: float


NOTHING = Cause("sound", "The panel may be as it should be: look at the machine, the water, the load itself", None,
                "Look at the machine and what it is asked by: float, thermostat, controller.")  # fmt: skip


def telephone_table(facts: PanelFacts, energised: Callable[[], Panel], circuit: CircuitId) -> TelephoneTable:
    """Every cause that is looked at, with what is then seen on the door and when the load is started.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        energised: Makes the panel with power on, at rest.
        circuit: The circuit of the load that does not do what it should.
    """
    devices = [d for d in facts.circuits.devices if d.zone is not Zone.FIELD]
    lamps = [d for d in devices if d.kind.can(Can.SHOWS)]
    start = next((d for d in devices if d.circuit == circuit and d.kind.function == START), None)
    motor = next((d for d in facts.circuits.devices if d.circuit == circuit and d.kind.is_motor), None)
    causes = (NOTHING, *_causes(facts, devices, circuit))
    sightings = [
        Sighting(f"lit {lamp.id}", f"Look at the door. Is the lamp for “{_called(lamp)}” lit?") for lamp in lamps
    ]
    if start is not None and motor is not None:
        press = f"Where nobody is at the machine: press the button for “{_called(start)}” once and let go."
        sightings.append(Sighting("runs", f"{press} Does it run, and go on running?"))
        sightings.append(Sighting("clack", f"{press} Do you hear a clack in the panel?"))
        circuit_lamps = [lamp for lamp in lamps if lamp.circuit == circuit]
        sightings += [
            Sighting(f"then {lamp.id}", f"{press} Is the lamp for “{_called(lamp)}” lit then?")
            for lamp in circuit_lamps
        ]
    seen = tuple(_seen(energised(), cause, lamps, start if motor else None, motor) for cause in causes)
    return TelephoneTable(causes, tuple(sightings), seen)


@dataclass(frozen=True, slots=True)
class LampRow:
    """A cause, and the lamps that are lit with it at rest."""

    cause: Cause
    lit: tuple[DeviceId, ...]


def lamp_table(facts: PanelFacts, energised: Callable[[], Panel]) -> tuple[LampRow, ...]:
    """What the lamps show at rest with nothing wrong, and then with each thing off, tripped, pressed or missing.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        energised: Makes the panel with power on, at rest.
    """
    devices = [device for device in facts.circuits.devices if device.zone is not Zone.FIELD]
    lamps = [device for device in devices if device.kind.can(Can.SHOWS)]
    causes = [NOTHING]
    for device in devices:
        causes += [
            cause
            for cause in _of_device(device, facts.names.tag[device.id], device.circuit)
            if cause.kind not in ("coil", "lamp")
        ]
    causes += _lines_lost()
    rows = []
    for cause in causes:
        seen = _seen(energised(), cause, lamps, None, None)
        rows.append(LampRow(cause, tuple(lamp.id for lamp, lit in zip(lamps, seen, strict=True) if lit)))
    return tuple(rows)


def _called(device: Device) -> str:
    return device.legend.replace("\n", " ") or device.purpose


def _causes(facts: PanelFacts, devices: Sequence[Device], circuit: CircuitId) -> list[Cause]:
    causes = [cause for device in devices for cause in _of_device(device, facts.names.tag[device.id], circuit)]
    return causes + _lines_lost()


def _lines_lost() -> list[Cause]:
    where = "at the incoming terminals and at the board that feeds them"
    return [
        Cause("lost", f"The line {line} of the supply is missing", None, f"Measure {line} {where}.")
        for line in ("L1", "L2", "L3")
    ]


def _of_device(device: Device, tag: str, circuit: CircuitId) -> Iterator[Cause]:
    """What can be wrong with a device; parts of other loads than the one asked about are left out."""
    purpose, kind, is_in_circuit = device.purpose, device.kind, device.circuit == circuit
    if kind.can(Can.MAIN_SWITCH):
        yield Cause("main", f"The main switch {tag} is off", device.id, f"Find out who switched {tag} off, and why.")
    elif kind.can(Can.OVERLOAD) and is_in_circuit:
        skilled = "Measure the current of the motor, free what is jammed, let it cool, then reset it once."
        yield Cause("tripped", f"The overload {tag} of {purpose} has tripped", device.id, skilled)
    elif kind.is_protective:
        skilled = f"Supply locked off, look behind {tag} for a short or an earth fault; then switch it on once."
        yield Cause("off", f"{tag}, {purpose}, is off or has tripped", device.id, skilled)
    elif kind.can(Can.MUSHROOM):
        yield Cause("stopped", f"The emergency stop {tag} is pressed", device.id, f"See who pressed {tag}, and why.")
    elif kind.has_coil and is_in_circuit:
        skilled = f"Measure the coil of {tag} from A1 to A2, and the voltage there when it is called."
        yield Cause("coil", f"The coil of {tag}, {purpose}, is open", device.id, skilled)
    elif kind.can(Can.SHOWS) and is_in_circuit:
        yield Cause("lamp", f"The lamp {tag} for {purpose} is dead", device.id, f"Put another lamp into {tag}.")


def _seen(
    panel: Panel, cause: Cause, lamps: Sequence[Device], start: Device | None, motor: Device | None
) -> tuple[bool, ...]:
    state = panel.operator_state
    # Whatever another panel must release is released: only then does it say something that the load does not start.
    state.foreign |= {d.id for d in panel.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
    if cause.device is not None and cause.kind in ("main", "off"):
        state.opened.add(cause.device)
    elif cause.device is not None and cause.kind == "tripped":
        state.tripped.add(cause.device)
    elif cause.device is not None and cause.kind == "stopped":
        state.pressed.add(cause.device)
    elif cause.device is not None and cause.kind in ("coil", "lamp"):
        units = panel.network.devices[cause.device].kind.units
        struck = (Behaviour.COIL, Behaviour.LAMP)
        state.dead |= {(cause.device, unit.name) for unit in units if unit.behaviour in struck}
    elif cause.kind == "lost":
        state.lost.add(cause.words.split()[2])
    panel.run_until_stable()
    lit = [_lit(panel, lamp) for lamp in lamps]
    if start is None or motor is None:
        return tuple(lit)
    state.pressed.add(start.id)
    panel.run_until_stable()
    clack = any(panel.is_fed(d.id) for d in panel.circuits.devices if d.circuit == start.circuit and d.kind.has_coil)
    state.pressed.discard(start.id)
    panel.run_until_stable()
    then = [_lit(panel, lamp) for lamp in lamps if lamp.circuit == start.circuit]
    return (*lit, panel.turns(motor.id) not in ("off", ""), clack, *then)


def _lit(panel: Panel, lamp: Device) -> bool:
    units = (unit for unit in lamp.kind.units if unit.behaviour is Behaviour.LAMP)
    return any(panel.is_fed(lamp.id, unit.name) for unit in units)


def likely_causes(table: TelephoneTable, answers: Mapping[str, bool]) -> tuple[Likely, ...]:
    """The causes that fit all answers, the likeliest first; a share is kept for what is not looked at.

    Args:
        table: What would be seen with each cause.
        answers: What was seen, by the key of the sighting.
    """
    fitting = [
        (cause, PRIOR.get(cause.kind, 0.3))
        for cause, seen in zip(table.causes, table.seen, strict=True)
        if all(seen[n] == answers[s.key] for n, s in enumerate(table.sightings) if s.key in answers)
    ]
    whole = sum(weight for _, weight in fitting)
    ranked = sorted(fitting, key=lambda pair: -pair[1])
    return tuple(Likely(cause, (1 - SOMETHING_ELSE) * weight / whole) for cause, weight in ranked)


def next_question(table: TelephoneTable, answers: Mapping[str, bool]) -> Sighting | None:
    """The question whose answer tells most; None when none tells the causes apart that are left.

    Args:
        table: What would be seen with each cause.
        answers: What was seen so far.
    """
    left = {likely.cause: likely.share for likely in likely_causes(table, answers)}
    whole = sum(left.values()) or 1.0
    best, most = None, 1e-9
    for number, sighting in enumerate(table.sightings):
        if sighting.key in answers:
            continue
        yes = sum(left.get(c, 0.0) for c, seen in zip(table.causes, table.seen, strict=True) if seen[number]) / whole
        bits = -sum(share * log2(share) for share in (yes, 1 - yes) if 0 < share < 1)
        if bits > most:
            best, most = sighting, bits
    return best
