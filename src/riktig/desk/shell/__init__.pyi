from .main_window import MainWindow

__all__ = ["MainWindow"]
