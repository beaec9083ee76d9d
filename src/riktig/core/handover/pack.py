"""The evidence of one panel in one archive: papers, lists, job with its record, photos, and a manifest of digests."""

import hashlib
import tempfile
import zipfile
import zlib
from collections.abc import Iterable, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from pathlib import Path, PurePosixPath

import msgspec

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue, as_archival, export_all, photos_named
from riktig.core.handover.issues import issues_of
from riktig.core.job import Job
from riktig.core.records import Record
from riktig.core.store import JobFile, load_job
from riktig.core.work import Progress

__all__ = [
    "MANIFEST",
    "PACK_FORMAT",
    "PackContents",
    "PackReport",
    "check_pack",
    "evidence_files",
    "photos_of",
    "write_pack",
]

PACK_FORMAT = "riktig evidence pack 1"
MANIFEST = "manifest.json"
BROKEN = (OSError, EOFError, zipfile.BadZipFile, zlib.error, NotImplementedError, RuntimeError, ValueError)
"""What the standard library raises of an archive that is damaged."""
EPOCH = (1980, 1, 1, 0, 0, 0)
"""Every file in the archive has this date: the same evidence makes the same archive."""
LARGEST_FILE = 500_000_000
LARGEST_PACK = 4_000_000_000
MOST_FILES = 20_000
"""An archive beyond these is no evidence of a panel (chosen by us: a slip, or a trap)."""


@dataclass(frozen=True, slots=True)
class PackContents:
    """What goes into a pack: the job, its record, and the files by their names in the archive."""

    job: Job
    records: tuple[Record, ...]
    files: Mapping[str, bytes]
    made: str
    who: str


class _Packed(msgspec.Struct, frozen=True):
    """A file as the manifest has it."""

    name: str
    bytes: int
    sha256: str


class _Issue(msgspec.Struct, frozen=True):
    """An issue of the job, as the manifest has it."""

    letter: str
    why: str
    when: str
    who: str


class _Manifest(msgspec.Struct, frozen=True):
    """What a pack says of itself."""

    format: str
    serial: str
    number: str
    revision: str
    title: str
    made: str
    who: str
    entries: int
    issues: list[_Issue]
    files: list[_Packed]


@dataclass(frozen=True, slots=True)
class PackReport:
    """What an archive is found to be: its manifest, and what is wrong with it, nothing when it is whole."""

    serial: str
    number: str
    revision: str
    made: str
    files: int
    faults: tuple[str, ...]

    @property
    def is_whole(self) -> bool:
        """Whether every file is there as it was written, and none beside."""
        return not self.faults


def photos_of(file: JobFile, records: Iterable[Record]) -> dict[str, bytes]:
    """The photos that the record names, by their names.

    Args:
        file: The open job file.
        records: Its log, oldest first.

    Raises:
        RiktigError: one of them is not in the file: evidence without it would look whole.
    """
    photos: dict[str, bytes] = {}
    for name in photos_named(records):
        body = file.attachment(name)
        if body is None:
            raise RiktigError(
                f"No evidence was packed: the record names the photo {name}, and it is not in the job file.",
                hint="Take it back in the record with the reason, or bring the job in from a copy that has it.",
            )
        photos[name] = body
    return photos


def evidence_files(
    evaluation: Evaluation[Job],
    records: tuple[Record, ...],
    issue: Issue,
    photos: Mapping[str, bytes],
    progress: Progress | None = None,
) -> dict[str, bytes]:
    """Everything that goes into a pack, by its name there: papers as PDF/A, lists, the job, photos.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        issue: Date, name and the whole job as JSON.
        photos: As ``photos_of`` gives them.
        progress: Told how far the papers are; it can stop them.
    """
    files = {f"photos/{name}": body for name, body in photos.items()}
    with tempfile.TemporaryDirectory(prefix="riktig-pack-") as folder:
        printed = replace(issue, photos=photos)
        for paper in export_all(evaluation, records, Path(folder), issue=printed, progress=progress):
            name, body = paper.relative_to(folder).as_posix(), paper.read_bytes()
            place = "job" if name.endswith("_job.json") else "papers"
            files[f"{place}/{name}"] = as_archival(body) if paper.suffix == ".pdf" else body
    return files


def write_pack(path: Path, contents: PackContents) -> None:
    """Writes the archive, whole or not at all.

    Args:
        path: The archive, ``.zip``; an existing one is replaced.
        contents: What goes into it.

    Raises:
        RiktigError: the panel has no serial number, a name cannot stand in an archive, or it cannot be written.
    """
    job = contents.job
    if not job.serial.strip():
        raise RiktigError(
            "No evidence was packed: the panel has no serial number, so nobody could find it again.",
            hint="Fill it in at the head of the Brief.",
        )
    for name in contents.files:
        if why := _bad_name(name):
            raise RiktigError(f"No evidence was packed: the file “{name}” {why}.")
    manifest = _Manifest(
        PACK_FORMAT, job.serial, job.number, job.revision, job.title, contents.made, contents.who,
        len(contents.records),
        [
            _Issue(issue.facts.letter, issue.facts.why, issue.record.when, issue.record.who)
            for issue in issues_of(contents.records)
        ],
        [
            _Packed(name, len(body), hashlib.sha256(body).hexdigest())
            for name, body in sorted(contents.files.items())
        ],
    )  # fmt: skip
    part = path.with_name(f".{path.name}.part")
    try:
        with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as archive:
            _add_file(archive, MANIFEST, msgspec.json.format(msgspec.json.encode(manifest), indent=2))
            for name, body in sorted(contents.files.items()):
                _add_file(archive, name, body)
        part.replace(path)
    except OSError as error:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise RiktigError(
            f"The evidence could not be written to {path} ({error.strerror or error}).",
            hint="Make room or choose another folder, and pack it again.",
            where=str(path),
        ) from error


