"""The one place of colours and faces: every role, light for the desk and dark for the bench."""

from dataclasses import dataclass
from importlib import resources

from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette

__all__ = [
    "DARK",
    "LIGHT",
    "MONO",
    "WORDS",
    "Theme",
    "grow_text",
    "grown",
    "load_fonts",
    "palette",
    "style_sheet",
    "words_font",
]

WORDS = "B612"
MONO = "B612 Mono"
FALLBACK = "DejaVu Sans"

WIRE_COLOURS = {
    "wire black": "#23282B",
    "wire brown": "#7A4A24",
    "wire grey": "#8E9496",
    "wire red": "#C23A2E",
    "wire light blue": "#6FA8DC",
    "wire green-yellow": "#7FA52B",
    "wire stripe": "#E3C93B",
    "wire orange": "#DE7A1B",
    "wire blue": "#2E5AAC",
    "wire yellow": "#E3C93B",
    "wire white": "#F4F3EF",
    "wire violet": "#7B5AA6",
}


@dataclass(frozen=True)
class Theme:
    """Colours by role. A role that is not found is ink: a drawing never disappears."""

    name: str
    colours: dict[str, str]

    def colour(self, role: str) -> QColor:
        """The colour of a role."""
        return QColor(self.colours.get(role) or WIRE_COLOURS.get(role) or self.colours["ink"])

    def __getitem__(self, role: str) -> str:
        return self.colours.get(role) or WIRE_COLOURS[role]


LIGHT = Theme(
    "light",
    {
        "ground": "#E4E0D7",
        "paper": "#FCFBF7",
        "panel": "#F5F2EB",
        "card": "#FFFDF8",
        "line": "#C9C2B4",
        "hair": "#DDD7CB",
        "ink": "#1B2427",
        "second": "#4C575B",
        "third": "#667075",
        "act": "#0B5F66",
        "act soft": "#D3E4E3",
        "on act": "#FFFFFF",
        "meets": "#23704A",
        "fails": "#A9281F",
        "fails soft": "#F6E9E6",
        "judgement": "#8A5B00",
        "out of date": "#5C4B87",
        "live": "#C8480A",
        "warm 1": "#2EE07B2A",
        "warm 2": "#5CE07B2A",
        "warm 3": "#8CD9541A",
        "return": "#2F6F8F",
        "duct": "#E3DFD6",
        "duct level": "#9DBDBB",
        "rail": "#D2D0CB",
        "part": "#FFFEFA",
        "chosen": "#D3E4E3",
        "lens green": "#4E9A5B",
        "sign ink": "#1B2427",
        "lens yellow": "#E1B82E",
        "lens red": "#C23A2E",
        "terminal grey": "#D9D6CE",
        "terminal light blue": "#8FBCE6",
        "terminal green-yellow": "#9DBF4A",
        "terminal ": "#FFFDF8",
        "terminal blue": "#8FA9DC",
        "terminal green": "#7DB88B",
        "terminal orange": "#EBA35C",
        "terminal red": "#E8968C",
        "terminal yellow": "#EBDC8A",
        "terminal brown": "#C2A184",
        "terminal white": "#FFFFFF",
        "terminal black": "#9AA1A3",
    },
)
DARK = Theme(
    "dark",
    {
        "ground": "#15191B",
        "paper": "#1C2225",
        "panel": "#202729",
        "card": "#252D30",
        "line": "#465054",
        "hair": "#333C40",
        "ink": "#ECE8DF",
        "second": "#B9BDB9",
        "third": "#98A1A2",
        "act": "#63BFC3",
        "act soft": "#1F4447",
        "on act": "#0E1719",
        "meets": "#7CC79B",
        "fails": "#F0897E",
        "fails soft": "#43211F",
        "judgement": "#DDB04E",
        "out of date": "#B3A2E0",
        "live": "#F58A4B",
        "warm 1": "#38F58A4B",
        "warm 2": "#66F58A4B",
        "warm 3": "#94F58A4B",
        "return": "#7DB9D6",
        "duct": "#2A3235",
        "duct level": "#3F6567",
        "rail": "#3A4245",
        "part": "#2B3437",
        "chosen": "#1F4447",
        "lens green": "#4E9A5B",
        "sign ink": "#12181A",
        "lens yellow": "#D9B12C",
        "lens red": "#D2574B",
        "terminal grey": "#4A5457",
        "terminal light blue": "#2F6494",
        "terminal green-yellow": "#566F22",
        "terminal ": "#252D30",
        "terminal blue": "#2E4A8C",
        "terminal green": "#2F6A40",
        "terminal orange": "#8A4B12",
        "terminal red": "#8A2F26",
        "terminal yellow": "#6B5B12",
        "terminal brown": "#5C3A1E",
        "terminal white": "#5A6062",
        "terminal black": "#0B0E0F",
    },
)


