"""What is set and put in before power comes on: dials of overloads, timers, fuse-links; as found and as left."""

from collections.abc import Iterator, Mapping

from riktig.core.catalogue import Behaviour
from riktig.core.ids import DeviceId
from riktig.core.proving.live_step import LiveStep
from riktig.core.proving.planner import PanelFacts
from riktig.core.proving.tests import ProvingStage
from riktig.core.schematic import Zone

__all__ = ["plan_settings"]

DIAL_SHARE = 0.05
"""A dial is read to so much (chosen by us: half a division)."""


def plan_settings(
    facts: PanelFacts, dials: Mapping[DeviceId, float], motors: Mapping[DeviceId, float]
) -> tuple[LiveStep, ...]:
    """Every dial, parameter of a drive, timer and fuse-link with what it must be at.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        dials: What the dial of each overload and motor protector is set to, A.
        motors: The motor current that is entered in each drive and soft starter, A.
    """
    return (*_dials(facts, dials), *_parameters(facts, motors), *_timers(facts), *_fuses(facts), *_torque_marks(facts))


def _dials(facts: PanelFacts, dials: Mapping[DeviceId, float]) -> Iterator[LiveStep]:
    for device, amps in dials.items():
        tag = facts.names.tag[device]
        words = f"{amps:.3g} A"
        yield LiveStep(f"setting:{device}", ProvingStage.SETTINGS, tag, f"Set the dial of {tag} to {words}", (words,),
                       amps * (1 - DIAL_SHARE), amps * (1 + DIAL_SHARE), "A", trimmed=True)  # fmt: skip


def _parameters(facts: PanelFacts, motors: Mapping[DeviceId, float]) -> Iterator[LiveStep]:
    """Of drives and soft starters the motor current, and the time of their ramps, which the machine decides."""
    for device, amps in motors.items():
        tag = facts.names.tag[device]
        words = f"{amps:.3g} A, as on the motor's plate"
        yield LiveStep(f"setting:{device}", ProvingStage.SETTINGS, tag, f"Enter the motor current in {tag}", (words,),
                       amps * (1 - DIAL_SHARE), amps * (1 + DIAL_SHARE), "A", trimmed=True)  # fmt: skip
        yield LiveStep(f"ramp:{device}", ProvingStage.SETTINGS, tag, f"Enter the ramp of {tag}",
                       ("what the machine asks for, up and down",), unit="s", trimmed=True)  # fmt: skip


def _timers(facts: PanelFacts) -> Iterator[LiveStep]:
    for device in facts.circuits.devices:
        timer = device.kind.timer
        if timer is not None and device.zone is not Zone.FIELD:
            tag, words = facts.names.tag[device.id], f"{timer.delay_s:g} s, or what the machine asks for"
            yield LiveStep(f"setting:{device.id}", ProvingStage.SETTINGS, tag, f"Set the time of {tag}", (words,),
                           unit="s", trimmed=True)  # fmt: skip


def _fuses(facts: PanelFacts) -> Iterator[LiveStep]:
    """The rating that is printed on every fuse-link; those of breakers are seen when parts are received."""
    for device in facts.circuits.devices:
        part = facts.sizing.parts.get(device.id)
        is_fuse = any(u.behaviour is Behaviour.POLE and u.symbol.startswith("fuse") for u in device.kind.units)
        if not is_fuse or part is None or not part.rated_a or device.zone is Zone.FIELD:
            continue
        tag, words = facts.names.tag[device.id], f"{part.rated_a:g} A {part.characteristic}".strip()
        yield LiveStep(f"setting:{device.id}", ProvingStage.SETTINGS, tag, f"Read the fuse-link in {tag}", (words,),
                       part.rated_a, part.rated_a, "A")  # fmt: skip


def _torque_marks(facts: PanelFacts) -> Iterator[LiveStep]:
    """That every tightened screw has its mark: a lead that was only laid in is found before it carries current."""
    clamps = len({end.pin for wire in facts.wiring.wires for end in (wire.start, wire.end)})
    if clamps:
        yield LiveStep("torque marks", ProvingStage.SETTINGS, "Torque marks", "Look over the torque marks",
                       (f"a mark across every screw of {clamps} clamps, none moved",))  # fmt: skip
