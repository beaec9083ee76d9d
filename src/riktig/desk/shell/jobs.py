"""Starting a job, opening one, opening the demonstration: what the first screen and the menu File do."""

from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from PySide6.QtCore import QSize
from PySide6.QtGui import QImage, QPainter

from riktig.core.errors import RiktigError
from riktig.core.geometry import Drawing
from riktig.core.inputs import file_name
from riktig.core.job import Practice, new_job
from riktig.core.plate import LAYOUT
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile, user_practice
from riktig.core.wiring import BARE_PLATE_DRAWING
from riktig.desk import user_settings
from riktig.desk.canvas import paint
from riktig.desk.demo_file import demo_file
from riktig.desk.session import Session
from riktig.desk.shell.findings_drawer import FindingsDrawer
from riktig.desk.shell.go_on import COPY_WORDS, Offer, go_on_from_broken
from riktig.desk.shell.job_pictures import address_of, picture_file
from riktig.desk.shell.walk_panel import WalkPanel
from riktig.desk.theme import LIGHT
from riktig.log_file import LOG
from riktig.places import jobs_folder, server_folder

if TYPE_CHECKING:
    from riktig.server.address import ServerAddress

__all__ = ["Jobs", "keep_picture"]

PICTURE_PX = 256
"""The longer side of a picture: “large” in the standard that job_pictures names."""


class _Window(Protocol):
    """What is needed of the main window."""

    session: Session
    drawer: FindingsDrawer
    walk: WalkPanel

    def go_to(self, name: str) -> None: ...
    def tell(self, text: str, offer: Offer | None = None) -> None: ...


class Jobs:
    """Opens jobs in a window; what goes wrong is said there, and the job that was open stays.

    Args:
        window: The window.
    """

    def __init__(self, window: _Window) -> None:
        self._window, self._session = window, window.session

    def new_job(self, number: str, title: str) -> None:
        """Starts a job of its own file."""
        path = jobs_folder() / f"{file_name(number)}.riktig"
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            job = with_names_recorded(new_job(number, title, self._house()))
            file = JobFile.create(
                path, job, who=self._session.who, at=self._session.clock(), signer=self._session.signer
            )
            self._session.open(file)
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return
        except OSError as error:
            self._session.say(f"{path} cannot be made ({error.strerror}).", wrong=True)
            return
        self._window.go_to("Brief")

    def _house(self) -> Practice:
        """What a new job starts from; a file that cannot be used is said, and Riktig's defaults stand in."""
        try:
            return user_practice(user_settings.settings_file())
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return Practice()

    def open_path(self, path: Path) -> bool:
        """Opens a job file; False when it cannot be opened, which is said."""
        now = self._session.file
        if now and not now.read_only and path.exists() and now.path.exists() and path.samefile(now.path):
            self._window.go_to("Brief")  # it is open here: to open it again would find it in use by ourselves
            return True
        keep_picture(self._session)
        try:
            self._session.open(JobFile(path, who=self._session.who, signer=self._session.signer))
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return False
        self._window.go_to("Brief")
        if self._session.file and self._session.file.problems:
            self._window.tell(
                f"{self._window.drawer.message} {COPY_WORDS}",
                ("Go on in a copy", lambda: go_on_from_broken(self._window)),
            )
        return True

    def open_named(self, job: str) -> bool:
        """Opens a job by what was typed: a file, or an address on a server."""
        if not job.startswith(("postgresql", "postgres:")):
            return self.open_path(Path(job))
        from riktig.server.address import read_address  # late: only a job of a server needs the database's library

        try:
            return self.open_on_server(read_address(job))
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return False

    def open_on_server(self, address: "ServerAddress") -> bool:
        """Opens a job of the shop's server; False when it cannot be opened, which is said.

        Args:
            address: The server and the job.
        """
        from riktig.server.connecting import engine_for  # late, as above
        from riktig.server.opening import open_server_job

        keep_picture(self._session)
        engine = engine_for(address)
        try:
            job = open_server_job(engine, address, server_folder(), who=self._session.who, signer=self._session.signer)
            self._session.open(job)
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return False
        finally:
            engine.dispose()
        self._window.go_to("Brief")
        return True

    def open_demo(self) -> None:
        """Opens the demonstration."""
        keep_picture(self._session)
        self._session.open(demo_file(self._session))
        self._window.go_to("Brief")
        self._window.walk.offer()


def keep_picture(session: Session) -> bool:
    """Keeps a picture of the plate of the open job; nothing is worked out for it that is not known anyway.

    Args:
        session: What the window works on.

    Returns:
        Whether there is one now. What cannot be written is left out: it is only a picture.
    """
    file, evaluation = session.file, session.evaluation
    if file is None or not session.job.loads or not evaluation.has(LAYOUT):
        return False
    picture = _LAST_PAINTED.of(evaluation.get(BARE_PLATE_DRAWING))
    target = picture_file(file.path)
    try:
        texts = {"URI": address_of(file.path), "MTime": str(int(file.path.stat().st_mtime))}
        if target.exists() and all(picture.text(f"Thumb::{key}") == text for key, text in texts.items()):
            return True  # this very picture was written of this very file
        for key, text in texts.items():
            picture.setText(f"Thumb::{key}", text)
        picture.setText("Software", "Riktig")
        target.parent.mkdir(parents=True, mode=0o700, exist_ok=True)
        part = target.with_suffix(".part")
        if not picture.save(str(part), "PNG"):  # type: ignore[call-overload]
            picture.setText("Thumb::MTime", "")
            return False
        part.chmod(0o600)
        part.replace(target)
    except OSError as error:
        LOG.info("no picture of %s was kept: %s", file.path, error)
        picture.setText("Thumb::MTime", "")
        return False
    return True


class _Painted:
    """The picture that was painted last: a job that is closed as it was opened is not painted again."""

    def __init__(self) -> None:
        self._drawing: Drawing | None = None
        self._picture = QImage()

    def of(self, drawing: Drawing) -> QImage:
        """The picture of a drawing."""
        if drawing is not self._drawing:
            self._drawing, self._picture = drawing, _painted(drawing)
        return self._picture


_LAST_PAINTED = _Painted()


def _painted(drawing: Drawing) -> QImage:
    scale = PICTURE_PX / max(drawing.width, drawing.height, 1.0)
    size = QSize(max(round(drawing.width * scale), 1), max(round(drawing.height * scale), 1))
    picture = QImage(size, QImage.Format.Format_ARGB32_Premultiplied)
    picture.fill(LIGHT.colour("paper"))
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.scale(scale, scale)
    paint(painter, drawing.shapes, LIGHT)
    painter.end()
    return picture