def load_fonts() -> None:
    """Loads the shipped faces into the application; call once, after the application exists."""
    folder = resources.files("riktig") / "assets" / "fonts"
    for name in ("B612-Regular", "B612-Bold", "B612Mono-Regular", "B612Mono-Bold", "DejaVuSans"):
        QFontDatabase.addApplicationFontFromData((folder / f"{name}.ttf").read_bytes())


class _Growth:
    """By how much texts are larger than Riktig's own sizes, as the desktop asks."""

    factor = 1.0


USUAL_POINTS = 10.0
"""The size that Riktig is laid out for."""
MOST_GROWTH = 1.5
"""Beyond this the stations no longer fit a window of 1000 by 700 pixels (measured)."""
DISPLAY_POINTS = 20.0
"""Larger texts are read at arm's length already: they do not grow."""


def grow_text(desktop_points: float) -> None:
    """Takes the size of text over from the desktop; a smaller one than Riktig's own is not followed: 9 pt is the least.

    Args:
        desktop_points: The size of the desktop's own font.
    """
    _Growth.factor = min(max(desktop_points / USUAL_POINTS, 1.0), MOST_GROWTH)


def grown(pixels: int) -> int:
    """A width that letters need, as large as the desktop asks."""
    return round(pixels * _Growth.factor)


def words_font(points: float = USUAL_POINTS, *, mono: bool = False, bold: bool = False) -> QFont:
    """A face of the shipped family, with the fallback for signs it lacks; as large as the desktop asks."""
    font = QFont()
    font.setFamilies([MONO if mono else WORDS, FALLBACK])
    font.setPointSizeF(points * _Growth.factor if points <= DISPLAY_POINTS else points)
    font.setBold(bold)
    return font


def palette(theme: Theme) -> QPalette:
    """The roles that widgets paint themselves."""
    made = QPalette()
    roles = QPalette.ColorRole
    for role, name in (
        (roles.Window, "panel"),
        (roles.WindowText, "ink"),
        (roles.Base, "card"),
        (roles.Text, "ink"),
        (roles.Button, "card"),
        (roles.ButtonText, "ink"),
        (roles.Highlight, "act"),
        (roles.HighlightedText, "on act"),
        (roles.PlaceholderText, "third"),
        (roles.ToolTipBase, "card"),
        (roles.ToolTipText, "ink"),
    ):
        made.setColor(role, theme.colour(name))
    return made


def _arrow(theme: Theme) -> str:
    """The arrow of a choice, as a file: a style sheet can name no drawing."""
    return str(resources.files("riktig") / "assets" / "icons" / f"down-{theme.name}.svg").replace("\\", "/")


