from .derived import SHEET_DRAWINGS, SHEET_PEN
from .ratings import device_ratings
from .voltages import net_voltages

__all__ = ["SHEET_DRAWINGS", "SHEET_PEN", "device_ratings", "net_voltages"]
