"""Labels at true size, a medium at a time; printed ones are remembered, changed ones printed again."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QWidget

from riktig.core.edits import DropLabelSheet, KeepPrinted, SetLabelSheet, UseLabels
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import export_drawings, file_stem
from riktig.core.geometry import Drawing, Rect, Shape, moved
from riktig.core.job import Job, LabelSheet
from riktig.core.keys import Key
from riktig.core.labels import (
    CARDS,
    LABELS,
    Label,
    Medium,
    card_pages,
    draw_cards,
    draw_medium,
    label_pages,
    misfit_texts,
    print_entries,
    sheet_pages,
    to_print_again,
)
from riktig.core.plate import box
from riktig.core.rules import RULES, Verdict
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.printing import PrintJob
from riktig.desk.session import Session
from riktig.desk.stations.labels.sheet_dialog import SheetDialog
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, Station, plain_label

__all__ = ["LabelsStation"]


def below_each_other(pages: Sequence[Drawing], title: str) -> Drawing:
    """Papers one below the other, each with its edge, as they come out of the printer."""
    shapes: list[Shape] = []
    top = 0.0
    for page in pages:
        shapes.append(box(Rect(0, top, page.width, page.height), "hair", 0.3))
        shapes += [moved(mark, 0.0, top) for mark in page.shapes]
        top += page.height + BETWEEN
    return Drawing(max((page.width for page in pages), default=100.0), max(top, 20.0), tuple(shapes), title)


BETWEEN = 8.0
"""Between two papers on the screen, mm (chosen by us)."""


def left_out(labels: Sequence[Label]) -> str:
    """What was not printed because its text does not fit, by name; "" when all of it was."""
    texts = list(dict.fromkeys(text for label in labels for text in misfit_texts(label)))
    if not texts:
        return ""
    more = f" and {len(texts) - WIDEST_WORDS} more" if len(texts) > WIDEST_WORDS else ""
    names = ", ".join(f"“{text}”" for text in texts[:WIDEST_WORDS])
    return f" Not printed, because they do not fit: {names}{more}. Shorten them and print again."


CHECKED = ("N01", "N02", "M02", "M05")
"""The clauses that are looked at before anything is printed."""
WIDEST_WORDS = 3
"""Faults said at once; the drawer has the rest."""


class LabelsStation(Station):
    """Shows what is printed on each medium. ``medium`` is None for the pin cards."""

    needs = (LABELS,)

    waits_for = "Nothing to label yet. Labels carry the tags and numbers of the circuits."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.medium: Medium | None = Medium.DEVICE
        self.view = DrawingView("Labels")
        self.view.opening = PAGES
        self.view.chosen.connect(session.select)
        bar = QWidget()
        row = FlowLayout(bar, gap=4, lead=4)
        self._buttons = {}
        for medium in (*Medium, None):
            name = medium.value if medium else "pin cards: every device with the number at each clamp"
            text = medium.value.split()[0].capitalize() if medium else "Pins"
            button = self.button(text, f"Shows the {name}", checkable=True)
            button.clicked.connect(lambda _=False, m=medium: self.turn(m))
            self._buttons[medium] = button
            row.addWidget(button)
        self.changed = self.button("Changed only", "Only labels that differ from what was printed", checkable=True)
        self.changed.clicked.connect(self.refresh)
        self.print = self.button("Print …", "Writes these labels as a PDF at true size and remembers that they are out")
        self.print.clicked.connect(self._ask_file)
        self.sheet = self.button("Sheet …", "What these labels are printed on, and where a begun sheet begins")
        self.sheet.clicked.connect(self._ask_sheet)
        row.addWidget(self.changed)
        row.addWidget(self.sheet)
        row.addWidget(self.print)
        self.words = plain_label("", "second", wraps=True)
        self.add_body(bar, 0)
        self.add_body(self.words, 0)
        self.add_body(self.view)
        self._warned = ""

    def turn(self, medium: Medium | None) -> None:
        """Shows another medium, or the pin cards."""
        self.medium = medium
        self.refresh()

    def again(self) -> tuple[Label, ...]:
        """The labels of this medium that must be printed again."""
        if self.medium is None:
            return ()
        return to_print_again(self.session.evaluation.get(LABELS), self.medium, self.session.records)

    def refresh(self) -> None:
        """Shows the labels of now."""
        for medium, button in self._buttons.items():
            button.setChecked(medium is self.medium)
        again = self.again()
        self.changed.setEnabled(bool(again))
        if not again:
            self.changed.setChecked(False)
        self.sheet.setEnabled(self.medium is not None)
        self.view.show_drawing(self._drawing(again))
        self.words.setText(self._said(again))

    def _drawing(self, again: tuple[Label, ...]) -> Drawing:
        evaluation = self.session.evaluation
        if self.medium is None:
            return draw_cards(evaluation.get(CARDS))
        sheet = self.sheet_of()
        if sheet is not None:
            return below_each_other(sheet_pages(self._fitting(self._chosen_labels()), sheet), self.medium.value)
        return draw_medium(evaluation.get(LABELS), self.medium, again if self.changed.isChecked() else None)

    def sheet_of(self) -> LabelSheet | None:
        """The sheet that the labels of this medium are printed on; None for plain paper."""
        sheets = self.session.job.label_sheets
        return next((sheet for sheet in sheets if self.medium and sheet.medium == self.medium.value), None)

    def _fitting(self, labels: Sequence[Label]) -> tuple[Label, ...]:
        return tuple(label for label in labels if not misfit_texts(label))

    def _ask_sheet(self) -> None:
        if self.medium is None:
            return
        dialog = SheetDialog(self, self.medium, self.sheet_of())
        if dialog.exec():
            self.take_sheet(None if dialog.plain else dialog.sheet)

    def take_sheet(self, sheet: LabelSheet | None) -> None:
        """Prints the labels of this medium on a sheet, or on plain paper."""
        if sheet is not None:
            self.session.edit(f"sheet for {sheet.medium}", SetLabelSheet(sheet))
        elif self.medium is not None:
            self.session.edit(f"plain paper for {self.medium.value}", DropLabelSheet(self.medium.value))
        self.refresh()

    def _said(self, again: tuple[Label, ...]) -> str:
        evaluation = self.session.evaluation
        if self.medium is None:
            cards = evaluation.get(CARDS)
            clamps = sum(bool(pin.number) for card in cards for pin in card.pins)
            return (
                f"{len(cards)} devices, {clamps} clamps with a number. Cut off the row above and below a device as one "
                "strip and put it beside its clamps before the wires go in."
            )
        shown = evaluation.get(LABELS).on(self.medium)
        width, height = shown[0].size if shown else (0.0, 0.0)
        count = sum(label.copies for label in shown)
        text = f"{count} to print, {width:g} × {height:g} mm each"
        sheet = self.sheet_of()
        if sheet is not None:
            sheets = sheet.sheets_for(count)
            text += f". {sheet.name}: from place {sheet.used + 1}, {sheets} {'sheet' if sheets == 1 else 'sheets'}"
            left = sheet.labels_left
            text += "" if left is None else f", {left} labels on the shelf" + (": too few" if left < count else "")
        if self.medium is Medium.WIRE:
            text += ", in pairs for both ends, in the order of the batches"
        if again:
            text += f". {sum(label.copies for label in again)} differ from what was printed: reprint them"
        faults = self.faults() if evaluation.has(RULES) else ""
        return f"{text}. Resolve first: {faults}" if faults else f"{text}."

    def show_derived(self) -> None:
        """The rules have been judged: what they find wrong on the labels is said."""
        self.words.setText(self._said(self.again()))

    def faults(self) -> str:
        """What would be wrong on the labels, or ""."""
        found_labels = [
            finding.message
            for result in self.session.evaluation.get(RULES)
            if result.code in CHECKED
            for finding in result.findings
            if finding.verdict is Verdict.FAILS
        ]
        more = f" And {len(found_labels) - WIDEST_WORDS} more." if len(found_labels) > WIDEST_WORDS else ""
        return " ".join(found_labels[:WIDEST_WORDS]) + more

    def _ask_file(self) -> None:
        faults = self.faults()
        if faults and faults != self._warned:
            self._warned = faults
            self.session.say(f"Not printed yet. {faults} Press Print again to print anyway.", wrong=True)
            return
        name = f"{file_stem(self.session.job)}_{self.medium.value if self.medium else 'pin cards'}.pdf".replace(
            " ", "_"
        )
        path, _ = QFileDialog.getSaveFileName(self, "Print labels", name, "PDF (*.pdf)")
        if path:
            self.print_to(Path(path))

    def _pages(self, evaluation: Evaluation[Job], only: tuple[Label, ...]) -> Sequence[Drawing]:
        if self.medium is None:
            return card_pages(evaluation.get(CARDS))
        sheet = self.sheet_of()
        if sheet is not None:
            return sheet_pages(only, sheet, outlines=False)
        return label_pages(evaluation.get(LABELS), self.medium, only)

    def _chosen_labels(self) -> tuple[Label, ...]:
        """What is shown of the medium: all of it, or what has changed."""
        if self.medium is None:
            return ()
        return self.again() if self.changed.isChecked() else self.session.evaluation.get(LABELS).on(self.medium)

    def print_to(self, path: Path) -> None:
        """Writes what is shown as a PDF at true size; its numbers count as printed from then on."""
        shown, evaluation = self._chosen_labels(), self.session.evaluation
        only = tuple(label for label in shown if not misfit_texts(label))
        try:
            whole = self.sheet_of() is not None
            export_drawings(evaluation, self._pages(evaluation, only), path, to_scale=True, whole=whole)
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        words = self._remember(shown, only)
        if words:
            self.session.say(f"The labels are in {path}. {words}")

    def _remember(self, shown: tuple[Label, ...], only: tuple[Label, ...]) -> str:
        """Records what is printed; returns what is said of it, "" where it could not be recorded."""
        session, medium = self.session, self.medium
        if session.read_only:
            return "The job is open read-only: it does not remember them."
        if medium is not None and not session.record_all(print_entries(session.evaluation.get(LABELS), medium, only)):
            return ""
        if not session.edit("labels printed", KeepPrinted()):
            return ""
        sheet = self.sheet_of()
        if sheet is not None:
            count = sum(label.copies for label in only)
            session.edit(f"{count} labels used", UseLabels(sheet.medium, count))
        return f"Printed numbers are reserved and will not be reused.{left_out(shown)}"

    def print_job(self) -> PrintJob:
        """The labels that are shown, at true size."""
        shown, name = self._chosen_labels(), self.medium.value if self.medium else "pin cards"
        only = tuple(label for label in shown if not misfit_texts(label))

        def write(evaluation: Evaluation[Job], path: Path) -> int:
            pages = self._pages(evaluation, only)
            if pages:
                export_drawings(evaluation, pages, path, to_scale=True, whole=self.sheet_of() is not None)
            return len(pages)

        return PrintJob(
            f"Labels, {name}",
            f"{file_stem(self.session.job)}_{name}.pdf".replace(" ", "_"),
            write,
            lambda: self._remember(shown, only),
            self.faults,
            "What is printed is recorded, and its numbers will not be reused.",
        )

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Marks the labels of what is chosen."""
        self.view.select(frozenset({key}))
