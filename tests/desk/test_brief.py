"""The Brief at the window: answers, values of one's own, alternatives, lists, sources, practice, keys alone."""

import re
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QLabel, QPushButton, QWidget

from riktig.core.job import (
    Colours,
    Command,
    Job,
    LoadKind,
    Practice,
    Protection,
    Rulebook,
    SecondReading,
    Start,
    Wetting,
)
from riktig.core.keys import read_key
from riktig.core.rules import RULES, Group
from riktig.core.sizing import PROPOSAL
from riktig.core.views import Stamp, statuses
from riktig.demo_job import DEMOS, kelp_shed
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.brief import BriefStation
from riktig.desk.stations.brief.fields import Answer, ChoiceField
from tests.conftest import Doing
from tests.desk.conftest import Waiter, known, press, settle_window


@pytest.fixture(autouse=True)
def at_the_brief(window: MainWindow) -> None:
    window.go_to("Brief")
    settle_window()


@pytest.fixture
def house(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    path = tmp_path / "house.json"
    monkeypatch.setattr("riktig.desk.user_settings.settings_file", lambda: path)
    return path


@pytest.fixture
def brief(window: MainWindow) -> BriefStation:
    station = window.stations["Brief"]
    assert isinstance(station, BriefStation)
    return station


@pytest.fixture
def shed(session: Session, window: MainWindow, brief: BriefStation) -> BriefStation:
    session.evaluation = known(kelp_shed())  # derived once for all tests of this process
    session.follow(session.evaluation.document, (), session.shown_revision)
    settle_window()
    return brief


def button(within: QWidget, text: str) -> QPushButton:
    found = [b for b in within.findChildren(QPushButton) if b.isVisibleTo(within) and b.text().startswith(text)]
    assert found, f"{text} is there"
    return found[0]


def pick(within: QWidget, name: str) -> ChoiceField:
    return next(p for p in within.findChildren(ChoiceField) if p.accessibleName() == name and p.isVisibleTo(within))


def pick_anywhere(within: QWidget, name: str) -> ChoiceField:
    return next(p for p in within.findChildren(ChoiceField) if p.accessibleName() == name)


def choose(field: ChoiceField, value: object) -> None:
    at = next(n for n, (_, one) in enumerate(field.choices) if one == value)
    field.setCurrentIndex(at)
    field.activated.emit(at)
    settle_window()


def test_a_load_is_asked_for_in_one_sentence_and_the_next_follows(brief: BriefStation, session: Session) -> None:
    new = brief.new
    for name, power in (("rinse pump", "2.2 kW"), ("salt mill", "7.5 hp"), ("chain hoist", "6.3 A")):
        QTest.keyClicks(new.name, name)
        QTest.keyClicks(new.power, power)
        press(new.power, Qt.Key.Key_Return)
        assert new.name.text() == ""
    loads = session.job.loads[1:]
    assert [(x.kw, x.hp, x.nameplate_a) for x in loads] == [(2.2, None, None), (None, 7.5, None), (None, None, 6.3)]
    assert len(brief.loads) == 4


def test_what_does_not_turn_is_offered_as_such(brief: BriefStation, session: Session) -> None:
    choose(brief.new.kind, LoadKind.HEATER)
    assert (brief.new.phases.value, brief.new.start.value) == (1, Start.WAY)
    QTest.keyClicks(brief.new.name, "panel heater")
    QTest.keyClicks(brief.new.power, "150 W")
    press(brief.new.name, Qt.Key.Key_Return)
    assert session.job.loads[-1].kw == 0.15
    assert session.job.loads[-1].command is Command.ALWAYS


@pytest.mark.parametrize("power", ["", "0", "900 kW", "much"])
def test_a_new_load_that_cannot_be_is_said_and_nothing_is_added(
    brief: BriefStation, session: Session, said: list[tuple[str, bool]], power: str
) -> None:
    brief.new.name.setText("mill")
    brief.new.power.setText(power)
    brief.new.button.click()
    assert len(session.job.loads) == 1
    assert said[-1][1]
    assert brief.new.name.text() == "mill", "what was typed stays"


def test_a_value_shows_why_and_takes_one_of_ones_own(brief: BriefStation, session: Session) -> None:
    part = next(iter(brief.loads.values()))
    button(part, "Breaker").click()
    settle_window()
    assert session.selection == read_key("value:m1.breaker")
    chips = part.chips
    assert chips.amount is not None
    assert chips.reason is not None
    QTest.keyClicks(chips.amount, "20 A")
    button(chips, "Use mine").click()
    assert not session.job.overrides, "a reason is asked for"
    QTest.keyClicks(chips.reason, "the only size on the shelf")
    button(chips, "Use mine").click()
    settle_window()
    assert session.job.overrides[0].amount == 20
    assert "yours" in button(part, "Breaker").text()
    button(chips, "Back to Riktig's 13 A").click()
    settle_window()
    assert session.job.overrides == ()
    assert "yours" not in button(part, "Breaker").text()


def test_an_alternative_is_one_key_away(brief: BriefStation, session: Session) -> None:
    part = next(iter(brief.loads.values()))
    button(part, "More options").click()
    settle_window()
    assert button(part, "1  star-delta")
    name = next(a for a in part.findChildren(Answer) if a.accessibleName() == "Name of the wash drum")
    name.setFocus()
    press(name, Qt.Key.Key_1, Qt.KeyboardModifier.AltModifier)
    assert session.job.loads[0].start is Start.STAR_DELTA
    button(part, "4  a motor protector").click()
    assert session.job.loads[0].protection is Protection.PROTECTOR
    session.undo()
    session.undo()
    starts = [load.start for load in session.job.loads]
    assert starts[0] is Start.DIRECT


def test_the_control_supply_can_be_had_otherwise(shed: BriefStation, session: Session) -> None:
    button(shed.panel, "1  line and neutral").click()
    assert session.evaluation.get(PROPOSAL).control.kind.value == "line and neutral"


def test_each_answer_says_what_it_changed(brief: BriefStation, window: MainWindow, wait_until: Waiter) -> None:
    settle_window()
    field = next(a for a in brief.findChildren(Answer) if a.accessibleName() == "Power of the wash drum")
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "7.5 kW")
    press(field, Qt.Key.Key_Return)
    wait_until(lambda: any("13 A type D → 20 A type D" in one.text for one in window.effect.shown))
    link = next(one.link for one in window.effect.shown if "breaker" in one.text)
    assert link == read_key("value:m1.breaker")
    choose(pick(brief.practice, "Before a cut, measured again by"), SecondReading.SAME)
    wait_until(lambda: window.effect.shown == ())


