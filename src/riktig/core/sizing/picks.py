"""Parts that the builder chose himself in the place of those proposed."""

from dataclasses import replace

from riktig.core.catalogue import Part, every_part_of, kind, own_part
from riktig.core.job import DeviceId, OwnPart, Pick
from riktig.core.schematic import Circuits
from riktig.core.standards import Why

__all__ = ["with_picks"]


def with_picks(
    circuits: Circuits,
    own_parts: tuple[OwnPart, ...],
    picks: tuple[Pick, ...],
    parts: dict[DeviceId, Part],
    whys: dict[DeviceId, tuple[Why, ...]],
) -> list[tuple[DeviceId, str]]:
    """Puts in the parts the builder has chosen himself; says which of them cannot be had.

    Args:
        circuits: All devices and rungs of the job.
        own_parts: Parts of one's own.
        picks: Parts that the builder chose for devices.
        parts: The part of every device: changed.
        whys: The reasons for every part: changed.

    Returns:
        Devices whose part cannot be had or is smaller than what was proposed, with why.
    """
    own = {own.ref: own for own in own_parts}
    devices = circuits.by_id
    missing = []
    for pick in picks:
        device = devices.get(pick.device)
        if device is None:
            continue
        offered = [part for part in every_part_of(device.kind_id) if part.ref == pick.ref]
        own_choice = own.get(pick.ref)
        if own_choice and kind(own_choice.kind).shares_parts_with(device.kind):
            offered = [replace(own_part(own_choice), kind=device.kind)]
        if not offered:
            missing.append((device.id, f"{pick.ref} was chosen for it and is not in the catalogue"))
            continue
        before, parts[device.id] = parts[device.id], offered[0]
        why = Why(
            f"Why {pick.ref}",
            f"Chosen by the builder; Riktig proposed {before.ref}.",
            (f"rated {offered[0].rating:g}, proposed {before.rating:g}",),
            "the builder's own choice",
        )
        whys[device.id] = (why, *whys[device.id])
        if offered[0].rating < before.rating:
            missing.append((device.id, f"{before.rating:g} is needed, {pick.ref} is rated {offered[0].rating:g}"))
    return missing
