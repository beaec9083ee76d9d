"""A circuit written by hand: its devices and rungs checked one by one, and added as a whole or not at all."""

from collections.abc import Container, Sequence
from dataclasses import replace

from riktig.core.catalogue import Mounting, kinds, parts_of
from riktig.core.errors import InputFault, RiktigError
from riktig.core.ids import circuit_of_node, is_circuit_id
from riktig.core.job import Circuit, CircuitId, DeviceId, FoundNames, Job, OwnDevice, OwnRung, Recipe, circuit_inputs
from riktig.core.schematic.circuit_edits import FIRST_FREE
from riktig.core.schematic.found_names import faults_in_names, with_found_names
from riktig.core.schematic.model.elements import Band, Circuits, Device, Rung
from riktig.core.schematic.model.notation import NotationError, path_text
from riktig.core.schematic.templates.expand import expand, whole_node
from riktig.core.schematic.templates.inserts import own_device, read_rung

__all__ = ["add_written", "as_written"]

_SIGNS = set(" \t:/|()<@^")
_BANDS = ("control", "power")


def add_written(
    job: Job, title: str, devices: Sequence[OwnDevice], rungs: Sequence[OwnRung], found: FoundNames = FoundNames()
) -> Job:
    """The job with one circuit more, made of the devices and rungs given.

    Args:
        job: The job; it is not changed.
        title: What the job or the picture is called.
        devices: The devices to add.
        rungs: The paths to add.
        found: Tags and numbers that stand on the panel already, where it was surveyed.

    Raises:
        RiktigError: something in it cannot be, with the place of every fault (``$.rungs[2].path``).
    """
    known = expand(circuit_inputs(job), job.enclosure.doors)
    number = max((int(c.id[1:]) for c in job.circuits if c.id[1:].isdecimal()), default=0) + 1
    circuit = Circuit(CircuitId(f"c{max(number, FIRST_FREE)}"), Recipe.FREE, title=title.strip())
    faults: list[InputFault] = []
    if not title.strip():
        faults.append(InputFault("$.title", "it has no title, so no sheet can name it."))
    written_devices = _own_devices(circuit.id, devices, faults)
    everything = {str(device.id): device for device in known.devices} | {
        str(device_id): device for device_id, device in written_devices.items()
    }
    roles: set[str] = set()
    circuits = {circuit.id, *(made for made, _ in known.titles)}
    for n, rung in enumerate(rungs):
        at = f"$.rungs[{n}]"
        if not rung.role or set(rung.role) & _SIGNS or rung.role in roles:
            faults.append(InputFault(f"{at}.role", f"“{rung.role}” is empty, has signs in it or is there twice."))
        roles.add(rung.role)
        faults += _strange_nodes(rung, at, circuits)
        if rung.band not in _BANDS:
            faults.append(InputFault(f"{at}.band", f"“{rung.band}” is no kind of sheet; it is control or power."))
        try:
            read_rung(circuit.id, rung, everything, lambda name: whole_node(name, circuit.id))
        except NotationError as error:
            faults.append(InputFault(f"{at}.path, character {error.at}", f"{error.message}."))
    if not rungs:
        faults.append(InputFault("$.rungs", "there is none."))
    faults += faults_in_names(devices, found)
    if faults:
        raise RiktigError(
            f"The circuit cannot be drawn: {len(faults)} {'place is' if len(faults) == 1 else 'places are'} wrong. "
            "Nothing was added.",
            hint="Mend what is listed and try again.",
            faults=faults,
        )
    is_found = found != FoundNames()
    whole = replace(circuit, devices=tuple(devices), rungs=tuple(rungs), found=is_found)
    added = replace(job, circuits=(*job.circuits, whole))
    return with_found_names(added, circuit.id, found)


def _strange_nodes(rung: OwnRung, at: str, circuits: Container[CircuitId]) -> list[InputFault]:
    """Nodes of circuits that are not in the job: such a name would join nothing, or the wrong one later."""
    faults = []
    for key, nodes in (("from", rung.start), ("to", rung.end)):
        for node in filter(None, nodes.split("/")):
            owner = circuit_of_node(node)
            if "." in node and is_circuit_id(owner) and owner not in circuits:
                text = f"“{node}” would be a node of circuit {owner}, which this job does not have."
                faults.append(InputFault(f"{at}.{key}", text))
    return faults


def _own_devices(cid: CircuitId, devices: Sequence[OwnDevice], faults: list[InputFault]) -> dict[DeviceId, Device]:
    circuit = Circuit(cid, Recipe.FREE)
    written_devices: dict[DeviceId, Device] = {}
    offered = {kind.id: kind for kind in kinds()}
    for n, added in enumerate(devices):
        at = f"$.devices[{n}]"
        if not added.role or set(added.role) & _SIGNS:
            faults.append(
                InputFault(f"{at}.role", f"“{added.role}” is no role: it is one word without signs, such as K.fan.")
            )
            continue
        made = own_device(circuit, added)
        if isinstance(made, str):
            what = "kind" if added.kind not in offered else "place"
            faults.append(InputFault(f"{at}.{what}", f"{made}."))
            continue
        if made.id in written_devices:
            faults.append(InputFault(f"{at}.role", f"“{added.role}” is there twice."))
        kind = offered[added.kind]
        if kind.mounting is not Mounting.FIELD and not parts_of(added.kind):
            faults.append(InputFault(f"{at}.kind", f"the catalogue has no part for a {kind.name}."))
        if (kind.mounting is Mounting.FIELD) != (added.zone == "field"):
            where = "outside the panel" if kind.mounting is Mounting.FIELD else "in the panel"
            faults.append(InputFault(f"{at}.place", f"a {kind.name} stands {where}."))
        written_devices[made.id] = made
    return written_devices


def as_written(circuits: Circuits, circuit: CircuitId) -> tuple[tuple[OwnDevice, ...], tuple[OwnRung, ...]]:
    """The devices and rungs of any circuit, whatever made it, as one would write them by hand.

    Args:
        circuits: All devices and rungs of the job.
        circuit: Which circuit.
    """
    devices = circuits.by_id

    def short(device: Device) -> str:
        return device.role

    written_devices = tuple(
        OwnDevice(short(d), d.kind_id, d.zone.value, d.purpose, d.legend, d.mark, d.colour)
        for d in circuits.devices
        if d.circuit == circuit
    )
    rungs = tuple(
        OwnRung(
            rung.id.removeprefix(f"{circuit}."),
            rung.title,
            _nodes(rung.start, circuit),
            path_text(rung.path, short, lambda did: devices[DeviceId(did)]),
            _nodes(rung.end, circuit),
            _band(rung),
        )
        for rung in circuits.rungs
        if rung.circuit == circuit
    )
    bonds = tuple(
        OwnRung(f"bond{n}", "PE", "PE", f"@{short(devices[pin.device])}:{pin.marking}", "", Band.POWER.value)
        for n, pin in enumerate(circuits.earths)
        if pin.device in devices and devices[pin.device].circuit == circuit
    )
    return written_devices, (*rungs, *bonds)


def _nodes(nodes: tuple[str, ...], circuit: CircuitId) -> str:
    return "/".join(node.removeprefix(f"{circuit}.") for node in nodes)


def _band(rung: Rung) -> str:
    return Band.POWER.value if rung.band in (Band.POWER, Band.INCOMING) else Band.CONTROL.value
