"""Edits of the circuits: each gives the changed job with tags and numbers kept; the one handed in stays as it is."""

from dataclasses import dataclass, replace

from riktig.core.catalogue import Behaviour, Can, with_aux_block
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Memory
from riktig.core.job import (
    POTENTIALS,
    Act,
    Change,
    Circuit,
    CircuitId,
    ElementId,
    Insertable,
    Job,
    OwnDevice,
    OwnRung,
    Param,
    circuit_inputs,
)
from riktig.core.schematic.model.elements import Band, Circuits, elements_of
from riktig.core.schematic.netlist.nets import find_nets
from riktig.core.schematic.numbering.numbers import names_of
from riktig.core.schematic.templates.circuit_templates import circuit_template_of
from riktig.core.schematic.templates.expand import expand
from riktig.core.schematic.templates.implied_circuits import all_circuits

__all__ = [
    "add_device",
    "add_rung",
    "free_contacts",
    "insert_contact",
    "insert_element",
    "move_element",
    "name_element",
    "named_nodes",
    "reapply_change",
    "remove_element",
    "rewire",
    "set_param",
    "take_back",
    "with_names_recorded",
]


def with_names_recorded(job: Job, *, memory: Memory | None = None) -> Job:
    """The job with every tag and number of now on record, so that later edits keep them.

    Args:
        job: The job; it is not changed.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    circuits = expanded(job, memory)
    names = names_of(job, circuits, find_nets(circuits, memory), memory)
    if (names.given_tags, names.given_numbers, names.last_number) == (job.tags, job.numbers, job.last_number):
        return job
    return replace(job, tags=names.given_tags, numbers=names.given_numbers, last_number=names.last_number)


@dataclass(frozen=True, slots=True)
class Insertion:
    """What is put into a control path, and where."""

    what: Insertable
    text: str = ""
    """What it is for; on the door also its legend."""
    act: Act = Act.AFTER
    to: str = ""
    """With a contact of a device that is there: the device and its unit, “c1.K:43-44”."""


def insert_element(job: Job, at: ElementId, insertion: Insertion, *, memory: Memory | None = None) -> Job:
    """Puts something after, ahead of, across or in the place of the element ``at`` of a control path.

    Args:
        job: The job.
        at: The element it is done to.
        insertion: What is put in, and where.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: there is no such element in a control path, or the contact is not free.
    """
    circuit, what, to = _circuit_of(job, at, memory), insertion.what, insertion.to
    if what is Insertable.CONTACT:
        if to not in {choice for choice, _ in free_contacts(job, memory=memory)}:
            raise RiktigError(
                f"{to or 'No contact'} is not a free contact, so nothing was put in.",
                hint="Choose one of the spare contacts listed, or one of an auxiliary block.",
            )
    else:
        to = ""
    return _with_change(job, circuit, Change(insertion.act, at, _next_number(circuit), what, insertion.text, to))


def insert_contact(
    job: Job, at: ElementId, what: Insertable, text: str, *, parallel: bool = False, memory: Memory | None = None
) -> Job:
    """Puts something in after the element ``at`` of a control path, or across it.

    Args:
        job: The job; it is not changed.
        at: The element it is put beside.
        what: What is put in.
        text: The text.
        parallel: Whether it goes across and not behind.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: there is no such element in a control path.
    """
    return insert_element(job, at, Insertion(what, text, Act.ACROSS if parallel else Act.AFTER), memory=memory)


def free_contacts(job: Job, *, memory: Memory | None = None) -> tuple[tuple[str, str], ...]:
    """Contacts of relays and contactors that are in no path yet: “c1.K:43-44” and how it is called.

    Those of an auxiliary block are listed for devices that can carry one and have none.

    Args:
        job: The job; it is not changed.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    circuits = expanded(job, memory)
    names = names_of(job, circuits, find_nets(circuits, memory), memory)
    used = {(p.device, p.unit) for rung in circuits.rungs for element in elements_of(rung.path) for p in element.poles}
    named: list[tuple[str, str]] = []
    for device in circuits.devices:
        if not device.kind.has_coil and not device.kind.can(Can.OFFERS_CONTACTS):
            continue
        carries = with_aux_block(device.kind) or device.kind
        for unit in carries.units:
            free = (device.id, unit.name) not in used and unit.behaviour in (Behaviour.NO, Behaviour.NC)
            if free and unit.symbol != "contactor":
                block = "" if unit in device.kind.units else ", with an auxiliary block"
                words = "closing" if unit.behaviour is Behaviour.NO else "opening"
                tag = names.tag[device.id]
                named.append((f"{device.id}:{unit.name}", f"{tag} {unit.name}, {words}{block}"))
    return tuple(named)


