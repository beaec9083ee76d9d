"""The plate, with views for planning, marking out and cutting."""

from collections.abc import Sequence

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QMenu, QWidget

from riktig.core.edits import LockParts
from riktig.core.geometry import Drawing, Rect, Shape
from riktig.core.holes import METAL_HOLES, along_pieces
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, DuctKey, HoleKey, Key, RailKey
from riktig.core.plate import (
    CUT_PLAN,
    LAYOUT,
    Duct,
    Layout,
    Rail,
    Stand,
    draw_cuts,
    draw_plate,
    duct_changed,
    locked_leads,
    moved_to,
    rail_changed,
)
from riktig.core.plate.reached import Reached
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.sizing import INSIDE_AIR
from riktig.core.views import device_of
from riktig.core.wiring import BARE_PLATE_DRAWING, PLATE_DRAWING, WIRING
from riktig.desk.canvas import WORKSHOP, DrawingView
from riktig.desk.machining import MetalPages
from riktig.desk.session import Session
from riktig.desk.stations.plate.actions import PlateActions
from riktig.desk.stations.plate.cut_tick import CutTick, said_of_cuts
from riktig.desk.stations.plate.fields import PlaceFields, numbers_of
from riktig.desk.stations.plate.gestures import Host, PlateGesture
from riktig.desk.stations.plate.keys import PlateKeys
from riktig.desk.stations.plate.layers import PlateLayers
from riktig.desk.stations.plate.parts_page import PartsPage
from riktig.desk.stations.plate.plan_run import PlanRun
from riktig.desk.stations.plate.preview import misfit_shapes
from riktig.desk.stations.plate.shelf_row import ShelfRow
from riktig.desk.theme import Theme
from riktig.desk.widgets import Station, plain_label, row_of, show_only

__all__ = ["PlateStation"]


HINT = (
    "Drag parts along their rail or to another, rails and ducts too; their ends make them longer. With Shift the "
    "neighbours make room. Ctrl and click, or a frame, chooses several. Arrow keys: 1 mm, with Shift 10 mm."
)
PARTS_HINT = (
    "A part of your own is wired like its kind. Keep it, choose it above for the device it is, and it is planned with "
    "its own size. The drawing is to scale: front and side, holes in red, the room it needs dashed."
)
CUT_HINT = (
    "Every piece is marked with its name; lids between uprights are a little shorter. Holes are measured "
    "from the datum in the upper left corner: measure twice before the drill."
)


