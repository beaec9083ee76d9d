"""What every part in the box loses with the loads running, and how warm the air inside gets."""

from dataclasses import dataclass, replace

from riktig.core.catalogue import Box, Can, Part, boxes, parts_of
from riktig.core.job import DeviceId, Enclosure, Override, Pick, Ventilation
from riktig.core.schematic import OUT_WHILE_RUNNING, Circuits, Device, Zone
from riktig.core.sizing.air import cooling_area, temperature_rise
from riktig.core.sizing.choose import Sizing
from riktig.core.standards import Why, heat_coefficient, rule

__all__ = ["InsideAir", "Loss", "Losses", "box_that_cools", "inside_air_of", "losses_of", "with_fans"]


@dataclass(frozen=True, slots=True)
class Loss:
    """What a device loses, W: by its data at rated current, and with the loads running; and why they differ."""

    device: DeviceId
    rated_w: float
    watts: float
    why: str


Losses = tuple[Loss, ...]


@dataclass(frozen=True, slots=True)
class InsideAir:
    """The heat of the box. Watts, m², °C and m³/h.

    ``inside_c`` is the mean of the air inside; ``limit_c`` what everything is sized for. ``fan`` and ``box``
    are proposed when it gets warmer than that, and None when nothing in the catalogue would do.
    """

    losses: Losses
    parts_w: float
    total_w: float
    area_m2: float
    inside_c: float
    limit_c: float
    fan_m3_h: float
    fan: Part | None
    box: Box | None
    why: Why

    @property
    def too_warm(self) -> bool:
        """Whether it gets warmer inside than everything is sized for."""
        return self.inside_c > self.limit_c + 0.05

    @property
    def remedy(self) -> str:
        """What would mend it, in words; empty when nothing need be."""
        if not self.too_warm:
            return ""
        texts = []
        if self.fan:
            texts.append(
                f"filter and fan {self.fan.ref} for {self.fan_m3_h:.0f} m³/h ({self.fan.flow_m3_h:g} m³/h free)"
            )
        if self.box:
            texts.append(f"a closed enclosure {self.box.name}")
        return " or ".join(texts) or "no fan and no standard enclosure would do: take heat out of the box, or cool it"


def losses_of(circuits: Circuits, sizing: Sizing) -> Losses:
    """What the parts in the box lose with the loads running, the hottest first.

    Method:
        The loss of a current path goes with the square of its current; parts whose current is not known count
        whole. Heaters, the panel's light and contactors that are out while the load runs count nothing.

    Args:
        circuits: All devices and rungs of the job.
        sizing: The part of every device.
    """
    losses = []
    for device in circuits.devices:
        part = sizing.parts.get(device.id)
        if device.zone is Zone.FIELD or part is None or part.loss_w <= 0:
            continue
        share, why = _share(device, part, sizing)
        losses.append(Loss(device.id, part.loss_w, round(part.loss_w * share, 2), why))
    return tuple(sorted(losses, key=lambda loss: (-loss.watts, -loss.rated_w, loss.device)))


def _share(device: Device, part: Part, sizing: Sizing) -> tuple[float, str]:
    if device.kind.at_rest:
        return 0.0, device.kind.at_rest
    if device.role in OUT_WHILE_RUNNING:
        return 0.0, "out while the load runs"
    if device.kind.can(Can.CARRIES_ALL) and part.rated_a:
        share = min(sizing.full_load_a / part.rated_a, 1.0) ** 2
        return share, f"({sizing.full_load_a:.3g} A / {part.rated_a:g} A)²"
    size = sizing.load_of(device.circuit)
    ref = part.ref.split(" + ")[0]
    for chosen in size.proposal.chosen if size else ():
        if chosen.part.ref == ref and chosen.part.kind.shares_parts_with(device.kind) and chosen.loading < 1:
            return chosen.loading**2, f"{chosen.loading:.0%} of its current, squared"
    return 1.0, "counted whole"


