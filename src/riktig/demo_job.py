"""The demonstration: the wash drum of a kelp drying shed, so far alone. All of it is invented."""

from dataclasses import replace

from riktig.core.circuit import settle
from riktig.core.job import Job, Supply, add_load, new_job

__all__ = ["demo_job"]


def demo_job() -> Job:
    """The kelp drying shed on an invented island, 400/230 V, 50 Hz."""
    job = new_job("KS-0417", "Kelp drying shed, wash drum")
    job = replace(
        job,
        client="Holmvik Kelp",
        drawing_number="KS-0417-10",
        revision="B",
        maker="Riktig demonstration shop",
        serial="0417-01",
        supply=Supply(upstream_a=20.0, fault_ka=6.0, name="Incoming supply, shed board"),
    )
    job = add_load(job, "wash drum", 4.0, place="wash bay", cable_m=14.0)
    return settle(job)
