"""The main window: route card, job strip, the open station, details and findings drawer."""

from pathlib import Path

from PySide6.QtGui import QCloseEvent
from PySide6.QtWidgets import QHBoxLayout, QInputDialog, QMainWindow, QVBoxLayout, QWidget

from riktig.core.edits import ApplyRemedy
from riktig.core.inputs import file_name
from riktig.core.keys import BatchKey, Key, PartKey
from riktig.core.labels import INDEX, NAME_INDEX, Index, IndexEntry, find
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, QuickFix
from riktig.core.views import details_of, statuses
from riktig.core.wiring import mini_plate
from riktig.desk.background import Work
from riktig.desk.following import Follower
from riktig.desk.photos import shown_photo
from riktig.desk.server import ServerBench, show_unmerged
from riktig.desk.session import Session
from riktig.desk.shell.arrivals import Arrivals
from riktig.desk.shell.change_order import lost_words, print_change_order
from riktig.desk.shell.commands import commands_of, print_station
from riktig.desk.shell.context_menus import ContextMenus
from riktig.desk.shell.deriver import Deriver
from riktig.desk.shell.details_panel import DetailsPanel
from riktig.desk.shell.drawing_list import DrawingList
from riktig.desk.shell.effect_panel import EffectPanel
from riktig.desk.shell.findings_drawer import FindingsDrawer
from riktig.desk.shell.go_on import Offer, go_on_from_rescued, show_message
from riktig.desk.shell.homes import HOME_OF, HOME_OF_PART, STAYS
from riktig.desk.shell.job_strip import JobStrip
from riktig.desk.shell.jobs import Jobs, keep_picture
from riktig.desk.shell.menu_bar import fill_menu_bar
from riktig.desk.shell.panes import Panes
from riktig.desk.shell.route_card import RouteCard
from riktig.desk.shell.start_page import StartPage, newest_jobs
from riktig.desk.shell.walk_panel import WalkPanel
from riktig.desk.stations import Stations
from riktig.desk.theme import DARK, LIGHT, Theme, palette, style_sheet
from riktig.desk.widgets import FieldUndo, PageStack, ScrolledPages, Station, after_paint
from riktig.devices import BenchMeter
from riktig.places import jobs_folder

__all__ = ["MainWindow"]


