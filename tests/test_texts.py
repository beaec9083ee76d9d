"""Every text that people read, gathered from the code: plain words of the field, one spelling, nothing shouted."""

import re

import pytest
from texts import FoundText, all_texts, is_read, texts_of

RIDDLES = (
    "cannot stand", "to settle", "to see to", "what else arrives live", "what turns, and what else", "take it out",
    "no reading that counts", "wire its start", "moved last", "power waits", "the way back", "both ways, but",
    "nothing to see to", "is let in", "lets in", "is told", "looking only", "what the panel comes to", "it must break",
    "landed at", "put in its place", "what can be done", "given to nothing else", "goes otherwise",
)  # fmt: skip
"""Wordings that a stranger had to ask about; what is said instead stands in the glossary."""
AMERICAN = ("color", "gray", "labeled", "center", "meter tall", "aluminum", "grounded conductor ahead", "catalog ")
"""Spellings of the other side of the ocean: the interface is British, North American terms of its rulebook aside."""


@pytest.fixture(scope="module")
def texts() -> list[FoundText]:
    return all_texts()


def test_the_texts_of_window_papers_messages_and_command_line_are_gathered(texts: list[FoundText]) -> None:
    said = {text.text for text in texts}
    assert len(texts) > 5000
    assert {text.file.partition("/")[0] for text in texts} >= {"cli", "core", "desk", "devices"}
    for expected in (
        "Start a new panel",
        "There is nothing to undo.",
        "{…} recorded this. Why is it taken back?",
        "Choose forward, reverse and stop.",
        "direct-on-line, reversing",
        "Plans, schedules, judges and proves motor starter panels.",
    ):
        assert expected in said, expected


def test_no_text_is_a_riddle(texts: list[FoundText]) -> None:
    found = [(text.file, text.line, text.text) for text in texts for riddle in RIDDLES if riddle in text.text.lower()]
    kept = {
        "core/records/facts.py",
        "core/job/signal.py",
    }  # what stands in files keeps its old words, and is shown in others
    assert [place for place in found if place[0] not in kept] == []


def test_the_spelling_is_british(texts: list[FoundText]) -> None:
    wrong = re.compile(rf"\b({'|'.join(word.strip() for word in AMERICAN)})s?\b", re.IGNORECASE)
    found = [(text.file, text.line, text.text) for text in texts if wrong.search(text.text)]
    assert found == []


def test_nothing_is_shouted_and_no_sentence_ends_twice(texts: list[FoundText]) -> None:
    ends = re.compile(r"![\s\"”]|!$|\.\.(?!\.)|,,|\?\?")
    assert [(text.file, text.line, text.text) for text in texts if ends.search(text.text.replace("…", ""))] == []


def test_what_nobody_reads_is_left_out_and_what_is_filled_in_is_marked(tmp_path: object) -> None:
    from pathlib import Path

    folder = Path(str(tmp_path))
    (folder / "page.py").write_text(
        '"""A page."""\nKEY = "some_key"\ndef f(n: "int") -> "Two words":\n    """Says it."""\n'
        '    say(f"{n} wires are cut. {n if n else \'none at all\'}")\n    button.setObjectName("main thing")\n'
        '    return "Cut the wire"\n'
    )
    found = [text.text for text in texts_of(folder / "page.py", folder)]
    assert sorted(found) == ["Cut the wire", "none at all", "{…} wires are cut. {…}"]
    assert not is_read("some_key")
    assert not is_read("12 – 34")
    assert is_read("Wires")
