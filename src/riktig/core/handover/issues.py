"""Issues of a job: what was given out under a letter, and whether the job is still that."""

import hashlib
import json
from collections.abc import Iterable
from dataclasses import MISSING, Field, dataclass, fields, is_dataclass, replace
from enum import Enum

from riktig.core.job import Job
from riktig.core.records import JobIssued, NewRecord, PapersWritten, Record, log_of
from riktig.core.store import dump_job

__all__ = [
    "Issued",
    "digest_of_job",
    "is_digest_of",
    "is_issued_now",
    "issue_entry",
    "issues_of",
    "last_issue",
    "next_letter",
    "papers_are_of_now",
    "papers_entry",
]

LETTERS = "ABCDEFGHJKLMNPRSTUVWY"
"""Revision letters: without I, O, Q, X and Z, which are read as other signs (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Issued:
    """An issue: the entry of the log, and what it says."""

    record: Record
    facts: JobIssued


def digest_of_job(job: Job) -> str:
    """SHA-256 of what is said in the job, in hexadecimal: what stands at its default is no part of it.

    So a job that nobody changed keeps its digest when a later version of Riktig knows of more to say. Which numbers are
    printed, what is used of a sheet of labels, and what purchasing knows are no part of it either: the panel is the
    same.
    """
    panel = replace(job, printed=(), label_sheets=(), purchases=())
    return hashlib.sha256(json.dumps(_stated_fields(panel), ensure_ascii=False, sort_keys=True).encode()).hexdigest()


def is_digest_of(digest: str, job: Job) -> bool:
    """Whether a digest is that of a job, also as versions before the design reasons made it: of the whole text."""
    if digest == digest_of_job(job):
        return True
    panel = replace(job, printed=(), label_sheets=(), purchases=())
    whole = dump_job(panel).replace(',"reasons":[]', "").replace(',"found":false', "")
    return digest == hashlib.sha256(whole.encode()).hexdigest()


def _stated_fields(value: object) -> object:
    """A value as plain data, the fields of every object that stand at their default left out."""
    if is_dataclass(value) and not isinstance(value, type):
        field_values = {field.name: getattr(value, field.name) for field in fields(value) if field.init}
        defaults = {field.name: _default(field) for field in fields(value) if field.init}
        return {
            name: _stated_fields(entry)
            for name, entry in field_values.items()
            if name not in defaults or entry != defaults[name]
        }
    if isinstance(value, tuple | list):
        return [_stated_fields(entry) for entry in value]
    if isinstance(value, Enum):
        return value.value
    return value if isinstance(value, str | int | float | bool) or value is None else str(value)


def _default(field: "Field[object]") -> object:
    """What a field holds where nothing is said; the field itself where something must be."""
    if field.default is not MISSING:
        return field.default
    return field.default_factory() if field.default_factory is not MISSING else field


def issues_of(records: Iterable[Record]) -> tuple[Issued, ...]:
    """All issues, oldest first; those that were withdrawn are left out.

    Args:
        records: The log, oldest first.
    """
    return tuple(Issued(record, issued) for record, issued in log_of(records).said(JobIssued))


def last_issue(records: Iterable[Record]) -> Issued | None:
    """The issue that holds; None before the first."""
    issues = issues_of(records)
    return issues[-1] if issues else None


def is_issued_now(job: Job, records: Iterable[Record]) -> bool:
    """Whether the job of now is the one of the last issue, with its letter.

    Args:
        job: The job of now.
        records: The log, oldest first.
    """
    issue = last_issue(records)
    return issue is not None and issue.facts.letter == job.revision and is_digest_of(issue.facts.digest, job)


def next_letter(letter: str) -> str:
    """The letter after one: A, B … Y, AA, AB; of what is no letter the first.

    Args:
        letter: The letter of now.
    """
    if not letter or any(sign not in LETTERS for sign in letter):
        return LETTERS[0]
    places = [LETTERS.index(sign) for sign in letter]
    for at in range(len(places) - 1, -1, -1):
        if places[at] + 1 < len(LETTERS):
            places[at] += 1
            return "".join(LETTERS[place] for place in places)
        places[at] = 0
    return LETTERS[0] * (len(places) + 1)


def issue_entry(job: Job, why: str, *, document: int, entries: int) -> NewRecord:
    """What the log gets when the job is issued under the letter it has.

    Args:
        job: The job of now.
        why: Why it is issued.
        document: The revision of the file that holds this job.
        entries: How many entries the log has.
    """
    return NewRecord("issue", JobIssued(job.revision, why, document, entries, digest_of_job(job)))


def papers_entry(job: Job, files: int, folder: str) -> NewRecord:
    """What the log gets when the papers of a job were written.

    Args:
        job: The job of which they were written.
        files: How many files.
        folder: Where they are.
    """
    return NewRecord("papers", PapersWritten(digest_of_job(job), job.revision, files, folder))


def papers_are_of_now(job: Job, records: Iterable[Record]) -> bool:
    """Whether the papers that were written last are those of the job of now.

    Args:
        job: The job of now.
        records: The log, oldest first.
    """
    written = log_of(records).said(PapersWritten)
    return bool(written) and is_digest_of(written[-1][1].digest, job)
