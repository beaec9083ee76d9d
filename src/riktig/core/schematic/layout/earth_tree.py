"""The earth tree as a sheet: one root, the bars, and everything that is bonded to them."""

from collections.abc import Callable, Mapping
from itertools import pairwise

from riktig.core.catalogue import Can
from riktig.core.geometry import Align, Circle, Face, Line, Point, Shape, Text
from riktig.core.job import DeviceId, PinRef
from riktig.core.keys import DeviceKey
from riktig.core.schematic.layout.frame import broken
from riktig.core.schematic.layout.sheet_model import FIRST_X, FIRST_Y
from riktig.core.schematic.model.elements import Circuits, Device
from riktig.core.schematic.symbols.choose import earth_sign

__all__ = ["bars_of", "earth_pages", "earth_shapes"]

BARS_ON_SHEET = 3
FIRST_BAR, BAR_STEP = FIRST_Y + 26.0, 44.0
BAR_X, POINT_STEP = FIRST_X + 40.0, 27.0
WAYS = 7
"""Ways of a bar that take a bond; the eighth leads on to a further bar."""

FOOT = "Each bond has its own terminal on the earth bar, so removing one circuit does not break another."


def bars_of(circuits: Circuits) -> list[tuple[Device, tuple[PinRef, ...]]]:
    """Each earth bar with the points bonded to it, in the order in which its ways are taken."""
    bars = [device for device in circuits.devices if device.kind.can(Can.EARTH_BAR)]
    left = list(circuits.earths)
    bar_pins: list[tuple[Device, tuple[PinRef, ...]]] = []
    for n, bar in enumerate(bars):
        ways = len(left) if bar is bars[-1] else WAYS - bool(n)
        bar_pins.append((bar, tuple(left[:ways])))
        left = left[ways:]
    return bar_pins


def earth_pages(circuits: Circuits) -> int:
    """How many sheets the earth tree takes."""
    return -(-len(bars_of(circuits)) // BARS_ON_SHEET)


def earth_shapes(
    circuits: Circuits,
    tags: dict[DeviceId, str],
    devices: Mapping[DeviceId, Device],
    page: int,
    size_of: Callable[[PinRef], str] = lambda pin: "",
) -> list[Shape]:
    """A page of the earth tree.

    Args:
        circuits: Bars and bonded points.
        tags: What each device is called.
        devices: All devices.
        page: Counted from 0.
        size_of: Gives the size of the conductor that lands on a pin; empty where it is not known.
    """
    shapes: list[Shape] = [
        Text(FIRST_X + 6, FIRST_Y + 8, FOOT,
             2.5, "second")
    ]  # fmt: skip
    on_page = bars_of(circuits)[page * BARS_ON_SHEET : (page + 1) * BARS_ON_SHEET]
    heights = [FIRST_BAR + n * BAR_STEP for n in range(len(on_page))]
    for y, (bar, points) in zip(heights, on_page, strict=True):
        key = DeviceKey(bar.id)
        right = BAR_X + (len(points) + 0.4) * POINT_STEP - POINT_STEP / 2
        shapes += [
            Line(BAR_X - 16, y, max(right, BAR_X + 12), y, width=1.1, layer="circuit", key=key),
            Text(BAR_X - 15, y - 2.6, tags[bar.id], 3.0, face=Face.PRINTED_BOLD, key=key),
        ]
        for n, pin in enumerate(points):
            shapes += _point(BAR_X + n * POINT_STEP, y, pin, tags, devices)
            if size := size_of(pin):
                at = Point(BAR_X + n * POINT_STEP + 1.4, y + 8.4)
                shapes.append(Text(*at, size, 2.2, "second", key=DeviceKey(pin.device)))
    for upper, lower in pairwise(heights):
        x = BAR_X - 16
        shapes.append(Line(x, upper, x, lower, width=0.35, dashed=True, layer="circuit"))
    if not page and heights:
        shapes += earth_sign(FIRST_X + 12, heights[0] + 3.4)
        shapes.append(Line(FIRST_X + 12, heights[0], BAR_X - 16, heights[0], width=0.35, dashed=True, layer="circuit"))
        shapes.append(Text(FIRST_X + 6, heights[0] - 2.4, "root", 2.5, "second"))
    return shapes


def _point(
    x: float, y: float, pin: PinRef, tags: dict[DeviceId, str], devices: Mapping[DeviceId, Device]
) -> list[Shape]:
    owner, marking = pin
    device = devices[owner]
    key = DeviceKey(device.id)
    name = f"{tags[device.id]}:{device.mark or marking}"
    purpose = ", ".join(dict.fromkeys(device.purpose.removesuffix(", PE").split(", ")))
    lines = broken(purpose, 13)[:3]
    return [
        Line(x, y, x, y + 12, width=0.35, dashed=True, layer="circuit", key=key),
        Circle(x, y, 0.8, fill="ink", layer="circuit", key=key),
        Circle(x, y + 13.2, 1.2, width=0.35, fill="paper", layer="circuit", key=key),
        Text(x, y + 19, name, 2.6, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
        *(Text(x, y + 23 + 3.2 * n, part, 2.2, "second", align=Align.MIDDLE, key=key) for n, part in enumerate(lines)),
    ]
