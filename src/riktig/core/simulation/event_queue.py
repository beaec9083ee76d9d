"""When contacts move: coils in milliseconds, timers when they run out."""

import heapq
from collections import defaultdict

from riktig.core.catalogue import Kind
from riktig.core.job import DeviceId
from riktig.core.simulation.figures import BY_HAND, USUAL_QUICKNESS
from riktig.core.simulation.state import ContactStage

__all__ = ["EventQueue"]

_Move = tuple[float, DeviceId, ContactStage, int]
_NEVER = float("inf")


class EventQueue:
    """The moves that lie ahead. What a device was about to do is forgotten when it is started anew."""

    def __init__(self) -> None:
        self._round: dict[DeviceId, int] = defaultdict(int)
        self._quick: list[_Move] = []
        self._slow: list[_Move] = []

    def start(
        self, now: float, did: DeviceId, kind: Kind, stage: ContactStage, *, on: bool, by_hand: bool = False
    ) -> None:
        """A device is fed (or pushed in by hand), or is no longer: its contacts follow from where they stand."""
        self._round[did] += 1
        quick = BY_HAND if by_hand else kind.quick or USUAL_QUICKNESS
        if kind.timer:
            delay, pause = kind.timer.delay_s, kind.timer.pause_s
            if on:
                self._push(self._quick, now + quick.leaves, did, ContactStage.WAY)
                self._push(self._slow, now + delay, did, ContactStage.IN)
                self._push(self._slow, now + delay + pause, did, ContactStage.DONE)
            else:
                self._push(self._quick, now + quick.falls, did, ContactStage.OUT)
        elif on and stage != ContactStage.IN:
            if stage == ContactStage.OUT:
                self._push(self._quick, now + quick.leaves, did, ContactStage.WAY)
            self._push(self._quick, now + quick.arrives - (quick.leaves if stage else 0.0), did, ContactStage.IN)
        elif not on and stage != ContactStage.OUT:
            if stage == ContactStage.IN:
                self._push(self._quick, now + quick.falls, did, ContactStage.WAY)
            self._push(
                self._quick,
                now + quick.rests - (quick.falls if stage == ContactStage.WAY else 0.0),
                did,
                ContactStage.OUT,
            )

    def _push(self, queue: list[_Move], at: float, did: DeviceId, stage: ContactStage) -> None:
        heapq.heappush(queue, (round(at, 6), did, stage, self._round[did]))

    def next(self, now: float, until: float) -> tuple[float, list[tuple[DeviceId, ContactStage]]]:
        """The next instant and all that moves at it; a timer only up to ``until``. Nothing: an empty list."""
        for queue in (self._quick, self._slow):
            while queue and queue[0][3] != self._round[queue[0][1]]:
                heapq.heappop(queue)
        first = self._quick[0][0] if self._quick else _NEVER
        due = self.due()
        queue, at = (self._quick, first) if first <= due else (self._slow, due)
        if not queue or (queue is self._slow and due > max(until, now) + 1e-9):
            return now, []
        batch = []
        while queue and queue[0][0] <= at + 1e-9:
            _, device_id, stage, number = heapq.heappop(queue)
            if number == self._round[device_id]:
                batch.append((device_id, stage))
        return at, batch

    def only(self, devices: set[DeviceId]) -> "EventQueue":
        """The same moves, of some devices alone."""
        other = EventQueue()
        other._round.update(self._round)
        for events, theirs in ((self._quick, other._quick), (self._slow, other._slow)):
            theirs += sorted(move for move in events if move[1] in devices)
        return other

    def due(self) -> float:
        """When the next timer runs out, s; infinite when none runs."""
        while self._slow and self._slow[0][3] != self._round[self._slow[0][1]]:
            heapq.heappop(self._slow)
        return self._slow[0][0] if self._slow else _NEVER

    def stop(self) -> tuple[DeviceId, ...]:
        """Forgets all quick moves; the devices that were about to move."""
        moving = tuple(
            sorted({device_id for _, device_id, _, number in self._quick if number == self._round[device_id]})
        )
        self._quick.clear()
        return moving
