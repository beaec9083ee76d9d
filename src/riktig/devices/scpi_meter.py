"""A stand-in for a meter that speaks SCPI: a server on this machine that reads a simulated panel."""

import socketserver
import threading
from collections.abc import Callable
from math import isinf

__all__ = ["SIMULATED_IDENTITY", "ScpiMeter"]

SIMULATED_IDENTITY = "Riktig,practice meter,SIM-1,1"
"""Its serial number says that it is simulated: no reading of it is taken for a job."""
LONGEST_COMMAND = 200


class _Handler(socketserver.StreamRequestHandler):
    def handle(self) -> None:
        server = self.server
        assert isinstance(server, _Server)
        while True:
            line = self.rfile.readline(LONGEST_COMMAND)
            if not line:
                return
            answer = server.answer(line.decode("ascii", "replace").strip().upper())
            if answer is not None:
                self.wfile.write(f"{answer}\n".encode("ascii"))


class _Server(socketserver.ThreadingTCPServer):
    allow_reuse_address = True
    daemon_threads = True
    answer: Callable[[str], str | None]


class ScpiMeter:
    """The server, from its making until it is closed.

    Args:
        read_ohm: Gives what lies between the probes now, ohm; infinite for open.
        port: On this machine; 0 for any that is free.
        identity: What it answers to ``*IDN?``.
    """

    def __init__(self, read_ohm: Callable[[], float], port: int = 0, identity: str = SIMULATED_IDENTITY) -> None:
        self._read_ohm, self._identity = read_ohm, identity
        self._errors: list[str] = []
        self._server = _Server(("127.0.0.1", port), _Handler)
        self._server.answer = self._answer
        self.port = int(self._server.server_address[1])
        self._thread = threading.Thread(target=self._server.serve_forever, args=(0.05,), daemon=True)
        self._thread.start()

    @property
    def resource(self) -> str:
        """Its VISA address."""
        return f"TCPIP::127.0.0.1::{self.port}::SOCKET"

    def _answer(self, command: str) -> str | None:
        """The answer to a command; None to one that is no question."""
        match command:
            case "*IDN?":
                return self._identity
            case "*RST" | "*CLS" | "CONF:RES":
                return None
            case "*OPC?":
                return "1"
            case "MEAS:RES?" | "MEASURE:RESISTANCE?" | "READ?":
                ohm = self._read_ohm()
                return "+9.90000000E+37" if isinf(ohm) else f"{ohm:+.8E}"
            case "SYST:ERR?" | "SYSTEM:ERROR?":
                return self._errors.pop(0) if self._errors else '+0,"No error"'
        self._errors.append('-113,"Undefined header"')
        return "" if command.endswith("?") else None

    def close(self) -> None:
        """Stops answering."""
        self._server.shutdown()
        self._server.server_close()
