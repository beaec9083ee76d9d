"""Pins, roles and keys: values inside, one text form outside."""

import re
from pathlib import Path
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

import riktig
from riktig.core.ids import (
    CircuitId,
    ContactRef,
    DeviceId,
    ElementId,
    PinRef,
    circuit_of,
    device_id,
    device_of_element,
    read_contact,
    read_pin,
    role_of,
)
from riktig.core.keys import (
    BatchKey,
    DeviceKey,
    DuctKey,
    ElementKey,
    HoleKey,
    Key,
    NetKey,
    OpeningKey,
    PartKey,
    PinKey,
    RailKey,
    WireKey,
    device_of,
    read_key,
)

WORDS = st.text(st.characters(categories=("L", "N"), include_characters="-+. "), min_size=1, max_size=8)
DEVICES = st.builds(device_id, st.builds(CircuitId, st.from_regex(r"[cs]\d{1,3}", fullmatch=True)), WORDS)
PINS = st.builds(PinRef, DEVICES, WORDS)
OF_ONE_TEXT = [kind for kind in get_args(Key) if kind not in (PinKey, NetKey, OpeningKey, BatchKey, PartKey)]
KEYS = st.one_of(
    st.builds(PinKey, PINS),
    st.builds(NetKey, PINS),
    st.builds(OpeningKey, st.integers(1, 99)),
    st.builds(BatchKey, st.integers(1, 99)),
    st.builds(PartKey, WORDS),
    *(st.builds(kind, WORDS) for kind in OF_ONE_TEXT),
)


@given(PINS)
def test_a_pin_is_read_back_from_its_text(pin: PinRef) -> None:
    assert read_pin(str(pin)) == pin
    assert device_id(circuit_of(pin.device), role_of(pin.device)) == pin.device


@given(st.lists(PINS, max_size=12))
def test_pins_stand_in_the_order_of_their_texts(pins: list[PinRef]) -> None:
    """Lists printed before pins were values keep their order."""
    assert [str(pin) for pin in sorted(pins)] == sorted(str(pin) for pin in pins)


@given(KEYS)
def test_a_key_is_read_back_from_its_text(key: Key) -> None:
    assert read_key(str(key)) == key


@given(KEYS, KEYS)
def test_keys_of_two_kinds_are_never_the_same(one: Key, other: Key) -> None:
    assert (one == other) == (str(one) == str(other))


def test_an_empty_text_is_no_key() -> None:
    assert read_key("") is None


@pytest.mark.parametrize(
    ("key", "device"),
    [
        (DeviceKey(DeviceId("c2.S.stop")), "c2.S.stop"),
        (PinKey(PinRef(DeviceId("c1.K"), "13")), "c1.K"),
        (ElementKey(ElementId("c1.K/13-14")), "c1.K"),
        (NetKey(PinRef(DeviceId("c1.K"), "13")), None),
        (HoleKey("P3"), None),
        (RailKey("R1"), None),
        (None, None),
    ],
)
def test_a_key_names_a_device_or_none(key: Key | None, device: str | None) -> None:
    assert device_of(key) == device


def test_rails_ducts_and_wires_of_one_name_are_told_apart() -> None:
    assert len({RailKey("D1"), DuctKey("D1"), HoleKey("D1"), PartKey("D1")}) == 4
    assert read_key("wire:c1.F:2~c1.K:1") != read_key("net:c1.F:2~c1.K:1")
    assert isinstance(read_key("wire:c1.F:2~c1.K:1"), WireKey)


def test_contacts_and_elements_name_their_device() -> None:
    assert read_contact("c2.K:43-44") == ContactRef(DeviceId("c2.K"), "43-44")
    assert device_of_element(ElementId("c2.S.stop/1-2")) == "c2.S.stop"


AN_ID = r"(?:pins?|devices?|elements?|owner|lead|net|wire|key|selection|did|cid|tag_of|other|landing|moved)"
TAKEN_APART = re.compile(
    rf"\b{AN_ID}(?:\.id|\[\d\])?\.(?:r?partition|r?split|startswith|endswith|removeprefix|removesuffix)\(|"
    rf"\bstr\({AN_ID}(?:\.\w+)?\)\.(?:r?partition|r?split|startswith|endswith)\("
)
READERS = ("core/ids.py", "core/keys.py", "core/job/override.py")


def test_no_id_is_taken_apart_outside_its_readers() -> None:
    """A count that stays at 0: the readers are in ``ids``, ``keys`` and, for keys of sized values, ``override``."""
    root = Path(riktig.__file__).parent
    found = [
        f"{path.relative_to(root)}:{number}: {line.strip()}"
        for path in sorted(root.rglob("*.py"))
        if str(path.relative_to(root)) not in READERS
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1)
        if TAKEN_APART.search(line)
    ]
    assert found == []