def style_sheet(theme: Theme) -> str:
    """The widgets' style, from the roles."""
    c = theme.colours
    return f"""
    QWidget {{ color: {c["ink"]}; }}
    QMainWindow, QDialog, QMessageBox, #route, #strip, #drawer, #beside {{ background: {c["panel"]}; }}
    #details, #details > QWidget > QWidget {{ background: {c["panel"]}; }}
    #paper {{ background: {c["paper"]}; }}
    #cover {{ background: {c["panel"]}; }}
    QRadioButton::indicator {{ width: 12px; height: 12px; border-radius: 7px; border: 1px solid {c["second"]};
        background: {c["paper"]}; }}
    QRadioButton::indicator:checked {{ width: 6px; height: 6px; border: 4px solid {c["act"]}; }}
    #paper QScrollArea, #paper QScrollArea > QWidget > QWidget {{ background: transparent;
        border: none; }}
    QLabel {{ background: transparent; }}
    QPushButton#chip, QPushButton#yours, QPushButton#short, QPushButton#instead {{ padding: 2px 8px; }}
    QPushButton#yours {{ border: 1px dashed {c["act"]}; color: {c["act"]}; }}
    QPushButton#short {{ border: 1px solid {c["fails"]}; color: {c["fails"]}; }}
    QPushButton#instead {{ background: {c["panel"]}; color: {c["second"]}; border-color: {c["hair"]}; }}
    #card {{ background: {c["card"]}; border: 1px solid {c["hair"]}; border-radius: 6px; }}
    #strip {{ border-bottom: 1px solid {c["line"]}; }}
    #drawer {{ border-top: 1px solid {c["line"]}; }}
    #route {{ border-right: 1px solid {c["line"]}; }}
    #details {{ border-left: 1px solid {c["line"]}; }}
    #pill {{ background: {c["card"]}; border: 1px solid {c["hair"]}; border-radius: 10px;
             padding: 2px 9px; }}
    #title {{ font-size: {13 * _Growth.factor:g}pt; font-weight: bold; }}
    #large {{ font-weight: bold; }}
    #quiet {{ color: {c["third"]}; }}
    #second {{ color: {c["second"]}; }}
    #fails {{ color: {c["fails"]}; }}
    #meets {{ color: {c["meets"]}; }}
    #judgement {{ color: {c["judgement"]}; }}
    QPushButton, QToolButton {{ background: {c["card"]}; border: 1px solid {c["line"]};
        border-radius: 5px; padding: 4px 11px; }}
    #strip QToolButton {{ padding: 4px 8px; }}
    QToolButton#job {{ padding: 5px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {c["act"]}; }}
    QPushButton:focus, QToolButton:focus, QComboBox:focus, QLineEdit:focus, QAbstractSpinBox:focus, QListView:focus,
    QTreeView:focus, QTableView:focus {{ border: 2px solid {c["act"]}; }}
    QPushButton:checked, QPushButton#main {{ background: {c["act"]}; color: {c["on act"]};
        border-color: {c["act"]}; }}
    QPushButton#main:disabled {{ color: {c["third"]}; background: {c["panel"]}; border-color: {c["hair"]}; }}
    QPushButton:disabled {{ color: {c["third"]}; background: {c["panel"]}; }}
    QPushButton:flat {{ border: none; background: transparent; color: {c["act"]};
        padding: 1px 2px; text-align: left; }}
    QPushButton:flat:focus {{ border: 1px solid {c["act"]}; }}
    QLineEdit, QComboBox, QPlainTextEdit, QAbstractSpinBox, QListWidget {{ background: {c["card"]}; border: 1px solid
        {c["line"]}; border-radius: 4px; padding: 3px 6px; selection-background-color:
        {c["act"]}; selection-color: {c["on act"]}; }}
    QAbstractSpinBox::up-button, QAbstractSpinBox::down-button {{ width: 0; border: none; }}
    QComboBox::drop-down {{ border: none; width: 18px; }}
    QComboBox::down-arrow {{ image: url({_arrow(theme)}); width: 9px; height: 6px; }}
    QComboBox QAbstractItemView {{ background: {c["card"]}; color: {c["ink"]};
        selection-background-color: {c["act soft"]}; selection-color: {c["ink"]}; }}
    QLineEdit[wrong="true"] {{ border: 2px solid {c["fails"]}; }}
    QTableView, QTreeView, QListView {{ background: {c["card"]}; border: 1px solid {c["hair"]};
        gridline-color: {c["hair"]}; selection-background-color: {c["act soft"]};
        selection-color: {c["ink"]}; alternate-background-color: {c["paper"]}; }}
    QHeaderView {{ background: {c["panel"]}; }}
    QHeaderView::section {{ background: {c["panel"]}; color: {c["second"]}; border: none;
        border-bottom: 1px solid {c["line"]}; padding: 4px 6px; }}
    QScrollBar:vertical {{ background: {c["panel"]}; width: 11px; }}
    QScrollBar::handle:vertical {{ background: {c["line"]}; border-radius: 5px;
        min-height: 30px; }}
    QScrollBar:horizontal {{ background: {c["panel"]}; height: 11px; }}
    QScrollBar::handle:horizontal {{ background: {c["line"]}; border-radius: 5px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QMenuBar {{ background: {c["panel"]}; color: {c["ink"]}; }}
    QMenuBar::item:selected {{ background: {c["act soft"]}; color: {c["ink"]}; }}
    QMenu {{ background: {c["card"]}; border: 1px solid {c["line"]}; }}
    QMenu::item:selected {{ background: {c["act soft"]}; color: {c["ink"]}; }}
    QToolTip {{ background: {c["card"]}; color: {c["ink"]}; border: 1px solid {c["line"]}; }}
    QProgressBar {{ background: {c["hair"]}; border: none; border-radius: 3px; height: 6px; }}
    QProgressBar::chunk {{ background: {c["act"]}; border-radius: 3px; }}
    """
