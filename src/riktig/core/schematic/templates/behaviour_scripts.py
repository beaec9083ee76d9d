"""How each recipe must behave: steps in words, each with what is then on or off.

A line is ``what is done: what is then so, what is then so``. Done: ``press``, ``release``, ``turn X
to hand``, ``raise``, ``lower`` (floats and other contacts outside), ``trip``, ``reset``, ``open``,
``close`` (breakers, links and isolators), ``wait 40`` (seconds), ``lose L2``, ``restore L2``,
``output on``, ``output off`` (the controller), ``foreign on``, ``foreign off``, ``spend`` and ``renew``
(a surge module), ``push`` and ``let go`` (an armature by hand), ``rest`` (nothing is done). So:
``K on``, ``H.run off``, ``M forward``, ``M reverse``, ``M star``, ``M delta``; ``main.L1 live`` or
``dead`` of a node; ``lamps on`` of all lamps with a test input. Devices are named by their role in the
circuit, those of another circuit by their whole id.

Source:
    Common practice, no source; what each starter does follows from its circuit.
"""

from riktig.core.job import Circuit, Command, Load, Practice, Recipe, Signal, Start, Wetting
from riktig.core.schematic.templates.commands import Asked
from riktig.core.schematic.templates.emergency import BEHIND_STOP, SAFETY_RELAY
from riktig.core.schematic.templates.starters import breaker_signals
from riktig.core.schematic.templates.supplies import DOOR_SWITCH, MAIN_SWITCH, SELECTOR, SWITCHED_BY

__all__ = ["ahead_of", "script_of"]