class PlateStation(Station):
    """A true-scale workshop drawing: have it planned, or drag, nudge and type; mark out, cut."""

    waits_for = "The plate is empty. Its parts come from the circuits, and these from the loads in the Brief."
    usable_empty = True

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._shown_bare = False
        self._misfits_shown: tuple[tuple[Layout, dict[DeviceId, str], float], list[Shape]] | None = None
        self.view = DrawingView("Mounting plate")
        self.view.opening = WORKSHOP
        self.measure = self.button("Measure", "Drag from point to point to measure (M)", checkable=True)
        self.view.chosen.connect(self._choose_by_click)
        self.view.clicked.connect(self._choose_one)
        self.view.use_menu(self._ask_menu)
        self.chosen: tuple[DeviceId, ...] = ()
        self.actions_ = PlateActions(session, lambda: self.chosen)
        self.view.gesture = PlateGesture(
            Host(
                self.view,
                self._layout,
                lambda: session.evaluation.get(NAMES).tag,
                lambda: locked_leads(session.job),
                lambda: self.chosen,
                self.actions_.place,
                lambda name, rails_and_ducts: self.actions_.furnish(f"move {name}", rails_and_ducts),
                self._choose,
                lambda: self.measure.isChecked(),
            )
        )
        self.keys = PlateKeys(session, self.actions_, lambda: self.chosen, lambda: self._thing(self._layout()))
        self.keys.lock_asked.connect(self._toggle_lock)
        self.keys.measure_asked.connect(lambda: self.measure.toggle())
        self.view.on_key = self.keys.take
        self.run = PlanRun(session)
        self.run.better.connect(self._show_better)
        self.run.ended.connect(self._planned)
        self._reached: Reached | None = None
        self.plan_button = self.button(
            "Plan for me", "Finds the best place for every part that is not locked, while you watch", main=True
        )
        self.plan_button.clicked.connect(self._plan)
        self.lock = self.button("Lock", "Keeps the chosen part where it is (L)", checkable=True)
        self.lock.clicked.connect(self._lock)
        self.arrange = self.button("Arrange …", "Align, spread, swap, lay out alike; rails and ducts")
        menu = QMenu(self.arrange)
        menu.aboutToShow.connect(lambda: self.actions_.fill(menu))
        self.arrange.setMenu(menu)
        self.marking = self.button("Mark-out", "Holes from the datum, measured twice, template", checkable=True)
        self.cutting = self.button("Cut list", "Rail, duct and lids by piece", checkable=True)
        self.parts_button = self.button("Parts", "Which part it is, and parts of your own", checkable=True)
        self.parts_page = PartsPage(session, lambda: self.chosen[0] if len(self.chosen) == 1 else DeviceId(""))
        self.parts_page.hide()
        self.layers = PlateLayers(self, session)
        self.layers.turned.connect(self.refresh)
        self.marking.clicked.connect(lambda: self._turn(self.marking))
        self.cutting.clicked.connect(lambda: self._turn(self.cutting))
        self.parts_button.clicked.connect(lambda: self._turn(self.parts_button))
        self.words = plain_label("", "second", wraps=True)
        self.hint = plain_label("", "quiet", wraps=True)
        self.fields = PlaceFields(self._entered)
        self.metal = MetalPages(session, "plate")
        self.metal.hide()
        bar: list[QWidget | None] = [self.plan_button, self.lock, self.arrange, self.measure]
        self.add_bar((*bar, self.marking, self.cutting, self.parts_button, self.layers, None))
        self.add_body(self.words, 0)
        row = row_of(())
        row.addWidget(self.view, 3)
        row.addWidget(self.metal, 3)
        row.addWidget(self.parts_page, 3)
        self.add_body(row)
        self.add_body(self.fields, 0)
        self.shelf = ShelfRow(session)
        self.cut_tick = CutTick(session)
        self.add_body(self.cut_tick, 0)
        self.add_body(self.shelf, 0)
        self.add_body(self.hint, 0)

    def _layout(self) -> Layout:
        return self.session.evaluation.get(LAYOUT)

    def _tags(self) -> dict[DeviceId, str]:
        return dict(self.session.evaluation.get(NAMES).tag)

    def _turn(self, to: object) -> None:
        for button in (self.marking, self.cutting, self.parts_button):
            if button is not to:
                button.setChecked(False)
        self.refresh()

    @property
    def _planning(self) -> bool:
        return not any(button.isChecked() for button in (self.cutting, self.marking, self.parts_button))

    def _drawing(self) -> Drawing:
        evaluation = self.session.evaluation
        if self.cutting.isChecked():
            screws = along_pieces(evaluation.get(METAL_HOLES), evaluation.get(LAYOUT))
            return draw_cuts(evaluation.get(CUT_PLAN), screws)
        drawing = evaluation.get(BARE_PLATE_DRAWING if self._bare else PLATE_DRAWING)
        return self.layers.without_hidden(drawing)

    @property
    def _bare(self) -> bool:
        """Whether the plate is shown without its wires, which are still worked out."""
        return not self.session.shows_wires

    def show_derived(self) -> None:
        """The wires are known: their fill and their metres are shown too."""
        if self._shown_bare:
            self.refresh()

    def refresh(self) -> None:
        """Shows the plate of now, and what does not fit."""
        self._shown_bare = self._bare
        if self.run.running:
            return
        evaluation = self.session.evaluation
        layout = self._layout()
        picking = self.parts_button.isChecked()
        marking, cutting = self.marking.isChecked(), self.cutting.isChecked()
        show_only(
            (self.metal, marking),
            (self.parts_page, picking),
            (self.view, not picking and not marking),
            (self.hint, not marking),
            (self.words, not marking),
            (self.fields, self._planning),
            (self.shelf, cutting),
            (self.cut_tick, cutting),
        )
        if marking:
            self.metal.refresh()
        if picking:
            self.parts_page.refresh()
        self.view.show_drawing(self._drawing())
        leads = {stand.block.lead for stand in layout.stands}
        self.chosen = tuple(lead for lead in self.chosen if lead in leads)
        self.words.setText(self._layout_words(layout))
        wrong = bool(layout.misfits) and self._planning
        if wrong:
            tags = self._tags()
            self.hint.setText("Does not fit: " + "; ".join(m.said(tags) for m in layout.misfits[:3]))
        else:
            self.hint.setText(HINT if self._planning else PARTS_HINT if picking else CUT_HINT)
        self.hint.setObjectName("fails" if wrong else "quiet")
        self.hint.style().unpolish(self.hint)
        self.hint.style().polish(self.hint)
        if cutting:
            self.shelf.refresh()
            self.cut_tick.refresh()
            self.words.setText(said_of_cuts(evaluation.get(CUT_PLAN)))
        self._mark()

    def _layout_words(self, layout: Layout) -> str:
        if self._reached is not None and self._planning:
            return "  ·  ".join(self._reached.lines())
        evaluation = self.session.evaluation
        metres = "…" if self._bare else f"{sum(wire.length for wire in evaluation.get(WIRING).wires) / 1000:.1f}"
        total = sum(rail.length for rail in layout.rails) or 1
        free = sum(layout.free_on(rail) for rail in layout.rails) / total
        warm = evaluation.get(INSIDE_AIR)
        text = f"wire {metres} m  ·  {free:.0%} of the rail free  ·  {warm.total_w:.0f} W, {warm.inside_c:g} °C inside"
        text += f" of {warm.limit_c:g} °C"
        return f"{text}: take {warm.remedy}" if warm.too_warm else text

    def _mark(self) -> None:
        """What is chosen, its numbers, the layers, and what does not fit."""
        layout = self._layout()
        keys: set[Key | None] = {self.session.selection}
        for stand in layout.stands:
            if stand.block.lead in self.chosen:
                keys |= {DeviceKey(device) for device in stand.block.devices} if len(self.chosen) > 1 else set()
                keys.add(DeviceKey(stand.block.lead))
        owner = device_of(self.session.selection)
        keys |= {DeviceKey(owner)} if owner else set()
        self.view.select(frozenset(keys))
        self.lock.setEnabled(bool(self.chosen))
        self.lock.setChecked(bool(self.chosen) and set(self.chosen) <= locked_leads(self.session.job))
        thing = self._thing(layout)
        self.fields.show_numbers(self._name(thing), numbers_of(layout, thing) if thing else ())
        if not self._planning:
            self.view.set_laid(())
            self.view.set_overlay(self.cut_tick.shapes(self.view.drawing) if self.cutting.isChecked() else ())
            self.cut_tick.show_piece(self.session.selection)
            return
        self.view.set_laid(self.layers.shapes(layout))
        self.view.set_overlay(self._misfit_shapes(layout))

    def _misfit_shapes(self, layout: Layout) -> list[Shape]:
        """The parts that do not fit; the same plate seen as large has the same."""
        look = (layout, self._tags(), self.view.legible())
        if self._misfits_shown is None or self._misfits_shown[0] != look:
            _, tags, size = look
            self._misfits_shown = (look, misfit_shapes(layout, tags, size))
        return self._misfits_shown[1]

    def _thing(self, layout: Layout) -> Stand | Rail | Duct | None:
        """What the numbers are of: one part, or a rail or duct."""
        chosen = self.session.selection
        if isinstance(chosen, RailKey):
            return next((rail for rail in layout.rails if rail.name == chosen.name), None)
        if isinstance(chosen, DuctKey):
            return layout.duct(chosen.name)
        return layout.stand_of(self.chosen[0]) if len(self.chosen) == 1 else None

    def _name(self, thing: Stand | Rail | Duct | None) -> str:
        if thing is None:
            return f"{len(self.chosen)} parts chosen" if len(self.chosen) > 1 else ""
        return self._tags()[thing.block.lead] if isinstance(thing, Stand) else thing.name

    def _entered(self, values: dict[str, float]) -> None:
        """A number was typed in: one edit."""
        layout = self._layout()
        thing = self._thing(layout)
        if isinstance(thing, Rail):
            changed = rail_changed(layout, thing.number, y=values["at"], x1=values["from"], x2=values["to"])
            self.actions_.furnish(f"move {thing.name}", changed)
        elif isinstance(thing, Duct):
            width, height = max(values["width"], 0.0), max(values["height"], 0.0)
            changed = duct_changed(layout, thing.number, Rect(values["x"], values["y"], width, height))
            self.actions_.furnish(f"move {thing.name}", changed)
        elif thing is not None:
            rail = layout.rail(thing.rail)
            if rail:
                self.actions_.place((moved_to(layout, thing, rail.number, values["from the rail's end"]),))
            else:
                self.actions_.place((Stand(thing.block, 0, values["x"], values["y"]),))

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)
        self.parts_page.view.set_theme(theme)

    def shut(self) -> None:
        """Ends a search that still runs."""
        self.run.wait()

    def open_thing(self, key: Key | None) -> None:
        """A hole is shown on its surface, marked out."""
        if isinstance(key, HoleKey):
            self.marking.setChecked(True)
            self._turn(self.marking)
            self.metal.show_hole(key.number)
        self.show_selection(key)

    def show_selection(self, key: Key | None) -> None:
        """Marks the chosen device with all that moves with it."""
        owner = device_of(key)
        lead = self.actions_.lead_of(owner) if owner else DeviceId("")
        if lead not in self.chosen:
            self.chosen = (lead,) if lead else ()
        if not self.run.running:
            self._mark()

    def _choose_by_click(self, key: Key | None) -> None:
        """Ctrl and click adds a part to what is chosen, or takes it out."""
        owner = device_of(key)
        lead = self.actions_.lead_of(owner) if owner else DeviceId("")
        if lead and self.view.modifiers & Qt.KeyboardModifier.ControlModifier:
            other_chosen = tuple(device_id for device_id in self.chosen if device_id != lead)
            self._choose((*other_chosen, lead) if len(other_chosen) == len(self.chosen) else other_chosen)
            return
        if lead not in self.chosen:
            self.chosen = (lead,) if lead else ()
        self.session.select(key)
        self._mark()

    def _choose_one(self, key: Key | None) -> None:
        """A plain click without a drag: of several that were chosen only this one stays so."""
        if self.view.modifiers & Qt.KeyboardModifier.ControlModifier or len(self.chosen) < 2:
            return
        owner = device_of(key)
        lead = self.actions_.lead_of(owner) if owner else DeviceId("")
        self.chosen = (lead,) if lead else ()
        self._mark()

    def _choose(self, leads: Sequence[DeviceId]) -> None:
        self.chosen = tuple(leads)
        self.session.select(DeviceKey(leads[-1]) if leads else None)
        self._mark()

    def _ask_menu(self, key: Key | None, at: QPoint) -> None:
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.actions_.fill(menu)
        self.add_common(menu, key)
        menu.popup(at)

    def _plan(self) -> None:
        if self.run.running:
            self.run.stop()
            return
        if self.session.read_only:
            self.session.say("This job is open read-only, so nothing was planned.", wrong=True)
            return
        self._reached = None
        self._turn(None)
        self.plan_button.setText("Stop")
        self.words.setText("Planning: the parts and their wires are gathered.")
        self.view.set_laid(())
        self.view.set_overlay(())
        self.run.start()

    def _show_better(self, layout: Layout | None, text: str) -> None:
        self.words.setText(text)
        if layout is not None:
            evaluation = self.session.evaluation
            spare = self.session.job.practice.spare_share
            self.view.show_drawing(draw_plate(layout, evaluation.get(CIRCUITS), evaluation.get(NAMES), None, spare))

    def _planned(self, reached: Reached | None) -> None:
        self.plan_button.setText("Plan for me")
        self._reached = reached
        self.refresh()

    def job_changed(self) -> None:
        """What was reached is no longer what is shown, and a search is of yesterday."""
        self._reached = None
        if self.run.running:
            self.run.stop(keep=False)

    def _toggle_lock(self) -> None:
        self.lock.toggle()
        self._lock()

    def _lock(self) -> None:
        locked, leads = self.lock.isChecked(), tuple(self.chosen)
        if leads:
            self.session.edit("lock" if locked else "unlock", LockParts(leads, locked))
