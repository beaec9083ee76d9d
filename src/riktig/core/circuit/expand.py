"""From the job's circuits to all devices and rungs, with the builder's changes worked in."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from riktig.core.circuit.model import (
    Band,
    Branch,
    Circuits,
    Clash,
    Device,
    Element,
    Landing,
    Parallel,
    Rung,
    Series,
    Zone,
    elements_of,
)
from riktig.core.circuit.recipes import Yield, device_id, element, incomer
from riktig.core.circuit.starters import direct_on_line, field_pair, reversing, star_delta
from riktig.core.job import (
    Act,
    Change,
    Circuit,
    CircuitId,
    Distribution,
    EarthScheme,
    ElementId,
    Insertable,
    Load,
    PinId,
    Practice,
    Recipe,
    Rulebook,
    Signal,
    Supply,
    Wetting,
)

__all__ = ["expand"]


def expand(
    circuits: tuple[Circuit, ...],
    loads: tuple[Load, ...],
    supply: Supply,
    practice: Practice,
    signals: tuple[Signal, ...] = (),
) -> Circuits:
    """Devices and rungs of the whole job. A change that finds no hold becomes a ``Clash``."""
    devices: list[Device] = []
    rungs: list[Rung] = []
    earths: list[PinId] = []
    clashes: list[Clash] = []
    undrawn: list[CircuitId] = []
    by_id = {load.id: load for load in loads}
    beside = practice.earths is not EarthScheme.BAR
    for circuit in circuits:
        if circuit.recipe is Recipe.INCOMER:
            motors = sum(c.load in by_id and _drawable(c, practice) for c in circuits)
            blocks = practice.distribution is Distribution.BLOCKS
            made = incomer(circuit, supply, motors if beside else 0, 2 * motors if blocks else 0)
        elif circuit.load in by_id and not _drawable(circuit, practice):
            undrawn.append(circuit.id)
            continue
        elif circuit.load in by_id:
            made = _made(circuit, by_id[circuit.load], practice, signals)
        else:
            clashes.append(Clash(circuit.id, "its load is no longer in the Brief"))
            continue
        new_devices, new_rungs, new_earths = made
        marked = max((int(d.mark) for d in new_devices if d.mark.isdecimal()), default=0)
        for change in circuit.changes:
            done = _changed(circuit, change, new_devices, new_rungs, marked)
            if done is None:
                clashes.append(Clash(circuit.id, _said(change)))
            else:
                new_devices, new_rungs = done
        devices += _still_used(new_devices, new_rungs)
        rungs += new_rungs
        earths += new_earths
    return Circuits(tuple(devices), tuple(rungs), tuple(earths), tuple(clashes), tuple(undrawn))


def _made(circuit: Circuit, load: Load, practice: Practice, signals: tuple[Signal, ...]) -> Yield:
    """What a load's recipe yields."""
    if circuit.recipe is Recipe.REVERSING:
        ends = [s for s in signals if s.load == load.id and s.wetting is Wetting.CONTROL]
        return reversing(circuit, load, practice, ends[:2])
    if circuit.recipe is Recipe.STAR_DELTA:
        return star_delta(circuit, load, practice)
    return direct_on_line(circuit, load, practice)


def _drawable(circuit: Circuit, practice: Practice) -> bool:
    """Whether there is a recipe for a load's circuit yet: control behind a transformer has none."""
    return circuit.recipe is not Recipe.PLANNED and practice.rulebook is Rulebook.IEC


def _said(change: Change) -> str:
    what = f"{change.what.value} “{change.text}”" if change.what else "it"
    return f"{what} was {change.act.value} {change.element}, which is no longer there"


def _changed(
    circuit: Circuit, change: Change, devices: list[Device], rungs: list[Rung], marked: int
) -> tuple[list[Device], list[Rung]] | None:
    made: list[Device] = []
    act: Callable[[Element], Branch | None] = _gone
    if change.what:
        made, part = _inserted(circuit, change, change.what, marked)
        act = partial(_joined, part=part, parallel=change.act is Act.ACROSS)
    for index, rung in enumerate(rungs):
        if rung.band is Band.CONTROL and any(e.id == change.element for e in elements_of(rung.path)):
            path = _swap(rung.path, change.element, act) or Series(())
            new = replace(rung, path=path if isinstance(path, Series) else Series((path,)))
            return [*devices, *made], [*rungs[:index], new, *rungs[index + 1 :]]
    return None


def _gone(at: Element) -> None:
    return None


def _joined(at: Element, part: Branch, parallel: bool) -> Branch:
    return Parallel((at, part)) if parallel else Series((at, part))


def _inserted(circuit: Circuit, change: Change, what: Insertable, marked: int) -> tuple[list[Device], Branch]:
    cid, role = circuit.id, f"x{change.number}"
    did = device_id(cid, role)
    if what is Insertable.FIELD_CONTACT:
        return field_pair(cid, role, change.text, marked + 2 * change.number - 1)
    kind, unit = {Insertable.STOP_BUTTON: ("stop_button", "1-2"), Insertable.START_BUTTON: ("start_button", "3-4")}[
        what
    ]
    button = Device(did, cid, kind, Zone.DOOR, change.text, legend=change.text)
    return [button], element(did, unit)


def _swap(branch: Branch, target: ElementId, act: Callable[[Element], Branch | None]) -> Branch | None:
    """The tree with ``act`` done to the element ``target``; None when nothing is left."""
    match branch:
        case Element(id=eid):
            return act(branch) if eid == target else branch
        case Landing():
            return branch
        case Series(parts) | Parallel(parts):
            new = [one for part in parts if (one := _swap(part, target, act)) is not None]
            if not new:
                return None
            if isinstance(branch, Parallel):
                return Parallel(tuple(new)) if len(new) > 1 else new[0]
            flat: list[Branch] = []
            for one in new:
                flat += one.parts if isinstance(one, Series) else (one,)
            return Series(tuple(flat))


def _still_used(devices: list[Device], rungs: list[Rung]) -> list[Device]:
    """Without the door and field devices whose every element was taken out."""
    used = {pole.device for rung in rungs for e in elements_of(rung.path) for pole in e.poles}
    return [
        d for d in devices if d.id in used or d.kind_id not in ("stop_button", "start_button", "lamp", "field_contact")
    ]
