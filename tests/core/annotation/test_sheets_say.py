"""What the sheets say beside the circuits, against the parts, the wires and the cables as they are."""

import re
from dataclasses import replace
from functools import cache
from pathlib import Path

import pytest
from pypdf import PdfReader

from riktig.core.annotation import SHEET_DRAWINGS, pin_conductors
from riktig.core.catalogue import Behaviour, Can
from riktig.core.evaluation import Evaluation
from riktig.core.exports import write_station_papers
from riktig.core.geometry import Drawing, Text
from riktig.core.job import (
    Command,
    ControlTap,
    DeviceId,
    Job,
    PinRef,
    Rulebook,
    Start,
    add_load,
    new_job,
    override,
    pick_part,
    set_practice,
    set_supply,
)
from riktig.core.keys import NetKey, PlaceKey
from riktig.core.schematic import (
    CIRCUITS,
    LOADS,
    NAMES,
    NETS,
    SHEETS,
    NetClass,
    Sheet,
    SheetKind,
    ends_of,
    with_names_recorded,
    without_title_block,
)
from riktig.core.simulation import ContactStage, OperatorState, is_closed
from riktig.core.sizing import SIZING
from riktig.core.standards import conductor_name
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job
from tests.core.schematic.builders import one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import some, times
from tests.shared_plan import plan_for

JOBS = ["kelp-shed", "frost-fan", *list(SAMPLES)[:: times(6, 1)]]
USUAL = re.compile(r"Lines without a size: (.+)|Lines without a colour: (.+); without a size")


@cache
def evaluated(name: str) -> Evaluation[Job]:
    return plan_for(demo_job(name) if name in DEMOS else with_names_recorded(sample(name)))


def texts_of(drawing: Drawing) -> list[Text]:
    return [mark for mark in drawing.shapes if isinstance(mark, Text)]


def read_sheets(evaluation: Evaluation[Job]) -> list[tuple[Sheet, list[Text]]]:
    """Every sheet with circuits on it, with its texts."""
    pairs = zip(evaluation.get(SHEETS).sheets, evaluation.get(SHEET_DRAWINGS), strict=True)
    return [(sheet, texts_of(drawing)) for sheet, drawing in pairs if sheet.seats]


def all_texts(job: Job) -> list[str]:
    return [text.text for _, texts in read_sheets(plan_for(job)) for text in texts]


@pytest.mark.parametrize("name", JOBS)
def test_every_line_has_the_conductor_of_its_wires(name: str) -> None:
    """At the line, as the usual one of its sheet, or in the list beside that."""
    evaluation = evaluated(name)
    devices, nets, numbers = evaluation.get(CIRCUITS).by_id, evaluation.get(NETS), evaluation.get(NAMES).number
    landed: dict[PinRef, set[tuple[str, str]]] = {}
    for wire in evaluation.get(WIRING).wires:
        for end in (wire.start, wire.end):
            landed.setdefault(end.pin, set()).add((conductor_name(wire.mm2), wire.colour))
    looked_at = 0
    single = False
    for sheet, texts in read_sheets(evaluation):
        usual = next((found[1] or found[2] for t in texts if (found := USUAL.match(t.text))), "")
        for seat in sheet.seats:
            ends = ends_of(seat, devices)
            if len(ends) > 1:
                continue
            single = True
            for pin in ends[0][2:]:
                net = nets.of_pin.get(pin)
                if pin not in landed or net is None or net.net_class is NetClass.EARTH:
                    continue
                looked_at += 1
                sizes = {size for size, _ in landed[pin]}
                if {f"{size} {colour}" for size, colour in landed[pin]} == {usual}:
                    continue
                at_line = [text.text for text in texts if text.key == NetKey(net.id)]
                in_list = [text.text for text in texts if text.text.startswith(f"{numbers.get(net.id)}: ")]
                assert any(size.split()[0] in words for size in sizes for words in at_line + in_list), (pin, sizes)
    assert looked_at or not single or name.startswith("three-phase way"), "only the terminals of ways stand alone"


@pytest.mark.parametrize("name", JOBS)
def test_every_line_of_a_power_path_has_its_size_at_it_or_above_it(name: str) -> None:
    evaluation = evaluated(name)
    devices = evaluation.get(CIRCUITS).by_id
    thickest: dict[PinRef, float] = {}
    for wire in evaluation.get(WIRING).wires:
        for end in (wire.start, wire.end):
            thickest[end.pin] = max(thickest.get(end.pin, 0.0), wire.mm2)
    for sheet, texts in read_sheets(evaluation):
        if not sheet.bus:
            continue
        for seat in sheet.seats:
            ends = ends_of(seat, devices)
            pins = [pair[2] for pair in ends]
            if len(ends) < 2 or not all(pin in thickest for pin in pins) or len({thickest[p] for p in pins}) > 1:
                continue
            words = f"{len(pins)} × {conductor_name(thickest[pins[0]])}"
            assert any(text.text.replace("\n", " ").startswith(words[:9]) or words in text.text for text in texts), (
                words
            )


