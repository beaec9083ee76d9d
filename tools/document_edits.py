"""Writes the list of docs/edits.md anew: every edit with what it does and an example, and every kind of record.

.venv/bin/python tools/document_edits.py
"""

import sys
from dataclasses import fields
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from tests.core.edits.examples import EXAMPLES  # noqa: E402

from riktig.core.edits import Edit, dump_action, edit_name  # noqa: E402 - the tests lie beside the sources
from riktig.core.records import (  # noqa: E402
    AsBuiltClosed,
    ClauseCompared,
    ClauseJudged,
    ContactRead,
    DimensionRead,
    FieldEndDone,
    FindingNoted,
    FindingSettled,
    GatePassed,
    HoleDone,
    HoleWork,
    JobIssued,
    LabelPrinted,
    LabelReplaced,
    LiveReleased,
    LiveStepDone,
    NewRecord,
    NoteKept,
    Operation,
    Outcome,
    PanelDispatched,
    PapersWritten,
    PartMounted,
    PartReceived,
    PhoneTalk,
    PieceCut,
    ReadingTaken,
    ServiceVisit,
    SiteItemDone,
    TakenBack,
    TaskDone,
    TemplateChecked,
    WireDone,
)

BEGIN = "<!-- begin: tools/document_edits.py -->"
RECORDS = (
    NewRecord("c2.K:A1~c2.S.start:4", WireDone(Operation.CUT, "10 S2:4 to K1:A1", "1 mm² red", 640.0, 633.0)),
    NewRecord("hole:door:device:c2.S.stop#1", HoleDone(HoleWork.MADE, "DH3", 145.0, 290.0, "22.3")),
    NewRecord("piece:R1", PieceCut("35 mm rail", 410.0)),
    NewRecord("datum:plate:across", DimensionRead(25.2, 25.0, "datum of the plate, across")),
    NewRecord("device:c2.F", PartMounted(120.0, 90.0, "MB3-10D")),
    NewRecord("c2.M:U1~field", FieldEndDone("M2-U", "c2.M:U1")),
    NewRecord(
        "bond:c2.M",
        ReadingTaken(
            Outcome.PASSED,
            "0.22",
            "M-34 4711, calibrated to 2027-03-31",
            "",
            "Bond of M2",
            "X1:PE to M2:PE",
            "below 0.1 Ω",
            "c2.M:PE~X",
            zero=0.2,
        ),
    ),
    NewRecord("C02", ClauseJudged("one starter, two devices", "1 starter, 2 control devices", "Control supply")),
    NewRecord("C02", ClauseCompared("IEC 60204-1 9.1.1", "EN 60204-1:2018, print of 2019", "Control supply")),
    NewRecord("device:c2.K", FindingNoted("the cover is cracked", "K1", "E31")),
    NewRecord("device:c2.K", FindingSettled("5f3a…the id of the finding", "the cover is cracked", "cover changed")),
    NewRecord("received:CON-9", PartReceived("CON-9", 3, 3, "", "B7")),
    NewRecord("task:rail R1", TaskDone("Rails and ducts fixed", "Rail R1, 410 mm", "70 to 480 at 150")),
    NewRecord("operator:c2.S.stop", ContactRead("S3", "1-2", "pressed", "open", "inf", 0.2, "M-1, 4711")),
    NewRecord("gate:wires", GatePassed("Wires on the plate", "the labels come on Friday", "Labels on parts: 0 of 28")),
    NewRecord("wire/wire:c2.K:A1~c2.S.start:4/0", LabelPrinted("10")),
    NewRecord("wire/wire:c2.K:A1~c2.S.start:4/0", LabelReplaced("10", "9")),
    NewRecord("issue", JobIssued("A", "for the customer's consent", 12, 340, "9c1f…")),
    NewRecord("papers", PapersWritten("9c1f…", "A", 84, "/jobs/KS-0418_A_papers")),
    NewRecord("dispatch", PanelDispatched("kelp drying shed", "0418-01", "lamp H3 follows", "1 of 31 wires …")),
    NewRecord("as built", AsBuiltClosed("0418-01", "9c1f…")),
    NewRecord("site:Close the door …", SiteItemDone("Close the door …", "nothing is pinched")),
    NewRecord("visit", ServiceVisit("fan trips", "set F8 to 13 A, cleaned the filter", "filter mat", "2027-06")),
    NewRecord("device:c2.K", NoteKept("the coil hums, looked at with the maker", "K1")),
    NewRecord("live tests", LiveReleased("P. Aune")),
    NewRecord(
        "volts:c0.Q:2~c0.Q:4",
        LiveStepDone(
            Outcome.PASSED,
            "Q1 on",
            "Switch Q1 on: measure Q1:2 to Q1:4",
            "400 V AC, 360 to 440 V",
            "401",
            "",
            "V",
            "M-34 4711, calibrated to 2027-03-31",
        ),
    ),
    NewRecord("talk:c1", PhoneTalk("wash drum", "night shift", "Is the lamp lit? no", "F2 is off or has tripped")),
    NewRecord("template:door", TemplateChecked(100.0, "yes")),
    NewRecord("piece:R1", TakenBack("piece cut", "cut from the wrong bar"), "5f3a…the id of the entry"),
)


def shape(kind: type) -> str:
    """The fields of an edit with their types."""
    said = [f"`{field.name}`: {getattr(field.type, '__name__', str(field.type))}" for field in fields(kind)]
    return ", ".join(text.replace("riktig.core.job.", "") for text in said)


def listed() -> str:
    """The whole list as Markdown."""
    lines = [BEGIN, "", "## Edits", ""]
    for edit in sorted(EXAMPLES, key=lambda one: edit_name(type(one))):
        lines += _entry(edit)
    lines += ["## Records", ""]
    for record in RECORDS:
        doc = (type(record.facts).__doc__ or "").splitlines()[0]
        lines += [doc, "", "```", dump_action(record), "```", ""]
    return "\n".join(lines)


def _entry(edit: Edit) -> list[str]:
    kind = type(edit)
    doc = " ".join(line.strip() for line in (kind.__doc__ or "").splitlines() if line.strip())
    return [f"**{edit_name(kind)}**: {doc}", "", "```", dump_action(edit), "```", ""]


def main() -> None:
    """Replaces everything behind the mark."""
    path = ROOT / "docs" / "edits.md"
    head = path.read_text(encoding="utf-8").split(BEGIN)[0]
    path.write_text(head + listed(), encoding="utf-8")


if __name__ == "__main__":
    main()
