"""Derived results: computed once, kept by identity, handed out again when equal."""

from dataclasses import dataclass, replace

import pytest

from riktig.core.evaluation import DocumentPart, Evaluation, Memory, reads


@dataclass(frozen=True)
class Doc:
    left: tuple[int, ...] = (1, 2)
    right: tuple[int, ...] = (3,)


def in_order(left: tuple[int, ...]) -> tuple[int, ...]:
    return tuple(sorted(left))


def summed(left: tuple[int, ...], right: tuple[int, ...]) -> int:
    return sum(left) + sum(right)


def left_of(doc: Doc) -> tuple[int, ...]:
    return doc.left


def right_of(doc: Doc) -> tuple[int, ...]:
    return doc.right


LEFT, RIGHT = DocumentPart("left", left_of, tuple), DocumentPart("right", right_of, tuple)
SORTED = reads(LEFT).derive("sorted", in_order)
TOTAL = (reads(SORTED) & RIGHT).derive("total", summed)


def test_a_result_is_computed_once_for_the_same_objects() -> None:
    evaluation = Evaluation(Doc())
    assert evaluation.get(TOTAL) == 6
    computed = evaluation.computed
    assert evaluation.get(TOTAL) == 6
    assert evaluation.computed == computed == 2


def test_an_edit_elsewhere_recomputes_only_what_reads_it() -> None:
    evaluation = Evaluation(Doc())
    evaluation.get(TOTAL)
    evaluation.move_to(replace(evaluation.document, right=(4,)))
    assert evaluation.get(TOTAL) == 7
    assert evaluation.computed == 3, "the sorted left side was kept"


def test_an_equal_new_value_hands_back_the_old_object_so_that_readers_stay_valid() -> None:
    evaluation = Evaluation(Doc())
    evaluation.get(TOTAL)
    before = evaluation.get(SORTED)
    evaluation.move_to(replace(evaluation.document, left=(2, 1)))
    assert evaluation.get(SORTED) is before
    evaluation.get(TOTAL)
    assert evaluation.computed == 3, "sorted anew, total kept"


def test_going_back_to_an_earlier_document_gives_its_results() -> None:
    first = Doc()
    evaluation = Evaluation(first)
    evaluation.get(TOTAL)
    evaluation.move_to(Doc(left=(9,)))
    assert evaluation.get(TOTAL) == 12
    evaluation.move_to(first)
    assert evaluation.get(TOTAL) == 6


@pytest.mark.parametrize("moved", [False, True])
def test_a_result_from_elsewhere_is_taken_only_for_the_inputs_of_now(moved: bool) -> None:
    evaluation = Evaluation(Doc())
    inputs = evaluation.inputs_of(SORTED)
    if moved:
        evaluation.move_to(Doc(left=(7, 8)))
    assert evaluation.offer(SORTED, inputs, (1, 2)) is not moved
    assert evaluation.get(SORTED) == ((7, 8) if moved else (1, 2))


def test_what_is_asked_again_under_one_stamp_reads_nothing() -> None:
    looked: list[str] = []

    def look(doc: Doc) -> tuple[int, ...]:
        looked.append("left")
        return doc.left

    watched = reads(DocumentPart("left", look)).derive("watched", in_order)
    evaluation = Evaluation(Doc())
    for _ in range(3):
        evaluation.get(watched)
    assert len(looked) == 1
    evaluation.move_to(evaluation.document)
    evaluation.get(watched)
    assert len(looked) == 1, "the same document is no edit"
    evaluation.move_to(replace(evaluation.document, right=(4,)))
    evaluation.get(watched)
    assert (len(looked), evaluation.computed) == (2, 1)


def test_a_function_that_takes_other_inputs_is_refused_where_it_is_declared() -> None:
    with pytest.raises(TypeError, match="takes 2 inputs, 1 are read"):
        reads(LEFT).derive("too few", summed)  # type: ignore[arg-type]
    with pytest.raises(TypeError, match="takes 1 inputs, 2 are read"):
        (reads(LEFT) & RIGHT).derive("too many", in_order)  # type: ignore[arg-type]

    def words(left: str) -> str:
        return left

    with pytest.raises(TypeError, match="left is str, what is read is tuple"):
        reads(LEFT).derive("another class", words)  # type: ignore[arg-type]


def test_the_memory_of_a_fork_is_filled_by_itself() -> None:
    memory = Memory()
    memory.memo(int, "squares").get(3, (3,), lambda: 9)
    other = memory.copy()
    other.memo(int, "squares").get(4, (4,), lambda: 16)
    assert other.memo(int, "squares").get(3, (3,), lambda: -1) == 9
    assert memory.memo(int, "squares").get(4, (4,), lambda: -1) == -1
