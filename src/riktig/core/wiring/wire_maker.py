"""Makes wires of connections: way, section, colour, length and stage; what an edit left alone is not made again."""

from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.job import PinRef, TerminalTemperature, circuit_of
from riktig.core.plate import Duct
from riktig.core.schematic import NetClass
from riktig.core.sizing import Laid, circuit_of_net
from riktig.core.wiring.batch_costs import Prices, cheapest_parts
from riktig.core.wiring.choose_section import SectionChooser
from riktig.core.wiring.colours import colour_table, conductor_colour, controller_conductors
from riktig.core.wiring.connections import Connection
from riktig.core.wiring.detours import Run
from riktig.core.wiring.fill import spans_of
from riktig.core.wiring.inputs import WiringInputs
from riktig.core.wiring.model import Crowded, Wire, WireId, WiringStage, wire_key
from riktig.core.wiring.routes import Router
from riktig.core.wiring.stages import Stages
from riktig.core.wiring.wire_ends import Draft, Ends
from riktig.core.wiring.wire_ids import INSIDE_ONE

__all__ = ["KeptWires", "WireMaker"]

ROUND_TO = 10.0
"""Lengths are rounded up to this, mm (chosen by us: what a person can mark on a bench rule)."""

DraftKey = tuple[PinRef, PinRef, tuple[PinRef, ...]]
PartsKey = tuple[tuple[float, ...], float, Prices]


@dataclass(frozen=True, slots=True, eq=False)
class KeptWires:
    """The wires of a panel as it was, with all that they follow from beside the places of the parts."""

    follow_from: tuple[object, ...]
    joined: Mapping[PinRef, str]
    laid: Laid
    sections: SectionChooser
    drafts: Mapping[DraftKey, Draft]
    at: Mapping[PinRef, Sequence[Draft]]
    """What landed at each clamp."""
    wires: Mapping[WireId, tuple[Draft, str, Wire]]
    """Each wire with its draft and its number."""
    runs: Mapping[WireId, Run]
    ducts: Sequence[Duct]
    """The ducts that the runs lie in."""
    cut: Mapping[WireId, tuple[Wire, Wire]]
    """Each wire as it was made, and as it is cut."""
    parts: Mapping[PartsKey, list[list[int]]]
    """How groups of wires were parted into batches."""
    crowded: Mapping[PinRef, tuple[Crowded, ...]]
    """Of the clamps that held more than they may."""

    def still_holds(self, follow_from: tuple[object, ...], joined: Mapping[PinRef, str], laid: Laid) -> bool:
        """Whether nothing but places may have changed: the very same objects, joined in the same way."""
        same = all(old is new for old, new in zip(self.follow_from, follow_from, strict=True))
        return same and self.laid == laid and self.joined == joined


