"""How far somebody has come on the practice bench: kept with the user, never with a job."""

import json
from pathlib import Path

from riktig.core.proving import Lesson, Score

__all__ = ["PracticeProgress"]


class PracticeProgress:
    """For each lesson how often it was done, and the best cost against the best there can be.

    Args:
        path: Its file; one that is damaged or missing is begun anew.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self._done: dict[str, list[int]] = {}
        try:
            read = json.loads(path.read_text(encoding="utf-8"))
        except (OSError, ValueError):
            read = {}
        if isinstance(read, dict):
            names = {lesson.name for lesson in Lesson}
            self._done = {
                name: [int(figure) for figure in figures][:3]
                for name, figures in read.items()
                if name in names and isinstance(figures, list) and all(isinstance(f, int) for f in figures)
            }

    def add(self, lesson: Lesson, score: Score) -> None:
        """Adds a lesson that was found; a disk that is full loses it and nothing else."""
        if not score.found:
            return
        count, cost, best = (*self._done.get(lesson.name, []), 0, 0, 0)[:3]
        better = not count or score.cost - score.best < cost - best
        self._done[lesson.name] = [count + 1, *((score.cost, score.best) if better else (cost, best))]
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True)
            self.path.write_text(json.dumps(self._done), encoding="utf-8")
        except OSError:
            return

    def words(self, lesson: Lesson) -> str:
        """“found 3 times, at best with 4 for 3”, or that it was not found yet."""
        count, cost, best = (*self._done.get(lesson.name, []), 0, 0, 0)[:3]
        if not count:
            return "not found yet"
        times = "once" if count == 1 else f"{count} times"
        return f"found {times}, at best at a cost of {cost} where {best} is the least"