_BUTTONS = (
    "rest: K off, M off",
    "press S.start: K on, M forward",
    "release S.start: K on, M forward",
    "press S.stop: K off, M off",
    "release S.stop: K off",
    "press S.start: K on",
    "release S.start: K on",
)
_REVERSING = (
    "press S.start: K on, KR off, M forward",
    "release S.start: K on",
    "press S.reverse: K on, KR off, M forward",
    "release S.reverse: K on, KR off",
    "press S.stop: K off, M off",
    "release S.stop: K off, KR off",
    "press S.reverse: KR on, K off, M reverse",
    "release S.reverse: KR on, M reverse",
    "press S.stop: KR off, M off",
    "release S.stop: KR off",
    "press S.start: K on",
    "release S.start: K on",
    "push KR: K off",
    "let go KR: K off",
    "press S.stop: K off, KR off",
    "release S.stop: K off, KR off",
)
ALL_LINES = 3
_LIT_IN_REVERSE = (
    "release S.start: H.reverse.run off",
    "press S.stop: H.run off, H.reverse.run off",
    "release S.stop: M off",
    "press S.reverse: H.run off, H.reverse.run on",
    "release S.reverse: H.reverse.run on",
    "press S.stop: H.run off, H.reverse.run off",
    "release S.stop: M off",
)
_EXCLUDED = ("push KD: KS off", "let go KD: KD off", "wait 40: KS off, KD on", "push KS: KD off", "let go KS: KS off")
"""Of star and delta each keeps the other out: its armature pushed by hand lets the other go."""
_STAR_DELTA = (
    "press S.start: KS on, K on, KD off, M star",
    "release S.start: K on, KS on, M star",
    "wait 40: K on, KS off, KD on, M delta",
    "press S.stop: K off, KD off, M off",
    "release S.stop: K off, KS off, KD off",
)
_LEVEL = (
    "turn S.select to auto: K off",
    "raise B.stop: K off",
    "raise B.start: K on, M forward",
    "turn S.select to off: K off, M off",
    "turn S.select to auto: K on, M forward",
    "lower B.start: K on",
    "lower B.stop: K off, M off",
    "turn S.select to hand: K on, M forward",
    "turn S.select to off: K off, M off",
)
_FILLING = ("turn S.select to auto: K on", "raise B.stop: K off", "lower B.stop: K on", "turn S.select to off: K off")
_ALARM = (
    "raise B.alarm: H.alarm on, Z.alarm on",
    "press S.silence: K.silence on, Z.alarm off, H.alarm on",
    "release S.silence: K.silence on, Z.alarm off, H.alarm on",
    "lower B.alarm: H.alarm off, K.silence off, Z.alarm off",
    "raise B.alarm: H.alarm on, Z.alarm on",
    "lower B.alarm: H.alarm off, Z.alarm off",
    "press S.silence: K.silence off",
    "release S.silence: K.silence off",
    "press S.test: H.alarm on, Z.alarm on",
    "release S.test: H.alarm off, Z.alarm off",
)
_MAINTAINED = (
    "rest: E.light on, E.heat on",
    "open c0.Q: E.light on, E.heat on, main.L1 dead",
    "close c0.Q: E.light on",
    "open Q: E.light off, E.heat off",
    "close Q: E.light on",
    "press S.door: E.light off, E.heat on",
    "release S.door: E.light on",
    "raise B.heat: E.heat off, E.light on",
    "lower B.heat: E.heat on",
)
_SAFETY_RELAY = (
    "rest: K off, H.ready off, safe.live dead",
    "press S.reset: K off, H.ready off",
    "release S.reset: K on, H.ready on, safe.live live",
    "press S: K off, H.ready off, safe.live dead",
    "release S: K off, H.ready off",
    "press S.reset: K off",
    "release S.reset: K on, H.ready on",
)
_UNWATCHED = ("rest: K off", "turn S to on: K on, held.L1 live", "turn S to off: K off, held.L1 dead")
_BY_RECIPE: dict[Recipe, tuple[str, ...]] = {
    Recipe.EMERGENCY_STOP: (
        "rest: K1 off, K2 off, H.ready off",
        "press S.reset: K1 on, K2 on, K3 on, H.ready off",
        "release S.reset: K1 on, K2 on, K3 off, H.ready on",
        "press S: K1 off, K2 off, H.ready off",
        "release S: K1 off, K2 off, H.ready off",
    ),
    Recipe.LEVEL_ALARM: _ALARM,
    Recipe.PHASE_MONITOR: (
        "rest: K off, H.in off",
        "turn S to on: K on, H.in on",
        "lose L2: K off, H.in off",
        "restore L2: K on",
        "turn S to off: K off",
    ),
    Recipe.PHASE_LAMPS: ("rest: H1 on, H2 on, H3 on", "open F2: H2 off", "close F2: H1 on, H2 on, H3 on"),
    Recipe.SURGE: ("rest: H.spent off", "spend SP: H.spent on", "renew SP: H.spent off"),
    Recipe.SIGNALLED_WAYS: ("rest: H.way1 off, E1 on", "open F1: H.way1 on, E1 off", "close F1: H.way1 off, E1 on"),
    Recipe.SEASON_SWITCH: ("rest: K1 on, K2 off", "turn S to on: K1 off, K2 on", "turn S to off: K1 on, K2 off"),
    Recipe.FOREIGN_INTERLOCK: ("rest: KF off, H.in off", "foreign on: KF on, H.in on", "foreign off: KF off, H.in off"),
    Recipe.VALVE: (
        "rest: Y off, H.open off",
        "turn S to on: K on, Y on, H.open on",
        "turn S to off: K off, Y off, H.open off",
    ),
    Recipe.FUSED_BRANCHES: (
        "rest: H1 on, H2 on",
        "open F1: H1 off, H2 on",
        "close F1: H1 on",
        "open Q: H1 off, H2 off",
        "close Q: H1 on, H2 on",
    ),
    Recipe.SELECTED_LAMP: (
        "rest: H off, K off",
        "turn S to hand: H on, K on",
        "turn S to auto: H off, K off",
        "raise B: H on, K on",
        "lower B: H off, K off",
        "turn S to off: H off, K off",
    ),
    Recipe.LIT_BUTTON: ("press S: K on", "release S: K on", "press S.off: K off", "release S.off: K off"),
    Recipe.INCOMER: (
        "rest: in.L1 live, main.L1 live, main.L3 live",
        "open Q: in.L1 live, main.L1 dead, main.L3 dead",
        "close Q: main.L1 live",
        "lose L2: main.L2 dead, main.L1 live",
        "restore L2: main.L2 live",
    ),
    Recipe.THROUGH_FEED: ("rest: in.L1 live", "open c0.Q: in.L1 live, main.L1 dead", "close c0.Q: main.L1 live"),
    Recipe.LAMP_TEST: ("press S: lamps on", "release S: lamps any"),
    Recipe.CONTROLLER: ("rest: A on",),
    Recipe.SENSOR_TERMINALS: ("rest: B1 on, AI off", "raise B1: AI on", "lower B1: AI off"),
    Recipe.SCREEN: ("rest: A on",),
    Recipe.NETWORK: ("rest: A on",),
    Recipe.CONTROL_SUPPLY: ("rest: T on", "open F: T off", "close F: T on"),
    Recipe.DC_SUPPLY: ("rest: T on", "open F: T off", "close F: T on"),
    Recipe.VENTILATION: ("rest: M on", "open F: M off", "close F: M on"),
    Recipe.LIMITED_SUPPLY: ("rest: T on", "open F: T off", "close F: T on"),
    Recipe.SOCKET: ("rest: XS on", "open F: XS off", "close F: XS on"),
}


