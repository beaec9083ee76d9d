"""Issues under letters, comparison of two states, the pack of evidence, and finding a job among many."""

import io
import json
import zipfile
from dataclasses import replace
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from tests.core.handover.complete import as_log, drum
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.exports import photos_named
from riktig.core.geometry import Drawing, Line, Poly, Text
from riktig.core.handover import (
    MANIFEST,
    JobIndex,
    PackContents,
    check_pack,
    compare_drawings,
    compare_jobs,
    digest_of_job,
    draw_compared,
    is_issued_now,
    issue_entry,
    issues_of,
    next_letter,
    photos_of,
    write_change_sheet,
    write_pack,
)
from riktig.core.job import Job, add_load, change_load, new_job, remove_load, set_heading
from riktig.core.records import NewRecord, PhotoKept, TakenBack
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile, dump_job, dump_whole, job_schema
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


@pytest.mark.parametrize(
    ("letter", "after"), [("A", "B"), ("H", "J"), ("N", "P"), ("Y", "AA"), ("AY", "BA"), ("", "A"), ("3", "A")]
)
def test_letters_leave_out_those_that_are_read_as_other_signs(letter: str, after: str) -> None:
    """By hand: no I, O, Q, X, Z."""
    assert next_letter(letter) == after


@given(st.integers(1, 500))
def test_no_letter_comes_twice(count: int) -> None:
    letter, seen = "", set[str]()
    for _ in range(count):
        letter = next_letter(letter)
        assert letter not in seen
        seen.add(letter)


def test_a_job_is_its_issue_until_it_changes_and_again_when_it_is_as_it_was() -> None:
    job = drum().document
    log = as_log([issue_entry(job, "for consent", document=3, entries=9)])
    assert is_issued_now(job, log)
    other = change_load(job, job.loads[0].id, name="x")
    assert not is_issued_now(other, log)
    assert is_issued_now(change_load(other, job.loads[0].id, name=job.loads[0].name), log)
    assert not is_issued_now(set_heading(job, revision="C"), log)
    assert digest_of_job(replace(job, printed=("1",))) == digest_of_job(job)
    withdrawn = [*log, *as_log([NewRecord("issue", TakenBack("too early"), "r0")])]
    assert issues_of(withdrawn) == ()


