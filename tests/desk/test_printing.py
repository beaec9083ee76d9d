"""The print preview: the pages that will come out, at true size, and what is remembered when they are out."""

from collections.abc import Sequence
from pathlib import Path

import numpy as np
import pytest
from pypdf import PdfReader
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtWidgets import QApplication, QWidget

from riktig.core.exports import STATION_PAPERS, write_station_papers
from riktig.core.job import Job
from riktig.core.labels import LABELS, Medium
from riktig.core.schematic import numbers_on_paper
from riktig.core.views import STATIONS
from riktig.demo_job import frost_fan
from riktig.desk.printing.job import PrintJob
from riktig.desk.printing.pages import PdfPages, print_pages
from riktig.desk.printing.preview import PrintPreview
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import Waiter, press, settle_window
from tests.effort import share
from tests.shared_plan import plan_for
from tests.waiting import let_pass

MM = 25.4 / 72


def ink_box(picture: QImage) -> tuple[int, int, int, int]:
    """Left, top, right and bottom of everything that is darker than half grey, in pixels."""
    grey = picture.convertToFormat(QImage.Format.Format_Grayscale8)
    pixels = np.frombuffer(grey.constBits(), np.uint8).reshape(grey.height(), grey.bytesPerLine())[:, : grey.width()]
    rows, columns = np.nonzero((pixels < 128).any(axis=1))[0], np.nonzero((pixels < 128).any(axis=0))[0]
    return int(columns[0]), int(rows[0]), int(columns[-1]), int(rows[-1])


def pdf_printer(path: Path) -> QPrinter:
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(path))
    printer.setResolution(300)
    return printer


def preview_of(window: MainWindow, wait_until: Waiter) -> PrintPreview:
    window.activateWindow()
    settle_window()
    press(window, Qt.Key.Key_P, Qt.KeyboardModifier.ControlModifier)
    preview = next(child for child in window.findChildren(PrintPreview) if child.isVisible())
    wait_until(lambda: not preview.work.isRunning())
    let_pass(5)
    return preview


def test_every_station_has_its_papers() -> None:
    assert tuple(STATION_PAPERS) == STATIONS


@pytest.mark.parametrize("station", STATIONS)
def test_the_papers_of_a_station_are_a_pdf_on_the_paper_of_the_job(station: str, tmp_path: Path) -> None:
    path = tmp_path / "papers.pdf"
    evaluation = plan_for(frost_fan())
    count = write_station_papers(evaluation, (), station, path, made="2026-11-30")
    assert count >= 1
    reader = PdfReader(path)
    assert len(reader.pages) >= 1
    boxes = [page.mediabox for page in reader.pages]
    sizes = {tuple(sorted((round(box.width * MM), round(box.height * MM)))) for box in boxes}
    # ANSI/ASME Y14.1: A is 8.5 x 11 in (Letter), B is 11 x 17 in (Tabloid)
    assert sizes <= {(216, 279), (279, 432)}, "a job in North America prints on Letter and Tabloid"


def test_of_an_empty_job_nothing_is_written(tmp_path: Path) -> None:
    path = tmp_path / "papers.pdf"
    assert write_station_papers(plan_for(Job(number="X-1")), (), "Wires", path) == 0
    assert not path.exists()


def test_what_is_printed_has_the_size_of_the_page_to_a_third_of_a_millimetre(
    session: Session, tmp_path: Path, app: QApplication
) -> None:
    papers, printed = tmp_path / "papers.pdf", tmp_path / "printed.pdf"
    write_station_papers(session.evaluation, (), "Labels", papers)
    pages = PdfPages(papers)
    assert print_pages(pages, pdf_printer(printed))
    again = PdfPages(printed)
    assert again.count == pages.count
    for page in {0, pages.count - 1, *share(range(pages.count), 1)}:
        assert again.size(page) == pytest.approx(pages.size(page), abs=1.0)
        before, after = ink_box(pages.picture(page, 254)), ink_box(again.picture(page, 254))
        assert after == pytest.approx(before, abs=4), "254 dots to the inch: ten to the millimetre"
    pages.close()
    again.close()


def test_only_the_pages_that_were_asked_for_are_printed(session: Session, tmp_path: Path, app: QApplication) -> None:
    papers, printed = tmp_path / "papers.pdf", tmp_path / "printed.pdf"
    write_station_papers(session.evaluation, (), "Circuits", papers)
    pages, printer = PdfPages(papers), pdf_printer(printed)
    printer.setFromTo(2, 3)
    assert print_pages(pages, printer)
    assert len(PdfReader(printed).pages) == 2
    assert PdfPages(printed).size(0) == pytest.approx(pages.size(1), abs=1.0)


