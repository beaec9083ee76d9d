"""A survey in the window: read, mended and read again, its circuits taken into the open job."""

from pathlib import Path

from PySide6.QtWidgets import QLabel

from riktig.core.exports import schedule
from riktig.core.rules import RULES, findings_of, found_circuits, is_as_found
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell.survey_dialog import SurveyDialog
from riktig.desk.stations.rules import RulesStation
from tests.desk.conftest import settle_window

EXAMPLE = Path(__file__).parents[2] / "examples" / "survey.csv"


def shown(dialog: SurveyDialog) -> list[str]:
    return [dialog.findings.item(row).text() for row in range(dialog.findings.count())]


def test_a_survey_shows_what_is_to_be_looked_at_and_its_circuits_go_into_the_job(
    window: MainWindow, session: Session
) -> None:
    dialog = SurveyDialog(session, EXAMPLE, window)
    dialog.show()
    assert dialog.said.text().startswith("5 parts, 9 wires, 7 potentials; 0 contradict themselves, 2 not known")
    assert dialog.potentials.rowCount() == 7
    assert any(text.startswith("?  The wire 5 at K1:21") for text in shown(dialog))
    before = len(session.job.circuits)
    dialog.take.click()
    assert dialog.result() == 1
    assert len(session.job.circuits) == before + 1
    assert session.job.circuits[-1].title == "as found"
    assert {device.role for device in session.job.circuits[-1].devices} == {"F1", "S1", "S2", "K1", "H1"}
    session.undo()
    assert len(session.job.circuits) == before


def test_a_sheet_that_cannot_be_read_says_where_and_is_read_again_once_mended(
    window: MainWindow, session: Session, tmp_path: Path
) -> None:
    sheet = tmp_path / "survey.csv"
    sheet.write_text("what,tag,kind,from,to\npart,K1,flux box,,\n", encoding="utf-8")
    dialog = SurveyDialog(session, sheet, window)
    assert not dialog.take.isEnabled()
    assert "survey.csv, line 2" in shown(dialog)[0]
    dialog.take_in()  # nothing was read, so nothing is taken
    sheet.write_text(
        "what,tag,kind,from,to\npart,K1,contactor,,\nsource,L1,,K1:A1,\nsource,PE,,K1:A2,\nwire,,,K1:A1,K1:13\n",
        encoding="utf-8",
    )
    dialog.read()
    assert dialog.take.isEnabled()
    assert shown(dialog) == ["In this sheet nothing contradicts itself, and every end is noted."]
    dialog.reject()


def test_findings_of_the_old_panel_stand_apart_from_those_of_the_new(window: MainWindow, session: Session) -> None:
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    window.go_to("Rules")
    settle_window()
    assert station.only_new.isHidden(), "nothing was surveyed"
    dialog = SurveyDialog(session, EXAMPLE, window)
    dialog.take_in()
    settle_window()
    assert session.job.circuits[-1].found
    old = found_circuits(session.job)
    wiring = session.evaluation.get(WIRING)
    findings = findings_of(session.evaluation.get(RULES))
    about_old = [finding for finding in findings if is_as_found(finding, old, wiring)]
    assert about_old, "the old panel has something to find"
    rows = schedule("findings", session.evaluation).rows
    assert [row[-1] for row in rows].count("as found") == len(about_old) < len(rows)
    assert not station.only_new.isHidden()
    texts = [label.text() for label in station.list.findChildren(QLabel)]
    assert any(text.startswith("As found: ") for text in texts)
    before = len(station.list.codes)
    station.only_new.setChecked(True)
    hidden = {
        result.code
        for result in session.evaluation.get(RULES)
        if result.findings and all(is_as_found(finding, old, wiring) for finding in result.findings)
    }
    assert hidden and len(station.list.codes) == before - len(hidden)
    session.undo()
    settle_window()
    assert station.only_new.isHidden() and len(station.list.codes) > before - len(hidden)
