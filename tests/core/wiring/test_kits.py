"""What is made ready away from the plate: looms, neutrals in one piece, network cables, drums."""

from collections import Counter
from dataclasses import replace
from itertools import pairwise

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.exports import kit_cards, schedule
from riktig.core.geometry import Text
from riktig.core.ids import CircuitId
from riktig.core.job import Circuit, Colours, Job, LoadKind, Param, Purchase, Recipe, add_load, set_practice
from riktig.core.schematic import CIRCUITS, NETS, with_names_recorded
from riktig.core.standards import conductor_current
from riktig.core.wiring import WIRING, WiringStage, drums_of, looms_of, neutral_kits
from riktig.core.wiring.network_cables import CORD_LENGTHS
from riktig.demo_job import frost_fan, kelp_shed


@pytest.fixture(scope="module")
def shed() -> Evaluation[Job]:
    return plan_for(kelp_shed())


@pytest.fixture(scope="module")
def larger() -> Evaluation[Job]:
    """The shed with six more circuits of lights and a network of three devices in the field."""
    job = kelp_shed()
    lights = next(load for load in job.loads if load.kind is LoadKind.LIGHTING)
    for n in range(6):
        job = add_load(job, f"lights {n}", 1.0)
        job = replace(job, loads=(*job.loads[:-1], replace(lights, id=job.loads[-1].id, name=f"lights {n}")))
    chain = Circuit(CircuitId("c90"), Recipe.NETWORK, title="network", params=(Param("devices", "3"),))
    return plan_for(with_names_recorded(replace(job, circuits=(*job.circuits, chain))))


def test_every_wire_over_the_hinge_is_in_the_loom_once_and_none_else(shed: Evaluation[Job]) -> None:
    wiring, devices, door = shed.get(WIRING), shed.get(CIRCUITS).by_id, shed.get(DOOR)
    (loom,) = looms_of(wiring, devices, door, shed.document.practice)
    zone = {device.id: device.zone.value for device in devices.values()}
    sides = {wire.key: [zone[end.pin.device] for end in (wire.start, wire.end)] for wire in wiring.wires}
    over = {key for key, ends in sides.items() if ends.count("door") == 1}
    assert {item.wire.key for item in loom.over} == over
    assert len(loom.over) == len(over) > 20
    assert {wire.key for wire in loom.links} == {key for key, ends in sides.items() if ends.count("door") == 2}
    assert sum(item.bonds for item in loom.over) == 1, "the strap of the door"
    assert [item.along for item in loom.over] == sorted(item.along for item in loom.over)


def test_what_runs_past_the_hinge_is_the_way_over_the_door_and_an_end(shed: Evaluation[Job]) -> None:
    """From the door itself: across to the operator and up or down to it; the rest lies on the plate and in the loop."""
    door, practice = shed.get(DOOR), shed.document.practice
    (loom,) = looms_of(shed.get(WIRING), shed.get(CIRCUITS).by_id, door, practice)
    middle = door.leaves[0].face.y + door.leaves[0].face.height / 2
    for item in loom.over:
        seat = door.seat(item.door_end.pin.device)
        if seat is None:
            continue
        across, up = abs(seat.x - loom.leaf.hinge_x), abs(seat.y - middle)
        assert item.beyond == pytest.approx(across + up + practice.end_allowance)
        rest = item.wire.length - item.beyond
        assert rest >= practice.door_loop + practice.end_allowance - 1e-6, item.wire.name


def test_few_neutrals_are_no_kit_many_along_one_way_are(shed: Evaluation[Job], larger: Evaluation[Job]) -> None:
    assert neutral_kits(shed.get(WIRING), shed.get(CIRCUITS).by_id, shed.get(NETS)) == ()
    wiring, devices = larger.get(WIRING), larger.get(CIRCUITS).by_id
    kits = neutral_kits(wiring, devices, larger.get(NETS))
    assert kits
    keys = [tail.wire.key for kit in kits for tail in kit.tails]
    assert len(keys) == len(set(keys)), "a neutral is in one kit"
    for kit in kits:
        assert devices[kit.bar].kind.can(Can.NEUTRAL_BAR)
        assert len(kit.tails) >= 3
        assert kit.metres < kit.metres_apart
        assert max(tail.along for tail in kit.tails) == kit.trunk
        for tail in kit.tails:
            assert kit.bar in (tail.wire.start.pin.device, tail.wire.end.pin.device)
            assert tail.along + tail.length == pytest.approx(tail.wire.length)
            assert tail.length > 0


