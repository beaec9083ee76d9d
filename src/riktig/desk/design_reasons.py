"""A design reason that is asked for and kept in the job: why a thing is as it is."""

from riktig.core.edits import ChangeLoad, GiveReason, TakeReason
from riktig.core.keys import Key, LoadKey
from riktig.core.views import thing_subject
from riktig.desk.session import Session

__all__ = ["keep_reason", "reason_now"]


def reason_now(session: Session, key: Key) -> str:
    """The reason that is kept of a thing; "" for none."""
    job = session.job
    if isinstance(key, LoadKey):
        return next((load.reason for load in job.loads if load.id == key.load), "")
    thing = thing_subject(key)
    return next((given.reason for given in job.reasons if given.thing == thing), "")


def keep_reason(session: Session, key: Key, text: str, label: str) -> bool:
    """Keeps why a thing is as it is; an empty text takes the reason out. A load's reason stands in the Brief too.

    Args:
        session: What the window works on.
        key: The thing.
        text: The reason.
        label: What the thing is called.

    Returns:
        Whether the job says so now.
    """
    words, name = text.strip(), f"design reason of {label}"
    if words == reason_now(session, key):
        return True
    if isinstance(key, LoadKey):
        return session.edit(name, ChangeLoad(key.load, {"reason": words}))
    thing = thing_subject(key)
    is_kept = session.edit(name, GiveReason(thing, words, session.who) if words else TakeReason(thing))
    if is_kept:
        session.say(f"The reason of {label} {'is kept, and printed in the customer’s set' if words else 'is out'}.")
    return is_kept
