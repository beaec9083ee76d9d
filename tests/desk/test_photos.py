"""Photos: kept in the job file with the record, seen among the details, carried by JSON, and refused by name."""

import hashlib
import sqlite3
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QImage
from PySide6.QtWidgets import QApplication, QDialog, QInputDialog, QLabel, QPushButton

from riktig.core.keys import DeviceKey, PinKey, WireKey
from riktig.core.plate import LAYOUT
from riktig.core.records import NoteKept, PhotoKept
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.store import Importer, JobFile, dump_whole, load_whole
from riktig.core.views import details_of, notes_on, photos_of
from riktig.core.wiring import WIRING
from riktig.desk.photos import LONGEST_NOTE, LONGEST_PX, MOST_BYTES, keep_note, read_photo, shown_photo
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.conftest import FakeClock
from tests.desk.conftest import press, settle_window
from tests.desk.test_arrivals import drop

BLUE = QColor(20, 60, 160)


@pytest.fixture
def photo(tmp_path: Path, app: QApplication) -> Path:
    picture = QImage(640, 480, QImage.Format.Format_RGB32)
    picture.fill(BLUE)
    path = tmp_path / "clamp 13.png"
    assert picture.save(str(path))
    return path


def a_device(session: Session) -> DeviceKey:
    return DeviceKey(session.evaluation.get(LAYOUT).stands[3].block.lead)


def kept(session: Session) -> list[PhotoKept]:
    return [record.facts for record in session.records if isinstance(record.facts, PhotoKept)]


def test_a_photo_that_is_dropped_is_kept_with_what_is_selected(
    window: MainWindow, session: Session, photo: Path, said: list[tuple[str, bool]]
) -> None:
    key = a_device(session)
    window.show_thing(key)
    assert drop(window, photo)
    (facts,) = kept(session)
    tag = session.evaluation.get(NAMES).tag[key.device]
    assert facts.of == tag
    assert facts.name == "clamp 13.png"
    assert facts.original == hashlib.sha256(photo.read_bytes()).hexdigest()
    assert said[-1] == (f"clamp 13.png is kept as a photo of {tag}. Undo takes it back.", False)
    buttons = [b for b in window.details.findChildren(QPushButton) if b.accessibleName().startswith("Photo of ")]
    assert len(buttons) == 1
    assert "Ida" in buttons[0].accessibleName()
    buttons[0].click()
    large = [dialog for dialog in window.findChildren(QDialog) if dialog.isVisible()]
    assert len(large) == 1
    assert tag in large[0].windowTitle()
    large[0].close()


def test_the_picture_is_that_of_the_file_and_is_there_again_after_opening(
    session: Session, window: MainWindow, photo: Path
) -> None:
    session.select(a_device(session))
    settle_window()
    drop(window, photo)
    (facts,) = kept(session)
    assert session.file
    path = session.file.path
    session.file.close()
    again = JobFile(path, read_only=True)
    body = again.attachment(facts.file)
    assert body is not None
    assert hashlib.sha256(body).hexdigest() == facts.digest
    picture = QImage.fromData(body)
    assert (picture.width(), picture.height()) == (640, 480)
    assert picture.pixelColor(320, 240).blue() == pytest.approx(BLUE.blue(), abs=6), "JPEG at quality 85"
    assert again.broken_links() == ()
    assert again.attachment("no such photo") is None
    again.close()


def test_pins_and_elements_show_the_photos_of_their_device_and_wires_their_own(
    window: MainWindow, session: Session, photo: Path
) -> None:
    wire = session.evaluation.get(WIRING).wires[5]
    session.select(PinKey(wire.start.pin))
    settle_window()
    drop(window, photo)
    owner = wire.start.pin[0]
    assert len(photos_of(session.records, DeviceKey(owner))) == 1
    assert len(photos_of(session.records, PinKey(wire.start.pin))) == 1
    assert photos_of(session.records, WireKey(wire.key)) == ()
    page = details_of(session.evaluation, DeviceKey(owner), session.records)
    assert page is not None
    assert len(page.photos) == 1


