"""What the rulebooks ask and no plan can show: put as questions, with what the panel has of it."""

from riktig.core.catalogue import Can
from riktig.core.job import Duty, LoadKind
from riktig.core.keys import DeviceKey, Key, PartKey
from riktig.core.labels import Medium
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Device, outside_device

__all__ = ["BY_PERSON"]


def _devices_of(view: View, loads: list[str]) -> list[Device]:
    return [outside_device(view.circuits, size.circuit) for size in view.sizing.loads if size.load in loads]


def overspeed(view: View) -> ClauseResult:
    """Whether a load can run faster than it may: a drive can turn its motor above the speed on its plate."""
    clause = view.source("E26")
    title = "Overspeed"
    drives = [device for device in view.circuits.devices if device.kind.can(Can.VARIES_SPEED)]
    evidence = tuple(f"{view.tag(device.id)} ({device.purpose}) sets its speed" for device in drives)
    if not drives:
        none = "no drive is drawn; whether a load can pull its motor along, the risk assessment says"
        return ClauseResult("E26", Group.PROTECTION, title, clause, (), (), none)
    text = "Whether the loads behind drives may run above their speed is not to be seen in the panel."
    remedy = "Sign with the highest frequency that was set, or with what limits the speed."
    finding = Finding("E26", Verdict.JUDGE, text, DeviceKey(drives[0].id), clause, remedy)
    return ClauseResult("E26", Group.PROTECTION, title, clause, evidence, (finding,))


def abnormal_temperature(view: View) -> ClauseResult:
    """What heats has something that ends it: a thermostat in the circuit, or a person's word."""
    clause = view.source("E27")
    title = "Temperature of heaters"
    heaters = {load.id: load.name for load in view.loads if load.kind is LoadKind.HEATER}
    heating = _devices_of(view, list(heaters))
    if not heating:
        return ClauseResult("E27", Group.PROTECTION, title, clause, (), (), "no heater among the loads")
    watched = {d.circuit for d in view.circuits.devices if d.kind.can(Can.FEELS_HEAT)}
    evidence = tuple(
        f"{view.tag(device.id)}: {'a' if device.circuit in watched else 'no'} thermostat in its circuit"
        for device in heating
    )
    findings = [
        Finding("E27", Verdict.JUDGE, f"What ends the heat of {view.tag(device.id)} ({device.purpose}) is not drawn.",
                DeviceKey(device.id), clause, "Draw its limiter, or sign what limits it outside the panel.")
        for device in heating if device.circuit not in watched
    ]  # fmt: skip
    return ClauseResult("E27", Group.PROTECTION, title, clause, evidence, tuple(findings))


def held_to_run(view: View) -> ClauseResult:
    """Whether what is inched needs an enabling device or both hands, the risk assessment says."""
    clause = view.source("C24")
    title = "Enabling and two-hand control"
    inched = {load.id: load.name for load in view.loads if load.duty is Duty.INCHING}
    movers = _devices_of(view, list(inched))
    if not movers:
        none = "no load is inched; whether any other needs it, the risk assessment says"
        return ClauseResult("C24", Group.CONTROL, title, clause, (), (), none)
    names = ", ".join(view.tag(device.id) for device in movers)
    text = f"{names} {'is' if len(movers) == 1 else 'are'} inched. Whether that needs an enabling device or both hands "
    text += "is not to be seen in the panel."
    remedy = "Sign with the risk assessment of the machine as the evidence."
    finding = Finding("C24", Verdict.JUDGE, text, DeviceKey(movers[0].id), clause, remedy)
    return ClauseResult("C24", Group.CONTROL, title, clause, (f"inched: {names}",), (finding,))


def risk_assessed(view: View) -> ClauseResult:
    """The risk assessment of the machine lies before whoever decides: asked for, never made here."""
    clause = view.source("M08")
    title = "Risk assessment"
    moving = [device for device in view.circuits.devices if device.kind.is_motor or device.kind.can(Can.ACTUATES)]
    if not moving:
        return ClauseResult("M08", Group.MARKING, title, clause, (), (), "nothing that moves is drawn")
    text = "Which stops, interlocks and levels of performance the machine needs follows from its risk assessment."
    remedy = "Sign with its number and date, and who made it."
    finding = Finding("M08", Verdict.JUDGE, text, DeviceKey(moving[0].id), clause, remedy)
    evidence = (f"{len(moving)} motors and actuators; a risk assessment is no part of the plan",)
    return ClauseResult("M08", Group.MARKING, title, clause, evidence, (finding,))


PAPERS = "circuit diagram, plate and door drawing, schedules of wires, terminals, cables and parts, test sheets"


def documents_complete(view: View) -> ClauseResult:
    """Which papers can be made from the plan; whether they come with the panel, a person says."""
    clause = view.source("M07")
    title = "Documents"
    if not view.loads:
        return ClauseResult("M07", Group.MARKING, title, clause, (), (), "nothing is planned yet")
    of_plate = {field.name: field.value for field in view.labels.nameplate}
    findings = [
        Finding("M07", Verdict.JUDGE, f"The papers carry no {words}: nobody can tell which panel they are of.",
                PartKey("nameplate"), clause, "Fill it in at the head of the Brief.")
        for name, words in (("Designation", "number of the job"), ("Document", "number of their own"))
        if not of_plate.get(name)
    ]  # fmt: skip
    text = (
        "Whether the papers of this revision, and the instructions of the machine, come with the panel, a person says."
    )
    remedy = "Sign with what is handed over, and at which revision."
    findings.append(Finding("M07", Verdict.JUDGE, text, PartKey("nameplate"), clause, remedy))
    evidence = (f"can be made from the plan: {PAPERS}", "restart table, what stays live and settings among them",
                "operating instructions of the machine are its maker's",
        f"a clause that fails is accepted by {view.practice.deviation_signed_by.value}")  # fmt: skip
    return ClauseResult("M07", Group.MARKING, title, clause, evidence, tuple(findings))


def warnings_in_place(view: View) -> ClauseResult:
    """The plates that the rulebook asks for are on the list of labels."""
    clause = view.source("M09")
    title = "Warning plates"
    plates = {label.key: label for label in view.labels.on(Medium.WARNING)}
    evidence: list[str] = []
    findings: list[Finding] = []
    for name, where in _wanted(view):
        plate = plates.get(where)
        if plate is None:
            text = f"The plate “{name}” is missing."
            findings.append(Finding("M09", Verdict.FAILS, text, where, clause, "Put it back on the list of labels."))
            continue
        evidence.append(f"{name}: {' '.join(plate.lines)}")
        if plate.own:
            text = f"The plate “{name}” says “{' '.join(plate.lines)}” by the builder's word ({plate.own})."
            remedy = "Sign that it says what the rulebook asks, or take Riktig's text again."
            findings.append(Finding("M09", Verdict.JUDGE, text, where, clause, remedy))
    return ClauseResult("M09", Group.MARKING, title, clause, tuple(evidence), tuple(findings))


def _wanted(view: View) -> list[tuple[str, Key]]:
    """Which plates, and the key that each has among the labels."""
    wanted: list[tuple[str, Key]] = [("who may open the door", PartKey("skilled"))]
    if not view.rulebook.north_american:
        return wanted
    wanted += [("arc flash", PartKey("arc flash")), ("conductors of the field", PartKey("field wiring"))]
    if any(device.kind.can(Can.LIMITS_CURRENT) for device in view.circuits.devices):
        wanted.append(("fuses", PartKey("fuses")))
    return wanted


BY_PERSON = (overspeed, abnormal_temperature, held_to_run, risk_assessed, documents_complete, warnings_in_place)
