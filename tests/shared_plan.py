"""Plans that tests share: an equal job is worked out once in a process, however many tests look at it.

A test that asks whether two computations agree, or that counts them, makes its plans itself with ``Evaluation``.
"""

from collections import OrderedDict

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.store import dump_job

__all__ = ["one_of_equal", "plan_for"]

MOST = 300
"""Jobs that are kept: a plan of a small one takes some 2 MB, and most are small."""

_SHARED: OrderedDict[str, tuple[Evaluation[Job], list[Evaluation[Job]]]] = OrderedDict()


def plan_for(job: Job) -> Evaluation[Job]:
    """A plan of a job of its own, with what was worked out of equal jobs before.

    What a test works out is there for the next one, unless it moved its plan to another document.
    """
    text = dump_job(job)
    shared, handed_out = _SHARED.pop(text, (Evaluation(job), list[Evaluation[Job]]()))
    for plan in handed_out:
        if plan.document is shared.document:
            shared.adopt(plan)
    own_plan = shared.fork(lambda: None)
    _SHARED[text] = shared, [own_plan]
    if len(_SHARED) > MOST:
        _SHARED.popitem(last=False)
    return own_plan


def one_of_equal(job: Job) -> Job:
    """The job of an equal plan that is kept, else the job itself: a window that opens it has the parts of the plan."""
    kept = _SHARED.get(dump_job(job))
    return kept[0].document if kept else job
