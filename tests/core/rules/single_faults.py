"""Single faults put into the demonstrations: each by the smallest change, with the clause that has to find it.

Common practice, no source: what is likely to be wrong in a panel, chosen so that every clause is broken at least once.
A fault is put into the job where a builder can make it through the window, else into the panel as derived.
"""

# ruff: noqa: E501 - one fault a line, as a table is read

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cache

from tests.core.rules import spoiling as by
from tests.shared_plan import plan_for

from riktig.core.catalogue import parts_of
from riktig.core.job import (
    Access,
    Command,
    ControlSupply,
    Coordination,
    Duty,
    ElementId,
    EndStyle,
    Insertable,
    Job,
    LoadKind,
    MarkedWires,
    OverloadContact,
    OwnDevice,
    Param,
    Recipe,
    RunLamp,
    Start,
    UpstreamDevice,
    add_load,
    add_source,
    change_load,
    override,
    set_enclosure,
    set_heading,
    set_practice,
    set_supply,
)  # fmt: skip
from riktig.core.labels import Medium
from riktig.core.rules import VIEW, Verdict, View
from riktig.core.schematic import add_circuit, insert_contact, move_element, with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

__all__ = ["DEMOS", "FAULTS", "Fault", "sound", "spoilt"]

FAILS, JUDGE = Verdict.FAILS, Verdict.JUDGE
DEMOS: dict[str, Callable[[], Job]] = {"drum": wash_drum, "shed": kelp_shed, "fan": frost_fan}


@dataclass(frozen=True, slots=True)
class Fault:
    """A fault: what it is in words, in which demonstration, which clause finds it, how badly, and how it is made."""

    name: str
    demo: str
    code: str
    verdict: Verdict
    in_job: Callable[[Job], Job] | None = None
    in_view: Callable[[View], View] | None = None
    """Made after what is changed in the job."""


@cache
def sound(demo: str) -> View:
    """A demonstration as derived, unbroken."""
    return plan_for(DEMOS[demo]()).get(VIEW)


def spoilt(fault: Fault) -> View:
    """The panel with a fault in it."""
    view = sound(fault.demo)
    if fault.in_job is not None:
        view = plan_for(with_names_recorded(fault.in_job(DEMOS[fault.demo]()))).get(VIEW)
    return fault.in_view(view) if fault.in_view is not None else view


