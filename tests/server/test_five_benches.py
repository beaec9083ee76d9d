"""Five benches write at once while the server loses its power: nothing is lost, nothing is there twice."""

import subprocess
import sys
from collections import Counter
from collections.abc import Callable
from pathlib import Path
from time import sleep

from sqlalchemy.engine import Engine

from riktig.core.store import JobFile
from riktig.demo_job import wash_drum
from riktig.server.address import ServerAddress
from riktig.server.moving import fetch, put
from tests.effort import times
from tests.server.conftest import Cluster

NAMES = ("ida", "eve", "odd", "liv", "per")
EACH = times(150, 10_000)


def test_five_benches_write_while_the_power_of_the_server_fails(
    tmp_path: Path, shop: Callable[..., ServerAddress], way: Callable[..., Engine], cluster: Cluster
) -> None:
    file = JobFile.create(tmp_path / "drum.riktig", wash_drum(), who="Ida", at="2026-12-01T08:00:00+01:00")
    put(way(), shop(), file)
    file.close()
    url = shop().url.render_as_string(hide_password=False) + "?job=drum"
    work = Path(__file__).with_name("bench_at_work.py")
    benches = [
        subprocess.Popen(
            [sys.executable, str(work), url, str(tmp_path / name), name, str(EACH)],
            stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True,
        )
        for name in NAMES
    ]  # fmt: skip
    for bench in benches:
        assert bench.stdout is not None
        assert bench.stdout.readline() == "open\n"
    for _ in range(times(2, 20)):
        sleep(0.4)
        cluster.stop("immediate")
        sleep(0.3)
        cluster.start()
    for bench in benches:
        assert bench.stdout is not None
        assert bench.stdout.read().strip() == "0", "something waits still"
        assert bench.wait() == 0
        bench.stdout.close()
    fetch(way(), shop(), tmp_path / "end.riktig")
    end = JobFile(tmp_path / "end.riktig", read_only=True)
    counts = Counter(record.id for record in end.records())
    assert counts == Counter(f"{name}-{n}" for name in NAMES for n in range(EACH))
    assert not end.problems
    for name in NAMES:  # what one bench recorded stands in the order in which it was recorded
        own = [record.id for record in end.records() if record.who == name]
        assert own == [f"{name}-{n}" for n in range(EACH)]
    end.close()