def test_the_preview_shows_every_page_and_is_turned_by_keys(window: MainWindow, wait_until: Waiter) -> None:
    window.go_to("Circuits")
    preview = preview_of(window, wait_until)
    assert preview.pages is not None
    assert preview.pages.count >= 3
    first = preview.sheet.pixmap().toImage()
    assert first.width() > 600
    press(preview, Qt.Key.Key_PageDown)
    assert preview.page == 1
    assert preview.words.text().startswith(f"Page 2 of {preview.pages.count}, ")
    assert preview.sheet.pixmap().toImage() != first
    press(preview, Qt.Key.Key_PageUp)
    press(preview, Qt.Key.Key_PageUp)
    assert preview.page == 0
    width = preview.pages.size(0)[0]
    preview.size_of.setCurrentText("True size")
    shown = preview.sheet.pixmap().width() / preview.sheet.pixmap().devicePixelRatio()
    assert shown == pytest.approx(width * preview.logicalDpiX() / 72, abs=1.5)
    preview.reject()


def test_what_is_saved_reserves_its_numbers(
    window: MainWindow, session: Session, wait_until: Waiter, tmp_path: Path
) -> None:
    window.go_to("Brief")
    preview = preview_of(window, wait_until)
    preview.save_to(tmp_path / "brief.pdf")
    assert session.job.printed == (), "a letter with no wire number in it reserves none"
    window.go_to("Wires")
    preview = preview_of(window, wait_until)
    assert "count as printed" in preview.words.text(), "said before it is done"
    assert session.job.printed == ()
    preview.save_to(tmp_path / "wires.pdf")
    assert len(PdfReader(tmp_path / "wires.pdf").pages) >= 1
    assert session.edit_name == "papers printed"
    assert set(session.job.printed) == set(numbers_on_paper(session.job))
    assert not preview.isVisible()


def test_labels_from_the_preview_are_recorded_as_those_from_the_station(
    window: MainWindow, session: Session, wait_until: Waiter, tmp_path: Path
) -> None:
    window.go_to("Labels")
    count = len(session.records)
    preview = preview_of(window, wait_until)
    preview.print_to(pdf_printer(tmp_path / "labels.pdf"))
    printed = session.records[count:]
    assert len(printed) == len(session.evaluation.get(LABELS).on(Medium.DEVICE)), "each label, also two of one part"


def test_a_folder_that_cannot_be_written_is_said_and_the_pages_stay(
    window: MainWindow, session: Session, wait_until: Waiter, tmp_path: Path
) -> None:
    window.go_to("Rules")
    preview = preview_of(window, wait_until)
    job = session.job
    preview.save_to(tmp_path / "no such folder" / "rules.pdf")
    assert "cannot be written" in preview.words.text()
    assert preview.isVisible()
    assert session.job is job, "nothing counts as printed"
    preview.reject()


def test_faults_are_said_before_anything_is_printed(
    window: MainWindow, session: Session, wait_until: Waiter, tmp_path: Path
) -> None:
    out: list[int] = []

    def printed() -> str:
        out.append(1)
        return ""

    job = PrintJob(
        "Labels", "labels.pdf", lambda e, path: write_station_papers(e, (), "Rules", path), printed, lambda: "Twice 17."
    )
    preview = PrintPreview(window, session, job)
    preview.open()
    wait_until(lambda: not preview.work.isRunning())
    let_pass(5)
    press(preview.print, Qt.Key.Key_Space)
    assert preview.words.text() == "Not printed yet. Twice 17. Press again to go on anyway."
    assert out == []
    preview.print_to(pdf_printer(tmp_path / "x.pdf"))
    assert out == [1]


@pytest.mark.parametrize("demo", [Job(number="X-1")], indirect=True)
def test_with_nothing_to_print_the_preview_says_so(window: MainWindow, wait_until: Waiter) -> None:
    window.go_to("Wires")
    preview = preview_of(window, wait_until)
    assert "nothing to print" in preview.words.text()
    assert not preview.print.isEnabled()
    preview.reject()


@pytest.fixture
def demo(request: pytest.FixtureRequest, demo: Job) -> Job:
    return getattr(request, "param", demo)


def test_without_a_job_it_is_said(window: MainWindow, said: Sequence[tuple[str, bool]]) -> None:
    window.show_start()
    press(window, Qt.Key.Key_P, Qt.KeyboardModifier.ControlModifier)
    assert said[-1][0].startswith("Open a job first")
    assert not [child for child in window.findChildren(QWidget) if isinstance(child, PrintPreview)]
