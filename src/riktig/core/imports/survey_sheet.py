"""The survey of a panel without papers: parts seen, wires traced from end to end, where sources come in.

The form is described in docs/survey.md.
"""

from dataclasses import dataclass
from pathlib import Path

from riktig.core.catalogue import Kind, kind, kinds
from riktig.core.errors import InputFault, RiktigError
from riktig.core.imports.read_grid import Grid, GridRow, grid_of_file

__all__ = [
    "NOT_FOUND", "SURVEY_COLUMNS", "Clamped", "Survey", "SurveyedPart", "SurveyedSource", "SurveyedWire", "read_survey",
    "survey_of_grid",
]  # fmt: skip

SURVEY_COLUMNS = ("what", "tag", "kind", "place", "from", "to", "number", "mm2", "colour", "note")
NOT_FOUND = "?"
"""The end of a wire that could not be found."""
PLACES = ("plate", "door", "field")
MOST_ROWS = 2_000

Clamped = tuple[str, str]
"""A part's tag and the marking of its clamp: (“K1”, “13”)."""


@dataclass(frozen=True, slots=True)
class SurveyedPart:
    """A part that was seen; ``kind`` is one of the catalogue."""

    tag: str
    kind: Kind
    place: str = "plate"
    note: str = ""


@dataclass(frozen=True, slots=True)
class SurveyedWire:
    """A wire that was traced; an end that was not found is None. ``line`` is where it stands in the sheet."""

    start: Clamped | None
    end: Clamped | None
    number: str = ""
    mm2: str = ""
    colour: str = ""
    note: str = ""
    line: int = 0


@dataclass(frozen=True, slots=True)
class SurveyedSource:
    """Where a potential from outside comes in: “in.L1”, “N”, “PE”, or a name of one's own."""

    name: str
    clamp: Clamped


@dataclass(frozen=True, slots=True)
class Survey:
    """All that was noted."""

    parts: tuple[SurveyedPart, ...] = ()
    wires: tuple[SurveyedWire, ...] = ()
    sources: tuple[SurveyedSource, ...] = ()


def read_survey(path: Path) -> Survey:
    """The survey of a CSV or XLSX file.

    Raises:
        RiktigError: the file cannot be read; every line that cannot be used is among its faults.
    """
    return survey_of_grid(grid_of_file(path))


def survey_of_grid(grid: Grid) -> Survey:
    """The survey of a list; the first row names the columns.

    What is noted and contradicts itself is no fault here: it is what the panel shows, and ``survey_findings`` says it.

    Args:
        grid: The cells.

    Raises:
        RiktigError: a column is missing, or lines that cannot be used: all of them are said.
    """
    if not grid.rows:
        raise RiktigError("The survey is empty.", where=grid.name)
    heading, *rows = grid.rows
    names = [" ".join(cell.casefold().split()) for cell in heading.cells]
    missing = [name for name in ("what", "tag", "from", "to") if name not in names]
    if missing:
        raise RiktigError(
            f"The survey has no column “{missing[0]}”, so nothing was read.",
            hint=f"Its first row names the columns: {', '.join(SURVEY_COLUMNS)}.",
            where=grid.name,
        )
    if len(rows) > MOST_ROWS:
        raise RiktigError(f"The survey has {len(rows)} lines; {MOST_ROWS} can be read.", where=grid.name)
    faults = [fault for _, fault in grid.faults]
    parts: dict[str, SurveyedPart] = {}
    wires: list[SurveyedWire] = []
    sources: list[SurveyedSource] = []
    for row in rows:
        try:
            noted = _noted(names, row)
        except ValueError as error:
            faults.append(InputFault(grid.where(row), f"{error}."))
            continue
        if isinstance(noted, SurveyedPart):
            if noted.tag in parts:
                faults.append(InputFault(grid.where(row), f"{noted.tag} was noted before."))
            parts[noted.tag] = noted
        elif isinstance(noted, SurveyedWire):
            wires.append(noted)
        else:
            sources.append(noted)
    if faults:
        raise RiktigError(
            f"{len(faults)} of {len(rows)} lines cannot be read, so nothing was taken in.",
            hint="Mend them and read the survey again; docs/survey.md describes the form.",
            where=grid.name,
            faults=faults,
        )
    return Survey(tuple(parts.values()), tuple(wires), tuple(sources))


def _noted(names: list[str], row: GridRow) -> SurveyedPart | SurveyedWire | SurveyedSource:
    """What a row notes.

    Raises:
        ValueError: it cannot be read; the text says why.
    """
    cells = {name: cell.strip() for name, cell in zip(names, row.cells, strict=False)}

    def cell(name: str) -> str:
        return cells.get(name, "")

    match cell("what").casefold():
        case "part":
            place = cell("place").casefold() or "plate"
            if place not in PLACES:
                raise ValueError(f"a part is on the {', the '.join(PLACES[:2])} or in the field, not “{place}”")
            return SurveyedPart(_tag(cell("tag")), _kind(cell("kind")), place, cell("note"))
        case "wire":
            ends = _end(cell("from")), _end(cell("to"))
            return SurveyedWire(*ends, cell("number"), cell("mm2"), cell("colour"), cell("note"), row.number)
        case "source":
            at = _end(cell("from") or cell("to"))
            if at is None or not cell("tag"):
                raise ValueError("a source has a name under “tag”, and the clamp where it comes in under “from”")
            return SurveyedSource(cell("tag"), at)
        case other:
            raise ValueError(f"“{other}” is none of part, wire, source")


def _tag(text: str) -> str:
    if not text or any(letter in text for letter in ":/|()<@^") or len(text.split()) > 1:
        raise ValueError(f"“{text}” is no tag: one word without : / | ( ) < @ ^")
    return text


def _end(text: str) -> Clamped | None:
    if text in ("", NOT_FOUND):
        return None
    tag, parted, clamp = text.partition(":")
    if not parted or not clamp.strip():
        raise ValueError(f"“{text}” is no clamp: it looks like K1:13, or {NOT_FOUND} where the end was not found")
    return _tag(tag.strip()), clamp.strip()


def _kind(text: str) -> Kind:
    by_name = {known.name.casefold(): known.id for known in reversed(kinds())}
    known = {known.id for known in kinds()}
    wanted = text if text in known else by_name.get(text.casefold(), "")
    if not wanted:
        raise ValueError(f"“{text}” is no kind of part: riktig survey --kinds lists them")
    return kind(wanted)
