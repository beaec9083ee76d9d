"""The place of what is chosen, in numbers: typed in, to a tenth of a millimetre."""

from collections.abc import Callable

from PySide6.QtWidgets import QDoubleSpinBox, QHBoxLayout, QLabel, QWidget

from riktig.core.plate import Duct, Layout, Rail, Stand
from riktig.desk.widgets import plain_label

__all__ = ["PlaceFields", "numbers_of"]

LARGEST = 5000.0

Numbers = tuple[tuple[str, float], ...]
"""Names of the numbers and what they are, mm."""


class PlaceFields(QWidget):
    """A row of numbers for one part, rail or duct; a changed one is an edit as soon as it is entered."""

    def __init__(self, entered: Callable[[dict[str, float]], None]) -> None:
        super().__init__()
        self._entered = entered
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(6)
        self.what = plain_label("", "second")
        self._row.addWidget(self.what)
        self._pairs: list[tuple[QLabel, QDoubleSpinBox]] = []
        for _ in range(4):
            label, box = plain_label("", "second"), QDoubleSpinBox()
            box.setRange(-LARGEST, LARGEST)
            box.setDecimals(1)
            box.setSuffix(" mm")
            box.setKeyboardTracking(False)
            box.valueChanged.connect(self._changed)
            self._row.addWidget(label)
            self._row.addWidget(box)
            self._pairs.append((label, box))
        keeps = self._pairs[0][1].sizePolicy()
        keeps.setRetainSizeWhenHidden(True)  # the plate above must not jump when something is chosen
        self._pairs[0][1].setSizePolicy(keeps)
        self._row.addStretch(1)
        self._shown: Numbers = ()
        self.show_numbers("", ())

    def show_numbers(self, what: str, numbers: Numbers) -> None:
        """Shows the numbers of something; none: nothing is chosen."""
        self._shown = ()
        self.what.setText(what)
        for n, (label, box) in enumerate(self._pairs):
            there = n < len(numbers)
            label.setVisible(there)
            box.setVisible(there)
            if there:
                name, value = numbers[n]
                label.setText(name)
                label.setBuddy(box)
                box.setAccessibleName(f"{what} {name}")
                if box.value() != value:
                    box.setValue(value)
        self._shown = numbers

    def box(self, name: str) -> QDoubleSpinBox:
        """The field of a number.

        Raises:
            KeyError: nothing of that name is shown.
        """
        for (_, box), (shown, _) in zip(self._pairs, self._shown, strict=False):
            if shown == name:
                return box
        raise KeyError(name)

    def _changed(self) -> None:
        if not self._shown:
            return
        values = {name: box.value() for (name, _), (_, box) in zip(self._shown, self._pairs, strict=False)}
        if any(abs(values[name] - was) > 0.049 for name, was in self._shown):
            self._entered(values)


def numbers_of(layout: Layout, thing: Stand | Rail | Duct) -> Numbers:
    """What can be typed in of a part, a rail or a duct."""
    if isinstance(thing, Rail):
        return (("at", thing.y), ("from", thing.x1), ("to", thing.x2))
    if isinstance(thing, Duct):
        rect = thing.rect
        return (("x", rect.x), ("y", rect.y), ("width", rect.width), ("height", rect.height))
    rail = layout.rail(thing.rail)
    if rail:
        return (("from the rail's end", round(thing.x - rail.x1, 1)),)
    return (("x", thing.x), ("y", thing.y))
