"""Which points hang on which pole through closed contacts, kept true while contacts open and close.

Every point that a pole reaches has a parent on its way there: a forest rooted at the poles. A contact
that opens only concerns the points behind it, one that closes only those it brings to a pole, so
the work does not grow with the panel.
"""

from collections.abc import Callable, Iterable, Sequence
from copy import copy

from riktig.core.job import DeviceId
from riktig.core.simulation.network import Contact

__all__ = ["Connectivity"]

NONE = -1
"""No pole, and no contact: of a point that is not reached, and of a root."""


class Connectivity:
    """The points of a network under the poles that reach them.

    ``root`` is the point of the pole that a point hangs on (-1: none), ``parent`` the contact on the way.
    ``crossings`` are closed contacts between points that hang on different poles.
    """

    def __init__(self, count: int, contacts: Sequence[Contact]) -> None:
        self.contacts = contacts
        self._of_network = len(contacts)
        self.closed = [False] * len(contacts)
        self.beside: list[list[tuple[int, int]]] = [[] for _ in range(count)]
        for number, contact in enumerate(contacts):
            if contact.a != contact.b:
                self.beside[contact.a].append((number, contact.b))
                self.beside[contact.b].append((number, contact.a))
        self.root = [NONE] * count
        self.parent = [NONE] * count
        self.kids: list[set[int]] = [set() for _ in range(count)]
        self.poles: set[int] = set()
        self.crossings: set[int] = set()

    def fork(self) -> "Connectivity":
        """The same state, changed on its own from now on."""
        fork = copy(self)
        fork.closed, fork.root, fork.parent = list(self.closed), list(self.root), list(self.parent)
        fork.kids, fork.poles, fork.crossings = [set(kids) for kids in self.kids], set(self.poles), set(self.crossings)
        return fork

    def bridge(self, first: int, last: int) -> int:
        """Lays a piece of metal across two points, open for now; its number among the contacts."""
        number = len(self.contacts)
        self.contacts = [*self.contacts, Contact(DeviceId(""), "", first, last)]
        self.closed.append(False)
        self.beside = list(self.beside)
        for point, other in ((first, last), (last, first)):
            self.beside[point] = [*self.beside[point], (number, other)]
        return number

    def is_bridge(self, number: int) -> bool:
        """Whether a contact is a piece of metal across two points and no contact of a device."""
        return number >= self._of_network

    def change(self, opened: Iterable[int], closed: Iterable[int], poles: set[int]) -> set[int]:
        """Opens and closes contacts and lets poles come and go; the points for which something changed.

        Returns:
            The points whose voltage may be another now.
        """
        dirty: set[int] = set()
        loose: set[int] = set()
        for number in opened:
            if self.closed[number]:
                self.closed[number] = False
                loose |= self._open(number)
                dirty |= {self.contacts[number].a, self.contacts[number].b}
        for point in self.poles - poles:
            loose |= self._below(point)
        fresh = poles - self.poles
        self.poles = set(poles)
        for point in fresh:
            loose |= self._below(point)
        for number in closed:
            if not self.closed[number]:
                self.closed[number] = True
                dirty |= self._close(number, loose)
        self._attach(loose)
        return dirty | loose

    def _below(self, point: int) -> set[int]:
        """A point and all that hangs on it, taken off the forest."""
        reached, todo = {point}, [point]
        while todo:
            at = todo.pop()
            for kid in self.kids[at]:
                if kid not in reached:
                    reached.add(kid)
                    todo.append(kid)
        above = self._above(point)
        if above != NONE:
            self.kids[above].discard(point)
        for contact_number in reached:
            self.root[contact_number] = self.parent[contact_number] = NONE
            self.kids[contact_number].clear()
        return reached

    def _above(self, point: int) -> int:
        number = self.parent[point]
        if number == NONE:
            return NONE
        contact = self.contacts[number]
        return contact.b if contact.a == point else contact.a

    def _open(self, number: int) -> set[int]:
        self.crossings.discard(number)
        contact = self.contacts[number]
        for point in (contact.a, contact.b):
            if self.parent[point] == number:
                return self._below(point)
        return set()

    def _close(self, number: int, loose: set[int]) -> set[int]:
        """What a contact that closed concerns; what it brings to a pole is added to ``loose``."""
        contact = self.contacts[number]
        a, b = self.root[contact.a], self.root[contact.b]
        if a == NONE and b == NONE:
            return {contact.a, contact.b}
        if a != NONE and b != NONE:
            if a != b:
                self.crossings.add(number)
            return {contact.a, contact.b}
        loose |= self._unreached(contact.b if b == NONE else contact.a)
        return {contact.a, contact.b}

    def _unreached(self, point: int) -> set[int]:
        """A point without a pole and all that are joined to it."""
        reached, todo = {point}, [point]
        while todo:
            for number, other in self.beside[todo.pop()]:
                if self.closed[number] and self.root[other] == NONE and other not in reached:
                    reached.add(other)
                    todo.append(other)
        return reached

    def _attach(self, loose: set[int]) -> None:
        """Hangs loose points on whatever reaches them: their own pole first, then by the fewest contacts.

        What is reached only because several contacts closed at one instant is added to ``loose``.
        """
        edge: list[int] = []
        for point in sorted(loose & self.poles):
            self.root[point] = point
            edge.append(point)
        for point in sorted(loose - self.poles):
            if self.root[point] != NONE:
                continue
            for number, other in self.beside[point]:
                if self.closed[number] and self.root[other] != NONE and other not in loose:
                    self._hang(point, number, other)
                    edge.append(point)
                    break
        for point in edge:
            for number, other in self.beside[point]:
                if self.closed[number] and self.root[other] == NONE:
                    self._hang(other, number, point)
                    edge.append(other)
                    loose.add(other)
        for point in loose:
            for number, other in self.beside[point]:
                if self.closed[number]:
                    apart = self.root[point] != self.root[other] and NONE not in (self.root[point], self.root[other])
                    (self.crossings.add if apart else self.crossings.discard)(number)
                else:
                    self.crossings.discard(number)

    def _hang(self, point: int, number: int, above: int) -> None:
        self.root[point], self.parent[point] = self.root[above], number
        self.kids[above].add(point)

    def way(self, point: int) -> list[int]:
        """The contacts of devices from a point to its pole, nearest first."""
        ways = []
        while self.parent[point] != NONE:
            if not self.is_bridge(self.parent[point]):
                ways.append(self.parent[point])
            point = self._above(point)
        return ways

    def joined(self, point: int, go_on: Callable[[int], bool] = lambda _: True) -> set[int]:
        """All points joined to one by closed contacts; not beyond those of which ``go_on`` is false."""
        reached, todo = {point}, [point]
        while todo:
            at = todo.pop()
            if not go_on(at):
                continue
            for number, other in self.beside[at]:
                if self.closed[number] and other not in reached:
                    reached.add(other)
                    todo.append(other)
        return reached
