"""The sets of papers read back with pypdf: cover, contents, page of pages, sizes, scales, letters that can be read."""

import random
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from pypdf import PageObject, PdfReader
from pypdf.generic import Destination

from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue, Reader, Schedule, SetHead, export_all, schedule, write_document, write_set
from riktig.core.exports.lists import WRITTEN
from riktig.core.exports.paper_sets import cover_of, drawings_of, head_of, label_sheets, texts_for
from riktig.core.job import Job, Rulebook, add_load, new_job, set_heading, set_practice, set_supply
from riktig.core.labels import LABELS, Medium
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import demo_job
from tests.shared_plan import plan_for

CAPITAL = 0.76
"""Height of a capital of the shipped faces, of their size (read off the font files)."""
PT = 25.4 / 72


@pytest.fixture(scope="module")
def shed() -> Evaluation[Job]:
    """The kelp shed."""
    return plan_for(demo_job("kelp-shed"))


@pytest.fixture(scope="module")
def whole(shed: Evaluation[Job], tmp_path_factory: pytest.TempPathFactory) -> PdfReader:
    """The whole set of the kelp shed, written as ``export_all`` writes it."""
    path = tmp_path_factory.mktemp("shed") / "papers.pdf"
    tables = [schedule(name, shed) for name in WRITTEN]
    texts = texts_for(None, drawings_of(shed), tables)
    write_document(path, head_of(shed.document, "2026-11-30", "Ida"), texts, cover_of(shed, None))
    return PdfReader(path)


@pytest.fixture(scope="module")
def texts(whole: PdfReader) -> list[str]:
    """What stands on each page of it."""
    return [page.extract_text() for page in whole.pages]


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """All papers of the wash drum."""
    place = tmp_path_factory.mktemp("drum")
    export_all(plan_for(demo_job("wash-drum")), (), place, issue=Issue("2026-11-30", "Ida"))
    return place


def sizes_on(page: PageObject) -> Iterator[tuple[float, str]]:
    """The height of a capital of each text as printed, mm, with the text."""
    sizes: list[tuple[float, str]] = []

    def visit(text: str, cm: list[float], tm: list[float], font: object, size: float) -> None:
        if text.strip():
            turned = max(abs(cm[0] * tm[0] + cm[2] * tm[1]), abs(cm[1] * tm[0] + cm[3] * tm[1]))
            sizes.append((size * turned * CAPITAL * PT, text.strip()))

    page.extract_text(visitor_text=visit)
    yield from sizes


def test_the_first_page_is_a_cover_with_the_nameplate_and_revisions(whole: PdfReader) -> None:
    text = whole.pages[0].extract_text()
    for words in ("KS-0418", "Kelp drying shed", "Nameplate", "Full-load current", "Revisions", "What was changed"):
        assert words in text


def test_every_page_says_which_of_how_many_it_is(texts: list[str]) -> None:
    count = len(texts)
    assert count > 50
    for number, text in enumerate(texts, 1):
        assert f"Page\n{number} of {count}\n" in text


def test_the_contents_and_the_bookmarks_lead_to_their_pages(whole: PdfReader, texts: list[str]) -> None:
    text = texts[1]
    entries = re.findall(r"^(.+)\n(\d+)$", text.split("Company")[0], re.M)
    assert len(entries) > 40
    marks = {str(mark.title): mark for mark in whole.outline if isinstance(mark, Destination)}
    for title, page in entries:
        assert title in texts[int(page) - 1].replace("\n", " ") or title in marks
    pages = [whole.get_destination_page_number(mark) or 0 for mark in marks.values()]
    assert pages == sorted(pages)
    assert len(whole.pages[1]["/Annots"]) == len(entries)  # type: ignore[arg-type]


def test_the_document_says_who_made_it_and_what_it_is(whole: PdfReader) -> None:
    assert whole.metadata
    assert whole.metadata.author == "Ida"
    assert whole.metadata.title == "KS-0418 Kelp drying shed"
    assert whole.metadata.subject == "revision A, 2026-11-30"