@pytest.mark.parametrize("name", JOBS)
def test_every_protective_device_says_its_rating(name: str) -> None:
    evaluation = evaluated(name)
    parts = evaluation.get(SIZING).parts
    devices = evaluation.get(CIRCUITS).by_id
    looked_at = 0
    for sheet, texts in read_sheets(evaluation):
        words = " ".join(text.text for text in texts)
        for seat in sheet.seats:
            device = devices[seat.element.device]
            unit = device.kind.unit(seat.element.poles[0].unit)
            if unit.behaviour is not Behaviour.POLE or not parts[device.id].rated_a or unit.symbol == "link":
                continue
            looked_at += 1
            part = parts[device.id]
            rating = part.max_a if device.kind.can(Can.SET_TO_MOTOR) else part.rated_a
            assert re.search(rf"\b{rating:g} A\b", words), (device.id, rating)
    assert looked_at


def test_the_wash_drum_reads_as_its_plate_and_its_lists_say() -> None:
    """By hand: 4 kW at 400 V takes 8.5 A (IEC 60947-4-1 annex, from memory), behind 13 A of type D."""
    texts = all_texts(demo_job("wash-drum"))
    assert "4 kW, 8.5 A" in texts
    assert {"13 A D", "9 A AC-3", "7 to 10 A", "set 8.5 A", "25 A"} <= set(texts)
    assert "WM1 4 G 1.5 mm², 14 m" in texts
    assert {"400/230 V 50 Hz", "3/N/PE"} <= set(texts)


def test_a_setting_and_a_part_of_the_builder_show() -> None:
    job = one_motor()
    mine = pick_part(override(job, "m1.setting", 8.1, "nameplate"), DeviceId("c1.F"), "MB3-16D")
    texts = all_texts(mine)
    assert "set 8.1 A" in texts
    assert "16 A D" in texts
    assert "13 A D" not in texts


def test_a_transformer_says_both_voltages_and_its_size_and_the_rails_theirs() -> None:
    texts = all_texts(demo_job("kelp-shed"))
    assert "400 / 230 V, 100 VA" in texts
    assert {"230 V AC", "24 V DC", "0 V"} <= set(texts)


def test_every_cable_to_the_field_is_named_with_its_make_up() -> None:
    evaluation = evaluated("kelp-shed")
    words = " ".join(text.text for _, texts in read_sheets(evaluation) for text in texts)
    shown = {d.device for sheet in evaluation.get(SHEETS).sheets for d, _, _ in sheet.landings}
    shown |= {seat.element.device for sheet in evaluation.get(SHEETS).sheets for seat in sheet.seats}
    cables = [cable for cable in evaluation.get(STRIPS).cables if cable.cores and cable.device in shown]
    for cable in some(cables):
        assert re.search(rf"\b{cable.tag}\b", words), cable.tag


@pytest.mark.parametrize(("command", "turned"), [(Command.SELECTOR, 1), (Command.LEVEL, 2)])
def test_a_contact_that_is_turned_says_where_it_is_closed(command: Command, turned: int) -> None:
    """Against the simulation, which turns the selector to each of its positions."""
    job = with_names_recorded(add_load(new_job("T-2", "t"), "rinse pump", 2.2, command=command))
    evaluation = plan_for(job)
    devices = evaluation.get(CIRCUITS).by_id
    looked_at = 0
    for sheet, texts in read_sheets(evaluation):
        for seat in sheet.seats:
            device = devices[seat.element.device]
            unit = device.kind.unit(seat.element.poles[0].unit)
            if not device.kind.can(Can.TURNED):
                continue
            closed = []
            for position in device.kind.positions:
                state = OperatorState(position={device.id: position})
                if is_closed(state, device, unit, ContactStage.OUT, powered=False):
                    closed.append(position)
            looked_at += 1
            own = " ".join(text.text for text in texts if str(text.key) == f"element:{seat.element.id}")
            assert f"closed in {' and '.join(closed)}" in own
    assert looked_at == turned


@pytest.mark.parametrize("name", JOBS)
def test_every_load_says_its_power_on_the_sheet_that_it_stands_on(name: str) -> None:
    """Motors and boxes at the end of a path too, which are no elements of it."""
    evaluation = evaluated(name)
    job, devices = evaluation.document, evaluation.get(CIRCUITS).by_id
    powers = {circuit.id: load.power_name for circuit in job.circuits for load in job.loads if circuit.load == load.id}
    for sheet, texts in read_sheets(evaluation):
        stands = {landing.device for landing, _, _ in sheet.landings}
        stands |= {seat.element.device for seat in sheet.seats}
        for did in stands if sheet.bus else ():
            device = devices[did]
            if device.role in LOADS and device.circuit in powers:
                assert any(powers[device.circuit] in text.text for text in texts), (sheet.title, did)


