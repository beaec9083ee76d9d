"""Derived results, kept by identity.

The document is frozen, so a result is out of date exactly when one of the objects it was
computed from *is not* the object of now. A ``Derived`` says once what it reads and how it is
computed; a ``Evaluation`` computes on demand and keeps. When a recomputed value equals the old one,
the old object is handed out again, so that whatever reads it stays valid too.

A result is declared by what it reads, in the order of the parameters of its function::

    LAYOUT = (reads(CIRCUITS) & SIZING & ENCLOSURE & PRACTICE).derive("layout", arrange)

The type checker compares every input with its parameter; ``derive`` compares their number, and
their classes where both are plain, when the module is imported.
"""

from abc import ABC, abstractmethod
from collections.abc import Callable, Hashable
from dataclasses import dataclass, replace
from inspect import Parameter, isclass, signature
from typing import Generic, TypeVar, TypeVarTuple, cast, get_type_hints

__all__ = ["Derived", "DocumentPart", "Evaluation", "Input", "KeyedCache", "Memory", "RecentCache", "reads"]

T = TypeVar("T")
T_co = TypeVar("T_co", covariant=True)
A = TypeVar("A")
Doc = TypeVar("Doc")
Ts = TypeVarTuple("Ts")


class Input(ABC, Generic[Doc, T_co]):
    """Something that a result reads: a part of the document, or another result."""

    gives: object = None
    """The class of its values, None when it is not known at run time."""

    @abstractmethod
    def value_in(self, evaluation: "Evaluation[Doc]") -> T_co:
        """The value for the document of a plan."""


@dataclass(frozen=True, eq=False)
class DocumentPart(Input[Doc, T_co]):
    """A part of the document.

    ``read`` hands out an object of the document and never builds one: a new object each time would
    defeat the keeping.
    """

    name: str
    read: Callable[[Doc], T_co]
    gives: object = None

    def value_in(self, evaluation: "Evaluation[Doc]") -> T_co:
        """The part of the plan's document."""
        return self.read(evaluation.document)


@dataclass(frozen=True, eq=False)
class Derived(Input[Doc, T_co]):
    """A derived result: its name, what it reads, and the pure function that computes it.

    Made by ``derive``. ``call`` takes the inputs in the order of ``sources``, and the memory of the plan.
    """

    name: str
    sources: tuple[Input[Doc, object], ...]
    call: "Callable[[Memory, tuple[object, ...]], T_co]"
    gives: object = None

    def value_in(self, evaluation: "Evaluation[Doc]") -> T_co:
        """The result, computed when it is not there."""
        return evaluation.get(self)


class _Reads(Generic[Doc, *Ts]):
    """What a result will read, in order."""

    def __init__(self, sources: tuple[Input[Doc, object], ...]) -> None:
        self._sources = sources

    def __and__(self, source: Input[Doc, A]) -> "_Reads[Doc, *Ts, A]":
        return _Reads((*self._sources, source))

    def derive(self, name: str, compute: Callable[[*Ts], T]) -> Derived[Doc, T]:
        """The result of that name, computed by a pure function of what is read.

        Raises:
            TypeError: the function takes other inputs than those.
        """
        gives = _checked(name, compute, self._sources)

        def call(memory: Memory, inputs: tuple[object, ...]) -> T:
            return compute(*cast("tuple[*Ts]", inputs))

        return Derived(name, self._sources, call, gives)

    def derive_with_memory(self, name: str, compute: "Callable[[Memory, *Ts], T]") -> Derived[Doc, T]:
        """As ``derive``, for a function that takes the memory of the plan first.

        The memory saves time and nothing else: with an empty one the function gives an equal value.

        Raises:
            TypeError: the function takes other inputs than those.
        """
        gives = _checked(name, compute, self._sources, leading=1)

        def call(memory: Memory, inputs: tuple[object, ...]) -> T:
            return compute(memory, *cast("tuple[*Ts]", inputs))

        return Derived(name, self._sources, call, gives)


def reads(source: Input[Doc, A]) -> _Reads[Doc, A]:
    """Begins the list of what a result reads; ``&`` adds to it."""
    return _Reads((source,))