def test_a_trunk_carries_what_its_tails_carry_or_is_as_thick_as_the_feed(larger: Evaluation[Job]) -> None:
    """IEC 60204-1 Table 6, from memory: the currents of all tails added."""
    wiring = larger.get(WIRING)
    kits = neutral_kits(wiring, larger.get(CIRCUITS).by_id, larger.get(NETS))
    assert kits
    for kit in kits:
        feed = max(wire.mm2 for wire in wiring.on_device[kit.bar])
        needed = sum(conductor_current(tail.wire.mm2).value for tail in kit.tails)
        assert kit.mm2 == feed or conductor_current(kit.mm2).value >= needed
        assert kit.mm2 <= feed


def test_a_network_is_a_chain_of_ready_made_cables_inside_and_measured_ones_outside(larger: Evaluation[Job]) -> None:
    cables = larger.get(WIRING).network
    assert [cable.inside for cable in cables] == [True, False, False, False]
    inner = cables[0]
    assert inner.route is not None
    assert inner.length in CORD_LENGTHS
    assert inner.length >= inner.route.length
    field = cables[1:]
    assert all(a.end.device == b.start.device for a, b in pairwise(field)), "one thing after the other"
    rows = {str(row["description"]): row for row in schedule("bom", larger).as_dicts()}
    assert rows[f"network cable, ready made, {inner.length / 1000:g} m"]["quantity"] == 1
    assert rows["network cable to the field, length by measure"]["quantity"] == 3
    listed = schedule("network", larger).as_dicts()
    assert len(listed) == 4
    assert listed[0]["cable_mm"] == inner.length
    ports = Counter(port for row in listed for port in (row["from"], row["to"]))
    assert set(ports.values()) == {1}, "a port takes one cable"


def test_without_a_network_there_is_none(shed: Evaluation[Job]) -> None:
    assert shed.get(WIRING).network == ()
    assert schedule("network", shed).rows == ()
    assert not [row for row in schedule("bom", shed).rows if "network cable" in str(row[1])]


def test_drums_add_up_to_the_wires_and_their_spare_to_the_practice(shed: Evaluation[Job]) -> None:
    wiring, practice = shed.get(WIRING), shed.document.practice
    drums = drums_of(wiring.wires, wiring.batches)
    assert sum(drum.wires for drum in drums) == len(wiring.wires)
    assert sum(drum.cut for drum in drums) == pytest.approx(sum(wire.cut for wire in wiring.wires))
    assert sum(drum.trimmed for drum in drums) == pytest.approx(sum(batch.waste for batch in wiring.batches))
    rows = schedule("drums", shed).as_dicts()
    bom = {str(row["description"]): row["quantity"] for row in schedule("bom", shed).as_dicts()}
    for row in rows:
        assert row["cut_m"] == pytest.approx(bom[str(row["conductor"])], abs=0.01), "the same as on the parts list"
        assert row["with_spare_m"] == pytest.approx(float(str(row["cut_m"])) * (1 + practice.wire_spare), abs=0.02)


def test_a_wire_is_cut_from_an_end_only_where_one_of_an_earlier_batch_is_long_enough(shed: Evaluation[Job]) -> None:
    """Played out here by hand: the ends are on the floor, and each may be picked up once."""
    wiring = shed.get(WIRING)
    drums = drums_of(wiring.wires, wiring.batches)
    assert sum(drum.again for drum in drums) > 0
    for drum in drums:
        own = [batch for batch in wiring.batches if (batch.mm2, batch.colour) == (drum.mm2, drum.colour)]
        floor: list[float] = []
        used = 0
        for batch in own:
            wires = [wire for key in batch.wires if (wire := wiring.by_key[key])]
            fresh = []
            for wire in wires:
                fitting = min((end for end in floor if end >= wire.length), default=None)
                if fitting is None:
                    fresh.append(wire.cut - wire.length)
                    continue
                floor.remove(fitting)
                floor.append(fitting - wire.length)
                used += 1
            floor += fresh
        assert used == drum.again
        assert drum.saved <= drum.cut