class TestLists:
    TEXT = "Item\tRating\tArea\tType\tColour\nrinse pump\t2.2 kW\twash bay\tDOL\tred\nmill\t5,5 kW\tloft\tVFD\tblue\n"

    def test_a_pasted_list_shows_what_is_doubtful_and_is_taken_whole(
        self, brief: BriefStation, session: Session
    ) -> None:
        QApplication.clipboard().setText(self.TEXT)
        button(brief.new, "paste a list").click()
        settle_window()
        part = brief.new.list
        assert part is not None
        assert [c.heading for c in part.found.doubtful] == ["Item", "Rating", "Type", "Colour"]
        button(part, "Import 2 loads").click()
        assert [load.name for load in session.job.loads] == ["wash drum"], "a column that is not known stops it"
        meaning = next(p for p in part.findChildren(QComboBox) if p.accessibleName().endswith("Colour"))
        at = next(n for n in range(meaning.count()) if meaning.itemData(n) == "-")
        meaning.setCurrentIndex(at)
        meaning.activated.emit(at)
        button(part, "Import 2 loads").click()
        settle_window()
        assert [load.name for load in session.job.loads] == ["wash drum", "rinse pump", "mill"]
        assert session.job.loads[2].start is Start.DRIVE
        assert session.undo_name == "take in 2 loads from pasted list"
        assert brief.new.list is None

    def test_a_file_is_taken_in_and_a_bad_one_says_every_place(
        self, brief: BriefStation, session: Session, tmp_path: Path
    ) -> None:
        good = Path(__file__).parents[2] / "examples" / "loads.csv"
        brief.new.take_in(good)
        assert brief.new.list is not None
        button(brief.new.list, "Cancel").click()
        assert not brief.new.list
        bad = tmp_path / "bad.csv"
        bad.write_text("load,kw\nfan,0\n,4\n", encoding="utf-8")
        brief.new.take_in(bad)
        assert brief.new.list is not None
        button(brief.new.list, "Import 2 loads").click()
        shown = " ".join(label.text() for label in brief.new.findChildren(QWidget) if hasattr(label, "text"))
        assert "line 2, kw" in shown
        assert "line 3" in shown
        assert len(session.job.loads) == 1

    def test_an_empty_clipboard_is_said(self, brief: BriefStation, said: list[tuple[str, bool]]) -> None:
        QApplication.clipboard().clear()
        brief.new.paste()
        assert "nothing to paste" in said[-1][0]


