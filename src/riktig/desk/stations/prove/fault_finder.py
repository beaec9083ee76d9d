"""Finding what is wrong: the readings so far, the suspects, the next probe, and the repair."""

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton, QSizePolicy, QVBoxLayout, QWidget

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.ids import PinRef
from riktig.core.proving import (
    DEAD_PANEL,
    ENERGISED,
    LIVE_PLAN,
    LIVE_SCRIPTS,
    PANEL_FACTS,
    PIN_PLACES,
    TESTS,
    DeadPanel,
    Expected,
    LiveEvidence,
    NextProbe,
    Planner,
    Probe,
    ProvingStage,
    Results,
    Suspect,
    SwitchState,
    Test,
    fault_keys,
    fault_words,
    live_evidence,
    live_results,
    locate,
    locate_live,
    next_probe,
    repair_entries,
    repair_words,
    state_of,
)
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.views import MOST_NUMBERED, sheets_of_suspects, suspects_on_plate
from riktig.core.wiring import BARE_PLATE_DRAWING, WIRING
from riktig.desk.session import Session
from riktig.desk.stations.prove.suspects import SuspectsPanel
from riktig.desk.stations.prove.suspects_dialog import SuspectsDialog
from riktig.desk.theme import LIGHT, Theme

__all__ = ["FaultFinder"]