def test_the_shelf_of_the_purchasing_table_says_what_is_short(shed: Evaluation[Job]) -> None:
    first = schedule("drums", shed).as_dicts()[0]
    name, wanted = str(first["conductor"]), float(str(first["with_spare_m"]))
    stocked = plan_for(replace(shed.document, purchases=(Purchase(item=name, stock=1.0),)))
    row = schedule("drums", stocked).as_dicts()[0]
    assert row["stock_m"] == 1.0
    assert row["short_m"] == pytest.approx(wanted - 1.0)
    assert first["stock_m"] == first["short_m"] == "", "without a table nothing is said of the shelf"


def test_the_cards_name_every_wire_and_fit_their_sheet(larger: Evaluation[Job]) -> None:
    cards = kit_cards(larger)
    texts = [mark.text for card in cards for mark in card.shapes if isinstance(mark, Text)]
    loom = [row for row in schedule("loom", larger).as_dicts() if row["part"] == "over the hinge"]
    assert len(loom) > 20
    for row in loom:
        assert row["number"] in texts
        assert row["door_end"] in texts
        assert f"{float(str(row['cut_mm'])):g}" in texts
    titles = [card.title for card in cards]
    assert {"Loom of the door", "Cables of the network"} <= set(titles)
    assert any(title.startswith("Neutrals of") for title in titles)
    for card in cards:
        assert card.width == 186.0, "as wide as both A4 and Letter have room for"
        assert card.height <= 238.0
        small = [m.text for m in card.shapes if isinstance(m, Text) and m.size < 2.5 and m.text != "measured on site"]
        assert small == [], "read at the bench"


def test_the_first_cable_of_a_network_has_a_gland_the_next_run_outside(larger: Evaluation[Job]) -> None:
    cables = [row for row in schedule("cables", larger).as_dicts() if row["make_up"] == "network cable"]
    assert len(cables) == 3
    assert [bool(row["fitting"]) for row in cables] == [True, False, False]
    assert cables[0]["hole"], "and a hole"
    outside = {str(row["to"]).split()[0] for row in cables[1:]}
    assert not outside & {str(row["to"]).split()[0] for row in schedule("routes", larger).as_dicts()}


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["kelp shed", "frost fan"])
def test_the_legend_of_colours_has_every_colour_of_the_wires_and_only_earth_is_green_yellow(job: Job) -> None:
    evaluation = plan_for(job)
    wires = evaluation.get(WIRING).wires
    rows = schedule("colours", evaluation).as_dicts()
    assert {row["colour"]: row["wires"] for row in rows} == Counter(wire.colour for wire in wires)
    means = {str(row["colour"]): str(row["means"]) for row in rows}
    earth = "green-yellow" if "green-yellow" in means else "green"
    assert means[earth] == "protective conductor"
    assert "protective conductor" not in "".join(text for colour, text in means.items() if colour != earth)
    live = {wire.colour for wire in wires if wire.stage is WiringStage.EXCEPTED}
    for colour in live:
        assert "LIVE WITH THE MAIN SWITCH OFF" in means[colour] or "neutral" in means[colour]


def test_a_colour_of_the_house_is_on_the_legend(shed: Evaluation[Job]) -> None:
    house = ("brown", "black", "grey", "light blue", "violet", "white")
    changed = set_practice(shed.document, colours=Colours.HOUSE, house_colours=house)
    means = {str(row["colour"]): str(row["means"]) for row in schedule("colours", plan_for(changed)).as_dicts()}
    assert "control, alternating" in means["violet"]
    assert "power, L1" in means["brown"]
