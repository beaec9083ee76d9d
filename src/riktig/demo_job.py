"""The demonstrations: a kelp drying shed and an orchard's frost fan. All is invented; each is made once."""

import json
from collections.abc import Callable
from dataclasses import replace
from functools import cache
from pathlib import Path
from typing import Any

from riktig.core.job import (
    Access,
    Command,
    Direction,
    Distribution,
    Enclosure,
    EnclosureMounting,
    EntrySide,
    Form,
    Isolation,
    Job,
    LoadKind,
    Protection,
    Rulebook,
    Start,
    Supply,
    UpstreamDevice,
    Wetting,
    add_load,
    add_signal,
    add_source,
    change_source,
    new_job,
    set_box,
    set_enclosure,
    set_practice,
)
from riktig.core.schematic import with_names_recorded
from riktig.core.store import dump_job, load_job

__all__ = ["DEMOS", "demo_job", "frost_fan", "kelp_shed", "wash_drum"]

PLATES = Path(__file__).parent / "assets" / "demo_plates.json"


@cache
def wash_drum() -> Job:
    """The shed's wash drum alone: one direct-on-line starter, drawn to the last wire."""
    job = new_job("KS-0417", "Kelp drying shed, wash drum")
    job = replace(
        job,
        client="Holmvik Kelp",
        drawing_number="KS-0417-10",
        revision="B",
        maker="Riktig demonstration shop",
        serial="0417-01",
        made="2026-11",
        standard="IEC 61439-2, IEC 60204-1",
        supply=Supply(
            upstream_a=20.0, fault_ka=6.0, name="Incoming supply, shed board", upstream_device=UpstreamDevice.FUSES
        ),
        sources_asked=True,
    )
    job = add_load(job, "wash drum", 4.0, place="wash bay", cable_m=14.0)
    return with_names_recorded(job)


@cache
def kelp_shed() -> Job:
    """The kelp drying shed on an invented island, 400/230 V, 50 Hz: eight loads."""
    job = new_job("KS-0418", "Kelp drying shed")
    job = replace(
        job,
        client="Holmvik Kelp",
        drawing_number="KS-0418-10",
        revision="A",
        maker="Riktig demonstration shop",
        serial="0418-01",
        made="2026-12",
        standard="IEC 61439-2, IEC 60204-1",
        supply=Supply(
            upstream_a=80.0,
            fault_ka=6.0,
            name="Incoming supply, shed board",
            fed_from="shed board",
            upstream_device=UpstreamDevice.FUSES,
        ),
    )
    job = add_load(job, "drying fan", 11.0, place="drying hall", cable_m=24.0, start=Start.STAR_DELTA)
    fan = job.loads[-1].id
    job = add_load(job, "wash drum", 4.0, place="wash bay", cable_m=14.0)
    job = add_load(
        job,
        "rake carriage",
        1.5,
        place="drying hall",
        cable_m=30.0,
        start=Start.REVERSING,
        command=Command.BOTH_WAYS,
        protection=Protection.PROTECTOR,
    )
    rake = job.loads[-1].id
    job = add_load(
        job,
        "brine pump",
        2.2,
        place="pump pit",
        cable_m=18.0,
        command=Command.LEVEL,
        access=Access.KEY,
        level_alarm=True,
        stop_float_m=0.4,
        start_float_m=1.2,
        alarm_float_m=1.8,
        isolation=Isolation.LOCAL,
        reason="The key keeps the pump from being left in hand with the pit dry.",
    )
    pump = job.loads[-1].id
    job = add_load(
        job, "infeed belt", 1.1, place="loading door", cable_m=12.0, start=Start.DRIVE, command=Command.CONTROLLER
    )
    belt = job.loads[-1].id
    way: dict[str, Any] = {
        "phases": 1,
        "start": Start.WAY,
        "command": Command.ALWAYS,
        "run_lamp": False,
        "trip_lamp": False,
    }
    job = add_load(job, "hall lighting", 1.2, place="drying hall", cable_m=40.0, kind=LoadKind.LIGHTING, **way)
    job = add_load(job, "bench sockets", place="wash bay", nameplate_a=10.0, cable_m=16.0, kind=LoadKind.SOCKETS, **way)
    job = add_load(
        job,
        "panel services",
        0.3,
        place="in the panel",
        cable_m=2.0,
        kind=LoadKind.OTHER,
        maintained=True,
        reason="Light, service socket and heater: light to work by, and a dry panel over the winter.",
        **way,
    )
    for name, what in (("low float", pump), ("start float", pump), ("high-level float", pump)):
        job = add_signal(job, name, place="pump pit", load=what)
    for name in ("rake end switch, hall", "rake end switch, door"):
        job = add_signal(job, name, place="drying hall", load=rake)
    job = add_signal(job, "belt photocell", place="loading door", wetting=Wetting.DC, watts=1.5, load=belt)
    job = add_signal(
        job,
        "belt speed",
        place="in the panel",
        direction=Direction.OUT,
        form=Form.ANALOGUE,
        wetting=Wetting.DC,
        load=belt,
    )
    job = add_signal(job, "hall door contact", place="drying hall", wetting=Wetting.FOREIGN, load=fan)
    job = add_source(job, "Fire alarm interlock", 24.0, "the shed's fire panel")
    job = change_source(job, job.sources[-1].id, protected_a=2.0)
    job = set_practice(job, distribution=Distribution.BLOCKS, duct_width=60.0)
    job = set_box(job, 1000.0, 1400.0, 400.0)
    return with_names_recorded(
        set_enclosure(job, environment="indoors, damp and salty", rating="IP65", above_floor=300.0)
    )


