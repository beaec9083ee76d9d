"""Which lines each load sits on."""

from riktig.core.job import Load, LoadId, Practice, Supply, WayOrder

__all__ = ["lines_of"]


def lines_of(loads: tuple[Load, ...], supply: Supply, practice: Practice) -> tuple[tuple[LoadId, tuple[int, ...]], ...]:
    """Which lines (0 to 2) each load sits on.

    Method:
        A line the customer gave counts. The others go in turn over the lines, or each, the largest
        first, to the line that carries least; ties to the first line.

    Args:
        loads: The loads of the job.
        supply: The supply of the job.
        practice: The practice of the job.
    """
    carried, count = [0.0, 0.0, 0.0], supply.system.lines
    placed: dict[LoadId, tuple[int, ...]] = {}

    def put(load: Load, line: int) -> None:
        on = (line,) if load.phases == 1 else tuple(dict.fromkeys((line, (line + 1) % count)))
        placed[load.id] = on
        for way in on:
            carried[way] += _amps(load, supply)

    single = [load for load in loads if load.phases < 3]
    for load in single:
        if load.phase:
            put(load, min(load.phase, count) - 1)
    free = [load for load in single if not load.phase]
    if practice.way_order is WayOrder.EVEN:
        for load in sorted(free, key=lambda load: (-_amps(load, supply), load.id)):
            put(load, min(_offered(load, supply), key=lambda n: (carried[n], n)))
    else:
        for turn, load in enumerate(free):
            offered = _offered(load, supply)
            put(load, offered[turn % len(offered)])
    return tuple((load.id, placed.get(load.id, tuple(range(count)))) for load in loads)


def _offered(load: Load, supply: Supply) -> tuple[int, ...]:
    return supply.way_lines if load.phases == 1 else tuple(range(supply.system.lines))


def _amps(load: Load, supply: Supply) -> float:
    """What a load roughly draws, A: good for spreading loads over lines, not for sizing."""
    volts = load.voltage_v or supply.voltage_of(load.phases)
    return load.nameplate_a or (load.output_kw or 0.0) * 1000 / volts
