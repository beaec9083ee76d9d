"""The stations, a folder each, in the order of work. They do not know each other."""

from collections.abc import Callable, Iterator, Mapping

from riktig.desk.session import Session
from riktig.desk.stations.brief import BriefStation
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.door import DoorStation
from riktig.desk.stations.handover import HandoverStation
from riktig.desk.stations.labels import LabelsStation
from riktig.desk.stations.plate import PlateStation
from riktig.desk.stations.prove import ProveStation
from riktig.desk.stations.rules import RulesStation
from riktig.desk.stations.terminals import TerminalsStation
from riktig.desk.stations.wires import WiresStation
from riktig.desk.widgets import Station
from riktig.devices import BenchMeter

__all__ = ["Stations"]


class Stations(Mapping[str, Station]):
    """All stations by name, in the order of the route card; each is built when it is first asked for.

    A window with eleven stations takes half a second to build, and most of the time one or two are looked at.

    Args:
        session: The job at hand.
        meter: The meter of the practice bench.
        built: Called once with each station as soon as it is there.
    """

    def __init__(self, session: Session, meter: BenchMeter, built: Callable[[Station], None]) -> None:
        self._builders: dict[str, Callable[[], Station]] = {
            "Brief": lambda: BriefStation(session),
            "Circuits": lambda: CircuitsStation(session),
            "Plate": lambda: PlateStation(session),
            "Door": lambda: DoorStation(session),
            "Wires": lambda: WiresStation(session),
            "Terminals": lambda: TerminalsStation(session),
            "Labels": lambda: LabelsStation(session),
            "Rules": lambda: RulesStation(session),
            "Build": lambda: BuildStation(session),
            "Prove": lambda: ProveStation(session, meter),
            "Hand over": lambda: HandoverStation(session),
        }
        self._there: dict[str, Station] = {}
        self._built = built

    def __getitem__(self, name: str) -> Station:
        if name not in self._there:
            self._there[name] = self._builders[name]()
            self._built(self._there[name])
        return self._there[name]

    def __iter__(self) -> Iterator[str]:
        return iter(self._builders)

    def __len__(self) -> int:
        return len(self._builders)

    @property
    def there(self) -> tuple[Station, ...]:
        """Those that have been built."""
        return tuple(self._there.values())