class FaultFinder:
    """What is known of a fault, and its panel beside the card.

    Args:
        session: The job at hand.
        station: Whose card shows the proposed readings.
    """

    def __init__(self, session: Session, station: QWidget) -> None:
        self._session, self._station = session, station
        self.proposed: Test | None = None
        self.go_to_proposed: Callable[[], None] = lambda: None
        self.suspects: tuple[Suspect, ...] = ()
        self._probe: NextProbe | None = None
        self._taken: list[Probe] = []
        self._stamp: object = None
        self.theme: Theme = LIGHT
        self.list = SuspectsPanel(self._go_next, self._show_everywhere)
        self.list.chosen.connect(self._show_there)
        self.repair = QPushButton("Send the repair to Build")
        self.repair.setToolTip(
            "Opens the wires concerned again among the half-done ones, and takes back what was read of them"
        )
        self.repair.clicked.connect(lambda _=False: self.send_to_build())
        self.repair.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.panel = QWidget()
        layout = QVBoxLayout(self.panel)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.list, 1)
        layout.addWidget(self.repair)

    def look(self, results: Results, shown: tuple[Test, float] | None) -> bool:
        """Works out what may be wrong, from all readings that count, those taken to find it, and the one on the card.

        Args:
            results: All tests with their readings.
            shown: The reading on the card, which is not recorded yet, ohm without the leads.

        Returns:
            Whether there is anything wrong.
        """
        evaluation = self._session.evaluation
        panel = evaluation.get(DEAD_PANEL)
        if self._stamp is not panel:  # the panel was wired otherwise since: readings to find a fault are of no use
            self._stamp, self._taken = panel, []
        probes = [
            Probe(test.state, test.black.pin, test.red.pin, max(reading.ohm - reading.zero, 0.0))
            for test, reading in results.readings
            if reading is not None and reading.ohm is not None and test.stage is not ProvingStage.INSULATION
        ]
        if shown and shown[0] is not self.proposed and shown[0].stage is not ProvingStage.INSULATION:
            probes.append(Probe(shown[0].state, shown[0].black.pin, shown[0].red.pin, shown[1]))
        probes += self._taken
        self.suspects = locate(panel, probes) or self._from_live(panel, probes)
        if not self.suspects:
            wrong = self._any_wrong(results, shown) or self._live().is_wrong
            sound = "" if wrong else "All readings so far are as a sound panel gives them."
            self._session.say(sound or "No single fault and no two explain all readings: read again.", wrong=not sound)
            return False
        states = self._states(results, shown)
        self._probe = next_probe(panel, self.suspects, probes, states)
        self.list.show_suspects(self.suspects, self._suspect_words, self._probe, self._probe_words())
        self.repair.setEnabled(True)
        return True

    def _from_live(self, panel: DeadPanel, probes: list[Probe]) -> tuple[Suspect, ...]:
        """What explains the steps under voltage that came otherwise, where every dead reading is as it should be."""
        evaluation, evidence = self._session.evaluation, self._live()
        if not evidence.is_wrong:
            return ()
        make, scripts = evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS)
        suspects = locate_live(panel, evaluation.get(NETS), probes, evidence, make, scripts)
        if suspects:
            self._session.say("The next probes are read dead: switch off, lock, prove dead.")
        return suspects

    def _live(self) -> LiveEvidence:
        """What the records of the steps under voltage say."""
        evaluation = self._session.evaluation
        devices = {tag: device for device, tag in evaluation.get(NAMES).tag.items()}
        results = live_results(evaluation.get(LIVE_PLAN), self._session.records)
        return live_evidence(results, devices, evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS))

    def _any_wrong(self, results: Results, shown: tuple[Test, float] | None) -> bool:
        failed = any(r is not None and r.outcome.value == "failed" for _, r in results.readings)
        return failed or bool(shown and not shown[0].expected.passes(shown[1]))

    def _states(self, results: Results, shown: tuple[Test, float] | None) -> list[SwitchState]:
        """The present state first, then both plain ones, then those of the plan."""
        circuits = self._session.evaluation.get(CIRCUITS)
        plain = (state_of(circuits, on=False), state_of(circuits, on=True))
        present = (shown[0].state,) if shown else ()
        return list(dict.fromkeys([*present, *plain, *(test.state for test, _ in results.readings)]))

    def _label(self, pin: PinRef) -> str:
        return self._planner().point(pin).label

    def _planner(self) -> Planner:
        evaluation = self._session.evaluation
        return Planner(evaluation.get(PANEL_FACTS), evaluation.get(DEAD_PANEL))

    def _suspect_words(self, suspect: Suspect) -> tuple[str, str]:
        planner, tags = self._planner(), self._session.evaluation.get(NAMES).tag

        def label(pin: PinRef) -> str:
            return planner.point(pin).label

        what_to_do = " ".join(repair_words(fault, label, tags) for fault in suspect.faults)
        return fault_words(suspect.faults, label, tags), what_to_do

    def _probe_words(self) -> str:
        return f"{self._label(self._probe.black)} to {self._label(self._probe.red)}" if self._probe else ""

    def _go_next(self) -> None:
        """Puts the proposed reading on the card."""
        if self._probe is None:
            return
        planner = self._planner()
        title = "To find the fault"
        points = (self._probe.black, self._probe.red)
        (expected,) = planner.between(self._probe.state, [points])
        why = f"A sound panel reads {expected.text}. Whatever it reads narrows what may be wrong."
        expected_reading = Expected(expected.low, expected.high, why)
        self.proposed = planner.card(
            ProvingStage.WIRES, "find the fault", title, points, self._probe.state, expected_reading
        )
        self.go_to_proposed()

    def take(self, test: Test, ohm: float) -> None:
        """Takes a proposed reading, ohm without the leads."""
        self._taken.append(Probe(test.state, test.black.pin, test.red.pin, ohm))
        self.proposed = None

    def _show_there(self, suspect: Suspect) -> None:
        keys = fault_keys(suspect.faults)
        if keys:
            self._session.select(keys[0])

    def suspects_dialog(self) -> SuspectsDialog:
        """The likeliest suspects on plate and sheets."""
        evaluation, theme = self._session.evaluation, self.theme
        words = [self._suspect_words(suspect)[0] for suspect in self.suspects[:MOST_NUMBERED]]
        plate = suspects_on_plate(
            evaluation.get(BARE_PLATE_DRAWING), evaluation.get(WIRING), evaluation.get(PIN_PLACES), self.suspects
        )
        sheets = sheets_of_suspects(
            evaluation.get(SHEET_DRAWINGS), evaluation.get(WIRING), evaluation.get(NETS), self.suspects
        )
        return SuspectsDialog((plate, *sheets), words, len(self.suspects), theme, self._station.window())

    def _show_everywhere(self) -> None:
        self.suspects_dialog().exec()

    def send_to_build(self) -> None:
        """Opens the work and the tests again that the chosen suspect concerns."""
        row = max(self.list.list.currentRow(), 0)
        if row >= len(self.suspects):
            return
        suspect = self.suspects[row]
        words, what_to_do = self._suspect_words(suspect)
        plan = self._session.evaluation.get(TESTS)
        entries = repair_entries(suspect.faults, plan, self._session.records, f"to be put right: {words}")
        if not entries:
            self._session.say(f"{words}. {what_to_do} Nothing was ticked or read of it yet.")
        elif self._session.record_all(entries):
            self._session.say(f"{words}. {what_to_do} {len(entries)} entries were taken back: do and read them again.")
        self._taken.clear()
