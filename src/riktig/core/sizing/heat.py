"""Heat and room: what the parts lose, how warm it gets inside, which box and which fan."""

from dataclasses import dataclass
from math import ceil

from riktig.core.catalogue import Box, Part, boxes, parts_of
from riktig.core.job import Enclosure, Ventilation
from riktig.core.sizing.value import Basis, Value, weakest
from riktig.core.standards import Why, cooling_area_factors, heat_coefficient, rule

__all__ = ["Heat", "cooling_area", "size_heat", "smallest_box", "temperature_rise"]

RAIL_PITCH = 240.0
"""Height of one rail with its parts and its share of the ducts, mm (common practice, no source)."""
STRIP_HEIGHT = 150.0
"""Height of a row of terminals with its duct and the earth bar, mm (common practice, no source)."""
SIDE_DUCTS = 2.0
"""Upright ducts at both sides of the plate."""


@dataclass(frozen=True, slots=True)
class Heat:
    """Values about heat and room, and the fan when one is chosen."""

    values: tuple[Value, ...]
    loss_w: float
    inside_c: float
    box: Box | None
    fan: Part | None = None


def cooling_area(width: float, height: float, depth: float, standing: str) -> float:
    """Effective cooling area of an enclosure, m²; sizes in mm.

    Source:
        IEC 60890, surface factors, from memory.

    Args:
        width: Outer width, mm.
        height: Outer height, mm.
        depth: Outer depth, mm.
        standing: How the box stands, such as “on a wall”.
    """
    hw, hd, wd = cooling_area_factors(standing)
    w, h, d = width / 1000, height / 1000, depth / 1000
    return hw * h * w + hd * h * d + wd * w * d


def temperature_rise(loss_w: float, box: Enclosure, fan_m3_h: float = 0.0) -> float:
    """How much warmer than the room the air inside gets, K.

    Method:
        Closed: ΔT = P / (k × A). With a fan: the smaller of that and 3.1 × P / flow.

    Source:
        Trade values after IEC 60890, from memory.

    Args:
        loss_w: Heat inside, W.
        box: The enclosure.
        fan_m3_h: What a fan moves, m³/h; 0 for none.
    """
    area = cooling_area(box.width, box.height, box.depth, box.standing.value)
    closed = loss_w / (heat_coefficient(box.material).value * area)
    return min(closed, rule("fan air").value * loss_w / fan_m3_h) if fan_m3_h else closed


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


def size_heat(parts_w: float, space: float, strip: float, basis: Basis) -> Heat:
    """Losses, temperature inside, and the box."""
    box, wires = basis.enclosure, rule("wiring losses")
    loss = round(parts_w * wires.value, 1)
    allowed = box.ambient_c - box.room_c
    fan, flow_line, air = None, "", rule("fan air").value
    if box.ventilation is Ventilation.FAN:
        need = air * loss / max(allowed, 0.1)
        fan = next((p for p in parts_of("filter_fan") if p.flow_m3_h >= need), parts_of("filter_fan")[-1])
        flow_line = (
            f"fan: {air:g} × {loss:g} W / {max(allowed, 0.1):g} K = {need:.0f} m³/h, chosen {fan.flow_m3_h:g} m³/h"
        )
    rise = temperature_rise(loss, box, fan.flow_m3_h if fan else 0.0)
    inside = round(box.room_c + rise, 1)
    fitting, lines_of_box = smallest_box(space, strip, basis, loss)
    loss_why = Why(
        f"Why {loss:g} W",
        "Everything that is in with the loads running; a tenth more for the conductors.",
        (f"{parts_w:.1f} W × {wires.value:g}",),
        f"part data; {wires.source}",
        weakest(wires),
    )
    k = heat_coefficient(box.material)
    area = cooling_area(box.width, box.height, box.depth, box.standing.value)
    lines = [
        f"{box.size_name}, {box.standing.value}: {area:.2f} m²",
        f"{loss:g} W / ({k.value:g} W/m²K × {area:.2f} m²) = {loss / (k.value * area):.1f} K above {box.room_c:g} °C",
    ]
    if flow_line:
        lines.append(flow_line)
    inside_why = Why(
        f"Why {inside:g} °C",
        f"Conductors and parts are sized for {box.ambient_c:g} °C inside.",
        tuple(lines),
        f"{k.source}; areas: IEC 60890, from memory",
        weakest(k, wires),
    )
    shortfall = f"warmer than the {box.ambient_c:g} °C everything is sized for" if inside > box.ambient_c else ""
    return Heat(
        (
            basis.with_override(Value("panel.loss", "Heat", loss, "W", loss_why)),
            Value("panel.inside", "Air inside", inside, "°C", inside_why, shortfall=shortfall, settable=False),
            _box_value(fitting, lines_of_box, basis),
        ),
        loss,
        inside,
        fitting,
        fan,
    )


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
