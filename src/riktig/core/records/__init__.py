"""The log of the shop floor: what was done or read, by whom and when, and whether it still counts.

Words: an *entry* is recorded once and never changed; a *slot* is what one entry supersedes another in; an
entry *counts* as long as what it was true of is still so; one that takes another back is a *correction*.
"""

from riktig.core.records.codec import (
    StoredEntry,
    broken_links,
    digest_of,
    dump_facts,
    load_facts,
    signature_fault,
    stored,
)
from riktig.core.records.counting import SIMULATED, Counted, Slot, counted, slot_of, why_not
from riktig.core.records.facts import (
    ClauseJudged,
    DimensionRead,
    Facts,
    FieldEndDone,
    HoleDone,
    HoleWork,
    LabelPrinted,
    Operation,
    OtherEntry,
    Outcome,
    PartMounted,
    PieceCut,
    ReadingTaken,
    TakenBack,
    TemplateChecked,
    WireDone,
)
from riktig.core.records.record import NewRecord, Record, taken_back
from riktig.core.records.signing import Signer, fingerprint, new_private_key

__all__ = [
    "SIMULATED",
    "ClauseJudged",
    "Counted",
    "DimensionRead",
    "Facts",
    "FieldEndDone",
    "HoleDone",
    "HoleWork",
    "LabelPrinted",
    "NewRecord",
    "Operation",
    "OtherEntry",
    "Outcome",
    "PartMounted",
    "PieceCut",
    "ReadingTaken",
    "Record",
    "Signer",
    "Slot",
    "StoredEntry",
    "TakenBack",
    "TemplateChecked",
    "WireDone",
    "broken_links",
    "counted",
    "digest_of",
    "dump_facts",
    "fingerprint",
    "load_facts",
    "new_private_key",
    "signature_fault",
    "slot_of",
    "stored",
    "taken_back",
    "why_not",
]
