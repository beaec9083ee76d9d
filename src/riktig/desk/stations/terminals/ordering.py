"""Ordering a strip at its picture: a terminal is dragged along, moved by key, parted off, or a spare one put in."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QMenu

from riktig.core.edits import DropStrip, Edit, InsertSpareTerminal, NumberStrip, SetStrip, SplitStrip
from riktig.core.geometry import Line, Point, Poly, Rect, bounds_of
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey, Key
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.terminals import BLOCKS, STRIPS, Strip
from riktig.core.views import device_of
from riktig.desk.canvas import DrawingView, Gesture
from riktig.desk.session import Session
from riktig.desk.stations.terminals.jumping import JumperChoice

__all__ = ["StripDrag", "StripOrder"]


class StripOrder:
    """What can be done with the chosen terminal, each as one edit that can be undone.

    Args:
        session: The job.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
        self._jumpers = JumperChoice(session)

    def terminal(self) -> DeviceId | None:
        """The chosen terminal; None where something else is chosen."""
        owner = device_of(self._session.selection)
        device = self._session.evaluation.get(CIRCUITS).by_id.get(owner) if owner else None
        return device.id if device is not None and device.strip else None

    def strip_of(self, terminal: DeviceId) -> Strip | None:
        """The strip in which a terminal stands."""
        strips = self._session.evaluation.get(STRIPS).strips
        return next((strip for strip in strips if any(row.device == terminal for row in strip.rows)), None)

    def shift(self, by: int) -> None:
        """Moves the chosen terminal to the left or right by so many."""
        terminal = self.terminal()
        strip = self.strip_of(terminal) if terminal else None
        if terminal is None or strip is None:
            self._session.say("Choose a terminal first: then it can be moved along its strip.")
            return
        ids = [row.device for row in strip.rows]
        at = ids.index(terminal)
        self.put(terminal, min(max(at + by, 0), len(ids) - 1))

    def put(self, terminal: DeviceId, place: int) -> None:
        """Puts a terminal at a place of its strip, counted from 0 without it."""
        strip = self.strip_of(terminal)
        if strip is None:
            return
        ids = [row.device for row in strip.rows if row.device != terminal]
        ids.insert(place, terminal)
        if ids != [row.device for row in strip.rows]:
            self._edit("move", terminal, SetStrip(self._name(terminal), tuple(ids)))

    def fill(self, menu: QMenu) -> None:
        """Puts in what can be done with the chosen terminal."""
        menu.clear()
        terminal = self.terminal()
        strip = self.strip_of(terminal) if terminal else None
        if terminal is None or strip is None:
            menu.addAction("Choose a terminal first").setEnabled(False)
            return
        chosen = terminal
        menu.addAction("To the left\tAlt+Left", lambda: self.shift(-1)).setEnabled(strip.rows[0].device != chosen)
        menu.addAction("To the right\tAlt+Right", lambda: self.shift(1)).setEnabled(strip.rows[-1].device != chosen)
        menu.addSeparator()
        part = menu.addAction("Part the strip left of it", lambda: self._edit("part", chosen, SplitStrip(chosen)))
        part.setEnabled(strip.rows[0].device != chosen)
        menu.addAction("Spare terminal right of it", lambda: self._edit("spare", chosen, InsertSpareTerminal(chosen)))
        to = menu.addMenu("Move to strip")
        for other in self._session.evaluation.get(STRIPS).strips:
            if other is not strip:
                words = f"{other.tag}  {other.purpose}"
                to.addAction(words).triggered.connect(partial(self._move_to, chosen, other.rows[0].device))
        self._jumpers.fill(menu.addMenu("Jumper"), strip, chosen)
        menu.addSeparator()
        menu.addAction("Count markings from the left", lambda: self._edit("count", chosen, NumberStrip(chosen)))
        menu.addAction("Usual order", lambda: self._edit("usual order of", chosen, DropStrip(chosen)))

    def _move_to(self, terminal: DeviceId, beside: DeviceId, checked: bool = False) -> None:
        strip = self.strip_of(beside)
        if strip is not None:
            ids = (*(row.device for row in strip.rows), terminal)
            self._edit("move", terminal, SetStrip(self._name(beside), ids))

    def _name(self, terminal: DeviceId) -> str:
        return self._session.evaluation.get(CIRCUITS).by_id[terminal].strip

    def _edit(self, what: str, terminal: DeviceId, edit: Edit) -> None:
        evaluation = self._session.evaluation
        device = evaluation.get(CIRCUITS).by_id[terminal]
        tag = f"{evaluation.get(NAMES).tag[terminal]}:{device.mark}"
        words = {"part": f"part the strip at {tag}", "spare": f"spare terminal after {tag}"}
        words["count"] = f"count the markings of {evaluation.get(NAMES).tag[terminal]}"
        self._session.edit(words.get(what, f"{what} {tag}"), edit)
        self._session.select(DeviceKey(terminal))


class StripDrag(Gesture):
    """A terminal dragged along its strip; a line shows where it would stand.

    Args:
        view: The picture of the strip.
        order: What the drag does at its end.
        on: Whether a drag may start now.
    """

    def __init__(self, view: DrawingView, order: StripOrder, on: Callable[[], bool]) -> None:
        self._view, self._order, self._on = view, order, on
        self._terminal: DeviceId | None = None
        self._place = 0

    def _blocks(self) -> list[tuple[DeviceId, Rect]]:
        """The terminals of the strip as they are drawn, from the left, line by line."""
        return [
            (mark.key.device, bounds_of(mark))
            for mark in self._view.drawing.shapes
            if isinstance(mark, Poly) and mark.layer == BLOCKS and isinstance(mark.key, DeviceKey)
        ]

    def begin(self, key: Key | None, at: Point) -> bool:
        """Whether a terminal of the strip as it is built lies under the pointer."""
        self._terminal = next((device for device, rect in self._blocks() if rect.holds(at)), None)
        return self._terminal is not None and self._on()

    def move(self, at: Point) -> None:
        """Shows between which terminals it would stand."""
        others = [rect for device, rect in self._blocks() if device != self._terminal]
        if not others:
            return
        line = min((rect.y for rect in others), key=lambda y: abs(y + others[0].height / 2 - at.y))
        before = [n for n, rect in enumerate(others) if rect.y < line or (rect.y == line and rect.centre.x < at.x)]
        self._place = len(before)
        beside = [rect for rect in others[: self._place] if rect.y == line]
        x = beside[-1].right if beside else next(rect.x for rect in others if rect.y == line)
        self._view.set_overlay([Line(x, line - 2.0, x, line + others[0].height + 2.0, "act", 1.2)])

    def finish(self) -> None:
        """Puts the terminal there."""
        self._view.set_overlay([])
        if self._terminal is not None:
            self._order.put(self._terminal, self._place)
        self._terminal = None

    def cancel(self) -> None:
        """Leaves the terminal where it was."""
        self._view.set_overlay([])
        self._terminal = None
