"""The job file: SQLite with revisions of the job and an append-only log of records.

Words: a *revision* is the job after one edit; the *log* holds what was done and read; whatever
is *confirmed* survives a crash.
"""

from riktig.core.store.copies import go_on_from_text, go_on_in_copy
from riktig.core.store.job_file import JobFile, Revision
from riktig.core.store.job_json import dump_job, load_job
from riktig.core.store.keys import signer_of
from riktig.core.store.rung_file import RUNG_FORMAT, WrittenCircuit, dump_rungs, load_rungs
from riktig.core.store.schema import APPLICATION_ID, FORMAT, SCHEMA
from riktig.core.store.user_practice import keep_user_practice, user_practice

__all__ = [
    "APPLICATION_ID",
    "FORMAT",
    "RUNG_FORMAT",
    "SCHEMA",
    "JobFile",
    "Revision",
    "WrittenCircuit",
    "dump_job",
    "dump_rungs",
    "go_on_from_text",
    "go_on_in_copy",
    "keep_user_practice",
    "load_job",
    "load_rungs",
    "signer_of",
    "user_practice",
]
