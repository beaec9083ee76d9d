"""A meter that speaks SCPI (IEEE 488.2, SCPI-1999), over TCP or a serial line, through PyVISA in Python alone."""

import math
from typing import Protocol, cast

from riktig.core.errors import RiktigError
from riktig.core.proving import OPEN_LINE

__all__ = ["MeterIdentity", "MeterLink", "ohm_of_answer"]

TIMEOUT_MS = 4000
"""A meter that integrates long answers within it (chosen by us)."""
SCPI_INFINITY, SCPI_NOT_A_NUMBER = 9.9e37, 9.91e37
"""What an instrument answers when its range is exceeded, and when there is no number (SCPI-1999 7.2.1, from memory)."""
ABSURD_OHM = 1e13
"""No meter for the bench measures so much (chosen by us)."""
LEAST_OHM = -1.0
"""A little below nothing is the zero of the leads; less is a voltage on the panel or a bad meter (chosen by us)."""
LONGEST_ANSWER = 60
"""Letters of an answer that are repeated in a message."""


class _Instrument(Protocol):
    """What is used of a PyVISA resource."""

    timeout: float

    def query(self, message: str) -> str:
        """Sends a command and reads the answer."""

    def close(self) -> None:
        """Ends the connection."""


class MeterIdentity:
    """What a meter answers to ``*IDN?``: maker, model, serial number and firmware (IEEE 488.2 10.14, from memory)."""

    def __init__(self, answer: str) -> None:
        parts = [part.strip() for part in answer.strip().split(",")]
        self.maker, self.model, self.serial, self.firmware = (*parts, "", "", "", "")[:4]
        self.simulated = "simulat" in answer.lower() or self.serial.upper().startswith("SIM")

    @property
    def name(self) -> str:
        """Maker and model."""
        return f"{self.maker} {self.model}".strip()


class MeterLink:
    """An open connection to a meter.

    Args:
        resource: Its VISA address, “TCPIP::192.168.1.20::5025::SOCKET” or “ASRL/dev/ttyUSB0::INSTR”.

    Raises:
        RiktigError: it cannot be reached, does not say who it is, or says it in no known form.
    """

    def __init__(self, resource: str) -> None:
        import pyvisa  # late: only who has such a meter waits for it

        self.resource = resource.strip()
        if not self.resource:
            raise RiktigError("No address was given.", hint="Write TCPIP::192.168.1.20::5025::SOCKET, for instance.")
        try:
            pyvisa.rname.ResourceName.from_string(self.resource)
            manager = pyvisa.ResourceManager("@py")
            opened = manager.open_resource(
                self.resource, read_termination="\n", write_termination="\n", timeout=TIMEOUT_MS
            )
        except (pyvisa.Error, ValueError, OSError, AttributeError) as error:
            raise RiktigError(
                f"The meter at {self.resource} cannot be reached ({_short(error)}).",
                hint="See that it is switched on and that the address is right; typed readings are taken meanwhile.",
            ) from error
        self._instrument = cast("_Instrument", opened)
        try:
            self.identity = MeterIdentity(self._ask("*IDN?"))
            if not self.identity.model or not self.identity.serial:
                raise RiktigError(
                    f"What answers at {self.resource} does not say its model and serial number.",
                    hint="It is no meter, or speaks another language: type its readings.",
                )
        except RiktigError:
            self.close()
            raise

    def read_ohm(self) -> float:
        """Measures resistance once, ohm; ``OPEN_LINE`` when its range is exceeded.

        Raises:
            RiktigError: it does not answer, or answers no resistance.
        """
        return ohm_of_answer(self._ask("MEAS:RES?"))

    def _ask(self, command: str) -> str:
        import pyvisa

        try:
            return str(self._instrument.query(command))
        except (pyvisa.Error, OSError, UnicodeDecodeError) as error:
            raise RiktigError(
                f"The meter at {self.resource} does not answer ({_short(error)}), so nothing was recorded.",
                hint="See its cable, and connect it again.",
            ) from error

    def close(self) -> None:
        """Ends the connection."""
        self._instrument.close()


def ohm_of_answer(answer: str) -> float:
    """The resistance that a meter answered, ohm; ``OPEN_LINE`` when its range is exceeded.

    Args:
        answer: What it sent.

    Raises:
        RiktigError: it is no resistance.
    """
    try:
        value = float(answer.strip())
    except ValueError:
        value = math.nan
    if math.isclose(value, SCPI_INFINITY, rel_tol=1e-6):
        return OPEN_LINE
    if math.isnan(value) or value < LEAST_OHM or value > ABSURD_OHM:
        quoted = answer.strip()[:LONGEST_ANSWER]
        raise RiktigError(
            f"The meter answered “{quoted}”, which is no resistance, so nothing was recorded.",
            hint="See that it is set to resistance and that the panel is dead; read again.",
        )
    return max(value, 0.0)


def _short(error: Exception) -> str:
    return str(error).splitlines()[0][:120] if str(error) else type(error).__name__
