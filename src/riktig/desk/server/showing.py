"""Opens the dialogs of the shop's server; what they need is loaded only then."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QDialog, QWidget

from riktig.desk.server.server_bench import ServerBench
from riktig.desk.session import Session

if TYPE_CHECKING:
    from riktig.server.address import ServerAddress

__all__ = ["show_board", "show_clash"]


def show_clash(bench: ServerBench, clash: object, parent: QWidget) -> QDialog | None:
    """Shows what both changed side by side, in place of what is shown of an earlier clash.

    Args:
        bench: What settles it.
        clash: A ``RevisionsClash``.
        parent: What it stands over.
    """
    from riktig.desk.server.clash_dialog import ClashDialog  # late: seldom needed
    from riktig.server.handing_in import RevisionsClash

    if not isinstance(clash, RevisionsClash):
        return None
    for shown in parent.findChildren(ClashDialog):
        shown.reject()
        shown.deleteLater()
    dialog = ClashDialog(clash, bench.session.job, lambda keep: bench.settle(clash, keep), parent)
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
