"""Measured twice: which dimensions, when a gate opens, and what it says when it does not."""

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.door import DOOR, move_on_door
from riktig.core.evaluation import Evaluation
from riktig.core.exports import measured_record
from riktig.core.job import DeviceId, Job, Param, Practice, Recipe, SecondReading, ShaftFitting, set_box, set_practice
from riktig.core.production import CRITICALS, Critical, Gate, closed_for, judge, judged_all, measured_facts
from riktig.core.records import Record, TakenBack
from riktig.core.schematic import add_circuit, with_names_recorded

LINE = Critical("door:across:100", "across to DH1", "door", "from the datum", 100.0, 0.5, ("k1",))


def read(value: float, who: str = "Ida", n: int = 1, of: Critical = LINE, corrects: str = "") -> Record:
    facts = TakenBack() if corrects else measured_facts(of, value)
    return Record(f"{who}{n}", of.key, facts, who, f"2026-11-25T08:0{n}:00+00:00", 1, corrects)


def gate(*records: Record, second: SecondReading = SecondReading.ANOTHER) -> Gate:
    return judge(LINE, records, Practice(second_reading=second)).gate


def test_two_people_who_agree_open_the_gate() -> None:
    assert gate() is Gate.FIRST
    assert gate(read(100.1)) is Gate.SECOND
    assert gate(read(100.1), read(99.8, "Per", 2)) is Gate.OPEN


def test_the_same_person_twice_is_one_reading_unless_the_practice_allows_it() -> None:
    twice = (read(100.1), read(100.0, n=2))
    assert gate(*twice) is Gate.SECOND
    assert gate(*twice, second=SecondReading.SAME) is Gate.OPEN
    assert gate(read(100.1), second=SecondReading.NOBODY) is Gate.OPEN


def test_the_first_reading_is_kept_from_the_second_person() -> None:
    said = judge(LINE, [read(100.3)], Practice()).said
    assert "100.3" not in said
    assert "Ida" in said


def test_readings_that_disagree_say_by_how_much_and_a_third_settles_it() -> None:
    apart = [read(99.6), read(100.4, "Per", 2)]
    judged = judge(LINE, apart, Practice())
    assert judged.gate is Gate.DISAGREE
    assert "they disagree by 0.8 mm, 0.5 mm is allowed" in judged.said
    assert gate(*apart, read(100.2, n=3)) is Gate.OPEN, "Ida measured again and agrees with Per"


def test_a_reading_off_the_drawing_says_how_far_even_when_two_agree_on_it() -> None:
    judged = judge(LINE, [read(103.0), read(103.1, "Per", 2)], Practice())
    assert judged.gate is Gate.OFF
    assert "off by +3.0 mm" in judged.said


@pytest.mark.parametrize(
    ("value", "opens"), [(100.5, Gate.SECOND), (100.51, Gate.OFF), (99.5, Gate.SECOND), (99.49, Gate.OFF)]
)
def test_the_tolerance_counts_to_its_edge(value: float, opens: Gate) -> None:
    assert gate(read(value)) is opens


def test_a_correction_takes_a_reading_out_of_account_but_not_out_of_the_log() -> None:
    records = [read(103.0), read(0, n=9, corrects="Ida1"), read(100.0, n=2), read(100.0, "Per", 3)]
    assert gate(*records[:2]) is Gate.FIRST
    assert gate(*records) is Gate.OPEN


def test_a_reading_against_another_nominal_does_not_count() -> None:
    moved = Critical(LINE.key, LINE.name, LINE.face, LINE.how, 120.0, 0.5, LINE.guards)
    assert judge(moved, [read(100.0), read(100.0, "Per", 2)], Practice()).gate is Gate.FIRST


@pytest.fixture
def evaluation() -> Evaluation[Job]:
    return plan_for(one_motor())


