"""The conductor tally against counts by hand and against the wires and cores that other steps derive on their own."""

from collections import Counter

import pytest

from riktig.core.exports import schedule
from riktig.core.job import CircuitId, DeviceId, ElementId, PinRef
from riktig.core.schematic import (
    CIRCUITS,
    CONDUCTOR_ENDS,
    DOOR,
    NAMES,
    NETS,
    PLATE,
    Band,
    Circuits,
    Device,
    Element,
    Parallel,
    Pole,
    Rung,
    Series,
    Zone,
    conductor_ends_of,
    find_nets,
    place_of,
)
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job
from tests.core.schematic.samples import sample
from tests.shared_plan import plan_for

C = CircuitId("c1")


def cross(device: str, unit: str) -> Element:
    return Element(ElementId(f"c1.{device}/{unit}"), (Pole(DeviceId(f"c1.{device}"), unit),))


def start_stop_station() -> Circuits:
    """The classic: breaker, contactor and overload in the starter, stop and start in a station beside the machine."""
    kinds = (("F", "control_breaker", Zone.PLATE), ("K", "contactor_wired", Zone.PLATE),
             ("B", "overload_wired", Zone.PLATE), ("S", "station", Zone.FIELD))  # fmt: skip
    devices = tuple(Device(DeviceId(f"c1.{role}"), C, kind, zone, role) for role, kind, zone in kinds)
    path = Series(
        (
            cross("F", devices[0].kind.units[0].name),
            cross("S", "1-2"),
            Parallel((cross("S", "3-4"), cross("K", "13-14"))),
            cross("K", "A1-A2"),
            cross("B", "95-96"),
        )
    )
    return Circuits(devices, (Rung("c1.run", C, Band.CONTROL, "run", ("live",), ("back",), path),), ())


def test_a_start_stop_station_takes_three_pulled_wires_and_its_links_are_listed() -> None:
    """By hand, common practice, no source: three wires to the station; links there, hold contact to coil, overload."""
    circuits = start_stop_station()
    conductor_ends = conductor_ends_of(circuits, find_nets(circuits))
    assert sum(one.pulled for one in conductor_ends) == 3
    links = {frozenset(map(str, ends.pins)) for one in conductor_ends for ends in one.places if ends.links}
    assert links == {
        frozenset({"c1.S:2", "c1.S:3"}),
        frozenset({"c1.K:A1", "c1.K:14"}),
        frozenset({"c1.K:A2", "c1.B:95"}),
    }
    assert sum(one.links for one in conductor_ends) == 3
    assert [ends.place for one in conductor_ends for ends in one.places].count("c1.S") == 3


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_the_tally_is_what_is_wired_and_pulled(name: str) -> None:
    """Wires come from routing, cores from the terminal strips: neither knows the tally."""
    evaluation = plan_for(demo_job(name))
    devices = evaluation.get(CIRCUITS).by_id

    def place(pin: PinRef) -> str:
        return place_of(devices[pin.device])

    wires: Counter[PinRef] = Counter()
    hinge: Counter[PinRef] = Counter()
    for wire in evaluation.get(WIRING).wires:
        wires[wire.net] += 1
        hinge[wire.net] += place(wire.start.pin) != place(wire.end.pin)
    for pins in evaluation.get(WIRING).jumpers:
        wires[evaluation.get(NETS).of_pin[pins[0]].id] += len(pins) - 1  # a link made without a wire
    cores = sum(len(cable.cores) for cable in evaluation.get(STRIPS).cables)
    pulled_out = 0
    for one in evaluation.get(CONDUCTOR_ENDS):
        inside = [ends for ends in one.places if ends.place in (PLATE, DOOR)]
        over = len(inside) == 2
        assert wires[one.net] == sum(ends.links for ends in inside) + over, one.net
        assert hinge[one.net] == over, "every potential crosses the hinge once"
        pulled_out += one.pulled - over
    assert pulled_out == cores


def test_a_station_in_the_field_needs_its_cores_and_its_earth_counted() -> None:
    evaluation = plan_for(sample("direct-on-line from a station"))
    rows = {str(row[0]).split(" ", 1)[0]: row for row in schedule("routes", evaluation).rows}
    motor = next(t for d, t in evaluation.get(NAMES).tag.items() if d.endswith(".M"))
    assert rows[motor][1:3] == (4, 1), "three phases and earth"
    station = next(d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "station")
    assert rows[evaluation.get(NAMES).tag[station.id]][1:3] == (4, 1), "stop, the link between, start, and earth"
    whole = schedule("tally", evaluation).rows
    assert sum(int(row[4] or 0) for row in whole) == sum(int(row[1] or 0) for row in rows.values())
    assert len(whole) == sum(not net.inner for net in evaluation.get(NETS).nets)
