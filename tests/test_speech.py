"""The speech service: silent where there is none, and never in the way."""

from collections.abc import Sequence

import pytest

from riktig.devices import Speech
from riktig.devices.speech import spoken


def test_where_there_is_none_nothing_is_started() -> None:
    started: list[Sequence[str]] = []
    speech = Speech(find=lambda _: None, start=started.append)
    assert not speech.is_there
    speech.say("K1:A2 to H2:X2")
    assert started == []


def test_a_new_text_cuts_the_last_one_off_and_no_text_is_an_option() -> None:
    started: list[Sequence[str]] = []
    speech = Speech(find=lambda name: f"/usr/bin/{name}", start=started.append)
    speech.say("--help")
    assert started == [["/usr/bin/spd-say", "--cancel"], ["/usr/bin/spd-say", "--", "--help"]]
    speech.say("   ")
    assert len(started) == 2


def test_one_that_breaks_is_silent_from_then_on() -> None:
    def broken(_: Sequence[str]) -> None:
        raise OSError("gone")

    speech = Speech(find=lambda name: name, start=broken)
    speech.say("once")
    assert not speech.is_there


@pytest.mark.parametrize(
    ("written", "said"), [("K1:A2 below 0.5 Ω", "K1, A2 below 0.5 ohm"), ("✓ above 1 MΩ", "above 1 megohm")]
)
def test_units_are_read_in_words(written: str, said: str) -> None:
    assert spoken(written) == said