def script_of(
    circuit: Circuit,
    load: Load | None = None,
    signals: tuple[Signal, ...] = (),
    others: tuple[Circuit, ...] = (),
    lines: int = 3,
    practice: Practice | None = None,
) -> tuple[str, ...]:
    """The steps that a circuit must pass; empty where its recipe promises no behaviour of its own.

    Args:
        circuit: The circuit.
        load: The load it serves.
        signals: The field devices of the job.
        others: All circuits of the job: what must be switched on ahead of it is among them.
        lines: How many lines arrive: nothing is asked of those that do not.
        practice: The practice of the job; None asks only for what every practice has.
    """
    ahead, own_steps = ahead_of(circuit, others), _own_steps(circuit, load, signals, lines, practice or Practice())
    if load and practice and breaker_signals(load, practice):
        own_steps = (*own_steps, "open F: H.trip on", "close F: H.trip off")
    if circuit.recipe is Recipe.PHASE_MONITOR and ahead:
        own_steps = tuple(step for text in own_steps for step in _reset_again(text, ahead))
    steps = (*ahead, *own_steps)
    return steps if lines == ALL_LINES else tuple(step for text in steps if (step := _of_lines(text, circuit, lines)))


def _reset_again(step: str, reset: tuple[str, ...]) -> tuple[str, ...]:
    """A step, and where a line comes back the emergency stop reset: what is fed by that line has let go."""
    done, _, expected = step.partition(": ")
    return (done, *reset[:-1], f"{reset[-1]}: {expected}") if done.startswith("restore ") else (step,)


def _of_lines(step: str, circuit: Circuit, lines: int) -> str:
    """A step without what it says of lines that do not arrive; empty where nothing is left of it."""
    missing = range(lines + 1, ALL_LINES + 1)
    gone = {f"L{n}" for n in missing} | {f"{system}.L{n}" for n in missing for system in ("main", "in", "held")}
    if circuit.recipe is Recipe.PHASE_LAMPS:
        gone |= {f"{letter}{n}" for n in missing for letter in "FH"}
    done, _, expected = step.partition(": ")
    if gone & set(done.split()):
        return ""
    left = [part for part in expected.split(", ") if not gone & set(part.split())]
    return f"{done}: {', '.join(left)}" if left or not expected else ""


