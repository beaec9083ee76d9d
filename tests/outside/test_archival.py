"""Papers of the archive as PDF/A-2b (ISO 19005-2, from memory), read by pypdf, the XML parser and LittleCMS."""

from io import BytesIO
from xml.etree import ElementTree

import pytest
from PIL import ImageCms
from pypdf import PdfReader
from pypdf.generic import ArrayObject, DictionaryObject, IndirectObject, StreamObject

from riktig.core.exports import as_archival, export_all
from riktig.core.job import set_heading
from riktig.demo_job import wash_drum
from tests.shared_plan import plan_for

PDFAID = "{http://www.aiim.org/pdfa/ns/id/}"


@pytest.fixture(scope="module")
def papers(tmp_path_factory: pytest.TempPathFactory) -> dict[str, bytes]:
    job = set_heading(wash_drum(), title="Wash drum <№ 1> & more", maker="Åse & Sønn")
    files = export_all(plan_for(job), (), tmp_path_factory.mktemp("papers"))
    wanted = ("_papers.pdf", "_labels.pdf", "_batch_cards.pdf", "_template.pdf")
    return {path.name: path.read_bytes() for path in files if path.name.endswith(wanted)}


def archived(papers: dict[str, bytes]) -> dict[str, PdfReader]:
    return {name: PdfReader(BytesIO(as_archival(body))) for name, body in papers.items()}


def test_every_typeface_that_a_page_names_is_in_the_file(papers: dict[str, bytes]) -> None:
    for name, reader in archived(papers).items():
        for page in reader.pages:
            resources = page["/Resources"].get_object()
            assert isinstance(resources, DictionaryObject)
            for font in resources.get("/Font", DictionaryObject()).values():
                described = font.get_object()["/FontDescriptor"].get_object()
                assert "/FontFile2" in described, (name, font.get_object()["/BaseFont"])


def test_it_says_what_it_is_and_by_whom(papers: dict[str, bytes]) -> None:
    for reader in archived(papers).values():
        stream = reader.root_object["/Metadata"]
        assert isinstance(stream, StreamObject)
        assert "/Filter" not in stream, "the description can be read without Riktig or a PDF reader"
        root = ElementTree.fromstring(stream.get_data().decode())
        assert [node.text for node in root.iter(f"{PDFAID}part")] == ["2"]
        assert [node.text for node in root.iter(f"{PDFAID}conformance")] == ["B"]
        texts = [node.text for node in root.iter() if node.text]
        info = reader.metadata
        assert info is not None
        assert info.title in texts
        assert info.author in texts


def test_its_colours_have_a_profile_that_another_library_reads(papers: dict[str, bytes]) -> None:
    for reader in archived(papers).values():
        intents = reader.root_object["/OutputIntents"]
        assert isinstance(intents, ArrayObject)
        (intent,) = (item.get_object() for item in intents)
        assert intent["/S"] == "/GTS_PDFA1"
        profile = ImageCms.ImageCmsProfile(BytesIO(intent["/DestOutputProfile"].get_data()))
        assert profile.profile.xcolor_space.strip() == "RGB"


def test_nothing_in_it_is_forbidden(papers: dict[str, bytes]) -> None:
    """No script, no encryption, no LZW, no transparency; links are printed; the file has identifiers."""
    for name, reader in archived(papers).items():
        assert not reader.is_encrypted
        assert "/ID" in reader.trailer
        assert "/OpenAction" not in reader.root_object or "/JS" not in str(reader.root_object["/OpenAction"])
        assert "/Names" not in reader.root_object or "/JavaScript" not in str(reader.root_object["/Names"])
        for page in reader.pages:
            for annotation in page.annotations or ():
                assert annotation.get_object()["/F"] == 4
            assert "/SMask" not in str(page.get("/Resources"))
            contents = page.get("/Contents")
            streams = contents if isinstance(contents, list) else [contents]
            for stream in streams:
                found = stream.get_object() if isinstance(stream, IndirectObject) else stream
                assert "LZW" not in str(found.get("/Filter", "")), name  # type: ignore[union-attr]


def test_the_pages_are_the_very_same_and_the_file_too(papers: dict[str, bytes]) -> None:
    for body in papers.values():
        before, after = PdfReader(BytesIO(body)), PdfReader(BytesIO(as_archival(body)))
        assert [page.extract_text() for page in after.pages] == [page.extract_text() for page in before.pages]
        assert [page.mediabox for page in after.pages] == [page.mediabox for page in before.pages]
        outline = len(before.outline)
        assert len(after.outline) == outline
