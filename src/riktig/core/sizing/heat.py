"""Heat and room: what the parts lose, how warm it gets inside, which box and which fan."""

from dataclasses import dataclass
from math import ceil

from riktig.core.catalogue import Box, boxes
from riktig.core.job import Ventilation
from riktig.core.sizing.air import temperature_rise
from riktig.core.sizing.inside_air import InsideAir
from riktig.core.sizing.value import Basis, Value, weakest
from riktig.core.standards import Why, rule

__all__ = ["Heat", "size_heat", "smallest_box"]

RAIL_PITCH = 240.0
"""Height of one rail with its parts and its share of the ducts, mm (common practice, no source)."""
STRIP_HEIGHT = 150.0
"""Height of a row of terminals with its duct and the earth bar, mm (common practice, no source)."""
SIDE_DUCTS = 2.0
"""Upright ducts at both sides of the plate."""


@dataclass(frozen=True, slots=True)
class Heat:
    """Values about heat and room: the air inside is that of the parts as they are drawn."""

    values: tuple[Value, ...]
    box: Box | None


def smallest_box(space: float, strip: float, basis: Basis, loss_w: float) -> tuple[Box | None, list[str]]:
    """The smallest standard enclosure whose plate holds the rails and which stays cool enough.

    Args:
        space: Rail that all parts take, mm.
        strip: Length of all terminals, mm: they stand in rows of their own.
        basis: Spare room and duct width count.
        loss_w: Heat of the panel, W.
    """
    spare = 1 / (1 - min(basis.practice.spare_share, 0.8))
    need = space * spare
    allowed = basis.enclosure.ambient_c - basis.enclosure.room_c
    for box in boxes():
        rail = box.plate_width - SIDE_DUCTS * basis.practice.duct_width
        rows = ceil(need / rail) if rail > 0 else 99
        strips = ceil(strip / rail) if rail > 0 else 99
        high = rows * RAIL_PITCH + strips * STRIP_HEIGHT
        shell = box.around(basis.enclosure)
        rise = temperature_rise(loss_w, shell) if shell.ventilation is Ventilation.NONE else 0.0
        if high <= box.plate_height and rise <= allowed + 1e-9:
            return box, [
                f"{space:.0f} mm of parts and {basis.practice.spare_share:.0%} spare: {need:.0f} mm of rail",
                f"{rows} rails of {rail:.0f} mm and {strips} rows of terminals: {high:.0f} mm high",
            ]
    return None, [f"{space:.0f} mm of parts and {basis.practice.spare_share:.0%} spare: {need:.0f} mm of rail"]


def size_heat(air: InsideAir, space: float, strip: float, basis: Basis) -> Heat:
    """Losses, temperature inside, and the box.

    Args:
        air: The heat of the parts as they are drawn.
        space: Rail that all parts take, mm.
        strip: Length of all terminals, mm.
        basis: Supply, practice, enclosure and what the builder overrode.
    """
    wires = rule("wiring losses")
    loss = round(air.parts_w * wires.value, 1)
    loss_why = Why(
        f"Why {loss:g} W",
        "Everything that is in with the loads running; a tenth more for the conductors.",
        (f"{air.parts_w:.1f} W × {wires.value:g}",),
        f"part data; {wires.source}",
        weakest(wires),
    )
    limit = basis.enclosure.ambient_c
    shortfall = f"warmer than the {limit:g} °C everything is sized for" if air.too_warm else ""
    fitting, lines_of_box = smallest_box(space, strip, basis, air.total_w)
    values = (
        basis.with_override(Value("panel.loss", "Heat", loss, "W", loss_why)),
        Value("panel.inside", "Air inside", air.inside_c, "°C", air.why, shortfall=shortfall, settable=False),
        _box_value(fitting, lines_of_box, basis),
    )
    return Heat(values, fitting)


def _box_value(box: Box | None, lines: list[str], basis: Basis) -> Value:
    now = basis.enclosure
    words = box.name if box else "larger than any standard box"
    area = box.width * box.height if box else 1e9
    small = now.width * now.height < area - 1e-9
    why = Why(
        f"Why {words}",
        "The smallest standard box whose plate holds the rails with the spare room, and whose skin gives off the heat. "
        "A first estimate: the Plate station plans it to the millimetre.",
        tuple(lines),
        "rail pitch and spare room: common practice, no source",
        "fairly sure",
    )
    shortfall = f"the Brief says {now.size_name}" if small else ""
    return Value("panel.box", "Enclosure at least", area, "", why, words, shortfall=shortfall, settable=False)
