"""What is to be printed, how it is written, and what is remembered of it afterwards."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job

__all__ = ["PrintJob"]


@dataclass(frozen=True, slots=True)
class PrintJob:
    """One set of pages.

    ``write`` makes the PDF from a plan of the job and returns how many drawings and lists are in it; it is called in a
    thread of its own. ``faults`` says what speaks against printing, "" where nothing does. ``printed`` remembers that
    the pages are out, and returns what is said of it.
    """

    title: str
    file_name: str
    write: Callable[[Evaluation[Job], Path], int]
    printed: Callable[[], str]
    faults: Callable[[], str] = lambda: ""
    note: str = ""
    """What printing it does to the job, said before."""
    true_size: bool = False
    """Whether it is worth nothing at another size: labels and templates go to no printer that scales."""
