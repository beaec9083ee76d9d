"""Choosing the jumpers of a strip: one is parted, a terminal taken off it, or two are joined to one."""

from functools import partial

from PySide6.QtWidgets import QMenu

from riktig.core.edits import DropJumpers, PlanJumpers
from riktig.core.ids import DeviceId
from riktig.core.job import OwnJumper
from riktig.core.keys import DeviceKey
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.terminals import Strip, joined_to, jumper_of, parted_left
from riktig.core.wiring import can_be_jumped
from riktig.desk.session import Session

__all__ = ["JumperChoice"]


class JumperChoice:
    """What can be done with the jumper of a terminal, each as one edit that can be undone.

    Args:
        session: The job.
    """

    def __init__(self, session: Session) -> None:
        self._session = session

    def fill(self, menu: QMenu, strip: Strip, terminal: DeviceId) -> None:
        """Puts in what can be done with the jumper of a terminal."""
        evaluation = self._session.evaluation
        nets = evaluation.get(NETS)
        if not can_be_jumped(evaluation.get(CIRCUITS).by_id[terminal], nets):
            menu.addAction("No jumper lies on this terminal").setEnabled(False)
            return
        joined = jumper_of(strip, terminal)
        part = menu.addAction("Part it left of this terminal")
        part.triggered.connect(partial(self._plan, "part the jumper at", terminal, parted_left(strip, terminal)))
        part.setEnabled(joined[0] != terminal)
        off = menu.addAction("Take this terminal off it")
        off.triggered.connect(partial(self._plan, "take the jumper off", terminal, (OwnJumper((terminal,)),)))
        off.setEnabled(len(joined) > 1)
        net = nets.of_pin[evaluation.get(CIRCUITS).by_id[terminal].pin("i")]
        seen = set(joined)
        for row in strip.rows:
            device = evaluation.get(CIRCUITS).by_id[row.device]
            if row.device in seen or nets.of_pin.get(device.pin("i")) != net:
                continue
            group = jumper_of(strip, row.device)
            seen.update(group)
            marks = ", ".join(other.mark for other in strip.rows if other.device in group)
            join = menu.addAction(f"Join to {strip.tag}:{marks}")
            jumpers = joined_to(strip, terminal, row.device)
            join.triggered.connect(partial(self._plan, "jumper at", terminal, jumpers))
        menu.addSeparator()
        usual = menu.addAction("Usual jumper", lambda: self._edit("usual jumper at", terminal, DropJumpers(terminal)))
        named = {one for jumper in self._session.job.jumpers for one in jumper.terminals}
        usual.setEnabled(bool(named & seen))

    def _plan(self, words: str, terminal: DeviceId, jumpers: tuple[OwnJumper, ...], checked: bool = False) -> None:
        self._edit(words, terminal, PlanJumpers(jumpers))

    def _edit(self, words: str, terminal: DeviceId, edit: PlanJumpers | DropJumpers) -> None:
        evaluation = self._session.evaluation
        mark = evaluation.get(CIRCUITS).by_id[terminal].mark
        self._session.edit(f"{words} {evaluation.get(NAMES).tag[terminal]}:{mark}", edit)
        self._session.select(DeviceKey(terminal))
