"""Answers of the Brief that contradict each other or are missing: each with its place and what to do."""

from collections import Counter
from dataclasses import dataclass
from math import sqrt

from riktig.core.job import (
    KW_PER_HP,
    Command,
    ControlSupply,
    Duty,
    Load,
    LoadKind,
    Signal,
    Source,
    Start,
    SupplySystem,
    Wetting,
)
from riktig.core.keys import LoadKey, PartKey
from riktig.core.schematic import control_source
from riktig.core.sizing.motor import table_current
from riktig.core.sizing.value import Basis
from riktig.core.standards import rule

__all__ = ["InputIssue", "issues_of"]

MOTOR_STARTS = (Start.REVERSING, Start.STAR_DELTA, Start.SOFT, Start.DRIVE)
PLATE_FACTOR = 1.6
"""A nameplate further than this from the table is probably a slip of the decimal point (chosen by us)."""


@dataclass(frozen=True, slots=True)
class InputIssue:
    """One thing to settle. ``where`` is the place in the Brief: a load, or the part “supply” or “sources”."""

    where: LoadKey | PartKey
    text: str
    remedy: str
    asks: bool = False
    """Whether it is a question not yet answered rather than a contradiction."""


def issues_of(
    loads: tuple[Load, ...], signals: tuple[Signal, ...], sources: tuple[Source, ...], sources_asked: bool, basis: Basis
) -> tuple[InputIssue, ...]:
    """Everything in the Brief that cannot stand as it is, in the order it is asked."""
    input_issues = [*_supply(basis)]
    if not sources_asked and not sources:
        input_issues.append(
            InputIssue(
                PartKey("sources"),
                "The Brief does not say whether anything else arrives live in this panel.",
                "Name every further supply, or say that there is none: a forgotten second supply is the most "
                "dangerous omission there is.",
                asks=True,
            )
        )
    for load in loads:
        input_issues += _load(load, basis) + _command(load, signals)
    names = Counter(load.name.strip().lower() for load in loads)
    input_issues += [
        InputIssue(
            LoadKey(load.id), f"Two loads are called “{load.name}”.", "Give each its own name: it goes on the labels."
        )
        for load in loads
        if names[load.name.strip().lower()] > 1
    ]
    input_issues += _practice(loads, basis)
    foreign = [signal.name for signal in signals if signal.wetting is Wetting.FOREIGN]
    if foreign and not sources:
        input_issues.append(
            InputIssue(
                PartKey("sources"),
                f"{', '.join(foreign)} is fed from another panel, but no further supply is named.",
                "Name the supply it comes from: it stays live with the main switch off.",
            )
        )
    return tuple(input_issues)


def _practice(loads: tuple[Load, ...], basis: Basis) -> list[InputIssue]:
    """Choices of practice that this supply or these loads leave no room for."""
    control, _ = control_source(loads, basis.supply, basis.practice)
    if control is ControlSupply.DIRECT or basis.practice.control_tap.ahead:
        return []
    return [
        InputIssue(
            PartKey("practice"),
            f"Control is to be taken behind the motor breaker, but {control.value} feeds all starters: control "
            "stays live with a motor breaker off.",
            "Take control from line and neutral, or choose “ahead of the motor breaker”.",
            asks=True,
        )
    ]


def _supply(basis: Basis) -> list[InputIssue]:
    supply, input_issues = basis.supply, []
    ratio = supply.voltage_v / supply.voltage_to_neutral_v
    system = supply.system
    if supply.neutral and system is SupplySystem.THREE and abs(ratio / sqrt(3) - 1) > 0.06:
        input_issues.append(
            InputIssue(
                PartKey("supply"),
                f"{supply.voltage_v:g} V between phases and {supply.voltage_to_neutral_v:g} V to neutral are not one "
                "three-phase system.",
                f"{supply.voltage_v:g} V has {supply.voltage_v / sqrt(3):.0f} V to neutral.",
            )
        )
    if system is SupplySystem.HIGH_LEG and abs(ratio / 2 - 1) > 0.06:
        input_issues.append(
            InputIssue(
                PartKey("supply"),
                f"{supply.voltage_v:g} V between lines and {supply.voltage_to_neutral_v:g} V to neutral are not the "
                "middle of one side of a delta.",
                f"{supply.voltage_v:g} V has {supply.voltage_v / 2:g} V to the middle of a side.",
            )
        )
    wants = {SupplySystem.ONE: True, SupplySystem.HIGH_LEG: True, SupplySystem.CORNER: False}.get(system)
    if wants is not None and supply.neutral is not wants:
        brings = "needs its neutral" if wants else "has no neutral"
        input_issues.append(
            InputIssue(
                PartKey("supply"),
                f"A supply of {system.value} {brings}.",
                f"Say that it comes with{'' if wants else 'out'} a neutral, or choose the supply that arrives.",
            )
        )
    if supply.frequency_hz not in (50, 60):
        input_issues.append(
            InputIssue(PartKey("supply"), f"No supply runs at {supply.frequency_hz:g} Hz.", "Give 50 or 60 Hz.")
        )
    return input_issues