class TestCriticals:
    def test_every_hole_of_the_door_stands_on_two_lines(self, evaluation: Evaluation[Job]) -> None:
        """By hand: lamps and buttons on x 115, 145, 175; y 230, 290, 350; the shaft at 82, 112.5; the bond at
        345, 545; the datums; the shaft's centre and its length.
        """
        found = {one.key: one for one in evaluation.get(CRITICALS)}
        lines = {key for key in found if key.startswith("door:")}
        across = {f"door:across:{x:g}" for x in (82, 115, 145, 175, 345)}
        down = {f"door:down:{y:g}" for y in (112.5, 230, 290, 350, 545)}
        assert lines == across | down
        assert found["door:down:230"].guards == ("device:c1.H.run#1", "device:c1.H.trip#1")
        assert {key for key in found if key.startswith("datum:")} == {
            f"datum:{what}:{way}" for what in ("plate", "door") for way in ("across", "down")
        }
        assert found["datum:plate:across"].nominal == 25.0
        assert found["datum:plate:across"].guards == ("device:c0.Q#1",), "the shaft's centre is carried through it"
        assert found["shaft:c0.Q:length"].nominal == 129.5

    def test_a_hole_opens_when_both_its_lines_do(self, evaluation: Evaluation[Job]) -> None:
        found = {one.key: one for one in evaluation.get(CRITICALS)}
        both = [found["door:across:145"], found["door:down:290"]]
        records: list[Record] = []
        for n, one in enumerate(both):
            judged = judged_all(evaluation.get(CRITICALS), records, Practice())
            assert len(closed_for("device:c1.S.start#1", judged)) == 2 - n
            records += [read(one.nominal, "Ida", 2 * n, one), read(one.nominal + 0.2, "Per", 2 * n + 1, one)]
        judged = judged_all(evaluation.get(CRITICALS), records, Practice())
        assert closed_for("device:c1.S.start#1", judged) == ()
        assert closed_for("device:c1.S.stop#1", judged), "its own row is not measured yet"

    def test_a_moved_operator_is_measured_anew(self, evaluation: Evaluation[Job]) -> None:
        job, door = evaluation.document, evaluation.get(DOOR)
        one = next(c for c in evaluation.get(CRITICALS) if c.key == "door:down:290")
        records = [read(290, "Ida", 1, one), read(290, "Per", 2, one)]
        seat = door.seat(DeviceId("c1.S.start"))
        assert seat is not None
        after = plan_for(move_on_door(job, door, [seat.at(seat.x, 300.0)]))
        judged = judged_all(after.get(CRITICALS), records, Practice())
        assert any(c.critical.nominal == 300.0 for c in closed_for("device:c1.S.start#1", judged))

    def test_on_site_the_measured_centre_alone_opens_the_shaft_hole_wherever_the_wall_has_moved_it(self) -> None:
        job = set_practice(one_motor(), shaft=ShaftFitting.SITE)
        criticals = plan_for(job).get(CRITICALS)
        mine = [one for one in criticals if "device:c0.Q#1" in one.guards]
        assert [one.key for one in mine] == ["shaft:c0.Q:across", "shaft:c0.Q:down"]
        # The wall has moved the centre by 6 mm: in the workshop that is off the drawing, on site it is where it is.
        records = [read(one.nominal + 6.0, who, n, one) for one in mine for n, who in enumerate(("Ida", "Per"))]
        judged = judged_all(criticals, records, job.practice)
        assert closed_for("device:c0.Q#1", judged) == ()
        shop = judged_all(plan_for(one_motor()).get(CRITICALS), records, Practice())
        assert Gate.OFF in {one.gate for one in closed_for("device:c0.Q#1", shop)}

    def test_long_pieces_are_measured_and_short_ones_are_not(self) -> None:
        keys = {c.key for c in plan_for(set_practice(one_motor(), long_piece=500.0)).get(CRITICALS)}
        # By hand: the uprights and their lids are 502 long, all else 270 and less.
        assert {key for key in keys if key.startswith("piece:")} == {
            f"piece:{d}{lid}" for d in ("D1", "D2") for lid in ("", " lid")
        }

    def test_a_cut_out_is_held_by_its_diagonals(self) -> None:
        job = with_names_recorded(
            add_circuit(
                set_box(one_motor(), 500.0, 600.0, 250.0), Recipe.SCREEN, "door screen", (Param("door lamp", "fault"),)
            )
        )
        criticals = plan_for(job).get(CRITICALS)
        diagonals = [c for c in criticals if ":diagonal" in c.key]
        assert [c.nominal for c in diagonals] == [233.2, 233.2]
        skewed = [
            read(d.nominal + by, who, n, d)
            for d, by in zip(diagonals, (0.4, -0.4), strict=True)
            for n, who in enumerate(("Ida", "Per"))
        ]
        judged = {j.critical.key: j for j in judged_all(criticals, skewed, Practice())}
        for one in diagonals:
            assert judged[one.key].gate is Gate.DISAGREE
            assert "differ by 0.8 mm: the cut-out is out of square" in judged[one.key].said
        square = [read(d.nominal + 0.2, who, n, d) for d in diagonals for n, who in enumerate(("Ida", "Per"))]
        judged = {j.critical.key: j for j in judged_all(criticals, square, Practice())}
        assert {judged[d.key].gate for d in diagonals} == {Gate.OPEN}

    def test_the_record_shows_every_reading_ever_taken(self, evaluation: Evaluation[Job]) -> None:
        one = next(c for c in evaluation.get(CRITICALS) if c.key == "door:down:290")
        records = [
            read(291.5, "Ida", 1, one),
            read(0, "Ida", 2, one, corrects="Ida1"),
            read(290, "Ida", 3, one),
            read(289.9, "Per", 4, one),
        ]
        rows = [row for row in measured_record(evaluation, records).rows if row[2]]
        assert [(row[2], row[3], row[5]) for row in rows] == [
            ("291.5", "Ida", "taken back"),
            ("290", "Ida", ""),
            ("289.9", "Per", "open"),
        ]
