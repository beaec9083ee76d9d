"""An export of one's own: every terminal of the panel in a line of text, for whoever makes the strips elsewhere."""

from collections.abc import Iterable
from pathlib import Path

from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.job import Job
from riktig.core.records import Record


def write(evaluation: Evaluation[Job], records: tuple[Record, ...], folder: Path) -> Iterable[Path]:
    """Writes ``terminals.txt``: strip, position, mark and number, with a tabulator between them."""
    del records
    table = schedule("terminals", evaluation)
    keys = [key for key, _title in table.columns]
    wanted = [keys.index(key) for key in ("strip", "position", "mark", "number")]
    path = folder / "terminals.txt"
    lines = ["\t".join(str(row[at]) for at in wanted) for row in table.rows]
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")
    return [path]
