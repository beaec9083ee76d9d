"""Issues of a job: what was given out under a letter, and whether the job is still that."""

import hashlib
from collections.abc import Iterable
from dataclasses import dataclass, replace

from riktig.core.job import Job
from riktig.core.records import JobIssued, NewRecord, PapersWritten, Record, log_of
from riktig.core.store import dump_job

__all__ = [
    "Issued",
    "digest_of_job",
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
    """SHA-256 of the job as it is written, in hexadecimal.

    Which numbers are printed, what is used of a sheet of labels, and what purchasing knows are no part of it: the panel
    is the same.
    """
    panel = replace(job, printed=(), label_sheets=(), purchases=())
    return hashlib.sha256(dump_job(panel).encode()).hexdigest()


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
    return issue is not None and issue.facts.letter == job.revision and issue.facts.digest == digest_of_job(job)


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
    return bool(written) and written[-1][1].digest == digest_of_job(job)
