"""Opens the dialogs of the shop's server; what they need is loaded only then."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QDialog, QWidget

from riktig.desk.server.server_bench import ServerBench
from riktig.desk.session import Session

if TYPE_CHECKING:
    from riktig.server.address import ServerAddress

__all__ = ["show_board", "show_unmerged"]


def show_unmerged(bench: ServerBench, unmerged: object, parent: QWidget) -> QDialog | None:
    """Shows what both changed side by side, in place of what is shown of an earlier revision.

    Args:
        bench: What settles it.
        unmerged: A ``UnmergedRevision``.
        parent: What it stands over.
    """
    from riktig.desk.server.both_changed_dialog import BothChangedDialog  # late: seldom needed
    from riktig.server.handing_in import UnmergedRevision

    if not isinstance(unmerged, UnmergedRevision):
        return None
    for shown in parent.findChildren(BothChangedDialog):
        shown.reject()
        shown.deleteLater()
    dialog = BothChangedDialog(unmerged, bench.session.job, lambda keep: bench.settle(unmerged, keep), parent)
    dialog.open()
    return dialog


def show_board(session: Session, open_job: "Callable[[ServerAddress], bool]", parent: QWidget) -> QDialog:
    """Shows the shop board.

    Args:
        session: The job that is open.
        open_job: Opens a job of the server; whether it could.
        parent: What it stands over.
    """
    from riktig.desk.server.board_dialog import BoardDialog  # late: seldom needed

    dialog = BoardDialog(session, open_job, parent)
    dialog.open()
    return dialog
