"""Where a job lies on the shop's server: “postgresql://ida@shop/riktig?job=P-1234”."""

from dataclasses import dataclass

from sqlalchemy.engine import URL, make_url
from sqlalchemy.exc import ArgumentError

from riktig.core.errors import RiktigError

__all__ = ["ServerAddress", "is_server_address", "read_address"]

SCHEME = "postgresql"
EXAMPLE = "postgresql://ida@shop/riktig?job=P-1234"


@dataclass(frozen=True, slots=True)
class ServerAddress:
    """A server's database, and a job there; "" for no job."""

    url: URL
    job: str = ""

    @property
    def words(self) -> str:
        """The address without the password."""
        url = self.url
        bare = URL.create(SCHEME, url.username, None, url.host, url.port, url.database)
        name = bare.render_as_string()
        return f"{name}?job={self.job}" if self.job else name

    @property
    def place(self) -> str:
        """The server and its database, as a file name may have it."""
        return "-".join(filter(None, (self.url.host or "local", str(self.url.port or ""), self.url.database or "")))

    def with_job(self, name: str) -> "ServerAddress":
        """The same server, and a job there."""
        return ServerAddress(self.url, name)


def is_server_address(text: str) -> bool:
    """Whether a text is meant as an address on a server and not as a file's name."""
    return text.startswith((f"{SCHEME}://", "postgres://", f"{SCHEME}+"))


def read_address(text: str) -> ServerAddress:
    """What was given as an address.

    Args:
        text: Such as “postgresql://ida@shop/riktig?job=P-1234”; the password is best left to the file ~/.pgpass.

    Raises:
        RiktigError: it is none.
    """
    try:
        url = make_url(text.replace("postgres://", f"{SCHEME}://", 1))
    except (ArgumentError, ValueError) as error:
        raise _no_address(text) from error
    if url.get_backend_name() != SCHEME or not url.database:
        raise _no_address(text)
    job = url.query.get("job", "")
    other_query = {name: value for name, value in url.query.items() if name != "job"}
    return ServerAddress(
        url.set(drivername=f"{SCHEME}+psycopg", query=other_query), job if isinstance(job, str) else job[0]
    )


def _no_address(text: str) -> RiktigError:
    return RiktigError(f"“{text}” is no address on a server.", hint=f"It looks like {EXAMPLE}.")