def ahead_of(circuit: Circuit, others: tuple[Circuit, ...]) -> tuple[str, ...]:
    """What must be done before a load can run: the emergency stop reset, the main contactor switched on.

    Args:
        circuit: The circuit.
        others: All circuits of the job.
    """
    stops_first = circuit.recipe in BEHIND_STOP
    waits = circuit.load is not None or circuit.recipe is Recipe.SIGNALLED_WAYS
    if not (waits or stops_first) or circuit.recipe is Recipe.MAINTAINED:
        return ()
    steps: list[str] = []
    for other in sorted(others, key=lambda other: other.recipe is Recipe.PHASE_MONITOR):
        if other.recipe is Recipe.EMERGENCY_STOP:
            steps += [f"press {other.id}.S.reset", f"release {other.id}.S.reset"]
        elif stops_first:
            continue
        elif other.recipe is Recipe.PHASE_MONITOR:
            steps += [] if _in_with_main_switch(other) else [f"turn {other.id}.S to on"]
            steps += [f"press {other.id}.S.door"] if _by_door(other) else []
    return tuple(steps)


def _in_with_main_switch(circuit: Circuit) -> bool:
    """Whether a main contactor comes in with the main switch, with no selector of its own."""
    return circuit.param(SWITCHED_BY, SELECTOR) == MAIN_SWITCH


def _by_door(circuit: Circuit) -> bool:
    """Whether a main contactor lets go when the door is opened."""
    return circuit.param(DOOR_SWITCH, "no") == "yes"


def _main_contactor(circuit: Circuit, *, watched: bool) -> tuple[str, ...]:
    """Steps of a main contactor: switched on, door opened, a phase lost and back, switched off.

    Args:
        circuit: The circuit.
        watched: Whether a monitor sees a lost phase.
    """
    if _in_with_main_switch(circuit):
        dip = ("lose L2: K off, H.in off, held.L1 dead", "restore L2: K on, held.L1 live") if watched else ()
        if not _by_door(circuit):
            return ("rest: K on, H.in on, held.L1 live", *dip)
        shut = "press S.door: K on, H.in on, held.L1 live"
        return ("rest: K off, held.L1 dead", shut, *dip, "release S.door: K off, H.in off, held.L1 dead")
    steps = _BY_RECIPE[Recipe.PHASE_MONITOR] if watched else _UNWATCHED
    if not _by_door(circuit):
        return steps
    rest, switched_on, *between, switched_off = steps
    came_in = switched_on.partition(": ")[2]
    opened = ("release S.door: K off, H.in off", "press S.door: K on")
    return (rest, "turn S to on: K off", f"press S.door: {came_in}", *between, *opened, switched_off)


def _own_steps(
    circuit: Circuit, load: Load | None, signals: tuple[Signal, ...], lines: int, practice: Practice
) -> tuple[str, ...]:
    if circuit.recipe is Recipe.MAINTAINED:
        return _MAINTAINED
    if circuit.recipe is Recipe.SOCKET and circuit.param("fed", "maintained").startswith("outside"):
        return ("rest: XS off", "foreign on: XS on", "open c0.Q: XS on", "close c0.Q: XS on", "foreign off: XS off")
    if circuit.recipe is Recipe.PHASE_MONITOR:
        return _main_contactor(circuit, watched=circuit.param("monitor", "yes") == "yes" and lines == ALL_LINES)
    if load is None or circuit.load is None:
        one_relay = circuit.recipe is Recipe.EMERGENCY_STOP and circuit.param("built of", "") == SAFETY_RELAY
        return _SAFETY_RELAY if one_relay else _BY_RECIPE.get(circuit.recipe, ())
    if circuit.recipe is Recipe.WAY:
        return ("rest: E on", "open F: E off", "close F: E on")
    foreign = any(s.wetting is Wetting.FOREIGN and s.load == load.id for s in signals)
    bypass: tuple[str, ...] = ()
    if circuit.param("bypass", "built in") == "contactor" and load.command is Command.BUTTONS:
        bypass = ("press S.start: KB on", "release S.start: KB on", "press S.stop: KB off", "release S.stop: KB off")
    load_signals = tuple(s for s in signals if s.load == load.id)
    automatic = _automatic(Asked(circuit, load, load_signals, practice)) if load.command is Command.SELECTOR else ()
    return (*(("foreign on",) if foreign else ()), *bypass, *_starter(circuit, load), *automatic)


