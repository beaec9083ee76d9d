"""Small widgets: text that flows, answers that are taken or not, tables that select."""

from collections.abc import Callable
from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QHBoxLayout, QLabel, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from riktig.core.exports import Schedule
from riktig.desk.stations.brief.fields import Answer, ChoiceField, sentence
from riktig.desk.widgets import FlowLayout, ScheduleTable, TabOrder, first_field, replace_body
from tests.desk.conftest import press, settle_window


def test_tab_goes_through_a_page_as_it_is_seen_whatever_was_made_first(app: QApplication) -> None:
    page = QWidget()
    last, first, middle = (QLineEdit(page) for _ in range(3))
    layout = QVBoxLayout(page)
    inner = QHBoxLayout()
    layout.addWidget(first)
    layout.addLayout(inner)
    inner.addWidget(middle)
    layout.addWidget(QLabel("words are passed over"))
    layout.addWidget(last)
    order = TabOrder()
    order.set(page)
    page.show()
    first.setFocus()
    for following in (middle, last):
        press(QApplication.focusWidget() or page, Qt.Key.Key_Tab)
        assert QApplication.focusWidget() is following
    assert first_field(page) is first
    assert first_field(QWidget()) is None


def test_a_flow_keeps_its_margins_free(app: QApplication) -> None:
    page = QWidget()
    flow = FlowLayout(page, gap=4, lead=3)
    flow.setContentsMargins(10, 7, 10, 5)
    boxes = [QLineEdit() for _ in range(3)]
    for box in boxes:
        box.setFixedSize(60, 20)
        flow.addWidget(box)
    assert flow.heightForWidth(300) == 7 + 20 + 5
    assert flow.heightForWidth(150) == 7 + 20 + 3 + 20 + 5
    page.resize(150, 80)
    page.show()
    flow.activate()
    assert (boxes[0].x(), boxes[0].y()) == (10, 7)
    assert (boxes[2].x(), boxes[2].y()) == (10, 30)


def test_a_choice_is_as_wide_as_what_is_chosen(app: QApplication) -> None:
    field = ChoiceField("how", [("short", 1), ("a very much longer answer", 2)], lambda value: None)
    narrow = field.sizeHint().width()
    field.show_value(2)
    assert field.sizeHint().width() > narrow
    field.show_value(True)
    assert field.value == 2, "a truth is not the number one"


@pytest.mark.parametrize("width", [120, 300, 900])
def test_a_sentence_runs_like_text_and_nothing_overlaps_or_sticks_out(app: QApplication, width: int) -> None:
    body = sentence("A motor of", QLineEdit("4"), "kW turns the wash drum in the wash bay of the shed.")
    body.resize(width, body.heightForWidth(width))
    body.show()
    settle_window()
    boxes = [child.geometry() for child in body.findChildren(QWidget) if isinstance(child, QLabel | QLineEdit)]
    for n, one in enumerate(boxes):
        assert not any(one.intersects(other) for other in boxes[n + 1 :])
        assert one.bottom() <= body.height()
    tops = {box.center().y() for box in boxes}
    assert len(tops) == 1 if width == 900 else len(tops) > 1


def test_a_flow_is_as_high_as_its_lines(app: QApplication) -> None:
    body = QWidget()
    flow = FlowLayout(body, gap=0, lead=0)
    for _ in range(4):
        box = QWidget()
        box.setFixedSize(50, 20)
        flow.addWidget(box)
    assert [flow.heightForWidth(w) for w in (210, 110, 60)] == [20, 40, 80]
    assert flow.takeAt(9) is None
    assert flow.count() == 4


class TestAnswer:
    @pytest.fixture
    def taken(self) -> list[str]:
        return []

    @pytest.fixture
    def field(self, app: QApplication, taken: list[str]) -> Answer:
        def take(text: str) -> bool:
            taken.append(text)
            return text.isdigit()

        field = Answer("Power", "4", take)
        field.show()
        return field

    def test_an_unchanged_answer_is_not_taken_again(self, field: Answer, taken: list[str]) -> None:
        press(field, Qt.Key.Key_Return)
        assert taken == []

    def test_a_refused_answer_stays_to_be_mended_and_is_marked(self, field: Answer, taken: list[str]) -> None:
        field.setText("abc")
        press(field, Qt.Key.Key_Return)
        assert field.property("wrong") is True
        assert field.text() == "abc"
        field.setText("5")
        press(field, Qt.Key.Key_Return)
        assert field.property("wrong") is False
        assert taken == ["abc", "5"]

    def test_the_value_of_now_is_shown(self, field: Answer) -> None:
        field.show_value("7")
        assert field.text() == "7"


def test_a_pick_takes_the_value_behind_the_words(app: QApplication) -> None:
    taken: list[object] = []
    pick = ChoiceField("Neutral", [("and a neutral", True), ("and no neutral", False)], taken.append)
    pick.show_value(False)
    assert pick.currentText() == "and no neutral"
    assert taken == [], "showing is not choosing"
    press(pick, Qt.Key.Key_Up)
    assert taken == [True]


