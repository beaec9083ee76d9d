"""Every coil, lamp and single-phase load with its return: where it lands, and to which source it comes back."""

from collections.abc import Callable, Iterable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import DeviceId, Job, PinRef
from riktig.core.keys import DeviceKey
from riktig.core.schematic import CIRCUITS, NAMES, NETS, PinLabels
from riktig.core.simulation import FEED_FAULTS, MAINS, NETWORK, Feed, SupplyPole, feeds_of

__all__ = ["SCHEDULES"]

EARTH = "PE"


def _returns(evaluation: Evaluation[Job]) -> Schedule:
    """Every load between a line and a return; what lies between lines alone has none."""
    names, circuits, of_pin = evaluation.get(NAMES), evaluation.get(CIRCUITS), evaluation.get(NETS).of_pin
    label = PinLabels(circuits, names)
    wrong = {fault.device: fault.kind.value for fault in evaluation.get(FEED_FAULTS)}

    def named(poles: Iterable[SupplyPole]) -> str:
        by_source: dict[str, list[str]] = {}
        for pole in poles:
            maker = DeviceId(pole.system.partition(":")[0])
            source = "the supply" if pole.system == MAINS else names.tag.get(maker, pole.system)
            by_source.setdefault(source, []).append(pole.name)
        return "; ".join(f"{', '.join(dict.fromkeys(of))} of {source}" for source, of in by_source.items())

    rows: list[tuple[Value, ...]] = []
    for feed in feeds_of(evaluation.get(NETWORK)):
        consumer = feed.consumer
        if feed.bridged or not all(consumer.ends):
            continue
        turned = _is_return(feed.first) and not _is_return(feed.last)
        poles, marking = (feed.first, consumer.ends[0]) if turned else (feed.last, consumer.ends[1])
        fed = feed.last if turned else feed.first
        if poles and not _is_return(poles) and EARTH not in {pole.name for pole in poles} and feed.pairs:
            continue  # between two lines
        if any(pole.system.partition(":")[0] == consumer.device for pole in poles):
            continue  # a load of its own supply, inside it
        pin = PinRef(consumer.device, marking)
        net = of_pin.get(pin)
        device = circuits.by_id[consumer.device]
        rows.append(
            (
                names.tag[device.id],
                device.purpose,
                label(pin),
                names.number.get(net.id, "") if net else "",
                named(poles),
                named(fed),
                _state(feed, poles, wrong.get(device.id, "")),
                str(DeviceKey(device.id)),
            )
        )
    columns = (
        ("tag", "Tag"),
        ("for", "For"),
        ("return", "Return"),
        ("number", "Number"),
        ("comes_back_to", "Comes back to"),
        ("fed_from", "Fed from"),
        ("state", "State"),
        ("key", "Key"),
    )
    return Schedule("returns", "Returns of coils, lamps and loads", columns, tuple(rows))


def _is_return(poles: Iterable[SupplyPole]) -> bool:
    """Whether current comes back there: to a neutral or the zero of a source."""
    return any(pole.is_zero and pole.name != EARTH for pole in poles)


def _state(feed: Feed, poles: Iterable[SupplyPole], wrong: str) -> str:
    if not tuple(poles):
        return "no return"
    if not feed.first or not feed.last:
        return "not fed"
    return wrong or "at its source"


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"returns": _returns}
