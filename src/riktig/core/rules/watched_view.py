"""A view that keeps what is read of it, so that after an edit only those clauses are judged that read something new."""

from collections.abc import Callable
from dataclasses import fields
from typing import TypeVar, cast

from riktig.core.rules.view import View

__all__ = ["WatchedView"]

T = TypeVar("T")
FIELDS = frozenset(field.name for field in fields(View) if field.init) | {"rulebook", "laid"}
"""The parts of a panel, and what is asked of several of them in one: that may be the same though a part is another."""


class WatchedView(View):
    """A panel as derived that writes down which of its parts are read.

    Method:
        One reader at a time: ``watch`` begins anew, ``read`` says what was read since. What several clauses share
        by ``once`` is worked out at the first, and counts as read by every clause that asks for it.

    Args:
        view: The panel as derived.
    """

    __slots__ = ("_reads", "_reads_of", "_view")

    def __init__(self, view: View) -> None:
        object.__setattr__(self, "_view", view)
        object.__setattr__(self, "_reads", set())
        object.__setattr__(self, "_reads_of", {})
        object.__setattr__(self, "_once", {})

    def __getattribute__(self, name: str) -> object:
        if name in FIELDS:
            object.__getattribute__(self, "_reads").add(name)
            return getattr(object.__getattribute__(self, "_view"), name)
        return object.__getattribute__(self, name)

    def watch(self) -> None:
        """Begins to write down anew."""
        object.__setattr__(self, "_reads", set())

    def read(self) -> tuple[str, ...]:
        """What was read since ``watch``, in the order of the names."""
        return tuple(sorted(cast("set[str]", object.__getattribute__(self, "_reads"))))

    def once(self, compute: Callable[[View], T]) -> T:
        """What several clauses ask of this panel, worked out at the first, with what that read."""
        kept = self._once
        reads_of = cast("dict[object, set[str]]", object.__getattribute__(self, "_reads_of"))
        if compute not in kept:
            before = cast("set[str]", object.__getattribute__(self, "_reads"))
            self.watch()
            kept[compute] = compute(self)
            reads_of[compute] = cast("set[str]", object.__getattribute__(self, "_reads"))
            object.__setattr__(self, "_reads", before)
        cast("set[str]", object.__getattribute__(self, "_reads")).update(reads_of[compute])
        return cast("T", kept[compute])
