"""The command line: everything the window derives, without a display.

Exit codes: 0 fine, 1 findings that fail, 2 bad input or something that could not be done, 3 a fault of the program.
Each command loads only what it needs.
"""

import sys
from collections.abc import Sequence
from importlib import import_module

from riktig.cli.parser import parser
from riktig.cli.words import now_text
from riktig.core.errors import RiktigError

__all__ = ["main"]


def main(argv: Sequence[str] | None = None) -> int:
    """Runs one command and returns its exit code."""
    arguments = parser().parse_args(argv)
    try:
        module, _, name = arguments.run.partition(".")
        code: int = getattr(import_module(f"riktig.cli.{module}"), name)(arguments)
    except RiktigError as error:
        print(f"riktig: {error}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        return 0
    except Exception as error:  # noqa: BLE001 - the last place where a fault of the program can be reported
        from riktig.fault_report import write_report  # late: it is seldom needed

        report = write_report(error, now_text(), [" ".join(argv or sys.argv[1:])])
        print(
            f"riktig: a fault of Riktig's own ({type(error).__name__}); no file was changed by this step. "
            f"A report is at {report}.",
            file=sys.stderr,
        )
        return 3
    return code
