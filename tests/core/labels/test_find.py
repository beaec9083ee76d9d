"""The finder against a plain reading of its ranks, one entry at a time."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId
from riktig.core.job import Job
from riktig.core.keys import DeviceKey, NetKey
from riktig.core.labels import INDEX, IndexEntry, find, index_of, same_words
from riktig.core.schematic import NETS
from riktig.demo_job import demo_job

TEXT = st.text("k1:x- ", min_size=1, max_size=6)
ENTRIES = st.lists(
    st.builds(
        IndexEntry,
        st.text("K1:X-", min_size=1, max_size=4),
        st.sampled_from(["duct", "trunking k", "main isolator", "a 1x", ""]),
        st.integers(0, 999).map(lambda n: DeviceKey(DeviceId(str(n)))),
        st.lists(st.sampled_from(["K1", "X1", "X"]), max_size=2).map(tuple),
    ),
    max_size=20,
)


def rank(entry: IndexEntry, wanted: str) -> int | None:
    """The best rank of an entry by the words of ``find``, None when it does not answer."""
    label, words = entry.label.lower(), wanted.split(" ")
    said = f" {label} {entry.what.lower()}"
    bare = "".join(letter for letter in wanted if letter not in " :.-/,")
    plain = "".join(letter for letter in label if letter not in " :.-/,")
    tests = (
        label == wanted,
        label.startswith(wanted),
        bool(bare) and plain.startswith(bare),
        wanted in [other.lower() for other in entry.also],
        all(f" {word}" in said for word in words),
        all(word in said for word in words),
        any(word in said for word in same_words(wanted))
        or all(any(one in said for one in same_words(word)) for word in words),
    )
    return next((number for number, met in enumerate(tests) if met), None)


def slowly(entries: list[IndexEntry], typed: str, limit: int) -> list[IndexEntry]:
    wanted = " ".join(typed.lower().split())
    ranked = [(rank(entry, wanted), place) for place, entry in enumerate(entries)] if wanted else []
    best = sorted((n, place) for n, place in ranked if n is not None)[:limit]
    return [entries[place] for _, place in best]


@given(ENTRIES, TEXT | st.sampled_from(["disconnect", "raceway 1", "isolators", "k1 duct"]), st.integers(1, 12))
def test_the_finder_answers_as_one_who_reads_every_entry(entries: list[IndexEntry], typed: str, limit: int) -> None:
    assert list(find(index_of(entries), typed, limit)) == slowly(entries, typed, limit)


@pytest.mark.parametrize("typed", ["k1", "k", "1", "m", "x5:", "wm", "rake", "hold k7", "trunking", "ze", "ra st", "7"])
def test_it_does_so_on_the_demonstration(typed: str) -> None:
    index = Evaluation[Job](demo_job("kelp-shed")).get(INDEX)
    assert list(find(index, typed)) == slowly(list(index.entries), typed, 12)
    assert find(index, typed)


@pytest.mark.parametrize(
    ("typed", "named"),
    [
        ("seal in", "hold contact"),
        ("seal-in", "hold contact"),
        ("limit switch", "end switch"),
        ("level switch", "float"),
        ("motor protective circuit breaker", "motor protector"),
        ("ground fault", "residual-current"),
        ("jumper", "bridge"),
    ],
)
def test_a_phrase_of_the_trade_finds_what_riktig_calls_otherwise(typed: str, named: str) -> None:
    """The phrases of common practice, no source; a hyphen or a blank in them are the same."""
    found = find(plan_for(demo_job("kelp-shed")).get(INDEX), typed)
    assert any(named in f"{entry.label} {entry.what}" for entry in found[:4]), [entry.what for entry in found]


def test_a_comb_is_no_earthing_link() -> None:
    found = find(plan_for(demo_job("kelp-shed")).get(INDEX), "comb")
    assert not any("earthing" in entry.what for entry in found)


@pytest.mark.parametrize(
    ("typed", "line"),
    [("L1", 0), ("phase r", 0), ("phase Y", 1), ("line s", 1), ("phase c", 2), ("phase T", 2), ("phase a", 0)],
)
def test_a_line_of_the_supply_is_found_by_whatever_a_shop_calls_it(typed: str, line: int) -> None:
    """L1-L2-L3, R-S-T, R-Y-B, A-B-C (common practice, no source); B is the second or the third, so both are offered."""
    evaluation = plan_for(demo_job("kelp-shed"))
    nets = {net.id: net for net in evaluation.get(NETS).nets}
    lines = {nets[e.key.net].line for e in find(evaluation.get(INDEX), typed, 12) if isinstance(e.key, NetKey)}
    assert line in lines
    if len(typed) > 2:
        assert lines == {line}


def test_b_is_the_second_line_or_the_third() -> None:
    evaluation = plan_for(demo_job("kelp-shed"))
    nets = {net.id: net for net in evaluation.get(NETS).nets}
    keys = [e.key for e in find(evaluation.get(INDEX), "phase b", 60)]
    assert {nets[key.net].line for key in keys if isinstance(key, NetKey)} == {1, 2}


def test_a_terminal_of_the_supply_is_found_by_another_name_of_its_line() -> None:
    evaluation = plan_for(demo_job("kelp-shed"))
    first = find(evaluation.get(INDEX), "X1:S")[0]
    assert first.label == "X1:L2"
