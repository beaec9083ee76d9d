"""What is recorded when a panel leaves the house and after: issues, papers, dispatch, work on site, service."""

import msgspec

__all__ = ["AsBuiltClosed", "JobIssued", "PanelDispatched", "PapersWritten", "ServiceVisit", "SiteItemDone"]


class JobIssued(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="issued"):
    """The job was issued under a letter: why, of which ``document`` (revision of the file) and how many ``entries``.

    ``digest`` is the SHA-256 of the job as it was then: whoever has it can tell whether a job is that issue.
    """

    letter: str = ""
    why: str = ""
    document: int = 0
    entries: int = 0
    digest: str = ""


class PapersWritten(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="papers written"):
    """The papers were written: of which job (SHA-256), under which revision letter, how many files, and where to."""

    digest: str = ""
    letter: str = ""
    files: int = 0
    folder: str = ""


class PanelDispatched(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="dispatched"):
    """The panel left the house: to whom, under which serial number; why although something was open, and what was."""

    to: str = ""
    serial: str = ""
    reason: str = ""
    open_work: str = ""


class SiteItemDone(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="site item"):
    """Something that was left for the site was done there: what it was, and what came of it."""

    what: str = ""
    result: str = ""


class ServiceVisit(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="service visit"):
    """Somebody came to look after the panel: why he was called, what he found and did, which parts, what comes next."""

    called_for: str = ""
    done: str = ""
    parts: str = ""
    next_visit: str = ""


class AsBuiltClosed(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="as built"):
    """Nothing is open any more: the job (SHA-256) is what hangs on the wall under this serial number."""

    serial: str = ""
    digest: str = ""
