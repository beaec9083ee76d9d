"""A job of the server is opened at a bench: from its own file when that is there, else fetched."""

from pathlib import Path

from sqlalchemy.engine import Engine

from riktig.core.errors import RiktigError
from riktig.core.records import Signer
from riktig.server.address import ServerAddress
from riktig.server.connecting import NoServerError
from riktig.server.exchange import exchange
from riktig.server.moving import fetch
from riktig.server.server_job import ServerJob

__all__ = ["bench_file", "open_server_job"]


def bench_file(folder: Path, address: ServerAddress) -> Path:
    """Where a bench keeps its own file of a job of the server.

    Args:
        folder: The folder for jobs of servers.
        address: The server and the job.
    """
    return folder / address.place / f"{address.job}.riktig"


def open_server_job(
    engine: Engine, address: ServerAddress, folder: Path, *, who: str = "", signer: Signer | None = None
) -> ServerJob:
    """Opens a job of the server, with what came meanwhile; without the network, as this bench has it.

    Args:
        engine: The way to the server.
        address: The server and the job.
        folder: The folder for jobs of servers at this bench.
        who: Who works here.
        signer: Signs what is recorded.

    Raises:
        RiktigError: the server says no, or cannot be reached and the job was never open at this bench.
    """
    path = bench_file(folder, address)
    if not path.exists():
        fetch(engine, address, path, signer=signer)
    job = ServerJob(path, address, who=who, signer=signer)
    if job.read_only:
        return job
    try:
        news = exchange(engine, address, job.known(), job.waiting, signer=signer)
        job.take(news)
        if not news.rights:
            job.read_only, job.only_looking = True, "this login may only look at what the server has"
    except NoServerError:
        pass  # the bench goes on with what it has; the follower tries again
    except RiktigError:
        job.close()
        raise
    return job
