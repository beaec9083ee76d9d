"""Days and moments as they stand in records, in ISO 8601: read and compared, never taken from a clock."""

from datetime import UTC, date, datetime

__all__ = ["is_day", "minutes_between"]


def is_day(text: str) -> bool:
    """Whether a text is a day, such as 2027-03-31."""
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return True


def minutes_between(earlier: str, later: str) -> float | None:
    """The minutes from one moment to another; None where one of them is no moment.

    A moment without a zone is taken for universal time.

    Args:
        earlier: The first moment.
        later: The second; before the first the minutes are negative.
    """
    try:
        first, second = (datetime.fromisoformat(text) for text in (earlier, later))
    except ValueError:
        return None
    moments = [at.replace(tzinfo=UTC) if at.tzinfo is None else at for at in (first, second)]
    return (moments[1] - moments[0]).total_seconds() / 60
