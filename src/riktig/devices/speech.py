"""The speech service of the desktop, where there is one: whoever has a probe in each hand hears what to touch next."""

import shutil
import subprocess
from collections.abc import Callable, Sequence

__all__ = ["Speech"]

PROGRAM = "spd-say"
"""The command of speech-dispatcher, which desktops of Linux share."""

WORDS = {"MΩ": "megohm", "kΩ": "kiloohm", "mΩ": "milliohm", "Ω": "ohm", ":": ", ", "✓": "", "✗": ""}


def _start(command: Sequence[str]) -> None:
    subprocess.Popen(command, stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)


class Speech:
    """Says texts, one after the other; a new one cuts the last one off.

    Args:
        find: Finds a program by its name; None where it is not there.
        start: Starts a command and does not wait for it.
    """

    def __init__(
        self, find: Callable[[str], str | None] = shutil.which, start: Callable[[Sequence[str]], None] = _start
    ) -> None:
        self._program, self._start = find(PROGRAM), start

    @property
    def is_there(self) -> bool:
        """Whether the desktop can speak."""
        return self._program is not None

    def say(self, text: str) -> None:
        """Says a text; nothing where the desktop cannot speak, or does not any more."""
        if self._program is None or not text.strip():
            return
        try:
            self._start([self._program, "--cancel"])
            self._start([self._program, "--", spoken(text)])
        except OSError:
            self._program = None


def spoken(text: str) -> str:
    """As it is to be read aloud: clamps letter by letter, units in words."""
    for written, spoken in WORDS.items():
        text = text.replace(written, spoken)
    return " ".join(text.split())
