"""Pages as files of their own at true size: SVG and DXF for plotters, engravers and label programs."""

from collections.abc import Sequence
from contextlib import suppress
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.exports.dxf import write_dxf
from riktig.core.exports.svg import as_svg
from riktig.core.geometry import Drawing

__all__ = ["PAGE_SUFFIXES", "export_page_files"]

PAGE_SUFFIXES = (".svg", ".dxf")


def export_page_files(drawings: Sequence[Drawing], path: Path) -> tuple[Path, ...]:
    """Writes each page as a file, in mm: of one page the very path, of several a number after its stem.

    Args:
        drawings: The pages.
        path: With the suffix .svg or .dxf; existing files are replaced.

    Returns:
        The files that were written.

    Raises:
        RiktigError: a file cannot be written, or the suffix is another.
    """
    suffix = path.suffix.lower()
    if suffix not in PAGE_SUFFIXES:
        raise RiktigError(
            f"“{path.suffix}” is no kind of page that can be written.", hint=f"Use {' or '.join(PAGE_SUFFIXES)}."
        )
    several = len(drawings) > 1
    paths = [path.with_name(f"{path.stem}_{n}{suffix}") if several else path for n in range(1, len(drawings) + 1)]
    for drawing, target in zip(drawings, paths, strict=True):
        part = target.with_name(f".{target.name}.part")
        try:
            if suffix == ".svg":
                part.write_text(as_svg(drawing), encoding="utf-8")
            else:
                write_dxf(part, drawing)
            part.replace(target)
        except OSError as error:
            with suppress(OSError):
                part.unlink(missing_ok=True)
            raise RiktigError(
                f"The page could not be written to {target} ({error.strerror or error}).",
                hint="Make room or choose another folder, and print it again.",
                where=str(target),
            ) from error
    return tuple(paths)
