"""Labels at true size, a medium at a time; printed ones are remembered, changed ones printed again and exchanged."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QStackedWidget

from riktig.core.edits import DropLabelSheet, KeepPrinted, SetLabelSheet, UseLabels
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import PAGE_SUFFIXES, export_drawings, export_page_files, file_stem
from riktig.core.geometry import Drawing
from riktig.core.job import Job, LabelSheet
from riktig.core.keys import Key, WireKey
from riktig.core.labels import (
    CARDS,
    LABELS,
    Label,
    LabelChange,
    LabelWork,
    Medium,
    card_pages,
    draw_cards,
    draw_medium,
    label_changes,
    label_names,
    label_pages,
    misfit_texts,
    print_entries,
    replaced_entry,
    sheet_pages,
)
from riktig.core.rules import RULES, Verdict
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.measured_devices import keep_pixels_per_mm, pixels_per_mm
from riktig.desk.printing import PrintJob
from riktig.desk.session import Session
from riktig.desk.stations.labels.asking import LabelAsking
from riktig.desk.stations.labels.changes_page import ChangesPage
from riktig.desk.stations.labels.choice_bar import ChoiceBar
from riktig.desk.stations.labels.media_list import MediaList, MediumLine
from riktig.desk.stations.labels.printer_dialog import PrinterDialog
from riktig.desk.stations.labels.screen_dialog import ScreenDialog
from riktig.desk.stations.labels.sheet_dialog import SheetDialog
from riktig.desk.stations.labels.showing import WIDEST_WORDS, below_each_other, left_out
from riktig.desk.stations.labels.text_editor import TextEditor, with_draft
from riktig.desk.theme import Theme
from riktig.desk.widgets import Station, plain_label

__all__ = ["LabelsStation"]


KINDS = "PDF (*.pdf);;SVG, a file a page (*.svg);;DXF, a file a page (*.dxf)"
CHECKED = ("N01", "N02", "N04", "M02", "M05", "E36")
"""The clauses that are looked at before anything is printed."""


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
        self.view.opened.connect(self.edit_text)
        self.view.on_key = self._pressed
        self.editor = TextEditor(self.view)
        self.editor.drafted.connect(self._show_draft)
        self._draft: tuple[str, tuple[str, ...]] | None = None
        self.media = MediaList()
        self.media.turned.connect(self.turn)
        self.choice = ChoiceBar()
        self.choice.changed.connect(self.refresh)
        self.asking = LabelAsking(self, session)
        self.editor.taken.connect(self.asking.take_text)
        self.editor.plain_asked.connect(self.asking.to_plain)
        self._make_buttons()
        self.words = plain_label("", "second", wraps=True)
        self.changes = ChangesPage(self.tick, self.button)
        self.pages = QStackedWidget()
        self.pages.addWidget(self.view)
        self.pages.addWidget(self.changes)
        bar = (self.text, self.unmark, self.sheet, self.table, self.true_size, self.on_panel)
        self.add_bar((*bar, None, self.learn, self.print))
        self.add_body(self.choice, 0)
        self.add_body(self.words, 0)
        row = QHBoxLayout()
        row.addWidget(self.media)
        row.addWidget(self.pages, 1)
        self.add_body(row)
        self._warned, self._again = "", 0

    def _make_buttons(self) -> None:
        self.text = self.button("Text …", "The chosen label in your own words, with the reason (double click or F2)")
        self.text.clicked.connect(lambda: self.edit_text(self.session.selection))
        self.unmark = self.button("No marker …", "The chosen wire goes without markers: why, and who allows it")
        self.unmark.clicked.connect(lambda: self.asking.ask_unmarked(self.session.selection))
        self.sheet = self.button("Medium …", "What these labels are printed on, and where a begun one begins")
        self.sheet.clicked.connect(self._ask_sheet)
        self.table = self.button("Words …", "The company's translations and abbreviations for labels")
        self.table.clicked.connect(self.asking.ask_words)
        self.true_size = self.button("True size", "As large on this screen as on the panel", checkable=True)
        self.true_size.clicked.connect(self._to_true_size)
        self.on_panel = self.button("On the panel", "Labels that were printed and are wrong now", checkable=True)
        self.on_panel.clicked.connect(self.refresh)
        self.learn = self.button("Practice printer …", "A label printer to learn on: nothing is printed or recorded")
        self.learn.clicked.connect(lambda: PrinterDialog(self, self._fitting(self._chosen_labels()), self.theme).exec())
        self.print = self.button(
            "Save as …", "Writes these labels at true size as PDF, SVG or DXF and remembers that they are out"
        )
        self.print.clicked.connect(self._ask_file)

    def turn(self, medium: Medium | None) -> None:
        """Shows another medium, or the pin cards."""
        self.medium = medium
        self.editor.close_editor()
        self.on_panel.setChecked(False)
        self.refresh()

    def refresh(self) -> None:
        """Shows the labels of now."""
        labels, records = self.session.evaluation.get(LABELS), self.session.records
        changes = label_changes(labels, records)
        again = sum(
            change.work is LabelWork.PRINT and change.label is not None and change.label.medium is self.medium
            for change in changes
        )
        self.choice.fill(labels.on(self.medium) if self.medium else (), records, again)
        for widget in (self.choice, self.sheet, self.learn):
            widget.setEnabled(self.medium is not None)
        self.media.fill(self._lines(changes), self.medium)
        self.on_panel.setText(f"On the panel: {len(changes)}" if changes else "On the panel")
        self.pages.setCurrentWidget(self.changes if self.on_panel.isChecked() else self.view)
        self.changes.show_changes(changes)
        self.view.show_drawing(self._drawing())
        if self.true_size.isChecked():
            self._zoom_to_true_size()
        self._again = again
        self.words.setText(self._print_words(again))
        self._show_chosen()

    def _lines(self, changes: Sequence[LabelChange]) -> list[MediumLine]:
        labels = self.session.evaluation.get(LABELS)
        sheets = {sheet.medium: sheet for sheet in self.session.job.label_sheets}
        lines = []
        for medium in Medium:
            count = sum(label.copies for label in labels.on(medium))
            to_do = sum(change.medium == medium.value for change in changes)
            left = sheets[medium.value].labels_left if medium.value in sheets else None
            detail = (f"{to_do} changed, " if to_do else "") + f"{count}"
            if left is not None:
                detail += f" of {left} left" + (": too few" if left < count else "")
            lines.append(MediumLine(medium, medium.value.capitalize(), detail))
        return [*lines, MediumLine(None, "Pin cards", f"{len(self.session.evaluation.get(CARDS))}")]

    def _drawing(self) -> Drawing:
        if self.medium is None:
            return draw_cards(self.session.evaluation.get(CARDS))
        sheet, chosen = self.sheet_of(), self._chosen_labels()
        if self._draft is not None:
            chosen = with_draft(chosen, dict(self._named()), *self._draft)
        if sheet is not None:
            return below_each_other(sheet_pages(self._fitting(chosen), sheet), self.medium.value)
        is_whole = self.choice.is_whole and self._draft is None
        return draw_medium(self.session.evaluation.get(LABELS), self.medium, None if is_whole else chosen)

    def edit_text(self, key: Key | None) -> None:
        """Opens the text of the label of a thing on the picture."""
        self.session.select(key)
        self.view.reveal(key)
        named, area = self._named(), self.view.area_of(key)
        if named and area is not None:
            self.editor.open_on(named, area)
            self.view.select(frozenset())  # in the colours in which it is printed

    def _pressed(self, event: QKeyEvent) -> bool:
        if event.key() != Qt.Key.Key_F2:
            return False
        self.edit_text(self.session.selection)
        return True

    def _show_draft(self, name: str, lines: tuple[str, ...] | None) -> None:
        """Shows a label as it is typed, and whether it fits."""
        self._draft = (name, lines) if lines is not None else None
        self.view.show_drawing(self._drawing())
        if self._draft is None:
            self.view.select(frozenset({self.session.selection}))
        else:
            drafted = with_draft([label for _name, label in self._named()], dict(self._named()), *self._draft)
            misfits = [text for label in drafted for text in misfit_texts(label)]
            if misfits:
                self.editor.say_wrong(f"Does not fit this label at its least letters: {', '.join(misfits)}")

    def sheet_of(self) -> LabelSheet | None:
        """What the labels of this medium are printed on; None for plain paper."""
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
        """Prints the labels of this medium on a sheet, strip or roll, or on plain paper."""
        if sheet is not None:
            self.session.edit(f"medium for {sheet.medium}", SetLabelSheet(sheet))
        elif self.medium is not None:
            self.session.edit(f"plain paper for {self.medium.value}", DropLabelSheet(self.medium.value))
        self.refresh()

    def _named(self) -> list[tuple[str, Label]]:
        """The labels of this medium on what is chosen, with their names."""
        labels, key = self.session.evaluation.get(LABELS).labels, self.session.selection
        return [
            (name, label)
            for name, label in zip(label_names(labels), labels, strict=True)
            if label.medium is self.medium and label.key == key
        ]

    def _show_chosen(self) -> None:
        """What can be done with the chosen label."""
        named, key = self._named(), self.session.selection
        self.text.setEnabled(bool(named))
        unmarked = self.asking.is_unmarked(key)
        self.unmark.setEnabled(isinstance(key, WireKey) and (bool(named) or unmarked))
        self.unmark.setText("Mark it again" if unmarked else "No marker …")
        self.unmark.setVisible(self.medium is Medium.WIRE)

    def _to_true_size(self) -> None:
        if not self.true_size.isChecked():
            self.view.fit()
            return
        screen = self.screen().name()
        if not pixels_per_mm(screen):
            dialog = ScreenDialog(self, self.logicalDpiX() / 25.4)
            if not dialog.exec():
                self.true_size.setChecked(False)
                return
            keep_pixels_per_mm(screen, dialog.pixels)
        self._zoom_to_true_size()

    def _zoom_to_true_size(self) -> None:
        wanted = pixels_per_mm(self.screen().name())
        if wanted and abs(self.view.scale - wanted) > 1e-6:
            self.view.zoom(wanted / self.view.scale)

    def tick(self, changes: Sequence[LabelChange]) -> None:
        """Records that labels were exchanged on the panel, or taken off it."""
        self.session.record_all([replaced_entry(change) for change in changes])

    def _print_words(self, again: int) -> str:
        evaluation = self.session.evaluation
        if self.medium is None:
            cards = evaluation.get(CARDS)
            clamps = sum(bool(pin.number) for card in cards for pin in card.pins)
            return (
                f"{len(cards)} devices, {clamps} clamps with a number. Cut off the row above and below a device as one "
                "strip and put it beside its clamps before the wires go in."
            )
        labels, shown = evaluation.get(LABELS), self._chosen_labels()
        width, height = shown[0].size if shown else (0.0, 0.0)
        count = sum(label.copies for label in shown)
        text = f"{count} to print" + (f", {width:g} × {height:g} mm each" if shown else "")
        sheet = self.sheet_of()
        if sheet is not None:
            sheets, noun = sheet.sheets_for(count), sheet.form.noun
            text += f". {sheet.name}: from place {sheet.used + 1}, {sheets} {noun if sheets == 1 else noun + 's'}"
            left = sheet.labels_left
            text += "" if left is None else f", {left} labels on the shelf" + (": too few" if left < count else "")
        if self.medium is Medium.WIRE:
            text += ", in pairs for both ends, in the order of the batches"
        if again:
            text += f". {again} differ from what was printed: reprint them"
        if labels.untranslated:
            text += f". {len(labels.untranslated)} texts are not in the company's table of words yet"
        faults = self.faults() if evaluation.has(RULES) else ""
        return f"{text}. Resolve first: {faults}" if faults else f"{text}."

    def show_derived(self) -> None:
        """The rules have been judged: what they find wrong on the labels is said."""
        self.words.setText(self._print_words(self._again))

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
            self.session.say(f"Not printed yet. {faults} Press Save again to print anyway.", wrong=True)
            return
        name = f"{file_stem(self.session.job)}_{self.medium.value if self.medium else 'pin cards'}.pdf".replace(
            " ", "_"
        )
        path, _ = QFileDialog.getSaveFileName(self, "Print labels", name, KINDS)
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
        """What is shown of the medium: all of it, or what was chosen of it."""
        if self.medium is None:
            return ()
        session = self.session
        return self.choice.chosen(session.evaluation.get(LABELS), self.medium, session.records, session.selection)

    def print_to(self, path: Path) -> None:
        """Writes what is shown at true size; its numbers count as printed from then on."""
        shown, evaluation = self._chosen_labels(), self.session.evaluation
        only = self._fitting(shown)
        try:
            pages, whole = self._pages(evaluation, only), self.sheet_of() is not None
            if path.suffix.lower() in PAGE_SUFFIXES:
                export_page_files(pages, path)
            else:
                export_drawings(evaluation, pages, path, to_scale=True, whole=whole)
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        words = self._remember(shown, only)
        if words:
            self.session.say(f"The labels are in {path}. {words}")

    def _remember(self, shown: tuple[Label, ...], only: tuple[Label, ...]) -> str:
        """Records what is printed; returns what is said of it, "" where it could not be recorded."""
        session, medium, sheet = self.session, self.medium, self.sheet_of()
        if session.read_only:
            return "The job is open read-only: it does not remember them."
        on = sheet.name if sheet else ""
        labels = session.evaluation.get(LABELS)
        if medium is not None and not session.record_all(print_entries(labels, medium, only, on=on)):
            return ""
        if not session.edit("labels printed", KeepPrinted()):
            return ""
        if sheet is not None:
            count = sum(label.copies for label in only)
            session.edit(f"{count} labels used", UseLabels(sheet.medium, count))
        return f"Printed numbers are reserved and will not be reused.{left_out(shown)}"

    def print_job(self) -> PrintJob:
        """The labels that are shown, at true size."""
        shown, name = self._chosen_labels(), self.medium.value if self.medium else "pin cards"
        only = self._fitting(shown)

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
            true_size=True,
        )

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Marks the labels of what is chosen; a text that is being typed elsewhere is left."""
        self.editor.leave_unless({name for name, _label in self._named()})
        self.view.select(frozenset({key}))
        self._show_chosen()
