"""Edits of the people who work on a panel."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, Person

__all__ = ["RemovePerson", "SetPerson"]


@dataclass(frozen=True)
class SetPerson:
    """A person of the job; one with the same initials is changed."""

    person: Person

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the person.

        Raises:
            RiktigError: another person has that badge or name.
        """
        job, new = evaluation.document, self.person
        others = tuple(person for person in job.people if person.initials.casefold() != new.initials.casefold())
        for person in others:
            if new.badge and person.badge == new.badge:
                raise RiktigError(f"That badge is {person.name}'s, so nobody was changed.")
            if person.name.casefold() == new.name.casefold():
                raise RiktigError(
                    f"{person.name} is among the people already, as {person.initials}, so nobody was changed.",
                    hint="One person has one name in the record: give the second one's name in full.",
                )
        return replace(job, people=(*others, new))


@dataclass(frozen=True)
class RemovePerson:
    """A person taken out; what he recorded stays."""

    initials: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the person.

        Raises:
            RiktigError: there is none with these initials.
        """
        job = evaluation.document
        others = tuple(person for person in job.people if person.initials.casefold() != self.initials.casefold())
        if len(others) == len(job.people):
            raise RiktigError(f"Nobody has the initials {self.initials}, so nobody was taken out.")
        return replace(job, people=others)
