"""The digest of a job says what is said in it, and nothing of what a later version could ask."""

import hashlib
from dataclasses import replace

from riktig.core.handover import digest_of_job, is_digest_of
from riktig.core.job import DesignReason, Job, change_load, set_practice
from riktig.core.store import dump_job
from riktig.demo_job import wash_drum


def test_a_job_of_which_nothing_is_said_has_the_digest_of_nothing() -> None:
    """SHA-256 of an empty object: no default of any field is in it (hashlib, Python's own)."""
    assert digest_of_job(Job()) == hashlib.sha256(b"{}").hexdigest()


def test_a_value_that_is_set_to_what_it_is_anyway_changes_nothing() -> None:
    job = wash_drum()
    assert digest_of_job(set_practice(job, spare_share=job.practice.spare_share)) == digest_of_job(job)
    assert digest_of_job(replace(job, reasons=())) == digest_of_job(job)


def test_whatever_is_said_changes_it() -> None:
    job = wash_drum()
    others = [
        set_practice(job, spare_share=job.practice.spare_share + 0.1),
        change_load(job, job.loads[0].id, kw=(job.loads[0].kw or 0.0) + 0.1),
        replace(job, reasons=(DesignReason("device:c1.K", "it was there"),)),
        replace(job, tags=()),
    ]
    assert len({digest_of_job(each) for each in (job, *others)}) == 5


def test_an_issue_of_the_version_before_still_holds() -> None:
    """It took the digest of the whole text, which had no design reasons, and no word of circuits that were found."""
    job = wash_drum()
    text = dump_job(replace(job, printed=(), label_sheets=(), purchases=()))
    text = text.replace(',"reasons":[]', "").replace(',"found":false', "")
    assert '"reasons"' not in text and '"found"' not in text
    before = hashlib.sha256(text.encode()).hexdigest()
    assert is_digest_of(before, job)
    assert not is_digest_of(before, replace(job, reasons=(DesignReason("device:c1.K", "it was there"),)))
    assert not is_digest_of(before, replace(job, revision="Z"))
