"""What all tests share: the demonstration, a clock that is told the time, a window off the screen."""

import atexit
import gc
import itertools
import logging
import os
import shutil
import tempfile
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

import pytest
from hypothesis import HealthCheck, settings

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, add_load, new_job
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile
from riktig.demo_job import wash_drum
from tests.shared_plan import plan_for

# How fast the machine is says nothing of the code: a check that shares it with another would fail.
settings.register_profile("riktig", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("riktig")

os.environ["QT_QPA_PLATFORM"] = "offscreen"
HOME = tempfile.mkdtemp(prefix="riktig-tests-")
os.environ |= {f"XDG_{what}_HOME": f"{HOME}/{what.lower()}" for what in ("CONFIG", "DATA", "STATE")}
atexit.register(shutil.rmtree, HOME, ignore_errors=True)


class FakeClock:
    """Says a later second each time it is asked."""

    def __init__(self) -> None:
        self.seconds = 0

    def __call__(self) -> str:
        self.seconds += 1
        return f"2026-11-23T08:{self.seconds // 60 % 60:02d}:{self.seconds % 60:02d}+00:00"


def pytest_collection_finish() -> None:
    """What was imported and the tests themselves are no garbage: they need not be looked through again and again."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 50)


MUCH_GARBAGE = 100_000
OLDER_EACH, OLDEST_EACH = 10, 100
_looks = itertools.count(1)


def pytest_runtest_teardown() -> None:
    """The window collects garbage from its own loop; where a test has none, it is collected between two tests.

    Mostly what is young: a look through all plans that are kept takes a second and more.
    """
    if not gc.isenabled() and gc.get_count()[0] > MUCH_GARBAGE:
        look = next(_looks)
        gc.collect(2 if look % OLDEST_EACH == 0 else 1 if look % OLDER_EACH == 0 else 0)


@pytest.fixture
def clock() -> FakeClock:
    return FakeClock()


@pytest.fixture
def demo() -> Job:
    return wash_drum()


@pytest.fixture
def evaluation(demo: Job) -> Evaluation[Job]:
    return plan_for(demo)


@pytest.fixture
def two_motors() -> Job:
    job = add_load(new_job("T-2", "two"), "wash drum", 4.0)
    return with_names_recorded(add_load(job, "rinse pump", 1.5))


@pytest.fixture
def job_file(tmp_path: Path, demo: Job) -> Iterator[JobFile]:
    file = JobFile.create(tmp_path / "demo.riktig", demo, who="tester", at="2026-11-23T08:00:00+00:00")
    yield file
    file.close()


@pytest.fixture
def make_file(tmp_path: Path) -> Callable[[Job, str], JobFile]:
    def make(job: Job, name: str = "job.riktig") -> JobFile:
        return JobFile.create(tmp_path / name, job, who="tester", at="2026-11-23T08:00:00+00:00")

    return make


@pytest.fixture(autouse=True)
def no_warnings_in_the_log(caplog: pytest.LogCaptureFixture) -> Iterator[None]:
    yield
    ours = {"riktig"}  # what the program says itself: faults that a test brings about are told there too
    bad = [r.getMessage() for r in caplog.get_records("call") if r.levelno >= logging.WARNING and r.name not in ours]
    assert not bad, bad


@dataclass(frozen=True)
class Doing:
    """An edit for tests: any function of the job."""

    change: Callable[[Job], Job]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """What the function makes of the plan's job."""
        return self.change(evaluation.document)
