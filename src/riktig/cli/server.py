"""The commands of the shop's server: a job goes there, comes back, and the board of all jobs."""

import argparse
import getpass

from riktig.cli.files import signer_for
from riktig.core.store import JobFile

__all__ = ["board", "fetch_job", "put_job"]


def put_job(arguments: argparse.Namespace) -> int:
    """Puts a job with all its records on the server."""
    from riktig.server.address import read_address  # late: only these commands need the database's library
    from riktig.server.connecting import engine_for
    from riktig.server.moving import put

    address = read_address(arguments.address)
    address = address if address.job else address.with_job(arguments.file.stem)
    file, engine = JobFile(arguments.file, read_only=True), engine_for(address)
    try:
        put(engine, address, file, signer=signer_for(getpass.getuser()))
    finally:
        engine.dispose()
        file.close()
    print(f"{arguments.file} is on the server. Open it from now on with: riktig open {address.words}")
    return 0


def fetch_job(arguments: argparse.Namespace) -> int:
    """Makes a job file of a job on the server."""
    from riktig.server.address import read_address  # late, as above
    from riktig.server.connecting import engine_for
    from riktig.server.moving import fetch

    address = read_address(arguments.address)
    engine = engine_for(address)
    try:
        fetch(engine, address, arguments.out, signer=signer_for(getpass.getuser()))
    finally:
        engine.dispose()
    print(f"{arguments.out} written")
    return 0


def board(arguments: argparse.Namespace) -> int:
    """Prints the shop board."""
    from riktig.server.address import read_address  # late, as above
    from riktig.server.board import board_lines, shop_board
    from riktig.server.connecting import engine_for

    address = read_address(arguments.address)
    engine = engine_for(address)
    try:
        lines = board_lines(shop_board(engine, address))
    finally:
        engine.dispose()
    widths = [max(len(line[column]) for line in lines) for column in range(len(lines[0]))]
    for line in lines:
        print("  ".join(text.ljust(width) for text, width in zip(line, widths, strict=True)).rstrip())
    return 0
