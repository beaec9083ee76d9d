from .derived import POWER_PATHS, RATING_DRAWING, SHORT_CIRCUIT, WIRE_ENERGIES, ShortCircuit
from .draw_ratings import draw_ratings, limits_by_tag
from .earth_fault import EarthFault, earth_faults, trips_at
from .fault_current import prospective_ka
from .iec import EXEMPT_KA, lets_through, peak_factor, rate_iec
from .model import Basis, Limit, Rating
from .north_american import assumed_ka, fuse_peak_ka, rate_north_american
from .options import TARGETS_KA, Way, ways_to
from .power_paths import PowerPart, PowerPaths, power_paths
from .wire_energy import WireEnergy, wire_energies

__all__ = [
    "EXEMPT_KA",
    "POWER_PATHS",
    "RATING_DRAWING",
    "SHORT_CIRCUIT",
    "TARGETS_KA",
    "WIRE_ENERGIES",
    "Basis",
    "EarthFault",
    "Limit",
    "PowerPart",
    "PowerPaths",
    "Rating",
    "ShortCircuit",
    "Way",
    "WireEnergy",
    "assumed_ka",
    "draw_ratings",
    "earth_faults",
    "fuse_peak_ka",
    "lets_through",
    "limits_by_tag",
    "peak_factor",
    "power_paths",
    "prospective_ka",
    "rate_iec",
    "rate_north_american",
    "trips_at",
    "ways_to",
    "wire_energies",
]
