"""Entries of the log as text and back, and the chain of digests that binds each to the one before."""

import hashlib
import json
from collections.abc import Iterable
from dataclasses import dataclass, replace

import msgspec

from riktig.core.errors import RiktigError
from riktig.core.inputs import parse_json
from riktig.core.records.facts import Facts, OtherEntry, ReadingTaken, TakenBack
from riktig.core.records.record import Record
from riktig.core.records.signing import Signer, is_signed

__all__ = [
    "FIRST_DIGEST",
    "StoredEntry",
    "broken_links",
    "digest_of",
    "dump_facts",
    "load_facts",
    "signature_fault",
    "stored",
]

FIRST_DIGEST = ""
"""What stands before the first entry."""


@dataclass(frozen=True, slots=True)
class StoredEntry:
    """An entry as it stands in the file: its number, its kind, its facts as JSON, its digest, and who signed that."""

    number: int
    id: str
    kind: str
    subject: str
    facts: str
    who: str
    when: str
    revision: int
    corrects: str
    digest: str = ""
    signer: str = ""
    signature: str = ""

    @property
    def record(self) -> Record:
        """The entry as it is worked with."""
        facts = load_facts(self.kind, self.facts, corrects=self.corrects)
        return Record(self.id, self.subject, facts, self.who, self.when, self.revision, self.corrects)


def dump_facts(facts: Facts) -> tuple[str, str]:
    """The kind and the facts as JSON, without what is not said."""
    if isinstance(facts, OtherEntry):
        return facts.name, facts.text
    fields: dict[str, object] = msgspec.to_builtins(facts)
    kind = str(fields.pop("kind"))
    return kind, json.dumps(fields, ensure_ascii=False)


def load_facts(kind: str, text: str, *, corrects: str = "") -> Facts:
    """The facts of an entry. What cannot be read, or is of another kind, is kept as it is and counts as nothing.

    Up to format 2 all facts were texts, and an entry that takes another back stood under any kind.

    Args:
        kind: The kind of entry, as it stands in the file.
        text: The text.
        corrects: The entry that it takes back; "" for none.
    """
    try:
        fields = parse_json(text, what="an entry", mend=True)
        if not isinstance(fields, dict):
            return OtherEntry(kind, text)
        content = {name: value for name, value in fields.items() if value != ""}
        if corrects:
            return TakenBack(
                what=str(content.get("operation", content.get("what", ""))), why=str(content.get("why", ""))
            )
        facts: Facts = msgspec.convert({**content, "kind": kind}, Facts, strict=False)
        if isinstance(facts, ReadingTaken) and facts.ohm:
            float(facts.ohm)
        return facts
    except (RiktigError, ValueError, AttributeError, msgspec.ValidationError):
        return OtherEntry(kind, text)


def stored(record: Record, number: int, before: str, signer: Signer | None = None) -> StoredEntry:
    """A record as it will stand in the file behind an entry with the digest ``before``.

    Args:
        record: The record.
        number: Its number in the log.
        before: The digest of the entry before it.
        signer: Who signs it; None leaves it unsigned.
    """
    kind, text = dump_facts(record.facts)
    entry = StoredEntry(
        number, record.id, kind, record.subject, text, record.who, record.when, record.revision, record.corrects
    )
    entry = replace(entry, signer=signer.public if signer else "")
    entry = replace(entry, digest=digest_of(entry, before))
    return replace(entry, signature=signer.sign(entry.digest)) if signer else entry


def digest_of(entry: StoredEntry, before: str) -> str:
    """SHA-256 over the digest of the entry before and everything that this one says, in hexadecimal.

    Args:
        entry: The entry.
        before: The digest of the entry before it.
    """
    content = [before, entry.number, entry.id, entry.kind, entry.subject, entry.facts]
    content += [entry.who, entry.when, entry.revision, entry.corrects]
    content += [entry.signer] if entry.signer else []  # what was not signed keeps the digest it had before format 4
    return hashlib.sha256(json.dumps(content, ensure_ascii=True).encode()).hexdigest()


def signature_fault(entry: StoredEntry) -> str:
    """What is wrong with an entry's signature, "" when it is right or there is none."""
    if not entry.signer and not entry.signature:
        return ""
    return (
        ""
        if is_signed(entry.signer, entry.signature, entry.digest)
        else "its signature is not of who is said to have signed it"
    )


def broken_links(entries: Iterable[StoredEntry]) -> tuple[tuple[int, str], ...]:
    """Where the log is not what was written: the number of the entry, and what is wrong there.

    An entry that was changed breaks its own digest; one that was taken out or put in breaks the one behind it.
    Entries cut off at the end leave no trace here.
    """
    faults: list[tuple[int, str]] = []
    before = FIRST_DIGEST
    for entry in entries:
        if entry.digest != digest_of(entry, before):
            faults.append((entry.number, "it was changed, or what stood before it was"))
        before = entry.digest
    return tuple(faults)
