"""Derived results, kept by identity.

The document is frozen, so a result is out of date exactly when one of the objects it was
computed from *is not* the object of now. A ``Derived`` says once what it reads and how it is
computed; a ``Plan`` computes on demand and keeps. When a recomputed value equals the old one,
the old object is handed out again, so that whatever reads it stays valid too.
"""

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar, cast

__all__ = ["Derived", "Memo", "Plan", "Recent"]

T = TypeVar("T")
Doc = TypeVar("Doc")


@dataclass(frozen=True, eq=False)
class Derived(Generic[T]):
    """A derived result: its name, what it reads, and the pure function that computes it.

    ``reads`` holds other ``Derived`` or functions of the document that hand out a part of it
    (never build one: a new object each time would defeat the keeping).
    """

    name: str
    reads: "tuple[Derived[Any] | Callable[[Any], object], ...]"
    compute: Callable[..., T]


@dataclass(slots=True)
class _Kept:
    inputs: tuple[object, ...]
    value: object


class Plan(Generic[Doc]):
    """Everything derived from one document at a time.

    Not for several threads at once: slow work takes its inputs with ``inputs_of`` and hands the
    result back with ``offer``, which refuses it when the inputs have changed meanwhile.
    """

    def __init__(self, document: Doc, check: Callable[[], None] = lambda: None) -> None:
        self._document = document
        self._kept: dict[Derived[Any], _Kept] = {}
        self._check = check
        self._order: list[Derived[Any]] = []
        self.computed = 0

    def fork(self, check: Callable[[], None]) -> "Plan[Doc]":
        """A plan of the same document for another thread, with what this one has so far.

        Args:
            check: Called ahead of every computation; may raise to end the work.
        """
        other = Plan(self._document, check)
        other._kept = dict(self._kept)
        return other

    def adopt(self, other: "Plan[Doc]") -> None:
        """Takes what a fork computed, as far as it is true of the present document."""
        for derived in other._order:
            kept = other._kept[derived]
            mine = self._kept.get(derived)
            if (mine is None or mine.value is not kept.value) and self._inputs_kept(derived):
                self.offer(derived, kept.inputs, kept.value)

    def has(self, derived: Derived[Any]) -> bool:
        """Whether a result is there that is true of the document of now, so that asking for it costs nothing."""
        return self._is_valid(derived)

    def _inputs_kept(self, derived: Derived[Any]) -> bool:
        """Whether nothing would have to be computed to know a result's inputs."""
        return all(not isinstance(read, Derived) or self._is_valid(read) for read in derived.reads)

    def _is_valid(self, derived: Derived[Any]) -> bool:
        kept = self._kept.get(derived)
        if kept is None or not self._inputs_kept(derived):
            return False
        return _same_objects(kept.inputs, self.inputs_of(derived))

    @property
    def document(self) -> Doc:
        """The document the results are of."""
        return self._document

    def move_to(self, document: Doc) -> None:
        """Turns to another document; what its unchanged parts gave is kept."""
        self._document = document

    def inputs_of(self, derived: Derived[Any]) -> tuple[object, ...]:
        """The present inputs of a result, in the order of ``reads``."""
        return tuple(self.get(read) if isinstance(read, Derived) else read(self._document) for read in derived.reads)

    def get(self, derived: Derived[T]) -> T:
        """The result for the present document, computed only if an input is a new object."""
        inputs = self.inputs_of(derived)
        kept = self._kept.get(derived)
        if kept is not None and _same_objects(kept.inputs, inputs):
            return cast(T, kept.value)
        self._check()
        value = derived.compute(*inputs)
        self.computed += 1
        self._order.append(derived)
        if kept is not None and kept.value == value:
            value = kept.value
        self._kept[derived] = _Kept(inputs, value)
        return value

    def offer(self, derived: Derived[T], inputs: tuple[object, ...], value: T) -> bool:
        """Takes a result computed elsewhere; refuses it (False) if its inputs are no longer."""
        if not _same_objects(self.inputs_of(derived), inputs):
            return False
        self._kept[derived] = _Kept(inputs, value)
        return True


def _same_objects(left: tuple[object, ...], right: tuple[object, ...]) -> bool:
    return len(left) == len(right) and all(a is b for a, b in zip(left, right, strict=True))


class Memo(Generic[T]):
    """Values kept by name, each as long as what it was computed from is equal: unchanged parts are not made again.

    Frozen parts that an edit left alone are the same objects, so comparing them costs next to
    nothing. Not for several threads writing one name at a time: the later value stays, and both are right.

    Args:
        most: How many are kept; beyond, all are dropped and made again when they are asked for.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: dict[Hashable, tuple[tuple[object, ...], T]] = {}

    def get(self, name: Hashable, inputs: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The kept value, or a new one when an input differs."""
        kept = self._kept.get(name)
        if kept is not None and kept[0] == inputs:
            return kept[1]
        value = compute()
        if len(self._kept) >= self._most:
            self._kept.clear()
        self._kept[name] = (inputs, value)
        return value

    def clear(self) -> None:
        """Forgets everything, to measure how long it takes anew."""
        self._kept.clear()


class Recent(Generic[T]):
    """The last few values of a slow function, found again when it is asked with the very same objects.

    An edit derives a document that is derived again for the screen: the second time costs nothing.
    """

    def __init__(self, most: int = 4) -> None:
        self._most = most
        self._kept: list[tuple[tuple[object, ...], T]] = []

    def get(self, inputs: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The kept value of these inputs, or a new one."""
        for kept in self._kept:
            if _same_objects(kept[0], inputs):
                return kept[1]
        return self.put(inputs, compute())

    def put(self, inputs: tuple[object, ...], value: T) -> T:
        """Keeps a value that is known to be that of these inputs."""
        self._kept = [(inputs, value), *self._kept[: self._most - 1]]
        return value

    def clear(self) -> None:
        """Forgets everything, to measure how long it takes anew."""
        self._kept = []