def test_undo_takes_a_photo_back_as_a_correction_and_the_file_keeps_it(
    window: MainWindow, session: Session, photo: Path
) -> None:
    window.go_to("Plate")
    key = a_device(session)
    session.select(key)
    settle_window()
    drop(window, photo)
    assert session.undo_name.startswith("photo of ")
    press(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert photos_of(session.records, key) == ()
    assert len(kept(session)) == 1, "the log only grows"
    assert session.file
    assert session.file.attachment(kept(session)[0].file) is not None


def test_a_photo_of_nothing_is_refused_and_nothing_is_recorded(
    window: MainWindow, session: Session, photo: Path, said: list[tuple[str, bool]]
) -> None:
    window.go_to("Plate")
    drop(window, photo)
    assert said[-1][0].startswith("Select what the photo shows")
    assert kept(session) == []


def test_the_same_photo_twice_is_two_entries_and_one_picture(window: MainWindow, session: Session, photo: Path) -> None:
    first, second = a_device(session), DeviceKey(session.evaluation.get(CIRCUITS).devices[0].id)
    for key in (first, second):
        session.select(key)
        settle_window()
        drop(window, photo)
    assert len(kept(session)) == 2
    assert session.file
    db = sqlite3.connect(session.file.path)
    assert db.execute("SELECT count(*) FROM attachment").fetchone() == (1,)
    db.close()


def test_what_is_no_photo_or_too_large_is_refused_by_name(
    window: MainWindow, session: Session, tmp_path: Path, said: list[tuple[str, bool]]
) -> None:
    session.select(a_device(session))
    settle_window()
    text = tmp_path / "notes.jpg"
    text.write_text("landed at 14 instead of 13")
    drop(window, text)
    assert said[-1][0].startswith("notes.jpg is no picture that can be shown")
    assert said[-1][1]
    huge = tmp_path / "huge.png"
    with huge.open("wb") as file:
        file.truncate(200_000_000)
    drop(window, huge)
    assert said[-1][0].startswith("huge.png has 200 MB and was not kept.")
    assert MOST_BYTES < 200_000_000
    drop(window, tmp_path / "gone.jpg")
    assert said[-1][0].startswith("gone.jpg cannot be read")
    assert kept(session) == []
    assert not drop(window, tmp_path / "film.mov"), "not taken in at all"


def test_a_large_photo_is_made_smaller_and_keeps_its_shape(tmp_path: Path, app: QApplication) -> None:
    picture = QImage(6000, 3000, QImage.Format.Format_RGB32)
    picture.fill(BLUE)
    path = tmp_path / "large.jpg"
    picture.save(str(path))
    body, _ = read_photo(path)
    small = QImage.fromData(body)
    assert (small.width(), small.height()) == (LONGEST_PX, LONGEST_PX // 2)


def test_a_picture_that_was_exchanged_in_the_file_is_not_shown(
    window: MainWindow, session: Session, photo: Path
) -> None:
    key = a_device(session)
    session.select(key)
    settle_window()
    drop(window, photo)
    (facts,) = kept(session)
    assert shown_photo(session, facts.file, facts.digest) is not None
    assert shown_photo(session, facts.file, "0" * 64) is None
    assert shown_photo(session, "other.jpg", facts.digest) is None


def test_json_carries_photos_there_and_back(
    window: MainWindow, session: Session, photo: Path, tmp_path: Path, clock: FakeClock
) -> None:
    session.select(a_device(session))
    settle_window()
    drop(window, photo)
    (facts,) = kept(session)
    assert session.file
    before = session.file.attachment(facts.file)
    target = tmp_path / "again.riktig"
    load_whole(target, dump_whole(session.file), Importer("Ida", clock()))
    other = JobFile(target, read_only=True)
    assert other.attachment(facts.file) == before
    assert [r.facts for r in other.records()] == [r.facts for r in session.records]
    other.close()


class TestNotes:
    """A note is kept with the thing that is selected, shown among its details and taken back by undo."""

    def test_a_note_is_written_on_what_is_selected(
        self, window: MainWindow, session: Session, monkeypatch: pytest.MonkeyPatch, said: list[tuple[str, bool]]
    ) -> None:
        key = a_device(session)
        window.show_thing(key)
        monkeypatch.setattr(
            QInputDialog, "getMultiLineText", lambda *_: ("  seen by the fitter: clamp 13 is worn ", True)
        )
        window.arrivals.ask_note()
        settle_window()
        (note,) = notes_on(session.records, key)
        assert note.text == "seen by the fitter: clamp 13 is worn"
        assert "Ida" in note.by
        assert any(label.text() == note.text for label in window.details.findChildren(QLabel))
        session.undo()
        assert notes_on(session.records, key) == ()
        assert [r.facts.text for r in session.records if isinstance(r.facts, NoteKept)] == [note.text]

    def test_without_a_selection_nothing_is_asked(
        self, window: MainWindow, session: Session, monkeypatch: pytest.MonkeyPatch, said: list[tuple[str, bool]]
    ) -> None:
        monkeypatch.setattr(QInputDialog, "getMultiLineText", lambda *_: pytest.fail("asked"))
        session.select(None)
        window.arrivals.ask_note()
        assert said[-1][0].startswith("Select what the note is about")

    @pytest.mark.parametrize(
        ("text", "kept_words"), [("  ", ""), ("x" * (LONGEST_NOTE + 1), ""), ("x" * LONGEST_NOTE, "x")]
    )
    def test_a_note_has_words_and_an_end(
        self, session: Session, window: MainWindow, text: str, kept_words: str
    ) -> None:
        key = a_device(session)
        assert keep_note(session, text, key, "K1") is bool(kept_words)
        assert len(notes_on(session.records, key)) == len(kept_words)

    def test_a_note_of_a_pin_is_one_of_its_device(self, session: Session, window: MainWindow) -> None:
        wire = session.evaluation.get(WIRING).wires[5]
        assert keep_note(session, "scratched", PinKey(wire.start.pin), "pin")
        assert len(notes_on(session.records, DeviceKey(wire.start.pin.device))) == 1
        assert notes_on(session.records, WireKey(wire.key)) == ()
