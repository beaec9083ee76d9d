"""Takes the pictures in docs/screenshots from the demonstration, off the screen, 1280x800.

Run: .venv/bin/python tools/screenshots.py
"""

import os
from pathlib import Path

from riktig.core.edits import SetOwnValue
from riktig.core.keys import WireKey, read_key
from riktig.core.records import NewRecord

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from PySide6.QtTest import QTest

from riktig.core.job import CircuitId
from riktig.core.production import WORK, BuildStage, Operation, tick_facts
from riktig.core.proving import DEAD_PANEL, Instrument, Outcome, reading_facts
from riktig.core.wiring import WIRING
from riktig.desk.app import application, make_window
from riktig.desk.demo_file import demo_file
from riktig.desk.shell import MainWindow
from riktig.desk.stations.brief import BriefStation
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.door import DoorStation
from riktig.desk.stations.plate import PlateStation
from riktig.desk.stations.prove import ProveStation
from riktig.desk.stations.rules import RulesStation
from riktig.desk.stations.wires import WiresStation
from riktig.desk.theme import DARK, LIGHT
from riktig.devices import LEADS_OHM, BenchMeter, SimulatedPanel

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"


def take(window: MainWindow, name: str) -> None:
    """Lets the window come to rest and saves it."""
    QTest.qWait(250)
    while window.deriver.busy:
        QTest.qWait(20)
    QTest.qWait(50)
    window.grab().save(str(FOLDER / f"{name}.png"), "PNG")
    print(name)


METER = Instrument("M-34", "4711", "2027-03-31", LEADS_OHM)
"""Invented."""


