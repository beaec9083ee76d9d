"""The legend of conductor colours that is put inside the door: read from the wires as they are."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from riktig.core.geometry import Align, Drawing, Face, Line, Rect, Shape, Text, run_of
from riktig.core.job import PinRef
from riktig.core.plate import box
from riktig.core.schematic import Net, NetClass, Nets
from riktig.core.wiring.bench_cards import CARD_WIDTH
from riktig.core.wiring.draw import wire_roles
from riktig.core.wiring.model import Wire, WiringStage

__all__ = ["ColourUse", "colour_legend", "draw_colour_legend"]

WIDTH, ROW, TOP = CARD_WIDTH, 11.0, 30.0
_MEANS = {
    NetClass.EARTH: "protective conductor",
    NetClass.NEUTRAL: "neutral",
    NetClass.POWER: "power",
    NetClass.CONTROL: "control, alternating",
    NetClass.DC: "control, direct",
    NetClass.EXCEPTED: "LIVE WITH THE MAIN SWITCH OFF",
}


@dataclass(frozen=True, slots=True)
class ColourUse:
    """One colour with all that it means in this panel, and how many wires have it."""

    colour: str
    means: tuple[str, ...]
    wires: int

    @property
    def said(self) -> str:
        """All that it means in one line: “power, L1, L2, L3; neutral”."""
        return "; ".join(_shortened(self.means))


def colour_legend(wires: Iterable[Wire], nets: Nets) -> tuple[ColourUse, ...]:
    """Every colour in the panel, that of most wires first.

    Args:
        wires: All wires.
        nets: All nets.
    """
    means: dict[str, dict[str, None]] = {}
    count: dict[str, int] = {}
    of_pin: Mapping[PinRef, Net] = nets.of_pin
    for wire in wires:
        means.setdefault(wire.colour, {})[_meaning(wire, of_pin[wire.net])] = None
        count[wire.colour] = count.get(wire.colour, 0) + 1
    order = sorted(count, key=lambda colour: (-count[colour], colour))
    return tuple(ColourUse(colour, tuple(sorted(means[colour])), count[colour]) for colour in order)


def _meaning(wire: Wire, net: Net) -> str:
    """What a wire carries."""
    if net.net_class is NetClass.POWER:
        if wire.stage is WiringStage.EXCEPTED:
            return _MEANS[NetClass.EXCEPTED]
        return f"power, L{net.line + 1}" if net.line >= 0 else "power"
    text = _MEANS[net.net_class]
    if net.net_class in (NetClass.CONTROL, NetClass.DC) and net.earthed:
        return f"{text}, return"
    return text


def draw_colour_legend(uses: Iterable[ColourUse], job: str) -> Drawing:
    """The legend as a card.

    Args:
        uses: The colours.
        job: Number and title of the job.
    """
    title = "Colours of the conductors"
    shapes: list[Shape] = [
        Text(4, 11, title, 5.6, face=Face.BOLD),
        Text(WIDTH - 4, 10.5, job, min(3.2, 90 / max(run_of(job, mono=False), 1.0)), "second", align=Align.RIGHT),
        Line(3, 15, WIDTH - 3, 15, "hair", 0.3),
        Text(4, 22, "To be put inside the door. Measure before you touch: a colour is no proof.", 3.0, "second"),
    ]
    y = TOP
    for use in uses:
        body, stripe = wire_roles(use.colour)
        shapes.append(box(Rect(5, y, 34, 5.0), "ink", 0.35, body, None, "card"))
        if stripe:
            shapes += [box(Rect(9 + 10 * n, y, 5, 5.0), "", 0.0, stripe, None, "card") for n in range(3)]
        text = use.said
        shapes.append(Text(43, y + 4.2, use.colour, 3.6, face=Face.BOLD))
        shapes.append(Text(78, y + 4.2, text, min(3.4, 84 / max(run_of(text, mono=False), 1.0))))
        shapes.append(Text(WIDTH - 5, y + 4.2, f"{use.wires} wires", 3.0, "second", align=Align.RIGHT))
        y += ROW
    shapes.append(box(Rect(0.5, 0.5, WIDTH - 1, y + 1.0), "line", 0.35, "", None, "card"))
    return Drawing(WIDTH, y + 2.0, tuple(shapes), title)


def _shortened(means: tuple[str, ...]) -> list[str]:
    """“power, L1, L2, L3” in place of three, “both sides” in place of one and its return."""
    lines = [text.removeprefix("power, ") for text in means if text.startswith("power, ")]
    others: list[str] = []
    for text in (text for text in means if not text.startswith("power, ")):
        if f"{text}, return" in means:
            others.append(f"{text}, both sides")
        elif text.removesuffix(", return") == text or text.removesuffix(", return") not in means:
            others.append(text)
    return [*([f"power, {', '.join(lines)}"] if lines else []), *others]
