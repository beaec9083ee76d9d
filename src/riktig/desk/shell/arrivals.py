"""What comes into the window from outside: jobs, lists and photos that are dropped on it, jobs that are imported."""

from pathlib import Path
from typing import Protocol, cast

from PySide6.QtCore import QEvent, QObject
from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QFileDialog, QInputDialog, QWidget

from riktig.core.errors import RiktigError
from riktig.core.inputs import file_name, read_text
from riktig.core.keys import Key
from riktig.core.schematic import with_names_recorded
from riktig.core.store import Importer, load_job, load_whole
from riktig.core.views import details_of
from riktig.desk.design_reasons import keep_reason, reason_now
from riktig.desk.photos import ENDINGS, keep_note, keep_photo
from riktig.desk.session import Session
from riktig.desk.stations import Stations
from riktig.desk.stations.brief import BriefStation
from riktig.fault_report import free_name
from riktig.places import jobs_folder

__all__ = ["Arrivals"]

JOBS, TEXTS, LISTS = (".riktig",), (".json",), (".csv", ".tsv", ".txt", ".xlsx")


class _Window(Protocol):
    """What is needed of the main window."""

    session: Session
    stations: Stations

    def open_path(self, path: Path) -> bool: ...
    def go_to(self, name: str) -> None: ...


class Arrivals(QObject):
    """Takes in what is dropped on a window; ``import_job`` asks for a file first."""

    def __init__(self, window: _Window, widget: QWidget) -> None:
        super().__init__(widget)
        self._window, self._widget = window, widget
        widget.setAcceptDrops(True)
        widget.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """A file that can be taken in is welcome; the first of several is taken."""
        if event.type() == QEvent.Type.DragEnter:
            entering = cast(QDragEnterEvent, event)
            if _paths(entering):
                entering.acceptProposedAction()
            return True
        if event.type() == QEvent.Type.Drop:
            dropped = cast(QDropEvent, event)
            paths = _paths(dropped)
            if paths:
                dropped.acceptProposedAction()
                self.take(paths[0])
            return True
        return super().eventFilter(watched, event)

    def take(self, path: Path) -> None:
        """Opens a job, imports the text of one, or shows a list of loads in the Brief of the open job."""
        ending = path.suffix.lower()
        if ending in JOBS:
            self._window.open_path(path)
        elif ending in TEXTS:
            self.import_from(path)
        elif self._window.session.file is None:
            what = "photo" if ending in ENDINGS else "list of loads"
            self._window.session.say(f"Open or start a job first; then drop its {what} on the window.", wrong=True)
        elif ending in ENDINGS:
            self.take_photo(path)
        else:
            self._window.go_to("Brief")
            brief = self._window.stations["Brief"]
            if isinstance(brief, BriefStation):
                brief.new.take_in(path)
                brief.see(brief.new)

    def ask_photo(self) -> None:
        """Asks for a photo of what is selected, and keeps it."""
        dialog = QFileDialog(self._widget, "Photo of what is selected")
        dialog.setNameFilters([f"Photos ({' '.join('*' + ending for ending in ENDINGS)})", "All files (*)"])
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        dialog.fileSelected.connect(lambda name: self.take_photo(Path(name)))
        dialog.open()

    def take_photo(self, path: Path) -> None:
        """Keeps a photo of what is selected, which must be known: a photo of nothing is found by nobody."""
        chosen = self._chosen("Select what the photo shows, then add it again: it is kept with that part or wire.")
        if chosen:
            keep_photo(self._window.session, path, *chosen)

    def ask_note(self) -> None:
        """Asks for a note on what is selected, and keeps it."""
        chosen = self._chosen("Select what the note is about, then add it again: it is kept with that thing.")
        if chosen is None:
            return
        key, title = chosen
        text, done = QInputDialog.getMultiLineText(self._widget, f"Note on {title}", "What is to be known of it?")
        if done:
            keep_note(self._window.session, text, key, title)

    def ask_reason(self) -> None:
        """Asks why what is selected is as it is, and keeps it in the job."""
        chosen = self._chosen("Select what the reason is about, then give it again: it is kept with that thing.")
        if chosen is None:
            return
        (key, title), session = chosen, self._window.session
        question = "Why is it so? It is printed for the customer."
        before = reason_now(session, key)
        text, done = QInputDialog.getMultiLineText(self._widget, f"Design reason of {title}", question, before)
        if done:
            keep_reason(session, key, text, title)

    def _chosen(self, without: str) -> tuple[Key, str] | None:
        """What is selected and what it is called; None where nothing known is, which is said in the words given."""
        session = self._window.session
        key = session.selection
        page = details_of(session.evaluation, key, ()) if key is not None else None
        if key is None or page is None:
            session.say(without, wrong=True)
            return None
        return key, page.title

    def import_job(self) -> None:
        """Asks for a job that was exported as JSON, and makes a job file of it."""
        dialog = QFileDialog(self._widget, "Import a job")
        dialog.setNameFilters(["Exported jobs (*.json)", "All files (*)"])
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        dialog.fileSelected.connect(lambda name: self.import_from(Path(name)))
        dialog.open()

    def import_from(self, path: Path) -> bool:
        """Makes a job file of an exported job, with all its records, and opens it.

        Returns:
            Whether it was made; why not is said.
        """
        session = self._window.session
        by = Importer(session.who, session.clock(), session.signer)
        try:
            text = read_text(path, hint="Choose a JSON job that Riktig exported.")
            target = _place_for(load_job(text, where=path.name).number)
            load_whole(target, text, by, where=path.name, prepared=with_names_recorded)
        except RiktigError as error:
            session.say(str(error).splitlines()[0] + " " + error.hint, wrong=True)
            return False
        except OSError as error:
            session.say(f"The job cannot be imported ({error.strerror or error}).", wrong=True)
            return False
        opened = self._window.open_path(target)
        if opened:
            session.say(f"{path.name} imported with all its records; the job is now {target}.")
        return opened


def _place_for(number: str) -> Path:
    """Where a job of a number is kept: by its number, or a name beside it when that is taken."""
    folder = jobs_folder()
    folder.mkdir(parents=True, exist_ok=True)
    stem = file_name(number)
    plain = folder / f"{stem}.riktig"
    taken = {entry.name.casefold() for entry in folder.iterdir()}
    return free_name(folder, f"{stem}-imported", ".riktig") if plain.name.casefold() in taken else plain


def _paths(event: QDragEnterEvent | QDropEvent) -> list[Path]:
    """The files that come with a drag and that can be taken in."""
    urls = event.mimeData().urls()
    paths = [Path(url.toLocalFile()) for url in urls if url.isLocalFile()]
    return [path for path in paths if path.suffix.lower() in (*JOBS, *TEXTS, *LISTS, *ENDINGS)]
