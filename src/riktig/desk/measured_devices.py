"""What was measured once on this machine: the millimetre as its screen shows and as each printer prints it."""

from PySide6.QtCore import QSettings

from riktig.places import window_file

__all__ = ["BAR_MM", "CARD_MM", "keep_pixels_per_mm", "keep_printed_bar", "pixels_per_mm", "printed_bar", "scales"]

BAR_MM = 100.0
"""The bar that is printed and measured."""
SLACK_MM = 0.5
"""By so much the bar may differ: half a millimetre on a rule (chosen by us)."""
CARD_MM = (85.6, 53.98)
"""Width and height of a bank card (ISO/IEC 7810, ID-1)."""
PIXELS = (1.0, 40.0)
"""No screen shows a millimetre smaller or larger than this."""


def _settings() -> QSettings:
    return QSettings(str(window_file()), QSettings.Format.IniFormat)


def _number(key: str) -> float:
    try:
        return float(str(_settings().value(key, "0")))
    except ValueError:
        return 0.0


def _key(kind: str, name: str) -> str:
    return f"measured/{kind}/{''.join(c if c.isalnum() else '_' for c in name) or 'unnamed'}"


def pixels_per_mm(screen: str) -> float:
    """How many pixels a millimetre has on a screen as a card was held against it; 0 when nobody has yet.

    Args:
        screen: Its name.
    """
    number = _number(_key("screen", screen))
    return number if PIXELS[0] <= number <= PIXELS[1] else 0.0


def keep_pixels_per_mm(screen: str, pixels: float) -> None:
    """Remembers what was found with a card.

    Args:
        screen: Its name.
        pixels: To the millimetre.
    """
    _settings().setValue(_key("screen", screen), f"{pixels:.5f}")


def printed_bar(printer: str) -> float:
    """How long a printer prints a bar of 100 mm, as it was measured, mm; 0 when nobody has yet.

    Args:
        printer: Its name.
    """
    return _number(_key("printer", printer))


def keep_printed_bar(printer: str, length: float) -> None:
    """Remembers what was measured on a page of a printer.

    Args:
        printer: Its name.
        length: Of the bar of 100 mm, mm.
    """
    _settings().setValue(_key("printer", printer), f"{length:.2f}")


def scales(length: float) -> bool:
    """Whether a bar of 100 mm that is printed so long shows that the printer scales its pages.

    Args:
        length: As measured, mm.
    """
    return abs(length - BAR_MM) > SLACK_MM
