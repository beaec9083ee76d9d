"""Small pictures of recipes: what a recipe would draw, without its words."""

from functools import cache

from riktig.core.geometry import Arc, Circle, Drawing, Line, Point, Poly, Shape, Text, bounds_of
from riktig.core.job import (
    IMPLIED,
    CircuitId,
    Command,
    ControlSupply,
    Job,
    Recipe,
    Rulebook,
    Start,
    Ventilation,
    Wetting,
    add_load,
    add_signal,
    circuit_inputs,
    new_job,
    set_enclosure,
    set_practice,
)
from riktig.core.schematic.circuit_edits import add_circuit
from riktig.core.schematic.drawing.draw_sheets import SheetInputs, SheetPen
from riktig.core.schematic.edits import with_names_recorded
from riktig.core.schematic.layout.frame import TITLE_LAYER
from riktig.core.schematic.layout.sheet_model import SheetKind
from riktig.core.schematic.layout.sheets import lay_out
from riktig.core.schematic.netlist.nets import find_nets
from riktig.core.schematic.numbering.numbers import names_of
from riktig.core.schematic.templates.circuit_templates import circuit_template_of
from riktig.core.schematic.templates.expand import expand

__all__ = ["recipe_picture"]

MARGIN = 6.0
_SAMPLE = {
    Recipe.DIRECT_ON_LINE: {},
    Recipe.REVERSING: {"start": Start.REVERSING, "command": Command.BOTH_WAYS},
    Recipe.STAR_DELTA: {"start": Start.STAR_DELTA},
    Recipe.SOFT_START: {"start": Start.SOFT},
    Recipe.DRIVE: {"start": Start.DRIVE},
    Recipe.WAY: {"start": Start.WAY, "phases": 1},
    Recipe.CONTACTOR: {"start": Start.CONTACTOR, "command": Command.SELECTOR},
    Recipe.MAINTAINED: {"start": Start.WAY, "phases": 1, "maintained": True},
}


@cache
def recipe_picture(recipe: Recipe, *, north_american: bool = False) -> Drawing:
    """A drawing of the recipe with what it proposes, in the symbols of the rulebook; its words left out.

    Args:
        recipe: The recipe of the circuit.
        north_american: Whether the symbols are those of the North American rulebook.
    """
    job = new_job("", "")
    if north_american:
        job = set_practice(job, rulebook=Rulebook.UL)
    if circuit_template_of(recipe).make is not None:
        job = add_circuit(job, recipe)
        return _cropped(with_names_recorded(job), job.circuits[-1].id)
    if recipe is Recipe.INCOMER:
        return _cropped(with_names_recorded(job), job.circuits[0].id)
    if recipe in IMPLIED:
        return _cropped(with_names_recorded(_that_implies(job, recipe)), IMPLIED[recipe])
    job = add_load(job, "motor", 4.0, **_SAMPLE.get(recipe, {}))  # type: ignore[arg-type]
    return _cropped(with_names_recorded(job), job.circuits[-1].id)


def _that_implies(job: Job, recipe: Recipe) -> Job:
    """A job of which the Brief asks for a supply or for the controller."""
    job = add_load(job, "motor", 4.0, start=Start.DRIVE, command=Command.CONTROLLER)
    load = job.loads[-1].id
    job = set_practice(job, control_supply=ControlSupply.TRANSFORMER)
    if recipe is Recipe.VENTILATION:
        return set_enclosure(job, ventilation=Ventilation.FAN)
    if recipe is Recipe.LIMITED_SUPPLY:
        return add_signal(job, "sensor", wetting=Wetting.LIMITED, load=load, watts=1.0)
    return add_signal(job, "photocell", wetting=Wetting.DC, load=load, watts=1.0)


def _cropped(job: Job, own_circuit: CircuitId) -> Drawing:
    circuits = expand(circuit_inputs(job), job.enclosure.doors)
    nets = find_nets(circuits)
    names = names_of(job, circuits, nets)
    sheets = lay_out(circuits)
    pen = SheetPen(SheetInputs(sheets, circuits, nets, names, job.practice))
    best = max(
        (n for n, sheet in enumerate(sheets.sheets) if sheet.kind is not SheetKind.LEGEND),
        key=lambda n: (
            sum(circuits.device(seat.element.device).circuit == own_circuit for seat in sheets.sheets[n].seats),
            -n,
        ),
    )
    shapes = [m for m in pen.drawing(best).shapes if not isinstance(m, Text) and m.layer not in ("frame", TITLE_LAYER)]
    if not shapes:
        return Drawing(60, 40, ())
    boxes = [bounds_of(mark) for mark in shapes]
    left, top = min(b.x for b in boxes) - MARGIN, min(b.y for b in boxes) - MARGIN
    right, bottom = max(b.right for b in boxes) + MARGIN, max(b.bottom for b in boxes) + MARGIN
    return Drawing(right - left, bottom - top, tuple(_moved(mark, -left, -top) for mark in shapes))


def _moved(mark: Shape, dx: float, dy: float) -> Shape:
    width = max(getattr(mark, "width", 0.25), 0.25) * 1.8
    match mark:
        case Line():
            return mark._replace(
                x1=mark.x1 + dx, y1=mark.y1 + dy, x2=mark.x2 + dx, y2=mark.y2 + dy, width=width, key=None
            )
        case Poly():
            return mark._replace(points=tuple(Point(p.x + dx, p.y + dy) for p in mark.points), width=width, key=None)
        case Circle() | Arc():
            return mark._replace(x=mark.x + dx, y=mark.y + dy, width=width, key=None)
        case Text():
            return mark._replace(x=mark.x + dx, y=mark.y + dy, key=None)
