"""What is recorded of labels after they were printed."""

import msgspec

__all__ = ["LabelReplaced"]


class LabelReplaced(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="label replaced"):
    """A label on the panel was exchanged: what it says now, "" where it was only taken off, and what it said before."""

    text: str = ""
    was: str = ""