def _add_file(archive: zipfile.ZipFile, name: str, body: bytes) -> None:
    info = zipfile.ZipInfo(name, EPOCH)
    info.compress_type = zipfile.ZIP_DEFLATED
    info.external_attr = 0o644 << 16
    archive.writestr(info, body)


def _bad_name(name: str) -> str:
    """Why a name may not stand in an archive: it leads out of the folder it is unpacked into."""
    path = PurePosixPath(name)
    if not name or path.is_absolute() or "\\" in name or ".." in path.parts or name == MANIFEST:
        return "has a name that leads out of the archive"
    return ""


def check_pack(path: Path) -> PackReport:
    """Reads an archive back: every file against its digest, the job against its own format.

    Args:
        path: The archive.

    Raises:
        RiktigError: it is no evidence pack, or cannot be read.
    """
    try:
        with zipfile.ZipFile(path) as archive:
            return _checked(archive, path)
    except BROKEN as error:
        raise RiktigError(
            f"{path.name} is no evidence pack that can be read ({error}).", hint="Ask for it again.", where=str(path)
        ) from error


def _checked(archive: zipfile.ZipFile, path: Path) -> PackReport:
    infos = archive.infolist()
    names = [info.filename for info in infos]
    if len(infos) > MOST_FILES or sum(info.file_size for info in infos) > LARGEST_PACK:
        raise RiktigError(f"{path.name} holds far more than the evidence of a panel, and was not read.")
    if MANIFEST not in names:
        raise RiktigError(f"{path.name} has no {MANIFEST}, so it is no evidence pack.", where=str(path))
    manifest = _manifest(archive, path)
    faults: list[str] = []
    listed = {entry.name: (entry.bytes, entry.sha256) for entry in manifest.files}
    for name in sorted(set(names) - {MANIFEST}):
        if why := _bad_name(name):
            faults.append(f"{name} {why}")
        elif name not in listed:
            faults.append(f"{name} is not in the manifest")
    faults += [f"{name} is in the archive twice" for name in sorted({n for n in names if names.count(n) > 1})]
    for name, (size, digest) in sorted(listed.items()):
        if name not in names:
            faults.append(f"{name} is missing")
            continue
        faults += _of_file(archive, name, size, digest)
    faults += _of_job(archive, names, manifest)
    made, all_faults = manifest.made, tuple(faults)
    return PackReport(manifest.serial, manifest.number, manifest.revision, made, len(listed), all_faults)


def _manifest(archive: zipfile.ZipFile, path: Path) -> _Manifest:
    try:
        with archive.open(MANIFEST) as file:
            manifest = msgspec.json.decode(file.read(LARGEST_FILE), type=_Manifest)
    except (msgspec.MsgspecError, *BROKEN) as error:
        raise RiktigError(f"The manifest of {path.name} cannot be read ({error}).", where=str(path)) from error
    if manifest.format != PACK_FORMAT:
        raise RiktigError(f"{path.name} has a manifest of another kind, so it is no evidence pack.", where=str(path))
    return manifest


def _of_file(archive: zipfile.ZipFile, name: str, size: int, digest: str) -> list[str]:
    """What is wrong with one file: its length or its digest."""
    hashed, length = hashlib.sha256(), 0
    try:
        with archive.open(name) as file:
            while block := file.read(1 << 20):
                length += len(block)
                if length > LARGEST_FILE:
                    return [f"{name} is larger than any paper of a panel"]
                hashed.update(block)
    except BROKEN as error:
        return [f"{name} is damaged ({error})"]
    if length != size or hashed.hexdigest() != digest:
        return [f"{name} is not what was packed"]
    return []


def _of_job(archive: zipfile.ZipFile, names: Sequence[str], manifest: _Manifest) -> list[str]:
    """Whether the job in it can be read, and is the panel that the manifest names."""
    jobs = [name for name in names if name.startswith("job/") and name.endswith(".json")]
    if len(jobs) != 1:
        return ["it holds no job" if not jobs else "it holds more than one job"]
    try:
        with archive.open(jobs[0]) as file:
            job = load_job(file.read(LARGEST_FILE).decode(), where=jobs[0])
    except (RiktigError, *BROKEN) as error:
        return [f"{jobs[0]} cannot be read as a job ({error})"]
    named = (manifest.serial, manifest.number, manifest.revision)
    if (job.serial, job.number, job.revision) != named:
        return ["the manifest names another panel than the job in it"]
    return []
