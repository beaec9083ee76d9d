"""For whoever runs and looks after the panel: faults by the lamps, what to look after, the maker's declaration."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can, Kind
from riktig.core.door import LEGENDS
from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import DeviceId, Job
from riktig.core.labels import LABELS
from riktig.core.proving import ENERGISED, OPERATING, PANEL_FACTS, lamp_table, seen_words, who_resets
from riktig.core.schematic import CIRCUITS, NAMES, Zone

__all__ = ["SCHEDULES"]


def _operation(evaluation: Evaluation[Job]) -> Schedule:
    """What is done at the door circuit by circuit, and what then runs, stops, lights and goes dark."""
    tags, legends = evaluation.get(NAMES).tag, evaluation.get(LEGENDS)
    circuits = evaluation.get(CIRCUITS)
    titles, devices = dict(circuits.titles), {device.id: device for device in circuits.devices}

    def named(device: DeviceId) -> str:
        words = " / ".join(legends.get(device, ())) or devices[device].purpose
        return f"{tags[device]} ({words})"

    def does(changes: Iterable[tuple[DeviceId, str]]) -> str:
        words = (f"{seen_words(f'{tags[device]} {does}')} ({devices[device].purpose})" for device, does in changes)
        return "; ".join(words)

    rows: list[tuple[Value, ...]] = []
    for row in evaluation.get(OPERATING):
        if row.device is None:
            done = f"Wait {row.seconds:g} s"
        elif devices[row.device].zone is Zone.FIELD:
            done = f"{tags[row.device]} ({devices[row.device].purpose}) {row.position or 'is pressed'}"
        else:
            done = f"Turn {named(row.device)} to {row.position}" if row.position else f"Press {named(row.device)}"
        then = [does(row.then)] if row.then else []
        if row.held:
            then.append(f"while it is held: {does(row.held)}")
        rows.append((titles.get(row.circuit, str(row.circuit)), done, "; ".join(then), str(row.device or "")))
    columns = (("circuit", "Of"), ("do", "What is done or happens"), ("then", "What follows"), ("id", "Device id"))
    return Schedule("operation", "How it is operated", columns, tuple(rows))


def _lamps(evaluation: Evaluation[Job]) -> Schedule:
    """What the lamps on the door show with each thing that can be off, tripped or missing, at rest."""
    tags = evaluation.get(NAMES).tag
    sound, *rows = lamp_table(evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED))
    listed: list[tuple[Value, ...]] = [("nothing is wrong, nothing runs", _tags_of(sound.lit, tags), "", "", "", "")]
    for row in rows:
        more = [device for device in row.lit if device not in sound.lit]
        less = [device for device in sound.lit if device not in row.lit]
        if more or less:
            device = str(row.cause.device or "")
            reset = who_resets(row.cause.kind, evaluation.document.practice.reset_by)
            listed.append(
                (row.cause.words, _tags_of(more, tags), _tags_of(less, tags), row.cause.skilled, reset, device)
            )
    columns = (
        ("cause", "What is wrong"),
        ("lit", "Lit, and else dark"),
        ("dark", "Dark, and else lit"),
        ("skilled", "What a skilled person does"),
        ("reset", "Who puts it in again"),
        ("id", "Device id"),
    )
    return Schedule("lamps", "Faults by the lamps, at rest", columns, tuple(listed))


def _tags_of(devices: Iterable[DeviceId], tags: Mapping[DeviceId, str]) -> str:
    return ", ".join(tags[device] for device in devices) or "none"


@dataclass(frozen=True, slots=True)
class _Care:
    """What is looked after: of which kinds of part, what is done, how often, and by whom."""

    kinds: tuple[Can, ...]
    what: str
    often: str
    by: str


SKILLED, ANYBODY = "a skilled person, supply locked off and proved dead", "whoever runs the machine"
LIVE = "a skilled person; under voltage, as local practice asks"
_CARE = (
    _Care((Can.MUSHROOM,), "strike each and see that everything stops and stays off", "every month", ANYBODY),
    _Care((Can.RESIDUAL,), "press the test button: it must trip at once", "every six months", LIVE),
    _Care((Can.VENTILATES,), "change or wash the filter; before that, hear that the fan runs", "every three months",
          SKILLED),
    _Care((Can.MAIN_SWITCH,), "switch off and on under no load; padlock it off; the door must stay shut while it is on",
          "every year", SKILLED),
    _Care((Can.VARIES_SPEED,), "blow out the heat sink, listen to its fan; its maker says when fan and capacitors go",
          "every year", SKILLED),
    _Care((Can.SURGE,), "read the window of the surge protector", "every year and after a thunderstorm", SKILLED),
    _Care((Can.SWITCHES_LOAD,), "look for traces of heat, listen for buzzing; change one whose contacts are burnt",
          "every year", SKILLED),
    _Care((Can.OVERLOAD,), "compare the setting with the plate of the motor", "every year", SKILLED),
    _Care((Can.MAKES_DC,), "measure its voltage under load", "every year", LIVE),
    _Care((Can.SOUNDS, Can.LAMP_TEST), "press the lamp test: every lamp and the horn must answer", "every month",
          ANYBODY),
)  # fmt: skip
"""Common practice, no source: what the maker of a part asks for stands above it."""
_OF_ALL = (
    ("all power terminals", "tighten to the torque on the torque marks", "after the first month, then every two years",
     SKILLED),
    ("protective conductors", "measure from the root to every part and the door", "every three years", SKILLED),
    ("door, seals and glands", "look for gaps, water, dust and animals; wipe it, never wash it under pressure",
     "every year", SKILLED),
    ("labels and plates", "whatever cannot be read is printed and put on again", "every year", ANYBODY),
    ("drawings in the panel", "see that they are of the revision on the nameplate", "every year and after each change",
     SKILLED),
)  # fmt: skip


def _maintenance(evaluation: Evaluation[Job]) -> Schedule:
    """What is looked after, by the parts that are in the panel: how often and by whom."""
    tags = evaluation.get(NAMES).tag
    devices = evaluation.get(CIRCUITS).devices
    rows: list[tuple[Value, ...]] = []
    for care in _CARE:
        cared_for = [tags[device.id] for device in devices if _is_of(device.kind, care.kinds)]
        if cared_for:
            rows.append((", ".join(dict.fromkeys(cared_for)), care.what, care.often, care.by, ""))
    rows += [(*row, "") for row in _OF_ALL]
    columns = (
        ("of", "Of"),
        ("what", "What is done"),
        ("often", "How often"),
        ("by", "By"),
        ("done", "Done, date and name"),
    )
    rows.append(
        ("everything", "what the makers of the parts and the place it stands in ask for beyond this", "", "", "")
    )
    return Schedule("maintenance", "Care of the panel", columns, tuple(rows))


def _is_of(kind: Kind, wanted: tuple[Can, ...]) -> bool:
    return any(kind.can(can) for can in wanted)


def _declaration(evaluation: Evaluation[Job]) -> Schedule:
    """A form: what is known of the panel stands in it, what its maker declares is left for whoever may sign."""
    rows = tuple(_declared(evaluation))
    columns = (("field", "Field"), ("says", "It says"))
    return Schedule("declaration", "Form of the maker's declaration", columns, rows)


BLANK = "________________________________"


def _declared(evaluation: Evaluation[Job]) -> Iterator[tuple[Value, ...]]:
    job = evaluation.document
    plate = {field.name: field.value for field in evaluation.get(LABELS).nameplate}
    yield "Maker, with address", f"{job.maker or BLANK}, {BLANK}"
    yield "Declares under its own responsibility that the panel", f"{job.title or BLANK}, {job.number or BLANK}"
    yield "Serial number", job.serial or BLANK
    yield "Made", job.made or BLANK
    marks = job.marks
    yield "Mark of the panel as a whole", ", ".join(filter(None, (marks.panel, marks.number, marks.date))) or BLANK
    yield "Mark of the enclosure, which covers the enclosure alone", marks.enclosure or BLANK
    yield "Supply", plate.get("Supply", "") or BLANK
    yield "Short-circuit rating", plate.get("Short-circuit rating", "") or BLANK
    yield "Was made to the standards", job.standard or BLANK
    if not job.practice.rulebook.north_american:
        for name in (
            "2014/35/EU, equipment within voltage limits",
            "2014/30/EU, electromagnetic compatibility",
            "2006/42/EC, machinery, as a part of a machine",
        ):
            yield "Follows, where its maker has ticked it", f"[  ]  {name}"
    yield "Documents", f"{job.drawing_number or BLANK}, revision {job.revision}"
    yield "Place and date", BLANK
    yield "Name, function and signature of who may sign", BLANK
    yield "Note", "Riktig fills in what it knows and declares nothing: the maker looks at the panel, ticks and signs."


SCHEDULES = {"operation": _operation, "lamps": _lamps, "maintenance": _maintenance, "declaration": _declaration}
"""By name."""
