"""The switch box that stands in for the field: its front as a picture, its leads as a list."""

from PySide6.QtWidgets import QDialog, QVBoxLayout, QWidget

from riktig.core.proving import BoxPlace, Imitates, draw_switch_box
from riktig.desk.canvas import DrawingView
from riktig.desk.theme import Theme, grown
from riktig.desk.widgets import plain_label

__all__ = ["SwitchBoxDialog"]

CAUTION = (
    "Leads are connected with the panel isolated, locked off and proved dead. What stands on a switch is a voltage: "
    "covered switches, sheathed leads, each lead with its terminal on it. Local codes and licensed practice decide."
)


class SwitchBoxDialog(QDialog):
    """The proposal of a switch box.

    Args:
        places: What the box has.
        theme: The theme of the window.
        parent: The window it opens over.
    """

    def __init__(self, places: tuple[BoxPlace, ...], theme: Theme, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Switch box")
        self.resize(grown(900), grown(680))
        layout = QVBoxLayout(self)
        self.words = plain_label(switch_box_words(places), wraps=True)
        layout.addWidget(self.words)
        self.view = DrawingView("The front of the switch box, circuit by circuit")
        self.view.set_theme(theme)
        self.view.show_drawing(draw_switch_box(places))
        layout.addWidget(self.view, 1)
        layout.addWidget(plain_label(CAUTION, "judgement", wraps=True))


def switch_box_words(places: tuple[BoxPlace, ...]) -> str:
    """What the box takes, in a line.

    Args:
        places: What the box has.
    """
    if not places:
        return "Nothing outside the panel is connected to it: no switch box is needed."
    switched = (Imitates.SWITCH, Imitates.BUTTON, Imitates.SENSOR)
    count = sum(place.imitates in switched for place in places)
    leads = len({terminal for place in places if place.imitates in switched for terminal in place.terminals})
    supplies = sum(place.imitates is Imitates.SUPPLY for place in places)
    words = f"A proposal: {_count(count, 'switch', 'switches')} on {_count(leads, 'lead', 'leads')}"
    return words + (f", {_count(supplies, 'supply', 'supplies')} of its own" if supplies else "") + "."


def _count(number: int, single: str, many: str) -> str:
    return f"{number} {single if number == 1 else many}"
