"""What the catalogue says twice of one thing says the same."""

import pytest

from riktig.core.catalogue import Behaviour, Part, parts

LAMPS = [part for part in parts() if any(u.behaviour is Behaviour.LAMP for u in part.kind.units) and part.coil_ohm]


@pytest.mark.parametrize("part", LAMPS, ids=lambda part: part.ref)
def test_watts_and_ohms_of_a_lamp_agree(part: Part) -> None:
    """P = U² / R at what it works on: 230 V, or 24 V DC; its heat in the box is what it draws, none outside the box."""
    draw = part.kind.draw
    assert draw is not None
    volts = 24.0 if draw.dc else 230.0
    assert volts**2 / part.coil_ohm == pytest.approx(draw.va, rel=0.05)
    assert draw.ohm == part.coil_ohm
    assert part.loss_w in (0.0, draw.va)
