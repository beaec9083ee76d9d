"""Stand-ins for outside devices, so that the application can be tried without them."""

from riktig.devices.bench_meter import BenchMeter

__all__ = ["BenchMeter"]
