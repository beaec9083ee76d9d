"""The test at hand as one card over the whole screen: for two full hands, a foot switch and a meter that speaks."""

from typing import TYPE_CHECKING

from riktig.core.proving import change_words
from riktig.core.schematic import NAMES
from riktig.desk.bench import BenchCard, BenchWords
from riktig.desk.stations.prove.card import Verdict
from riktig.devices import Speech

if TYPE_CHECKING:
    from riktig.desk.stations.prove.station import ProveStation

__all__ = ["ProveBench"]


class ProveBench:
    """Space or the foot switch reads a connected meter, then accepts what is right; figures and Enter are a reading.

    Args:
        station: The station whose test it shows.
        speech: What speaks; that of the desktop where none is given.
    """

    def __init__(self, station: "ProveStation", speech: Speech | None = None) -> None:
        self._station = station
        self.speech = speech or Speech()
        self._said = ""
        self.card = BenchCard(self._words, lambda: station.where.whole.drawing)
        self.card.done.setText("Read, accept")
        self.card.do_next, self.card.take_back = self._next, station.back
        self.card.speak.setVisible(self.speech.is_there)
        self.card.step, self.card.scanned = station.step, self._typed

    def open(self) -> None:
        """Opens the card."""
        self.card.show_now()
        self.card.showFullScreen()
        self.card.setFocus()

    def _words(self) -> BenchWords:
        station = self._station
        test, verdict = station.current_test(), station.verdict_now()
        meter = station.instrument.name if station.instrument else "no meter"
        if test is None or verdict is None:
            return BenchWords(meter, "–", "Nothing to test yet")
        tags = station.session.evaluation.get(NAMES).tag
        parts = [change_words(test.state, station.stands, tags), test.first, test.caution, verdict.words]
        self._speak(f"{test.black.label} to {test.red.label}. Should read {test.expected.text}.", verdict)
        return BenchWords(
            f"{test.title}   {station.card.count.text()}   {meter}",
            verdict.reading,
            f"Should read {test.expected.text}",
            ((test.black.label, test.black.place), (test.red.label, test.red.place)),
            caution=" ".join(part for part in parts if part),
        )

    def _speak(self, asked: str, verdict: Verdict) -> None:
        """Says a new card, or a new reading of it, once."""
        text = asked if verdict.role not in ("meets", "fails") else f"{verdict.reading}. {verdict.words}"
        if self.card.speak.isChecked() and text != self._said:
            self.speech.say(text)
        self._said = text

    def _next(self) -> None:
        """Reads the connected meter where nothing was read yet, accepts the reading otherwise."""
        if self._station.ohm is None and self._station.link is not None:
            self._station.read_meter()
        else:
            self._station.accept()

    def _typed(self, text: str) -> str:
        self._station.take_typed(text)
        return ""
