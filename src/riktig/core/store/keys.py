"""The private keys of the people who record on this machine, a file each, readable by its owner only."""

import hashlib
import os
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.inputs import plain_name, read_bytes
from riktig.core.records import Signer, new_private_key

__all__ = ["signer_of"]


def signer_of(who: str, folder: Path) -> Signer:
    """The key of a person, made when there is none yet. However the name is written, a person has one.

    Args:
        who: The name of the person.
        folder: A folder that is there.

    Raises:
        RiktigError: it cannot be read or kept.
    """
    path = folder / f"{hashlib.sha256(plain_name(who).encode()).hexdigest()[:16]}.key"
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        if not path.exists():
            part = path.with_suffix(f".{os.getpid()}")
            part.unlink(missing_ok=True)
            part.touch(mode=0o600, exist_ok=False)
            part.write_bytes(new_private_key())
            os.link(part, path)
            part.unlink()
    except FileExistsError:
        part.unlink(missing_ok=True)  # made by another window meanwhile: that one is the person's key
    except OSError as error:
        raise _unusable(path, error.strerror or str(error)) from error
    private = read_bytes(path, most=1000)
    if len(private) != 32:
        raise _unusable(path, "it is no key")
    return Signer(private)


def _unusable(path: Path, why: str) -> RiktigError:
    return RiktigError(
        f"The key with which you sign cannot be used ({why}), so what you record is not signed.",
        hint="Make room or allow writing there. Without the old key a new one is made, and said to be another.",
        where=str(path),
    )
