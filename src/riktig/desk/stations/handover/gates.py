"""What is decided at the end: an issue, the dispatch, as built, the evidence in one archive, work on site."""

from collections.abc import Callable
from pathlib import Path

from riktig.core.edits import SetHeading
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue
from riktig.core.handover import (
    Missing,
    PackContents,
    as_built_entry,
    dispatch_entry,
    evidence_files,
    issue_entry,
    last_issue,
    missing_of,
    next_letter,
    photos_of,
    site_entry,
    write_pack,
)
from riktig.core.production import may_not_sign
from riktig.core.records import NewRecord, ServiceVisit
from riktig.core.store import dump_whole
from riktig.core.work import Progress
from riktig.desk.session import Session

__all__ = ["HandoverGates"]


class HandoverGates:
    """Asks who may, records it, and says why not.

    Args:
        session: The job at hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session

    def _may(self, what: str) -> bool:
        session = self._session
        why = may_not_sign(session.who, session.job.people)
        if why:
            session.say(f"{what}: {why}.", wrong=True)
        return not why

    def missing(self) -> tuple[Missing, ...]:
        """What is missing, as this bench knows it."""
        session = self._session
        return missing_of(session.evaluation, session.records, session.out_of_step)

    @property
    def letter(self) -> str:
        """The letter of the next issue: that of the job before the first, then the one after the last."""
        issue = last_issue(self._session.records)
        return next_letter(issue.facts.letter) if issue else self._session.job.revision or next_letter("")

    def issue(self, letter: str, why: str) -> bool:
        """Issues the job under a letter; False when it was not, which is said."""
        session = self._session
        if not letter.strip() or not why.strip():
            session.say("Not issued: an issue needs a letter and a reason.", wrong=True)
            return False
        if not self._may("Not issued"):
            return False
        heading = SetHeading({"revision": letter.strip()})
        if letter.strip() != session.job.revision and not session.edit(f"revision {letter}", heading):
            return False
        number = session.file.revision() if session.file else 0
        entry = issue_entry(session.job, why.strip(), document=number, entries=len(session.records))
        return session.record_all([entry])

    def dispatch(self, to: str, reason: str) -> bool:
        """Lets the panel leave; False when it did not, which is said."""
        session = self._session
        return self._may("Not dispatched") and self._record(
            lambda: dispatch_entry(session.job, to, reason, self.missing())
        )

    def close_as_built(self) -> bool:
        """Closes the panel as built; False while anything is open, which is said."""
        session = self._session
        return self._may("Not closed as built") and self._record(
            lambda: as_built_entry(session.job, session.records, self.missing())
        )

    def done_on_site(self, what: str, result: str) -> bool:
        """Ticks an item of the site list, with what came of it."""
        if not result.strip():
            self._session.say("Not noted: say what came of it on site.", wrong=True)
            return False
        return self._session.record_all([site_entry(what, result.strip())])

    def visit(self, facts: ServiceVisit) -> bool:
        """Notes a service visit."""
        if not facts.called_for.strip() or not facts.done.strip():
            self._session.say("Not noted: say why somebody came, and what was found and done.", wrong=True)
            return False
        return self._session.record_all([NewRecord("visit", facts)])

    def _record(self, entry: Callable[[], NewRecord]) -> bool:
        try:
            made = entry()
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return False
        return self._session.record_all([made])

    def pack(self, path: Path) -> Callable[[Progress], object]:
        """What writes the evidence of this panel into one archive, to be run aside.

        Raises:
            RiktigError: a photo that the record names is not in the file.
        """
        session = self._session
        job, records, made, who = session.job, session.records, session.clock()[:10], session.who
        file = session.file
        whole = dump_whole(file, indent=True) if file else ""
        photos = photos_of(file, records) if file else {}

        def write(progress: Progress) -> object:
            files = evidence_files(Evaluation(job), records, Issue(made, who, whole), photos, progress)
            write_pack(path, PackContents(job, records, files, made, who))
            return path

        return write
