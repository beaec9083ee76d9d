"""At twice the size and without a display: the window still works, and the command says what to do."""

import os
import subprocess
import sys
from pathlib import Path

import pytest
from PySide6.QtGui import QImage

ROOT = Path(__file__).parents[2]


def run_demo(out: Path, *more: str, scale: str = "1") -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", "QT_SCALE_FACTOR": scale}
    command = [sys.executable, "-m", "riktig.cli", "demo", "--job", "wash-drum", "--shot", str(out), *more]
    return subprocess.run(command, env=environment, capture_output=True, text=True, check=False)


@pytest.mark.parametrize(("scale", "width"), [("1", 1280), ("2", 2560)])
def test_a_picture_is_taken_at_every_scale(tmp_path: Path, scale: str, width: int) -> None:
    done = run_demo(tmp_path / "a.png", "--station", "plate", scale=scale)
    assert done.returncode == 0, done.stderr
    image = QImage(str(tmp_path / "a.png"))
    assert image.width() == width
    colours = {image.pixel(x, y) for x in range(0, image.width(), 16) for y in range(0, image.height(), 16)}
    assert len(colours) > 20, "it is not blank"


def test_a_station_that_is_not_there_is_said_with_those_that_are(tmp_path: Path) -> None:
    done = run_demo(tmp_path / "a.png", "--station", "Kitchen")
    assert done.returncode == 2
    assert "no station Kitchen" in done.stdout
    assert "Hand over" in done.stdout


def test_without_a_display_demo_says_so_and_offers_a_picture() -> None:
    environment = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")}
    done = subprocess.run([str(ROOT / "demo")], env=environment, capture_output=True, text=True, check=False)
    assert done.returncode == 2
    assert "no display" in done.stderr
    assert "--shot OUT.png" in done.stderr
