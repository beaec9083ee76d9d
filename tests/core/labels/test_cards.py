"""Pin cards: every clamp with the number that lands on it; nothing over another; what is printed is remembered."""

from tests.core.schematic.builders import STOP, door_begun, one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.catalogue import Clamp, Side
from riktig.core.geometry import Text, bounds_of
from riktig.core.job import DeviceId, Insertable
from riktig.core.labels import CARDS, LABELS, Medium, draw_cards, print_entries, to_print_again
from riktig.core.records import Record
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Zone, insert_contact, with_names_recorded
from riktig.core.wiring import WIRING
from riktig.demo_job import kelp_shed


def test_the_card_of_a_contactor_says_what_lands_where() -> None:
    # By hand, from the sheet of the wash drum: coil A1 10, A2 N; hold contact 13 and 14; main poles 4 5 6.
    (card,) = [one for one in plan_for(one_motor()).get(CARDS) if one.tag == "K1"]
    said = {pin.marking: pin.number for pin in card.pins}
    assert (said["A1"], said["A2"], said["13"], said["14"]) == ("10", "N", "9", "10")
    assert (said["1"], said["3"], said["5"]) == ("4", "5", "6")
    assert said["21"] == "", "nothing lands there"
    assert [pin.marking for pin in card.at(Side.TOP)][:1] == ["1"] or card.at(Side.TOP)[0].across <= 0.5


def test_every_end_of_every_wire_on_a_device_is_on_a_card_with_its_number() -> None:
    evaluation = plan_for(kelp_shed())
    cards = {(card.device, pin.marking): pin.number for card in evaluation.get(CARDS) for pin in card.pins}
    strips = {d.id for d in evaluation.get(CIRCUITS).devices if d.strip}
    numbers = evaluation.get(NAMES).number
    for wire in some(evaluation.get(WIRING).wires):
        for end in (wire.start, wire.end):
            owner, marking = end.pin
            if owner not in strips:
                assert cards[DeviceId(owner), marking] == numbers[wire.net]
    for device in some(evaluation.get(CIRCUITS).devices):
        clamps = {pin.name for pin in device.kind.pins if pin.clamp is not Clamp.PLUG}
        landed = {pin.marking for net in evaluation.get(NETS).nets for pin in net.pins if pin.device == device.id}
        if not device.strip and device.zone is not Zone.FIELD and clamps & landed:
            assert {marking for owner, marking in cards if owner == device.id} == clamps


def test_no_text_of_a_card_stands_on_another_and_all_on_the_sheet() -> None:
    drawing = draw_cards(plan_for(kelp_shed()).get(CARDS))
    boxes = [bounds_of(mark) for mark in drawing.shapes if isinstance(mark, Text)]
    assert all(box.x >= 0 and box.right <= drawing.width and box.bottom <= drawing.height for box in boxes)
    boxes.sort(key=lambda box: box.y)
    for n, one in enumerate(boxes):
        for other in boxes[n + 1 :]:
            if other.y > one.bottom:
                break
            assert min(one.overlap(other)) < 0.25, (one, other)


def test_what_was_printed_and_has_changed_since_is_printed_again() -> None:
    job = door_begun(one_motor())
    labels = plan_for(job).get(LABELS)
    assert to_print_again(labels, Medium.WIRE, ()) == (), "nothing was printed yet, so nothing is out of date"
    entries = print_entries(labels, Medium.WIRE)
    records = [Record(str(n), one.subject, one.facts, "Ida", "t", 1) for n, one in enumerate(entries)]
    assert len({record.subject for record in records}) == len(labels.on(Medium.WIRE))
    assert to_print_again(labels, Medium.WIRE, records) == ()
    assert to_print_again(labels, Medium.DEVICE, records) == ()
    after = plan_for(with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, "second stop"))).get(LABELS)
    again = to_print_again(after, Medium.WIRE, records)
    # By hand: wire 13 from S1 to S3 and the new stretch of 9 from S2 to S3, both ends each.
    assert sorted(label.lines[0] for label in again) == ["13", "13", "9", "9"]
    more = [
        Record(f"b{n}", one.subject, one.facts, "Ida", "t", 2)
        for n, one in enumerate(print_entries(after, Medium.WIRE, again))
    ]
    assert len(more) == 4
    assert to_print_again(after, Medium.WIRE, [*records, *more]) == ()