class MainWindow(QMainWindow):
    """Builds everything, connects it to the session, and knows the stations."""

    def __init__(self, session: Session, meter: BenchMeter | None = None) -> None:
        super().__init__()
        self.session = session
        self.theme: Theme = LIGHT
        self.setWindowTitle("Riktig")
        self.route = RouteCard()
        self.strip = JobStrip(self.search)
        self.details = DetailsPanel()
        self.drawer = FindingsDrawer()
        self.effect = EffectPanel()
        self.walk = WalkPanel(session, self.go_to)
        self.start = StartPage()
        self.stations = Stations(session, meter or BenchMeter(), self._take_in)
        self.stack = PageStack()
        self.stack.addWidget(self.start)
        self.current = ""
        self.jobs = Jobs(self)
        self.deriver = Deriver(session, self._show_derived, self._show_waiting)
        self._shell_soon = after_paint(self, self._refresh_shell)
        self._details_soon = after_paint(self, self._show_details)
        self.arrivals = Arrivals(self, self)
        FieldUndo(self)
        self.drawing_list = DrawingList(lambda: self.stations.get(self.current), lambda: self._index().entries)
        below = (self.drawing_list, self.walk, self.effect, self.drawer)
        self.panes = Panes(self, lambda: self.stations.get(self.current), self.strip, self.route, self.details, below)
        more = (("Drawing as a list", self.drawing_list.turn), ("Print …", lambda: print_station(self, self)))
        self.context_menus = ContextMenus(self, self, more)
        self._lay_out()
        self._connect()
        self.menus = fill_menu_bar(
            self,
            commands_of(self, self),
            lambda: self.stations.get(self.current),
            lambda: newest_jobs(jobs_folder(), 12),
            self.open_path,
        )
        self.resize(1280, 800)
        self.set_theme(LIGHT)
        self.show_start()
        if session.file:
            self._changed(session.job, session.job)

    def _lay_out(self) -> None:
        middle = QHBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.route)
        middle.addWidget(ScrolledPages(self.stack), 1)
        middle.addWidget(self.details)
        whole = QVBoxLayout()
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.strip)
        whole.addLayout(middle, 1)
        for pane in (self.drawing_list, self.walk, self.effect, self.drawer):
            whole.addWidget(pane)
        body = QWidget()
        body.setLayout(whole)
        self.setCentralWidget(body)

    def _connect(self) -> None:
        session = self.session
        self.follower = Follower(session, self)
        self.server = ServerBench(session, self)
        self.server.unmerged.connect(self._show_unmerged)
        self.server.stands.connect(self._show_kept)
        session.changed.connect(self._changed)
        session.records_changed.connect(self._records_changed)
        session.selected.connect(self._selected)
        session.said.connect(self.drawer.say)
        session.lost.connect(self._lost)
        session.moved.connect(self._moved)
        session.ask_why = self._ask_why
        self.route.chosen.connect(self.go_to)
        self.strip.undo_asked.connect(session.undo)
        self.strip.redo_asked.connect(session.redo)
        self.strip.theme_asked.connect(self.turn_theme)
        self.strip.jobs_asked.connect(self.show_start)
        self.strip.finder.found.connect(self._found)
        self.details.link.connect(self.show_thing)
        self.details.photo_of = lambda photo: shown_photo(session, photo.file, photo.digest)
        self.drawer.go.connect(self.show_thing)
        self.effect.go.connect(self.show_thing)
        self.effect.station_asked.connect(self.go_to)
        self.effect.print_asked.connect(lambda: print_change_order(self, self.effect.shown, self.effect.name))
        self.drawer.quick_fix.connect(self.quick_fix)
        self.drawer.try_again.connect(self._write_again)
        self.drawer.read_asked.connect(lambda text: show_message(self, text))
        self.drawing_list.chosen.connect(session.select)
        self.start.new_asked.connect(self.new_job)
        self.start.open_asked.connect(self.open_path)
        self.start.demo_asked.connect(self.open_demo)

    def _take_in(self, station: Station) -> None:
        """A station that was built: it takes its place among the others."""
        self.stack.addWidget(station)
        station.asked.connect(self.show_thing)
        station.led.connect(self.lead_to)
        self.drawing_list.watch(station)
        self.context_menus.serve(station)
        station.set_theme(self.theme)

    def set_theme(self, theme: Theme) -> None:
        """Turns everything to a theme."""
        self.theme = theme
        self.setPalette(palette(theme))
        self.setStyleSheet(style_sheet(theme))
        self.route.set_theme(theme)
        self.details.theme = theme
        for station in self.stations.there:
            station.set_theme(theme)
            station.stale = True
        self.strip.dark.setText("Light" if theme is DARK else "Dark")
        if self.current:
            self._refresh_current()
        self._selected(self.session.selection)

    def turn_theme(self) -> None:
        """Light to dark and back."""
        self.set_theme(LIGHT if self.theme is DARK else DARK)

    def show_start(self) -> None:
        """The first screen."""
        keep_picture(self.session)
        self.start.show_recent(newest_jobs(jobs_folder()))
        self.stack.setCurrentWidget(self.start)
        self.details.open_for(None)
        self.route.show_current("")
        self.current = self.session.place = ""
        self.start.number.setFocus()

    def go_to(self, name: str) -> None:
        """Opens a station."""
        if self.session.file is None:
            self.drawer.say("Start or open a job first.", True)
            return
        self.current = self.session.place = name
        self._show_steps()
        self.route.show_current(name)
        self.stack.setCurrentWidget(self.stations[name])
        self.details.open_for(self.session.selection)
        self._refresh_current()
        self.stations[name].take_focus()
        self.drawing_list.follow()

    def _refresh_current(self) -> None:
        station = self.stations.get(self.current)
        if station is None:
            return
        if station.stale:
            session = self.session
            if session.pins > station.aside_from and not all(
                session.evaluation.has(result) for result in station.needs
            ):
                station.show_waiting()
                return
            station.show_now()
            if self.deriver.is_known:
                station.show_derived()
        station.show_selection(self.session.selection)
        self.panes.follow()

    def show_thing(self, key: Key | None) -> None:
        """Goes where a thing is shown, and selects it."""
        if isinstance(key, BatchKey):
            self.go_to("Wires")
            return
        if key is not None and self.current not in STAYS.get(type(key), ()):
            self.go_to(HOME_OF_PART.get(key.name, "Brief") if isinstance(key, PartKey) else HOME_OF[type(key)])
        self.session.select(key)
        station = self.stations.get(self.current)
        if station:
            station.open_thing(key)

    def lead_to(self, name: str, key: Key | None) -> None:
        """Goes to a station, and shows a thing there when it is about one."""
        self.go_to(name)
        if key is not None:
            self.session.select(key)
            self.stations[name].open_thing(key)

    def _found(self, key: Key | None) -> None:
        self.show_thing(key)
        if self.current:
            self.stations[self.current].take_focus()

    def search(self, text: str) -> tuple[IndexEntry, ...]:
        """What is found of a text that was typed: tags, pins, wires, holes."""
        if self.session.file is None:
            return ()
        return find(self._index(), text)

    def _index(self) -> Index:
        return self.session.evaluation.get(NAME_INDEX if self.deriver.busy else INDEX)

    def _changed(self, before: object, after: object) -> None:
        self._all_stale()
        for station in self.stations.there:
            station.job_changed()
        self.strip.show_job(self.session.job)
        self._show_title()
        self._refresh_current()
        self._shell_soon.start()

    def _show_title(self) -> None:
        """The job's number, and its file where that is called otherwise."""
        number, file = self.session.job.number, self.session.file
        other = file is not None and file.path.stem != file_name(number)
        self.setWindowTitle(f"{number or 'New job'}{f' in {file.path.name}' if file and other else ''} - Riktig")

    def _records_changed(self) -> None:
        self._all_stale()
        self._refresh_current()
        self._shell_soon.start()

    def _all_stale(self) -> None:
        for station in self.stations.there:
            station.stale = True

    def _refresh_shell(self) -> None:
        """Route card, drawer and details: after the station, so that it is seen first."""
        self._show_steps()
        self.deriver.ask()

    def _show_steps(self) -> None:
        """What Undo and Redo would do, on their buttons and in the menu."""
        undo, redo = self.session.undo_name, self.session.redo_name
        self.strip.show_steps(undo, redo)
        for action in self.menus["Edit"].actions():
            word = action.text().partition(":")[0].partition("\t")[0]
            if word in ("Undo", "Redo"):
                name = undo if word == "Undo" else redo
                action.setText(f"{word}: {name.replace('&', '&&')}" if name else word)

    def _show_derived(self) -> None:
        session = self.session
        self.route.show_statuses(statuses(session.evaluation, session.records, session.out_of_step))
        self.drawer.show_results(session.evaluation.get(RULES) if session.job.loads else ())
        self._show_kept()
        if self.current:
            station = self.stations[self.current]
            if station.covered:
                self._refresh_current()
            else:
                station.show_derived()
                self.panes.follow()
        self.effect.follow(session.job, session.turned_by, self.deriver.lists)
        self._selected(session.selection)

    def _show_kept(self) -> None:
        """Whether everything is in the file, and what the server does not have yet."""
        doing = "working out wires, rules and tests …" if self.deriver.busy else self.session.edit_name
        parts = filter(None, (self.server.words, doing))
        self.drawer.show_kept(bool(self.session.unwritten), "".join(f"  ·  {part}" for part in parts))

    def _show_unmerged(self, unmerged: object) -> None:
        """Two changed the same part: somebody chooses."""
        show_unmerged(self.server, unmerged, self)

    def _show_waiting(self) -> None:
        """Wires, rules and tests are worked out aside: what is on the screen is of the job as it was."""
        self.drawer.show_waiting()
        self._show_kept()

    def _selected(self, key: Key | None) -> None:
        if self.current:
            self.details.open_for(key)
        if self.deriver.busy and key:
            self.details.show_waiting()
        station = self.stations.get(self.current)
        if station and not (self.deriver.busy and station.covered):
            station.show_selection(key)
        self._details_soon.start()

    def _show_details(self) -> None:
        """What is selected, beside the station and in the drawing as a list: the station is seen first."""
        session, key = self.session, self.session.selection
        if self.deriver.busy:
            return
        page = details_of(session.evaluation, key, session.records) if key else None
        plate = None
        if page and page.wires:
            plate = mini_plate(session.evaluation.get(LAYOUT), page.wires, page.devices)
        self.details.show_details(page, plate)
        self.drawing_list.show_selection(key, f"{page.title}, {page.kind}" if page else "")

    def _lost(self, stale: object) -> None:
        self.session.say(lost_words(self.session.lost_last, self.session.turned_by))

    def _moved(self, path: Path) -> None:
        """The work goes on in another file: that must be seen."""
        self._show_title()
        self.tell(self.drawer.message)

    def _ask_why(self, question: str) -> str:
        text, done = QInputDialog.getText(self, "Take back", question)
        return text if done else ""

    def quick_fix(self, quick_fix: QuickFix) -> None:
        """Carries a remedy out, as one edit."""
        self.session.edit(quick_fix.text, ApplyRemedy(quick_fix))

    def _write_again(self) -> None:
        self.session.write_again()
        self._refresh_shell()

    def new_job(self, number: str, title: str) -> None:
        """Starts a job of its own file."""
        self.jobs.new_job(number, title)

    def open_path(self, path: Path) -> bool:
        """Opens a job file; False when it cannot be opened, which is said."""
        return self.jobs.open_path(path)

    def open_demo(self) -> None:
        """Opens the demonstration."""
        self.jobs.open_demo()

    def tell_of_fault(self, text: str, rescued: Path | None) -> None:
        """A fault of the program, with the offer to go on from the job as it was."""
        offer = ("Go on in a new file", lambda: go_on_from_rescued(self, rescued)) if rescued else None
        self.tell(text, offer)

    def tell(self, text: str, offer: Offer | None = None) -> None:
        """A message that must be seen; ``offer`` is a button and what it does."""
        self.drawer.say(text, True)
        show_message(self, text, offer)

    def closeEvent(self, event: QCloseEvent) -> None:
        """Closes the file; what is not in it is said first, once."""
        if self.session.unwritten:
            self.session.write_again()
            if self.session.unwritten and not getattr(self, "_warned", False):
                self._warned = True
                self.tell(
                    "The last step is not in the file. Make room and press “Retry save”, or "
                    "close once more to leave without it."
                )
                event.ignore()
                return
        keep_picture(self.session)
        self.start.finder.end()
        for station in self.stations.there:
            station.shut()
        for work in self.findChildren(Work):  # papers that are being written: a thread must end before its window
            work.end()
        self.deriver.close()
        self.server.end()
        self.session.close()
        event.accept()
