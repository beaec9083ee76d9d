"""Riktig in the menu of the desktop: launcher, icons, file type, description and man page; and out of it again."""

import os
import shutil
import subprocess
import sys
from contextlib import suppress
from importlib import resources
from pathlib import Path

from riktig.core.errors import RiktigError

__all__ = ["install_desktop", "man_page", "remove_desktop"]

ASSETS = "assets/desktop"


def _data_folder() -> Path:
    """Where the desktop of this person looks (XDG base directories)."""
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")


def _places(data: Path) -> dict[str, Path]:
    """By what it is, the file that is put there."""
    icons = data / "icons" / "hicolor" / "256x256"
    return {
        "launcher": data / "applications" / "riktig.desktop",
        "icon": icons / "apps" / "riktig.png",
        "document icon": icons / "mimetypes" / "application-x-riktig.png",
        "file type": data / "mime" / "packages" / "riktig.xml",
        "description": data / "metainfo" / "example.riktig.Riktig.metainfo.xml",
        "man page": data / "man" / "man1" / "riktig.1",
    }


def _command() -> str:
    """How this Riktig is started, quoted for the launcher: by its own script, else by its Python."""
    script = Path(sys.argv[0])
    if script.name == "riktig" and script.exists():
        return _quoted(str(script.resolve()))
    return f"{_quoted(sys.executable)} -m riktig.cli"


def _quoted(path: str) -> str:
    """A path as one argument of Exec: in quotes, a backslash ahead of what means something (desktop entry spec.)."""
    inside = "".join(f"\\\\{letter}" if letter in '"`$\\' else letter for letter in path)
    return f'"{inside}"'.replace("%", "%%")


def _contents() -> dict[str, bytes]:
    """By what it is, what is written."""
    folder = resources.files("riktig") / ASSETS
    launcher = (folder / "riktig.desktop").read_text(encoding="utf-8").replace('Exec="riktig"', f"Exec={_command()}")
    icon = (folder / "riktig.png").read_bytes()
    return {
        "launcher": launcher.encode(),
        "icon": icon,
        "document icon": icon,
        "file type": (folder / "riktig.xml").read_bytes(),
        "description": (folder / "riktig.metainfo.xml").read_bytes(),
        "man page": man_page().encode(),
    }


def man_page() -> str:
    """The manual of the command line in troff, made of the parser."""
    from argparse_manpage.manpage import Manpage  # type: ignore[import-untyped]  # late: only here

    from riktig.cli.parser import parser

    return str(Manpage(parser())).replace("Generated Python Manual", "Riktig")


def install_desktop() -> int:
    """Puts Riktig into the menu of this person's desktop; .riktig files open with it.

    Raises:
        RiktigError: a file cannot be written.
    """
    data = _data_folder()
    places, contents = _places(data), _contents()
    try:
        for what, path in places.items():
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_bytes(contents[what])
    except OSError as error:
        raise RiktigError(
            f"Riktig could not be put into the menu: {error.filename or data} ({error.strerror or error}).",
            hint="Make room or see that you may write there, then try again.",
        ) from error
    _tell_the_desktop(data)
    print("Riktig is in the menu, and .riktig files open with it. Remove it with: riktig --remove-desktop")
    return 0


def remove_desktop() -> int:
    """Takes Riktig out of the menu again; jobs and settings stay."""
    data = _data_folder()
    gone = [what for what, path in _places(data).items() if _removed(path)]
    _tell_the_desktop(data)
    print(f"Removed: {', '.join(gone)}. Your jobs and settings stay." if gone else "Riktig was not in the menu.")
    return 0


def _removed(path: Path) -> bool:
    """Whether a file was there and is gone now."""
    with suppress(OSError):
        path.unlink()
        return True
    return False


def _tell_the_desktop(data: Path) -> None:
    """Lets the desktop read its lists anew, where it has the programs for it."""
    for name, folder in (("update-mime-database", data / "mime"), ("update-desktop-database", data / "applications")):
        program = shutil.which(name)
        if program and folder.is_dir():
            subprocess.run([program, str(folder)], check=False, capture_output=True)
