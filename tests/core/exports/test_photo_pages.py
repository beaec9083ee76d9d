"""Photos on paper: the pictures themselves, each with its words, and never a picture that is not what was kept."""

import hashlib
import io
from pathlib import Path

import pytest
from PIL import Image
from pypdf import PdfReader

from riktig.core.exports import Cover, PaperSheet, PaperTexts, SetHead, photo_pages, photos_named, write_document
from riktig.core.records import PhotoKept, Record, TakenBack

NOW = "2026-12-01T08:00:00+01:00"


def jpeg(colour: tuple[int, int, int], size: tuple[int, int] = (120, 80)) -> bytes:
    body = io.BytesIO()
    Image.new("RGB", size, colour).save(body, "JPEG")
    return body.getvalue()


def photo(n: int, body: bytes, of: str = "K1") -> Record:
    digest = hashlib.sha256(body).hexdigest()
    return Record(f"r{n}", "device:c1.K", PhotoKept(f"p{n}.jpg", digest, "", f"IMG_{n}.jpg", of), "Ida", NOW, 3)


def written(tmp_path: Path, records: list[Record], photos: dict[str, bytes]) -> PdfReader:
    pages = photo_pages(records, photos, PaperSheet.A4)
    path = tmp_path / "photos.pdf"
    head = SetHead("KS-1", "Drum", "A", "2026-12-01")
    write_document(path, head, PaperTexts(pages, ()), Cover("For the builder", []), PaperSheet.A4)
    return PdfReader(path)


def test_every_photo_is_on_paper_with_what_it_is_of_who_took_it_and_when(tmp_path: Path) -> None:
    bodies = [jpeg((40 * n, 90, 120)) for n in range(6)]
    records = [photo(n, body, f"K{n}") for n, body in enumerate(bodies)]
    reader = written(tmp_path, records, {f"p{n}.jpg": body for n, body in enumerate(bodies)})
    pages = [page for page in reader.pages if page.images]
    assert [len(page.images) for page in pages] == [4, 2]
    text = "\n".join(page.extract_text() for page in pages)
    for n in range(6):
        assert f"K{n}" in text
        assert f"IMG_{n}.jpg" in text
    assert "Ida, 2026-12-01 08:00, revision 3" in text
    for page in pages:
        for image in page.images:
            assert image.image is not None
            assert image.image.size == (120, 80), "the picture itself, not a smaller one"


@pytest.mark.parametrize("size", [(3000, 40), (40, 3000), (1, 1)])
def test_a_photo_of_any_shape_stays_in_its_room(size: tuple[int, int], tmp_path: Path) -> None:
    body = jpeg((1, 2, 3), size)
    (page,) = (page for page in written(tmp_path, [photo(0, body)], {"p0.jpg": body}).pages if page.images)
    places = []

    def see(operator: object, operands: object, matrix: list[float], text: list[float]) -> None:
        if operator == b"Do":
            places.append(matrix)

    page.extract_text(visitor_operand_before=see)
    width, height = float(page.mediabox.width), float(page.mediabox.height)
    for a, _, _, d, x, y in places:
        assert -1 <= x <= x + a <= width + 1
        assert -1 <= y <= y + d <= height + 1
    assert places


def test_a_photo_that_was_exchanged_or_is_gone_is_not_printed(tmp_path: Path) -> None:
    kept, other = jpeg((1, 2, 3)), jpeg((200, 2, 3))
    reader = written(tmp_path, [photo(0, kept), photo(1, kept)], {"p0.jpg": other})
    assert not any(page.images for page in reader.pages)
    text = "\n".join(page.extract_text() for page in reader.pages)
    assert "The file is not what was kept" in text
    assert "The photo is not in the job file" in text


def test_a_photo_that_was_taken_back_is_not_printed() -> None:
    body = jpeg((1, 2, 3))
    log = [photo(0, body), Record("c", "device:c1.K", TakenBack("photo"), "Ida", NOW, 3, "r0")]
    assert photos_named(log) == ()
    assert photo_pages(log, {"p0.jpg": body}, PaperSheet.A4) == []
