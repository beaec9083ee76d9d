"""Plans the plates of the demonstrations and writes them beside their program: run it when their parts change.

The search is long, so that a demonstration opens at once with a plate that is as good as the program can make it.
"""

import json
from pathlib import Path

from riktig.core.evaluation import Evaluation
from riktig.core.optimiser.replan import replan_of
from riktig.core.store import dump_job
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS
from riktig.timed_search import search_for

PLATES = Path(__file__).parent.parent / "src" / "riktig" / "assets" / "demo_plates.json"
SECONDS = 40.0


def main() -> None:
    """Writes the plates of all demonstrations and says what the wires come to."""
    plates: dict[str, object] = {}
    for name, make in DEMOS.items():
        job = make()
        evaluation = Evaluation(job)
        replan = replan_of(evaluation)
        planned = replan.put_into(job, search_for(replan, SECONDS))
        plates[name] = json.loads(dump_job(planned))["job"]["plate"]
        metres = [sum(wire.length for wire in Evaluation(j).get(WIRING).wires) / 1000 for j in (job, planned)]
        print(f"{name}: {metres[0]:.1f} m of wire before, {metres[1]:.1f} m planned")
    PLATES.write_text(json.dumps(plates, indent=1, sort_keys=True) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
