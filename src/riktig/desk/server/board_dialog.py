"""The shop board: all jobs of the server at a glance; one is opened, the open one is put there."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import QSettings, Qt, QTimer
from PySide6.QtWidgets import (
    QDialog,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.errors import RiktigError
from riktig.core.inputs import file_name
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.session import Session
from riktig.desk.theme import grown
from riktig.desk.widgets import plain_label, row_of
from riktig.places import window_file

if TYPE_CHECKING:
    from riktig.server.address import ServerAddress
    from riktig.server.board import BoardRow

__all__ = ["BoardDialog", "keep_server", "kept_server"]

EVERY_MS = 5000
"""How often the board is looked at anew (chosen by us)."""
ROW_PX = 34
KEY = "server/address"


def kept_server() -> str:
    """The server that was used last, "" for none."""
    return str(QSettings(str(window_file()), QSettings.Format.IniFormat).value(KEY, ""))


def keep_server(text: str) -> None:
    """Keeps the server for the next time; never a password.

    Args:
        text: Its address without one.
    """
    QSettings(str(window_file()), QSettings.Format.IniFormat).setValue(KEY, text)


class BoardDialog(QDialog):
    """The address, the jobs with stage, hours left, what blocks and who is on it; Enter opens one.

    Args:
        session: The job that is open, which can be put on the server.
        open_job: Opens a job of the server; whether it could.
        parent: What it stands over.
    """

    def __init__(self, session: Session, open_job: "Callable[[ServerAddress], bool]", parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Shop board")
        self._session, self._open_job = session, open_job
        self.rows: tuple[BoardRow, ...] = ()
        self.work: Work | None = None
        self.address = QLineEdit(kept_server())
        self.address.setPlaceholderText("postgresql://name@host/riktig")
        self.address.setAccessibleName("Address of the shop's server")
        self.address.returnPressed.connect(self.look)
        look = QPushButton("Look")
        look.setToolTip("Asks the server for all its jobs")
        look.setAutoDefault(False)
        look.clicked.connect(self.look)
        self.said = plain_label("", "second", wraps=True)
        self.table = QTableWidget(0, 5)
        self.table.setHorizontalHeaderLabels(["Job", "Stage", "Left to do", "What blocks", "Who is on it"])
        self.table.setAccessibleName("Jobs of the shop")
        self.table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
        self.table.setSelectionMode(QTableWidget.SelectionMode.SingleSelection)
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setTabKeyNavigation(False)
        self.table.verticalHeader().hide()
        self.table.verticalHeader().setDefaultSectionSize(grown(ROW_PX))
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        self.table.horizontalHeader().setStretchLastSection(True)
        self.table.setWordWrap(False)
        self.table.itemActivated.connect(lambda item: self.open_row(item.row()))
        self.open_button = QPushButton("Open")
        self.open_button.setToolTip("Opens the chosen job at this bench; others may have it open too")
        self.open_button.clicked.connect(lambda: self.open_row(self.table.currentRow()))
        self.put_button = QPushButton("Put the open job there")
        self.put_button.setToolTip("Puts the job of this window on the server with all its records, and opens it there")
        self.put_button.setAutoDefault(False)
        self.put_button.clicked.connect(self.put)
        shut = QPushButton("Close")
        shut.setAutoDefault(False)
        shut.clicked.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addLayout(row_of((self.address, look)))
        layout.addWidget(self.said)
        layout.addWidget(self.table, 1)
        layout.addLayout(row_of((self.put_button, None, self.open_button, shut)))
        self._timer = QTimer(self, interval=EVERY_MS)
        self._timer.timeout.connect(self.look)
        self.resize(900, 460)
        self.said.setText("The password is read from the file ~/.pgpass. docs/server.md says how a server is set up.")
        if self.address.text():
            self.look()

    def _read(self) -> "ServerAddress | None":
        from riktig.server.address import read_address  # late: only here the database's library is needed

        try:
            return read_address(self.address.text().strip())
        except RiktigError as error:
            self._say(str(error))
            return None

    def _say(self, text: str) -> None:
        self.said.setText(text)

    def look(self) -> None:
        """Asks the server, aside."""
        if self.work is not None and self.work.isRunning():
            return
        address = self._read()
        if address is None:
            return

        def ask(_: Progress) -> object:
            from riktig.server.board import shop_board  # late, as above
            from riktig.server.connecting import engine_for

            engine = engine_for(address)
            try:
                return shop_board(engine, address)
            finally:
                engine.dispose()

        self.work = Work(ask, self)
        self.work.done.connect(self._show)
        self.work.failed.connect(lambda error: self._say(str(error)))
        self.work.start()

    def _show(self, rows: "tuple[BoardRow, ...]") -> None:
        address = self._read()
        if address is not None:
            keep_server(address.with_job("").words)
        chosen = self._chosen()
        self.rows = rows
        self.table.setRowCount(len(rows))
        for number, row in enumerate(rows):
            title = f"{row.job}   {row.title}" if row.title else row.job
            texts = (title, row.stage or "not begun", row.hours, row.blocks or "-", ", ".join(row.here) or "nobody")
            for column, text in enumerate(texts):
                item = QTableWidgetItem(text)
                item.setToolTip(text)
                self.table.setItem(number, column, item)
            if row.job == chosen or (not chosen and number == 0):
                self.table.selectRow(number)
        count = len(rows)
        here = sum(bool(row.here) for row in rows)
        self._say(f"{count} job{'' if count == 1 else 's'}, somebody is at {here} of them." if count else "No job yet.")
        self._timer.start()

    def _chosen(self) -> str:
        row = self.table.currentRow()
        return self.rows[row].job if 0 <= row < len(self.rows) else ""

    def open_row(self, row: int) -> None:
        """Opens a job of the board."""
        address = self._read()
        if address is None or not 0 <= row < len(self.rows):
            return
        self._open(address.with_job(self.rows[row].job))

    def _open(self, address: "ServerAddress") -> None:
        if self._open_job(address):
            self.accept()
        else:
            self._say(self._session.log[-1] if self._session.log else "")

    def put(self) -> None:
        """Puts the open job on the server under its number, and opens it there."""
        from riktig.server.connecting import engine_for  # late, as above
        from riktig.server.moving import put

        address, file = self._read(), self._session.file
        if address is None:
            return
        if file is None or hasattr(file, "waiting"):
            self._say("Open a job of a file first: it is put on the server as it is.")
            return
        address = address.with_job(file_name(self._session.job.number or file.path.stem))
        engine = engine_for(address)
        self.setCursor(Qt.CursorShape.WaitCursor)
        try:
            put(engine, address, file, signer=self._session.signer)
        except RiktigError as error:
            self._say(str(error))
            return
        finally:
            self.unsetCursor()
            engine.dispose()
        self._open(address)

    def done(self, result: int) -> None:
        """Closes the board."""
        self._timer.stop()
        if self.work is not None:
            self.work.end()
        super().done(result)
