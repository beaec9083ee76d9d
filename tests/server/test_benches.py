"""Several benches on one job: what each records is on the server once, in one chain, and at every other bench."""

import json
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import get_args

import pytest
from sqlalchemy import text
from sqlalchemy.engine import Engine

from riktig.core.errors import RiktigError
from riktig.core.job import change_load
from riktig.core.records import Facts, FindingNoted, NoteKept, OtherEntry, Record, Signer, new_private_key
from riktig.core.records.codec import load_facts
from riktig.core.store import Attachment, JobFile
from riktig.demo_job import wash_drum
from riktig.server.address import ServerAddress
from riktig.server.connecting import NoServerError, RefusedError, engine_for
from riktig.server.exchange import exchange
from riktig.server.moving import fetch, names_on, put
from riktig.server.opening import open_server_job
from riktig.server.server_job import ServerJob, right_for
from tests.server.conftest import Cluster

Address = Callable[..., ServerAddress]
Way = Callable[..., Engine]
LOAD = wash_drum().loads[0].id
NOW = "2026-12-01T08:00:00+01:00"


def note(n: int | str, who: str = "Ida") -> Record:
    return Record(f"{who}-{n}", "job", NoteKept(f"note {n}", "job"), who, NOW, 1)


@pytest.fixture
def on_server(tmp_path: Path, shop: Address, way: Way) -> None:
    file = JobFile.create(tmp_path / "drum.riktig", wash_drum(), who="Ida", at=NOW)
    file.add_records([note(0)], [Attachment("p.jpg", "image/jpeg", b"\xff\xd8picture")])
    put(way(), shop(), file)
    file.close()


@pytest.fixture
def bench(tmp_path: Path, shop: Address, way: Way, on_server: None) -> Iterator[Callable[..., ServerJob]]:
    """Opens the job at a bench of that name; it is closed at the end."""
    made: list[ServerJob] = []

    def opened(name: str, login: str = "ida") -> ServerJob:
        key = Signer(new_private_key())
        made.append(open_server_job(way(login), shop(login), tmp_path / name, who=name, signer=key))
        return made[-1]

    yield opened
    for job in made:
        job.close()


def swap(job: ServerJob, engine: Engine) -> bool:
    return job.take(exchange(engine, job.address, job.known(), job.waiting, signer=job.signer))


def texts(job: ServerJob) -> list[str]:
    return [record.facts.text for record in job.records() if isinstance(record.facts, NoteKept)]


def test_a_job_goes_to_the_server_and_back_word_for_word(
    tmp_path: Path, shop: Address, way: Way, on_server: None
) -> None:
    fetch(way(), shop(), tmp_path / "back.riktig")
    first, back = JobFile(tmp_path / "drum.riktig", read_only=True), JobFile(tmp_path / "back.riktig", read_only=True)
    assert back.job() == first.job() == wash_drum()
    assert back.entries() == first.entries()
    assert back.revisions() == first.revisions()
    assert back.attachment("p.jpg") == b"\xff\xd8picture"
    assert not back.problems
    first.close()
    back.close()
    assert names_on(way(), shop()) == ("drum",)


def test_what_one_bench_records_the_other_has_after_an_exchange(bench: Callable[..., ServerJob], way: Way) -> None:
    ida, eve = bench("ida"), bench("eve", "eve")
    ida.add_records([note(1)])
    eve.add_records([note(2, "Eve")])
    assert swap(ida, way()) is False  # nothing of others yet
    assert swap(eve, way("eve")) is True
    assert swap(ida, way()) is True
    assert texts(ida) == texts(eve) == ["note 0", "note 1", "note 2"]
    assert ida.entries() == eve.entries()
    assert not ida.waiting
    for job in (ida, eve):
        path = job.path
        job.close()
        file = JobFile(path, read_only=True)
        assert not file.problems
        file.close()


def test_what_was_handed_in_and_not_confirmed_is_not_handed_in_twice(bench: Callable[..., ServerJob], way: Way) -> None:
    ida = bench("ida")
    ida.add_records([note(1)])
    ida.add_revision(change_load(ida.job(), LOAD, kw=3.0), who="Ida", at=NOW, why="kW")
    exchange(way(), ida.address, ida.known(), ida.waiting)  # the answer is lost
    swap(ida, way())
    swap(ida, way())
    assert texts(ida) == ["note 0", "note 1"]
    assert [revision.number for revision in ida.revisions()] == [1, 2]
    assert ida.job().loads[0].kw == 3.0
    ida.close()