def test_a_further_supply_is_named_and_taken_out(brief: BriefStation, session: Session) -> None:
    choose(pick(brief.sources, "Further supplies asked"), False)
    assert "second" in "".join(d.remedy for d in session.evaluation.get(PROPOSAL).issues)
    assert statuses(session.evaluation, ())[0].stamp is Stamp.BEGUN
    QTest.keyClicks(brief.sources.name, "fire alarm")
    QTest.keyClicks(brief.sources.volts, "24")
    press(brief.sources.volts, Qt.Key.Key_Return)
    assert [(s.name, s.voltage_v) for s in session.job.sources] == [("fire alarm", 24)]
    assert session.evaluation.get(PROPOSAL).issues == ()
    to_settle = {f.code for r in session.evaluation.get(RULES) for f in r.findings if r.group is Group.BRIEF}
    assert to_settle == {"B06"}, "nothing in the panel is on it yet"
    assert statuses(session.evaluation, ())[0].stamp is Stamp.BEGUN
    button(brief.sources, "Remove").click()
    assert session.job.sources == ()


def test_field_devices_are_listed_and_changed(brief: BriefStation, session: Session) -> None:
    QTest.keyClicks(brief.signals.name, "start float")
    press(brief.signals.name, Qt.Key.Key_Return)
    choose(pick(brief.signals, "Feed of start float"), Wetting.DC)
    choose(pick(brief.signals, "Load of start float"), session.job.loads[0].id)
    (signal,) = session.job.signals
    assert (signal.wetting, signal.load) == (Wetting.DC, "m1")
    button(brief.signals, "Remove").click()
    assert session.job.signals == ()


def test_the_houses_own_practice_is_kept_and_new_jobs_start_from_it(
    brief: BriefStation, window: MainWindow, session: Session, house: Path
) -> None:
    choose(pick(brief.practice, "Rulebook"), Rulebook.UL)
    button(brief.practice, "Save as company standard").click()
    assert house.exists()
    session.undo()
    assert session.job.practice == Practice()
    settle_window()
    button(brief.practice, "Use company standard").click()
    assert session.job.practice.rulebook is Rulebook.UL
    window.new_job("KS-0600", "another")
    assert session.job.practice.rulebook is Rulebook.UL


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_every_station_shows_each_demonstration(
    window: MainWindow, session: Session, said: list[tuple[str, bool]], name: str
) -> None:
    session.edit(name, Doing(lambda job: DEMOS[name]()))
    for station in window.stations:
        window.go_to(station)
        settle_window()
        assert window.current == station
    assert not [text for text, wrong in said if wrong]


def test_american_values_are_said_in_american_sizes(brief: BriefStation, session: Session) -> None:
    session.edit("the frost fan", Doing(lambda job: DEMOS["frost-fan"]()))
    settle_window()
    chips = [b.text() for part in brief.loads.values() for b in part.findChildren(QPushButton)]
    # By hand: 2.5 x 52 A = 130 A allows 150 A (NEC 430.52, 240.6(A), from memory); 100 A stand ahead of it.
    assert "Breaker  100 A inverse-time" in chips
    assert any(text.startswith("Panel conductors  4 AWG") for text in chips)
    assert not any("mm²" in text for text in chips)


