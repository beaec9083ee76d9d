"""Net classes and colours come from sources, never across a link to earth."""

import pytest

from riktig.core.catalogue import Behaviour
from riktig.core.job import (
    Colours,
    ElementId,
    Job,
    MaintainedColour,
    Recipe,
    Rulebook,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.schematic import CIRCUITS, NETS, NetClass, add_circuit, remove_element, with_names_recorded
from riktig.core.simulation import RATINGS
from riktig.core.wiring import WIRING, Wire
from tests.shared_plan import plan_for


def two_motors(*, american: bool = False) -> Job:
    """Two motors behind a control transformer, and a contact on 24 V: both supplies have a link to earth."""
    job = add_load(add_load(new_job("N", "nets"), "fan", 4.0), "pump", 2.2)
    job = add_signal(job, "flow", wetting=Wetting.DC)
    if american:
        job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
        job = set_practice(job, rulebook=Rulebook.UL)
    return job


def wires(job: Job) -> dict[str, Wire]:
    """Every wire by both of its ends, “K1:A2”."""
    evaluation = plan_for(with_names_recorded(job))
    return {str(pin): wire for wire in evaluation.get(WIRING).wires for pin in (wire.start.pin, wire.end.pin)}


def colour(job: Job, pin: str) -> str:
    return wires(job)[pin].colour


@pytest.mark.parametrize(
    ("american", "live", "back", "plus", "minus"),
    [(False, "red", "red", "blue", "blue"), (True, "red", "white", "blue", "white-blue")],
)
def test_both_sides_of_both_control_supplies(american: bool, live: str, back: str, plus: str, minus: str) -> None:
    """IEC 60204-1 13.2.4: AC control red, DC control blue; NFPA 79 13.2: the earthed sides white, white with blue."""
    job = two_motors(american=american)
    assert colour(job, "s1.T:5") == live
    assert colour(job, "c1.K:A2") == back
    assert colour(job, "s2.T:P") == plus
    assert colour(job, "s2.T:M") == minus


def test_without_its_link_the_return_is_not_earthed() -> None:
    """NFPA 79 13.2.4: white is for the earthed conductor; without the link both sides are red."""
    job = with_names_recorded(two_motors(american=True))
    loose = remove_element(job, ElementId("s1.XL/1-2"))
    assert colour(loose, "c1.K:A2") == "red"


@pytest.mark.parametrize(
    ("pin", "expected", "american"),
    [
        ("c100.Q:1", "orange", "orange"),  # the tap, ahead of the main switch
        ("c100.Q:2", "orange", "orange"),
        ("c100.F:2", "orange", "orange"),
    ],
)
def test_what_stays_live_from_its_tap_on(pin: str, expected: str, american: str) -> None:
    """IEC 60204-1 5.3.5 and 13.2.4: excepted circuits are orange, from where they leave the supply."""
    assert colour(add_circuit(two_motors(), Recipe.MAINTAINED), pin) == expected
    assert colour(add_circuit(two_motors(american=True), Recipe.MAINTAINED), pin) == american


def test_the_neutral_of_what_stays_live_is_a_neutral() -> None:
    """Behind the isolator of the services too: light blue (IEC 60204-1 13.2.3), not the red of control."""
    job = add_circuit(two_motors(), Recipe.MAINTAINED)
    assert colour(job, "c100.E.light:N") == "light blue"
    assert colour(job, "c100.X.socket:N") == "light blue"  # behind a residual-current device too


def test_both_sides_of_a_transformer_that_stays_live() -> None:
    """Without a neutral the services have a transformer of their own: what it feeds stays live, both sides."""
    job = add_circuit(two_motors(american=True), Recipe.MAINTAINED)
    assert {colour(job, "c100.E.light:L"), colour(job, "c100.E.heat:N")} == {"orange", "white-orange"}


def test_a_foreign_contact_is_orange_and_nothing_behind_the_link_is() -> None:
    job = add_circuit(two_motors(), Recipe.FOREIGN_INTERLOCK)
    found = wires(job)
    orange = {pin for pin, wire in found.items() if wire.colour == "orange"}
    assert orange == {"c100.KF:A1", "c100.KF:A2", "c100.KF.X1:i", "c100.KF.X2:i"}


@pytest.mark.parametrize("chosen", [MaintainedColour.ORANGE, MaintainedColour.YELLOW])
@pytest.mark.parametrize("scheme", [Colours.RULEBOOK, Colours.THREE_PHASE, Colours.OLD_PHASES])
def test_the_colour_of_what_stays_live_is_chosen(scheme: Colours, chosen: MaintainedColour) -> None:
    job = set_practice(add_circuit(two_motors(), Recipe.MAINTAINED), colours=scheme, maintained_colour=chosen)
    assert colour(job, "c100.F:2") == chosen.value


@pytest.mark.parametrize("american", [False, True])
@pytest.mark.parametrize(
    "more", [None, Recipe.MAINTAINED, Recipe.FOREIGN_INTERLOCK, Recipe.SIGNALLED_WAYS, Recipe.SCREEN]
)
def test_the_colour_of_every_coil_and_lamp_is_that_of_its_current(more: Recipe | None, american: bool) -> None:
    """What the simulation finds that a coil or lamp works on, a way of its own, against the colour of its wires."""
    job = two_motors(american=american)
    job = with_names_recorded(add_circuit(job, more) if more else job)
    evaluation = plan_for(job)
    found, nets = wires(job), evaluation.get(NETS)
    direct, alternating = {"blue", "white-blue"}, {"red", "white"}
    looked = 0
    for device_id, ratings in evaluation.get(RATINGS).items():
        device = evaluation.get(CIRCUITS).device(device_id)
        coils = [u for u in device.kind.units if u.behaviour in (Behaviour.COIL, Behaviour.LAMP)]
        for pin in {device.pin(name) for unit in coils for name in unit.pins}:
            net = nets.of_pin.get(pin)
            if str(pin) not in found or net is None or net.net_class not in (NetClass.DC, NetClass.CONTROL):
                continue
            looked += 1
            assert found[str(pin)].colour in (alternating if ratings[0].hz else direct), (pin, ratings)
    assert looked >= 6
