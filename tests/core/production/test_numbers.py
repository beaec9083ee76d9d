"""The list of numbers: none, part, complete; ends in the field; what no longer counts after an edit."""

from tests.core.schematic.builders import STOP, one_motor
from tests.shared_plan import plan_for

from riktig.core.geometry import Text, bounds_of
from riktig.core.job import Insertable, Job
from riktig.core.keys import NetKey
from riktig.core.production import (
    NumberState,
    NumberStatus,
    Operation,
    draw_numbers,
    field_facts,
    field_subject,
    number_states,
    operations,
    progress_of,
    tick_facts,
)
from riktig.core.records import Record, TakenBack
from riktig.core.schematic import CIRCUITS, CONDUCTOR_ENDS, NAMES, PinLabels, insert_contact, with_names_recorded
from riktig.core.wiring import WIRING, Wire
from riktig.demo_job import kelp_shed


def tick(wire: Wire, operation: Operation) -> Record:
    return Record(f"{wire.key}{operation}", wire.key, tick_facts(wire, operation), "Ida", "t", 1)


def states(job: Job, *records: Record) -> dict[str, NumberState]:
    evaluation = plan_for(job)
    found = number_states(
        evaluation.get(CONDUCTOR_ENDS), evaluation.get(NAMES), progress_of(evaluation.get(WIRING), records), records
    )
    return {state.number: state for state in found}


def test_a_number_is_none_part_or_complete() -> None:
    job = one_motor()
    wires = [w for w in plan_for(job).get(WIRING).wires if w.number == "9"]
    assert len(wires) == 2
    assert states(job)["9"].standing is NumberStatus.NONE
    assert states(job, tick(wires[0], Operation.CUT))["9"].standing is NumberStatus.PART
    one = [tick(wires[0], each) for each in operations()]
    assert states(job, *one)["9"].standing is NumberStatus.PART
    both = [tick(wire, each) for wire in wires for each in operations()]
    assert states(job, *both)["9"].standing is NumberStatus.COMPLETE
    assert states(job, *both)["10"].standing is NumberStatus.NONE


def test_an_end_in_the_field_is_ticked_and_taken_back_and_goes_stale() -> None:
    job = one_motor()
    state = states(job)["M1-U"]
    (end,) = state.field
    mark = Record("r1", field_subject(state.net, end.ends), field_facts("M1-U", end.ends), "Ida", "t", 1)
    assert states(job, mark)["M1-U"].field[0].done
    back = Record("r2", mark.subject, TakenBack(), "Ida", "t", 1, corrects="r1")
    assert states(job, mark, back)["M1-U"].field[0].done is None
    other = Record("r3", mark.subject, field_facts("M1-V", end.ends), "Ida", "t", 1)
    assert states(job, other)["M1-U"].field[0].done is None, "it was another number"


def test_an_edit_leaves_what_it_did_not_touch() -> None:
    job = one_motor()
    wires = plan_for(job).get(WIRING).wires
    done = [tick(wire, each) for wire in wires for each in operations()]
    after = states(with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, "second")), *done)
    assert after["1"].standing is NumberStatus.COMPLETE
    assert after["13"].standing is not NumberStatus.COMPLETE


def test_every_number_and_end_is_drawn_inside_the_page_and_none_on_another() -> None:
    job = kelp_shed()
    evaluation = plan_for(job)
    found = tuple(states(job).values())
    drawing = draw_numbers(found, PinLabels(evaluation.get(CIRCUITS), evaluation.get(NAMES)), NetKey(found[3].net))
    texts = [mark for mark in drawing.shapes if isinstance(mark, Text)]
    assert {state.number for state in found} <= {text.text for text in texts}
    shown = [text for text in texts if str(text.key).startswith("pin:")]
    assert len(shown) == sum(state.ends_of_number.ends for state in found)
    boxes = [bounds_of(text) for text in texts]
    assert all(box.x >= 0 and box.right <= drawing.width and box.bottom <= drawing.height for box in boxes)
    chips = [bounds_of(text) for text in shown]
    for n, one in enumerate(chips):
        assert not any(min(one.overlap(other)) > 0 for other in chips[n + 1 :])
    assert "No number" in str(draw_numbers((), str).shapes)