def test_a_contradiction_stands_beside_its_load(shed: BriefStation, session: Session) -> None:
    part = shed.loads[session.job.loads[0].id]
    choose(pick(part, "Lines of the drying fan"), 1)
    texts = [label.text() for label in part.findChildren(QWidget) if hasattr(label, "text")]
    assert any("cannot be started star-delta" in text for text in texts)
    assert statuses(session.evaluation, ())[0].stamp is Stamp.FIX


def test_every_part_of_the_letter_can_be_reached_and_walked_by_key(shed: BriefStation, window: MainWindow) -> None:
    shed.jump("Loads")
    seen: list[str] = []
    for _ in range(30):
        widget = QApplication.focusWidget()
        assert widget is not None
        seen.append(widget.accessibleName() or widget.objectName())
        press(widget, Qt.Key.Key_Tab)
    order = [f"{what} of the drying fan" for what in ("Name", "Kind", "Power", "Place", "Lines", "Nameplate current")]
    assert [name for name in seen if name in order] == order
    assert "Name of the wash drum" in seen
    for name in ("Supply", "Field", "Box", "Panel", "Practice"):
        shed.jump(name)
        settle_window()
        widget = QApplication.focusWidget()
        assert widget is not None
        assert widget.visibleRegion().boundingRect().height() > 0, f"{name} is on the screen"


def test_a_finding_of_the_brief_leads_to_its_load(shed: BriefStation, window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    window.show_thing(read_key("load:m5"))
    settle_window()
    assert window.current == "Brief"
    assert session.selection == read_key("load:m5")
    texts = [label.text() for label in window.details.findChildren(QLabel)]
    assert "infeed belt" in texts
    part = shed.loads[session.job.loads[4].id]
    assert part.visibleRegion().boundingRect().height() > 0, "it is on the screen"


def test_enter_takes_a_new_name_and_goes_on_though_the_sentence_is_written_anew(
    brief: BriefStation, session: Session
) -> None:
    field = next(a for a in brief.findChildren(Answer) if a.accessibleName() == "Name of the wash drum")
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "rinse drum")
    press(field, Qt.Key.Key_Return)
    assert session.job.loads[0].name == "rinse drum"
    widget = QApplication.focusWidget()
    assert widget is not None
    assert widget.accessibleName() == "Kind of the rinse drum"
    kind = pick(brief, "Start of the rinse drum")
    kind.setFocus()
    choose(kind, Start.DRIVE)
    again = QApplication.focusWidget()
    assert again is not None
    assert again.accessibleName() == "Start of the rinse drum", "a choice keeps the place"


def test_the_panels_totals_stand_together_with_what_the_nameplate_says(shed: BriefStation) -> None:
    shed.jump("Panel")
    settle_window()
    chips = [b.text() for b in shed.panel.findChildren(QPushButton)]
    # By hand: motors 22 + 8.5 + 3.6 + 4.9 + 3.0 = 42 A; the sockets 10 A on L2; the control supply 0.3 A.
    for start in ("Full-load current  52.3 A", "Largest motor  11 kW, 22 A", "Lines  L1 47.2 A", "Heat  "):
        assert any(text.startswith(start) for text in chips), start
    assert any(text.startswith("Heat") and text.endswith("?") for text in chips), "decided by an unsure figure"
    plate = [label.text() for label in shed.panel.findChildren(QLabel) if "nameplate" in label.text()]
    assert "Largest motor 22 A" in plate[0]


def test_colours_of_the_house_are_asked_only_when_they_count(brief: BriefStation, session: Session) -> None:
    field = pick_anywhere(brief.practice, "Company colour of neutral")
    assert not field.isVisibleTo(brief)
    choose(pick(brief.practice, "Conductor colours"), Colours.HOUSE)
    assert field.isVisibleTo(brief)
    choose(field, "white")
    assert session.job.practice.house_colours[3] == "white"


