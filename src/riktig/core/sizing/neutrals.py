"""Neutrals that several single-phase loads share."""

from dataclasses import replace

from riktig.core.job import Load, LoadId
from riktig.core.sizing.sections import smallest_section
from riktig.core.sizing.starter import LoadProposal, in_room
from riktig.core.sizing.value import Basis, Value
from riktig.core.standards import Why, conductor_name

__all__ = ["with_shared_neutrals"]


def with_shared_neutrals(
    loads: tuple[Load, ...],
    sized: tuple[LoadProposal, ...],
    on_line: tuple[tuple[LoadId, tuple[int, ...]], ...],
    basis: Basis,
) -> tuple[LoadProposal, ...]:
    """The proposals with the neutral of every group that shares one sized for the group.

    Method:
        Loads on one line add up; of loads on different lines the largest line's sum counts, since the
        others may be switched off. What protects each way counts, not what it draws.

    Source:
        IEC 60204-1 12.4, from memory; sharing: common practice, no source.
    """
    groups: dict[LoadId, list[int]] = {}
    where, by_id = dict(on_line), {load.id: n for n, load in enumerate(loads)}
    for n, load in enumerate(loads):
        head = load.neutral_of
        if head is not None and head in by_id and load.phases == 1 and loads[by_id[head]].phases == 1:
            groups.setdefault(head, [by_id[head]]).append(n)
    made = list(sized)
    for members in groups.values():
        sums = [0.0, 0.0, 0.0]
        for n in members:
            sums[where[loads[n].id][0]] += max(sized[n].amount("breaker"), sized[n].amount("current"))
        names = ", ".join(loads[n].name for n in members)
        for n in members:
            made[n] = _shared(loads[n], sized[n], max(sums), names, basis)
    return tuple(made)


def _shared(load: Load, load_proposal: LoadProposal, needs_a: float, names: str, basis: Basis) -> LoadProposal:
    laid = in_room(load, basis)
    section = smallest_section(needs_a, f"what protects {names} on the fullest line", laid)
    mm2 = max(section.mm2, load_proposal.cable.mm2)
    why = Why(
        f"Why {conductor_name(mm2)}",
        f"One neutral serves {names}. One device must cut off all lines that share it, and the label says so.",
        (*section.why.lines, f"not thinner than the line, {load_proposal.cable.name}"),
        f"{section.why.source}; sharing: common practice, no source",
        "fairly sure",
    )
    words = f"{conductor_name(mm2)}, shared"
    value = Value(f"{load_proposal.load}.neutral", "Neutral", mm2, "mm²", why, words, settable=False)
    values = tuple(value if v.key == value.key else v for v in load_proposal.values)
    return replace(load_proposal, values=values, neutral_a=needs_a)
