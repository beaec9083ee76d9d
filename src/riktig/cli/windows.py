"""Commands that open the window."""

import argparse

from riktig.cli.files import write_new
from riktig.demo_job import demo_job

__all__ = ["demo", "open_window"]


def demo(arguments: argparse.Namespace) -> int:
    """Opens a demonstration, writes it to a file, or takes a picture of it."""
    if arguments.write:
        write_new(arguments.write, demo_job(arguments.job), "demonstration")
        return 0
    from riktig.desk.app import run_demo  # late: the command line needs no Qt

    return run_demo(arguments.shot, arguments.station, dark=arguments.dark, job=arguments.job)


def open_window(arguments: argparse.Namespace) -> int:
    """Opens a job, or the first screen."""
    from riktig.desk.app import run_window  # late: the command line needs no Qt

    return run_window(arguments.file)
