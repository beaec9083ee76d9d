"""Progress, cancelling and errors."""

import pytest

from riktig.core.errors import InputFault, RiktigError
from riktig.core.work import Cancelled, Progress


def test_a_step_reports_a_share_between_nought_and_one() -> None:
    seen: list[tuple[float, str]] = []
    progress = Progress(lambda share, text: seen.append((share, text)))
    for share in (-1.0, 0.5, 7.0):
        progress.step(share, "wires")
    assert seen == [(0.0, "wires"), (0.5, "wires"), (1.0, "wires")]


def test_a_stopped_work_raises_something_no_handler_of_errors_catches() -> None:
    progress = Progress(stopped=lambda: True)
    with pytest.raises(Cancelled):
        progress.step(0.1, "")
    assert not issubclass(Cancelled, Exception)


def test_an_error_says_where_what_and_what_to_do_and_all_its_faults() -> None:
    error = RiktigError(
        "The list cannot be read.",
        hint="Mend it.",
        where="a.csv",
        faults=[InputFault("line 2", "no name.", "Say what turns.")],
    )
    assert str(error) == "a.csv: The list cannot be read. Mend it.\n  line 2: no name. Say what turns."
