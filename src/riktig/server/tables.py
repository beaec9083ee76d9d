"""The tables of the shop's server as they are asked; ``tables.sql`` makes them."""

from typing import Any

from sqlalchemy import Boolean, Column, DateTime, Integer, LargeBinary, MetaData, Table, Text

__all__ = [
    "ATTACHMENT", "BENCH", "ENTRY", "FORMAT", "HEAD", "JOB", "METADATA", "PERSON", "REVISION", "STANDING", "VERSION",
]  # fmt: skip

VERSION = 1
"""The edition of the tables that this Riktig knows."""
METADATA = MetaData(schema="riktig")


def _table(name: str, *columns: Column[Any]) -> Table:
    return Table(name, METADATA, *columns)


def _texts(*names: str) -> tuple[Column[str], ...]:
    return tuple(Column(name, Text, nullable=False) for name in names)


def _numbers(*names: str) -> tuple[Column[int], ...]:
    return tuple(Column(name, Integer, nullable=False) for name in names)


FORMAT = _table("format", *_numbers("version"))
PERSON = _table(
    "person",
    Column("login", Text, primary_key=True),
    *(Column(name, Boolean, nullable=False) for name in ("plans", "builds", "inspects", "signs")),
)
JOB = _table("job", Column("name", Text, primary_key=True), *_texts("made_by"), Column("made_at", DateTime(True)))
REVISION = _table(
    "revision",
    *_texts("job"), *_numbers("number"), *_texts("text", "who", "at", "why", "digest", "signer", "signature", "token"),
)  # fmt: skip
ENTRY = _table(
    "entry",
    *_texts("job"), *_numbers("seq"), *_texts("id", "kind", "subject", "facts", "who", "at"), *_numbers("revision"),
    *_texts("corrects", "digest", "signer", "signature"),
)  # fmt: skip
ATTACHMENT = _table("attachment", *_texts("job", "name", "kind"), Column("body", LargeBinary, nullable=False))
HEAD = _table(
    "head", *_texts("job"), *_numbers("count", "entries", "revisions"), *_texts("digest", "signer", "signature")
)
BENCH = _table("bench", *_texts("job", "bench", "who"), Column("seen", DateTime(True)))
STANDING = _table(
    "standing",
    *_texts("job", "number", "title", "stage", "blocks"), *_numbers("minutes_left", "revision", "entries"),
    Column("at", DateTime(True)),
)  # fmt: skip
