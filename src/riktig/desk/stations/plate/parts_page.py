"""Parts: which one the chosen device is, and parts of one's own in a form with a drawing that follows."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QComboBox,
    QDoubleSpinBox,
    QFileDialog,
    QFormLayout,
    QFrame,
    QLineEdit,
    QListWidget,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from riktig.core.catalogue import Part, every_part_of, own_part, placeable_kinds
from riktig.core.edits import ChoosePart, KeepParts, RemovePart
from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.exports import as_csv
from riktig.core.imports import holes_text, own_parts_schedule, read_holes, read_parts
from riktig.core.job import BODY_COLOURS, DeviceId, OwnPart
from riktig.core.plate import draw_part
from riktig.core.schematic import CIRCUITS, NAMES, Device
from riktig.core.sizing import SIZING
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import grown
from riktig.desk.widgets import plain_label, row_of

__all__ = ["PartsPage"]

NUMBERS = (
    ("width", "Width", " mm", 1),
    ("height", "Height", " mm", 1),
    ("depth", "Depth from the plate", " mm", 1),
    ("room_left", "Room to the left", " mm", 1),
    ("room_right", "Room to the right", " mm", 1),
    ("room_top", "Room above", " mm", 1),
    ("room_bottom", "Room below", " mm", 1),
    ("bend", "Bending room", " mm", 1),
    ("loss_w", "Loss at rated current", " W", 1),
    ("rated_a", "Rated current", " A", 2),
    ("breaking_ka", "Breaks a short circuit of", " kA", 1),
    ("marked_ka", "Marked for a short circuit of", " kA", 1),
    ("energy_ka2s", "Lets through then", " kA²s", 1),
    ("peak_ka", "Peak let through then", " kA", 1),
    ("min_mm2", "Clamp from", " mm²", 2),
    ("max_mm2", "Clamp to", " mm²", 2),
    ("strip", "Strip length", " mm", 1),
    ("torque_n_m", "Torque", " N·m", 2),
)
AS_PROPOSED = "as Riktig proposes"


class PartsPage(QWidget):
    """Left the parts there are, in the middle the form, right the drawing. Nothing is kept until “Keep”."""

    def __init__(self, session: Session, chosen: Callable[[], DeviceId]) -> None:
        super().__init__()
        self._session, self._chosen = session, chosen
        self.view = DrawingView("The part to scale")
        self.view.setMinimumSize(120, 160)
        self.kind = QComboBox()
        self.kind.setAccessibleName("Kind of part")
        for placeable_kind in sorted(placeable_kinds(), key=lambda k: k.name):
            self.kind.addItem(placeable_kind.name, placeable_kind.id)
        self.kind.setMinimumContentsLength(10)
        self.kind.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.ref, self.words, self.holes, self.tested = QLineEdit(), QLineEdit(), QLineEdit(), QLineEdit()
        self.tested.setPlaceholderText("gG 63: 50*; breaker 40: 10")
        self.tested.setToolTip(
            "The guard ahead with its most A, and the kA of the test; a star where it stays fit for use (type 2)"
        )
        self.tested.setAccessibleName("Tested behind")
        self.holes.setPlaceholderText("M4 8,8 84,8: a thread, then places from the corner")
        self.numbers: dict[str, QDoubleSpinBox] = {}
        form_of = QWidget()
        form = QFormLayout(form_of)
        form.setRowWrapPolicy(QFormLayout.RowWrapPolicy.WrapLongRows)
        form.setFieldGrowthPolicy(QFormLayout.FieldGrowthPolicy.ExpandingFieldsGrow)
        for label, field in (("Reference", self.ref), ("Kind", self.kind), ("Description", self.words)):
            form.addRow(label, field)
            field.setAccessibleName(label)
        for name, label, unit, digits in NUMBERS:
            box = QDoubleSpinBox()
            box.setRange(0, 99_999)
            box.setDecimals(digits)
            box.setSuffix(unit)
            box.setAccessibleName(label)
            box.setMaximumWidth(grown(104))
            box.valueChanged.connect(self._draw)
            self.numbers[name] = box
            form.addRow(label, box)
        form.addRow("Tested behind", self.tested)
        form.addRow("Fixing holes", self.holes)
        self.colour = QComboBox()
        self.colour.setAccessibleName("Colour")
        for colour in BODY_COLOURS:
            self.colour.addItem(colour or "none that matters", colour)
        self.colour.currentIndexChanged.connect(self._draw)
        form.addRow("Colour", self.colour)
        self.holes.setAccessibleName("Fixing holes")
        for line in (self.ref, self.words, self.holes, self.tested):
            line.textChanged.connect(self._draw)
        self.kind.currentIndexChanged.connect(self._draw)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setWidget(form_of)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setMinimumWidth(300)
        area.setFrameShape(QFrame.Shape.NoFrame)
        self.list = QListWidget()
        self.list.setAccessibleName("Parts of your own")
        self.list.currentTextChanged.connect(self._show_own)
        self.wrong = plain_label("", "fails", wraps=True)
        self.device = plain_label("", "second", wraps=True)
        self.pick = QComboBox()
        self.pick.setAccessibleName("Part of the chosen device")
        self.pick.activated.connect(self._picked)
        left = QVBoxLayout()
        left.addWidget(self.device)
        left.addWidget(self.pick)
        left.addWidget(plain_label("Parts of your own"))
        left.addWidget(self.list, 1)
        self.keep = self._button("Keep", self._keep, main=True)
        self.drop = self._button("Remove", self._remove)
        self.take = self._button("Import …", self._from_file)
        self.give = self._button("Write …", self._to_file)
        left.addLayout(row_of([self.take, self.give, None]))
        side = QWidget()
        side.setLayout(left)
        side.setMaximumWidth(grown(206))
        middle = QVBoxLayout()
        middle.addWidget(area, 1)
        middle.addWidget(self.wrong)
        middle.addLayout(row_of([self.keep, self.drop, None]))
        layout = row_of([side])
        layout.setStretch(0, 0)
        layout.addLayout(middle, 1)
        layout.addWidget(self.view, 2)
        self.setLayout(layout)
        self._empty()

    def _button(self, text: str, does: Callable[[], None], *, main: bool = False) -> QPushButton:
        button = QPushButton(text)
        if main:
            button.setObjectName("main")
        button.clicked.connect(lambda: does())
        return button

    def refresh(self) -> None:
        """Shows the parts of the job of now, and what can be chosen for the device that is selected."""
        now = self.list.currentItem().text() if self.list.currentItem() else ""
        self.list.blockSignals(True)
        self.list.clear()
        self.list.addItems([part.ref for part in self._session.job.parts])
        rows = [n for n, part in enumerate(self._session.job.parts) if part.ref == now]
        if rows:
            self.list.setCurrentRow(rows[0])
        self.list.blockSignals(False)
        self._fill_pick()
        self._draw()

    def _selected(self) -> Device | None:
        lead = self._chosen()
        return self._session.evaluation.get(CIRCUITS).by_id.get(lead)

    def _fill_pick(self) -> None:
        device = self._selected()
        self.pick.clear()
        self.pick.setEnabled(device is not None)
        if device is None:
            self.device.setText("Choose a part on the plate to say which one it is.")
            return
        plan, job = self._session.evaluation, self._session.job
        now = plan.get(SIZING).parts[device.id]
        self.device.setText(f"{plan.get(NAMES).tag[device.id]} is {now.ref}: {now.description}")
        own_refs = [own_refs.ref for own_refs in job.parts if own_part(own_refs).kind.shares_parts_with(device.kind)]
        self.pick.addItem(AS_PROPOSED, "")
        for ref in [*own_refs, *(part.ref for part in every_part_of(device.kind_id))]:
            self.pick.addItem(ref, ref)
        chosen = next((pick.ref for pick in job.picks if pick.device == device.id), "")
        self.pick.setCurrentIndex(max(self.pick.findData(chosen), 0))

    def _picked(self, index: int) -> None:
        device, ref = self._selected(), str(self.pick.itemData(index) or "")
        if device is not None:
            self._session.edit("choose a part", ChoosePart(device.id, ref))
            self.refresh()

    def _part_from_fields(self) -> OwnPart:
        """The part as the form has it.

        Raises:
            ValueError: what is wrong with it.
        """
        numbers = {name: box.value() for name, box in self.numbers.items()}
        holes = read_holes(self.holes.text())
        ref, kind, words = self.ref.text().strip(), str(self.kind.currentData()), self.words.text().strip()
        tested, colour = self.tested.text().strip(), str(self.colour.currentData())
        return OwnPart(ref, kind, words, holes=holes, colour=colour, tested_with=tested, **numbers)

    def _part(self) -> Part | None:
        try:
            part = own_part(self._part_from_fields())
        except ImpossibleValueError as error:
            self.wrong.setText(f"Not yet: {error}.")
            return None
        unknown = [name for name in ("width", "height", "depth") if not self.numbers[name].value()]
        text = (
            f"{' and '.join(unknown).capitalize()} not known: enter what is missing before this part can be placed."
            if unknown
            else ""
        )
        self.wrong.setText(text)
        return part

    def _draw(self) -> None:
        part = self._part()
        if part is not None:
            self.view.show_drawing(draw_part(part))

    def _empty(self) -> None:
        blank = OwnPart("new", "relay")
        self._show(blank)

    def _show_own(self, ref: str) -> None:
        known = next((part for part in self._session.job.parts if part.ref == ref), None)
        if known:
            self._show(known)

    def _show(self, own: OwnPart) -> None:
        self.ref.setText(own.ref)
        self.kind.setCurrentIndex(max(self.kind.findData(own.kind), 0))
        self.words.setText(own.description)
        for name, box in self.numbers.items():
            box.setValue(getattr(own, name))
        self.holes.setText(holes_text(own.holes))
        self.tested.setText(own.tested_with)
        self.colour.setCurrentIndex(max(self.colour.findData(own.colour), 0))
        self._draw()

    def _keep(self) -> None:
        try:
            part = self._part_from_fields()
        except ImpossibleValueError as error:
            self._session.say(f"The part was not saved: {error}.", wrong=True)
            return
        self._session.edit(f"part {part.ref}", KeepParts((part,)))
        self.refresh()

    def _remove(self) -> None:
        ref = self.ref.text().strip()
        self._session.edit(f"remove {ref}", RemovePart(ref))
        self.refresh()

    def _from_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A list of parts", "", "Lists (*.csv *.tsv *.xlsx)")
        if name:
            self.take_list(Path(name))

    def take_list(self, path: Path) -> None:
        """Takes all parts of a list in, as one edit; none when a line cannot be used."""
        try:
            own_parts = read_parts(path)
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return
        self._session.edit(f"parts from {path.name}", KeepParts(tuple(own_parts)))
        self.refresh()

    def _to_file(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "A list of parts", "parts.csv", "Lists (*.csv)")
        if name:
            self.write_list(Path(name))

    def write_list(self, path: Path) -> None:
        """Writes the parts of one's own as a list."""
        try:
            path.write_text(as_csv(own_parts_schedule(self._session.job.parts)), encoding="utf-8")
        except OSError as error:
            self._session.say(f"The list could not be written to {path} ({error.strerror}).", wrong=True)
