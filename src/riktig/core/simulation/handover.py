"""A panel that goes on where another of nearly the same circuits stood: after an edit, or when its wires are known."""

from riktig.core.simulation.run import Panel

__all__ = ["go_on_from"]


def go_on_from(panel: Panel, before: Panel) -> None:
    """What was held, turned, opened and lost, where coils and timers stand, and the time: kept as far as it is there.

    What the new circuits no longer feed drops out; nothing comes in that was not in.

    Args:
        panel: The panel with power on.
        before: The panel as it was.
    """
    there, operator, was = set(panel.network.devices), panel.operator_state, before.operator_state
    for name in ("pressed", "opened", "tripped", "foreign", "pushed"):
        getattr(operator, name).update(getattr(was, name) & there)
    for name in ("pressed_units", "outputs"):
        getattr(operator, name).update(item for item in getattr(was, name) if item[0] in there)
    operator.position.update(
        {device_id: position for device_id, position in was.position.items() if device_id in there}
    )
    operator.lost |= was.lost
    operator.reference.update(was.reference)
    panel.events = list(before.events)
    panel.take_state(before)
    panel.run_until_stable()