def remove_element(job: Job, element: ElementId, *, memory: Memory | None = None) -> Job:
    """Takes an element out of a control path.

    Args:
        job: The job; it is not changed.
        element: Which element of a path.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: there is no such element in a control path.
    """
    return _with_change(job, _circuit_of(job, element, memory), Change(Act.OUT, element))


def move_element(job: Job, element: ElementId, after: ElementId, *, memory: Memory | None = None) -> Job:
    """Moves an element to after another of the same circuit.

    Args:
        job: The job; it is not changed.
        element: Which element of a path.
        after: The element it goes behind.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: one of the two is in no control path, or they belong to different circuits.
    """
    circuit = _circuit_of(job, element, memory)
    if element == after or _circuit_of(job, after, memory).id != circuit.id:
        raise RiktigError(
            "An element can be moved within its own circuit only, so nothing was changed.",
            hint="Put a contact of the device into the other circuit instead.",
        )
    return _with_change(job, circuit, Change(Act.MOVED, element, to=str(after)))


def rewire(job: Job, element: ElementId, node: str, *, start: bool, memory: Memory | None = None) -> Job:
    """Wires the start or the end of an element's rung to another named potential.

    Args:
        job: The job; it is not changed.
        element: Which element of a path.
        node: The node it is connected to.
        start: Whether it is the beginning of the path.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: the element is in no control path, or no node has that name.
    """
    if node not in named_nodes(job, memory=memory):
        raise RiktigError(
            f"There is no potential called “{node}”, so the rung stays where it is.", hint="Choose one of those listed."
        )
    act = Act.FROM if start else Act.TO
    return _with_change(job, _circuit_of(job, element, memory), Change(act, element, to=node))


