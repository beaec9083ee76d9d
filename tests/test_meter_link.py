"""The meter's protocol: our client and PyVISA alone against our stand-in, and everything that can go wrong."""

import os
import select
import socket
import threading
import time
import tty
from collections.abc import Iterator
from contextlib import contextmanager
from math import isinf

import pytest
import pyvisa

from riktig.core.errors import RiktigError
from riktig.core.proving import OPEN_LINE
from riktig.devices import SIMULATED_IDENTITY, MeterIdentity, MeterLink, ScpiMeter, meter_link, ohm_of_answer

REAL = "Lab works,M-34,4711,1.02"


@contextmanager
def stand_in(ohm: float = 0.3, identity: str = REAL) -> Iterator[ScpiMeter]:
    meter = ScpiMeter(lambda: ohm, identity=identity)
    try:
        yield meter
    finally:
        meter.close()


@contextmanager
def odd_meter(*answers: bytes | None) -> Iterator[str]:
    """A server that sends one answer after another to whatever it is asked; None hangs up."""
    listening = socket.create_server(("127.0.0.1", 0))

    def serve() -> None:
        connection, _ = listening.accept()
        with connection:
            for answer in answers:
                if not connection.recv(200) or answer is None:
                    return
                connection.sendall(answer)
            time.sleep(0.6)

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    try:
        yield f"TCPIP::127.0.0.1::{listening.getsockname()[1]}::SOCKET"
    finally:
        listening.close()
        thread.join(2)


def test_a_reading_goes_through_the_line() -> None:
    for ohm in (0.0, 0.213, 562.4, 2.2e6):
        with stand_in(ohm) as meter:
            link = MeterLink(meter.resource)
            assert link.read_ohm() == pytest.approx(ohm, rel=1e-8)
            assert (link.identity.name, link.identity.serial) == ("Lab works M-34", "4711")
            link.close()
    with stand_in(OPEN_LINE) as meter:
        link = MeterLink(meter.resource)
        assert link.read_ohm() == OPEN_LINE
        link.close()


def test_a_foreign_client_speaks_with_the_stand_in() -> None:
    """PyVISA alone, as any other program would use it."""
    with stand_in(47.5) as meter:
        foreign = pyvisa.ResourceManager("@py").open_resource(
            meter.resource, read_termination="\n", write_termination="\n", timeout=3000
        )
        assert isinstance(foreign, pyvisa.resources.MessageBasedResource)
        assert foreign.query("*IDN?") == REAL
        foreign.write("CONF:RES")
        assert float(foreign.query("READ?")) == 47.5
        assert foreign.query("*OPC?") == "1"
        assert foreign.query("SYST:ERR?").startswith("+0")
        foreign.write("MAKE:TEA")
        assert foreign.query("SYST:ERR?").startswith("-113")
        assert foreign.query("SYST:ERR?").startswith("+0")
        foreign.close()


def test_two_meters_answer_each_for_itself() -> None:
    with stand_in(1.5) as first, stand_in(2.5) as second:
        links = [MeterLink(first.resource), MeterLink(second.resource)]
        assert [link.read_ohm() for link in links] == [1.5, 2.5]
        for link in links:
            link.close()


def test_the_stand_in_says_that_it_is_simulated() -> None:
    assert MeterIdentity(SIMULATED_IDENTITY).simulated
    assert not MeterIdentity(REAL).simulated


@pytest.mark.parametrize("answer", ["", "good", "-5", "+9.91000000E+37", "1e99", "nan", "0,3", "OL", "1E14"])
def test_an_answer_that_is_no_resistance_is_refused(answer: str) -> None:
    with pytest.raises(RiktigError, match="nothing was recorded"):
        ohm_of_answer(answer)


@pytest.mark.parametrize(
    ("answer", "ohm"), [("+3.2E-01", 0.32), ("-0.02", 0.0), (" 560 \r", 560.0), ("9.9E37", OPEN_LINE)]
)
def test_an_answer_is_understood(answer: str, ohm: float) -> None:
    assert ohm_of_answer(answer) == ohm


def test_nobody_there_rubbish_and_a_line_that_breaks_are_each_said(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(meter_link, "TIMEOUT_MS", 400)
    free = socket.create_server(("127.0.0.1", 0))
    port = free.getsockname()[1]
    free.close()
    for resource in (
        "",
        "no such address",
        f"TCPIP::127.0.0.1::{port}::SOCKET",
        "ASRL/dev/there-is-no-such-line::INSTR",
    ):
        with pytest.raises(RiktigError):
            MeterLink(resource)
    with odd_meter(b"hello\n") as resource, pytest.raises(RiktigError, match="model and serial number"):
        MeterLink(resource)
    with odd_meter(b"\xff\xfe\x00\n") as resource, pytest.raises(RiktigError):
        MeterLink(resource)
    with odd_meter() as resource, pytest.raises(RiktigError, match="does not answer"):
        MeterLink(resource)  # connected, and silent
    with odd_meter(REAL.encode() + b"\n", None) as resource:
        link = MeterLink(resource)
        with pytest.raises(RiktigError, match="does not answer"):
            link.read_ohm()  # unplugged in the middle of a reading
        link.close()
    with odd_meter(REAL.encode() + b"\n", b"+1.0", b"E+01\n") as resource:
        link = MeterLink(resource)
        with pytest.raises(RiktigError, match="does not answer"):
            link.read_ohm()  # half an answer
        link.close()


@contextmanager
def on_a_serial_line(ohm: float, pause_s: float = 0.0) -> Iterator[str]:
    """A meter behind a serial line of this machine: the far end of a pseudo-terminal answers as the stand-in does."""
    far, near = os.openpty()
    tty.setraw(far)
    tty.setraw(near)
    answers = {b"*IDN?": REAL, b"MEAS:RES?": "+9.90000000E+37" if isinf(ohm) else f"{ohm:+.8E}"}

    ended = threading.Event()

    def serve() -> None:
        line = b""
        while not ended.is_set():
            if not select.select([far], [], [], 0.02)[0]:
                continue
            line += os.read(far, 64)
            if line.endswith(b"\n"):
                time.sleep(pause_s)
                answer = f"{answers[line.strip()]}\n".encode("ascii")
                for n in range(0, len(answer), 5):  # a slow line brings an answer in pieces
                    os.write(far, answer[n : n + 5])
                    time.sleep(0.002)
                line = b""

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    try:
        yield f"ASRL{os.ttyname(near)}::INSTR"
    finally:
        ended.set()
        thread.join(2)
        os.close(near)
        os.close(far)


@pytest.mark.parametrize("ohm", [0.0, 0.213, 562.4, OPEN_LINE])
def test_a_meter_on_a_serial_line_is_read(ohm: float) -> None:
    with on_a_serial_line(ohm, pause_s=0.05) as resource:
        link = MeterLink(resource)
        assert (link.identity.name, link.identity.serial) == ("Lab works M-34", "4711")
        assert [link.read_ohm() for _ in range(3)] == [pytest.approx(ohm, rel=1e-8)] * 3
        link.close()


def test_a_serial_line_that_is_not_there_or_silent_is_said(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(meter_link, "TIMEOUT_MS", 300)
    with pytest.raises(RiktigError, match="cannot be reached"):
        MeterLink("ASRL/dev/ttyUSB977::INSTR")
    far, near = os.openpty()
    try:
        with pytest.raises(RiktigError, match="does not answer"):
            MeterLink(f"ASRL{os.ttyname(near)}::INSTR")
    finally:
        os.close(near)
        os.close(far)
