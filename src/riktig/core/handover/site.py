"""The list that travels to the site: what of it was done there, and by whom."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from riktig.core.records import NewRecord, Record, SiteItemDone, log_of

__all__ = ["SiteState", "site_entry", "site_states"]


@dataclass(frozen=True, slots=True)
class SiteState:
    """An item of the list: what is to be done, why, and the entry that says it was."""

    what: str
    why: str
    done: Record | None


def _subject(what: str) -> str:
    return f"site:{what}"


def site_states(items: Sequence[tuple[str, str]], records: Iterable[Record]) -> tuple[SiteState, ...]:
    """Every item of the list with what came of it; an item whose words have changed is to be done again.

    Args:
        items: What is left for the site, and why.
        records: The log, oldest first.
    """
    done = {record.subject: record for record in log_of(records).standing(SiteItemDone)}
    return tuple(SiteState(what, why, done.get(_subject(what))) for what, why in items)


def site_entry(what: str, result: str) -> NewRecord:
    """What the log gets when an item was done on site.

    Args:
        what: The item, as the list has it.
        result: What came of it.
    """
    return NewRecord(_subject(what), SiteItemDone(what, result))
