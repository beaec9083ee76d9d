"""For which voltage parts are bought: that of the circuit they are in, by the supply of the job."""

import pytest

from riktig.core.exports import schedule
from riktig.core.job import (
    CircuitId,
    ControlSupply,
    DeviceId,
    ElementId,
    Job,
    OwnDevice,
    OwnPart,
    OwnRung,
    Rulebook,
    RunLamp,
    Wetting,
    add_load,
    add_signal,
    new_job,
    pick_part,
    set_part,
    set_practice,
    set_supply,
)
from riktig.core.proving import TESTS, Expected
from riktig.core.schematic import CIRCUITS, NAMES, add_device, add_rung, remove_element, with_names_recorded
from riktig.core.simulation import RATINGS
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for


def ratings(job: Job) -> dict[str, str]:
    """By tag, the voltages in words."""
    evaluation = plan_for(job)
    tag = evaluation.get(NAMES).tag
    return {tag[d]: " and ".join(r.text for r in found) for d, found in evaluation.get(RATINGS).items()}


def american() -> Job:
    job = set_supply(new_job("A", "american"), voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0)
    job = set_practice(job, rulebook=Rulebook.UL, control_supply=ControlSupply.TRANSFORMER)
    return with_names_recorded(add_load(job, "fan", 2.2))


def with_24_v_lamp(job: Job) -> Job:
    c1 = CircuitId("c1")
    job = add_device(job, c1, OwnDevice("T.x", "dc_supply", "plate", "24 V"))
    job = add_device(job, c1, OwnDevice("H.x", "lamp", "door", "more", "MORE", colour="green"))
    for n, (start, path, end) in enumerate(
        (("c1.control", "T.x:L-N", "N"), ("dc.P", "@T.x:P", ""), ("dc.M", "@T.x:M", ""), ("dc.P", "H.x:X1-X2", "dc.M"))
    ):
        job = add_rung(job, c1, OwnRung(f"r{n}", "more", start, path, end))
    return with_names_recorded(job)


def test_coils_and_lamps_are_for_the_control_voltage_and_frequency_of_the_job() -> None:
    """IEC 60038: 230 V 50 Hz; the control voltage of North American panels is 120 V 60 Hz (common practice)."""
    assert {text for tag, text in ratings(one_motor()).items() if tag[0] in "KH"} == {"230 V 50 Hz"}
    assert {text for tag, text in ratings(american()).items() if tag[0] in "KH"} == {"120 V 60 Hz"}
    sixty = with_names_recorded(set_supply(one_motor(), frequency_hz=60.0))
    assert set(ratings(sixty).values()) == {"230 V 60 Hz"}


def test_one_lamp_on_24_v_stands_on_a_line_of_its_own() -> None:
    """Two lamps of one reference for two voltages are two things to buy."""
    job = with_24_v_lamp(one_motor())
    lines = {str(row[1]): row[2] for row in schedule("bom", plan_for(job)).rows if "signal lamp green" in str(row[1])}
    assert lines == {"LED signal lamp green, for 230 V 50 Hz": 1, "LED signal lamp green, for 24 V DC": 1}


def test_nothing_is_said_of_what_another_panel_feeds() -> None:
    job = one_motor()
    job = with_names_recorded(add_signal(job, "permit", wetting=Wetting.FOREIGN, load=job.loads[0].id))
    evaluation = plan_for(job)
    relays = {d.id for d in evaluation.get(CIRCUITS).devices if d.kind.has_coil} - {DeviceId("c1.K")}
    assert relays
    assert not relays & evaluation.get(RATINGS).keys()


@pytest.mark.parametrize(("voltage", "ohm"), [(230.0, 560.0), (120.0, 560.0 * (120 / 230) ** 2)])
def test_a_coil_reads_by_its_voltage(voltage: float, ohm: float) -> None:
    """Ohm's law: coils of one power read as the squares of their voltages; the catalogue has those for 230 V."""
    job = one_motor(0.75, run_lamp=RunLamp.COIL)  # beside its lamp of 88 kΩ, which changes nothing to speak of
    expected = between_line_and_return(set_supply(job, voltage_v=voltage * 3**0.5, voltage_to_neutral_v=voltage))
    assert expected.low == pytest.approx(0.6 * ohm * 0.97, rel=0.03)  # the meter's own error beside
    assert expected.high == pytest.approx(1.4 * ohm * 1.03, rel=0.03)


def test_of_a_coil_for_direct_current_and_of_a_part_without_figures_no_reading_is_expected() -> None:
    """Anything from some ohm to open: only a dead short is told from it."""
    job = one_motor()
    own = OwnPart("MY-9", "contactor", "contactor of another make", 45.0, 81.0, 91.0, 9.0)
    job = pick_part(set_part(job, own), DeviceId("c1.K"), "MY-9")
    expected = between_line_and_return(job)
    assert 10 < expected.low < 20
    assert expected.high == float("inf")
    assert "K1" in expected.why


def between_line_and_return(job: Job) -> Expected:
    """What is expected between the line and the return that the coil hangs between, its contacts taken out."""
    for element in ("c1.S.start/3-4", "c1.K/13-14"):
        job = remove_element(job, ElementId(element))
    tests = plan_for(with_names_recorded(job)).get(TESTS).tests
    return next(test.expected for test in tests if test.title == "X1:L1 against X1:N")
