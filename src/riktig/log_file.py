"""The log of the program: what it said and what went wrong, in the user's state folder, for whoever helps."""

import logging
from logging.handlers import RotatingFileHandler

from riktig import __version__
from riktig.places import log_folder

__all__ = ["LOG", "begin_log"]

LOG = logging.getLogger("riktig")
MOST_BYTES, KEPT = 500_000, 3


def begin_log() -> None:
    """Writes the log to a file from now on; where none can be written, the program goes on without."""
    folder = log_folder()
    try:
        folder.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(folder / "riktig.log", maxBytes=MOST_BYTES, backupCount=KEPT, encoding="utf-8")
    except OSError:
        return
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(message)s"))
    LOG.addHandler(handler)
    LOG.setLevel(logging.INFO)
    LOG.info("Riktig %s begins", __version__)
