"""The remedies that Riktig carries out itself: each a pure edit."""

from collections.abc import Callable
from dataclasses import replace

from riktig.core.catalogue import boxes
from riktig.core.door import door_for_me
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Access,
    CircuitId,
    Colours,
    ControlSupply,
    Coordination,
    EndStyle,
    Job,
    MarkedWires,
    MarkerText,
    ShaftFitting,
    TransformerVoltage,
    WayOrder,
    change_load,
    override,
    set_box,
    set_enclosure,
    set_practice,
    set_supply,
)
from riktig.core.plate import plan_for_me
from riktig.core.rules.model import QuickFix
from riktig.core.schematic import take_back, with_names_recorded
from riktig.core.sizing import INSIDE_AIR, PROPOSAL
from riktig.core.wiring import DUCT_WIDTHS

__all__ = ["apply_mend", "larger_enclosure", "proposed_box"]


def larger_enclosure(job: Job) -> Job:
    """The next standard size in which the plate grows both ways."""
    now = job.enclosure
    for box in boxes():
        if box.width >= now.width and box.height >= now.height and box.width * box.height > now.width * now.height:
            return set_box(job, box.width, box.height, box.depth)
    raise RiktigError(
        f"There is no standard enclosure larger than {now.size_name}.",
        hint="Split the panel, or give a size of your own in the Brief.",
    )


def _wider_duct(job: Job) -> Job:
    wider = [width for width in DUCT_WIDTHS if width > job.practice.duct_width]
    if not wider:
        raise RiktigError("There is no wider duct.", hint="Route wires another way.")
    return set_practice(job, duct_width=wider[0])


def proposed_box(job: Job) -> Job:
    """The smallest standard box that the proposal finds large and cool enough."""
    box = Evaluation(job).get(PROPOSAL).heat.box
    if box is None:
        raise RiktigError(
            "No standard enclosure is large enough.", hint="Split the panel, or give a size of your own in the Brief."
        )
    return set_box(job, box.width, box.height, box.depth)


def box_that_stays_cool(job: Job) -> Job:
    """The smallest standard box that is large enough for what it has and stays cool without a fan."""
    box = Evaluation(job).get(INSIDE_AIR).box
    if box is None:
        raise RiktigError(
            "No standard enclosure stays cool enough.", hint="Ventilate or cool it, or take the warmest parts out."
        )
    return set_box(job, box.width, box.height, box.depth)


def _key_switch(job: Job, circuit: str) -> Job:
    """The selector of a circuit becomes one for the key holder.

    Raises:
        RiktigError: the circuit was drawn by hand, so that no load says who may move it.
    """
    load = next((own_circuit.load for own_circuit in job.circuits if own_circuit.id == circuit), None)
    if load is None:
        raise RiktigError("This selector was drawn by hand.", hint="Replace it by a key switch in Circuits.")
    return with_names_recorded(change_load(job, load, access=Access.KEY))


_ACTIONS: dict[str, Callable[[Job], Job]] = {
    "proposed box": proposed_box,
    "cool box": box_that_stays_cool,
    "even ways": lambda job: set_practice(job, way_order=WayOrder.EVEN),
    "no other source": lambda job: replace(job, sources_asked=True),
    "neutral": lambda job: set_supply(job, neutral=True),
    "colours": lambda job: set_practice(job, colours=Colours.RULEBOOK),
    "short markers": lambda job: set_practice(job, marker=MarkerText.NUMBER),
    "mark all": lambda job: set_practice(job, marked=MarkedWires.ALL),
    "plan": plan_for_me,
    "larger enclosure": larger_enclosure,
    "wider duct": _wider_duct,
    "plan door": door_for_me,
    "control transformer": lambda job: with_names_recorded(
        set_practice(job, control_supply=ControlSupply.TRANSFORMER, transformer_voltage=TransformerVoltage.RULEBOOK)
    ),
    "flexible": lambda job: set_practice(job, ends=EndStyle.FERRULES),
    "type 1": lambda job: set_practice(job, coordination=Coordination.TYPE_1),
    "shaft on site": lambda job: set_practice(job, shaft=ShaftFitting.SITE),
}


def feeder_protected_at(job: Job, amps: str) -> Job:
    """The protection upstream as a clause allows it.

    Raises:
        RiktigError: that is no current.
    """
    try:
        return set_supply(job, upstream_a=float(amps))
    except ValueError as error:
        raise RiktigError(f"“{amps}” is no current of a feeder, so nothing was changed.") from error


def own_neutrals(job: Job, head: str) -> Job:
    """Every load that shares the neutral of another gets one of its own.

    Args:
        job: The job; it is not changed.
        head: The id of the load whose neutral the others share.
    """
    for load in job.loads:
        if load.neutral_of == head:
            job = change_load(job, load.id, neutral_of=None)
    return with_names_recorded(job)


def apply_mend(job: Job, quick_fix: QuickFix) -> Job:
    """Carries a remedy out.

    Args:
        job: The job; it is not changed.
        quick_fix: The remedy.

    Returns:
        The changed job; the one that was handed in stays as it is.

    Raises:
        RiktigError: it cannot be carried out on this job.
    """
    if quick_fix.action == "own value away":
        return override(job, quick_fix.argument, None)
    if quick_fix.action == "key switch":
        return _key_switch(job, quick_fix.argument)
    if quick_fix.action == "feeder":
        return feeder_protected_at(job, quick_fix.argument)
    if quick_fix.action == "hung at":
        return set_enclosure(job, above_floor=float(quick_fix.argument))
    if quick_fix.action == "own neutrals":
        return own_neutrals(job, quick_fix.argument)
    if quick_fix.action == "change back":
        circuit, _, number = quick_fix.argument.rpartition("/")
        changes = next((c.changes for c in job.circuits if c.id == circuit), ())
        if not number.isdecimal() or int(number) >= len(changes):
            raise RiktigError("The change that this remedy takes back is not there, so nothing was changed.")
        return with_names_recorded(take_back(job, CircuitId(circuit), changes[int(number)]))
    if quick_fix.action not in _ACTIONS:
        raise RiktigError(f"There is no remedy “{quick_fix.action}”, so nothing was changed.")
    return _ACTIONS[quick_fix.action](job)
