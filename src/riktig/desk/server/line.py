"""The line to the shop's server: a thread of its own that hands in, fetches and listens."""

from dataclasses import dataclass
from queue import Empty, SimpleQueue

from PySide6.QtCore import QObject, QThread, Signal
from sqlalchemy.engine import Connection, Engine

from riktig.core.errors import RiktigError
from riktig.core.records import Signer
from riktig.server.address import ServerAddress
from riktig.server.connecting import engine_for, server_errors
from riktig.server.exchange import Known, Standing, exchange
from riktig.server.outbox import Waiting

__all__ = ["Line", "Request"]

LISTEN_S = 0.1
"""How long the thread waits for a request until it looks whether the server has told of anything (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Request:
    """What one exchange is about: what the bench has, what waits there, and how the job stands."""

    known: Known
    waiting: Waiting
    standing: Standing | None = None


class Line(QThread):
    """Exchanges when it is asked to, and says when another bench has handed something in.

    Signals arrive on the interface thread: of each request exactly one of ``came`` and ``failed``.

    Args:
        address: The server and the job.
        signer: Signs what is handed in.
        parent: What it lives with.
    """

    came = Signal(object)
    failed = Signal(object)
    noticed = Signal()

    def __init__(self, address: ServerAddress, signer: Signer | None, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._address, self._signer = address, signer
        self._asked: SimpleQueue[Request | None] = SimpleQueue()
        self._ear: Connection | None = None

    def ask(self, request: Request) -> None:
        """Asks for one exchange."""
        self._asked.put(request)

    def end(self) -> None:
        """Ends the thread and waits for it; nothing is sent any more."""
        self.blockSignals(True)
        self._asked.put(None)
        self.wait()

    def run(self) -> None:
        """Runs on the thread."""
        engine = engine_for(self._address)
        try:
            while True:
                try:
                    request = self._asked.get(timeout=LISTEN_S)
                except Empty:
                    self._listen()
                    continue
                if request is None:
                    return
                self._exchange(engine, request)
        finally:
            self._deaf()
            engine.dispose()

    def _exchange(self, engine: Engine, request: Request) -> None:
        try:
            if self._ear is None:  # ahead of the exchange, so that nothing falls between the two
                with server_errors(self._address):
                    self._ear = _listening(engine)
            news = exchange(
                engine, self._address, request.known, request.waiting, signer=self._signer, standing=request.standing
            )
        except RiktigError as error:
            self._deaf()
            engine.dispose()
            self.failed.emit(error)
        else:
            self.came.emit(news)

    def _listen(self) -> None:
        """Whether another bench has handed in anything; a line that broke counts as that: the exchange will say so."""
        if self._ear is None:
            return
        try:
            driver = self._ear.connection.driver_connection
            told = [each for each in driver.notifies(timeout=0) if each.payload == self._address.job]  # type: ignore[union-attr]
        except Exception:  # noqa: BLE001 - whatever the driver says of a line that broke
            self._deaf()
            self.noticed.emit()
            return
        if told:
            self.noticed.emit()

    def _deaf(self) -> None:
        if self._ear is not None:
            self._ear.invalidate()
            self._ear.close()
            self._ear = None


def _listening(engine: Engine) -> Connection:
    ear = engine.connect().execution_options(isolation_level="AUTOCOMMIT")
    ear.exec_driver_sql("LISTEN riktig")
    return ear
