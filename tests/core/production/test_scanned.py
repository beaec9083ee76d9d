"""What a scanner reads: a wire, a batch, a part, and what belongs to none of them."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.production import Operation, Scan, ScanKind, batch_code, progress_of, read_scan, tick_facts, wire_code
from riktig.core.records import Record
from riktig.core.schematic import NAMES
from riktig.core.wiring import WIRING
from riktig.demo_job import kelp_shed

EVALUATION = plan_for(kelp_shed())
WIRES = EVALUATION.get(WIRING)
NUMBER = EVALUATION.document.number

THINGS = {tag: device for device, tag in EVALUATION.get(NAMES).tag.items()}


def scan(text: str, records: list[Record] | None = None, printed: tuple[str, ...] = ()) -> Scan:
    progress = progress_of(WIRES, records or [])
    return read_scan(text, NUMBER, progress, WIRES.batches, THINGS, printed)


def test_a_marker_means_all_wires_of_its_number_the_unfinished_first() -> None:
    number = "PE"
    own = [wire.key for wire in WIRES.wires if wire.number == number]
    assert len(own) > 2
    first = WIRES.by_key[own[0]]
    records = [Record(f"r{n}", first.key, tick_facts(first, op), "Ida", "t", 1) for n, op in enumerate(Operation)]
    read = scan(number, records)
    assert read.kind is ScanKind.WIRE
    assert set(read.wires) == set(own)
    assert read.wires[-1] == first.key


@pytest.mark.parametrize("number", sorted({wire.number for wire in WIRES.wires}))
def test_every_number_is_read_with_its_job_and_without(number: str) -> None:
    assert scan(number).wires == scan(wire_code(NUMBER, number)).wires != ()


@pytest.mark.parametrize("batch", WIRES.batches, ids=lambda batch: f"B{batch.number}")
def test_every_batch_is_read_unless_a_wire_has_that_number(batch: object) -> None:
    from riktig.core.wiring import Batch

    assert isinstance(batch, Batch)
    read = scan(batch_code(NUMBER, batch.number))
    assert (read.kind, read.batch, read.wires) == (ScanKind.BATCH, batch.number, batch.wires)


def test_a_tag_means_its_part() -> None:
    read = scan("k1")
    assert read.kind is ScanKind.DEVICE
    assert read.device is not None
    assert EVALUATION.get(NAMES).tag[read.device] == "K1"


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("OTHER-1/36", "belongs to the job OTHER-1"),
        ("B999", "Nothing in this panel is called “B999”"),
        ("B", "Nothing in this panel"),
        ("", "no code of a panel"),
        ("   ", "no code of a panel"),
        ("x" * 500, "no code of a panel"),
        ("\x00\x01", "no code of a panel"),
        ("https://example.org/36", "belongs to the job"),
    ],
)
def test_what_is_none_of_ours_is_said(text: str, words: str) -> None:
    read = scan(text)
    assert read.kind is ScanKind.UNKNOWN
    assert words in read.said


def test_a_retired_number_is_said_to_be_one() -> None:
    read = scan("9999", printed=("9999",))
    assert read.kind is ScanKind.UNKNOWN
    assert "retired" in read.said
