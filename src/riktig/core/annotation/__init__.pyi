from .conductors import pin_conductors
from .derived import BARE_SHEET_PEN, SHEET_DRAWINGS, SHEET_PEN
from .ratings import device_ratings
from .voltages import net_voltages

__all__ = ["BARE_SHEET_PEN", "SHEET_DRAWINGS", "SHEET_PEN", "device_ratings", "net_voltages", "pin_conductors"]