class WireMaker:
    """Makes the wires of a panel.

    Args:
        inputs: What they follow from.
        router: What knows the ways.
        joined: The pins that a jumper, a comb or a bar joins, with its name.
        kept: The wires of the panel as it was; without them the same, only slower.
    """

    def __init__(
        self, inputs: WiringInputs, router: Router, joined: Mapping[PinRef, str], kept: KeptWires | None = None
    ) -> None:
        devices, sizing = inputs.circuits.by_id, inputs.sizing
        self._devices, self._names, self._sizing = devices, inputs.names, sizing
        self.own: dict[WireId, str] = {}
        """Numbers of wires that have one of their own."""
        self._practice, self._router = inputs.practice, router
        self._colours = colour_table(inputs.practice, inputs.supply)
        self._carries = controller_conductors(inputs.circuits, inputs.nets)
        self._stages = Stages(devices, sizing, inputs.practice)
        american, warm = inputs.practice.rulebook.north_american, inputs.practice.terminal_c is TerminalTemperature.C75
        laid = Laid("B1", inputs.enclosure.ambient_c, north_american=american, terminal_c=75.0 if warm else 60.0)
        follow_from = (
            inputs.circuits,
            inputs.nets,
            inputs.names,
            sizing,
            inputs.practice,
            inputs.supply,
            inputs.one_conductor,
        )
        self._kept = kept if kept is not None and kept.still_holds(follow_from, joined, laid) else None
        self._follow_from, self._joined, self._laid = follow_from, joined, laid
        if self._kept is not None:
            self._sections = self._kept.sections.without_phases()
        else:
            self._sections = SectionChooser(devices, inputs.nets, sizing, laid, joined)
        self._drafts: dict[DraftKey, Draft] = {}
        self._wires: dict[WireId, tuple[Draft, str, Wire]] = {}
        self._runs: dict[WireId, Run] = {}
        self._ducts = inputs.layout.ducts
        self._same_ducts = self._kept is not None and self._kept.ducts == self._ducts
        self._cut: dict[WireId, tuple[Wire, Wire]] = {}
        self._parts: dict[PartsKey, list[list[int]]] = {}
        self._crowded: dict[PinRef, tuple[Crowded, ...]] = {}

    def kept(self, ends: Ends) -> KeptWires:
        """What the next look may take over.

        Args:
            ends: Those of all wires that were made.
        """
        return KeptWires(
            self._follow_from, self._joined, self._laid, self._sections, self._drafts, ends.at, self._wires,
            self._runs, self._ducts, self._cut, self._parts, self._crowded,
        )  # fmt: skip

    def tap_mm2(self, pin: PinRef) -> float:
        """What feeds a breaker, or the main contactor, from a distribution block, mm²; 0 of a small circuit."""
        if shared := self._sections.infeed(pin):
            return shared.mm2
        device = self._devices[pin.device]
        load = self._sizing.load_of(device.circuit)
        if load:
            return load.section.mm2
        return self._sizing.feeder.mm2 if device.kind.can(Can.SWITCHES_LOAD) else 0.0

    def clamp_mm2(self, pin: PinRef) -> float:
        """The thickest conductor that a clamp takes, mm²."""
        return self._sizing.parts[pin.device].clamp(pin.marking).max_mm2

    def is_infeed(self, pin: PinRef) -> bool:
        """Whether a wire to a clamp lands on the infeed of the comb or busbar that the clamp is on."""
        return self._sections.infeed(pin) is not None

    def note_phases(self, drafts: Iterable[Draft]) -> None:
        """Keeps the thickest live conductor of every circuit: its protective conductor follows."""
        self._sections.note_phases((draft.connection, draft.mm2) for draft in drafts)

    def earth_mm2(self, point: PinRef) -> float:
        """The protective conductor that a point asks for, mm²."""
        return self._sections.earth_section(point)[0]

    def draft(self, connection: Connection) -> Draft:
        """The way and the section of a wire."""
        route = self._router.route(connection.a, connection.b)
        key = (connection.a, connection.b, connection.last)
        draft = self._kept.drafts.get(key) if self._kept else None
        if draft is None or connection.net.net_class is NetClass.EARTH:  # which follows the live conductors
            mm2, why = self._sections.section(connection)
            same = draft is not None and (draft.mm2, draft.why) == (mm2, why)
            if draft is None or not same:
                draft = Draft(wire_key(connection.a, connection.b), connection, route, mm2, why)
        if draft.route is not route:
            draft = draft._replace(route=route)
        self._drafts[key] = draft
        return draft

    def run(self, draft: Draft) -> Run:
        """The wire as the ducts know it, on its shortest way."""
        run = self._kept.runs.get(draft.key) if self._kept and self._same_ducts else None
        if run is None or run.route is not draft.route or run.mm2 != draft.mm2:
            spans = spans_of(draft.route.ducts, draft.route.points, self._ducts)
            run = Run(draft.connection.a, draft.connection.b, draft.mm2, draft.route, spans)
        self._runs[draft.key] = run
        return run

    def cut(self, wire: Wire, length: float) -> Wire:
        """A wire cut to a length, mm."""
        before = self._kept.cut.get(wire.key) if self._kept else None
        cut = before[1] if before and before[0] is wire and before[1].cut == length else wire.cut_to(length)
        self._cut[wire.key] = (wire, cut)
        return cut

    def parts(self, lengths: Sequence[float], mm2: float, prices: Prices) -> list[list[int]]:
        """The batches of a group that together cost least, by the places of their wires in it."""
        key = (tuple(lengths), mm2, prices)
        parts = self._kept.parts.get(key) if self._kept else None
        self._parts[key] = cheapest_parts(lengths, mm2, prices) if parts is None else parts
        return self._parts[key]

    def crowded(self, ends: Ends, alone: Container[PinRef]) -> tuple[Crowded, ...]:
        """The clamps that hold more than they may; ``alone`` are those that the builder wants one conductor in."""
        kept = self._kept
        for pin, landed in ends.at.items():
            if kept and kept.at.get(pin) == landed:
                crowded = kept.crowded.get(pin, ())
            else:
                crowded = ends.crowded_at(pin, alone)
            if crowded:
                self._crowded[pin] = crowded
        return tuple(entry for of_clamp in self._crowded.values() for entry in of_clamp)

    def wire(self, draft: Draft, ends: Ends) -> Wire:
        """The wire itself."""
        net = draft.connection.net
        number = self.own.get(draft.key) or self._names.number.get(net.id, INSIDE_ONE)
        wire = self._kept_wire(draft, number, ends) or self._new_wire(draft, number, ends)
        self._wires[draft.key] = (draft, number, wire)
        return wire

    def _kept_wire(self, draft: Draft, number: str, ends: Ends) -> Wire | None:
        """The wire as it was, where nothing of it and nothing that shares its clamps is new."""
        kept = self._kept
        before = kept.wires.get(draft.key) if kept else None
        if kept is None or before is None or before[0] != draft or before[1] != number:
            return None
        clamps = (draft.connection.a, draft.connection.b)
        return before[2] if all(kept.at.get(pin) == ends.at[pin] for pin in clamps) else None

    def _new_wire(self, draft: Draft, number: str, ends: Ends) -> Wire:
        key, connection, route, mm2, why, detour = draft
        net = connection.net
        raw = route.length + 2 * self._practice.end_allowance
        length = -(-raw // ROUND_TO) * ROUND_TO
        stage = self._stages.of(connection, via_door=route.via_door)
        circuit = circuit_of_net(net) if stage is not WiringStage.EARTH else circuit_of(connection.b.device)
        return Wire(
            key,
            net.id,
            number,
            ends.end(connection.a, draft),
            ends.end(connection.b, draft),
            mm2,
            conductor_colour(
                net, self._colours, tapped=self._stages.is_tap(connection), carries=self._carries.get(net.id, "")
            ),
            length,
            length,
            stage,
            circuit,
            route.ducts,
            route.points,
            route.via_door,
            why,
            detour,
        )

    def label(self, pin: PinRef) -> str:
        """How a pin is called on the panel: “K1:13”, “X1:L1”."""
        owner, marking = pin
        device = self._devices[owner]
        return f"{self._names.tag[owner]}:{device.mark if device.strip else marking}"