class TestCompare:
    def test_a_state_with_itself_has_no_difference(self) -> None:
        evaluation = drum()
        assert compare_jobs(evaluation, evaluation).rows == ()
        assert compare_drawings(evaluation, evaluation) == ()

    def test_a_load_more_is_named_with_its_parts_wires_and_sheets(self) -> None:
        before = drum()
        after = plan_for(with_names_recorded(add_load(before.document, "rinse pump", 0.75)))
        rows = compare_jobs(before, after).rows
        assert [row for row in rows if row[0] == "Loads" and row[1] == "new" and "rinse pump" in str(row[3])]
        assert {str(row[0]) for row in rows} >= {"Loads", "Terminals"}
        back = compare_jobs(after, before).rows
        assert sum(row[1] == "gone" for row in back) == sum(row[1] == "new" for row in rows)
        assert compare_drawings(before, after)

    def test_a_changed_row_says_what_it_was_and_is(self) -> None:
        before = drum()
        after = plan_for(change_load(before.document, before.document.loads[0].id, kw=5.5))
        changed = [row for row in compare_jobs(before, after).rows if row[0] == "Loads"]
        assert [row[1] for row in changed] == ["changed"]
        assert "4" in str(changed[0][2])
        assert "5.5" in str(changed[0][3])

    def test_what_is_new_and_what_is_gone_is_drawn_apart(self) -> None:
        stays, gone, new = Text(1, 1, "K1"), Line(0, 0, 5, 5), Text(3, 3, "K2")
        drawing = draw_compared(Drawing(10, 10, (stays, gone), "a"), Drawing(12, 9, (stays, new), "a"))
        assert (drawing.width, drawing.height) == (12, 10)
        roles = {(type(mark).__name__, mark.role) for mark in drawing.shapes}
        assert roles == {("Text", "second"), ("Line", "fails"), ("Text", "meets")}
        assert next(mark for mark in drawing.shapes if isinstance(mark, Line)).dashed
        assert "1 marks new, 1 gone" in drawing.title
        assert not [mark for mark in drawing.shapes if isinstance(mark, Poly)]

    def test_a_text_in_the_place_of_another_says_both(self) -> None:
        old, new = Drawing(9, 9, (Text(1, 1, "13 A"),), "a"), Drawing(9, 9, (Text(1, 1, "16 A"),), "a")
        drawing = draw_compared(old, new)
        assert [mark.text for mark in drawing.shapes if isinstance(mark, Text)] == ["13 A → 16 A"]
        assert "1 marks new, 1 gone" in drawing.title

    def test_the_change_sheet_holds_lists_and_drawings_or_is_not_written(self, tmp_path: Path) -> None:
        """Outside: pypdf reads it."""
        before = drum()
        (issue,) = issues_of(as_log([issue_entry(before.document, "consent", document=1, entries=0)]))
        after = plan_for(change_load(before.document, before.document.loads[0].id, kw=5.5))
        path = tmp_path / "changes.pdf"
        assert write_change_sheet(path, before, after, issue, "2026-12-01")
        text = "\n".join(page.extract_text() for page in PdfReader(path).pages)
        for words in ("Changes since issue B", "consent", "What has changed", "5.5 kW"):
            assert words in text
        assert not write_change_sheet(tmp_path / "none.pdf", before, before, issue)
        assert not (tmp_path / "none.pdf").exists()
        with pytest.raises(RiktigError, match="could not be written"):
            write_change_sheet(tmp_path / "no folder" / "x.pdf", before, after, issue)


def contents(job: Job, **files: bytes) -> PackContents:
    named = {f"papers/{name}.pdf": body for name, body in files.items()}
    return PackContents(job, (), {**named, "job/x_job.json": dump_job(job).encode()}, "2026-12-01", "Ida")


def read(path: Path) -> dict[str, bytes]:
    """Every file in an archive."""
    with zipfile.ZipFile(path) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


