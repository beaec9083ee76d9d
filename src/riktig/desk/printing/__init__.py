"""Papers as they will come out of the printer: looked at page by page, then printed or kept as PDF.

``preview`` and ``pages`` load PDFium, and are imported when something is printed.
"""

from riktig.desk.printing.job import PrintJob

__all__ = ["PrintJob"]
