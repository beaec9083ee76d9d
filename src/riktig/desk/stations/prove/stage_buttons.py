"""How far each stage of the proof is, on its button."""

from collections.abc import Mapping

from PySide6.QtWidgets import QPushButton

from riktig.core.proving import LIVE_PLAN, Outcome, ProvingStage, live_results
from riktig.desk.session import Session

__all__ = ["show_stages"]


def show_stages(buttons: Mapping[ProvingStage, QPushButton], session: Session, shut: str) -> None:
    """Writes on every button how much of its stage has passed; the live ones say that they are shut.

    Args:
        buttons: The button of every stage.
        session: The job at hand.
        shut: What keeps the live stages shut; "" when they are open.
    """
    results = session.results
    steps = live_results(session.evaluation.get(LIVE_PLAN), session.records)
    for stage, button in buttons.items():
        of_stage = [result.outcome for result in steps if result.step.stage is stage]
        total = len(of_stage) if stage.by_steps else results.tests_of(stage)
        passed = of_stage.count(Outcome.PASSED) if stage.by_steps else results.count(Outcome.PASSED, stage)
        button.setText(f"{stage.value}  " + ("shut" if shut and stage.live else f"{passed} of {total}"))
        button.setEnabled(total > 0)
        button.setToolTip(f"Shut. {shut}" if shut and stage.live else f"{passed} of {total} passed")
