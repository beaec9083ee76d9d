"""The stations, a folder each, in the order of work. They do not know each other."""

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

__all__ = ["make_stations"]


def make_stations(session: Session, meter: BenchMeter) -> dict[str, Station]:
    """All stations by name, in the order of the route card."""
    return {
        "Brief": BriefStation(session),
        "Circuits": CircuitsStation(session),
        "Plate": PlateStation(session),
        "Door": DoorStation(session),
        "Wires": WiresStation(session),
        "Terminals": TerminalsStation(session),
        "Labels": LabelsStation(session),
        "Rules": RulesStation(session),
        "Build": BuildStation(session),
        "Prove": ProveStation(session, meter),
        "Hand over": HandoverStation(session),
    }
