"""How the switches must stand for a reading, as a picture: what has to be changed since the last one stands out."""

from collections.abc import Mapping

from riktig.core.geometry import Align, Drawing, Face, Line, Rect, Shape, Text
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey
from riktig.core.plate import box
from riktig.core.proving.switch_state import SwitchState, switched_off
from riktig.core.schematic import Circuits

__all__ = ["draw_switches"]

WIDE, TALL, GAP = 17.0, 13.0, 2.0
"""A switch and the room between two, mm."""
IN_A_ROW = 11


def draw_switches(circuits: Circuits, tags: Mapping[DeviceId, str], state: SwitchState, before: SwitchState) -> Drawing:
    """Every switch by its tag: a bar that stands is on, one that lies is off; filled is what must be changed.

    Args:
        circuits: All devices and rungs of the job.
        tags: Their tags.
        state: How they must stand.
        before: How they stood at the card before.
    """
    changed = state.changes_from(before)
    turned = dict(state.turned)
    moved = [device.id for device in circuits.devices if device.id in state.moved or device.id in turned]
    back = [device.id for device in circuits.devices if device.id in changed]
    switches = switched_off(circuits)
    shown = dict.fromkeys([*switches, *moved, *back])
    shapes: list[Shape] = []
    for number, device in enumerate(shown):
        x = GAP + (number % IN_A_ROW) * (WIDE + GAP)
        y = GAP + (number // IN_A_ROW) * (TALL + GAP)
        words = turned.get(device, "") or ("in" if device in state.moved else "")
        if not words and device not in switches:
            words = "let go"
        shapes += _switch(Rect(x, y, WIDE, TALL), device, tags[device], state, words, lit=device in changed)
    rows = max((len(shown) + IN_A_ROW - 1) // IN_A_ROW, 1)
    width = GAP + min(max(len(shown), 1), IN_A_ROW) * (WIDE + GAP)
    return Drawing(width, GAP + rows * (TALL + GAP), tuple(shapes), "Switches")


def _switch(rect: Rect, device: DeviceId, tag: str, state: SwitchState, words: str, *, lit: bool) -> list[Shape]:
    key = DeviceKey(device)
    off = device in state.off
    stroke = "on act" if lit else "third" if off else "ink"
    x, y = rect.x + 3.6, rect.y + rect.height / 2
    bar = Line(x - 2, y, x + 2, y, stroke, 1.1, key=key) if off else Line(x, y - 3, x, y + 3, stroke, 1.1, key=key)
    position = words or ("off" if off else "on")
    return [
        box(rect, "act" if lit else "third", 0.4, "act" if lit else "card", key),
        bar,
        Text(rect.x + 6.6, rect.y + 5.6, tag, 2.9, stroke, Face.PRINTED_BOLD, Align.LEFT),
        Text(rect.x + 6.6, rect.y + 10.4, position, 2.5, stroke, Face.WORDS, Align.LEFT),
    ]
