from .change_sheet import write_change_sheet
from .compare import COMPARED, compare_drawings, compare_jobs, draw_compared
from .dispatch import Dispatched, as_built_entry, as_built_of, dispatch_entry, dispatched_of, is_as_built, visits_of
from .issues import (
    Issued,
    digest_of_job,
    is_digest_of,
    is_issued_now,
    issue_entry,
    issues_of,
    last_issue,
    next_letter,
    papers_are_of_now,
    papers_entry,
)
from .job_index import FoundJob, JobIndex
from .missing import Missing, MissingFor, missing_of, missing_words
from .pack import MANIFEST, PACK_FORMAT, PackContents, PackReport, check_pack, evidence_files, photos_of, write_pack
from .site import SiteState, site_entry, site_states

__all__ = [
    "COMPARED",
    "MANIFEST",
    "PACK_FORMAT",
    "Dispatched",
    "FoundJob",
    "Issued",
    "JobIndex",
    "Missing",
    "MissingFor",
    "PackContents",
    "PackReport",
    "SiteState",
    "as_built_entry",
    "as_built_of",
    "check_pack",
    "compare_drawings",
    "compare_jobs",
    "digest_of_job",
    "dispatch_entry",
    "dispatched_of",
    "draw_compared",
    "evidence_files",
    "is_as_built",
    "is_digest_of",
    "is_issued_now",
    "issue_entry",
    "issues_of",
    "last_issue",
    "missing_of",
    "missing_words",
    "next_letter",
    "papers_are_of_now",
    "papers_entry",
    "photos_of",
    "site_entry",
    "site_states",
    "visits_of",
    "write_change_sheet",
    "write_pack",
]
