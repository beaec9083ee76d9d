"""Scripts: steps done to a panel, and what must then be so."""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.errors import RiktigError
from riktig.core.inputs import parse_json, unfit
from riktig.core.job import CircuitId, DeviceId
from riktig.core.schematic import Circuits, Device, Nets
from riktig.core.simulation.explain import why
from riktig.core.simulation.run import Event, Panel

__all__ = ["Runner", "StepResult", "guard_of", "read_script", "run_script", "try_script"]

SAME = {"in": "on", "lit": "on", "out": "off", "dark": "off", "stands": "off"}
"""Other words for what a thing does."""
OFF_WORDS = {"off", "dead", *(word for word, means in SAME.items() if means == "off")}
"""Words for a thing that does nothing."""
MOST_STEPS = 2_000
"""Steps of one script (chosen by us)."""
POSITIONS = ("off", "hand", "auto", "on")
"""Where a selector can be turned to."""


@dataclass(frozen=True, slots=True)
class StepResult:
    """One step: what was done, what was expected, and what was otherwise; empty when all was as expected.

    ``why`` says of each thing that is otherwise how it came to it, device ids in braces; ``events`` is
    all that happened in the step.
    """

    done: str
    expected: tuple[str, ...]
    otherwise: tuple[str, ...]
    why: tuple[str, ...] = ()
    events: tuple[Event, ...] = ()
    stays_on: bool = False
    """Something is on or live that must be off or dead."""
    short: bool = False
    """A short circuit, or contacts that never come to rest."""
    refused: str = ""
    """Why it could not be done: what it names is no longer there."""

    @property
    def passed(self) -> bool:
        """Whether all was as expected."""
        return not self.otherwise and not self.refused

    @property
    def is_unsafe(self) -> bool:
        """Whether something is on that must be off, is shorted, or could not be switched off at all."""
        return self.stays_on or self.short or (bool(self.refused) and any(map(wants_off, self.expected)))


def wants_off(expectation: str) -> bool:
    """Whether a thing is expected to be off, out, dark or dead: “K off”, “held.L1 dead”."""
    return expectation.rpartition(" ")[2] in OFF_WORDS


def run_script(
    circuits: Circuits, nets: Nets, circuit: CircuitId, steps: tuple[str, ...], panel: Panel | None = None
) -> tuple[StepResult, ...]:
    """Runs the steps of one circuit on the whole panel, with all breakers on.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        circuit: Which circuit.
        steps: The steps, each “what is done: what must then be so”.
        panel: The panel to go on from; None begins at rest.

    Returns:
        One result a step.

    Raises:
        RiktigError: a step that cannot be read, or names a device that is not there.
    """
    runner = Runner(panel or Panel(circuits, nets), circuit)
    return tuple(runner.step(step) for step in steps)


def _parts(step: str) -> tuple[str, tuple[str, ...]]:
    """What a step does, and what must then be so."""
    done, _, rest = step.partition(":")
    return done.strip(), tuple(words.strip() for words in rest.split(",") if words.strip())


def try_script(panel: Panel, circuit: CircuitId, steps: tuple[str, ...]) -> tuple[StepResult, ...]:
    """Runs the steps of one circuit as far as they can be done; one that cannot says why, and the next is tried.

    Args:
        panel: The panel at rest.
        circuit: Which circuit.
        steps: The steps, each “what is done: what must then be so”.

    Returns:
        One result a step.
    """
    runner = Runner(panel, circuit)
    results = []
    for step in steps:
        try:
            results.append(runner.step(step))
        except RiktigError as error:
            results.append(StepResult(*_parts(step), (), refused=str(error)))
    return tuple(results)


def read_script(text: str) -> tuple[str, ...]:
    """The steps of a script file: a line each, or JSON: a list of them, or ``{"steps": […]}``; # begins a comment.

    Raises:
        RiktigError: JSON that is none, or holds anything but texts; the place stands in it.
    """
    if text.lstrip()[:1] in ("[", "{"):
        data = parse_json(text, what="a script", hint="Mend the line, or write a step a line.")
        steps = data.get("steps") if isinstance(data, dict) else data
        if not isinstance(steps, list):
            raise RiktigError(
                "The script has no list of steps.", hint='Write {"steps": ["press S1: K1 on"]}.', where="$.steps"
            )
        for number, step in enumerate(steps):
            if not isinstance(step, str) or not step.strip():
                raise RiktigError("A step is a text.", hint='Such as "press S1: K1 on".', where=f"$.steps[{number}]")
        return _bounded(tuple(str(step) for step in steps))
    lines = (line.partition("#")[0].strip() for line in text.splitlines())
    return _bounded(tuple(line for line in lines if line))