def _checked(
    name: str, compute: Callable[..., object], sources: tuple[Input[Doc, object], ...], *, leading: int = 0
) -> object:
    """The class that a function gives, once its parameters behind the ``leading`` ones have been compared."""
    kinds = (Parameter.POSITIONAL_ONLY, Parameter.POSITIONAL_OR_KEYWORD)
    taken = [parameter for parameter in signature(compute).parameters.values() if parameter.kind in kinds][leading:]
    needed = sum(parameter.default is Parameter.empty for parameter in taken)
    if not needed <= len(sources) <= len(taken):
        raise TypeError(f"{name}: the function takes {needed} inputs, {len(sources)} are read")
    function = getattr(compute, "func", compute)
    hints = get_type_hints(function.__init__ if isclass(function) else function)
    for parameter, source in zip(taken, sources, strict=False):
        wanted = hints.get(parameter.name)
        if isclass(wanted) and isclass(source.gives) and not issubclass(source.gives, wanted):
            raise TypeError(f"{name}: {parameter.name} is {wanted.__name__}, what is read is {source.gives.__name__}")
    return function if isclass(function) else hints.get("return")


@dataclass(slots=True)
class _Kept:
    """A value with what it was computed from; ``seen`` is the stamp of the plan when that was last compared."""

    inputs: tuple[object, ...]
    value: object
    seen: int


class Evaluation(Generic[Doc]):
    """Everything derived from one document at a time.

    Every turn to another document gives the plan a new stamp; a result that was compared under the
    stamp of now is handed out without asking anything.

    Not for several threads at once: slow work takes a ``fork``, and ``adopt`` takes from it what is
    still true.

    Args:
        document: What everything is derived from.
        check: Called ahead of every computation; may raise to end the work.
        memory: What earlier computations left; a new one when nothing is handed in.
    """

    def __init__(self, document: Doc, check: Callable[[], None] = lambda: None, memory: "Memory | None" = None) -> None:
        self._document = document
        self._kept: dict[Input[Doc, object], _Kept] = {}
        self._check = check
        self._order: list[Derived[Doc, object]] = []
        self._stamp = 0
        self.memory = memory or Memory()
        self.computed = 0

    def fork(self, check: Callable[[], None]) -> "Evaluation[Doc]":
        """A plan of the same document for another thread, with what this one has so far.

        Args:
            check: Called ahead of every computation; may raise to end the work.
        """
        other = Evaluation(self._document, check, self.memory.copy())
        other._stamp = self._stamp
        other._kept = {derived: replace(result) for derived, result in self._kept.items()}
        return other

    def adopt(self, other: "Evaluation[Doc]") -> None:
        """Takes what a fork computed, as far as it is true of the present document."""
        for derived in other._order:
            result = other._kept[derived]
            own_kept = self._kept.get(derived)
            if (own_kept is None or own_kept.value is not result.value) and self._inputs_kept(derived):
                self.offer(derived, result.inputs, result.value)

    def has(self, derived: Derived[Doc, T]) -> bool:
        """Whether a result is there that is true of the document of now, so that asking for it costs nothing."""
        return self._is_valid(derived)

    def _inputs_kept(self, derived: Derived[Doc, T]) -> bool:
        """Whether nothing would have to be computed to know a result's inputs."""
        return all(not isinstance(source, Derived) or self._is_valid(source) for source in derived.sources)

    def _is_valid(self, derived: Derived[Doc, T]) -> bool:
        result = self._kept.get(derived)
        if result is None:
            return False
        if result.seen == self._stamp:
            return True
        if not self._inputs_kept(derived) or not _same_objects(result.inputs, self.inputs_of(derived)):
            return False
        result.seen = self._stamp
        return True

    @property
    def document(self) -> Doc:
        """The document the results are of."""
        return self._document

    def move_to(self, document: Doc) -> None:
        """Turns to another document; what its unchanged parts gave is kept."""
        if document is not self._document:
            self._document = document
            self._stamp += 1

    def inputs_of(self, derived: Derived[Doc, T]) -> tuple[object, ...]:
        """The present inputs of a result, in the order of its ``sources``."""
        return tuple(source.value_in(self) for source in derived.sources)

    def get(self, derived: Derived[Doc, T]) -> T:
        """The result for the present document, computed only if an input is a new object."""
        result = self._kept.get(derived)
        if result is not None and result.seen == self._stamp:
            return cast(T, result.value)
        inputs = self.inputs_of(derived)
        if result is not None and _same_objects(result.inputs, inputs):
            result.seen = self._stamp
            return cast(T, result.value)
        self._check()
        value = derived.call(self.memory, inputs)
        self.computed += 1
        self._order.append(derived)
        if result is not None and result.value == value:
            value = result.value
        self._kept[derived] = _Kept(inputs, value, self._stamp)
        return value

    def offer(self, derived: Derived[Doc, T], inputs: tuple[object, ...], value: T) -> bool:
        """Takes a result computed elsewhere; refuses it (False) if its inputs are no longer.

        Returns:
            Whether it was taken.
        """
        if not _same_objects(self.inputs_of(derived), inputs):
            return False
        self._kept[derived] = _Kept(inputs, value, self._stamp)
        for result in self._kept.values():
            result.seen = -1 if result.seen == self._stamp else result.seen
        return True