def test_the_set_of_the_shed_is_not_padded(whole: PdfReader, texts: list[str]) -> None:
    """It had 185 pages, half of them nearly empty; no page is left with a heading and a row or two."""
    assert len(whole.pages) < 90, "as asked of the set"
    for number, page in enumerate(whole.pages[2:], 3):
        marks = page.get_contents()
        assert marks is not None
        assert len(texts[number - 1].splitlines()) > 30 or len(marks.get_data()) > 6000, number


def test_no_letter_on_paper_is_too_small_to_read(whole: PdfReader) -> None:
    """1.8 mm at arm's length; the plate on A4 had 417 texts under 1 mm."""
    for number, page in enumerate(whole.pages, 1):
        small = [(round(size, 2), text) for size, text in sizes_on(page) if size < 1.79]
        assert small == [], number


def test_bench_lists_are_set_larger_for_the_builder(folder: Path) -> None:
    reader = PdfReader(folder / "KS-0417_rev_B_for_the_builder.pdf")
    page = next(
        p for p in reader.pages if "Wires, from and to" in p.extract_text() and "Contents" not in p.extract_text()
    )
    rows = [size for size, text in sizes_on(page) if "ferrule" in text]
    assert rows
    assert min(rows) >= 2.5


@pytest.mark.parametrize("reader", list(Reader), ids=lambda reader: reader.value)
def test_each_reader_gets_what_he_needs_and_not_the_rest(folder: Path, reader: Reader) -> None:
    text = "\n".join(p.extract_text() for p in PdfReader(folder / f"KS-0417_rev_B_for_the_{reader.value}.pdf").pages)
    wanted = {
        Reader.BUILDER: ("Wires, from and to", "Cut list", "Pick list", "mark-out"),
        Reader.TESTER: ("Dead tests", "What each circuit must do", "Sheet 1"),
        Reader.INSTALLER: ("Cable entries", "Terminals", "List that travels to the site"),
        Reader.CUSTOMER: ("Parts list", "Rulebook", "Automatic restarts", "Sheet 1", "Faults by the lamps"),
        Reader.INSPECTOR: ("Rulebook", "Findings", "Sheet 1", "Still live"),
    }
    unwanted = {
        Reader.BUILDER: "Dead tests",
        Reader.TESTER: "Cut list",
        Reader.INSTALLER: "Dead tests",
        Reader.CUSTOMER: "Wires, from and to",
        Reader.INSPECTOR: "Cut list",
    }
    assert f"For the {reader.value}" in text
    assert [title for title in wanted[reader] if title not in text] == []
    assert unwanted[reader] not in text


def test_labels_are_printed_at_true_size(shed: Evaluation[Job], tmp_path: Path) -> None:
    """The outline of each label in the file, measured in points: nothing is scaled to the page."""
    write_set(tmp_path / "labels.pdf", head_of(shed.document, "2026-11-30"), label_sheets(shed), ())
    reader = PdfReader(tmp_path / "labels.pdf")
    text = "\n".join(page.extract_text() for page in reader.pages)
    assert set(re.findall(r"Scale\n(\S+ : \S+)\n", text)) == {"1 : 1"}
    labels = shed.get(LABELS)
    for medium in (Medium.WIRE, Medium.DEVICE, Medium.CABLE):
        width, height = (side / PT for side in labels.on(medium)[0].size)
        count = 0
        for page in reader.pages:
            contents = page.get_contents()
            assert contents is not None
            for x1, y1, x2, y2, x3, y3 in re.findall(
                r"n ([-\d.]+) ([-\d.]+) m ([-\d.]+) ([-\d.]+) l ([-\d.]+) ([-\d.]+) l",
                contents.get_data().decode("latin-1"),
            ):
                across = abs(float(x2) - float(x1))
                down = abs(float(y3) - float(y2))
                count += abs(across - width) < 0.01 and abs(down - height) < 0.01
                assert x3 or y1
        # Core marks have the size of wire markers.
        alike = (label for label in labels.labels if label.size == labels.on(medium)[0].size)
        assert count == sum(label.copies for label in alike), medium
        assert min(size for page in reader.pages for size, _ in sizes_on(page)) >= 1.19  # clamps of the pin cards


