"""What stands at the ends of wires: ferrules, rings and crimped pins, and the clamps that hold more than they may."""

from collections import defaultdict
from collections.abc import Callable, Container, Iterable
from typing import NamedTuple

from riktig.core.catalogue import Can
from riktig.core.job import PinRef
from riktig.core.sizing import Sizing
from riktig.core.standards import Why, clamp_range, conductor_name, ferrule, is_awg, twin_ferrule
from riktig.core.wiring.connections import Connection
from riktig.core.wiring.model import Crowded, WireEnd, WireId
from riktig.core.wiring.routes import Route

__all__ = ["Draft", "Ends"]


class Draft(NamedTuple):
    """What a wire is before its ends are known: those follow from what shares its clamps."""

    key: WireId
    connection: Connection
    route: Route
    mm2: float
    why: Why
    detour: float = 0.0


def _size(mm2: float) -> str:
    return conductor_name(mm2) if is_awg(mm2) else f"{mm2:g}"


class Ends:
    """What stands at the end of each wire, by what shares its clamp."""

    def __init__(
        self,
        drafts: Iterable[Draft],
        sizing: Sizing,
        label: Callable[[PinRef], str],
        is_infeed: Callable[[PinRef], bool],
        *,
        crimped: bool,
    ) -> None:
        self._sizing, self._label, self._is_infeed = sizing, label, is_infeed
        self.at: dict[PinRef, list[Draft]] = defaultdict(list)
        """What lands at each clamp."""
        for draft in drafts:
            self.at[draft.connection.a].append(draft)
            self.at[draft.connection.b].append(draft)
        sections = {draft.mm2 for draft in drafts}
        self._crimped = crimped
        self._ferrules = {mm2: (ferrule(mm2), twin_ferrule(mm2)) for mm2 in sections}

    def end(self, pin: PinRef, wire: Draft) -> WireEnd:
        """One end of a wire with its fitting, strip length and torque."""
        part = self._sizing.parts[pin.device]
        label, clamp = self._label(pin), part.clamp(pin.marking)
        torque = clamp.torque_n_m
        if self._is_infeed(pin):
            label, torque = f"{label} infeed", 0.0  # it has a clamp of its own, of which nothing is known
        if part.kind.can(Can.EARTH_STUD):
            return WireEnd(pin, label, f"ring {_size(wire.mm2)} / {part.screw}", 8.0, clamp.torque_n_m)
        if self._crimped:
            return WireEnd(pin, label, f"crimped pin {_size(wire.mm2)}", clamp.strip, torque)
        others = [other for other in self.at[pin] if other.key != wire.key and other.mm2 == wire.mm2]
        alone, twin = self._ferrules[wire.mm2]
        chosen = twin if others and twin else alone
        if chosen is None:
            return WireEnd(pin, label, f"pin lug {_size(wire.mm2)}", clamp.strip, torque)
        shared: WireId | None = others[0].key if others and twin else None
        return WireEnd(pin, label, f"ferrule {chosen.name}", chosen.strip, torque, shared)

    def crowded_at(self, pin: PinRef, alone: Container[PinRef]) -> tuple[Crowded, ...]:
        """Why a clamp holds more than it may; nothing where it does not.

        Args:
            pin: A clamp where wires land.
            alone: The clamps that the builder wants one conductor in.
        """
        if self._is_infeed(pin):
            return ()  # the comb's or busbar's own terminal takes it, not the clamp
        landed = self.at[pin]
        clamp, sections = self._sizing.parts[pin.device].clamp(pin.marking), {wire.mm2 for wire in landed}
        texts: list[str] = []
        if len(landed) > clamp.conductors:
            texts.append(f"{len(landed)} conductors where {clamp.conductors} may be clamped")
        elif pin in alone and len(landed) > 1:
            texts.append(f"{len(landed)} conductors where you want one: set the order of the potential by hand")
        if len(sections) > 1:
            texts.append("two sections share one clamp")
        texts += [
            f"{conductor_name(mm2)} in a clamp for {clamp_range(clamp.min_mm2, clamp.max_mm2, awg=is_awg(mm2))}"
            for mm2 in dict.fromkeys(wire.mm2 for wire in landed)
            if not clamp.min_mm2 <= mm2 <= clamp.max_mm2
        ]
        return tuple(Crowded(pin, self._label(pin), text) for text in texts)
