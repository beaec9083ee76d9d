"""What every recipe stands on: the supply, the practice, and where control takes its voltage from."""

from dataclasses import dataclass

from riktig.core.job import ControlSupply, Load, Practice, Signal, Source, SourceId, Start, Supply, Wetting
from riktig.core.standards import rule

__all__ = [
    "BACK",
    "DC_BACK",
    "DC_DEVICES",
    "DC_LIVE",
    "HELD",
    "INDICATION",
    "LAMP_TEST",
    "LIMITED_BACK",
    "LIMITED_LIVE",
    "LINES",
    "LIVE",
    "ONLY_SOURCE",
    "PLACES",
    "SAFE",
    "SYSTEMS",
    "SupplyContext",
    "control_source",
    "supply_context",
]

LIVE, BACK = "control.live", "control.back"
"""The two sides of the control transformer's secondary, behind its fuse."""
DC_LIVE, DC_DEVICES, DC_BACK = "dc.plus", "dc.devices", "dc.zero"
"""24 V for relays and outputs, for devices and sensors, and the common 0 V."""
LIMITED_LIVE, LIMITED_BACK = "limited.plus", "limited.zero"
LAMP_TEST = "lamps.test"
SAFE = "safe.live"
"""Behind the emergency stop, where there is one."""
INDICATION = "signals.live"
"""What lamps and alarms are fed from where there is an emergency stop: it leaves them alive."""
LINES = ("main.L1", "main.L2", "main.L3")
SYSTEMS = ("main", "in", "held", "control", "dc", "limited", "lamps", "safe", "signals")
"""What the names of nodes begin with that all circuits share."""
PLACES = ("first", "second", "third")
ONLY_SOURCE = "the only one"
HELD = ("held.L1", "held.L2", "held.L3")
"""Behind the main contactor, where there is one."""


@dataclass(frozen=True, slots=True)
class SupplyContext:
    """``live`` is the node that control circuits are tapped from, empty when each taps its own line."""

    supply: Supply
    practice: Practice
    control: ControlSupply
    live: str
    back: str
    dc: bool
    limited: bool
    lamp_test: bool = False
    way_lines: tuple[str, ...] = LINES
    """What single-phase ways are fed from."""
    load_lines: tuple[str, ...] = LINES
    """What all other loads are fed from."""
    sources: tuple[Source, ...] = ()
    """Supplies that arrive from elsewhere."""
    stops: bool = False
    """Whether an emergency stop takes the control supply away."""

    def source(self, which: SourceId | str | None) -> Source | None:
        """The supply from elsewhere with an id, or “first”, “second” of the Brief; the only one where none is given."""
        place = (which or "").partition(" ")[0]
        if place in PLACES:
            return next(iter(self.sources[PLACES.index(place) :]), None)
        if which and which != ONLY_SOURCE:
            return next((source for source in self.sources if source.id == which), None)
        return self.sources[0] if len(self.sources) == 1 else None

    @property
    def lines(self) -> tuple[str, ...]:
        """The lines behind the main switch, as many as arrive."""
        return LINES[: self.supply.system.lines]

    @property
    def pair(self) -> tuple[str, str]:
        """The two lines that a transformer hangs between."""
        first, second = self.supply.pair
        return LINES[first], LINES[second]

    @property
    def neutral(self) -> bool:
        """Whether there is a neutral to return to."""
        return self.supply.neutral

    @property
    def north_american(self) -> bool:
        """Whether the North American rulebook counts."""
        return self.practice.rulebook.north_american

    @property
    def control_v(self) -> float:
        """The voltage of control circuits, V."""
        if self.control is ControlSupply.DC:
            return 24.0
        if self.control is ControlSupply.DIRECT:
            return self.supply.voltage_to_neutral_v
        return self.practice.transformer_v


def control_source(loads: tuple[Load, ...], supply: Supply, practice: Practice) -> tuple[ControlSupply, str]:
    """Where control voltage comes from on this job, and why.

    Source:
        IEC 60204-1 9.1.1: a transformer, but for one starter with at most two control devices; from
        memory.

    Args:
        loads: The loads of the job.
        supply: The supply of the job.
        practice: The practice of the job.
    """
    if practice.control_supply is not ControlSupply.BY_RULEBOOK:
        return practice.control_supply, "The practice of this job says so."
    starters = [load for load in loads if load.is_motor and load.start is not Start.WAY]
    few = rule("single starter devices").value
    if supply.neutral and len(starters) <= 1 and not practice.rulebook.north_american:
        return ControlSupply.DIRECT, f"One starter with at most {few:g} control devices may do without a transformer."
    return ControlSupply.TRANSFORMER, (
        f"{len(starters)} starters: the rulebook asks for a transformer with separate windings."
        if len(starters) > 1
        else "The supply has no suitable line to neutral, so control needs a voltage of its own."
    )


def supply_context(
    loads: tuple[Load, ...],
    supply: Supply,
    practice: Practice,
    signals: tuple[Signal, ...],
    sources: tuple[Source, ...] = (),
    *,
    dc_asked: bool = False,
) -> SupplyContext:
    """What the recipes of this job stand on; ``dc_asked`` when a circuit needs 24 V that no signal asks for.

    Args:
        loads: The loads of the job.
        supply: The supply of the job.
        practice: The practice of the job.
        signals: The field devices of the job.
        sources: Supplies that arrive from elsewhere.
        dc_asked: Whether anything asks for 24 V.
    """
    control, _ = control_source(loads, supply, practice)
    live, back = {ControlSupply.TRANSFORMER: (LIVE, BACK), ControlSupply.DC: (DC_LIVE, DC_BACK)}.get(control, ("", "N"))
    fed = {signal.wetting for signal in signals if signal.watts or signal.wetting is not Wetting.CONTROL}
    dc = control is ControlSupply.DC or dc_asked or Wetting.DC in fed
    lines = LINES[: supply.system.lines]
    return SupplyContext(
        supply,
        practice,
        control,
        live,
        back,
        dc,
        Wetting.LIMITED in fed,
        way_lines=lines,
        load_lines=lines,
        sources=sources,
    )
