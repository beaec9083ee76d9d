"""What stays live in each position of isolators and breakers, what starts again by itself, and what gets warm."""

from collections.abc import Callable, Iterable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import DeviceId, Job
from riktig.core.keys import DeviceKey
from riktig.core.proving import SWITCH_BOX
from riktig.core.schematic import CIRCUITS, NAMES, PinLabels
from riktig.core.simulation import ISOLATIONS, MAINS, RESTARTS, TRANSFERS, Transfer
from riktig.core.sizing import INSIDE_AIR

__all__ = ["SCHEDULES"]


def _live(evaluation: Evaluation[Job]) -> Schedule:
    """Each switch off in turn: what is live all the same, by source."""
    circuits, names = evaluation.get(CIRCUITS), evaluation.get(NAMES)
    label, tags = PinLabels(circuits, names), names.tag
    rows: list[tuple[Value, ...]] = []
    for isolation_result in evaluation.get(ISOLATIONS):
        dead = ", ".join(names.number[net] for net in isolation_result.dead if net in names.number)
        for live in isolation_result.live:
            owner = DeviceId(live.source.partition(":")[0])
            source = "incoming supply" if live.source == MAINS else tags.get(owner, live.source)
            pins = ", ".join(dict.fromkeys(label(pin) for pin in live.pins))
            rows.append(
                (
                    tags[isolation_result.device],
                    source,
                    names.number.get(live.net, ""),
                    live.volts,
                    pins,
                    dead,
                    str(live.net),
                )
            )
    columns = (
        ("off", "Off"),
        ("source", "Live from"),
        ("number", "Number"),
        ("volts", "Volts"),
        ("pins", "Pins and terminals"),
        ("dead", "Made dead"),
        ("id", "Net id"),
    )
    return Schedule("live", "Still live with each switch off, all others on, nothing running", columns, tuple(rows))


def _restart(evaluation: Evaluation[Job]) -> Schedule:
    """Each load that ran: whether it runs again after a dip of the supply, or after its guard was reset."""
    names = evaluation.get(NAMES)
    titles = dict(evaluation.get(CIRCUITS).titles)

    def said(again: bool | None) -> str:
        return "nothing to reset" if again is None else "starts by itself" if again else "stays off"

    rows = tuple(
        (
            titles.get(restart.circuit, str(restart.circuit)),
            names.tag[restart.motor],
            restart.how,
            "yes" if restart.ran else "no",
            said(restart.after_power),
            said(restart.after_reset),
            "must be accepted" if restart.asks else "",
            restart.circuit,
        )
        for restart in evaluation.get(RESTARTS)
    )
    columns = (
        ("load", "Load"),
        ("tag", "Tag"),
        ("ran", "Ran"),
        ("runs", "It ran"),
        ("after_power", "When power returns"),
        ("after_reset", "When its guard is reset"),
        ("accept", "Accept"),
        ("circuit", "Circuit"),
    )
    return Schedule("restart", "Automatic restarts", columns, rows)


def _transfers(evaluation: Evaluation[Job]) -> Schedule:
    """Each selector turned from hand to automatic and back, at once and by way of off, in every state of the field."""
    names = evaluation.get(NAMES)
    titles = dict(evaluation.get(CIRCUITS).titles)
    running = {True: "runs", False: "off"}
    rows = tuple(
        (
            titles.get(transfer.circuit, str(transfer.circuit)),
            names.tag[transfer.motor],
            names.tag[transfer.selector],
            ", then ".join(transfer.way),
            transfer.field,
            running[transfer.ran],
            running[transfer.runs],
            "turned past off at once, its hold contact keeps it in" if _is_worth_listing(transfer, transfers) else "",
            transfer.circuit,
        )
        for transfers in (evaluation.get(TRANSFERS),)
        for transfer in transfers
    )
    columns = (
        ("load", "Load"),
        ("tag", "Tag"),
        ("selector", "Selector"),
        ("way", "Turned to"),
        ("field", "Field"),
        ("before", "Before"),
        ("after", "After"),
        ("note", "Note"),
        ("circuit", "Circuit"),
    )
    return Schedule("transfers", "What a load does when it is turned from hand to automatic and back", columns, rows)


def _is_worth_listing(transfer: Transfer, transfers: Iterable[Transfer]) -> bool:
    """Whether it runs on only because the selector did not rest at off."""
    by_off = (transfer.circuit, transfer.field, ("hand", "off", "auto"))
    rested = next((t for t in transfers if (t.circuit, t.field, t.way) == by_off), None)
    return transfer.way == ("hand", "auto") and transfer.runs and rested is not None and not rested.runs


def _losses(evaluation: Evaluation[Job]) -> Schedule:
    """What every part in the box loses at its rated current, the hottest first."""
    names, devices = evaluation.get(NAMES), evaluation.get(CIRCUITS).by_id
    rows = tuple(
        (
            names.tag[loss.device],
            devices[loss.device].purpose,
            loss.rated_w,
            loss.watts,
            loss.why,
            str(DeviceKey(loss.device)),
        )
        for loss in evaluation.get(INSIDE_AIR).losses
    )
    columns = (
        ("tag", "Tag"),
        ("what", "What"),
        ("rated_w", "At rated current, W"),
        ("loss_w", "Running, W"),
        ("why", "Why"),
        ("key", "Key"),
    )
    return Schedule("losses", "Losses with the loads running", columns, rows)


def _box(evaluation: Evaluation[Job]) -> Schedule:
    """The switch box that stands in for the field during the live tests, as a proposal."""
    rows = tuple(
        (place.number, place.tag, place.circuit, place.purpose, place.imitates.value, " ".join(place.terminals),
         place.at_rest, place.volts, str(DeviceKey(place.device)))
        for place in evaluation.get(SWITCH_BOX)
    )  # fmt: skip
    columns = (
        ("place", "Place"), ("tag", "Tag"), ("circuit", "Circuit"), ("what", "Stands in for"), ("by", "By"),
        ("terminals", "At terminals"), ("rest", "At rest"), ("volts", "Lies on it"), ("key", "Key"),
    )  # fmt: skip
    return Schedule("box", "Switch box for the live tests, a proposal", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {
    "live": _live,
    "restart": _restart,
    "transfers": _transfers,
    "losses": _losses,
    "box": _box,
}