class TestPack:
    """Outside: the standard library's zipfile and json read what was packed."""

    def test_it_is_read_back_whole(self, tmp_path: Path) -> None:
        path = tmp_path / "evidence.zip"
        write_pack(path, contents(drum().document, a=b"one", b=b"two" * 1000))
        report = check_pack(path)
        assert report.is_whole
        assert (report.serial, report.files) == ("0417-01", 3)
        with zipfile.ZipFile(path) as archive:
            assert archive.testzip() is None
            manifest = json.loads(archive.read(MANIFEST))
            assert {entry["name"] for entry in manifest["files"]} == set(archive.namelist()) - {MANIFEST}
        again = tmp_path / "again.zip"
        write_pack(again, contents(drum().document, a=b"one", b=b"two" * 1000))
        assert again.read_bytes() == path.read_bytes(), "the same evidence makes the same archive"

    def test_any_single_byte_that_changes_is_found(self, tmp_path: Path) -> None:
        path = tmp_path / "evidence.zip"
        write_pack(path, contents(drum().document, a=bytes(range(256))))
        good, wanted = path.read_bytes(), read(path)
        for at in range(0, len(good), max(len(good) // 300, 1)):
            path.write_bytes(good[:at] + bytes([good[at] ^ 0x10]) + good[at + 1 :])
            try:
                whole = check_pack(path).is_whole
            except RiktigError:
                continue
            # Dates and attributes of the container are no evidence: what is in the files is.
            assert not whole or read(path) == wanted, at

    @pytest.mark.parametrize(
        ("change", "words"),
        [
            (lambda files: files.pop("papers/a.pdf"), "papers/a.pdf is missing"),
            (lambda files: files.update({"papers/b.pdf": b"new"}), "papers/b.pdf is not in the manifest"),
            (lambda files: files.update({"papers/a.pdf": b"other"}), "papers/a.pdf is not what was packed"),
            (lambda files: files.update({"../evil": b"x"}), "leads out of the archive"),
            (lambda files: files.pop("job/x_job.json"), "it holds no job"),
        ],
    )  # fmt: skip
    def test_what_was_done_to_it_is_named(self, tmp_path: Path, change: object, words: str) -> None:
        path = tmp_path / "evidence.zip"
        write_pack(path, contents(drum().document, a=b"one"))
        with zipfile.ZipFile(path) as archive:
            files = {name: archive.read(name) for name in archive.namelist()}
        change(files)  # type: ignore[operator]
        with zipfile.ZipFile(path, "w") as archive:
            for name, body in files.items():
                archive.writestr(name, body)
        assert any(words in fault for fault in check_pack(path).faults)

    def test_the_job_of_another_panel_is_found(self, tmp_path: Path) -> None:
        path = tmp_path / "evidence.zip"
        job = drum().document
        other = set_heading(job, serial="0417-02")
        write_pack(path, replace(contents(job), files={"job/x_job.json": dump_job(other).encode()}))
        assert check_pack(path).faults == ("the manifest names another panel than the job in it",)

    @pytest.mark.parametrize("body", [b"", b"PK\x03\x04", b"no archive at all"])
    def test_what_is_no_archive_is_said(self, tmp_path: Path, body: bytes) -> None:
        path = tmp_path / "x.zip"
        path.write_bytes(body)
        with pytest.raises(RiktigError, match="no evidence pack"):
            check_pack(path)

    def test_another_archive_is_no_pack(self, tmp_path: Path) -> None:
        path = tmp_path / "x.zip"
        for manifest in (None, b"{}", b'{"format": "other", "files": []}', b"[" * 5000):
            made = io.BytesIO()
            with zipfile.ZipFile(made, "w") as archive:
                archive.writestr("a", "b")
                if manifest is not None:
                    archive.writestr(MANIFEST, manifest)
            path.write_bytes(made.getvalue())
            with pytest.raises(RiktigError):
                check_pack(path)

    def test_without_a_serial_number_nothing_is_packed(self, tmp_path: Path) -> None:
        with pytest.raises(RiktigError, match="no serial number"):
            write_pack(tmp_path / "x.zip", contents(set_heading(drum().document, serial="")))
        with pytest.raises(RiktigError, match="leads out"):
            write_pack(tmp_path / "x.zip", replace(contents(drum().document), files={"../x": b""}))
        assert list(tmp_path.iterdir()) == []

    def test_photos_that_were_taken_back_stay_out(self) -> None:
        log = as_log([
            NewRecord("device:c1.K", PhotoKept("p1.jpg", "", "", "a", "K1")),
            NewRecord("device:c1.K", PhotoKept("p2.jpg", "", "", "b", "K1")),
            NewRecord("device:c1.K", TakenBack("blurred"), "r1"),
        ])  # fmt: skip
        assert photos_named(log) == ("p1.jpg",)

    def test_a_photo_that_the_record_names_and_nobody_has_is_said(self, tmp_path: Path) -> None:
        file = JobFile.create(tmp_path / "x.riktig", drum().document, who="Ida", at="2026-12-01")
        with pytest.raises(RiktigError, match=r"photo p1\.jpg"):
            photos_of(file, as_log([NewRecord("device:c1.K", PhotoKept("p1.jpg", "", "", "a", "K1"))]))
        assert photos_of(file, ()) == {}
        file.close()


class TestFinding:
    @pytest.fixture
    def folder(self, tmp_path: Path) -> Path:
        place = tmp_path / "jobs"
        (place / "older").mkdir(parents=True)
        for number, (name, make) in enumerate({"KS": kelp_shed, "FF": frost_fan}.items()):
            job = set_heading(make(), serial=f"S-100{number}", client="Ås Meieri")
            path = place / ("older" if number else ".") / f"{name}.riktig"
            JobFile.create(path, job, who="Ida", at="2026-12-01").close()
        (place / "no job.riktig").write_bytes(b"not a database")
        (place / "link.riktig").symlink_to("/etc/passwd")
        return place

    def test_by_serial_customer_number_title_tag_and_load(self, folder: Path, tmp_path: Path) -> None:
        index = JobIndex(tmp_path / "cache" / "jobs.sqlite")
        assert index.refresh(folder) == 3
        for words in ("S-1000", "ks-0418", "ås meieri kelp", "drying fan", "s-1000 meieri"):
            assert [job.path.name for job in index.find(words)] == ["KS.riktig"], words
        assert len(index.find("meieri")) == 2
        assert index.find("") == index.find("nowhere to be found") == index.find("100%") == ()

    def test_what_changes_and_what_goes_is_seen_at_the_next_look(self, folder: Path, tmp_path: Path) -> None:
        index = JobIndex(tmp_path / "jobs.sqlite")
        index.refresh(folder)
        with_serial = JobFile(folder / "KS.riktig", who="Ida")
        with_serial.add_revision(
            set_heading(with_serial.job(), serial="S-777"), who="Ida", at="2026-12-02", why="serial"
        )
        with_serial.close()
        (folder / "older" / "FF.riktig").unlink()
        index.refresh(folder)
        assert [job.serial for job in index.find("meieri")] == ["S-777"]

    def test_a_broken_index_is_made_anew(self, folder: Path, tmp_path: Path) -> None:
        path = tmp_path / "jobs.sqlite"
        path.write_bytes(b"this is no database at all, but text that goes on for a while" * 20)
        index = JobIndex(path)
        index.refresh(folder)
        assert len(index.find("meieri")) == 2


class TestSchema:
    """Outside: the library jsonschema judges what Riktig writes, and what it must not write."""

    @pytest.mark.parametrize("make", [wash_drum, kelp_shed, frost_fan, lambda: new_job("N", "n")])
    def test_every_job_follows_the_schema(self, make: object) -> None:
        schema = job_schema()
        jsonschema.Draft202012Validator.check_schema(schema)
        jsonschema.validate(json.loads(dump_job(make())), schema)  # type: ignore[operator]

    def test_a_whole_job_with_its_record_follows_it(self, tmp_path: Path) -> None:
        file = JobFile.create(tmp_path / "x.riktig", wash_drum(), who="Ida", at="2026-12-01")
        file.add_records(as_log([issue_entry(wash_drum(), "x", document=1, entries=0)]))
        jsonschema.validate(json.loads(dump_whole(file)), job_schema())
        file.close()

    @pytest.mark.parametrize(
        "change",
        [
            lambda whole: whole.pop("job"), lambda whole: whole.update(format="x"),
            lambda whole: whole["job"].update(loads="none"),
            lambda whole: whole["job"]["supply"].update(voltage_v="high"),
            lambda whole: whole.update(log=[{"seq": 1}]),
        ],
    )  # fmt: skip
    def test_what_is_no_job_breaks_it(self, change: object) -> None:
        whole = json.loads(dump_job(wash_drum()))
        change(whole)  # type: ignore[operator]
        with pytest.raises(jsonschema.ValidationError):
            jsonschema.validate(whole, job_schema())


def test_a_load_taken_out_is_gone_from_every_list() -> None:
    before = plan_for(kelp_shed())
    after = plan_for(with_names_recorded(remove_load(before.document, before.document.loads[1].id)))
    rows = compare_jobs(before, after, ("loads", "operators", "wires")).rows
    assert {row[0] for row in rows if row[1] == "gone"} >= {"Loads"}
