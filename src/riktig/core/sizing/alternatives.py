"""What could be had instead, with what it costs in room and heat."""

from dataclasses import dataclass, replace

from riktig.core.job import Command, ControlSupply, Job, Load, LoadId, Protection, Start, change_load, set_practice
from riktig.core.sizing.control import size_control
from riktig.core.sizing.electrical import basis_of
from riktig.core.sizing.motor import needs_overload
from riktig.core.sizing.proposal import Proposal
from riktig.core.sizing.starter import LoadProposal, size_load
from riktig.core.sizing.value import Basis

__all__ = ["Alternative", "control_alternatives", "load_alternatives", "take"]


@dataclass(frozen=True, slots=True)
class Alternative:
    """Another answer, with what it changes against what stands now.

    ``load`` is None for the control supply. ``space`` mm of rail and ``loss_w`` W are differences;
    ``start_a`` is the current on start, A.
    """

    words: str
    load: LoadId | None
    start: Start | None = None
    protection: Protection | None = None
    control: ControlSupply | None = None
    space: float = 0.0
    loss_w: float = 0.0
    start_a: float = 0.0

    @property
    def cost(self) -> str:
        """“+90 mm, −3 W, 62 A on start”."""
        texts = [f"{self.space:+.0f} mm", f"{self.loss_w:+.0f} W"]
        if self.start_a:
            texts.append(f"{self.start_a:.0f} A on start")
        return ", ".join(texts).replace("-", "−")


def _starts(load: Load) -> tuple[Start, ...]:
    if not load.is_motor:
        return (Start.CONTACTOR, Start.WAY)
    if load.phases != 3:
        return (Start.DIRECT,)
    if load.command is Command.BOTH_WAYS:
        return (Start.REVERSING, Start.DRIVE)
    return (Start.DIRECT, Start.STAR_DELTA, Start.SOFT, Start.DRIVE)


def load_alternatives(load: Load, sized: LoadProposal, basis: Basis) -> tuple[Alternative, ...]:
    """Other starters and other protection for a load."""
    alternatives = []
    for start in _starts(load):
        if start is not load.start:
            other = size_load(replace(load, start=start), basis)
            alternatives.append(_against(start.value, sized, other, load, start=start))
    if needs_overload(load, basis):
        for guard in Protection:
            if guard is not load.protection:
                other = size_load(replace(load, protection=guard), basis)
                alternatives.append(_against(guard.value, sized, other, load, protection=guard))
    return tuple(alternatives)


def _against(
    words: str,
    now: LoadProposal,
    other: LoadProposal,
    load: Load,
    start: Start | None = None,
    protection: Protection | None = None,
) -> Alternative:
    return Alternative(
        words,
        load.id,
        start,
        protection,
        None,
        round(other.space - now.space, 1),
        round(other.loss_w - now.loss_w, 1),
        other.amount("start") if start else 0.0,
    )


def control_alternatives(job: Job, now: Proposal) -> tuple[Alternative, ...]:
    """Other ways to supply the control circuits.

    Args:
        job: The job; it is not changed.
        now: The proposal as it stands.
    """
    alternatives = []
    for kind in (ControlSupply.DIRECT, ControlSupply.TRANSFORMER, ControlSupply.DC):
        if kind is now.control.kind or (kind is ControlSupply.DIRECT and not job.supply.neutral):
            continue
        basis = Basis(job.supply, replace(job.practice, control_supply=kind), job.enclosure, job.overrides)
        other = size_control(job.loads, now.drawn, job.signals, basis)  # the loads are sized already
        alternatives.append(
            Alternative(
                kind.value,
                None,
                control=kind,
                space=round(other.space - now.control.space, 1),
                loss_w=round(other.loss_w - now.control.loss_w, 1),
            )
        )
    return tuple(alternatives)


def alternatives_of(job: Job, load: Load, now: Proposal) -> tuple[Alternative, ...]:
    """The alternatives of one load of a job.

    Args:
        job: The job; it is not changed.
        load: The load.
        now: The proposal as it stands.
    """
    basis, _ = basis_of(job.loads, job.supply, job.practice, job.enclosure, job.overrides)
    sized = now.of_load(load.id)
    return load_alternatives(load, sized, basis) if sized else ()


def take(job: Job, alternative: Alternative) -> Job:
    """Takes the other answer.

    Args:
        job: The job; it is not changed.
        alternative: What the builder takes instead.

    Returns:
        The changed job; the one that was handed in stays as it is.
    """
    if alternative.control is not None:
        return set_practice(job, control_supply=alternative.control)
    if alternative.load is not None and alternative.start is not None:
        return change_load(job, alternative.load, start=alternative.start)
    if alternative.load is not None and alternative.protection is not None:
        return change_load(job, alternative.load, protection=alternative.protection)
    return job
