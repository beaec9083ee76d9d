"""The Labels station in the real window: what is chosen, own words, exchanges on the panel, true size, practice."""

from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import pytest
from ezdxf.filemanagement import readfile
from PySide6.QtCore import Qt
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QInputDialog

from riktig.core.edits import ChangeLoad, SetPractice
from riktig.core.geometry import Text
from riktig.core.job import LabelForm, LabelWord
from riktig.core.keys import PartKey, WireKey
from riktig.core.labels import LABELS, LabelWork, Medium, known_sheets
from riktig.core.records import LabelPrinted, LabelReplaced
from riktig.core.wiring import WIRING
from riktig.desk import house_media as media_table
from riktig.desk import measured_devices
from riktig.desk.measured_devices import keep_printed_bar, pixels_per_mm, printed_bar, scales
from riktig.desk.printing.preview import PrintPreview
from riktig.desk.printing.scale_check import ScaleCheck, why_not_true
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.labels import LabelsStation
from riktig.desk.stations.labels.choice_bar import CHOSEN
from riktig.desk.stations.labels.printer_dialog import PrinterDialog
from riktig.desk.stations.labels.screen_dialog import ScreenDialog
from riktig.desk.stations.labels.sheet_dialog import SheetDialog
from riktig.desk.stations.labels.words_dialog import WordsDialog
from riktig.devices.label_printer import LabelPrinterStandIn, PrinterFault
from tests.desk.conftest import settle_window

PLATES = next(s for s in known_sheets() if s.form is LabelForm.PLATES and s.medium == Medium.LEGEND.value)