def test_north_american_papers_are_letter_and_tabloid(tmp_path: Path) -> None:
    """ANSI/ASME Y14.1: 8.5 × 11 and 11 × 17 inches."""
    job: Job = set_supply(
        new_job("NA-1", "pump"), voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False
    )
    job = with_names_recorded(add_load(set_practice(job, rulebook=Rulebook.UL), "pump", 1.5))
    files = export_all(plan_for(job), (), tmp_path)
    names = {path.name for path in files}
    assert {"NA-1_rev_A_plate_Letter.pdf", "NA-1_rev_A_plate_Tabloid.pdf"} <= names
    allowed = {(612, 792), (792, 1224)}
    for path in files:
        if path.suffix == ".pdf":
            for page in PdfReader(path).pages:
                assert tuple(sorted(round(float(side)) for side in page.mediabox[2:])) in allowed, path.name


def test_texts_of_any_length_stay_in_the_title_block_and_on_the_cover(tmp_path: Path) -> None:
    job = set_heading(
        demo_job("wash-drum"), title="word " * 60, client="Ω" * 90, maker="m" * 120, drawing_number="9" * 60
    )
    evaluation, path = plan_for(job), tmp_path / "papers.pdf"
    lists = [schedule(name, evaluation) for name in ("loads", "sources", "site")]
    contents = texts_for(None, drawings_of(evaluation)[:2], lists)
    write_document(path, head_of(job, "2026-11-30", "n" * 80), contents, cover_of(evaluation, None))
    for page in PdfReader(path).pages:
        right = float(page.mediabox.width)
        edges: list[float] = []

        def visit(
            text: str, cm: list[float], tm: list[float], font: object, size: float, edges: list[float] = edges
        ) -> None:
            if text.strip():
                edges.append(cm[0] * tm[4] + cm[2] * tm[5] + cm[4])

        page.extract_text(visitor_text=visit)
        assert max(edges) < right - 12 / PT


@pytest.mark.parametrize("seed", range(6))
def test_no_row_runs_into_the_title_block_whatever_the_lists(seed: int, tmp_path: Path) -> None:
    """Lists of rows of one to fourteen lines, one below the other: each row stands on a page, above its block, once."""
    chance = random.Random(seed)
    lists = []
    for number in range(7):
        count = chance.choice((1, 2, 7, 20, 60))
        rows = tuple((f"r{number}x{n}", "word " * chance.choice((1, 3, 40, 200))) for n in range(count))
        lists.append(Schedule(f"l{number}", f"List {number}", (("row", "Row"), ("text", "Text")), rows))
    write_set(tmp_path / "lists.pdf", SetHead("T", "t", "A", ""), (), lists)
    seen: list[str] = []
    for page in PdfReader(tmp_path / "lists.pdf").pages:
        places: list[tuple[str, float]] = []

        def visit(
            text: str,
            cm: list[float],
            tm: list[float],
            font: object,
            size: float,
            places: list[tuple[str, float]] = places,
        ) -> None:
            places.append((text.strip(), cm[1] * tm[4] + cm[3] * tm[5] + cm[5]))

        page.extract_text(visitor_text=visit)
        rows_here = [(text, y) for text, y in places if re.fullmatch(r"r\d+x\d+", text)]
        seen += [text for text, _ in rows_here]
        words = [y for text, y in places if text.startswith("word")]
        assert min([y for _, y in rows_here] + words, default=99.0) > 17 / PT
    assert sorted(seen) == sorted(str(row[0]) for table in lists for row in table.rows)
