"""What a plan of the plate comes to, in the words the builder reads."""

from dataclasses import dataclass

from riktig.core.catalogue import Box

__all__ = ["Reached"]


@dataclass(frozen=True, slots=True)
class Reached:
    """What a plan comes to. Lengths mm, shares 0..1.

    ``wire`` is what runs on the plate, without the door and without the ends; ``least`` what no plan falls
    below; ``best_known`` the least cost ever met for the same question, with all wishes, and ``cost`` this plan's.
    ``lacking`` says by how many mm the plate is too low, too narrow, too shallow; empty when everything fits.
    """

    wire: float
    wire_before: float
    least: float
    cost: float
    cost_before: float
    best_known: float
    proven: bool
    height: float
    plate_height: float
    free_share: float
    spare_share: float
    lacking: tuple[str, ...]
    boxes: tuple[Box, ...]

    def lines(self) -> tuple[str, ...]:
        """What it says to the builder, a line a thing."""
        lines = [
            f"wire on the plate {self.wire / 1000:.1f} m, it was {self.wire_before / 1000:.1f} m",
            f"rows take {self.height:.0f} of {self.plate_height:.0f} mm of the plate",
            f"{self.free_share:.0%} of the rail is free, the practice asks for {self.spare_share:.0%}",
        ]
        if self.proven:
            lines.append("all plans were tried: none is better")
        else:
            over = self.cost / self.best_known - 1 if self.best_known else 0.0
            known = "the best found so far" if over < 0.0005 else f"{over:.1%} above the best found so far"
            lines.append(f"{known}; proven: no plan takes less than {self.least / 1000:.1f} m of wire")
        if self.lacking:
            lines.append(f"the plate is {' and '.join(self.lacking)}")
            names = ", ".join(box.name for box in self.boxes)
            lines.append(f"standard enclosures that would do: {names}" if names else "no standard enclosure would do")
        return tuple(lines)
