"""Riktig plans, schedules, judges and proves motor starter control panels."""

__version__ = "0.1.0"
