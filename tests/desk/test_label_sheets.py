"""Sheets of labels in the real window: chosen, begun, printed on, and counted down."""

from dataclasses import replace
from pathlib import Path

import pypdf
import pytest

from riktig.core.labels import Medium, known_sheets
from riktig.core.records import LabelPrinted
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.labels import LabelsStation
from riktig.desk.stations.labels.sheet_dialog import SheetDialog
from tests.desk.conftest import settle_window

TAGS = next(sheet for sheet in known_sheets() if sheet.medium == Medium.CABLE.value)


@pytest.fixture
def station(window: MainWindow) -> LabelsStation:
    window.go_to("Labels")
    settle_window()
    labels = window.stations["Labels"]
    assert isinstance(labels, LabelsStation)
    labels.turn(Medium.CABLE)
    return labels


def test_printing_takes_labels_from_the_begun_sheet_and_the_next_begin_where_these_end(
    station: LabelsStation, session: Session, tmp_path: Path
) -> None:
    station.take_sheet(replace(TAGS, used=60, sheets=2))
    settle_window()
    assert f"from place 61, 1 sheet, {2 * TAGS.places - 60} labels on the shelf" in station.words.text()
    path = tmp_path / "tags.pdf"
    station.print_to(path)
    settle_window()
    printed = sum(isinstance(record.facts, LabelPrinted) for record in session.records)
    copies = 2 * printed
    sheet = station.sheet_of()
    assert sheet is not None
    assert sheet.used == (60 + copies) % TAGS.places
    page = pypdf.PdfReader(path).pages[0]
    millimetres = [float(side) / 72 * 25.4 for side in page.mediabox[2:]]
    assert millimetres == pytest.approx([TAGS.paper_width, TAGS.paper_height], abs=0.1)
    assert "KS-0417" not in page.extract_text().replace("KS-0417/", ""), "no title block on a sheet of labels"


def test_too_few_labels_on_the_shelf_is_said_before_printing(station: LabelsStation) -> None:
    station.take_sheet(replace(TAGS, used=TAGS.places - 1, sheets=1))
    assert "1 labels on the shelf: too few" in station.words.text()


def test_the_dialog_takes_a_shipped_sheet_ones_own_and_plain_paper(station: LabelsStation) -> None:
    dialog = SheetDialog(station, Medium.CABLE, None)
    assert dialog.known.currentText() == TAGS.name
    dialog.sizes["across"].setValue(10.0)
    dialog.accept()
    assert dialog.sheet is None
    assert "apart" in dialog.wrong.text()
    dialog.sizes["across"].setValue(TAGS.across)
    dialog.name.setText("our own")
    dialog.counts["used"].setValue(7)
    dialog.shelf.setValue(3)
    dialog.accept()
    assert dialog.sheet == replace(TAGS, name="our own", used=7, sheets=3)
    station.take_sheet(dialog.sheet)
    again = SheetDialog(station, Medium.CABLE, station.sheet_of())
    assert again.name.text() == "our own"
    again.plain_button.click()
    assert again.plain
    station.take_sheet(None)
    assert station.sheet_of() is None
    assert "from place" not in station.words.text()


def test_pin_cards_have_no_sheet(station: LabelsStation) -> None:
    station.turn(None)
    assert not station.sheet.isEnabled()
    station.turn(Medium.CABLE)
    assert station.sheet.isEnabled()
