"""The JSON Schema of a job file as JSON: what another program may rely on."""

from typing import Any

import msgspec

from riktig.core.job import Job
from riktig.core.store.schema import JOB_FORMAT

__all__ = ["job_schema"]

_ROWS: dict[str, dict[str, str]] = {
    "revisions": {
        "number": "integer", "job": "string", "who": "string", "at": "string", "why": "string", "digest": "string",
        "signer": "string", "signature": "string",
    },
    "log": {
        "seq": "integer", "id": "string", "kind": "string", "subject": "string", "facts": "string", "who": "string",
        "at": "string", "revision": "integer", "corrects": "string", "digest": "string", "signer": "string",
        "signature": "string",
    },
    "attachments": {"name": "string", "kind": "string", "body": "string"},
}  # fmt: skip


def job_schema() -> dict[str, Any]:
    """The schema of what ``dump_whole`` and ``dump_job`` write (JSON Schema 2020-12).

    The job itself is described field by field; the facts of an entry of the log are JSON in a text, see
    ``docs/file-format.md``. Without ``revisions`` and ``log`` it is a job without its record.
    """
    (job,), definitions = msgspec.json.schema_components([Job], ref_template="#/$defs/{name}")
    # Pins of numbers are written as texts, such as “c2.K:13”: it keeps the file short.
    definitions["GivenNumber"]["properties"]["pins"] = {"type": "array", "items": {"type": "string"}}
    rows = {
        name: {
            "type": "array",
            "items": {
                "type": "object",
                "properties": {column: {"type": kind} for column, kind in columns.items()},
                "required": list(columns),
                "additionalProperties": False,
            },
        }
        for name, columns in _ROWS.items()
    }
    head = {"type": "object", "required": ["count", "entries", "revisions", "digest", "signer", "signature"]}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "A job of Riktig",
        "type": "object",
        "properties": {
            "format": {"type": "integer", "minimum": 1, "maximum": JOB_FORMAT},
            "job": job,
            **rows,
            "head": head,
        },
        "required": ["format", "job"],
        "$defs": definitions,
    }
