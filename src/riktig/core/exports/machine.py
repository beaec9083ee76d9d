"""Surfaces for a machine: outline and holes only, a layer a tool, the datum at 0, 0."""

from collections.abc import Iterable
from pathlib import Path

from riktig.core.holes import Hole, HoleSurface

__all__ = ["layer_of", "sheet_svg", "write_machine_dxf"]


def layer_of(hole: Hole) -> str:
    """The layer of a hole: its tool and size, in letters that every machine reads: “DRILL_4.2_M5”."""
    size = f"{hole.width:g}x{hole.height:g}" if hole.is_cut_out else f"{hole.drill:g}"
    words = [hole.tool.name, size, hole.tap]
    return "_".join(word for word in words if word)


def write_machine_dxf(path: Path, sheet: HoleSurface, holes: Iterable[Hole]) -> None:
    """Writes a surface with its holes: 1 unit is 1 mm, x to the right, y upwards: below the datum y is negative.

    Layers: OUTLINE; one a tool and size (``layer_of``); NUMBERS with the hole numbers, which no machine cuts.
    """
    from ezdxf import units
    from ezdxf.filemanagement import new  # late: slow to import

    document = new("R2010", setup=True)
    document.units = units.MM
    space = document.modelspace()
    for name in ("OUTLINE", "NUMBERS"):
        document.layers.add(name)
    wide, high = sheet.width, sheet.height
    space.add_lwpolyline([(0, 0), (wide, 0), (wide, -high), (0, -high)], close=True, dxfattribs={"layer": "OUTLINE"})
    for hole in holes:
        if hole.face != sheet.name:
            continue
        layer = layer_of(hole)
        if layer not in document.layers:
            document.layers.add(layer)
        if hole.is_cut_out:
            box = hole.outline
            corners = [(box.x, -box.y), (box.right, -box.y), (box.right, -box.bottom), (box.x, -box.bottom)]
            space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})
        else:
            space.add_circle((hole.x, -hole.y), hole.drill / 2, dxfattribs={"layer": layer})
        number = space.add_text(hole.number, height=3.0, dxfattribs={"layer": "NUMBERS"})
        number.set_placement((hole.x + hole.drill / 2 + 1.0, -hole.y + 1.0))
    document.saveas(path)


def sheet_svg(sheet: HoleSurface, holes: Iterable[Hole]) -> str:
    """The same as SVG at true size: 1 user unit is 1 mm, y downwards from the datum, a group a tool and size."""
    groups: dict[str, list[str]] = {}
    for hole in holes:
        if hole.face != sheet.name:
            continue
        if hole.is_cut_out:
            box = hole.outline
            shape = f'<rect x="{box.x:g}" y="{box.y:g}" width="{box.width:g}" height="{box.height:g}"'
        else:
            shape = f'<circle cx="{hole.x:g}" cy="{hole.y:g}" r="{hole.drill / 2:g}"'
        groups.setdefault(layer_of(hole), []).append(f'    {shape} data-hole="{hole.number}"/>')
    body = "\n".join(
        f'  <g id="{name}" fill="none" stroke="black" stroke-width="0.1">\n' + "\n".join(shapes) + "\n  </g>"
        for name, shapes in groups.items()
    )
    wide, high = sheet.width, sheet.height
    size = f'width="{wide:g}mm" height="{high:g}mm" viewBox="0 0 {wide:g} {high:g}"'
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" {size}>\n'
        f'  <g id="OUTLINE" fill="none" stroke="black" stroke-width="0.1">\n'
        f'    <rect x="0" y="0" width="{wide:g}" height="{high:g}"/>\n  </g>\n{body}\n</svg>\n'
    )