def with_fans(sizing: Sizing, circuits: Circuits, enclosure: Enclosure, picks: tuple[Pick, ...]) -> Sizing:
    """The parts with fans that move the heat of all others; what the builder chose himself stays.

    Method:
        Flow = 3.1 × heat / (temperature inside − that of the room), shared by the fans that are drawn.

    Source:
        Trade value at sea level, from memory.

    Args:
        sizing: The part of every device.
        circuits: All devices of the job.
        enclosure: The enclosure.
        picks: Parts that the builder chose for devices.
    """
    chosen = {pick.device for pick in picks}
    fans = [d for d in circuits.devices if d.kind.can(Can.VENTILATES) and d.id not in chosen]
    allowed = enclosure.ambient_c - enclosure.room_c
    if not fans or allowed <= 0:
        return sizing
    air, wires = rule("fan air"), rule("wiring losses")
    fan_ids = {fan.id for fan in fans}
    watts = sum(loss.watts for loss in losses_of(circuits, sizing) if loss.device not in fan_ids)
    parts, whys = dict(sizing.parts), dict(sizing.whys)
    for fan in fans:
        # The motor of the fan is heat too: a larger fan asks for a little more air.
        fitted, flow = parts_of(fan.kind_id)[-1], 0.0
        for part in parts_of(fan.kind_id):
            heat = (watts + part.loss_w * len(fans)) * wires.value
            flow = air.value * heat / allowed / len(fans)
            if part.flow_m3_h >= flow:
                fitted = part
                break
        why = Why(
            f"Why {fitted.flow_m3_h:g} m³/h",
            f"It carries the heat away so that the air inside stays at {enclosure.ambient_c:g} °C.",
            (f"{flow:.0f} m³/h are needed, {fitted.flow_m3_h:g} m³/h blown free",),
            air.source,
            air.confidence,
        )
        parts[fan.id], whys[fan.id] = fitted, (why,)
    return replace(sizing, parts=parts, whys=whys)


def box_that_cools(total_w: float, enclosure: Enclosure) -> Box | None:
    """The smallest standard enclosure, no smaller than the present one, that stays cool without a fan.

    Args:
        total_w: All heat inside, W.
        enclosure: The enclosure.
    """
    allowed = enclosure.ambient_c - enclosure.room_c
    for box in boxes():
        if min(box.width - enclosure.width, box.height - enclosure.height, box.depth - enclosure.depth) < 0:
            continue
        shell = replace(box.around(enclosure), ventilation=Ventilation.NONE)
        if temperature_rise(total_w, shell) <= allowed + 1e-9:
            return box
    return None


def inside_air_of(
    losses: Losses, sizing: Sizing, circuits: Circuits, enclosure: Enclosure, overrides: tuple[Override, ...]
) -> InsideAir:
    """The heat of the parts as they are drawn, and the air inside.

    Method:
        Rise = loss / (heat passed by the skin × effective cooling area by how the enclosure stands); with a fan that is
        drawn, the air it moves carries the heat away. A heat the builder has set himself counts instead of the sum.

    Source:
        Effective area: IEC 60890, from memory; coefficients and the fan's formula as their tables say.

    Args:
        losses: The heat of every device, W.
        sizing: The part of every device.
        circuits: All devices of the job: a fan that is not drawn moves no air.
        enclosure: The enclosure.
        overrides: What the builder put in the place of proposals.
    """
    wires, air, k = rule("wiring losses"), rule("fan air"), heat_coefficient(enclosure.material)
    parts_w = round(sum(loss.watts for loss in losses), 1)
    own_loss = next((override for override in overrides if override.key == "panel.loss"), None)
    total = own_loss.amount if own_loss else round(parts_w * wires.value, 1)
    area = cooling_area(enclosure.width, enclosure.height, enclosure.depth, enclosure.standing.value)
    allowed = enclosure.ambient_c - enclosure.room_c
    flow = air.value * total / allowed if allowed > 0 else 0.0
    fans = parts_of("filter_fan")
    drawn = [sizing.parts[device.id] for device in circuits.devices if device.kind.can(Can.VENTILATES)]
    fitted = sum(part.flow_m3_h for part in drawn)
    inside = round(enclosure.room_c + temperature_rise(total, enclosure, fitted), 1)
    lines = [
        f"set by the builder: {total:g} W"
        if own_loss
        else f"parts: {parts_w:g} W; conductors: × {wires.value:g} = {total:g} W",
        f"{enclosure.size_name}, {enclosure.standing.value}: {area:.2f} m²",
        f"{total:g} W / ({k.value:g} W/m²K × {area:.2f} m²) = {total / (k.value * area):.1f} K "
        f"above {enclosure.room_c:g} °C",
    ]
    if flow:
        lines.append(f"a fan to stay at {enclosure.ambient_c:g} °C: {air.value:g} × {total:g} W / {allowed:g} K")
        lines[-1] += f" = {flow:.0f} m³/h"
    if fitted:
        lines.append(f"fitted: {fitted:g} m³/h, so {inside - enclosure.room_c:.1f} K")
    why = Why(
        f"Why {inside:g} °C",
        f"The mean of the air inside with the loads running; the top is warmer. "
        f"Everything is sized for {enclosure.ambient_c:g} °C.",
        tuple(lines),
        f"{k.source}; areas: IEC 60890, from memory; {air.source}",
        k.confidence,
    )
    warm = inside > enclosure.ambient_c
    fan = next((p for p in fans if p.flow_m3_h >= flow), None) if warm and flow else None
    box = box_that_cools(total, enclosure) if warm else None
    return InsideAir(losses, parts_w, total, area, inside, enclosure.ambient_c, flow, fan, box, why)
