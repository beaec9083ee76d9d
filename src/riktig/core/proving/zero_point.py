"""Against what a voltage is measured: the zero of the supply that reaches a point."""

from riktig.core.ids import PinRef
from riktig.core.proving.planner import PanelFacts
from riktig.core.simulation import Panel

__all__ = ["zero_of"]


def zero_of(facts: PanelFacts, panel: Panel, pin: PinRef) -> PinRef | None:
    """A point, inside the panel where there is one, of what the current of a pin returns to.

    It is the zero of the supply that reaches the pin, another pole of it where it has no zero; None where no supply
    does.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        panel: The panel with power on.
        pin: A pin that something connects.
    """
    pole = panel.source_of(panel.network.point[pin])
    if pole is None:
        return None
    other_poles = [
        other for other in panel.network.poles if other.system == pole.system and other.pin and other.name != "PE"
    ]
    others = [other for other in other_poles if other.is_zero] or [
        other for other in other_poles if other.name != pole.name
    ]
    return facts.inside(others[0].pin) or others[0].pin if others and others[0].pin else None