def named_nodes(job: Job, *, memory: Memory | None = None) -> dict[str, str]:
    """The named potentials that rungs may be wired to: the name, and how it is called on the sheets.

    Args:
        job: The job; it is not changed.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    circuits = expanded(job, memory)
    nets = find_nets(circuits, memory)
    names = names_of(job, circuits, nets, memory)
    titles = {str(cid): title for cid, title in circuits.titles}
    named: dict[str, str] = {}
    for net in nets.nets:
        for node in net.nodes:
            owner = titles.get(node.split(".")[0], "")
            words = node.split(".", 1)[1] if owner else node
            text = f"{owner}, {words}" if owner else POTENTIALS.get(node, node)
            named[node] = f"{names.number.get(net.id, '')} · {text}".strip(" ·")
    return named


def name_element(job: Job, element: ElementId, text: str, *, memory: Memory | None = None) -> Job:
    """Says anew what the device of an element is for; on the door that is its legend too.

    Args:
        job: The job; it is not changed.
        element: Which element of a path.
        text: The text.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: the element is in no control path, or nothing is said.
    """
    if not text.strip():
        raise RiktigError("A device without a purpose cannot be labelled.", hint="Say what it is for.")
    return _with_change(job, _circuit_of(job, element, memory), Change(Act.NAMED, element, text=text.strip()))


def set_param(job: Job, circuit: CircuitId, name: str, value: str) -> Job:
    """Gives a parameter of a circuit's recipe another value; what was changed in the circuit stays.

    Args:
        job: The job; it is not changed.
        circuit: Which circuit.
        name: What it is called.
        value: The choice.
    """
    entered = _entered(job, circuit)
    default = next((p.default for p in circuit_template_of(entered.recipe).params if p.name == name), None)
    rest = tuple(param for param in entered.params if param.name != name)
    params = rest if value == default else (*rest, Param(name, value))
    return _replaced(job, replace(entered, params=params))


def add_device(job: Job, circuit: CircuitId, device: OwnDevice, *, memory: Memory | None = None) -> Job:
    """Adds a device of the builder's own to a circuit.

    Args:
        job: The job; it is not changed.
        circuit: Which circuit.
        device: The device to add.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: its role is taken, or its kind or place is unknown.
    """
    entered = _entered(job, circuit)
    taken = {d.id for d in expanded(job, memory).devices}
    if f"{circuit}.{device.role}" in taken:
        raise RiktigError(f"{device.role} is there already.", hint="Choose another name for the device.")
    after = _replaced(job, replace(entered, devices=(*entered.devices, device)))
    _refuse_new_clashes(job, after, memory)
    return after


def add_rung(job: Job, circuit: CircuitId, rung: OwnRung, *, memory: Memory | None = None) -> Job:
    """Adds a rung of the builder's own to a circuit.

    Args:
        job: The job; it is not changed.
        circuit: Which circuit.
        rung: The path to add.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: its path cannot be read.
    """
    entered = _entered(job, circuit)
    after = _replaced(job, replace(entered, rungs=(*entered.rungs, rung)))
    _refuse_new_clashes(job, after, memory)
    return after


def reapply_change(job: Job, circuit: CircuitId, change: Change, element: ElementId) -> Job:
    """Makes a change that lost its hold to another element instead.

    Args:
        job: The job; it is not changed.
        circuit: Which circuit.
        change: Which change of the builder's.
        element: Which element of a path.
    """
    entered = _entered(job, circuit)
    changes = tuple(replace(earlier, element=element) if earlier == change else earlier for earlier in entered.changes)
    return _replaced(job, replace(entered, changes=changes))


def take_back(job: Job, circuit: CircuitId, change: Change) -> Job:
    """Drops one change of a circuit, such as one that clashes.

    Args:
        job: The job; it is not changed.
        circuit: Which circuit.
        change: Which change of the builder's.
    """
    entered = _entered(job, circuit)
    return _replaced(job, replace(entered, changes=tuple(earlier for earlier in entered.changes if earlier != change)))


def expanded(job: Job, memory: Memory | None) -> Circuits:
    """The devices and rungs of a job."""
    return expand(circuit_inputs(job), job.enclosure.doors, memory)


def _refuse_new_clashes(before: Job, after: Job, memory: Memory | None) -> None:
    known = {clash.text for clash in expanded(before, memory).clashes}
    new = [clash.text for clash in expanded(after, memory).clashes if clash.text not in known]
    if new:
        raise RiktigError(f"It cannot be drawn: {new[0]}.", hint="Nothing was changed; mend it and try again.")


def _entered(job: Job, circuit: CircuitId) -> Circuit:
    """A circuit of the job; one that the Brief implies as it would enter the document."""
    whole = all_circuits(circuit_inputs(job))
    known = next((c for c in (*job.circuits, *whole) if c.id == circuit), None)
    if known is None:
        raise RiktigError(f"There is no circuit {circuit}.", hint="Choose one that is drawn.")
    return known


def _replaced(job: Job, circuit: Circuit) -> Job:
    if all(c.id != circuit.id for c in job.circuits):
        return replace(job, circuits=(*job.circuits, circuit))
    return replace(job, circuits=tuple(circuit if c.id == circuit.id else c for c in job.circuits))


def _next_number(circuit: Circuit) -> int:
    return max((change.number for change in circuit.changes), default=0) + 1


def _circuit_of(job: Job, element: ElementId, memory: Memory | None) -> Circuit:
    for rung in expanded(job, memory).rungs:
        if rung.band is Band.CONTROL and any(e.id == element for e in elements_of(rung.path)):
            return _entered(job, rung.circuit)
    raise RiktigError(
        f"{element} is not in a control path, so nothing was changed.",
        hint="Choose a contact, a coil or a lamp on a control sheet.",
    )


def _with_change(job: Job, circuit: Circuit, change: Change) -> Job:
    return _replaced(job, replace(circuit, changes=(*circuit.changes, change)))