def _starter(circuit: Circuit, load: Load) -> tuple[str, ...]:
    """The steps of a starter: by its command, then the trip of what guards it, then its alarm."""
    steps: tuple[str, ...]
    filling = circuit.param("pump", "empties") == "fills"
    start = "wait 0"
    match load.command:
        case _ if load.start is Start.REVERSING:
            steps, start = _REVERSING, "press S.start"
        case _ if load.start is Start.STAR_DELTA and load.command is Command.BUTTONS:
            steps, start = _STAR_DELTA, "press S.start"
        case Command.LEVEL:
            steps, start = (_FILLING if filling else _LEVEL), "turn S.select to hand"
        case Command.SELECTOR:
            steps, start = _selector(), "turn S.select to hand"
        case Command.STATION:
            steps = tuple(s.replace("S.start", "S.field start").replace("S.stop", "S.field stop") for s in _BUTTONS[:5])
            start = "press S.field start"
        case Command.CONTROLLER:
            steps, start = ("rest: M off", "output on: M forward", "output off: M off"), "output on"
        case Command.ALWAYS:
            steps = ("rest: M forward",)
        case _:
            steps, start = _BUTTONS, "press S.start"
    if load.start is Start.STAR_DELTA:
        steps = (*steps, f"{start}: KS on, KD off", *_EXCLUDED)
    if load.level_alarm:
        steps = (*steps, *_ALARM)
    first = () if load.command is Command.ALWAYS else ("rest: M off",)
    shown = [f"{start}: M on"]
    if load.start is Start.REVERSING and load.run_lamp:
        shown += [*_LIT_IN_REVERSE, f"{start}: M on"]
    if load.is_motor:
        shown += ["trip guard: M off", "reset guard: M any"]
    lit = [_with_lamps(step, load) for step in (*first, *shown)]
    steps = (*lit[: len(first)], *steps, *lit[len(first) :])
    return tuple(_for_load(step, load) for step in steps)


def _with_lamps(step: str, load: Load) -> str:
    """A step at the end of a starter's test, with what its lamps show then."""
    lamps: list[str] = []
    done, _, then = step.partition(": ")
    if load.run_lamp and then in ("M on", "M off"):
        lamps.append(f"H.run {then.removeprefix('M ')}")
    own_guard = load.start in (Start.SOFT, Start.DRIVE)
    if load.trip_lamp and (load.is_motor or own_guard) and done in ("rest", "trip guard", "reset guard"):
        lamps.append(f"H.trip {'on' if done == 'trip guard' else 'off'}")
    return ", ".join((step, *lamps))


def _automatic(asked: Asked) -> tuple[str, ...]:
    """A selector with a place for automatic: what feels a demand starts the load there, and nowhere else."""
    if not asked.wetted:
        return ()
    felt = [f"auto{n}" for n, _ in enumerate(asked.conditions, 1)]
    steps = ["turn S.select to off: M off", "turn S.select to auto: M off"]
    for contact in felt:
        steps += [f"raise {contact}: M forward", f"lower {contact}: M off"]
    steps += [f"raise {felt[0]}: M forward", "turn S.select to off: M off"]
    return tuple(_for_load(step, asked.load) for step in steps)


def _selector() -> tuple[str, ...]:
    return ("rest: M off", "turn S.select to hand: M forward", "turn S.select to off: M off")


def _for_load(step: str, load: Load) -> str:
    """The step with what turns or works named as it is: a motor goes forward, anything else is on."""
    if load.start is Start.STAR_DELTA:
        return step.replace("M forward", "M star")
    if load.is_motor and load.phases == 3:
        return step
    for way in ("M forward", "M reverse", "M on"):
        step = step.replace(way, "E on")
    return step.replace("M off", "E off").replace("M any", "E any")
