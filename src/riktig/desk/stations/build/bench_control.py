"""What the bench card and a scanner do to the work at hand, whichever page shows it."""

from typing import TYPE_CHECKING

from riktig.core.geometry import Drawing
from riktig.core.ids import DeviceId, WireId
from riktig.core.keys import DeviceKey
from riktig.core.production import BuildStage, ScanKind, read_scan
from riktig.core.schematic import NAMES
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from riktig.desk.bench import BenchCard, BenchWords
from riktig.desk.stations.build.bench_words import task_words, wire_words

if TYPE_CHECKING:
    from riktig.desk.stations.build.station import BuildStation

__all__ = ["BenchControl"]


class BenchControl:
    """The card over the whole screen, and codes.

    Args:
        station: The station whose work it is.
    """

    def __init__(self, station: "BuildStation") -> None:
        self._station = station
        self.card = BenchCard(self._words, self._picture)
        self.card.do_next, self.card.do_batch = self._do_next, self._do_batch
        self.card.take_back, self.card.step, self.card.scanned = self._take_back, self._step, self.take_code

    def open(self) -> None:
        """Opens the work at hand as one card over the whole screen."""
        self.card.show_now()
        self.card.showFullScreen()
        self.card.setFocus()

    def _words(self) -> BenchWords:
        who = self._station.session.who or "nobody"
        stage = self._station.state_of(self._station.stage or BuildStage.RECEIVE)
        state = self._station.session.progress.of(self._station.wires.key) if stage.stage.is_wiring else None
        if state is None:
            return task_words(self._station.tasks.task, stage, who)
        batches = self._station.session.evaluation.get(WIRING).batches
        return wire_words(state, next(b for b in batches if state.wire.key in b.wires), stage, who)

    def _picture(self) -> Drawing:
        is_wiring = self._station.stage is not None and self._station.stage.is_wiring
        return (self._station.wires.where if is_wiring else self._station.tasks.view).drawing

    def _do_next(self) -> None:
        if self._station.stage and self._station.stage.is_wiring:
            self._station.wires.tick_next()
        else:
            self._station.tasks.do_now()

    def _do_batch(self) -> None:
        state = self._station.session.progress.of(self._station.wires.key)
        if self._station.stage and self._station.stage.is_wiring and state and state.next:
            self._station.wires.toggle_batch(state.next)

    def _take_back(self) -> None:
        if self._station.stage and self._station.stage.is_wiring:
            self._station.wires.take_back_last()
        else:
            self._station.tasks.take_back()

    def _step(self, by: int) -> None:
        (self._station.wires if self._station.stage and self._station.stage.is_wiring else self._station.tasks).step(by)

    def take_code(self, code: str) -> str:
        """Does what a scanned code asks for; what is wrong with it, "" for nothing.

        The marker of the wire at hand does the next thing to it, that of another wire goes there; the same with the
        code of a batch, whose next operation is then done to all its wires. A tag goes to its task in this stage.
        """
        session, job = self._station.session, self._station.session.job
        person = next((person for person in job.people if person.badge and person.badge == code.strip()), None)
        if person:
            session.who = person.name
            self._station.refresh()
            return ""
        wiring = session.evaluation.get(WIRING)
        things = {cable.tag: cable.device for cable in session.evaluation.get(STRIPS).cables}
        things |= {tag: device for device, tag in session.evaluation.get(NAMES).tag.items()}
        scan = read_scan(code, job.number, session.progress, wiring.batches, things, job.printed)
        match scan.kind:
            case ScanKind.WIRE if (
                self._station.wires.key in scan.wires and self._station.stage and self._station.stage.is_wiring
            ):
                self._station.wires.tick_next()
            case ScanKind.BATCH if (
                self._station.wires.key in scan.wires and self._station.stage and self._station.stage.is_wiring
            ):
                self._do_batch()
            case ScanKind.WIRE | ScanKind.BATCH:
                is_open = (key for key in scan.wires if not self._is_complete(key))
                self._go_to_wire(next(is_open, scan.wires[0]))
            case ScanKind.DEVICE:
                return self._go_to_device(scan.device)
            case ScanKind.UNKNOWN:
                return scan.said
        return ""

    def _is_complete(self, key: WireId) -> bool:
        state = self._station.session.progress.of(key)
        return state is not None and state.complete

    def _go_to_wire(self, key: WireId) -> None:
        self._station.wires.go_to_wire(key)
        self._station.stage = self._station.stage_of_wire_at_hand() or BuildStage.WIRES
        self._station.refresh()

    def _go_to_device(self, device: DeviceId | None) -> str:
        for row, task in enumerate(self._station.state_of(self._station.stage).tasks if self._station.stage else ()):
            if device and DeviceKey(device) in task.task.where:
                self._station.tasks.list.setCurrentRow(row)
                return ""
        return "Nothing in this stage is done to that part: choose its stage first."
