"""The photos of a job on paper: four to a page, each with what it is of, who took it and when."""

import hashlib
from collections.abc import Iterable, Mapping

from riktig.core.exports.pdf import Page, PaperSheet, PlacedPhoto, room_of
from riktig.core.geometry import Drawing, Face, Point, Poly, Rect, Shape, Text
from riktig.core.labels import fit_text
from riktig.core.records import PhotoKept, Record, log_of
from riktig.core.store import JobFile

__all__ = ["photo_pages", "photos_in", "photos_named"]

ACROSS, DOWN = 2, 2
GAP, WORDS = 8.0, 14.0
"""Between photos, and below each for its words, mm (chosen by us)."""
SIZE, SMALL = 3.0, 2.2
"""Capitals of what a photo is of, and of who took it, mm."""


def photos_named(records: Iterable[Record]) -> tuple[str, ...]:
    """The files of the photos that are printed, as the job file calls them.

    Args:
        records: The log, oldest first.
    """
    return tuple(dict.fromkeys(facts.file for _, facts in log_of(records).said(PhotoKept) if facts.file))


def photos_in(file: JobFile) -> dict[str, bytes]:
    """The photos that are printed, by their names; one that is not in the file is left out.

    Args:
        file: The open job file.
    """
    bodies = ((name, file.attachment(name)) for name in photos_named(file.records()))
    return {name: body for name, body in bodies if body is not None}


def photo_pages(records: Iterable[Record], photos: Mapping[str, bytes], paper: PaperSheet) -> list[Page]:
    """Pages with every photo that was not taken back, oldest first; of one that is not what was kept, words alone.

    Args:
        records: The log, oldest first.
        photos: JPEG files by the names that the job file gives them.
        paper: What is printed on.
    """
    photo_records = list(log_of(records).said(PhotoKept))
    width, height = room_of(paper.size)
    wide, high = (width - GAP * (ACROSS - 1)) / ACROSS, (height - GAP * (DOWN - 1)) / DOWN
    pages: list[Page] = []
    count = -(-len(photo_records) // (ACROSS * DOWN))
    for number in range(count):
        shapes: list[Shape] = []
        placed: list[PlacedPhoto] = []
        for place, (record, facts) in enumerate(photo_records[number * ACROSS * DOWN : (number + 1) * ACROSS * DOWN]):
            x, y = (place % ACROSS) * (wide + GAP), (place // ACROSS) * (high + GAP)
            room = Rect(x, y, wide, high - WORDS)
            body = photos.get(facts.file)
            if body is not None and hashlib.sha256(body).hexdigest() == facts.digest:
                placed.append(PlacedPhoto(room, body))
            else:
                shapes.append(_frame(room))
                why = "The photo is not in the job file" if body is None else "The file is not what was kept"
                shapes.append(Text(x + 4, y + 8, why, SIZE, "fails"))
            shapes += _words(Rect(x, room.bottom, wide, WORDS), record, facts)
        title = "Photos" if count == 1 else f"Photos, {number + 1} of {count}"
        pages.append(Page(Drawing(width, height, tuple(shapes), title), sheet=paper, photos=tuple(placed)))
    return pages


def _frame(room: Rect) -> Poly:
    corners = ((room.x, room.y), (room.right, room.y), (room.right, room.bottom), (room.x, room.bottom))
    return Poly(tuple(Point(*corner) for corner in corners), "hair", 0.2, closed=True)


def _words(room: Rect, record: Record, facts: PhotoKept) -> list[Shape]:
    of = fit_text(facts.of or record.subject, room.width, 4.4, SIZE)
    lines = of.lines if of else (facts.of[:40],)
    by = f"{record.who}, {record.when[:16].replace('T', ' ')}, revision {record.revision}   {facts.name}"
    return [
        Text(room.x, room.y + 5.0, lines[0], of.size if of else SMALL, "ink", Face.BOLD),
        Text(room.x, room.y + 9.6, by[:90], SMALL, "quiet"),
    ]