FAULTS = (
    # The Brief
    Fault("a reversing starter that nothing reverses", "drum", "B01", FAILS, by.first_load(start=Start.REVERSING)),
    Fault("a supply of 55 Hz", "drum", "B01", FAILS, lambda j: set_supply(j, frequency_hz=55.0)),
    Fault("nobody asked for other supplies", "drum", "B02", JUDGE, lambda j: set_heading(j, sources_asked=False)),
    Fault("a contactor written too small", "drum", "B03", FAILS, lambda j: override(j, "m1.contactor", 6.0, "x")),
    Fault("a protective conductor written too thin", "drum", "B03", FAILS, lambda j: override(j, "m1.pe", 1.0, "x")),
    Fault("a value for something that is gone", "drum", "B04", JUDGE, lambda j: override(j, "m1.star", 9.0, "x")),
    Fault("a load between line and neutral without a neutral", "drum", "B05", JUDGE,
          lambda j: set_supply(add_load(j, "light", 1.0, phases=1, start=Start.WAY), neutral=False)),
    Fault("a supply from elsewhere that feeds nothing", "drum", "B06", JUDGE,
          lambda j: add_source(j, "Fire alarm", 24.0, "the fire panel")),
    # Supply
    Fault("no neutral for what needs one", "drum", "E01", FAILS,
          lambda j: set_supply(set_practice(j, control_supply=ControlSupply.DIRECT), neutral=False)),
    Fault("a main switch that no supply of this size goes through", "drum", "E02", FAILS,
          lambda j: set_supply(j, upstream_a=400.0)),
    Fault("a supply that is too small", "drum", "E03", FAILS, lambda j: set_supply(j, upstream_a=6.0)),
    Fault("a feeder protected too high", "fan", "E24", FAILS, lambda j: set_supply(j, upstream_a=400.0)),
    Fault("a main switch for a tenth of its loads", "shed", "E29", FAILS, in_view=by.parts(["isolator"], rated_a=6.0)),
    Fault("a light ahead of every switch", "shed", "E22", FAILS,
          by.free((OwnDevice("E.x", "panel_light", "plate", "extra"),), ("in.L1", "E.x:L-N", "N"))),
    # Protection
    Fault("an overload set to one and a half times its motor", "drum", "E05", FAILS, in_view=by.setting(12.0)),
    Fault("a load that no part is made for", "drum", "E06", FAILS, lambda j: add_load(j, "giant", 160.0)),
    Fault("a supply that can give 25 kA", "shed", "E07", FAILS, lambda j: set_supply(j, fault_ka=25.0)),
    Fault("nobody said what protects the feeder", "drum", "E07", JUDGE,
          lambda j: set_supply(j, upstream_device=UpstreamDevice.UNKNOWN)),
    Fault("a breaker that breaks 3 kA", "drum", "E07", FAILS, by.own_breaker),
    Fault("a breaker left out", "drum", "E04", FAILS, in_view=by.bridged("motor_breaker", "control_breaker")),
    Fault("a motor that nothing watches", "drum", "E10", FAILS, by.motor_past_overload),
    Fault("two ways on one neutral", "drum", "E14", FAILS, by.shared_neutral, by.untied),
    Fault("a plain breaker ahead of a socket", "shed", "E15", FAILS, in_view=by.other_kind("rcd_breaker", "breaker_two")),
    Fault("a supplementary protector in a branch", "fan", "E16", FAILS, in_view=by.parts(["panel_breaker"], serves="supplementary")),
    Fault("long leads of a surge protector", "drum", "E17", JUDGE, lambda j: add_circuit(j, Recipe.SURGE),
          lambda v: by.wires(v, lambda w: replace(w, length=2000.0))),
    Fault("fuses of a transformer ten times too large", "fan", "E18", FAILS, in_view=by.parts(["fuse_two"], rated_a=30.0, rated_va=0.0)),
    Fault("a breaker fed from below", "shed", "E19", JUDGE,
          by.free((OwnDevice("F.x", "way_breaker", "plate", "extra"), by.EXTRA), ("main.L1", "<F.x:1-2 H.x:X1-X2", "N"))),
    Fault("more energy than a wire bears", "shed", "E20", FAILS, lambda j: override(j, "m2.section", 0.75, "x")),
    Fault("a cable of 500 m", "shed", "E21", FAILS, by.first_load(cable_m=500.0)),
    Fault("a light behind 40 A", "shed", "E25", FAILS, in_view=by.parts(["way_breaker"], rated_a=40.0)),
    Fault("a drive instead of a contactor: speed", "drum", "E26", JUDGE, by.first_load(start=Start.DRIVE)),
    Fault("a heater that nothing ends", "drum", "E27", JUDGE, by.first_load(kind=LoadKind.HEATER, start=Start.CONTACTOR)),
    Fault("a limited-energy supply of 10 A", "drum", "E30", FAILS, lambda j: add_circuit(j, Recipe.LIMITED_SUPPLY),
          by.parts(["limited_dc_supply"], rated_a=10.0)),
    Fault("a contactor nobody knows to be finger-safe", "drum", "E31", JUDGE, in_view=by.parts(["contactor"], ref="OWN-1")),
    Fault("bare metal in reach", "drum", "E31", FAILS, in_view=by.parts(["contactor"], ref=parts_of("zero_bar")[0].ref)),
    Fault("24 V that nothing earths", "shed", "E32", JUDGE, in_view=by.without_device("s2.XL")),
    Fault("a drive without its plate", "shed", "E33", FAILS, in_view=by.no_labels(Medium.WARNING, "charge")),
    Fault("a starter of type 1 where type 2 is asked for", "drum", "E35", FAILS,
          lambda j: set_practice(j, coordination=Coordination.TYPE_2)),
    Fault("a combination that nobody tested", "drum", "E35", JUDGE, lambda j: set_supply(j, fault_ka=25.0)),
    # Protective conductors
    Fault("a protective conductor of 0.5 mm²", "drum", "E08", FAILS, in_view=by.one_wire("green-yellow", lambda w: replace(w, mm2=0.5))),
    Fault("a door without its bond", "drum", "E09", FAILS, in_view=by.one_wire("E.door", lambda w: None)),
    Fault("a coil to earth", "drum", "E12", FAILS, by.free((by.RELAY,), ("c1.control", "K.x:A1-A2", "PE"))),
    Fault("a second root of the earth", "shed", "E13", FAILS,
          by.free((OwnDevice("XL9", "earth_link", "plate", "extra"),), ("N", "XL9:1-2", "PE"))),
    Fault("a bar that hangs on nothing", "drum", "E13", FAILS, in_view=by.one_wire("c0.X.PE", lambda w: None)),
    Fault("a drive on 2.5 mm² of earth", "drum", "E34", JUDGE, by.first_load(start=Start.DRIVE)),
    # Control circuits
    Fault("a coil taken out", "drum", "C01", FAILS, by.out("c1.K/A1-A2")),
    Fault("a third control device beside a starter fed direct", "drum", "C02", JUDGE,
          lambda j: insert_contact(j, ElementId("c1.S.stop/1-2"), Insertable.STOP_BUTTON, "second")),
    Fault("a red start", "drum", "C03", FAILS, in_view=by.parts(["start_button"], colour="red")),
    Fault("two supplies joined by a contact", "shed", "C04", FAILS,
          by.free((by.RELAY,), ("control.live", "K.x:13-14", "dc.plus"), ("control.live", "K.x:A1-A2", "control.back"))),
    Fault("a lamp without a return", "drum", "C05", FAILS,
          by.free((by.RELAY, by.EXTRA), ("c1.control", "K.x:13-14 H.x:X1-X2", "nowhere"), ("c1.control", "K.x:A1-A2", "N"))),
    Fault("a lamp without a meaning", "drum", "C06", FAILS, in_view=by.found_on(by.silent_lamps)),
    Fault("a start behind the interlock of the other way", "shed", "C07", FAILS,
          lambda j: move_element(j, ElementId("c3.KR/21-22"), ElementId("c3.S.start/3-4"))),
    Fault("phases not exchanged", "shed", "C08", FAILS, in_view=by.found_on(by.not_exchanged)),
    Fault("a monitor behind what it controls", "drum", "C09", FAILS, lambda j: add_circuit(j, Recipe.PHASE_MONITOR),
          by.found_on(by.monitor_behind)),
    Fault("a trip contact wired in at the other number", "drum", "C10", JUDGE, by.other_number),
    Fault("an interlock taken out", "shed", "C11", FAILS, by.out("c3.KR/21-22")),
    Fault("a hold taken out", "drum", "C11", JUDGE, by.out("c1.K/13-14")),
    Fault("a stop taken out", "drum", "C11", FAILS, by.out("c1.S.stop/1-2")),
    Fault("a trip contact taken out", "drum", "C11", FAILS, by.out("c1.FO/95-96")),
    Fault("a run lamp cut off", "shed", "C11", FAILS, by.out("c2.K/43-44")),
    Fault("a fuse of the circuit as large as that of the source", "shed", "C12", JUDGE, in_view=by.parts(["control_fuse"], rated_a=4.0)),
    Fault("a fan that starts by itself", "drum", "C14", JUDGE, by.first_load(command=Command.SELECTOR)),
    Fault("hand past the floats", "drum", "C15", JUDGE, by.first_load(command=Command.LEVEL)),
    Fault("an overload in the return", "drum", "C16", JUDGE, lambda j: set_practice(j, overload_contact=OverloadContact.RETURN)),
    Fault("lamps of the phases beside motors", "drum", "C17", JUDGE, lambda j: add_circuit(j, Recipe.PHASE_LAMPS)),
    Fault("a socket that the main contactor drops", "drum", "C18", JUDGE,
          lambda j: add_circuit(add_circuit(j, Recipe.PHASE_MONITOR), Recipe.SOCKET, "", (Param("fed", "behind the panel's own switch"),))),
    Fault("a run lamp beside the coil", "drum", "C19", JUDGE, lambda j: set_practice(j, run_lamp=RunLamp.COIL)),
    Fault("both crossed contacts out", "shed", "C20", FAILS, by.out("c3.K/21-22", "c3.KR/21-22")),
    Fault("a start float below its stop", "shed", "C21", FAILS, lambda j: change_load(j, j.loads[3].id, start_float_m=0.3)),
    Fault("a field contact that no input reads", "shed", "C22", FAILS, by.out("s4.B1/P-O")),
    Fault("control at 230 V in North America", "fan", "C23", FAILS,
          lambda j: set_practice(j, control_supply=ControlSupply.DIRECT)),
    Fault("an inched motor", "drum", "C24", JUDGE, by.first_load(duty=Duty.INCHING)),
    Fault("a 24 V coil on the control voltage", "drum", "E11", FAILS, by.free((by.RELAY_24,), ("c1.control", "K.x:A1-A2", "N"))),
    # Conductors and clamps
    Fault("a feeder thinner than any table", "drum", "W01", FAILS, lambda j: set_supply(j, upstream_a=300.0)),
    Fault("a control wire of 0.1 mm²", "drum", "W02", FAILS, in_view=by.one_wire("red", lambda w: replace(w, mm2=0.1))),
    Fault("a phase in green-yellow", "drum", "W03", FAILS, in_view=by.one_wire("black", lambda w: replace(w, colour="green-yellow"))),
    Fault("a neutral in black", "shed", "W03", FAILS, in_view=by.one_wire("light blue", lambda w: replace(w, colour="black"))),
    Fault("an earth in blue", "drum", "W03", FAILS, in_view=by.one_wire("green-yellow", lambda w: replace(w, colour="blue"))),
    Fault("three conductors in a clamp of one", "drum", "W04", FAILS, in_view=by.crowded),
    Fault("a motor wire of 0.5 mm²", "drum", "W05", FAILS, in_view=by.one_wire("c1.FO", lambda w: replace(w, mm2=0.5))),
    Fault("a cable without a core", "shed", "W06", FAILS, in_view=by.core_lost),
    Fault("a wire left out", "drum", "W07", FAILS, in_view=by.one_wire("c1.K", lambda w: None)),
    Fault("thin insulation beside 690 V", "drum", "W08", FAILS, lambda j: set_supply(j, voltage_v=690.0, voltage_to_neutral_v=400.0)),
    Fault("a phase on a terminal of earth's colour", "drum", "W09", FAILS, by.green_terminal),
    Fault("a jumper over the mains", "shed", "W10", FAILS, by.jumper_over_mains),
    Fault("thick wires close before a wall", "fan", "W11", FAILS, in_view=by.low_plate),
    Fault("a screen nobody landed", "drum", "W12", JUDGE, by.first_load(start=Start.DRIVE)),
    Fault("stranded wires over the hinge", "drum", "W13", JUDGE, lambda j: set_practice(j, ends=EndStyle.CRIMPS)),
    Fault("a loom that pulls", "drum", "W13", FAILS, in_view=lambda v: by.wires(v, lambda w: replace(w, length=20.0))),
    Fault("a field terminal without a mark", "drum", "W14", FAILS, in_view=by.no_marks),
    Fault("a field terminal without a torque", "drum", "W14", JUDGE, in_view=by.no_torque),
    Fault("a breaker for 440 V at 690 V", "drum", "W15", FAILS, lambda j: set_supply(j, voltage_v=690.0, voltage_to_neutral_v=400.0)),
    # Plate and door
    Fault("a duct filled beyond its limit", "drum", "P01", FAILS, in_view=by.overfull),
    Fault("a part by.pushed onto another", "drum", "P02", FAILS, by.pushed),
    Fault("no spare room", "drum", "P04", FAILS, lambda j: set_practice(j, spare_share=0.8)),
    Fault("a part without its holes", "drum", "P03", FAILS, in_view=by.without_holes),
    Fault("a hot room", "drum", "P05", FAILS, lambda j: set_enclosure(j, room_c=39.5)),
    Fault("a box for a wet place with dry fittings", "drum", "P06", FAILS, lambda j: set_enclosure(j, rating="IP69")),
    Fault("a wall far out of square", "drum", "P07", FAILS, lambda j: set_practice(j, wall_skew=60.0)),
    Fault("seven contacts on one button", "drum", "P08", FAILS, in_view=by.seven_contacts),
    Fault("a pump that anybody leaves in hand", "shed", "P09", JUDGE, lambda j: change_load(j, j.loads[3].id, access=Access.ANYONE)),
    Fault("contactors of one interlock apart", "shed", "P10", JUDGE, by.apart_on_the_plate),
    Fault("terminals away from their entry", "drum", "P11", JUDGE, by.upside_down),
    Fault("a box hung at 2.5 m", "shed", "P12", FAILS, lambda j: set_enclosure(j, above_floor=2500.0)),
    Fault("a start on the other side of its stop", "shed", "P13", JUDGE, in_view=by.crossed),
    # Marking and papers
    Fault("no maker on the nameplate", "drum", "M01", FAILS, lambda j: set_heading(j, maker="")),
    Fault("markers that hold no text", "drum", "M02", JUDGE, lambda j: set_practice(j, marked=MarkedWires.IN_DUCT)),
    Fault("no plate of what stays live", "drum", "M03", FAILS, in_view=by.no_labels(Medium.WARNING)),
    Fault("operators without legends", "drum", "M04", FAILS, in_view=by.no_labels(Medium.LEGEND)),
    Fault("a wire in a duct that goes without markers", "drum", "M02", FAILS, in_view=by.wire_in_duct_unmarked),
    Fault("two cores of the supply that carry each other's names", "drum", "E36", FAILS, in_view=by.cores_changed_over),
    Fault("a cable that is called like a device", "drum", "N04", FAILS, in_view=by.cable_like_a_device),
    Fault("a name too long for its label", "drum", "M05", FAILS, by.first_load(name="washing and rinsing drum of the second bay " * 2)),
    Fault("a door that does not warn", "drum", "M09", FAILS, in_view=by.no_labels(Medium.WARNING, "skilled")),
    Fault("one number on two potentials", "drum", "N01", FAILS, in_view=by.two_numbers),
    Fault("one tag on two lamps", "drum", "N02", FAILS, in_view=by.two_tags),
    Fault("two cards with one address", "shed", "N03", FAILS, in_view=by.two_cards),
)  # fmt: skip
