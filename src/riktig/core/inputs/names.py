"""File names made of what people call a job: safe on every system, and never the same for two."""

import hashlib
import re
import unicodedata

__all__ = ["file_name"]

LONGEST = 80
_RESERVED = re.compile(r"(con|prn|aux|nul|com\d|lpt\d)(\..*)?", re.IGNORECASE)
"""Names that some systems keep for devices (Microsoft's naming rules, from memory)."""


def file_name(text: str, empty: str = "job") -> str:
    """A name for a file or a folder: letters, figures, “_”, “-” and “.”.

    A text that had to be changed carries six figures of its digest, so that “A/7” and “A:7” are two files.

    Args:
        text: What it is called.
        empty: The name when nothing of it is left.
    """
    name = re.sub(r"[^\w.-]+", "_", unicodedata.normalize("NFC", text)).strip("._-")[:LONGEST].rstrip("._-")
    if _RESERVED.fullmatch(name):
        name = f"_{name}"
    if not text.strip():
        return empty
    if name == text:
        return name
    return f"{name or empty}_{hashlib.sha256(text.encode(errors='surrogatepass')).hexdigest()[:6]}"
