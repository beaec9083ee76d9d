"""What guards a way: a breaker, fuses, or for sockets a breaker that also watches for residual current."""

from riktig.core.job import Load, LoadKind, Protection

__all__ = ["way_breaker"]


def way_breaker(load: Load, *, north_american: bool) -> str:
    """The kind of breaker or fuse that a way is fed by.

    Source:
        Sockets: IEC 60364-4-41 411.3.3 (30 mA), NEC 210.8(B) (up to 150 V to ground), from memory.

    Args:
        load: What hangs on the way.
        north_american: Whether the North American rulebook counts.
    """
    if load.protection is Protection.FUSES and load.phases == 3:
        return "fuse_switch"
    sockets = load.kind is LoadKind.SOCKETS
    if sockets and north_american and load.phases == 1:
        return "way_gfci"
    if sockets and not north_american:
        return "way_rcd_three" if load.phases == 3 else "way_rcd"
    three = "panel_breaker" if north_american else "motor_breaker"
    return {3: three, 2: "breaker_two"}.get(load.phases, "way_breaker")
