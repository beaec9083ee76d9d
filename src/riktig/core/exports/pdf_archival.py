"""PDF for the archive: PDF/A-2b, with its colour space, its description and all typefaces inside."""

from functools import cache
from io import BytesIO
from xml.sax.saxutils import escape

from PIL import ImageCms
from pypdf import PdfReader, PdfWriter
from pypdf.generic import ArrayObject, DecodedStreamObject, DictionaryObject, NameObject, NumberObject, TextStringObject

__all__ = ["as_archival"]

PRINTED = 4
"""Of an annotation: it is printed as it is shown, which the standard asks of links too."""
ICC_DATE = slice(24, 36)
"""Where a profile has the date it was made: it is emptied, so that the same papers make the same file."""


@cache
def _srgb() -> bytes:
    """The profile of sRGB, made by LittleCMS."""
    profile = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    profile[ICC_DATE] = bytes((7, 208, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0))  # 2000-01-01
    return bytes(profile)


def as_archival(data: bytes) -> bytes:
    """A PDF of Riktig as PDF/A-2b.

    What the standard asks beside is so already: typefaces are embedded, nothing is encrypted, transparent or scripted.

    Source:
        ISO 19005-2, from memory: identification in XMP, an output intent, annotations that print, file identifiers.

    Args:
        data: The PDF.
    """
    writer = PdfWriter(clone_from=PdfReader(BytesIO(data)))
    info = writer.metadata
    described = (info.title, info.author, info.subject, info.creator) if info else (None,) * 4
    title, author, subject, creator = (text or "" for text in described)
    _add_intent(writer)
    _add_description(writer, title, author, subject, creator)
    for page in writer.pages:
        for annotation in page.annotations or ():
            annotation.get_object()[NameObject("/F")] = NumberObject(PRINTED)
    writer.generate_file_identifiers()
    out = BytesIO()
    writer.write(out)
    return out.getvalue()


def _add_intent(writer: PdfWriter) -> None:
    profile = DecodedStreamObject()
    profile.set_data(_srgb())
    profile[NameObject("/N")] = NumberObject(3)
    intent = DictionaryObject({
        NameObject("/Type"): NameObject("/OutputIntent"),
        NameObject("/S"): NameObject("/GTS_PDFA1"),
        NameObject("/OutputConditionIdentifier"): TextStringObject("sRGB IEC61966-2.1"),
        NameObject("/Info"): TextStringObject("sRGB IEC61966-2.1"),
        NameObject("/DestOutputProfile"): writer._add_object(profile),
    })  # fmt: skip
    writer.root_object[NameObject("/OutputIntents")] = ArrayObject([writer._add_object(intent)])


def _add_description(writer: PdfWriter, title: str, author: str, subject: str, creator: str) -> None:
    text = f"""<?xpacket begin="\N{ZERO WIDTH NO-BREAK SPACE}" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/">
<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:pdfaid="http://www.aiim.org/pdfa/ns/id/"
 xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/">
<pdfaid:part>2</pdfaid:part>
<pdfaid:conformance>B</pdfaid:conformance>
<dc:title><rdf:Alt><rdf:li xml:lang="x-default">{escape(title)}</rdf:li></rdf:Alt></dc:title>
<dc:creator><rdf:Seq><rdf:li>{escape(author)}</rdf:li></rdf:Seq></dc:creator>
<dc:description><rdf:Alt><rdf:li xml:lang="x-default">{escape(subject)}</rdf:li></rdf:Alt></dc:description>
<xmp:CreatorTool>{escape(creator)}</xmp:CreatorTool>
</rdf:Description>
</rdf:RDF>
</x:xmpmeta>
<?xpacket end="w"?>"""
    description = DecodedStreamObject()
    description.set_data(text.encode())
    description[NameObject("/Type")] = NameObject("/Metadata")
    description[NameObject("/Subtype")] = NameObject("/XML")
    writer.root_object[NameObject("/Metadata")] = writer._add_object(description)
