"""Stand-ins for outside devices, so that the application can be tried without them."""

from riktig.devices.bench_meter import BenchMeter
from riktig.devices.scanner import FOOT_SWITCH_KEY, FootSwitch, Scanner

__all__ = ["FOOT_SWITCH_KEY", "BenchMeter", "FootSwitch", "Scanner"]
