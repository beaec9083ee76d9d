"""Edits and entries of the log as JSON, a line each, and back, with the place of every fault."""

import json
import re
from collections.abc import Iterable, Sequence
from dataclasses import fields, is_dataclass

import msgspec

from riktig.core.edits import brief, cables, circuits, door, jumpers, labels, people, plate, reasons, strips, wires
from riktig.core.edits.model import Edit
from riktig.core.errors import InputFault, RiktigError
from riktig.core.inputs import parse_json
from riktig.core.records import NewRecord, OtherEntry, dump_facts, load_facts

__all__ = ["EDITS", "Action", "counted_words", "dump_action", "edit_name", "load_action", "load_actions"]

Action = Edit | NewRecord
"""What the window does: an edit of the job, or an entry of its log."""
_HELPERS = {"LoadToAdd", "PartPlace", "OperatorPlace"}
_PLACE = re.compile(r"^(.*?)(?: - at `\$(.*)`)?$", re.S)
LONGEST_LINE = 1_000_000
"""A line of a list of edits with more signs is no edit (chosen by us)."""


def edit_name(kind: type) -> str:
    """The name of an edit in its text form: “change load” for ChangeLoad."""
    return re.sub(r"(?<!^)(?=[A-Z])", " ", kind.__name__).lower()


EDITS: dict[str, type] = {
    edit_name(kind): kind
    for module in (brief, circuits, plate, door, wires, strips, jumpers, cables, labels, people, reasons)
    for kind in (getattr(module, name) for name in module.__all__)
    if isinstance(kind, type) and is_dataclass(kind) and kind.__name__ not in _HELPERS
}
"""Every edit by its name."""


def counted_words(actions: Sequence[Action]) -> str:
    """How many of each, in words: “2 edits and 1 record”."""
    records = sum(isinstance(action, NewRecord) for action in actions)
    edits = len(actions) - records
    return f"{edits} {'edit' if edits == 1 else 'edits'} and {records} {'record' if records == 1 else 'records'}"


def dump_action(action: Action) -> str:
    """One line of JSON: ``{"edit": "change load", …}`` or ``{"record": "tick", "subject": …, "facts": {…}}``."""
    if isinstance(action, NewRecord):
        kind, facts = dump_facts(action.facts)
        line: dict[str, object] = {"record": kind, "subject": action.subject, "facts": json.loads(facts)}
        if action.corrects:
            line["corrects"] = action.corrects
    else:
        line = {"edit": edit_name(type(action)), **msgspec.to_builtins(action)}
    return json.dumps(line, ensure_ascii=False)


def load_action(text: str, where: str = "$") -> Action:
    """An edit or an entry from one line of JSON.

    Args:
        text: The text.
        where: What the text came from, for messages.

    Raises:
        RiktigError: not JSON, no edit of that name, a missing, unknown or wrong field; with its place.
    """
    if len(text) > LONGEST_LINE:
        raise _refused(where, f"the line has more than {LONGEST_LINE} signs.")
    line = parse_json(text, what="an edit or a record", where=where)
    if isinstance(line, dict) and "record" in line:
        return _record(line, where)
    if not isinstance(line, dict) or not isinstance(line.get("edit"), str):
        raise _refused(where, "it names neither an “edit” nor a “record”.")
    kind = EDITS.get(line.pop("edit"))
    if kind is None:
        raise _refused(f"{where}.edit", f"there is no such edit; there are {', '.join(EDITS)}.")
    return _converted(line, kind, where)


def _converted(line: dict[str, object], kind: type, where: str) -> Edit:
    known = {field.name for field in fields(kind)}
    for name in line:
        if name not in known:
            raise _refused(f"{where}.{name}", f"there is no such field; there are {', '.join(sorted(known))}.")
    unknown = _unknown(line.get("fields"), kind)
    if unknown:
        raise _refused(f"{where}.fields.{unknown}", "there is no such field.")
    try:
        edit: Edit = msgspec.convert(line, kind)
    except msgspec.ValidationError as error:
        at_place = _PLACE.match(str(error))
        message, place = (at_place[1], at_place[2] or "") if at_place else (str(error), "")
        raise _refused(f"{where}{place}", f"{message}.") from error
    return edit


def _unknown(given: object, kind: type) -> str:
    """The first field of ``fields`` that its type does not have; "" when there is none."""
    of = next((field.type for field in fields(kind) if field.name == "fields"), None)
    known = getattr(of, "__annotations__", {})
    for base in getattr(of, "__orig_bases__", ()):
        known = {**getattr(base, "__annotations__", {}), **known}
    if not isinstance(given, dict) or not known:
        return ""
    return next((str(name) for name in given if name not in known), "")


def _record(line: dict[str, object], where: str) -> NewRecord:
    kind, subject, facts = line.get("record"), line.get("subject"), line.get("facts", {})
    corrects = line.get("corrects", "")
    if not isinstance(kind, str) or not isinstance(subject, str) or not subject:
        raise _refused(where, "a record needs its “subject”: the key of what it is about.")
    if not isinstance(facts, dict) or not isinstance(corrects, str):
        raise _refused(f"{where}.facts", "the facts are an object.")
    read = load_facts(kind, json.dumps(facts), corrects=corrects)
    if isinstance(read, OtherEntry):
        raise _refused(f"{where}.facts", f"these are no facts of the kind “{kind}”.")
    return NewRecord(subject, read, corrects)


def load_actions(lines: Iterable[str], name: str) -> Sequence[tuple[str, Action]]:
    """A whole list with the place of each; empty lines and lines that begin with # are passed over.

    Args:
        lines: The lines of the list.
        name: What it is called.

    Raises:
        RiktigError: with the place of every line that cannot be read.
    """
    actions: list[tuple[str, Action]] = []
    faults: list[InputFault] = []
    for number, line in enumerate(lines, 1):
        if not line.strip() or line.lstrip().startswith("#"):
            continue
        try:
            actions.append((f"line {number}", load_action(line, f"line {number}")))
        except RiktigError as error:
            faults.append(InputFault(error.where, error.message))
    if faults:
        raise RiktigError(
            f"{name} cannot be read, so nothing was done.", hint="Correct what is listed.", where=name, faults=faults
        )
    return actions


def _refused(where: str, message: str) -> RiktigError:
    return RiktigError(message, where=where)