@pytest.mark.parametrize("name", ["kelp-shed", "wash-drum", "direct-on-line by a protector", "both ways"])
def test_a_device_without_a_coil_names_its_other_places_on_each_of_its_sheets(name: str) -> None:
    evaluation = plan_for(demo_job(name)) if name in DEMOS else evaluated(name)
    devices, sheets = evaluation.get(CIRCUITS).by_id, evaluation.get(SHEETS)
    places: dict[DeviceId, dict[int, set[str]]] = {}
    for sheet in sheets.sheets:
        for seat in sheet.seats:
            kind = devices[seat.element.device].kind
            if kind.can(Can.OVERLOAD) or kind.can(Can.SET_TO_MOTOR):
                place = str(sheets.places[seat.element.id])
                places.setdefault(seat.element.device, {}).setdefault(sheet.number, set()).add(place)
    named = {
        sheet.number: {str(text.key) for text in texts if isinstance(text.key, PlaceKey)}
        for sheet, texts in read_sheets(evaluation)
    }
    for by_sheet in some(places.values()):
        assert len(by_sheet) > 1, "its poles on one sheet, its contacts on another"
        for number in by_sheet:
            others = {str(PlaceKey(place)) for n, own in by_sheet.items() if n != number for place in own}
            assert others <= named[number]


def test_a_pin_that_no_wire_reaches_is_not_taken_for_the_usual_conductor() -> None:
    wiring = evaluated("kelp-shed").get(WIRING)
    pin = PinRef(DeviceId("c2.K"), "13")
    reached = pin_conductors(wiring)
    assert reached[pin].size.endswith("mm²")
    none_there = replace(wiring, wires=(), unrouted=(pin,))
    assert pin_conductors(none_there)[pin].text == "no way found"


def test_parts_of_the_north_american_rulebook_speak_in_its_sizes() -> None:
    job = set_practice(new_job("T-3", "t"), rulebook=Rulebook.UL)
    texts = " ".join(all_texts(with_names_recorded(add_load(job, "lift", hp=5.0, start=Start.SOFT))))
    assert "AWG" in texts
    assert "5 hp" in texts
    assert "mm²" not in texts


def test_sheets_are_drawn_where_nothing_has_room_for_all_that_is_said() -> None:
    """At 1 V three small motors take hundreds of amperes: the longest ratings, beside a transformer tapped ahead."""
    job = new_job("T-4", "t")
    for n in range(3):
        job = add_load(job, f"fan {n}", 1.0, run_lamp=False, trip_lamp=False)
    job = set_supply(job, voltage_v=1.0, voltage_to_neutral_v=1.0, neutral=False, frequency_hz=1.0, upstream_a=1.0)
    job = with_names_recorded(set_practice(job, control_tap=ControlTap.BEFORE))
    assert all_texts(job)


@pytest.mark.parametrize("name", JOBS)
def test_every_bond_of_the_earth_tree_has_the_size_of_its_wire(name: str) -> None:
    """Counted from the wires themselves: as many of each size on the tree as wires land on the bonded points."""
    evaluation = evaluated(name)
    points = set(evaluation.get(CIRCUITS).earths)
    at_point: dict[PinRef, set[float]] = {}
    for wire in evaluation.get(WIRING).wires:
        for end in (wire.start, wire.end):
            if end.pin in points:
                at_point.setdefault(end.pin, set()).add(wire.mm2)
    expected = sorted(" / ".join(conductor_name(mm2) for mm2 in sorted(s, reverse=True)) for s in at_point.values())
    sheets = zip(evaluation.get(SHEETS).sheets, evaluation.get(SHEET_DRAWINGS), strict=True)
    texts = [text.text for sheet, drawing in sheets if sheet.kind is SheetKind.EARTH for text in texts_of(drawing)]
    sizes = {conductor_name(wire.mm2) for wire in evaluation.get(WIRING).wires}
    assert expected
    assert sorted(text for text in texts if set(text.split(" / ")) <= sizes) == expected


def test_a_page_of_the_set_has_one_title_block(tmp_path: Path) -> None:
    evaluation = evaluated("kelp-shed")
    path = tmp_path / "sheets.pdf"
    write_station_papers(evaluation, (), "Circuits", path)
    pages = [page.extract_text() for page in PdfReader(path).pages]
    assert len(pages) > 10
    assert all("Revision, sheet" not in text for text in pages), "that of the sheet itself is left out"
    assert all("Page" in text and "Drawn" in text for text in pages)
    sheet = evaluation.get(SHEET_DRAWINGS)[0]
    bare = without_title_block(sheet)
    assert {mark.layer for mark in sheet.shapes} - {mark.layer for mark in bare.shapes} == {"title"}
    assert bare.height < sheet.height
    assert without_title_block(bare) is bare