def test_edits_of_different_parts_are_brought_together(bench: Callable[..., ServerJob], way: Way) -> None:
    ida, eve = bench("ida"), bench("eve", "eve")
    ida.add_revision(change_load(ida.job(), LOAD, kw=3.0), who="Ida", at=NOW, why="kW")
    eve.add_revision(change_load(eve.job(), LOAD, cable_m=44.0), who="Eve", at=NOW, why="cable")
    swap(ida, way())
    assert swap(eve, way("eve"))
    swap(ida, way())
    for job in (ida, eve):
        assert (job.job().loads[0].kw, job.job().loads[0].cable_m) == (3.0, 44.0)
        assert [revision.why for revision in job.revisions()] == ["new job", "kW", "cable"]
        job.close()


def test_edits_of_one_part_are_shown_side_by_side_and_settled(bench: Callable[..., ServerJob], way: Way) -> None:
    ida, eve = bench("ida"), bench("eve", "eve")
    ida.add_revision(change_load(ida.job(), LOAD, kw=3.0), who="Ida", at=NOW, why="kW")
    eve.add_revision(change_load(eve.job(), LOAD, kw=5.5), who="Eve", at=NOW, why="kW")
    eve.add_records([note(1, "Eve")])
    swap(ida, way())
    swap(eve, way("eve"))
    assert eve.unmerged is not None
    (part,) = eve.unmerged.both_changed
    assert (part.path, part.here, part.there, eve.unmerged.who) == (f"loads · {LOAD} · kw", "5.5", "3.0", "Ida")
    assert texts(eve)[-1] == "note 1"  # work is handed in all the same
    assert not eve.waiting.entries
    eve.settle(change_load(eve.job(), LOAD, kw=5.5))
    swap(eve, way("eve"))
    swap(ida, way())
    assert ida.job().loads[0].kw == eve.job().loads[0].kw == 5.5
    for job in (ida, eve):
        job.close()


def test_what_both_changed_can_be_settled_by_leaving_the_other_be(bench: Callable[..., ServerJob], way: Way) -> None:
    ida, eve = bench("ida"), bench("eve", "eve")
    ida.add_revision(change_load(ida.job(), LOAD, kw=3.0), who="Ida", at=NOW, why="kW")
    eve.add_revision(change_load(eve.job(), LOAD, kw=5.5), who="Eve", at=NOW, why="kW")
    swap(ida, way())
    swap(eve, way("eve"))
    eve.settle(None)
    assert eve.job().loads[0].kw == 3.0
    for job in (ida, eve):
        job.close()


def test_without_the_network_the_bench_goes_on_and_hands_in_afterwards(
    bench: Callable[..., ServerJob], way: Way, cluster: Cluster, tmp_path: Path, shop: Address
) -> None:
    ida = bench("ida")
    engine = way()
    cluster.stop("immediate")
    try:
        ida.add_records([note(n) for n in range(1, 4)])
        with pytest.raises(NoServerError, match="cannot be reached"):
            swap(ida, engine)
        ida.close()
        ida = open_server_job(engine, shop(), tmp_path / "ida", who="Ida")  # the bench was switched off and on
        assert texts(ida) == ["note 0", "note 1", "note 2", "note 3"]
        assert len(ida.waiting.entries) == 3
    finally:
        cluster.start()
    swap(ida, engine)
    assert not ida.waiting
    assert texts(ida) == ["note 0", "note 1", "note 2", "note 3"]
    ida.close()


def test_who_may_only_look_changes_nothing_and_sees_what_others_do(bench: Callable[..., ServerJob], way: Way) -> None:
    guest, ida = bench("guest", "guest"), bench("ida")
    assert "only look" in guest.only_looking
    with pytest.raises(RiktigError, match="read-only"):
        guest.add_records([note(1)])
    ida.add_records([note(2)])
    swap(ida, way())
    assert swap(guest, way("guest"))
    assert texts(guest) == ["note 0", "note 2"]
    assert guest.read_only


