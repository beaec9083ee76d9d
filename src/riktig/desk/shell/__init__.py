"""The window around the stations."""

from riktig.desk.shell.main_window import MainWindow

__all__ = ["MainWindow"]
