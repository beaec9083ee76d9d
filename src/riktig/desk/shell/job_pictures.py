"""A small picture of each job for the first screen, kept where the desktop keeps its own.

They lie and are named as the Thumbnail Managing Standard of freedesktop.org has it (version 0.9, from memory), so that
a file manager shows them too: PNG of at most 256 pixels in ``thumbnails/large``, named by the MD5 of the file's
address, with that address and the time of the file's last change written into it.
"""

import hashlib
from pathlib import Path

import platformdirs
from PySide6.QtCore import QUrl
from PySide6.QtGui import QIcon, QImage, QPixmap

__all__ = ["address_of", "picture_file", "picture_of"]


def pictures_folder() -> Path:
    """Where pictures of files are kept."""
    return platformdirs.user_cache_path() / "thumbnails" / "large"


def picture_file(path: Path) -> Path:
    """Where the picture of a job file lies."""
    return pictures_folder() / f"{hashlib.md5(address_of(path).encode(), usedforsecurity=False).hexdigest()}.png"


def address_of(path: Path) -> str:
    """The address of a file as the standard has it: “file:///…”, what is not ASCII escaped."""
    return bytes(QUrl.fromLocalFile(str(path.absolute())).toEncoded().data()).decode("ascii")


def picture_of(path: Path) -> QIcon:
    """The picture of a job file as it was last left; an empty one when there is none."""
    picture = QImage(str(picture_file(path)))
    if picture.isNull() or picture.text("Thumb::URI") != address_of(path):
        return QIcon()
    return QIcon(QPixmap.fromImage(picture))