def test_a_right_that_one_lacks_is_refused_before_anything_waits(bench: Callable[..., ServerJob], way: Way) -> None:
    ben = bench("ben", "ben")
    assert "change the plan" in ben.refuses_plan
    with pytest.raises(RiktigError, match="may not change the plan"):
        ben.add_revision(change_load(ben.job(), LOAD, kw=3.0), who="Ben", at=NOW, why="kW")
    with pytest.raises(RiktigError, match="may not record findings"):
        ben.add_records([Record("f", "job", FindingNoted("a burr", "job"), "Ben", NOW, 1)])
    ben.add_records([note(1, "Ben")])
    swap(ben, way("ben"))
    assert not ben.waiting


def test_a_right_that_was_taken_meanwhile_is_refused_by_the_database(bench: Callable[..., ServerJob], way: Way) -> None:
    eve = bench("eve", "eve")
    eve.add_revision(change_load(eve.job(), LOAD, kw=3.0), who="Eve", at=NOW, why="kW")
    with way("postgres").begin() as db:
        db.exec_driver_sql("UPDATE riktig.person SET plans = false WHERE login = 'eve'")
    with pytest.raises(RefusedError, match="plans"):
        swap(eve, way("eve"))
    assert eve.waiting.revisions, "it is not lost"


def test_bench_and_database_ask_the_same_right_of_every_kind_of_entry(way: Way, on_server: None) -> None:
    kinds = [kind for kind in get_args(Facts) if kind is not OtherEntry]
    assert len(kinds) > 20
    with way("postgres").begin() as db:
        for kind in kinds:
            name, content = str(kind.__struct_config__.tag), {"answer": "x"}
            asked = db.execute(text("SELECT riktig.right_for(:kind)"), {"kind": name}).scalar_one()
            facts = load_facts(name, json.dumps(content))
            record = Record("r", "job", facts, "Ida", NOW, 1)
            assert isinstance(facts, kind) or name == "other", name
            assert asked == right_for(record), name


def test_nobody_changes_or_deletes_what_is_on_the_server(
    way: Way, on_server: None, cluster: Cluster, shop: Address
) -> None:
    owner = way("postgres")
    for command in ("UPDATE riktig.entry SET who = 'x'", "DELETE FROM riktig.revision", "TRUNCATE riktig.entry"):
        with pytest.raises(Exception, match="append-only"), owner.begin() as db:
            db.exec_driver_sql(command)


def test_a_wrong_password_is_said(cluster: Cluster, shop: Address, way: Way, on_server: None, tmp_path: Path) -> None:
    address = cluster.address("ida", shop().url.database or "", "drum", password="wrong")
    engine = engine_for(address)
    with pytest.raises(RefusedError, match="does not let ida in") as refused:
        open_server_job(engine, address, tmp_path / "x")
    assert "wrong" not in str(refused.value.args[0]).replace("is wrong", "")
    engine.dispose()


@pytest.mark.parametrize(("version", "words"), [(2, "newer edition"), (0, "older edition")])
def test_tables_of_another_edition_are_left_alone(
    version: int, words: str, way: Way, shop: Address, on_server: None, tmp_path: Path
) -> None:
    with way("postgres").begin() as db:
        db.exec_driver_sql(f"UPDATE riktig.format SET version = {version}")
    with pytest.raises(RefusedError, match=words):
        fetch(way(), shop(), tmp_path / "x.riktig")


def test_a_name_that_is_not_there_is_said_with_those_that_are(
    way: Way, shop: Address, on_server: None, tmp_path: Path
) -> None:
    with pytest.raises(RefusedError, match="no job “pump”") as refused:
        fetch(way(), shop("ida", "pump"), tmp_path / "x.riktig")
    assert "drum" in refused.value.hint


def test_a_name_is_given_once(way: Way, shop: Address, on_server: None, tmp_path: Path) -> None:
    file = JobFile(tmp_path / "drum.riktig", read_only=True)
    with pytest.raises(RiktigError, match="already"):
        put(way(), shop(), file)
    with pytest.raises(RiktigError, match="cannot be called"):
        put(way(), shop("ida", "../x"), file)
    file.close()


def test_a_server_set_back_to_an_earlier_state_is_noticed(bench: Callable[..., ServerJob], way: Way) -> None:
    ida = bench("ida")
    ida.add_records([note(1)])
    swap(ida, way())
    with way("postgres").begin() as db:
        db.exec_driver_sql("SET session_replication_role = replica")
        db.exec_driver_sql("DELETE FROM riktig.entry WHERE seq = 2")
    with pytest.raises(RefusedError, match="another history"):
        swap(ida, way())
    assert texts(ida) == ["note 0", "note 1"]
    ida.close()
