"""The two commands that set a server up, run against a server of the tests' own."""

import os
import subprocess
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from sqlalchemy import create_engine, inspect, select
from sqlalchemy.pool import NullPool

from riktig.core.store import JobFile
from riktig.demo_job import wash_drum
from riktig.server.connecting import engine_for
from riktig.server.moving import names_on, put
from riktig.server.tables import METADATA, PERSON
from tests.server.conftest import OWNER, Cluster

FOLDER = Path(__file__).parents[2] / "packaging" / "server"
Run = Callable[..., subprocess.CompletedProcess[str]]


@pytest.fixture
def run(cluster: Cluster) -> Iterator[Run]:
    def script(name: str, *words: str) -> subprocess.CompletedProcess[str]:
        more = {
            "PGHOST": "127.0.0.1", "PGPORT": str(cluster.port), "PGUSER": OWNER, "RIKTIG_DATABASE": "shop",
            "RIKTIG_PASSWORD": "wire",
        }  # fmt: skip
        return subprocess.run(
            [str(FOLDER / name), *words], capture_output=True, text=True, env=os.environ | more, check=False
        )

    yield script
    owner = create_engine(cluster.address(OWNER, "postgres").url, isolation_level="AUTOCOMMIT", poolclass=NullPool)
    with owner.connect() as db:
        db.exec_driver_sql("DROP DATABASE IF EXISTS shop WITH (FORCE)")


def test_two_commands_make_a_server_on_which_a_job_can_lie(run: Run, cluster: Cluster, tmp_path: Path) -> None:
    assert run("install.sh", "shop").returncode == 0
    added = run("add-person.sh", "odd", "plans", "builds")
    assert added.returncode == 0, added.stderr
    assert "odd may: plans builds" in added.stderr
    address = cluster.address("odd", "shop", "drum")
    file = JobFile.create(tmp_path / "drum.riktig", wash_drum(), who="Odd", at="2026-12-01T08:00:00+01:00")
    engine = engine_for(address)
    put(engine, address, file)
    assert names_on(engine, address) == ("drum",)
    engine.dispose()
    file.close()


def test_what_one_may_do_is_changed_by_the_same_command(run: Run, cluster: Cluster) -> None:
    run("install.sh", "shop")
    run("add-person.sh", "odd", "plans", "signs")
    run("add-person.sh", "odd", "builds")
    with create_engine(cluster.address(OWNER, "shop").url, poolclass=NullPool).connect() as db:
        row = db.execute(select(PERSON)).one()
    assert tuple(row) == ("odd", False, True, False, False)


def test_a_second_setting_up_leaves_what_is_there(run: Run) -> None:
    run("install.sh", "shop")
    again = run("install.sh", "shop")
    assert again.returncode == 0
    assert "left as it is" in again.stderr


@pytest.mark.parametrize(("words", "said"), [(["o'dd"], "small letters"), (["odd", "rules"], "no right")])
def test_what_cannot_be_is_said(words: list[str], said: str, run: Run) -> None:
    done = run("add-person.sh", *words)
    assert done.returncode == 2
    assert said in done.stderr


def test_the_tables_are_those_that_are_asked(run: Run, cluster: Cluster) -> None:
    run("install.sh", "shop")
    engine = create_engine(cluster.address(OWNER, "shop").url, poolclass=NullPool)
    there = inspect(engine)
    for table in METADATA.tables.values():
        columns = {str(column["name"]) for column in there.get_columns(table.name, schema="riktig")}
        assert columns == {column.name for column in table.columns}, table.name
    assert len(METADATA.tables) == len(there.get_table_names(schema="riktig"))