def test_what_was_asked_about_one_kind_of_load_is_not_asked_about_another(brief: BriefStation) -> None:
    part = next(iter(brief.loads.values()))
    names = {field.accessibleName() for field in part.fields.values()}
    assert "Duty of the wash drum" in names
    assert "Line of the wash drum" not in names, "it has three lines"
    choose(pick(part, "Kind of the wash drum"), LoadKind.HEATER)
    settle_window()
    now = {field.accessibleName() for field in part.fields.values()}
    assert "Duty of the wash drum" not in now
    assert "Kind of the wash drum" in now


def test_the_kelp_shed_is_entered_from_an_empty_letter_by_keys_alone(
    brief: BriefStation, window: MainWindow, session: Session
) -> None:
    """Eight loads in one go, as a newcomer types them: about four keys' worth of answers a load."""
    window.new_job("KS-0700", "Kelp drying shed")
    settle_window()
    wanted: Job = kelp_shed()
    new = brief.new
    for load in wanted.loads:
        choose(new.kind, load.kind)
        QTest.keyClicks(new.name, load.name)
        QTest.keyClicks(new.power, load.power_name)
        QTest.keyClicks(new.place, load.place)
        QTest.keyClicks(new.cable, f"{load.cable_m:g}")
        choose(new.start, load.start)
        choose(new.command, load.command)
        press(new.cable, Qt.Key.Key_Return)
    made = [(x.name, x.output_kw, x.start, x.command, x.place, x.cable_m, x.phases) for x in session.job.loads]
    assert made == [(x.name, x.output_kw, x.start, x.command, x.place, x.cable_m, x.phases) for x in wanted.loads]


def test_every_field_for_a_number_says_from_where_to_where_it_is_accepted(window: MainWindow) -> None:
    """On hover and for a screen reader; and each refuses what is just beyond, with the same range in its message."""
    window.go_to("Brief")
    brief = window.stations["Brief"]
    assert isinstance(brief, BriefStation)
    for part in brief.loads.values():
        part.turn_more()
    settle_window()
    numbers = {
        name: field
        for field in brief.findChildren(Answer)
        if (name := field.accessibleName()) and re.fullmatch(r"[-\d.,]+( \w+)?", field.text()) and field.text() != "1"
    }
    assert len(numbers) > 20
    silent = [name for name, field in numbers.items() if not field.accessibleDescription()]
    # what is a name that may be made of digits, and the size and kind that are chosen from lists
    assert [name for name in silent if not name.startswith(("Serial", "Drawing", "Job", "When it is made"))] == []
    for field in numbers.values():
        assert field.accessibleDescription() in field.toolTip()


@pytest.mark.parametrize(
    ("name", "wrong", "words"),
    [
        ("Cable length of the wash drum", "5000", "0 to 2000 m, not 5000 m"),
        ("Nameplate current of the wash drum", "9999", "0.001 to 2000 A"),
        ("Service factor of the wash drum", "3", "1 to 2, not 3"),
        ("Voltage of the wash drum", "99999", "12 to 1000 V, not 99999 V"),
        ("Saw kerf", "40", "0 to 10 mm, not 40 mm"),
        ("Duct width", "5", "15 to 150 mm, not 5 mm"),
        ("Spare room", "150", "0 to 90 %, not 150 %"),
        ("Reserved numbers", "5000", "0 to 999 numbers, not 5000 numbers"),
        ("Room temperature", "300", "-30 to 70 °C, not 300 °C"),
    ],
)
def test_a_number_beyond_its_range_is_refused_with_the_range_and_the_field_is_marked(
    window: MainWindow, session: Session, said: list[tuple[str, bool]], name: str, wrong: str, words: str
) -> None:
    window.go_to("Brief")
    brief = window.stations["Brief"]
    assert isinstance(brief, BriefStation)
    for part in brief.loads.values():
        part.turn_more()
    settle_window()
    field = next(field for field in brief.findChildren(Answer) if field.accessibleName() == name and field.isVisible())
    before = session.job
    field.setText(wrong)
    field.setFocus()
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert session.job is before
    assert words in said[-1][0]
    assert field.property("wrong") is True
    assert words.partition(",")[0] in field.toolTip()
