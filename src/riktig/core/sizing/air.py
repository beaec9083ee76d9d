"""How much warmer than the room the air in an enclosure gets."""

from riktig.core.job import Enclosure
from riktig.core.standards import cooling_area_factors, heat_coefficient, rule

__all__ = ["cooling_area", "temperature_rise"]


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
