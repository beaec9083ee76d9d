"""Room for thick conductors to bend between their clamp and what stands in the way."""

from riktig.core.catalogue import Can, Side
from riktig.core.geometry import Rect
from riktig.core.job import PinRef
from riktig.core.keys import WireKey
from riktig.core.plate import PlacedDevice
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.standards import bending_room, conductor_name, wire_diameter

__all__ = ["BENDING"]

BARS = (Can.EARTH_BAR, Can.NEUTRAL_BAR, Can.ZERO_BAR)
THICK_MM2 = 6.0
"""Thinner conductors bend in any finger room: the table of NEC 430.10(B) begins at 8 AWG (from memory)."""
BEND_TIMES = 4.0
"""Room in outer diameters where the European rulebook has no table (common practice, no source)."""


def room_to_bend(view: View) -> ClauseResult:
    """Before every clamp with a thick conductor there is room to bend it, to the far wall of the duct it goes into."""
    clause = view.source("W11")
    title = "Room to bend thick conductors"
    seats = {seat.device: seat for seat in view.layout.seats}
    looked_at = on_bars = 0
    tightest: tuple[float, str] | None = None
    findings: list[Finding] = []
    for wire in view.wiring.wires:
        if wire.mm2 <= THICK_MM2:
            continue
        for end in (wire.start, wire.end):
            seat = seats.get(end.pin.device)
            if seat is None:
                continue
            if any(seat.part.kind.can(bar) for bar in BARS):
                on_bars += 1
                continue
            looked_at += 1
            free, needs = _free(view, seat, end.pin), _needs(view, wire.mm2)
            if needs is None:
                text = f"The table of bending room ends below {conductor_name(wire.mm2)} of wire {wire.name}."
                remedy = "Compare with the data of the part, and sign."
                findings.append(Finding("W11", Verdict.JUDGE, text, WireKey(wire.key), clause, remedy))
            elif free < needs:
                text = (
                    f"Wire {wire.name}, {conductor_name(wire.mm2)}, has {free:.0f} mm at {end.label} to bend; "
                    f"it needs {needs:.0f} mm."
                )
                remedy = "Move the part away from what stands before its clamp, or sign that the wire goes in straight."
                findings.append(Finding("W11", _verdict(view), text, WireKey(wire.key), clause, remedy))
            elif tightest is None or free - needs < tightest[0]:
                tightest = (free - needs, f"tightest: {end.label}, {free:.0f} mm for {needs:.0f} mm")
    evidence: tuple[str, ...] = (
        f"{looked_at} ends thicker than {THICK_MM2:g} mm²",
        *([tightest[1]] if tightest else []),
    )
    if on_bars:
        evidence += (f"{on_bars} on bars not looked at: they take their conductors from the front",)
    none = "" if looked_at else f"no conductor on the plate is thicker than {THICK_MM2:g} mm²"
    return ClauseResult("W11", Group.WIRING, title, clause, tuple(evidence), tuple(findings), none)


def _verdict(view: View) -> Verdict:
    """A table that is exceeded fails; what is common practice is for a person."""
    return Verdict.FAILS if view.rulebook.north_american else Verdict.JUDGE


def _needs(view: View, mm2: float) -> float | None:
    if not view.rulebook.north_american:
        return BEND_TIMES * wire_diameter(mm2).value
    room = bending_room(mm2)
    return room.value if room else None


def _free(view: View, seat: PlacedDevice, pin: PinRef) -> float:
    """From the edge of a part at a clamp to the next part, or to the far wall of a duct, or to the box, mm."""
    upwards = (seat.part.kind.pin(pin.marking).side is Side.TOP) is not seat.turned
    x = seat.pin_point(pin.marking).x
    edge = seat.rect.y if upwards else seat.rect.bottom
    wall = view.enclosure.plate_datum[1]
    free = edge + wall if upwards else view.enclosure.height - wall - edge
    for other in view.layout.seats:
        if other.device != seat.device and not other.part.kind.plugs_onto and _covers(other.rect, x):
            free = min(free, _ahead(edge, other.rect.bottom if upwards else other.rect.y, upwards=upwards))
    for duct in view.layout.ducts:
        if not duct.upright and _covers(duct.rect, x):
            free = min(free, _ahead(edge, duct.rect.y if upwards else duct.rect.bottom, upwards=upwards))
    return free


def _covers(rect: Rect, x: float) -> bool:
    return rect.x <= x <= rect.right


def _ahead(edge: float, at: float, *, upwards: bool) -> float:
    """How far something is in the direction of the clamp; infinite where it lies behind."""
    gap = edge - at if upwards else at - edge
    return gap if gap >= -0.5 else float("inf")


BENDING = (room_to_bend,)
