"""Prints every text that people read, in the order of the code, to be read through in one go.

Run: .venv/bin/python tools/texts.py [PART OF A PATH]

Texts stand where they are used, as they do in any program whose texts are gathered for translation; this gathers them:
window, papers, messages and command line. What a person never reads (docstrings, names, keys, SQL, style sheets) is
left out by rule, so a line too many is no fault; a text that is missing here would be one.
"""

import ast
import re
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

SOURCE = Path(__file__).resolve().parent.parent / "src" / "riktig"
NO_TEXTS = ("theme.py", "schema.py", "writing.py", "log_file.py", "loading.py", "kernel.py")
"""Files whose long strings are style sheets, SQL or names."""
SILENT = {"compile", "fullmatch", "match", "sub", "search", "execute", "executescript", "setObjectName", "getattr",
          "read_key", "import_module", "startswith", "endswith", "removesuffix", "removeprefix", "split", "partition",
          "replace", "NewType", "TypeVar", "setProperty"}  # fmt: skip
"""Calls whose arguments nobody reads."""
_WORDS = re.compile(r"[^\W\d_]{2,}")


class FoundText(NamedTuple):
    """A text with the file and line it stands in; what is filled in stands as “{…}”."""

    file: str
    line: int
    text: str


def texts_of(path: Path, root: Path = SOURCE) -> Iterator[FoundText]:
    """The texts of one file, in their order.

    Args:
        path: The file.
        root: What its name is told from.
    """
    tree = ast.parse(path.read_text(encoding="utf-8"))
    silent = _silent(tree)
    for node in ast.walk(tree):
        if id(node) in silent:
            continue
        if not isinstance(node, ast.Constant | ast.JoinedStr):
            continue
        text = _part(node) if isinstance(node, ast.Constant) else "".join(_part(value) for value in node.values)
        if is_read(text):
            yield FoundText(path.relative_to(root).as_posix(), node.lineno, " ".join(text.split()))


def _part(value: ast.expr) -> str:
    if isinstance(value, ast.Constant):
        return value.value if isinstance(value.value, str) else ""
    return "{…}"


def _silent(tree: ast.Module) -> set[int]:
    """The nodes that hold no text: docstrings, parts of a formatted text, arguments of silent calls, annotations."""
    silent: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            silent.add(id(node.value))
        elif isinstance(node, ast.JoinedStr):
            silent |= {id(value) for value in node.values if isinstance(value, ast.Constant)}
            specs = (value.format_spec for value in node.values if isinstance(value, ast.FormattedValue))
            silent |= {id(inner) for spec in specs if spec for inner in ast.walk(spec)}
        elif isinstance(node, ast.Call):
            name = node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
            if name in SILENT:
                silent |= {id(inner) for argument in node.args for inner in ast.walk(argument)}
        elif isinstance(node, ast.AnnAssign | ast.arg) and node.annotation:
            silent |= {id(inner) for inner in ast.walk(node.annotation)}
        elif isinstance(node, ast.FunctionDef) and node.returns:
            silent |= {id(inner) for inner in ast.walk(node.returns)}
    return silent


def is_read(text: str) -> bool:
    """Whether a string is a text: words with a space between, or one word with a capital."""
    bare = text.strip()
    if not _WORDS.search(bare) or bare.startswith(("http", "<", "#", "SELECT", "INSERT", "PRAGMA")):
        return False
    return " " in bare or (bare[:1].isupper() and bare[1:2].islower())


def all_texts(part: str = "") -> list[FoundText]:
    """Every text of the program, each once a file, in the order of files and lines.

    Args:
        part: Only files whose path has this in it.
    """
    texts: dict[tuple[str, str], FoundText] = {}
    for path in sorted(SOURCE.rglob("*.py")):
        if path.name in NO_TEXTS or part not in path.relative_to(SOURCE).as_posix():
            continue
        for found in sorted(texts_of(path), key=lambda text: text.line):
            texts.setdefault((found.file, found.text), found)
    return list(texts.values())


def main() -> None:
    """Prints the texts, file by file."""
    file = ""
    for found in all_texts(sys.argv[1] if len(sys.argv) > 1 else ""):
        if found.file != file:
            file = found.file
            print(f"\n{file}")
        print(f"{found.line:5}  {found.text}")


if __name__ == "__main__":
    main()
