"""What an inspection adds to the log: comparisons with the printed standards, and findings at the panel."""

import msgspec

__all__ = ["ClauseCompared", "FindingNoted", "FindingSettled"]


class ClauseCompared(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="compared"):
    """What a clause rests on was compared with the printed standard: ``source`` as cited, and the ``edition`` read."""

    source: str = ""
    edition: str = ""
    title: str = ""


class FindingNoted(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="finding"):
    """What somebody found at the panel, in his own words; ``at`` names the thing, ``clause`` what it breaks."""

    text: str = ""
    at: str = ""
    clause: str = ""


class FindingSettled(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="finding settled"):
    """How a finding was dealt with: the entry it is about, its words and what was done."""

    finding: str = ""
    text: str = ""
    how: str = ""
