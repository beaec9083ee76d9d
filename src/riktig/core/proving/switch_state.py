"""How the switches of the dead panel stand while two points are read, and which contacts are closed then."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.ids import DeviceId
from riktig.core.schematic import Circuits, Device, Zone
from riktig.core.simulation import ContactStage, OperatorState, is_closed

__all__ = ["NOT_CONNECTED", "REST", "SwitchState", "by_hand", "change_words", "closed_in", "state_of", "state_words"]


@dataclass(frozen=True, slots=True)
class SwitchState:
    """What stands otherwise than at rest. At rest everything is switched on, nothing is pressed, all is turned to off.

    ``off`` are breakers, fuses taken out and isolators; ``moved`` buttons pressed and armatures pushed by hand;
    ``turned`` selectors with their position.
    """

    off: frozenset[DeviceId] = frozenset()
    moved: frozenset[DeviceId] = frozenset()
    turned: tuple[tuple[DeviceId, str], ...] = ()

    @property
    def text(self) -> str:
        """By ids, in order: what a reading was true of."""
        parts = [
            f"off {' '.join(sorted(self.off))}" if self.off else "on",
            f"moved {' '.join(sorted(self.moved))}" if self.moved else "",
            " ".join(f"{device} to {position}" for device, position in sorted(self.turned)),
        ]
        return "; ".join(part for part in parts if part)

    def changes_from(self, before: "SwitchState") -> frozenset[DeviceId]:
        """Devices that stand otherwise than before: what hands must do between two cards."""
        turned = {device for device, _ in set(self.turned) ^ set(before.turned)}
        return (self.off ^ before.off) | (self.moved ^ before.moved) | turned


NOT_CONNECTED = "Supply and field cables not connected."
FEW = 4
"""So many tags are said one by one (chosen by us: the picture has them all)."""
REST = SwitchState()


def by_hand(device: Device) -> bool:
    """Whether a hand can move its contacts on the dead panel: a button, a door switch, an armature, a test lever."""
    kind = device.kind
    if device.zone is Zone.FIELD or kind.can(Can.TURNED) or kind.can(Can.TIMED) or kind.can(Can.ELECTRONIC_STARTER):
        return False
    if kind.can(Can.VARIES_SPEED) or kind.can(Can.GIVES_OUTPUTS) or kind.can(Can.WATCHES_PHASES):
        return False
    return any(unit.behaviour in (Behaviour.NO, Behaviour.NC) for unit in kind.units)


def closed_in(device: Device, unit: Unit, state: SwitchState) -> bool:
    """Whether a unit leads on while the switches stand so.

    Args:
        device: The device.
        unit: One of its contacts or poles.
        state: How the switches stand.
    """
    moved = device.id in state.moved
    operators = OperatorState(
        pressed={device.id} if moved else set(),
        position=dict(state.turned),
        opened={device.id} if device.id in state.off else set(),
        tripped={device.id} if moved and device.kind.can(Can.OVERLOAD) else set(),
    )
    stage = ContactStage.IN if moved and device.kind.has_coil else ContactStage.OUT
    return is_closed(operators, device, unit, stage, powered=False)


def state_of(circuits: Circuits, *, on: bool) -> SwitchState:
    """At rest, with everything that can be switched off on or off.

    Args:
        circuits: All devices and rungs of the job.
        on: Whether breakers and isolators are on.
    """
    return REST if on else SwitchState(frozenset(switched_off(circuits)))


def switched_off(circuits: Circuits) -> Sequence[DeviceId]:
    """Everything in the panel that can be switched off by hand or taken out: breakers, fuses, isolators."""
    return [
        device.id
        for device in circuits.devices
        if device.zone is not Zone.FIELD and (device.kind.is_protective or device.kind.can(Can.ISOLATES))
    ]


def state_words(state: SwitchState, circuits: Circuits, tags: Mapping[DeviceId, str]) -> str:
    """A switch state in words, for the card.

    Args:
        state: How the switches stand.
        circuits: All devices and rungs of the job.
        tags: Their tags.
    """
    switches = switched_off(circuits)
    off = [tags[device] for device in switches if device in state.off]
    on = [tags[device] for device in switches if device not in state.off]
    parts: list[str] = []
    if not off:
        parts.append(_all(on, "on") if on else "nothing to switch")
    elif not on:
        parts.append(_all(off, "off"))
    elif len(on) <= len(off):
        parts.append(f"everything off but {', '.join(on)}")
    else:
        parts.append(f"everything on but {', '.join(off)}")
    if state.moved:
        by_id = circuits.by_id
        parts += [_held_words(by_id[device], tags[device]) for device in sorted(state.moved)]
    else:
        parts.append("nothing pressed")
    parts += [f"{tags[device]} turned to {position}" for device, position in sorted(state.turned)]
    return f"{'; '.join(parts)}. {NOT_CONNECTED}"


def change_words(state: SwitchState, before: SwitchState, tags: Mapping[DeviceId, str]) -> str:
    """What hands must do before a card: “Switch first: F3, F4.” Many are said by their number; empty for nothing.

    Args:
        state: How the switches must stand.
        before: How they stand.
        tags: The tags of devices.
    """
    on, off = before.off - state.off, state.off - before.off
    others = state.changes_from(before) - on - off
    parts = [_count([tags[device] for device in some], how) for some, how in ((off, "off"), (on, "on")) if some]
    parts += sorted(tags[device] for device in others)
    return f"Switch first: {', '.join(parts)}." if parts else ""


def _count(tags: list[str], how: str) -> str:
    few = sorted(tags)
    return (
        f"{' '.join(few)} {how}" if len(few) <= FEW else f"{len(few)} breakers and switches {how}, lit in the picture"
    )


def _all(tags: Sequence[str], how: str) -> str:
    """All switches one way: by their tags where they are few."""
    return f"{', '.join(tags)} {how}" if len(tags) <= FEW else f"all {len(tags)} breakers, fuses and switches {how}"


def _held_words(device: Device, tag: str) -> str:
    if device.kind.can(Can.OVERLOAD):
        return f"{tag} tripped by its test lever"
    if device.kind.has_coil:
        return f"armature of {tag} pushed in"
    return f"{tag} pressed" if device.zone is Zone.DOOR else f"{tag} moved by hand"