def work_a_while(window: MainWindow) -> None:
    """Some wires landed and some tests read, as on the second day."""
    session, meter = window.session, BenchMeter()
    wiring = session.evaluation.get(WIRING)
    for wire in wiring.wires[:17]:
        session.record_all([NewRecord(wire.key, tick_facts(wire, one)) for one in Operation])
    wire = wiring.wires[17]
    for one in (Operation.CUT, Operation.MARKED, Operation.LANDED_START):
        session.record(wire.key, tick_facts(wire, one))
    tasks = session.evaluation.get(WORK)
    done = (BuildStage.RECEIVE, BuildStage.HOLES, BuildStage.CUT, BuildStage.RAILS, BuildStage.FINGERS)
    session.record_all([NewRecord(task.subject, task.facts) for task in tasks if task.stage in done])
    parts = [task for task in tasks if task.stage is BuildStage.PARTS]
    session.record_all([NewRecord(task.subject, task.facts) for task in parts[: 2 * len(parts) // 3]])
    panel = SimulatedPanel(session.evaluation.get(DEAD_PANEL))
    for test, _ in session.results.readings[:29]:
        ohm = meter.read(test, panel)
        facts = reading_facts(test, Outcome.PASSED, ohm=ohm, meter=METER.noted, zero=LEADS_OHM)
        session.record(test.key, facts)


def read_twice(door: DoorStation) -> None:
    """Some dimensions of the door read by two people, of whom one has slipped."""
    measure = door.metal.measure
    keys = [one.critical.key for one in measure.judgements.values()]
    for n, key in enumerate(keys[:12]):
        for who, by in (("I. Tveit", 0.1), ("P. Aune", 0.8 if n == 11 else -0.1)):
            measure.go_to(key)
            measure.who.setText(who)
            measure.enter(round(measure.judgements[key].critical.nominal + by, 1))
    measure.go_to(keys[11])


def main() -> None:
    """Takes all pictures."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    application()
    window = make_window()
    window.session.who = "I. Tveit"
    window.show()
    session = window.session
    session.open(demo_file(session))
    window.go_to("Brief")
    brief = window.stations["Brief"]
    assert isinstance(brief, BriefStation)
    QTest.qWait(200)
    session.edit("own breaker for the wash drum", SetOwnValue("m2.breaker", 16.0, "the only size on the shelf."))
    QTest.qWait(200)
    brief.jump("Loads")
    brief.loads[session.job.loads[0].id].turn_more()
    session.select(read_key("value:m1.contactor"))
    brief.jump("Loads")
    take(window, "01-brief")
    session.select(None)
    brief.jump("Practice")
    window.go_to("Circuits")
    circuits = window.stations["Circuits"]
    assert isinstance(circuits, CircuitsStation)
    session.select(read_key("element:c4.K/A1-A2"))
    take(window, "02-circuits")
    session.select(None)
    circuits.energise()
    circuits.live.watch_circuit(CircuitId("c4"))
    for _ in range(9):
        circuits.live.watched.step()
    take(window, "18-energise")
    circuits.energise()
    session.select(read_key("device:c3.M"))
    circuits.show_trace()
    take(window, "14-trace")
    window.go_to("Plate")
    plate = window.stations["Plate"]
    assert isinstance(plate, PlateStation)
    QTest.qWait(4000)
    plate.run.start(10.0)
    while plate.run.running:
        QTest.qWait(100)
    QTest.qWait(4000)
    plate.layers.shown["Heat"].setChecked(True)
    session.select(read_key("device:c2.K"))
    take(window, "03-plate")
    plate.layers.shown["Heat"].setChecked(False)
    plate.cutting.click()
    session.select(read_key("piece:D4 lid"))
    take(window, "05-cut-list")
    plate.cutting.click()
    session.open(demo_file(session, "wash-drum"))
    window.go_to("Plate")
    session.select(read_key("device:c1.K"))
    plate.marking.click()
    plate.marking.click()
    session.open(demo_file(session))
    window.go_to("Door")
    door = window.stations["Door"]
    assert isinstance(door, DoorStation)
    session.select(read_key("device:c4.S.select"))
    QTest.qWait(4000)
    take(window, "06-door")
    session.select(None)
    door.marking.click()
    for _ in range(7):
        door.metal.mark.tick_now()
    take(window, "04-mark-out")
    door.metal.turn_to(1)
    read_twice(door)
    take(window, "19-measure-twice")
    door.metal.turn_to(2)
    door.metal.template.bar.setValue(97.0)
    door.metal.template.check_print()
    take(window, "00-template")
    door.marking.click()
    session.who = "I. Tveit"
    session.open(demo_file(session, "wash-drum"))
    window.go_to("Wires")
    session.select(read_key("wire:c1.FO:96~c1.S.stop:1"))
    work_a_while(window)
    take(window, "07-wires")
    wires = window.stations["Wires"]
    assert isinstance(wires, WiresStation)
    wires.numbers.click()
    session.select(read_key("net:c1.FO:2"))
    take(window, "16-numbers")
    wires.batches.click()
    window.go_to("Terminals")
    session.select(read_key("device:c1.X.U"))
    take(window, "08-terminals")
    window.go_to("Labels")
    session.select(read_key("device:c1.K"))
    take(window, "09-labels")
    window.go_to("Rules")
    session.select(None)
    rules = window.stations["Rules"]
    assert isinstance(rules, RulesStation)
    rules.clauses.click()
    take(window, "10-rules")
    window.go_to("Build")
    build = window.stations["Build"]
    assert isinstance(build, BuildStation)
    session.select(None)
    build.show_stage(BuildStage.PARTS)
    take(window, "11-build")
    session.select(WireKey(session.evaluation.get(WIRING).wires[17].key))
    card = build.bench.card
    card.resize(1280, 800)
    card.show_now()
    card.show()
    QTest.qWait(250)
    card.grab().save(str(FOLDER / "17-bench-card.png"), "PNG")
    card.close()
    session.select(None)
    window.go_to("Prove")
    prove = window.stations["Prove"]
    assert isinstance(prove, ProveStation)
    session.select(None)
    prove.take_meter(METER)
    wire = session.evaluation.get(WIRING).wires[20]
    prove.go_to(f"wire:{wire.key}")
    prove.take_typed("open")
    prove.show_suspects()
    window.set_theme(DARK)
    take(window, "12-prove-dark")
    window.set_theme(LIGHT)
    window.go_to("Hand over")
    take(window, "13-hand-over")
    window.close()


if __name__ == "__main__":
    main()
