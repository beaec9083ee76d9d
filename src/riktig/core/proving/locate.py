"""What may be wrong, from all readings so far; and which reading tells most next."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from riktig.core.ids import PinRef, WireId, read_pin, read_wire
from riktig.core.proving.dead_panel import DeadPanel
from riktig.core.proving.dead_readings import resistances
from riktig.core.proving.fault_effects import BETWEEN, JOINED, LOW_OHM, OPEN, PERHAPS, Effects, Faults
from riktig.core.proving.planner import expected_between
from riktig.core.proving.switch_state import SwitchState
from riktig.core.proving.tests import OPEN_ABOVE_OHM
from riktig.core.proving.wrong_panel import single_faults
from riktig.core.simulation import IN_WIRES, FaultKind, InjectedFault

__all__ = ["NextProbe", "Probe", "Suspect", "agreeing", "as_suspects", "locate", "next_probe", "read_class"]

PRIOR = {
    FaultKind.OFF: 1.0, FaultKind.NEIGHBOUR: 0.6, FaultKind.SWAPPED: 0.5, FaultKind.BLOWN: 0.4,
    FaultKind.WRONG_BLOCK: 0.3, FaultKind.SHORT: 0.2, FaultKind.STUCK: 0.2, FaultKind.OPEN_COIL: 0.2,
    FaultKind.WELDED: 0.1,
}  # fmt: skip
"""How often each is met on a new panel against a wire that is missing (chosen by us; only their order matters)."""
TWO_AT_ONCE = 0.02
"""How likely a second fault is once there is one (chosen by us)."""
MOST_SINGLES_IN_PAIRS = 400
"""Single faults that are combined by two: those that explain most (chosen by us: within seconds)."""
MOST_TOGETHER = 90
"""Of those, so many are tried in pairs that explain a reading only together (chosen by us: within seconds)."""
LOOKED_AT = 25
"""Suspects whose readings are worked out in ohm, beside how the points are joined (chosen by us)."""
ALWAYS_ASKED = 3
"""So many states are looked at for every probe; others only where they move what the suspects concern."""
PROBED_PINS = 40
"""Points from which readings of our own are proposed (chosen by us: the next probe within a second)."""


@dataclass(frozen=True, slots=True)
class Probe:
    """One reading: how the switches stood, the two points, and what was read, ohm, the leads taken off."""

    state: SwitchState
    black: PinRef
    red: PinRef
    ohm: float


@dataclass(frozen=True, slots=True)
class Suspect:
    """What may be wrong: its faults, how likely it is against the others, and how many wrong readings it explains.

    ``alike`` are other places of the same fault that no reading tells from it.
    """

    faults: Faults
    weight: float
    explained: int
    alike: tuple[Faults, ...] = ()


@dataclass(frozen=True, slots=True)
class NextProbe:
    """The reading that tells most: where, how the switches stand, and by how many bits it narrows what may be wrong."""

    state: SwitchState
    black: PinRef
    red: PinRef
    bits: float


def read_class(ohm: float) -> int:
    """How a reading says that two points are: joined, through coils or lamps, or open."""
    if ohm <= LOW_OHM:
        return JOINED
    return OPEN if ohm >= OPEN_ABOVE_OHM else BETWEEN


def locate(panel: DeadPanel, probes: Sequence[Probe]) -> tuple[Suspect, ...]:
    """All single faults that explain all readings, the likeliest first; pairs of faults where no single one does.

    Args:
        panel: The dead panel as it should be.
        probes: The readings so far, right and wrong ones.

    Method:
        How the points are joined is told for every fault and reading at once; what is left is worked out in ohm with
        the faults in the panel, and a reading outside its bounds rules it out.
    """
    if not probes:
        return ()
    sound = Effects(panel, [()])
    wrong = ~_agreement(sound, probes)[0]
    if not wrong.any():
        wrong = ~_in_bounds(sound, (), probes)
        if not wrong.any():
            return ()
    # What is wrong rules out most faults, and is little; only the rest is held against all readings.
    few = [probe for probe, is_wrong in zip(probes, wrong.tolist(), strict=True) if is_wrong]
    every: list[Faults] = [(fault,) for fault in single_faults(panel)]
    explains = _agreement(Effects(panel, every), few).any(axis=1)
    singles = [every[n] for n in np.flatnonzero(explains).tolist()]
    effects = Effects(panel, singles)
    agrees = _agreement(effects, probes)
    weights = np.array([PRIOR[faults[0].wrong] for faults in singles])
    whole = np.flatnonzero(agrees.all(axis=1))
    suspects = _ranked(effects, [singles[n] for n in whole.tolist()], weights[whole], probes, int(wrong.sum()))
    if suspects:
        return suspects
    return _pairs(effects, singles, weights, agrees, wrong, probes)


def agreeing(panel: DeadPanel, faults: Sequence[InjectedFault], probes: Sequence[Probe]) -> list[InjectedFault]:
    """Of some faults those with which, each alone, all readings are as they are; all of them where nothing was read.

    Args:
        panel: The dead panel as it should be.
        faults: The faults.
        probes: The readings so far.
    """
    effects = Effects(panel, [(fault,) for fault in faults])
    effects = effects.only(np.flatnonzero(_fits_own_wire(effects, probes)))
    # State by state, those with most readings first: what no longer agrees is not held against the rest.
    for _, entries in sorted(_by_state(probes), key=lambda entry: -len(entry[1])):
        agrees = _agreement(effects, [probes[n] for n in entries]).all(axis=1)
        if not agrees.all():
            effects = effects.only(np.flatnonzero(agrees))
    return [fault for (fault,) in effects.hypotheses]


def _fits_own_wire(effects: Effects, probes: Sequence[Probe]) -> NDArray[np.bool_]:
    """Whether each hypothesis agrees with the reading between the ends of its own wire, where there is one."""
    of_wire = {frozenset((probe.black, probe.red)): number for number, probe in enumerate(probes)}
    by_state: dict[SwitchState, list[tuple[int, int]]] = {}
    for row, faults in enumerate(effects.hypotheses):
        what = faults[0].what if len(faults) == 1 and faults[0].wrong in IN_WIRES else ""
        number = of_wire.get(frozenset(read_wire(WireId(what)))) if what else None
        if number is not None:
            by_state.setdefault(probes[number].state, []).append((row, number))
    fits = np.ones(len(effects.hypotheses), dtype=bool)
    for state, entries in by_state.items():
        rows = np.array([row for row, _ in entries])
        state_probes = [probes[number] for _, number in entries]
        classes = effects.only(rows).own_classes(state, [(probe.black, probe.red) for probe in state_probes])
        fits[rows] = _fits(classes, np.array([read_class(probe.ohm) for probe in state_probes]))
    return fits


def _agreement(effects: Effects, probes: Sequence[Probe]) -> NDArray[np.bool_]:
    """Whether each hypothesis agrees with each reading, of shape (hypotheses, readings)."""
    agrees = np.zeros((len(effects.hypotheses), len(probes)), dtype=bool)
    for state, state_entries in _by_state(probes):
        classes = effects.classes(state, [(probes[n].black, probes[n].red) for n in state_entries])
        agrees[:, state_entries] = _fits(classes, np.array([read_class(probes[n].ohm) for n in state_entries]))
    return agrees


def _by_state(probes: Sequence[Probe]) -> list[tuple[SwitchState, list[int]]]:
    by_state: dict[SwitchState, list[int]] = {}
    for number, probe in enumerate(probes):
        by_state.setdefault(probe.state, []).append(number)
    return list(by_state.items())


def _fits(classes: NDArray[np.int8], read: NDArray[np.int64]) -> NDArray[np.bool_]:
    """Whether a class can read so: what is electronic may be as good as open, and little may be next to nothing."""
    low = np.isin(classes, (JOINED, PERHAPS)) & (read == JOINED)
    some = np.isin(classes, (PERHAPS, BETWEEN)) & (read == BETWEEN)
    none = np.isin(classes, (BETWEEN, OPEN)) & (read == OPEN)
    fits: NDArray[np.bool_] = low | some | none
    return fits


def _in_bounds(effects: Effects, faults: Faults, probes: Sequence[Probe]) -> NDArray[np.bool_]:
    """Whether each reading lies within what the panel with these faults can read."""
    panel = effects.panel
    inside = np.zeros(len(probes), dtype=bool)
    for state, state_entries in _by_state(probes):
        changes = effects.changes(faults, state)
        leading = panel.closed(state).copy()
        leading[list(changes.out)] = False
        ends = np.array(
            [(panel.node[probes[n].black], panel.node[probes[n].red]) for n in state_entries], dtype=np.int64
        )
        low, high = (resistances(panel, leading, ohm, ends, changes.joined) for ohm in (panel.low, panel.high))
        for n, least, most in zip(state_entries, low.tolist(), high.tolist(), strict=True):
            inside[n] = expected_between(least, most, "").passes(probes[n].ohm)
    return inside


def _ranked(
    like: Effects, kept: Sequence[Faults], weights: NDArray[np.float64], probes: Sequence[Probe], wrong: int
) -> tuple[Suspect, ...]:
    """The likeliest first, without those whose readings in ohm do not fit."""
    panel = like.panel
    effects = Effects(panel, kept)
    unsure = np.zeros((len(kept), len(probes)), dtype=bool)
    for state, state_entries in _by_state(probes):
        classes = effects.classes(state, [(probes[n].black, probes[n].red) for n in state_entries])
        unsure[:, state_entries] = np.isin(classes, (PERHAPS, BETWEEN))
    ranked: list[tuple[Faults, float]] = []
    for rank, number in enumerate(np.argsort(-weights, kind="stable").tolist()):
        unsure_probes = [probe for probe, open_ in zip(probes, unsure[number].tolist(), strict=True) if open_]
        if rank >= LOOKED_AT or not unsure_probes or _in_bounds(effects, kept[number], unsure_probes).all():
            ranked.append((kept[number], float(weights[number])))
    return as_suspects(panel, ranked, wrong)


def as_suspects(panel: DeadPanel, ranked: Sequence[tuple[Faults, float]], wrong: int) -> tuple[Suspect, ...]:
    """Suspects with their shares; those that no reading tells from another stand with it.

    Args:
        panel: The dead panel as it should be.
        ranked: What may be wrong with its weight, the likeliest first.
        wrong: How many wrong readings it explains.
    """
    groups: dict[frozenset[object], list[tuple[Faults, float]]] = {}
    for faults, weight in ranked:
        groups.setdefault(frozenset(_told_apart(panel, fault) for fault in faults), []).append((faults, weight))
    whole = sum(first[1] for first, *_ in groups.values()) or 1.0
    return tuple(
        Suspect(first[0], first[1] / whole, wrong, tuple(faults for faults, _ in others))
        for first, *others in groups.values()
    )


def _told_apart(panel: DeadPanel, fault: InjectedFault) -> object:
    """What a reading can tell of a fault: of a short between two potentials not between which of their clamps it is."""
    if fault.wrong is not FaultKind.SHORT:
        return fault
    return frozenset(panel.potentials[panel.node[read_pin(pin)]] for pin in (fault.where, fault.to))


def _pairs(
    like: Effects,
    singles: Sequence[Faults],
    weights: NDArray[np.float64],
    agrees: NDArray[np.bool_],
    wrong: NDArray[np.bool_],
    probes: Sequence[Probe],
) -> tuple[Suspect, ...]:
    """Two faults at once: both explain some of what is wrong, and together all of it."""
    explains = agrees[:, wrong].sum(axis=1)
    score = explains * 10.0 - (~agrees[:, ~wrong]).sum(axis=1) + weights
    useful = np.flatnonzero(explains > 0)
    best = useful[np.argsort(-score[useful], kind="stable")][:MOST_SINGLES_IN_PAIRS]
    covered = agrees[:, wrong]
    apart = [(a, b) for a, b in combinations(best.tolist(), 2) if not _same_wire(singles[a], singles[b])]
    each_own_part = [(a, b) for a, b in apart if (covered[a] | covered[b]).all()]
    together = set(best[:MOST_TOGETHER].tolist())
    for chosen in (each_own_part, [(a, b) for a, b in apart if a in together and b in together]):
        suspects = _of_pairs(like, [(*singles[a], *singles[b]) for a, b in chosen], probes, wrong)
        if suspects:
            return suspects
    return ()


def _of_pairs(
    like: Effects, pairs: Sequence[Faults], probes: Sequence[Probe], wrong: NDArray[np.bool_]
) -> tuple[Suspect, ...]:
    if not pairs:
        return ()
    # What is wrong rules out most of them, and is little; only the rest is held against all readings.
    few = [probe for probe, is_wrong in zip(probes, wrong.tolist(), strict=True) if is_wrong]
    pairs = [pairs[n] for n in np.flatnonzero(_agreement(Effects(like.panel, pairs), few).all(axis=1)).tolist()]
    if not pairs:
        return ()
    fits = _agreement(Effects(like.panel, pairs), probes)
    whole = np.flatnonzero(fits.all(axis=1)).tolist()
    likely = np.array([TWO_AT_ONCE * PRIOR[pairs[n][0].wrong] * PRIOR[pairs[n][1].wrong] for n in whole])
    return _ranked(like, [pairs[n] for n in whole], likely, probes, int(wrong.sum()))


def _same_wire(first: Faults, second: Faults) -> bool:
    wires = [{fault.what, fault.to} - {""} for faults in (first, second) for fault in faults]
    moved = [
        fault.wrong in (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)
        for faults in (first, second)
        for fault in faults
    ]
    return all(moved) and bool(wires[0] & wires[1])


def next_probe(
    panel: DeadPanel, suspects: Sequence[Suspect], asked: Iterable[Probe], states: Sequence[SwitchState]
) -> NextProbe | None:
    """The reading that narrows what may be wrong most; None when no reading tells the suspects apart.

    Args:
        panel: The dead panel as it should be.
        suspects: What may be wrong.
        asked: The readings so far: none is proposed twice.
        states: The positions of the switches that may be asked for, the present one first.

    Method:
        From the points that the suspects concern every pair is looked at in every state; each way a reading can turn
        out leaves some suspects, and the one with the least left to expect is taken (entropy, Shannon 1948).
    """
    if len(suspects) < 2:
        return None
    done = {(probe.state, frozenset((probe.black, probe.red))) for probe in asked}
    pins = _concerned(panel, suspects)
    pairs = list(combinations(pins, 2))
    weights = np.array([suspect.weight for suspect in suspects])
    weights = weights / weights.sum()
    effects = Effects(panel, [suspect.faults for suspect in suspects])
    best: NextProbe | None = None
    pin_devices = {pin.device for pin in pins}
    for number, state in enumerate(states):
        if number >= ALWAYS_ASKED and not pin_devices & (state.moved | {device for device, _ in state.turned}):
            continue
        classes = effects.classes(state, pairs)
        for column in np.argsort(-_bits(classes, weights), kind="stable").tolist():
            bits = float(_bits(classes[:, [column]], weights)[0])
            if bits <= 1e-9 or (best and bits <= best.bits + 1e-9):
                break
            black, red = pairs[column]
            if (state, frozenset((black, red))) not in done:
                best = NextProbe(state, black, red, bits)
                break
    return best


def _bits(classes: NDArray[np.int8], weights: NDArray[np.float64]) -> NDArray[np.float64]:
    """By how many bits each reading narrows the suspects on average, of shape (readings,)."""
    bits = np.zeros(classes.shape[1])
    for outcome in (JOINED, PERHAPS, BETWEEN, OPEN):
        share = weights @ (classes == outcome)
        bits -= np.where(share > 0, share * np.log2(np.maximum(share, 1e-300)), 0.0)
    return bits


def _concerned(panel: DeadPanel, suspects: Sequence[Suspect]) -> list[PinRef]:
    """The pins that the likeliest suspects concern, in their order."""
    effects = Effects(panel, [])
    pins: dict[PinRef, None] = {}
    for suspect in suspects:
        for state in (SwitchState(), SwitchState(frozenset(panel.devices))):
            changes = effects.changes(suspect.faults, state)
            for number in changes.out:
                pins.update(dict.fromkeys((panel.pieces[number].a, panel.pieces[number].b)))
            for a, b in changes.joined:
                pins.update(dict.fromkeys((panel.pins[a], panel.pins[b])))
        if len(pins) >= PROBED_PINS:
            break
    return list(pins)[:PROBED_PINS]
