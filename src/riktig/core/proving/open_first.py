"""What must be opened so that a reading proves a wire: another way of low resistance would hide that it is missing."""

from dataclasses import replace

from riktig.core.ids import PinRef
from riktig.core.proving.dead_panel import PieceKind
from riktig.core.proving.planner import Planner
from riktig.core.proving.switch_state import SwitchState, by_hand

__all__ = ["what_to_open"]

MOST_STATES = 2
"""Readings of one wire (chosen by us)."""
MOST_MOVED = 4
"""Devices held or turned for one reading (chosen by us: more than two hands with help do not hold)."""


def what_to_open(planner: Planner, piece: int) -> list[tuple[SwitchState, str]]:
    """The switch states in which the readings between a wire's ends prove it, each with what else must be done for it.

    Args:
        planner: Answers about the panel.
        piece: The number of a wire.

    Method:
        Without the wire no way of low resistance may lead from one of its ends to the other, nor from an end to a
        clamp beside either: a wire in the wrong clamp, or swapped with its neighbour, would read as if it were right.
        Along the way of fewest pieces the first contact that a hand can open is opened. What one state cannot part,
        another may.
    """
    a, b = planner.panel.pieces[piece].a, planner.panel.pieces[piece].b
    left = [(a, b), *((end, beside) for end in (a, b) for near in (a, b) for beside in planner.beside.get(near, ()))]
    left = [ends for ends in dict.fromkeys(left) if ends[0] != ends[1]]
    if not any(planner.way(planner.off, *ends, without=piece) for ends in left):
        return [(planner.off, "")]
    states: list[tuple[SwitchState, str]] = []
    while left and len(states) < MOST_STATES:
        state = _parting(planner, piece, left)
        hidden = [ends for ends in left if planner.way(state, *ends, without=piece)]
        if len(hidden) == len(left) and states:
            break
        states.append((state, ""))
        left = hidden
    if left:
        states[-1] = (states[-1][0], _by_eye(planner, *left[0], around=set(left[0]) == {a, b}))
    return states


def _parting(planner: Planner, piece: int, hides: list[tuple[PinRef, PinRef]]) -> SwitchState:
    """A state that parts as many pairs of pins as it can, the first ones first."""
    state = planner.off
    parted: list[tuple[PinRef, PinRef]] = []
    for ends in hides:
        after = state
        for _ in range(MOST_MOVED):
            way = planner.way(after, *ends, without=piece)
            if not way:
                break
            opened = next((then for number in way for then in _opened(planner, after, number)), None)
            if opened is None:
                break
            after = opened
        parts_them = not any(planner.way(after, *pair, without=piece) for pair in (*parted, ends))
        if parts_them:
            state = after
            parted.append(ends)
    return state


def _by_eye(planner: Planner, first: PinRef, last: PinRef, *, around: bool) -> str:
    seat, beside = planner.point(first).label, planner.point(last).label
    if around:
        return f"Take the wire off at {seat} and touch its end: another way hides it."
    return f"Look that it sits in {seat}: a reading does not tell it from {beside}."


def _opened(planner: Planner, state: SwitchState, number: int) -> list[SwitchState]:
    """The states in which a closed contact is opened by hand; none where a hand cannot."""
    panel = planner.panel
    piece = panel.pieces[number]
    if piece.kind is not PieceKind.CONTACT or piece.device is None:
        return []
    device = panel.devices[piece.device]
    states: list[SwitchState] = []
    if by_hand(device):
        states.append(replace(state, moved=state.moved ^ {device.id}))
    turned_others = tuple(turned for turned in state.turned if turned[0] != device.id)
    states += [replace(state, turned=(*turned_others, (device.id, position))) for position in device.kind.positions]
    return [after for after in states if not panel.closed(after)[number]]
