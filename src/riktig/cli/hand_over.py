"""The commands of hand-over: what is missing, comparisons, panels of a series, evidence, finding a job again."""

import argparse
import getpass
import json
from dataclasses import replace
from pathlib import Path

from riktig.cli.files import read_job, signer_for
from riktig.cli.words import now_text
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue
from riktig.core.handover import (
    JobIndex,
    MissingFor,
    PackContents,
    check_pack,
    compare_jobs,
    evidence_files,
    issues_of,
    last_issue,
    missing_of,
    photos_of,
    write_pack,
)
from riktig.core.inputs import file_name
from riktig.core.job import Job
from riktig.core.store import JobFile, dump_whole, job_schema
from riktig.places import index_file, jobs_folder

__all__ = ["compare", "find", "missing", "pack", "schema", "series"]


def missing(arguments: argparse.Namespace) -> int:
    """Says what is missing."""
    evaluation, file = read_job(arguments.file)
    items = missing_of(evaluation, file.records())
    file.close()
    if arguments.json:
        rows = [
            {"text": i.text, "station": i.station, "key": str(i.key or ""), "for": i.needed_for.value} for i in items
        ]
        print(json.dumps(rows, ensure_ascii=False, indent=1))
    else:
        for item in items:
            print(f"{item.needed_for.value}: {item.text} ({item.station})")
        print(f"{len(items)} things are missing" if items else "nothing of what Riktig looks at is missing")
    return 1 if any(item.needed_for is MissingFor.DISPATCH for item in items) else 0


def compare(arguments: argparse.Namespace) -> int:
    """Says what differs."""
    after, file = read_job(arguments.before)
    before = after
    if arguments.issue:
        issues = [issue for issue in issues_of(file.records()) if issue.facts.letter == arguments.issue]
        if not issues or not issues[-1].facts.document:
            file.close()
            raise RiktigError(f"{arguments.before.name} has no issue {arguments.issue}.")
        before = Evaluation(file.job_at(issues[-1].facts.document))
    file.close()
    if arguments.after is not None:
        after, other = read_job(arguments.after)
        other.close()
    elif not arguments.issue:
        raise RiktigError("There is nothing to compare with.", hint="Name a second job, or an issue with --issue.")
    rows = compare_jobs(before, after).rows
    for listed, change, was, now in rows:
        print(f"{listed}: {change}: {was or now}" if not (was and now) else f"{listed}: {change}: {was} → {now}")
    print(f"{len(rows)} differences")
    return 0


def series(arguments: argparse.Namespace) -> int:
    """Makes a job file for each further panel: the same design, a record of its own."""
    evaluation, file = read_job(arguments.file)
    job, issue = evaluation.document, last_issue(file.records())
    file.close()
    folder: Path = arguments.folder or arguments.file.parent
    who = getpass.getuser()
    of = f"issue {issue.facts.letter}" if issue else f"revision {job.revision}"
    for serial in dict.fromkeys(arguments.serials):
        if serial == job.serial:
            raise RiktigError(
                f"{serial} is the serial number of {arguments.file.name} itself; no file was made for it."
            )
        path = folder / f"{file_name(f'{job.number}_{serial}')}.riktig"
        further = replace(job, serial=serial, marks=replace(job.marks, number="", date=""))  # each panel has its own
        why = f"panel {serial} of the series {job.number}, {of} of {job.serial or 'the first'}"
        JobFile.create(path, further, who=who, at=now_text(), why=why, signer=signer_for(who)).close()
        print(f"{path} written")
    return 0


def pack(arguments: argparse.Namespace) -> int:
    """Writes an archive, or checks one."""
    if arguments.check:
        report = check_pack(arguments.file)
        for fault in report.faults:
            print(f"{arguments.file.name}: {fault}")
        words = "is what was packed" if report.is_whole else "is not what was packed"
        print(f"{report.number} {report.revision}, serial {report.serial}, {report.files} files: {words}")
        return 0 if report.is_whole else 1
    evaluation, file = read_job(arguments.file)
    job: Job = evaluation.document
    records, whole = tuple(file.records()), dump_whole(file, indent=True)
    made, who = now_text()[:10], getpass.getuser()
    try:
        photos = photos_of(file, records)
    finally:
        file.close()
    out = arguments.out or arguments.file.with_name(f"{file_name(job.serial or 'no_serial')}_evidence.zip")
    files = evidence_files(evaluation, records, Issue(made, who, whole), photos)
    write_pack(out, PackContents(job, records, files, made, who))
    print(f"{out} written, {len(files)} files")
    return 0


def find(arguments: argparse.Namespace) -> int:
    """Finds jobs in a folder; exit 1 when there is none."""
    folder = (arguments.folder or jobs_folder()).absolute()
    if not folder.is_dir():
        raise RiktigError(f"{folder} is no folder, so nothing was looked for.", hint="Name one with --folder.")
    index = JobIndex(index_file())
    index.refresh(folder)
    jobs = [job for job in index.find(" ".join(arguments.words)) if job.path.is_relative_to(folder)]
    for job in jobs:
        print(f"{job.serial or '–'}\t{job.number}\t{job.revision}\t{job.title}\t{job.client}\t{job.path}")
    return 0 if jobs else 1


def schema(arguments: argparse.Namespace) -> int:
    """Prints the JSON Schema of a job."""
    del arguments
    print(json.dumps(job_schema(), ensure_ascii=False, indent=1))
    return 0
