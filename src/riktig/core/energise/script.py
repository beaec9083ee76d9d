"""Scripts: steps done to a panel, and what must then be so."""

from dataclasses import dataclass

from riktig.core.circuit import Circuits, Nets
from riktig.core.energise.run import Panel
from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId

__all__ = ["StepResult", "run_script"]


@dataclass(frozen=True, slots=True)
class StepResult:
    """One step: what was done, what was expected, and what was otherwise; empty when all was as expected."""

    done: str
    expected: tuple[str, ...]
    otherwise: tuple[str, ...]

    @property
    def passed(self) -> bool:
        """Whether all was as expected."""
        return not self.otherwise


def run_script(
    circuits: Circuits, nets: Nets, circuit: CircuitId, steps: tuple[str, ...], panel: Panel | None = None
) -> tuple[StepResult, ...]:
    """Runs the steps of one circuit on the whole panel, with all breakers on.

    Raises:
        RiktigError: a step that cannot be read, or names a device that is not there.
    """
    runner = _Runner(circuits, nets, circuit, panel)
    return tuple(runner.step(step) for step in steps)


class _Runner:
    def __init__(self, circuits: Circuits, nets: Nets, circuit: CircuitId, panel: Panel | None) -> None:
        self.panel = panel or Panel(circuits, nets)
        self.circuit, self.circuits = circuit, circuits
        self.known = {device.id: device for device in circuits.devices}

    def step(self, text: str) -> StepResult:
        """Does one step and looks."""
        done, _, rest = text.partition(":")
        self._do(done.strip())
        expected = tuple(one.strip() for one in rest.split(",") if one.strip())
        otherwise = [said for one in expected if (said := self._look(one))]
        if self.panel.shorts:
            otherwise.append("a short circuit: " + "; ".join(self.panel.shorts))
        if self.panel.restless:
            otherwise.append("it never comes to rest")
        return StepResult(done.strip(), expected, tuple(otherwise))

    def _device(self, role: str) -> DeviceId:
        did = DeviceId(f"{self.circuit}.{role}")
        if did not in self.known and role not in self.known:
            raise RiktigError(
                f"The script names “{role}”, which is not in the circuit.", hint="Use the roles of its devices."
            )
        return did if did in self.known else DeviceId(role)

    def _guard(self) -> DeviceId:
        """What trips when the load is overloaded."""
        for role in ("FO", "U", "F"):
            if f"{self.circuit}.{role}" in self.known:
                return DeviceId(f"{self.circuit}.{role}")
        raise RiktigError("The circuit has nothing that trips.", hint="Leave the step out.")

    def _do(self, text: str) -> None:
        panel, hands = self.panel, self.panel.hands
        words = text.split()
        verb, what = words[0], " ".join(words[1:])
        if text.startswith("let go "):
            verb, what = "let go", text.removeprefix("let go ")
        sets = {
            "raise": (hands.pressed, True),
            "lower": (hands.pressed, False),
            "open": (hands.opened, True),
            "close": (hands.opened, False),
            "spend": (hands.tripped, True),
            "renew": (hands.tripped, False),
            "push": (hands.pushed, True),
            "let go": (hands.pushed, False),
        }
        match verb:
            case "rest":
                pass
            case "press" | "release":
                self._press(what, down=verb == "press")
            case "turn":
                role, _, position = what.partition(" to ")
                hands.position[self._device(role)] = position
            case "trip" | "reset":
                did = self._guard() if what == "guard" else self._device(what)
                (hands.tripped.add if verb == "trip" else hands.tripped.discard)(did)
            case "wait":
                panel.wait(float(what))
            case "lose" | "restore":
                (hands.lost.add if verb == "lose" else hands.lost.discard)(what)
            case "output":
                self._output(on=what == "on")
            case "foreign":
                ours = {d.id for d in self.circuits.devices if d.kind_id == "foreign_source"}
                hands.foreign = ours if what == "on" else set()
            case _ if verb in sets:
                place, add = sets[verb]
                (place.add if add else place.discard)(self._device(what))
            case _:
                raise RiktigError(f"“{text}” is not a step.", hint="See the list of steps in the guide.")
        panel.settle()

    def _press(self, what: str, *, down: bool) -> None:
        role, _, button = what.partition(" ")
        did = self._device(role)
        if not button:
            (self.panel.hands.pressed.add if down else self.panel.hands.pressed.discard)(did)
            return
        unit = (did, "1-2" if button == "stop" else "3-4")
        (self.panel.hands.pressed_units.add if down else self.panel.hands.pressed_units.discard)(unit)

    def _output(self, *, on: bool) -> None:
        """The controller's output that commands this circuit."""
        for rung in self.circuits.rungs:
            if rung.end == (f"{self.circuit}.command",):
                for part in rung.path.parts:
                    for pole in getattr(part, "poles", ()):
                        (self.panel.hands.outputs.add if on else self.panel.hands.outputs.discard)(
                            (pole.device, pole.unit)
                        )

    def _look(self, text: str) -> str:
        """What is otherwise than expected; empty when it is as expected."""
        role, _, want = text.rpartition(" ")
        if want in ("live", "dead"):
            now = "live" if self.panel.alive(role) else "dead"
            return "" if now == want else f"{role} is {now}, not {want}"
        if role == "lamps":
            dark = [d.id for d in self.circuits.devices if d.kind_id == "test_lamp" and d.id not in self.panel.on]
            return f"{', '.join(dark)} is off, not on" if want == "on" and dark else ""
        did = self._device(role)
        if want == "any":
            return ""
        device = self.known[did]
        now = self.panel.turns(did) if device.kind.is_motor else ("on" if did in self.panel.on else "off")
        if device.kind.has_coil:
            now = "on" if self.panel.is_fed(did) else "off"
        fine = now == want or (want == "on" and device.kind.is_motor and now != "off")
        return "" if fine else f"{role} is {now}, not {want}"
