from .copies import go_on_from_text, go_on_in_copy
from .job_file import JobFile, Revision
from .job_json import dump_job, load_job
from .json_schema import job_schema
from .keys import signer_of
from .merge_jobs import BothChanged, Merged, merge_jobs
from .practice_file import keep_user_practice, user_practice
from .rung_file import RUNG_FORMAT, WrittenCircuit, dump_rungs, load_rungs
from .schema import APPLICATION_ID, FORMAT, SCHEMA
from .whole_json import Importer, dump_whole, load_whole
from .writing import Attachment

__all__ = [
    "APPLICATION_ID",
    "FORMAT",
    "RUNG_FORMAT",
    "SCHEMA",
    "Attachment",
    "BothChanged",
    "Importer",
    "JobFile",
    "Merged",
    "Revision",
    "WrittenCircuit",
    "dump_job",
    "dump_rungs",
    "dump_whole",
    "go_on_from_text",
    "go_on_in_copy",
    "job_schema",
    "keep_user_practice",
    "load_job",
    "load_rungs",
    "load_whole",
    "merge_jobs",
    "signer_of",
    "user_practice",
]