@cache
def frost_fan() -> Job:
    """An orchard's frost fan by the North American rulebook, 480 V, 60 Hz."""
    job = new_job("FF-0093", "Orchard frost fan")
    job = set_practice(job, rulebook=Rulebook.UL)
    job = replace(
        job,
        client="Redgate Orchard",
        drawing_number="FF-0093-10",
        revision="A",
        maker="Riktig demonstration shop",
        serial="0093-01",
        made="2026-12",
        supply=Supply(
            voltage_v=480.0,
            voltage_to_neutral_v=277.0,
            frequency_hz=60.0,
            neutral=False,
            upstream_a=100.0,
            fault_ka=10.0,
            name="Incoming supply, pump house",
            fed_from="pump house",
        ),
        enclosure=Enclosure(
            room_c=25.0,
            standing=EnclosureMounting.FREE,
            environment="outdoors, beside the tower",
            rating="Type 4",
            entry=EntrySide.BOTTOM,
        ),
        sources_asked=True,
    )
    job = add_load(
        job,
        "frost fan",
        hp=40.0,
        place="tower",
        cable_m=35.0,
        start=Start.SOFT,
        command=Command.SELECTOR,
        service_factor=1.15,
    )
    fan = job.loads[-1].id
    job = add_load(job, "head turning gear", hp=1.0, place="tower", cable_m=35.0, service_factor=1.15)
    job = add_load(
        job,
        "gear oil heater",
        1.0,
        place="tower",
        cable_m=35.0,
        kind=LoadKind.HEATER,
        phases=2,
        start=Start.CONTACTOR,
        command=Command.SELECTOR,
    )
    job = add_signal(job, "frost thermostat", place="orchard row 12", load=fan)
    return with_names_recorded(set_box(job, 600.0, 1200.0, 300.0))


DEMOS: dict[str, Callable[[], Job]] = {"kelp-shed": kelp_shed, "frost-fan": frost_fan, "wash-drum": wash_drum}
"""The demonstrations as their Briefs give them, before their plates are planned."""


@cache
def demo_job(name: str = "kelp-shed") -> Job:
    """The demonstration of that name with its plate as ``tools/plan_demos.py`` planned it.

    Raises:
        KeyError: there is none.
    """
    document = json.loads(dump_job(DEMOS[name]()))
    document["job"]["plate"] = json.loads(PLATES.read_text(encoding="utf-8"))[name]
    return load_job(json.dumps(document))
