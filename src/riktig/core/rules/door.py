"""Clauses about the door: what its fittings keep, whether the handle finds its shaft, who may move what."""

from riktig.core.catalogue import Can
from riktig.core.door import Behind, engagement_of, may_move, stack_of, things_behind, wiring_room
from riktig.core.geometry import near_pairs
from riktig.core.job import ShaftFitting
from riktig.core.keys import DeviceKey, HoleKey, Key, OpeningKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.standards import COMMON_PRACTICE, class_keeps

__all__ = ["DOOR_CLAUSES"]

INNER = "NFPA 79 5.3.3 and UL 508A part 2: operable with the door open, without a tool (from memory)"


def fittings_keep_the_class(view: View) -> ClauseResult:
    """A fitting of a lower class takes the whole enclosure down to its own."""
    clause = view.source("P06")
    box = view.enclosure.rating
    findings = []
    counted = unknown = unnamed = 0
    for hole in view.holes:
        if hole.face == "plate":
            continue
        where: Key = hole.where or HoleKey(hole.number)
        keeps = class_keeps(hole.rating, box) if hole.rating else None
        counted += keeps is True
        if keeps is False:
            findings.append(
                Finding(
                    "P06",
                    Verdict.FAILS,
                    f"{hole.purpose} in the {hole.face} is {hole.rating}; the enclosure is {box} and falls with it.",
                    where,
                    clause,
                    "Take a fitting of the enclosure's class, or state the lower class in the Brief.",
                )
            )
        elif keeps is None:
            unknown += 1
            unnamed += not isinstance(hole.where, OpeningKey)
            if isinstance(hole.where, OpeningKey):
                findings.append(
                    Finding(
                        "P06",
                        Verdict.JUDGE,
                        f"{hole.purpose} in the {hole.face}: nothing says whether its fitting keeps {box}.",
                        where,
                        clause,
                        "Give its class, such as IP65.",
                    )
                )
    if unnamed:
        words = f"{unnamed} fittings cannot be held against {f'“{box}”' if box else 'an enclosure without a class'}."
        remedy = "State the class in the Brief, such as IP54 or Type 12, or compare by hand and sign."
        findings.append(Finding("P06", Verdict.JUDGE, words, None, clause, remedy))
    text = f"{counted} fittings keep {box}" if counted else f"nothing to hold against {box or 'no class at all'}"
    more = (f"{unknown} cannot be compared with it",) if unknown else ()
    return ClauseResult("P06", Group.PLATE, "Every fitting keeps the class", clause, (text, *more), tuple(findings))


def handle_meets_the_shaft(view: View) -> ClauseResult:
    """The handle takes the shaft though the wall is out of square."""
    clause = COMMON_PRACTICE
    practice = view.practice
    findings, evidence = [], []
    for shaft in view.shafts:
        tag = view.tag(shaft.device)
        engaged = engagement_of(shaft, practice)
        evidence += [
            f"{tag}: shaft {shaft.length:g} mm, at {shaft.on_leaf.x:g}, {shaft.on_leaf.y:g} mm on the {shaft.leaf}",
            engaged.said,
        ]
        if not engaged.engages and practice.shaft is ShaftFitting.WORKSHOP:
            findings.append(
                Finding("P07", Verdict.FAILS, f"{tag}: {engaged.said}", DeviceKey(shaft.device), clause,
                        "Cut the hole on site, from the hung panel.", QuickFix("Cut it on site", "shaft on site"))
            )  # fmt: skip
        if practice.rulebook.north_american and not shaft.inner_handle:
            findings.append(
                Finding("P07", Verdict.FAILS, f"{tag} has no handle inside to switch it with the door open.",
                        DeviceKey(shaft.device), INNER, "Say yes to a handle inside in the incomer's circuit.")
            )  # fmt: skip
        if shaft.inner_handle:
            evidence.append(f"{tag}: a handle inside, pulled on purpose, without a tool")
        if shaft.free < 0:
            findings.append(
                Finding("P07", Verdict.FAILS, f"{tag} stands {-shaft.free:.0f} mm through the door.",
                        DeviceKey(shaft.device), clause, "Take a deeper enclosure.")
            )  # fmt: skip
    return ClauseResult("P07", Group.PLATE, "The handle meets its shaft", clause, tuple(evidence), tuple(findings))


def stacks_hold_their_contacts(view: View) -> ClauseResult:
    """No operator carries more contacts than its stack takes, and wires have room behind it."""
    clause = COMMON_PRACTICE
    behind = things_behind(view.layout, view.enclosure)
    findings, rooms, most = [], [], 0
    seats = [seat for seat in view.door.seats if not seat.is_shaft]
    near: list[list[Behind]] = [[] for _ in seats]
    for n, m in near_pairs([seat.behind for seat in seats], [thing.shadow for thing in behind]):
        near[n].append(behind[m])
    for seat, things in zip(seats, near, strict=True):
        stack = stack_of(seat.part.kind, seat.part, seat.legend)
        rooms.append(wiring_room(seat, things, view.enclosure.plate_depth))
        most = max(most, stack.taken)
        if stack.too_many:
            findings.append(
                Finding(
                    "P08",
                    Verdict.FAILS,
                    f"{view.tag(seat.device)} needs {stack.taken} contact places; its stack takes {stack.limit}.",
                    DeviceKey(seat.device),
                    clause,
                    "Take the rest over a relay.",
                )
            )
    evidence = [f"{len(rooms)} operators, at most {most} contacts on one"]
    if rooms:
        evidence.append(f"at least {min(rooms):.0f} mm behind a stack for its wires")
    return ClauseResult("P08", Group.PLATE, "Stacks hold their contacts", clause, tuple(evidence), tuple(findings))


def nobody_leaves_it_in_hand(view: View) -> ClauseResult:
    """What can be left in hand is for the key holder, or for everyone on purpose."""
    clause = COMMON_PRACTICE
    findings, evidence = [], []
    for seat in view.door.seats:
        who = may_move(seat.part.kind)
        if seat.part.kind.can(Can.HAND_OFF_AUTO):
            evidence.append(f"{view.tag(seat.device)} is for {who}")
        if seat.part.kind.can(Can.HAND_OFF_AUTO) and not seat.part.kind.can(Can.KEY):
            findings.append(
                Finding(
                    "P09",
                    Verdict.JUDGE,
                    f"Anyone can leave {view.tag(seat.device)} ({seat.legend}) in hand or off and walk away.",
                    DeviceKey(seat.device),
                    clause,
                    "Make it a key switch, or decide that everyone may.",
                    QuickFix("Key switch", "key switch", str(seat.group)),
                )
            )
    return ClauseResult(
        "P09",
        Group.PLATE,
        "Who may move what",
        clause,
        tuple(evidence) or ("nothing here stays in hand",),
        tuple(findings),
    )


DOOR_CLAUSES = (fittings_keep_the_class, handle_meets_the_shaft, stacks_hold_their_contacts, nobody_leaves_it_in_hand)
