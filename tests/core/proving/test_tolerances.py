"""What a sound piece reads in ohm, by hand."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Behaviour
from riktig.core.proving.tolerances import unit_ohms
from riktig.core.schematic import CIRCUITS
from riktig.core.simulation import RATINGS
from riktig.core.sizing import SIZING
from riktig.demo_job import wash_drum


@pytest.mark.parametrize("volts", [24.0, 115.0, 230.0])
def test_a_coil_for_another_voltage_reads_as_its_square(volts: float) -> None:
    """By hand: of the same power at half the voltage it takes twice the current, so a quarter of the resistance."""
    evaluation = plan_for(wash_drum())
    contactor = next(d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "contactor")
    coil = next(unit for unit in contactor.kind.units if unit.behaviour is Behaviour.COIL)
    part = evaluation.get(SIZING).parts[contactor.id]
    bought = evaluation.get(RATINGS)[contactor.id][0]
    ohms = unit_ohms(contactor, coil, part, (type(bought)(volts, 50.0),))
    assert ohms is not None
    assert part.coil_ohm > 0
    assert ohms.usual == pytest.approx(part.coil_ohm * volts * volts / (230.0 * 230.0))
    assert ohms.low < ohms.usual < ohms.high
