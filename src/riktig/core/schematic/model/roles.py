"""What a device is in its circuit, where that decides about more than its name.

A role is the part of a device's id behind its circuit. The recipes give these roles, and a circuit that is
written by hand gets their meaning by using the same.
"""

__all__ = [
    "ALARM",
    "BOX_BOND",
    "BYPASS",
    "DOOR_BONDS",
    "INCOMING_CABLE",
    "INCOMING_EARTH",
    "LOADS",
    "MAIN_CONTACTOR",
    "MOTOR",
    "OUT_WHILE_RUNNING",
    "PLATE_BOND",
    "REVERSE",
    "STAR",
    "TRIANGLE",
]

MAIN_CONTACTOR = "K"
REVERSE = "KR"
STAR = "KS"
TRIANGLE = "KD"
BYPASS = "KB"
"""The contactor that carries a motor behind its soft starter."""
MOTOR = "M"
LOADS = (MOTOR, "E")
"""What a circuit serves in the field: a motor, or any other load."""
OUT_WHILE_RUNNING = (STAR, REVERSE)
"""Contactors that are out in the run for which the heat is counted."""
DOOR_BONDS = ("E.door", "E.door2")
"""The studs of the doors, the left one first."""
PLATE_BOND = "E.plate"
BOX_BOND = "E.box"
ALARM = "B.alarm"
"""The contact in the field that only gives an alarm."""
INCOMING_EARTH = "X.PE"
"""The terminal on which the incoming protective conductor lands."""
INCOMING_CABLE = "W"