@pytest.fixture
def station(window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> LabelsStation:
    monkeypatch.setattr(measured_devices, "window_file", lambda: tmp_path / "window.ini")
    monkeypatch.setattr(media_table, "media_file", lambda: tmp_path / "media.csv")
    window.go_to("Labels")
    settle_window()
    labels = window.stations["Labels"]
    assert isinstance(labels, LabelsStation)
    return labels


def rename(session: Session, name: str) -> None:
    assert session.edit("name", ChangeLoad(session.job.loads[0].id, {"name": name}))
    settle_window()


def test_a_changed_legend_is_printed_exchanged_and_ticked(
    station: LabelsStation, session: Session, tmp_path: Path
) -> None:
    station.turn(Medium.LEGEND)
    station.print_to(tmp_path / "legends.pdf")
    rename(session, "rinse drum")
    station.refresh()
    assert station.on_panel.text() == "On the panel: 4"
    station.choice.choose("to print again")
    station.print_to(tmp_path / "again.pdf")
    settle_window()
    station.on_panel.click()
    assert station.pages.currentWidget() is station.changes
    assert {change.work for change in station.changes.changes} == {LabelWork.PUT_ON}
    station.changes.table.selectRow(0)
    station.changes.done.click()
    settle_window()
    assert station.on_panel.text() == "On the panel: 3"
    ticked = [record for record in session.records if isinstance(record.facts, LabelReplaced)]
    assert [(r.facts.was, r.facts.text) for r in ticked] == [("WASH DRUM / STOP", "RINSE DRUM / STOP")]  # type: ignore[union-attr]


def test_what_must_be_printed_first_is_not_ticked(station: LabelsStation, session: Session, tmp_path: Path) -> None:
    station.turn(Medium.LEGEND)
    station.print_to(tmp_path / "legends.pdf")
    rename(session, "rinse drum")
    station.on_panel.click()
    station.changes.table.selectAll()
    station.changes.tick_chosen()
    assert not [record for record in session.records if isinstance(record.facts, LabelReplaced)]


def test_a_batch_a_place_a_run_or_one_thing_can_be_printed_alone(
    station: LabelsStation, session: Session, tmp_path: Path
) -> None:
    station.turn(Medium.WIRE)
    whole = station.words.text()
    station.choice.batch.setCurrentIndex(1)
    station.choice.changed.emit()
    batch = session.evaluation.get(WIRING).batches[0]
    assert f"{2 * len(batch.wires)} to print" in station.words.text() != whole
    station.print_to(tmp_path / "batch.pdf")
    printed = [record for record in session.records if isinstance(record.facts, LabelPrinted)]
    assert len(printed) == 2 * len(batch.wires)
    station.choice.batch.setCurrentIndex(0)
    wire = session.evaluation.get(WIRING).wires[3]
    session.select(WireKey(wire.key))
    station.choice.choose(CHOSEN)
    assert "2 to print" in station.words.text(), "a lost pair is printed again"
    since = next(n for n in range(station.choice.which.count()) if "since" in station.choice.which.itemText(n))
    rename(session, "rinse drum")
    station.turn(Medium.DEVICE)
    station.choice.choose(station.choice.which.itemText(since))
    assert "to print" in station.words.text()


def drawn_texts(station: LabelsStation) -> set[str]:
    return {shape.text for shape in station.view.drawing.shapes if isinstance(shape, Text)}


def test_a_text_is_written_on_the_picture_with_its_reason(station: LabelsStation, session: Session) -> None:
    station.turn(Medium.WARNING)
    at = station.view.centre_of(PartKey("skilled"))
    assert at is not None
    QTest.mouseDClick(station.view, Qt.MouseButton.LeftButton, pos=at.toPoint())
    editor = station.editor
    assert editor.isVisible()
    assert station.text.isEnabled()
    editor.fields[1].setFocus()
    editor.fields[1].selectAll()
    QTest.keyClicks(editor.fields[1], "Electricians.")
    assert "Electricians." in drawn_texts(station), "each letter is seen on the label"
    QTest.keyClick(editor.fields[1], Qt.Key.Key_Return)
    assert "reason" in editor.wrong.text()
    assert not session.job.label_texts
    QTest.keyClicks(editor.why, "the shop's words")
    QTest.keyClick(editor.why, Qt.Key.Key_Return)
    settle_window()
    assert not editor.isVisible()
    plate = next(x for x in session.evaluation.get(LABELS).on(Medium.WARNING) if x.key == PartKey("skilled"))
    assert plate.lines[1] == "Electricians."
    QTest.keyClick(station.view, Qt.Key.Key_F2)
    assert editor.why.text() == "the shop's words"
    editor.plain_button.click()
    settle_window()
    assert not session.job.label_texts
    assert "Electricians." not in drawn_texts(station)


def test_a_text_that_is_left_changes_nothing(station: LabelsStation, session: Session) -> None:
    station.turn(Medium.WARNING)
    session.select(PartKey("skilled"))
    station.text.click()
    before = drawn_texts(station)
    QTest.keyClicks(station.editor.fields[1], "W" * 200)
    assert "Does not fit" in station.editor.wrong.text()
    QTest.keyClick(station.editor.fields[1], Qt.Key.Key_Escape)
    assert not station.editor.isVisible()
    assert drawn_texts(station) == before
    assert not session.job.label_texts


def test_choosing_another_label_leaves_the_text(station: LabelsStation, session: Session) -> None:
    station.turn(Medium.WARNING)
    session.select(PartKey("skilled"))
    station.text.click()
    QTest.keyClicks(station.editor.fields[1], "half a")
    session.select(PartKey("nameplate"))
    assert not station.editor.isVisible()
    assert "half a" not in drawn_texts(station)


def test_the_tag_of_a_device_cannot_be_written_over(station: LabelsStation, session: Session) -> None:
    labels = session.evaluation.get(LABELS).labels
    station.turn(Medium.DEVICE)
    station.edit_text(next(label.key for label in labels if label.lines[:1] == ("K1",)))
    assert not station.editor.fields[0].isEnabled()
    assert station.editor.fields[1].isEnabled()


def test_the_table_of_words_names_what_it_lacks(station: LabelsStation, session: Session) -> None:
    session.edit(
        "language", SetPractice({"label_language": "de", "label_words": (LabelWord("earth bar", "PE", "de"),)})
    )
    settle_window()
    assert "not in the company's table" in station.words.text()
    missing = session.evaluation.get(LABELS).untranslated
    dialog = WordsDialog(station, session.job.practice, missing)
    dialog.add_missing.click()
    assert dialog.table.rowCount() == 1 + len(missing)
    item = dialog.table.item(1, 1)
    assert item is not None
    item.setText("Hauptschalter")
    dialog.code.setText("deutsch")
    dialog.accept()
    assert "no code of a language" in dialog.wrong.text()
    dialog.code.setText("de")
    dialog.accept()
    assert len(dialog.rows) == 2, "rows with nothing to say are left out"


def test_a_wire_in_a_duct_keeps_its_markers_and_it_is_said_why(
    station: LabelsStation, session: Session, said: list[tuple[str, bool]], monkeypatch: pytest.MonkeyPatch
) -> None:
    station.turn(Medium.WIRE)
    wire = next(wire for wire in session.evaluation.get(WIRING).wires if wire.ducts)
    session.select(WireKey(wire.key))
    monkeypatch.setattr(QInputDialog, "getText", lambda *_args, **_more: ("short", True))
    station.unmark.click()
    assert session.job.unmarked == ()
    assert any("runs in duct" in text for text, wrong in said if wrong)


def test_true_size_is_asked_once_with_a_card(station: LabelsStation, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[int] = []

    def answer(dialog: ScreenDialog) -> int:
        asked.append(1)
        dialog.slider.setValue(520)
        return 1

    monkeypatch.setattr(ScreenDialog, "exec", answer)
    station.true_size.click()
    assert station.view.scale == pytest.approx(5.2)
    assert pixels_per_mm(station.screen().name()) == pytest.approx(5.2)
    station.true_size.click()
    station.true_size.click()
    assert len(asked) == 1


def test_labels_come_out_as_svg_and_dxf_a_file_a_page(station: LabelsStation, tmp_path: Path) -> None:
    """Outside: the XML parser of the standard library and ezdxf read them; a plate has no text, only outlines."""
    station.turn(Medium.LEGEND)
    station.take_sheet(PLATES)
    settle_window()
    station.print_to(tmp_path / "legends.svg")
    root = ElementTree.parse(tmp_path / "legends.svg").getroot()
    assert root.attrib["width"].removesuffix("mm") == "300"
    assert not [node for node in root.iter() if node.tag.endswith("text")]
    station.print_to(tmp_path / "legends.dxf")
    kinds = {entity.dxftype() for entity in readfile(tmp_path / "legends.dxf").modelspace()}
    assert "LWPOLYLINE" in kinds
    assert "TEXT" not in kinds


def test_the_house_keeps_a_medium_for_other_jobs(station: LabelsStation, tmp_path: Path) -> None:
    dialog = SheetDialog(station, Medium.WIRE, None)
    dialog.name.setText("ring strip")
    dialog.counts["characters"].setValue(5)
    dialog.keep.setChecked(True)
    dialog.accept()
    other = SheetDialog(station, Medium.WIRE, None)
    assert other.known.findText("ring strip") > 0
    (kept,) = media_table.house_media()
    assert dialog.sheet is not None
    assert kept == replace(dialog.sheet, used=0, sheets=None)
    (tmp_path / "media.csv").write_text("medium,name\nwire markers,x\n", encoding="utf-8")
    broken = SheetDialog(station, Medium.WIRE, None)
    assert "cannot be read" in broken.wrong.text()
    assert broken.known.count() > 3, "what ships is offered all the same"


class TestPracticePrinter:
    def test_nothing_of_it_enters_the_record(self, station: LabelsStation, session: Session) -> None:
        station.turn(Medium.CABLE)
        before = session.records
        dialog = PrinterDialog(station, session.evaluation.get(LABELS).on(Medium.CABLE), station.theme)
        dialog.print_rest()
        assert "0 to print" in dialog.words.text()
        assert session.records is before
        assert not dialog.start.isEnabled()

    @pytest.mark.parametrize(
        ("fault", "out", "spoilt"),
        [(PrinterFault.NONE, 9, 0), (PrinterFault.JAMS, 4, 1), (PrinterFault.RUNS_OUT, 5, 1),
         (PrinterFault.CUTS_WRONG, 9, 9)],
    )  # fmt: skip
    def test_a_stand_in_goes_wrong_as_real_ones_do(self, fault: PrinterFault, out: int, spoilt: int) -> None:
        """By hand: of nine labels a third are three, half are four; the next one is the spoilt one."""
        pieces = LabelPrinterStandIn(fault=fault).print_labels([20.0] * 9)
        assert (len(pieces), sum(piece.spoilt for piece in pieces)) == (out, spoilt)

    def test_it_prints_on_from_the_spoilt_one(self, station: LabelsStation, session: Session) -> None:
        labels = session.evaluation.get(LABELS).on(Medium.DEVICE)
        dialog = PrinterDialog(station, labels, station.theme)
        dialog.fault.setCurrentIndex(1)
        dialog.print_rest()
        count = sum(label.copies for label in labels)
        assert dialog.next == count // 3
        assert "spoilt" in dialog.words.text()
        dialog.put_in_roll()
        dialog.print_rest()
        assert dialog.next == count

    def test_a_roll_that_is_too_short_stops_it(self) -> None:
        printer = LabelPrinterStandIn(tape_mm=50.0)
        assert len(printer.print_labels([20.0] * 5)) == 2
        printer.put_in_roll(100.0)
        assert len(printer.print_labels([20.0] * 5)) == 5


class TestScale:
    @pytest.mark.parametrize(("length", "wrong"), [(100.0, False), (99.6, False), (97.0, True), (104.0, True)])
    def test_half_a_millimetre_is_let_pass(self, length: float, wrong: bool) -> None:
        assert scales(length) is wrong

    def test_a_printer_that_scales_gets_no_label(
        self, station: LabelsStation, session: Session, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        printer = QPrinter()
        printer.setOutputFormat(QPrinter.OutputFormat.NativeFormat)
        monkeypatch.setattr(printer, "printerName", lambda: "Hall")
        monkeypatch.setattr(printer, "outputFormat", lambda: QPrinter.OutputFormat.NativeFormat)
        preview = PrintPreview(station, session, station.print_job())
        answers = iter([(0.0, 100.0), (97.0, 100.0)])

        def measure(_printer: QPrinter) -> None:
            dialog = ScaleCheck(preview, printer)
            across, down = next(answers)
            dialog.across.setValue(across)
            dialog.down.setValue(down)
            dialog.accept()

        monkeypatch.setattr(preview, "measure", measure)
        assert not preview.is_true(printer), "one bar only: nothing is known"
        assert printed_bar("Hall") == 0
        assert not preview.is_true(printer)
        assert printed_bar("Hall") == 97.0
        assert "prints 100 mm as 97 mm" in preview.words.text()
        keep_printed_bar("Hall", 100.0)
        assert preview.is_true(printer)
        assert why_not_true("Hall") == ""
        preview.reject()