def test_a_choice_makes_its_list_when_it_is_first_needed(app: QApplication) -> None:
    """Hundreds of choices in a letter made 1,700 widgets that nobody had seen."""
    choices: list[tuple[str, object]] = [("short", 1), ("a very much longer answer", 2), ("other", 3)]

    def made() -> ChoiceField:
        field = ChoiceField("how", choices, lambda value: None)
        field.setStyleSheet("QComboBox { padding: 3px; }")
        field.show_value(2)
        field.sizeHint()
        return field

    def shown(field: ChoiceField) -> None:
        field.show()
        settle_window()

    asked = made()
    assert not asked.findChildren(QWidget), "not shown, not filled"
    assert (asked.currentText(), asked.currentIndex(), asked.count()) == ("a very much longer answer", 1, 3)
    needs: tuple[Callable[[ChoiceField], object], ...] = (
        lambda field: field.setCurrentIndex(2),
        lambda field: press(field, Qt.Key.Key_Down),
        shown,
        lambda field: field.showPopup(),
    )
    for need, chosen in zip(needs, (3, 3, 2, 2), strict=True):
        field = made()
        need(field)
        assert [field.itemText(n) for n in range(3)] == [text for text, _ in choices]
        assert field.value == chosen
        assert field.itemText(field.currentIndex()) == field.currentText()
        field.hidePopup()
        field.close()


def test_a_choice_is_as_high_as_a_box_of_qt(app: QApplication) -> None:
    field, box = ChoiceField("how", [("short", 1)], lambda value: None), QComboBox()
    box.addItem("short")
    for points in (9, 11, 16):
        for each in (field, box):
            font = each.font()
            font.setPointSize(points)
            each.setFont(font)
        assert field.sizeHint().height() == box.sizeHint().height()


SCHEDULE = Schedule(
    "wires",
    "Wires",
    (("number", "Number"), ("mm2", "mm²"), ("key", "Key")),
    (("1", 1.5, "a~b"), ("2", 4.0, "c~d"), ("3", None, "e~f")),
)


def test_a_press_on_a_head_sorts_by_size_and_a_third_one_no_more(app: QApplication) -> None:
    rows = (("F10", 4.0, "a"), ("F2", 1.5, "b"), ("K1", 10.0, "c"))
    table = ScheduleTable("Wires", "key")
    table.show_schedule(replace(SCHEDULE, rows=rows))
    heard: list[str] = []
    table.row_chosen.connect(heard.append)

    def shown(column: int = 0) -> list[str]:
        return [table.model().index(row, column).data() for row in range(table.model().rowCount())]

    assert shown() == ["F10", "F2", "K1"], "as the list has them"
    table.sortByColumn(0, Qt.SortOrder.AscendingOrder)
    assert shown() == ["F2", "F10", "K1"]
    table.selectRow(0)
    assert heard == ["b"]
    assert table.chosen_row == 1
    table.sortByColumn(1, Qt.SortOrder.DescendingOrder)
    assert shown(1) == ["10", "4", "1.5"]
    table.sortByColumn(-1, Qt.SortOrder.AscendingOrder)
    assert shown() == ["F10", "F2", "K1"]


def test_a_filter_keeps_the_rows_that_hold_all_words(app: QApplication) -> None:
    rows = (("F10 black", 4.0, "needle"), ("F2 black", 1.5, "b"), ("K1 red", 10.0, "c"))
    table = ScheduleTable("Wires", "key")
    table.show_schedule(replace(SCHEDULE, rows=rows))
    assert table.filter_by("BLACK f2") == 1
    assert table.model().index(0, 0).data() == "F2 black"
    assert table.filter_by("needle") == 0, "a key that is not shown is not searched"
    table.choose("c")
    assert table.chosen_row == -1, "what is filtered out is not marked"
    assert table.filter_by("") == 3
    table.choose("c")
    assert table.chosen_row == 2


def test_a_table_shows_values_hides_its_key_and_tells_which_row(app: QApplication) -> None:
    table = ScheduleTable("Wires", "key")
    table.show_schedule(SCHEDULE)
    heard: list[str] = []
    table.row_chosen.connect(heard.append)
    model = table.model()
    assert [model.index(0, c).data() for c in range(2)] == ["1", "1.5"]
    assert model.index(2, 1).data() == ""
    assert table.isColumnHidden(2)
    table.choose("c~d")
    assert heard == [], "being told is not choosing"
    assert table.currentIndex().row() == 1
    table.selectRow(2)
    assert heard == ["e~f"]
    table.choose("gone")
    assert not table.selectionModel().hasSelection()


def test_a_body_is_replaced_even_by_a_button_inside_it(app: QApplication) -> None:
    from PySide6.QtWidgets import QPushButton

    area = QScrollArea()
    area.show()
    button = QPushButton("again")
    replace_body(area, button)
    button.clicked.connect(lambda: replace_body(area, QLabel("done")))
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    settle_window()
    assert isinstance(area.widget(), QLabel)


def test_no_text_of_a_table_is_cut_and_long_lists_are_not_measured_whole(app: QApplication) -> None:
    rows = tuple((n, f"{'i' * (n % 7)} W{n}", "MMMMMM" if n == 400 else "iiiiiiiii") for n in range(900))
    table = ScheduleTable("Wires", "key")
    table.show_schedule(Schedule("wires", "Wires", (("number", "No."), ("from", "From"), ("words", "Words")), rows))
    for column in range(3):
        needed = max(table.sizeHintForIndex(table.model().index(row, column)).width() for row in range(900))
        assert table.columnWidth(column) >= needed


def test_what_is_hidden_takes_no_gap_in_a_flow(app: QApplication) -> None:
    body = QWidget()
    flow = FlowLayout(body, gap=6, lead=0)
    boxes = [QWidget() for _ in range(3)]
    for box in boxes:
        box.setFixedSize(50, 20)
        flow.addWidget(box)
    boxes[1].hide()
    body.resize(300, 40)
    body.show()
    flow.activate()
    assert [boxes[0].x(), boxes[2].x()] == [0, 56]
    boxes[1].show()
    flow.activate()
    assert [box.x() for box in boxes] == [0, 56, 112]
