"""Instruments and what stands in for them: meters, a scanner, a foot switch."""

from riktig.devices.bench_meter import LEADS_OHM, BenchMeter
from riktig.devices.meter_link import MeterIdentity, MeterLink, ohm_of_answer
from riktig.devices.scanner import FOOT_SWITCH_KEY, FootSwitch, Scanner
from riktig.devices.scpi_meter import SIMULATED_IDENTITY, ScpiMeter
from riktig.devices.simulated_panel import SimulatedPanel
from riktig.devices.speech import Speech

__all__ = [
    "FOOT_SWITCH_KEY",
    "LEADS_OHM",
    "SIMULATED_IDENTITY",
    "BenchMeter",
    "FootSwitch",
    "MeterIdentity",
    "MeterLink",
    "Scanner",
    "ScpiMeter",
    "SimulatedPanel",
    "Speech",
    "ohm_of_answer",
]
