"""The way to the shop's server, and what is said when there is none."""

from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy import create_engine, select
from sqlalchemy.engine import Connection, Engine
from sqlalchemy.exc import DBAPIError, SQLAlchemyError

from riktig.core.errors import RiktigError
from riktig.server.address import ServerAddress
from riktig.server.tables import FORMAT, PERSON, VERSION

__all__ = ["NoServerError", "RefusedError", "Rights", "engine_for", "rights_of", "server_errors"]

Rights = frozenset[str]
"""What a login may do: plans, builds, inspects, signs."""
CONNECT_S = 5
"""How long a server may take to answer (chosen by us)."""
SILENT_S = 8
"""After so long without an answer the network counts as gone (chosen by us)."""


class NoServerError(RiktigError):
    """The server cannot be reached just now; what is recorded waits at the bench."""


class RefusedError(RiktigError):
    """The server answers and says no."""


def engine_for(address: ServerAddress) -> Engine:
    """What connections are taken from; nothing is connected yet.

    Args:
        address: The server.
    """
    return create_engine(
        address.url,
        pool_pre_ping=True,
        pool_size=2,
        connect_args={
            "connect_timeout": CONNECT_S,
            "keepalives_idle": SILENT_S,
            "keepalives_interval": 2,
            "keepalives_count": 2,
            "tcp_user_timeout": SILENT_S * 1000,
            "options": f"-c statement_timeout={60_000} -c lock_timeout={SILENT_S * 1000}",
            "application_name": "riktig",
        },
    )


@contextmanager
def server_errors(address: ServerAddress) -> Iterator[None]:
    """Turns what the database says into what it means and what to do.

    Raises:
        NoServerError: it cannot be reached, or went away.
        RefusedError: it says no.
    """
    try:
        yield
    except DBAPIError as error:
        raise _meaning(address, error) from error
    except SQLAlchemyError as error:
        raise RefusedError(f"{address.words}: {error}", hint="Ask who looks after the server.") from error


def _meaning(address: ServerAddress, error: DBAPIError) -> RiktigError:
    text, state = str(error.orig).strip(), getattr(error.orig, "sqlstate", "") or ""
    first_line = text.splitlines()[0] if text else "no reason was given"
    where = address.words
    if "password" in text or "authentication" in text or state.startswith("28"):
        return RefusedError(
            f"{where} does not let {address.url.username or 'you'} in: the name or the password is wrong.",
            hint="Put the right one into ~/.pgpass, or ask who looks after the server.",
        )
    if state == "3D000" or ("database" in text and "does not exist" in text):
        return RefusedError(
            f"{where}: there is no such database.", hint="Check the name; docs/server.md says how one is made."
        )
    if state in ("42P01", "3F000"):
        return RefusedError(
            f"{where} has no tables of Riktig.", hint="Make them as docs/server.md says, then open the job again."
        )
    if state == "42501":
        return RefusedError(
            f"{where} refuses it: {first_line.removeprefix('riktig: ')}. Nothing was changed there.",
            hint="Who looks after the server gives rights; docs/server.md says how.",
        )
    return NoServerError(
        f"{where} cannot be reached ({first_line}).",
        hint="Check the network and the server. Work at a bench goes on; it is handed in when the server is back.",
    )


def rights_of(db: Connection, address: ServerAddress) -> Rights:
    """What the login of a connection may do.

    Raises:
        RefusedError: the tables there are of another edition.
    """
    version = int(db.execute(select(FORMAT.c.version)).scalar_one())
    if version != VERSION:
        newer = version > VERSION
        raise RefusedError(
            f"The tables of {address.words} are of {'a newer' if newer else 'an older'} edition ({version}; this "
            f"Riktig knows {VERSION}). Nothing was changed there.",
            hint="Install the newer Riktig at this bench." if newer else "Bring the server up to date: docs/server.md.",
        )
    row = db.execute(select(PERSON).where(PERSON.c.login == _login(db))).mappings().first()
    return frozenset(name for name in ("plans", "builds", "inspects", "signs") if row and row[name])


def _login(db: Connection) -> str:
    return str(db.exec_driver_sql("SELECT session_user").scalar_one())
