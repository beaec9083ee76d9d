"""The derived lists as tables: the same keys for screen, command line, CSV, XLSX and JSON.

The keys are documented in docs/schedules.md and stable: people build their own sheets on them.
"""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.holes import HOLES, METAL_HOLES, Hole, along_pieces
from riktig.core.job import EndStyle, Job, PinRef
from riktig.core.labels import LABELS, Medium, printed_lines
from riktig.core.plate import CUTS, LAYOUT
from riktig.core.proving import NOT_CONNECTED, TESTS, Test
from riktig.core.rules import RULES, findings_of, found_circuits, is_as_found
from riktig.core.schematic import CIRCUITS, NAMES, NETS, outside_device
from riktig.core.sizing import SIZING
from riktig.core.standards import LB_IN_PER_N_M, TORQUE_ON_PART, Why, conductor_name, conductor_type, thickest_awg
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING, WireEnd

__all__ = ["SCHEDULES", "Schedule", "Value", "holes_of", "label_files"]


def _nets(evaluation: Evaluation[Job]) -> Schedule:
    names, circuits = evaluation.get(NAMES), evaluation.get(CIRCUITS)
    devices = circuits.by_id

    def label(pin: PinRef) -> str:
        device = devices[pin.device]
        if device.strip:
            side = "field" if pin.marking == "f" else "inside"
            return f"{names.tag[device.id]}:{device.mark} {side}"
        return f"{names.tag[device.id]}:{pin.marking}"

    rows = tuple(
        (names.number.get(n.id, ""), n.net_class.value, len(n.pins), ", ".join(label(p) for p in n.pins), str(n.id))
        for n in evaluation.get(NETS).nets
    )
    columns = (("number", "Number"), ("class", "Class"), ("pins", "Pins"), ("joins", "Joins"), ("id", "Net id"))
    return Schedule("nets", "Nets", columns, rows)


def _torque(end: WireEnd, *, american: bool) -> Value:
    if not end.torque_n_m:
        return TORQUE_ON_PART
    return round(end.torque_n_m * LB_IN_PER_N_M, 1) if american else end.torque_n_m


def _wires(evaluation: Evaluation[Job]) -> Schedule:
    wiring = evaluation.get(WIRING)
    batch = {key: b.number for b in wiring.batches for key in b.wires}
    practice = evaluation.document.practice
    american, flexible = practice.rulebook.north_american, practice.ends is EndStyle.FERRULES
    key, unit = ("lb_in", "lb·in") if american else ("n_m", "N·m")
    rows = tuple(
        (
            n,
            w.number,
            w.start.label,
            w.end.label,
            w.mm2,
            conductor_name(w.mm2),
            conductor_type(w.mm2, flexible=flexible),
            w.colour,
            w.length,
            w.cut,
            w.start.fitting,
            w.end.fitting,
            w.start.strip,
            w.end.strip,
            *(_torque(end, american=american) for end in (w.start, w.end)),
            " ".join(w.ducts),
            w.stage.value,
            batch[w.key],
            w.key,
        )
        for n, w in enumerate(wiring.wires, 1)
    )
    columns = (
        ("order", "Order"),
        ("number", "Number"),
        ("from", "From"),
        ("to", "To"),
        ("mm2", "mm²"),
        ("size", "Size"),
        ("type", "Conductor"),
        ("colour", "Colour"),
        ("length_mm", "Length mm"),
        ("cut_mm", "Cut mm"),
        ("from_end", "End from"),
        ("to_end", "End to"),
        ("from_strip_mm", "Strip from mm"),
        ("to_strip_mm", "Strip to mm"),
        (f"from_torque_{key}", f"Torque from {unit}"),
        (f"to_torque_{key}", f"Torque to {unit}"),
        ("ducts", "Ducts"),
        ("stage", "Stage"),
        ("batch", "Batch"),
        ("key", "Wire key"),
    )
    return Schedule("wires", "Wires, from and to", columns, rows)


