"""A view that keeps what is read of it, so that after an edit only those clauses are judged that read something new."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, fields
from typing import TypeVar, cast

from riktig.core.job import Practice
from riktig.core.rules.view import View

__all__ = ["Shared", "WatchedView", "value_read"]

T = TypeVar("T")
FIELDS = frozenset(field.name for field in fields(View) if field.init) | {"rulebook", "laid"}
"""The parts of a panel, and what is asked of several of them in one: that may be the same though a part is another."""


CHOICES = frozenset(field.name for field in fields(Practice))
"""What practice chooses: of a hundred choices a clause reads a few, and the others may change."""


@dataclass(frozen=True, slots=True)
class Shared:
    """What several clauses ask in one: the result, with what it read and how that was."""

    result: object
    read: tuple[str, ...]
    values: tuple[object, ...]


def value_read(view: View, name: str) -> object:
    """A part of a panel, or a choice of its practice, by the name under which it was written down."""
    part, _, choice = name.partition(".")
    value: object = getattr(view, part)
    return getattr(value, choice) if choice else value


class _WatchedPractice(Practice):
    """A practice that writes down which of its choices are read."""

    __slots__ = ("_note", "_practice")

    def __init__(self, practice: Practice, note: Callable[[str], None]) -> None:
        object.__setattr__(self, "_practice", practice)
        object.__setattr__(self, "_note", note)

    def __getattr__(self, name: str) -> object:
        if name not in CHOICES:
            raise AttributeError(name)
        value: object = getattr(object.__getattribute__(self, "_practice"), name)
        object.__setattr__(self, name, value)
        object.__getattribute__(self, "_note")(f"practice.{name}")
        return value


class WatchedView(View):
    """A panel as derived that writes down which of its parts are read.

    Method:
        One reader at a time: ``watch`` begins anew, ``read`` says what was read since. A part is fetched when it is
        first read, which is written down, and stands here until ``watch``: a clause reads the same part thousands of
        times. What several clauses share by ``once`` is worked out at the first, and counts as read by every clause
        that asks for it.

    Args:
        view: The panel as derived.
        shared: What clauses asked in one of an earlier view, where all that it read is the same.
    """

    __slots__ = (
        "_here",
        "_reads",
        "_reads_of",
        "_view",
        "laid",
        "rulebook",
    )  # the last two hide the properties of a view

    def __init__(self, view: View, shared: Mapping[object, Shared] | None = None) -> None:
        across_views = shared or {}
        object.__setattr__(self, "_view", view)
        object.__setattr__(self, "_reads", set())
        object.__setattr__(self, "_here", set())
        object.__setattr__(self, "_reads_of", {compute: set(entry.read) for compute, entry in across_views.items()})
        object.__setattr__(self, "_once", {compute: entry.result for compute, entry in across_views.items()})

    def __getattr__(self, name: str) -> object:
        if name not in FIELDS:
            raise AttributeError(name)
        value = getattr(object.__getattribute__(self, "_view"), name)
        if name == "practice":
            value = _WatchedPractice(value, lambda choice: self._written.add(choice))
        else:
            self._written.add(name)
        object.__setattr__(self, name, value)
        self._standing.add(name)
        return value

    @property
    def _standing(self) -> set[str]:
        return cast("set[str]", object.__getattribute__(self, "_here"))

    @property
    def _written(self) -> set[str]:
        return cast("set[str]", object.__getattribute__(self, "_reads"))

    def watch(self) -> None:
        """Begins to write down anew."""
        for name in self._standing:
            object.__delattr__(self, name)
        object.__setattr__(self, "_here", set())
        object.__setattr__(self, "_reads", set())

    def read(self) -> tuple[str, ...]:
        """What was read since ``watch``, in the order of the names."""
        return tuple(sorted(self._written))

    def once(self, compute: Callable[[View], T]) -> T:
        """What several clauses ask of this panel, worked out at the first, with what that read."""
        answers = self._once
        reads_of = cast("dict[object, set[str]]", object.__getattribute__(self, "_reads_of"))
        if compute not in answers:
            before = self._written
            self.watch()
            answers[compute] = compute(self)
            reads_of[compute] = self._written
            self.watch()
            self._written.update(before)
        self._written.update(reads_of[compute])
        return cast("T", answers[compute])

    def shared(self) -> dict[object, Shared]:
        """What clauses asked in one, to be kept for the next view."""
        view = cast("View", object.__getattribute__(self, "_view"))
        reads_of = cast("dict[object, set[str]]", object.__getattribute__(self, "_reads_of"))
        shared: dict[object, Shared] = {}
        for compute, result in self._once.items():
            read = tuple(sorted(reads_of[compute]))
            shared[compute] = Shared(result, read, tuple(value_read(view, name) for name in read))
        return shared
