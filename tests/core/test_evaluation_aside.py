"""Plans worked out aside and results kept between plans: taken only where they are true of the document of now."""

from dataclasses import dataclass

import pytest

from riktig.core.evaluation import DocumentPart, Evaluation, KeyedCache, RecentCache, reads


@dataclass(frozen=True)
class Doc:
    width: int
    height: int


def whole(doc: Doc) -> Doc:
    return doc


def area_of(width: list[int], doc: Doc) -> int:
    return width[0] * doc.height


WHOLE = DocumentPart("whole", whole)
WIDTH = reads(WHOLE).derive("width", lambda doc: [doc.width])
AREA = (reads(WIDTH) & WHOLE).derive("area", area_of)
TWICE = reads(AREA).derive("twice", lambda area: 2 * area)


def test_what_a_fork_computed_is_taken_and_not_computed_again() -> None:
    evaluation = Evaluation(Doc(3, 4))
    fork = evaluation.fork(lambda: None)
    assert fork.get(TWICE) == 24
    assert evaluation.computed == 0
    evaluation.adopt(fork)
    assert evaluation.get(TWICE) == 24
    assert evaluation.get(WIDTH) is fork.get(WIDTH)
    assert evaluation.computed == 0


def test_what_a_fork_computed_of_an_older_document_is_not_taken() -> None:
    evaluation = Evaluation(Doc(3, 4))
    fork = evaluation.fork(lambda: None)
    fork.get(TWICE)
    evaluation.move_to(Doc(5, 4))
    evaluation.adopt(fork)
    assert evaluation.get(TWICE) == 40


def test_a_fork_starts_from_what_was_there() -> None:
    evaluation = Evaluation(Doc(3, 4))
    evaluation.get(AREA)
    fork = evaluation.fork(lambda: None)
    fork.get(TWICE)
    assert fork.computed == 1


def test_a_fork_is_ended_by_its_check_between_two_computations() -> None:
    class Ended(BaseException):
        pass

    calls = []

    def check() -> None:
        calls.append(1)
        if len(calls) == 2:
            raise Ended

    evaluation = Evaluation(Doc(3, 4))
    fork = evaluation.fork(check)
    with pytest.raises(Ended):
        fork.get(TWICE)
    evaluation.adopt(fork)
    assert evaluation.get(TWICE) == 24


def test_a_memo_makes_a_value_again_only_when_an_input_differs() -> None:
    memo: KeyedCache[list[int]] = KeyedCache(10)
    first = memo.get("a", (1, "x"), lambda: [1])
    assert memo.get("a", (1, "x"), lambda: [2]) is first
    assert memo.get("b", (1, "x"), lambda: [3]) == [3]
    assert memo.get("a", (2, "x"), lambda: [4]) == [4]
    assert memo.get("a", (1, "x"), lambda: [5]) == [5], "only the last value of a name is kept"


def test_a_memo_holds_no_more_than_it_may_and_is_right_all_the_same() -> None:
    memo: KeyedCache[int] = KeyedCache(3)
    assert [memo.get(n, (n,), lambda n=n: n * n) for n in range(50)] == [n * n for n in range(50)]  # type: ignore[misc]
    assert memo.get(0, (0,), lambda: 7) == 7, "it had to go"


def test_recent_values_are_found_by_the_very_objects_they_came_from() -> None:
    recent: RecentCache[int] = RecentCache(2)
    one, two, three = [1], [2], [3]
    assert recent.get((one,), lambda: 10) == 10
    assert recent.get((one,), lambda: 11) == 10
    assert recent.get(([1],), lambda: 12) == 12, "an equal object is another"
    recent.put((two,), 20)
    assert recent.get((two,), lambda: 21) == 20
    recent.put((three,), 30)
    assert recent.get((one,), lambda: 13) == 13, "only so many are kept"
