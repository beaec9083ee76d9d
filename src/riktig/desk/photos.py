"""Photos that are dropped on the window or chosen, made small enough to keep; notes: both are kept with the record."""

import hashlib
from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, Qt
from PySide6.QtGui import QImage, QImageReader

from riktig.core.errors import RiktigError
from riktig.core.keys import Key
from riktig.core.records import NewRecord, NoteKept, PhotoKept
from riktig.core.store import Attachment
from riktig.core.views import thing_subject
from riktig.desk.session import Session

__all__ = ["ENDINGS", "keep_note", "keep_photo", "shown_photo"]

ENDINGS = (".jpg", ".jpeg", ".png", ".webp", ".bmp", ".tif", ".tiff")
LONGEST_PX = 2400
"""The longer side of a photo as it is kept: the mark on a wire can still be read, at some 600 KB (chosen by us)."""
MOST_BYTES = 60_000_000
"""A larger file is no photo of a phone or a camera (chosen by us)."""
LONGEST_NOTE = 2000
"""Letters of a note (chosen by us: a page)."""
QUALITY = 85


def read_photo(path: Path) -> tuple[bytes, str]:
    """A photo made small and turned upright, as JPEG without what the camera wrote about place and owner.

    Args:
        path: The file.

    Returns:
        What is kept, and the SHA-256 of the file as it was.

    Raises:
        RiktigError: it is too large, cannot be read, or is no picture.
    """
    try:
        size = path.stat().st_size
        if size > MOST_BYTES:
            raise RiktigError(
                f"{path.name} has {size / 1e6:.0f} MB and was not kept.",
                hint=f"Keep a photo of at most {MOST_BYTES / 1e6:.0f} MB.",
            )
        original = path.read_bytes()
    except OSError as error:
        raise RiktigError(
            f"{path.name} cannot be read ({error.strerror or error}).", hint="Choose another file."
        ) from error
    buffer = QBuffer()
    buffer.setData(original)
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    reader.setAutoTransform(True)
    picture = reader.read()
    if picture.isNull():
        raise RiktigError(
            f"{path.name} is no picture that can be shown ({reader.errorString()}), and was not kept.",
            hint="Save it as JPEG or PNG, and add it again.",
        )
    if max(picture.width(), picture.height()) > LONGEST_PX:
        picture = picture.scaled(
            LONGEST_PX, LONGEST_PX, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
        )
    return _as_jpeg(picture), hashlib.sha256(original).hexdigest()


def _as_jpeg(picture: QImage) -> bytes:
    out = QBuffer()
    out.open(QIODevice.OpenModeFlag.WriteOnly)
    picture.convertToFormat(QImage.Format.Format_RGB32).save(out, "JPEG", QUALITY)  # type: ignore[call-overload]
    return bytes(out.data().data())


def keep_photo(session: Session, path: Path, key: Key, label: str) -> bool:
    """Keeps a photo of a thing in the job file, with who and when; what went wrong is said.

    Args:
        session: What the window works on.
        path: The photo.
        key: What it shows.
        label: What that is called.

    Returns:
        Whether it is in the file.
    """
    try:
        body, original = read_photo(path)
    except RiktigError as error:
        session.say(str(error), wrong=True)
        return False
    digest = hashlib.sha256(body).hexdigest()
    name = f"{digest[:24]}.jpg"
    facts = PhotoKept(name, digest, original, path.name, label)
    is_kept = session.record_all([NewRecord(thing_subject(key), facts)], [Attachment(name, "image/jpeg", body)])
    if is_kept:
        session.say(f"{path.name} is kept as a photo of {label}. Undo takes it back.")
    return is_kept


def keep_note(session: Session, text: str, key: Key, label: str) -> bool:
    """Keeps a note on a thing in the job file, with who and when; an empty one is none.

    Args:
        session: What the window works on.
        text: The note; at most ``LONGEST_NOTE`` letters.
        key: What it is about.
        label: What that is called.

    Returns:
        Whether it is in the file; why not is said.
    """
    words = text.strip()
    if not words:
        session.say("The note is empty, so nothing was kept.", wrong=True)
        return False
    if len(words) > LONGEST_NOTE:
        session.say(
            f"The note has {len(words)} letters and was not kept. Write at most {LONGEST_NOTE}, or two notes.",
            wrong=True,
        )
        return False
    is_kept = session.record(thing_subject(key), NoteKept(words, label))
    if is_kept:
        session.say(f"The note on {label} is kept. Undo takes it back.")
    return is_kept


def shown_photo(session: Session, file: str, digest: str) -> QImage | None:
    """A kept photo; None when it is not there or is not the one that was recorded.

    Args:
        session: What the window works on.
        file: Its name in the job file.
        digest: What was recorded of it.
    """
    body = session.file.attachment(file) if session.file else None
    if body is None or hashlib.sha256(body).hexdigest() != digest:
        return None
    picture = QImage.fromData(body)
    return None if picture.isNull() else picture
