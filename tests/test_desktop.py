"""Riktig in the menu of the desktop: what is put there, that it is sound, and that all of it goes again."""

import configparser
import re
import subprocess
import sys
from pathlib import Path
from xml.etree import ElementTree

import pytest

from riktig.cli import main
from riktig.cli.parser import parser


@pytest.fixture
def data(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """Where the desktop looks, in these tests."""
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "share"))
    return tmp_path / "share"


def run(option: str) -> int:
    with pytest.raises(SystemExit) as ended:
        main([option])
    return int(ended.value.code or 0)


def test_all_of_it_is_put_there_and_taken_away_again(data: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert run("--install-desktop") == 0
    names = {path.relative_to(data).as_posix() for path in data.rglob("*") if path.is_file()}
    assert {
        "applications/riktig.desktop",
        "icons/hicolor/256x256/apps/riktig.png",
        "icons/hicolor/256x256/mimetypes/application-x-riktig.png",
        "mime/packages/riktig.xml",
        "metainfo/example.riktig.Riktig.metainfo.xml",
        "man/man1/riktig.1",
    } <= names
    assert "in the menu" in capsys.readouterr().out
    assert run("--remove-desktop") == 0
    left = [path for path in data.rglob("*riktig*") if path.is_file()]
    assert left == []
    assert run("--remove-desktop") == 0
    assert "was not in the menu" in capsys.readouterr().out


@pytest.mark.parametrize("folder", ["plain", "with blank", 'quote"and$', "per%cent"])
def test_the_launcher_starts_this_riktig_wherever_it_lies(
    folder: str, data: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Desktop entry specification: the program is one quoted argument, with a backslash ahead of what has a meaning."""
    script = tmp_path / folder / "riktig"
    script.parent.mkdir()
    script.write_text("#!/bin/sh\n", encoding="utf-8")
    monkeypatch.setattr(sys, "argv", [str(script)])
    assert run("--install-desktop") == 0
    entry = configparser.ConfigParser(interpolation=None)
    entry.read(data / "applications" / "riktig.desktop", encoding="utf-8")
    # First the string: two backslashes are one. Then the argument: what follows a backslash is meant as it is.
    command = entry["Desktop Entry"]["Exec"].replace("\\\\", "\\")
    program = re.fullmatch(r'"((?:[^"\\]|\\.)*)" open %f', command)
    assert program
    assert re.sub(r"\\(.)", r"\1", program[1]).replace("%%", "%") == str(script)
    assert "Engineering" in entry["Desktop Entry"]["Categories"]
    assert entry["Desktop Entry"]["MimeType"] == "application/x-riktig;"


def test_the_description_and_the_file_type_are_sound_xml(data: Path) -> None:
    run("--install-desktop")
    about = ElementTree.parse(data / "metainfo" / "example.riktig.Riktig.metainfo.xml").getroot()
    assert about.findtext("launchable") == "riktig.desktop"
    assert about.findtext("project_license") == "MIT"
    assert about.find("content_rating") is not None
    kinds = ElementTree.parse(data / "mime" / "packages" / "riktig.xml").getroot()
    (kind,) = kinds
    assert kind.get("type") == "application/x-riktig"


def test_the_man_page_names_every_command(capsys: pytest.CaptureFixture[str]) -> None:
    assert run("--man") == 0
    text = capsys.readouterr().out
    assert text.startswith(".TH RIKTIG")
    commands = next(action for action in parser()._actions if action.dest == "command").choices
    assert commands
    for name in commands:
        assert f"\\,{name}\\/" in text or f" {name}" in text, name


def test_a_folder_that_cannot_be_written_is_said(data: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data.parent.mkdir(exist_ok=True)
    data.write_text("a file is in the way", encoding="utf-8")
    assert run("--install-desktop") == 2
    assert "could not be put into the menu" in capsys.readouterr().err


def test_a_wheel_brings_the_files_for_the_desktop(tmp_path: Path) -> None:
    root = Path(__file__).resolve().parent.parent
    text = (root / "pyproject.toml").read_text(encoding="utf-8")
    assert '"assets/desktop/*"' in text
    shown = subprocess.run(
        [sys.executable, "-m", "riktig.cli", "--version"], capture_output=True, text=True, check=True
    )
    assert shown.stdout.startswith("riktig ")
