"""The words of labels: in the language of the job by the house's table, shorter where a text does not fit."""

import re
from collections.abc import Iterable
from dataclasses import replace
from functools import cache

from riktig.core.job import LabelWord, Practice
from riktig.core.labels.model import Label, Medium

__all__ = ["named_lines", "translated", "untranslated_texts", "with_own_words", "words_of"]

NAMED_LINES = {
    Medium.WIRE: 99, Medium.CORE: 99, Medium.TERMINAL: 99, Medium.EARTH: 99,
    Medium.DEVICE: 1, Medium.CABLE: 1, Medium.PIECE: 1, Medium.TORQUE: 1,
}  # fmt: skip
"""How many lines at the head of a label are names of the thing: no table changes them."""


def named_lines(medium: Medium) -> int:
    """How many lines at the head of a label of a medium are the name of the thing."""
    return NAMED_LINES.get(medium, 0)


_LETTERS = re.compile(r"[^\W\d_]{2,}")


@cache
def _pattern(rows: tuple[LabelWord, ...]) -> tuple[re.Pattern[str], dict[str, str]]:
    """Whole words and phrases, the longest first, whatever their capitals."""
    instead = {row.words.strip().casefold(): row.instead for row in rows}
    phrases = sorted(instead, key=lambda phrase: (-len(phrase), phrase))
    return re.compile(rf"(?<!\w)(?:{'|'.join(map(re.escape, phrases))})(?!\w)", re.IGNORECASE), instead


def translated(text: str, rows: tuple[LabelWord, ...]) -> str:
    """A text with every phrase of a table replaced; what stood in capitals is in capitals again.

    Args:
        text: The text.
        rows: Of one language, or the abbreviations.
    """
    if not rows or not text:
        return text
    pattern, instead = _pattern(rows)

    def said(matched: re.Match[str]) -> str:
        words = instead.get(matched[0].casefold(), matched[0])
        shouted = len(matched[0]) > 1 and matched[0] == matched[0].upper() and matched[0] != matched[0].lower()
        return words.upper() if shouted else words

    return " ".join(pattern.sub(said, text).split())


def words_of(practice: Practice) -> tuple[tuple[LabelWord, ...], tuple[LabelWord, ...]]:
    """The rows of the language of the labels, and the abbreviations of that language or of none."""
    language = practice.label_language
    rows = practice.label_words
    return tuple(row for row in rows if language and row.language == language), tuple(
        row for row in rows if not row.language
    )


def with_own_words(labels: Iterable[Label], practice: Practice) -> list[Label]:
    """Labels in the language of the job, with the abbreviations they may take.

    Args:
        labels: All labels.
        practice: With the house's table.
    """
    language, short = words_of(practice)
    if not language and not short:
        return list(labels)
    worded = []
    for label in labels:
        names = named_lines(label.medium)
        if names >= len(label.lines):
            worded.append(label)
            continue
        lines = (*label.lines[:names], *(translated(line, language) for line in label.lines[names:]))
        shorter = (*lines[:names], *(translated(line, short) for line in lines[names:]))
        if shorter == lines:  # the table has no abbreviation for it: what Riktig has itself, if anything
            translated_lines = tuple(translated(translated(line, language), short) for line in label.short[names:])
            shorter = (*lines[:names], *translated_lines) if translated_lines else ()
        worded.append(replace(label, lines=lines, short=shorter))
    return worded


def untranslated_texts(labels: Iterable[Label], practice: Practice) -> tuple[str, ...]:
    """Texts of labels in which the house's table of the language says nothing; () for labels in no other language.

    Args:
        labels: All labels in Riktig's words.
        practice: With the house's table.
    """
    language, _short = words_of(practice)
    if not practice.label_language or practice.label_language == "en":
        return ()
    texts = {
        line: None
        for label in labels
        if label.medium is not Medium.NAMEPLATE
        for line in label.lines[named_lines(label.medium) :]
        if _LETTERS.search(line) and translated(line, language) == line
    }
    return tuple(texts)