def _terminals(evaluation: Evaluation[Job]) -> Schedule:
    american = evaluation.document.practice.rulebook.north_american
    rows = tuple(
        (
            strip.tag,
            row.position,
            row.mark,
            row.kind_id.replace("_", " "),
            row.colour,
            row.number,
            row.inside,
            row.cable,
            row.core,
            row.field,
            conductor_name(thickest_awg(row.max_mm2)) if american else row.max_mm2,
        )
        for strip in evaluation.get(STRIPS).strips
        for row in strip.rows
    )
    columns = (
        ("strip", "Strip"),
        ("position", "Position"),
        ("mark", "Mark"),
        ("kind", "Kind"),
        ("colour", "Body"),
        ("number", "Number"),
        ("inside", "Inside to"),
        ("cable", "Cable"),
        ("core", "Core"),
        ("field", "Field to"),
        ("max_awg", "Up to") if american else ("max_mm2", "Up to mm²"),
    )
    return Schedule("terminals", "Terminals", columns, rows)


def _labels(evaluation: Evaluation[Job]) -> Schedule:
    rows = tuple(
        (label.medium.value, " / ".join(printed_lines(label)), label.copies, label.where, *label.size, label.code)
        for label in evaluation.get(LABELS).labels
    )
    columns = (
        ("medium", "Medium"),
        ("text", "Text"),
        ("copies", "Copies"),
        ("where", "Where"),
        ("width_mm", "Width mm"),
        ("height_mm", "Height mm"),
        ("code", "Code"),
    )
    return Schedule("labels", "Labels", columns, rows)


def label_files(evaluation: Evaluation[Job]) -> tuple[Schedule, ...]:
    """For a label machine: a list for each medium, in the order of its labels, a column for each line of text.

    Of a label that is wanted twice two rows stand there, so that the machine prints what is in the file and no more.
    """
    files: list[Schedule] = []
    sheets = {sheet.medium: sheet for sheet in evaluation.document.label_sheets}
    for medium in Medium:
        labels = [(label, printed_lines(label)) for label in evaluation.get(LABELS).on(medium)]
        count = max((len(lines) for _label, lines in labels), default=0)
        if not count:
            continue
        columns = tuple((f"line_{n}", f"Line {n}") for n in range(1, count + 1))
        columns += (("code", "Code"), ("width_mm", "Width mm"), ("height_mm", "Height mm"), ("medium", "Printed on"))
        columns += (("tape_mm", "Tape mm"), ("batch", "Batch"), ("where", "Where"))
        sheet = sheets.get(medium.value)
        on, tape = (sheet.name, sheet.tape_mm) if sheet else ("plain paper", "")
        rows: tuple[tuple[Value, ...], ...] = tuple(
            (*lines, *[""] * (count - len(lines)), label.code, *label.size, on, tape, label.batch or "", label.where)
            for label, lines in labels
            for _ in range(label.copies)
        )
        files.append(Schedule(f"labels {medium.value}", medium.value.capitalize(), columns, rows))
    return tuple(files)


def _cuts(evaluation: Evaluation[Job]) -> Schedule:
    along = along_pieces(evaluation.get(METAL_HOLES), evaluation.get(LAYOUT))
    rows = tuple(
        (c.name, c.stock, c.length, c.place, ", ".join(f"{at:g}" for at in along.get(c.name, ())))
        for c in evaluation.get(CUTS)
    )
    columns = (
        ("piece", "Piece"),
        ("stock", "Cut from"),
        ("length_mm", "Length mm"),
        ("place", "Place"),
        ("screws_mm", "Screws, mm from the left or upper end"),
    )
    return Schedule("cuts", "Cut list", columns, rows)


HOLE_COLUMNS = (
    ("hole", "Hole"),
    ("face", "Face"),
    ("x_mm", "x mm"),
    ("y_mm", "y mm"),
    ("drill_mm", "Drill mm"),
    ("tap", "Tap"),
    ("for", "For"),
    ("note", "Note"),
    ("tool", "Tool"),
    ("width_mm", "Width mm"),
    ("height_mm", "Height mm"),
    ("class", "Class"),
    ("size", "Size mm"),
)


def _hole_rows(holes: tuple[Hole, ...]) -> tuple[tuple[Value, ...], ...]:
    return tuple(
        (
            h.number, h.face, h.x, h.y, h.drill or "", h.tap, h.purpose, h.note, h.tool.value, h.width or "",
            h.height or "", h.rating, h.size,
        )
        for h in holes
    )  # fmt: skip


def _holes(evaluation: Evaluation[Job]) -> Schedule:
    shown = len(HOLE_COLUMNS) - 1
    rows = tuple(row[:shown] for row in _hole_rows(evaluation.get(HOLES)))
    return Schedule("holes", "Holes from the datum", HOLE_COLUMNS[:shown], rows)


