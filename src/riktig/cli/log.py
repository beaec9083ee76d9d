"""The command that prints and checks the log of a job."""

import argparse
import json
import sys
from dataclasses import asdict

from riktig.cli.words import print_table
from riktig.core.records import StoredEntry, fingerprint
from riktig.core.store import JobFile

__all__ = ["key_words", "log", "said_in"]


def log(arguments: argparse.Namespace) -> int:
    """Prints the log, or checks it; 1 when something in it was changed."""
    file = JobFile(arguments.file, read_only=True)
    try:
        entries, broken, doubts, chained = file.entries(), file.problems, file.doubts, file.has_digests
    finally:
        file.close()
    if arguments.json:
        rows = [{**asdict(entry), "facts": json.loads(entry.facts)} for entry in entries]
        print(json.dumps(rows, ensure_ascii=False, indent=1))
    else:
        heads = ["No.", "When", "Who", "Kind", "About", "Said", "Takes back", "Signed with"]
        rows_of_text = [
            [str(e.number), e.when[:19], e.who, e.kind, e.subject, said_in(e.facts), e.corrects[:8], key_words(e)]
            for e in entries
        ]
        if not arguments.check:
            print_table(heads, rows_of_text)
    for what in (*broken, *doubts):
        print(f"riktig: {what}.", file=sys.stderr)
    if broken:
        print("riktig: The log is not what was written. Compare it with a copy before you rely on it.", file=sys.stderr)
        return 1
    state = "none was changed" if chained else "an older format, which cannot tell whether one was changed"
    print(f"riktig: {len(entries)} entries, {state}.", file=sys.stderr)
    unsigned = sum(not entry.signer for entry in entries)
    for who, key in sorted({(entry.who, entry.signer) for entry in entries if entry.signer}):
        print(f"riktig: {who} signed with the key {fingerprint(key)}; ask {who} for it.", file=sys.stderr)
    if unsigned:
        print(f"riktig: {unsigned} of them are not signed, so anybody may have written them.", file=sys.stderr)
    return 0


def key_words(entry: StoredEntry) -> str:
    """The beginning of the key an entry is signed with, or “–”."""
    return fingerprint(entry.signer) if entry.signer else "–"


def said_in(facts: str) -> str:
    """The facts of an entry on one line."""
    try:
        return ", ".join(f"{name} {value}" for name, value in json.loads(facts).items())
    except (ValueError, AttributeError):
        return facts
