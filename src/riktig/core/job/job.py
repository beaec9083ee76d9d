"""The job: the one document."""

from dataclasses import dataclass, field

from riktig.core.ids import LoadId
from riktig.core.job.approval_marks import ApprovalMarks
from riktig.core.job.circuit import Circuit
from riktig.core.job.design_reason import DesignReason
from riktig.core.job.door import DoorFix, Opening
from riktig.core.job.enclosure import Enclosure
from riktig.core.job.label_sheet import LabelSheet
from riktig.core.job.label_words import LabelText, UnmarkedWire
from riktig.core.job.load import Load
from riktig.core.job.numbering import GivenNumber, GivenTag
from riktig.core.job.override import Override
from riktig.core.job.own_cable import OwnCable
from riktig.core.job.own_jumper import OwnJumper
from riktig.core.job.own_part import OwnPart, Pick
from riktig.core.job.own_strip import OwnStrip
from riktig.core.job.person import Person
from riktig.core.job.plate import Join, PlateFix
from riktig.core.job.practice import Practice
from riktig.core.job.purchase import Purchase
from riktig.core.job.script import OwnScript
from riktig.core.job.shelf import Offcut
from riktig.core.job.signal import Signal, Source
from riktig.core.job.supply import Supply
from riktig.core.job.wire_order import WireOrder

__all__ = ["Job"]


@dataclass(frozen=True, slots=True)
class Job:
    """One panel. Frozen all the way down: an edit makes a new Job and shares what it left alone.

    ``tags`` and ``numbers`` keep what was already given; ``last_number`` the highest ever given, so
    that a number that fell out of use is not given to another wire; ``printed`` are those that stand on
    labels, which are retired when they fall out of use. ``sources`` is what arrives live
    beside the main supply; ``sources_asked`` says that the customer was asked and this is all.
    ``overrides`` are values of the builder's own, ``scripts`` steps he wants the whole panel to pass;
    ``parts`` are parts that the catalogue lacks, ``picks`` the parts he chose for devices himself,
    ``joins`` parts that stand as one assembly; ``shelf``
    offcuts to cut from before new stock; ``door`` is where the builder has put operators, ``openings`` holes of
    his own; ``purchases`` what the purchasing desk knows of the parts; ``wire_orders``
    how he joins the clamps of a potential, ``one_conductor`` clamps that take no second one; ``strips`` terminals
    in the order that he gave them; ``cables`` what shares one and how its cores are called; ``jumpers`` those that he
    chose; ``people`` who works on it, anybody where none are named; ``label_sheets`` what its labels are printed on,
    one a medium; ``label_texts`` what labels say by the builder's word, ``unmarked`` wires that go without markers,
    ``reasons`` why things are as they are.
    ``made`` is when the panel was made, ``standard`` what its maker declares it
    to, ``marks`` which marks of approval enclosure and panel carry: they stand on the nameplate, and none is proposed.
    """

    number: str = ""
    title: str = ""
    client: str = ""
    drawing_number: str = ""
    revision: str = "A"
    maker: str = ""
    serial: str = ""
    made: str = ""
    standard: str = ""
    marks: ApprovalMarks = field(default_factory=ApprovalMarks)
    supply: Supply = field(default_factory=Supply)
    practice: Practice = field(default_factory=Practice)
    enclosure: Enclosure = field(default_factory=Enclosure)
    loads: tuple[Load, ...] = ()
    circuits: tuple[Circuit, ...] = ()
    plate: PlateFix | None = None
    tags: tuple[GivenTag, ...] = ()
    numbers: tuple[GivenNumber, ...] = ()
    last_number: int = 0
    printed: tuple[str, ...] = ()
    sources: tuple[Source, ...] = ()
    sources_asked: bool = False
    signals: tuple[Signal, ...] = ()
    overrides: tuple[Override, ...] = ()
    scripts: tuple[OwnScript, ...] = ()
    parts: tuple[OwnPart, ...] = ()
    picks: tuple[Pick, ...] = ()
    joins: tuple[Join, ...] = ()
    shelf: tuple[Offcut, ...] = ()
    door: DoorFix | None = None
    openings: tuple[Opening, ...] = ()
    purchases: tuple[Purchase, ...] = ()
    wire_orders: tuple[WireOrder, ...] = ()
    one_conductor: tuple[str, ...] = ()
    strips: tuple[OwnStrip, ...] = ()
    cables: tuple[OwnCable, ...] = ()
    jumpers: tuple[OwnJumper, ...] = ()
    label_sheets: tuple[LabelSheet, ...] = ()
    label_texts: tuple[LabelText, ...] = ()
    unmarked: tuple[UnmarkedWire, ...] = ()
    reasons: tuple[DesignReason, ...] = ()
    people: tuple[Person, ...] = ()

    def load(self, load_id: LoadId) -> Load:
        """The load with this id.

        Raises:
            KeyError: there is none.
        """
        for load in self.loads:
            if load.id == load_id:
                return load
        raise KeyError(load_id)
