"""What the nameplate says, and which of it the rulebook asks for: every item of its list, each missing one named."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.job import ApprovalMarks, Enclosure, Load, Source, Supply
from riktig.core.schematic import Circuits
from riktig.core.short_circuit import ShortCircuit
from riktig.core.sizing import Sizing
from riktig.core.standards import table

__all__ = ["NameplateField", "NameplateInputs", "nameplate_fields"]


@dataclass(frozen=True, slots=True)
class NameplateField:
    """One thing the nameplate says. Required by the rulebook or not; ``clause`` is what asks for it."""

    name: str
    value: str
    required: bool
    clause: str = ""


@dataclass(frozen=True, slots=True, eq=False)
class NameplateInputs:
    """What a nameplate says it of: the texts of the job, and what is behind its ratings."""

    maker: str
    number: str
    serial: str
    made: str
    standard: str
    marks: ApprovalMarks
    drawing_number: str
    supply: Supply
    enclosure: Enclosure
    sources: tuple[Source, ...]
    loads: tuple[Load, ...]
    circuits: Circuits
    sizing: Sizing
    short_circuit: ShortCircuit
    control_v: float
    north_american: bool

    @property
    def main_breaker_a(self) -> float:
        """The rated current of a main switch that protects too, A; 0 where it only switches."""
        for device in self.circuits.devices:
            if device.kind.can(Can.MAIN_SWITCH) and device.kind.is_protective:
                return self.sizing.parts[device.id].rated_a
        return 0.0


def nameplate_fields(inputs: NameplateInputs) -> tuple[NameplateField, ...]:
    """What the nameplate says, in its order; what the rulebook asks for and is empty is there without a value.

    The short-circuit rating is that of the panel by its weakest part, never what the supply gives or the main breaker
    breaks. Which standard the panel was made to and which mark it carries, its maker says: Riktig proposes none.

    Source:
        ``nameplate_fields.csv``: IEC 60204-1 16.4, IEC 61439-1 6.1, NFPA 79 16.4, NEC 409.110, UL 508A 52 to 55, from
        memory.

    Args:
        inputs: Of the panel.
    """
    market = "north_american" if inputs.north_american else "iec"
    wanted = {
        "required": True,
        "with motors": any(load.is_motor for load in inputs.loads),
        "with a breaker": inputs.main_breaker_a > 0,
        "with several": bool(inputs.sources),
        "when marked": bool(inputs.marks.panel or inputs.marks.number or inputs.marks.date),
    }
    return tuple(
        NameplateField(
            row["name"], _VALUES[row["name"]](inputs), wanted.get(row[market], False), row[f"clause_{market}"]
        )
        for row in table("nameplate_fields").rows
    )


def _supply(inputs: NameplateInputs) -> str:
    supply = inputs.supply
    return f"{supply.system_name} {supply.voltage_name} {supply.frequency_hz:g} Hz"


def _rating(inputs: NameplateInputs) -> str:
    rating = inputs.short_circuit.rating
    return f"{rating.ka:g} kA at {rating.volts:g} V" if rating.is_known else ""


def _largest(inputs: NameplateInputs) -> str:
    return f"{inputs.sizing.largest_a:g} A" if inputs.sizing.largest_a else ""


def _supplies(inputs: NameplateInputs) -> str:
    count = 1 + len(inputs.sources)
    return f"{count}: switch off all before work, see their plates" if count > 1 else ""


def _breaker(inputs: NameplateInputs) -> str:
    return f"{inputs.main_breaker_a:g} A" if inputs.main_breaker_a else ""


_VALUES: Mapping[str, Callable[[NameplateInputs], str]] = {
    "Maker": lambda inputs: inputs.maker,
    "Designation": lambda inputs: inputs.number,
    "Serial number": lambda inputs: inputs.serial,
    "Made": lambda inputs: inputs.made,
    "Standard": lambda inputs: inputs.standard,
    "Panel mark": lambda inputs: inputs.marks.panel,
    "Number of the mark": lambda inputs: inputs.marks.number,
    "Document": lambda inputs: inputs.drawing_number,
    "Supply": _supply,
    "Full-load current": lambda inputs: f"{inputs.sizing.full_load_a:g} A",
    "Largest motor": _largest,
    "Short-circuit rating": _rating,
    "Main protection": _breaker,
    "Supplies": _supplies,
    "Enclosure type": lambda inputs: inputs.enclosure.rating,
    "Control voltage": lambda inputs: f"{inputs.control_v:g} V" if inputs.control_v else "",
}
"""By the names of the table."""
