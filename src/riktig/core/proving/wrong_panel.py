"""A dead panel with something wrong in it, and the faults that a builder or a part can bring in."""

from collections.abc import Iterable
from dataclasses import replace

from riktig.core.catalogue import Behaviour
from riktig.core.ids import PinRef, read_pin
from riktig.core.proving.dead_panel import DeadPanel, Piece, PieceKind
from riktig.core.proving.neighbours import neighbours
from riktig.core.proving.tolerances import JOINT
from riktig.core.schematic import Device
from riktig.core.simulation import CHANGED_OVER, FaultKind, InjectedFault

__all__ = ["single_faults", "with_faults"]

_OF_CONTACTS = (FaultKind.WELDED, FaultKind.BLOWN, FaultKind.STUCK, FaultKind.WRONG_BLOCK, FaultKind.OPEN_COIL)


def with_faults(panel: DeadPanel, faults: Iterable[InjectedFault]) -> DeadPanel:
    """The panel with faults in it; what a fault names and the panel has not is left as it is.

    Args:
        panel: The panel as it should be.
        faults: What is wrong.
    """
    pieces: list[Piece] = list(panel.pieces)
    for fault in faults:
        where, to, other = read_pin(fault.where), read_pin(fault.to), read_pin(fault.other)
        match fault.wrong:
            case FaultKind.OFF:
                pieces = [piece for piece in pieces if not _is_wire(piece, fault.what)]
            case FaultKind.NEIGHBOUR:
                pieces = [_moved(piece, fault.what, where, to) for piece in pieces]
            case FaultKind.SWAPPED:
                pieces = [_moved(_moved(p, fault.what, where, other), fault.to, other, where) for p in pieces]
            case FaultKind.SHORT:
                pieces.append(Piece(where, to, JOINT, PieceKind.LINK, "short"))
            case _:
                changed = (_spoilt(piece, fault) for piece in pieces)
                pieces = [piece for piece in changed if piece is not None]
    return panel.with_pieces(pieces)


def _is_wire(piece: Piece, key: str) -> bool:
    return piece.kind is PieceKind.WIRE and piece.what == key


def _moved(piece: Piece, key: str, pin: PinRef, to: PinRef) -> Piece:
    if not _is_wire(piece, key):
        return piece
    if piece.a == pin:
        return replace(piece, a=to)
    return replace(piece, b=to) if piece.b == pin else piece


def _spoilt(piece: Piece, fault: InjectedFault) -> Piece | None:
    """A piece as a fault of its part leaves it; None where nothing leads on any more."""
    if piece.device != fault.what or piece.what != fault.where:
        return piece
    match fault.wrong:
        case FaultKind.WELDED:
            return replace(piece, kind=PieceKind.JOINT)
        case FaultKind.WRONG_BLOCK if piece.unit:
            unit = replace(piece.unit, behaviour=CHANGED_OVER.get(piece.unit.behaviour, piece.unit.behaviour))
            return replace(piece, unit=unit)
        case FaultKind.BLOWN | FaultKind.STUCK | FaultKind.OPEN_COIL:
            return None
    return piece


def single_faults(panel: DeadPanel) -> tuple[InjectedFault, ...]:
    """Every single fault that is looked for: wires missing, beside or swapped, clamps shorted, parts bad or wrong.

    Args:
        panel: The panel as it should be.
    """
    faults: list[InjectedFault] = []
    landed: dict[PinRef, list[Piece]] = {}
    for piece in panel.pieces:
        if piece.kind is PieceKind.WIRE:
            faults.append(InjectedFault(FaultKind.OFF, piece.what, str(piece.a)))
            for pin in (piece.a, piece.b):
                landed.setdefault(pin, []).append(piece)
    for device in panel.devices.values():
        faults += _of_parts(device)
    for first, second in neighbours(panel):
        faults.append(InjectedFault(FaultKind.SHORT, "", str(first), str(second)))
        for pin, beside in ((first, second), (second, first)):
            faults += [
                InjectedFault(FaultKind.NEIGHBOUR, piece.what, str(pin), str(beside))
                for piece in landed.get(pin, ())
                if beside not in (piece.a, piece.b)
            ]
        faults += [
            InjectedFault(FaultKind.SWAPPED, piece.what, str(first), other.what, str(second))
            for piece in landed.get(first, ())
            for other in landed.get(second, ())
            if not {piece.a, piece.b} & {other.a, other.b}
        ]
    return tuple(faults)


def _of_parts(device: Device) -> list[InjectedFault]:
    faults: list[InjectedFault] = []
    for unit in device.kind.units:
        match unit.behaviour:
            case Behaviour.POLE if unit.symbol != "link":
                faults.append(InjectedFault(FaultKind.BLOWN, device.id, unit.name))
            case Behaviour.NO | Behaviour.NC:
                faults += [
                    InjectedFault(wrong, device.id, unit.name)
                    for wrong in (FaultKind.WELDED, FaultKind.STUCK, FaultKind.WRONG_BLOCK)
                ]
            case Behaviour.COIL | Behaviour.LAMP | Behaviour.WINDING:
                faults.append(InjectedFault(FaultKind.OPEN_COIL, device.id, unit.name))
    return faults