def _same_objects(left: tuple[object, ...], right: tuple[object, ...]) -> bool:
    return len(left) == len(right) and all(a is b for a, b in zip(left, right, strict=True))


class Memory:
    """What the computations of one plan made of single parts: a circuit, a rung, a sheet.

    It is handed to the functions that profit from it and lives as long as its plan. Without it they
    compute the same, only slower. Not for several threads: a fork of the plan has a copy.
    """

    def __init__(self) -> None:
        self._memos: dict[str, KeyedCache[object]] = {}
        self._recents: dict[str, RecentCache[object]] = {}

    def memo(self, store: "type[T]", name: str, most: int = 20_000) -> "KeyedCache[T]":
        """The values of that name and class, kept by key."""
        cache = self._memos.get(name)
        if cache is None:
            cache = self._memos[name] = KeyedCache(most)
        return cast("KeyedCache[T]", cache)

    def recent(self, store: "type[T]", name: str) -> "RecentCache[T]":
        """The last few values of that name and class."""
        cache = self._recents.get(name)
        if cache is None:
            cache = self._recents[name] = RecentCache()
        return cast("RecentCache[T]", cache)

    def copy(self) -> "Memory":
        """The same for another thread: the values are shared, what is kept later is not."""
        other = Memory()
        other._memos = {name: memo.copy() for name, memo in self._memos.items()}
        other._recents = {name: recent.copy() for name, recent in self._recents.items()}
        return other


class KeyedCache(Generic[T]):
    """Values kept by name, each as long as what it was computed from is equal: unchanged parts are not made again.

    Frozen parts that an edit left alone are the same objects, so comparing them costs next to nothing.

    Args:
        most: How many are kept; beyond, all are dropped and made again when they are asked for.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: dict[Hashable, tuple[tuple[object, ...], T]] = {}

    def get(self, name: Hashable, inputs: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The kept value, or a new one when an input differs."""
        entry = self._kept.get(name)
        if entry is not None and entry[0] == inputs:
            return entry[1]
        value = compute()
        if len(self._kept) >= self._most:
            self._kept.clear()
        self._kept[name] = (inputs, value)
        return value

    def last(self, name: Hashable) -> T | None:
        """The value that was kept last under a name, whatever it was computed from."""
        entry = self._kept.get(name)
        return entry[1] if entry else None

    def put(self, name: Hashable, value: T) -> T:
        """Keeps a value for ``last``, and hands it back."""
        self._kept[name] = ((), value)
        return value

    def copy(self) -> "KeyedCache[T]":
        """One with the same values that is filled by itself."""
        other: KeyedCache[T] = KeyedCache(self._most)
        other._kept = dict(self._kept)
        return other


class RecentCache(Generic[T]):
    """The last few values of a slow function, found again when it is asked with the very same objects.

    An edit derives a document that is derived again for the screen: the second time costs nothing. A new value that
    equals one of them is handed out as that one, so that what is kept for it stays valid.
    """

    def __init__(self, most: int = 4) -> None:
        self._most = most
        self._kept: list[tuple[tuple[object, ...], T]] = []

    def get(self, inputs: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The kept value of these inputs, or a new one."""
        for entry in self._kept:
            if _same_objects(entry[0], inputs):
                return entry[1]
        return self.put(inputs, compute())

    def put(self, inputs: tuple[object, ...], value: T) -> T:
        """Keeps a value that is known to be that of these inputs.

        Returns:
            The value, or an equal one that was kept before.
        """
        value = next((earlier for _, earlier in self._kept if earlier == value), value)
        self._kept = [(inputs, value), *self._kept[: self._most - 1]]
        return value

    def copy(self) -> "RecentCache[T]":
        """One with the same values that is filled by itself."""
        other: RecentCache[T] = RecentCache(self._most)
        other._kept = list(self._kept)
        return other