def _sizing(evaluation: Evaluation[Job]) -> Schedule:
    sizing, names = evaluation.get(SIZING), evaluation.get(NAMES)
    rows: list[tuple[Value, ...]] = []

    def add(what: str, value: str, why: Why) -> None:
        rows.append((what, value, why.title, why.reason, "; ".join(why.lines), why.source, why.confidence))

    add("feeder", sizing.feeder.name, sizing.feeder.why)
    for device, whys in sizing.whys.items():
        for why in whys:
            add(names.tag[device], sizing.parts[device].ref, why)
    for size in sizing.loads:
        tag = names.tag[outside_device(evaluation.get(CIRCUITS), size.circuit).id]
        add(f"{tag} power conductors", size.section.name, size.section.why)
        add(f"{tag} control conductors", size.control.name, size.control.why)
    columns = (
        ("what", "What"),
        ("value", "Value"),
        ("title", "Question"),
        ("reason", "Reason"),
        ("formula", "Formula"),
        ("source", "Source"),
        ("confidence", "Confidence"),
    )
    return Schedule("sizing", "Sizing, with the reasons", columns, tuple(rows))


def _findings(evaluation: Evaluation[Job]) -> Schedule:
    circuits_found, wiring = found_circuits(evaluation.document), evaluation.get(WIRING)
    findings = findings_of(evaluation.get(RULES))
    rows: list[tuple[Value, ...]] = [
        (f.code, f.verdict.value, f.message, f.clause, f.remedy, str(f.where or "")) for f in findings
    ]
    columns = [
        ("code", "Code"),
        ("verdict", "Verdict"),
        ("message", "Finding"),
        ("clause", "Clause"),
        ("remedy", "Remedy"),
        ("where", "Where"),
    ]
    if circuits_found:  # a column that no other job needs
        columns.append(("of", "Of the old panel"))
        old = ["as found" if is_as_found(finding, circuits_found, wiring) else "" for finding in findings]
        rows = [(*row, word) for row, word in zip(rows, old, strict=True)]
    return Schedule("findings", "Findings", tuple(columns), tuple(rows))


def _clauses(evaluation: Evaluation[Job]) -> Schedule:
    rows = tuple(
        (r.code, r.group.value, r.title, r.verdict.value, r.clause, "; ".join(r.grounds)) for r in evaluation.get(RULES)
    )
    columns = (
        ("code", "Code"),
        ("group", "Group"),
        ("title", "Clause"),
        ("verdict", "Verdict"),
        ("clause", "Source"),
        ("evidence", "Evidence"),
    )
    return Schedule("clauses", "Rulebook", columns, rows)


def _before(test: Test) -> str:
    """How the switches stand and what must be done first; that supply and field cables are off is said of all."""
    return f"{test.switches.partition(NOT_CONNECTED)[0].rstrip('. ')}. {test.first}".rstrip()


def _tests(evaluation: Evaluation[Job]) -> Schedule:
    rows = tuple(
        (n, t.stage.value, t.title, t.black.label, t.red.label, t.expected.text, _before(t), t.key)
        for n, t in enumerate(evaluation.get(TESTS).tests, 1)
    )
    columns = (
        ("order", "Order"),
        ("stage", "Stage"),
        ("title", "Test"),
        ("black", "Black probe"),
        ("red", "Red probe"),
        ("expected", "Expected"),
        ("switches", "Switches, and what to do first"),
        ("key", "Test key"),
    )
    return Schedule("tests", "Dead tests", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {
    "nets": _nets,
    "wires": _wires,
    "terminals": _terminals,
    "labels": _labels,
    "cuts": _cuts,
    "holes": _holes,
    "sizing": _sizing,
    "findings": _findings,
    "clauses": _clauses,
    "tests": _tests,
}


def holes_of(evaluation: Evaluation[Job], face: str) -> Schedule:
    """The holes of one surface with the columns the person at it needs; only a gland plate's wait for the wires.

    Args:
        evaluation: Of the job.
        face: The name of the surface.
    """
    holes = evaluation.get(HOLES if "gland" in face else METAL_HOLES)
    wanted = ("hole", "x_mm", "y_mm", "size", "tool", "for")
    keys = [key for key, _ in HOLE_COLUMNS]
    columns = [keys.index(key) for key in wanted]
    rows = tuple(tuple(row[i] for i in columns) for row in _hole_rows(holes) if row[1] == face)
    return Schedule("holes", f"Holes of the {face}", tuple(HOLE_COLUMNS[i] for i in columns), rows)