def _load(load: Load, basis: Basis) -> list[InputIssue]:
    input_issues = []

    def issue(text: str, remedy: str) -> None:
        input_issues.append(InputIssue(LoadKey(load.id), f"{load.name}: {text}", remedy))

    if load.phases < 3 and load.start in MOTOR_STARTS:
        issue(
            f"a single-phase load cannot be started {load.start.value}.",
            "Say that it has three phases, or start it direct-on-line.",
        )
    elif not load.is_motor and load.start in MOTOR_STARTS:
        issue(f"only a motor is started {load.start.value}.", "Switch it by a contactor, or call it a motor.")
    if load.phases > basis.supply.system.lines:
        issue(
            f"it works on {load.phases} lines, but the supply brings {basis.supply.system.lines}.",
            "Choose how many lines it works on, or have more brought.",
        )
    if load.phase > basis.supply.system.lines:
        issue(f"line L{load.phase} does not arrive.", "Choose a line that does, or leave it to the program.")
    if load.phases == 1 and load.phase and load.phase - 1 not in basis.supply.way_lines:
        issue(
            f"line L{load.phase} has {basis.supply.voltage_v * sqrt(3) / 2:.0f} V to the neutral.",
            "Give it another line: this one is for loads between lines alone.",
        )
    if load.phases == 1 and not basis.supply.neutral:
        issue(
            "it works between line and neutral, but the supply brings no neutral.",
            "Have a neutral brought, or feed it between two lines.",
        )
    if load.kw is not None and load.hp is not None and abs(load.hp * KW_PER_HP / load.kw - 1) > 0.08:
        issue(f"{load.kw:g} kW and {load.hp:g} hp are not the same power.", "Keep the one that stands on the plate.")
    volts = (basis.supply.voltage_v, basis.supply.voltage_to_neutral_v)
    if load.voltage_v is not None and load.voltage_v not in volts:
        issue(
            f"{load.voltage_v:g} V is not a voltage of this job; its supply is called {basis.supply.voltage_name}.",
            "Use one name for one voltage on a job; another voltage needs a supply of its own.",
        )
    if load.neutral_of is not None and (load.phases != 1 or load.neutral_of == load.id):
        issue("only a load between line and neutral can share another's neutral.", "Give it a neutral of its own.")
    if load.neutral_of is not None and load.kind is LoadKind.SOCKETS:
        issue(
            "sockets cannot share a neutral: their residual-current breaker sees only what returns through itself.",
            "Give them a neutral of their own.",
        )
    input_issues += _motor(load, basis)
    return input_issues


def _motor(load: Load, basis: Basis) -> list[InputIssue]:
    if not load.is_motor:
        return []
    input_issues = []
    plate, table = load.nameplate_a, table_current(load, basis)
    in_table = table.value if table else 0.0
    if plate is not None and in_table and not 1 / PLATE_FACTOR < plate / in_table < PLATE_FACTOR:
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name}: the plate's {plate:g} A is far from the {in_table:g} A of {load.power_name}.",
                "Look at the plate again: the decimal point, the voltage, star or triangle.",
            )
        )
    least = rule("overload limit")
    if load.start is Start.WAY and (load.output_kw or 0) > least.value:
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name}: a motor above {least.value:g} kW needs a guard against overload "
                f"({basis.cites('IEC 60204-1 7.3.1', 'NEC 430.32')}).",
                "Start it direct-on-line, or by a drive.",
            )
        )
    if load.duty is Duty.INCHING and load.start in (Start.STAR_DELTA, Start.SOFT):
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name}: a motor started {load.start.value} cannot be inched or plugged.",
                "Start it direct-on-line or by a drive.",
            )
        )
    return input_issues


def _command(load: Load, signals: tuple[Signal, ...]) -> list[InputIssue]:
    input_issues = []
    both = load.start is Start.REVERSING
    if load.command is Command.BOTH_WAYS and not both and load.start is not Start.DRIVE:
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name}: its control is forward and reverse, but its starter has one direction only.",
                "Choose a reversing starter, or start and stop.",
            )
        )
    if both and load.command is Command.BUTTONS:
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name} is reversing, but start and stop give no direction.",
                "Choose forward, reverse and stop.",
            )
        )
    if load.is_motor and load.command is Command.ALWAYS and load.start is not Start.WAY:
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name}: nothing commands it, so it would start by itself when the panel is switched on.",
                "Say who starts it, or feed it from its own breaker only.",
            )
        )
    if load.command is Command.LEVEL and not any(signal.load == load.id for signal in signals):
        input_issues.append(
            InputIssue(
                LoadKey(load.id),
                f"{load.name}: it runs by level, but no float is listed for it.",
                "List its floats among the field devices.",
                asks=True,
            )
        )
    return input_issues
