"""The emergency stop: two channels and a monitored reset, as one safety relay or of three relays."""

from riktig.core.job import Circuit, Param, Recipe
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit, CircuitBuilder, DoorLamp
from riktig.core.schematic.templates.commands import lamp
from riktig.core.schematic.templates.supply_context import INDICATION, LINES, SAFE, SupplyContext

__all__ = ["BEHIND_STOP", "FOR_NEW", "SAFETY_RELAY", "THREE_RELAYS", "emergency_stop"]

THREE_RELAYS, SAFETY_RELAY = "three relays", "safety relay"
"""What an emergency stop is built of."""
BEHIND_STOP = frozenset({Recipe.PHASE_MONITOR, Recipe.VALVE, Recipe.LIT_BUTTON, Recipe.SELECTED_LAMP})
"""Circuits beside those of the loads that an emergency stop takes the voltage from: each switches something on."""
FOR_NEW = {Recipe.EMERGENCY_STOP: (Param("built of", SAFETY_RELAY),)}
"""What is chosen about a circuit that is added today; one of an earlier job stays as it was built."""


def emergency_stop(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """Two channels, two relays and a monitored reset: everything tapped behind it dies when one channel opens.

    Method:
        Stop category 0. Each channel of the device holds a relay of its own, and the contacts of both stand in series
        in the supply of the control circuits. A third relay takes the reset: it comes in only while both others have
        fallen, and its opening contact in the output lets nothing start before the button is released. So neither a
        relay that stays in nor a reset that is held starts anything. Lamps and alarms are fed ahead of it. One safety
        relay does the same and sees a short between the channels too: each has a loop of its own at 24 V.

    Source:
        IEC 60204-1 9.2.2 and 9.4.2 (stop categories, redundancy), ISO 13849-1 (categories), from memory.
    """
    if circuit.param("built of", THREE_RELAYS) != THREE_RELAYS:
        return _safety_relay(circuit, context)
    sk = CircuitBuilder(circuit.id, circuit.title or "emergency stop", context)
    sk.door("S", "emergency_stop", "emergency stop", "EMERGENCY STOP")
    sk.door("S.reset", "reset_button", "reset", "EMERGENCY STOP RESET")
    sk.plate("FC", "control_breaker", "control")
    sk.plate("FI", "control_breaker", "lamps and alarms")
    sk.plate("K1", "relay", "first channel")
    sk.plate("K2", "relay", "second channel")
    sk.plate("K3", "relay", "reset")
    live = sk.tap(guard="")
    back = context.back
    sk.rung("signals", "lamps and alarms, never off", context.live or LINES[0], "FI:1-2", INDICATION)
    sk.rung("reset", "monitored reset", live, "S.reset:3-4 (K1:21-22 K2:21-22 | K3:13-14) K3:A1-A2", back)
    sk.rung("one", "first channel", live, "S:11-12 (K3:33-34 | K1:13-14) K1:A1-A2", back)
    sk.rung("two", "second channel", live, "S:21-22 (K3:43-44 | K2:13-14) K2:A1-A2", back)
    sk.rung("safe", "control supply behind it", live, "K1:43-44 K2:43-44 K3:21-22", SAFE)
    lamp(sk, DoorLamp("ready", "ready", "EMERGENCY STOP READY", "white"), SAFE, "")
    return sk.done()


def _safety_relay(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    sk = CircuitBuilder(circuit.id, circuit.title or "emergency stop", context)
    sk.door("S", "emergency_stop", "emergency stop", "EMERGENCY STOP")
    sk.door("S.reset", "reset_button", "reset", "EMERGENCY STOP RESET")
    sk.plate("FC", "control_breaker", "control")
    sk.plate("FI", "control_breaker", "lamps and alarms")
    sk.plate("K", "safety_relay", "two channels, monitored reset")
    live = sk.tap(guard="")
    sk.rung("signals", "lamps and alarms, never off", context.live or LINES[0], "FI:1-2", INDICATION)
    sk.rung("relay", "safety relay", live, "K:A1-A2", context.back)
    sk.rung("safe", "control supply behind it", live, "K:13-14", SAFE)
    lamp(sk, DoorLamp("ready", "ready", "EMERGENCY STOP READY", "white"), SAFE, "")
    sk.rung("one", "first channel", "", "@K:S11 S:11-12 @K:S12")
    sk.rung("two", "second channel", "", "@K:S21 S:21-22 @K:S22")
    sk.rung("reset", "monitored reset", "", "@K:S33 S.reset:3-4 @K:S34")
    return sk.done()