def _bounded(steps: tuple[str, ...]) -> tuple[str, ...]:
    if len(steps) > MOST_STEPS:
        raise RiktigError(
            f"The script has {len(steps)} steps; {MOST_STEPS} can be done in one go.",
            hint="Part it in several scripts.",
        )
    for number, step in enumerate(steps, 1):
        why = unfit(step)
        if why:
            raise RiktigError(f"A step {why}.", hint='Such as "press S1: K1 on".', where=f"step {number}")
    return steps


class Runner:
    """Does steps to a panel. Devices are named by their role in ``circuit``, by their id, or by ``names``."""

    def __init__(self, panel: Panel, circuit: CircuitId, names: Mapping[str, DeviceId] | None = None) -> None:
        self.panel, self.circuit, self.circuits = panel, circuit, panel.circuits
        self.known = panel.network.devices
        self.names = {name.lower(): device_id for name, device_id in (names or {}).items()}

    def step(self, text: str) -> StepResult:
        """Does one step and looks.

        Raises:
            RiktigError: it cannot be read, or names a device that is not there.
        """
        done, expected = _parts(text)
        first = len(self.panel.events)
        self.do(done)
        failed = [(expectation, fault) for expectation in expected if (fault := self._difference(expectation))]
        otherwise = [fault for _, fault in failed]
        reasons = [self._why(expectation) for expectation, _ in failed]
        stays_on = any(wants_off(expectation) for expectation, _ in failed)
        short = bool(self.panel.shorts or self.panel.restless)
        events = tuple(self.panel.events[first:])
        if self.panel.shorts:
            otherwise.append("a short circuit: " + "; ".join(self.panel.shorts))
        if self.panel.restless:
            otherwise.append("it never comes to rest")
        reasons += [event.text for event in events if event.wrong]
        return StepResult(done, expected, tuple(otherwise), tuple(filter(None, reasons)), events, stays_on, short)

    def _why(self, expected: str) -> str:
        role, _, want = expected.rpartition(" ")
        if want in ("live", "dead") or role == "lamps":
            return ""
        return why(self.panel, self.device(role))

    def device(self, role: str) -> DeviceId:
        """The device that a step names.

        Raises:
            RiktigError: there is none.
        """
        device_id = DeviceId(f"{self.circuit}.{role}")
        if device_id in self.known:
            return device_id
        if role in self.known:
            return DeviceId(role)
        if role.lower() in self.names:
            return self.names[role.lower()]
        raise RiktigError(
            f"The script names “{role}”, which is not in the circuit.",
            hint="Use the roles of its devices, or the tags of the panel.",
        )

    def guard(self) -> DeviceId | None:
        """What trips when the load of the circuit is overloaded."""
        return guard_of(self.known, self.circuit)

    def _guard(self) -> DeviceId:
        guard = self.guard()
        if guard is None:
            raise RiktigError("The circuit has nothing that trips.", hint="Leave the step out.")
        return guard

    def do(self, text: str) -> None:
        """Does what the first half of a step says.

        Raises:
            RiktigError: it cannot be read, or names a device that is not there.
        """
        verb, _, what = text.partition(" ")
        what = " ".join(what.split())
        if text.startswith("let go "):
            verb, what = "let go", text.removeprefix("let go ")
        sets = self._sets()
        if verb in sets:
            place, add = sets[verb]
            (place.add if add else place.discard)(self.device(what))
        elif not self._operate(verb, what, text):
            raise RiktigError(f"“{text}” is not a step.", hint="See the list of steps in the guide.")
        self.panel.run_until_stable()

    def _sets(self) -> dict[str, tuple[set[DeviceId], bool]]:
        """Verbs that put a device among those in some state, or take it out."""
        state = self.panel.operator_state
        return {
            "raise": (state.pressed, True),
            "lower": (state.pressed, False),
            "open": (state.opened, True),
            "close": (state.opened, False),
            "spend": (state.tripped, True),
            "renew": (state.tripped, False),
            "push": (state.pushed, True),
            "let go": (state.pushed, False),
        }

    def _operate(self, verb: str, what: str, text: str) -> bool:
        """Does a step that is more than a device in a set; False when there is no such verb."""
        state = self.panel.operator_state
        match verb:
            case "rest":
                pass
            case "press" | "release":
                self._press(what, down=verb == "press")
            case "turn":
                self._turn(what, text)
            case "trip" | "reset":
                device_id = self._guard() if what == "guard" else self.device(what)
                (state.tripped.add if verb == "trip" else state.tripped.discard)(device_id)
            case "wait":
                self.panel.wait(_seconds(what))
            case "lose" | "restore":
                (state.lost.add if verb == "lose" else state.lost.discard)(what)
            case "output":
                self._output(on=what == "on")
            case "give" | "take":
                card, _, point = what.partition(" ")
                output = (self.device(card), f"L-{point.upper()}")
                (state.outputs.add if verb == "give" else state.outputs.discard)(output)
            case "weld" | "blow" | "break" | "mend":
                self._spoil(verb, what)
            case "foreign":
                ours = {d.id for d in self.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
                state.foreign = ours if what == "on" else set()
            case _:
                return False
        return True

    def _turn(self, what: str, text: str) -> None:
        role, _, position = what.partition(" to ")
        if position.strip() not in POSITIONS:
            raise RiktigError(f"“{text}” has no position.", hint=f"Say to which: {', '.join(POSITIONS)}.")
        self.panel.operator_state.position[self.device(role)] = position.strip()

    def _spoil(self, verb: str, what: str) -> None:
        """A contact that welds, a pole that blows, a coil that breaks; or all of that mended."""
        operator_state = self.panel.operator_state
        name, _, unit = what.partition(" ")
        key = (self.device(name), unit or "A1-A2")
        if key not in self.panel.units:
            raise RiktigError(f"“{name}” has no {key[1]}.", hint="Name the contact by its two markings, such as 1-2.")
        places = {"weld": operator_state.welded, "blow": operator_state.blown, "break": operator_state.dead}
        if verb == "mend":
            for place in places.values():
                place.difference_update({entry for entry in place if entry[0] == key[0]})
        else:
            places[verb].add(key)

    def _press(self, what: str, *, down: bool) -> None:
        role, _, button = what.partition(" ")
        device_id = self.device(role)
        if not button:
            (self.panel.operator_state.pressed.add if down else self.panel.operator_state.pressed.discard)(device_id)
            return
        unit = (device_id, "1-2" if button == "stop" else "3-4")
        (self.panel.operator_state.pressed_units.add if down else self.panel.operator_state.pressed_units.discard)(unit)

    def _output(self, *, on: bool) -> None:
        """The controller's output that commands this circuit."""
        for rung in self.circuits.rungs:
            if rung.end == (f"{self.circuit}.command",):
                for part in rung.path.parts:
                    for pole in getattr(part, "poles", ()):
                        (self.panel.operator_state.outputs.add if on else self.panel.operator_state.outputs.discard)(
                            (pole.device, pole.unit)
                        )

    def _difference(self, text: str) -> str:
        """What is otherwise than expected; empty when it is as expected."""
        role, _, want = text.rpartition(" ")
        want = SAME.get(want, want)
        if want in ("live", "dead"):
            now = "live" if self.panel.alive(role) else "dead"
            return "" if now == want else f"{role} is {now}, not {want}"
        if role == "lamps":
            dark = [d.id for d in self.circuits.devices if d.kind.can(Can.LAMP_TEST) and d.id not in self.panel.on]
            return f"{', '.join(dark)} is off, not on" if want == "on" and dark else ""
        device_id = self.device(role)
        if want == "any":
            return ""
        device = self.known[device_id]
        now = self.panel.turns(device_id) if device.kind.is_motor else ("on" if device_id in self.panel.on else "off")
        if device.kind.has_coil:
            now = "on" if self.panel.is_fed(device_id) and device_id in self.panel.on else "off"
        fine = now == want or (want == "on" and device.kind.is_motor and now != "off")
        return "" if fine else f"{role} is {now}, not {want}"


def guard_of(devices: Mapping[DeviceId, Device], circuit: CircuitId) -> DeviceId | None:
    """What trips when the load of a circuit is overloaded; None where nothing does.

    Args:
        devices: The devices by their ids.
        circuit: The circuit.
    """
    guards = (DeviceId(f"{circuit}.{role}") for role in ("FO", "U", "F"))
    return next((device for device in guards if device in devices), None)


def _seconds(text: str) -> float:
    """How long a wait is.

    Raises:
        RiktigError: no number of seconds from 0 to 100,000.
    """
    try:
        seconds = float(text.removesuffix("s"))
    except ValueError:
        seconds = -1.0
    if not 0 <= seconds <= 100_000:
        raise RiktigError(f"“wait {text}” is not a time.", hint="Give seconds: wait 40.")
    return seconds
