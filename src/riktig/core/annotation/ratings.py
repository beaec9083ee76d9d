"""What a drawing says of each device: what it is rated for, what it is set to, what a load takes."""

from collections.abc import Mapping

from riktig.core.catalogue import Can, Part
from riktig.core.job import CircuitInputs, DeviceId, Load
from riktig.core.schematic import LOADS, Circuits, Device
from riktig.core.simulation import Rating
from riktig.core.sizing import ElectricalProposal, LoadSize, Sizing

__all__ = ["device_ratings"]

_BY_CURRENT = (
    Can.MAIN_SWITCH,
    Can.ISOLATES,
    Can.TAP_SWITCH,
    Can.DISTRIBUTES,
    Can.MAKES_DC,
    Can.ELECTRONIC_STARTER,
    Can.RESIDUAL,
)
"""What is named by its rated current, beside all that protects."""


def device_ratings(
    circuits: Circuits,
    sizing: Sizing,
    settings: Mapping[DeviceId, float],
    proposal: ElectricalProposal,
    voltages: Mapping[DeviceId, tuple[Rating, ...]],
    inputs: CircuitInputs,
) -> dict[DeviceId, tuple[str, ...]]:
    """The rating of every device that has one, in lines as a sheet shows them.

    Args:
        circuits: All devices and rungs of the job.
        sizing: The part of every device, with what the builder chose.
        settings: What each dial is set to, A.
        proposal: What Riktig proposes for the job.
        voltages: For which voltages each device is bought.
        inputs: What the circuits follow from: the loads of the Brief.
    """
    by_id = {load.id: load for load in inputs.loads}
    served = {circuit.id: by_id[circuit.load] for circuit in inputs.circuits if circuit.load in by_id}
    ratings: dict[DeviceId, tuple[str, ...]] = {}
    for device in circuits.devices:
        load, part = served.get(device.circuit), sizing.parts[device.id]
        size = sizing.load_of(device.circuit)
        if load and size and device.role in LOADS:
            lines = _of_load(load, size)
        elif device.kind.can(Can.TRANSFORMS):
            lines = _of_transformer(part, voltages.get(device.id, ()))
        elif _has_fuse_links(device) and load and (value := _guard(proposal, load)):
            lines = (value, f"{part.rated_a:g} A frame")
        else:
            lines = _of_part(device, part, load, settings.get(device.id, 0.0))
        if lines:
            ratings[device.id] = lines
    return ratings


def _of_load(load: Load, size: LoadSize) -> tuple[str, ...]:
    """Its power as the Brief states it, and its current."""
    current = f"{size.current.value:g} A"
    return (load.power_name, current) if load.power_name != current else (current,)


def _of_transformer(part: Part, voltages: tuple[Rating, ...]) -> tuple[str, ...]:
    from_to = " / ".join(f"{rating.volts:g}" for rating in voltages)
    return tuple(text for text in (f"{from_to} V" if from_to else "", f"{part.rated_va:g} VA") if text)


def _has_fuse_links(device: Device) -> bool:
    """Whether its own current is that of its frame, and links of another current go into it."""
    return any(unit.symbol == "fuse switch" for unit in device.kind.units)


def _guard(proposal: ElectricalProposal, load: Load) -> str:
    value = next((v.value("breaker") for v in proposal.loads if v.load == load.id), None)
    return value.text if value else ""


def _of_part(device: Device, part: Part, load: Load | None, setting: float) -> tuple[str, ...]:
    kind = device.kind
    if kind.can(Can.OVERLOAD) or kind.can(Can.SET_TO_MOTOR):
        reach = f"{part.min_a:g} to {part.max_a:g} A" if part.min_a else f"{part.rated_a:g} A"
        return (reach, f"set {setting:g} A") if setting else (reach,)
    if kind.can(Can.SWITCHES_LOAD):
        motor = load is None or load.is_motor
        amps, duty = (part.rated_a, "AC-3") if motor or not part.ac1_a else (part.ac1_a, "AC-1")
        return (f"{amps:g} A {duty}",)
    if not part.rated_a or not (kind.is_protective or any(kind.can(ability) for ability in _BY_CURRENT)):
        return ()
    return (f"{part.rated_a:g} A {part.characteristic}".strip(),)
