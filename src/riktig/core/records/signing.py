"""Signatures of people under what they recorded: Ed25519, through the library “cryptography”.

Who signs has a private key of his own on his machine; the public key stands beside each signature, so that a copy of
the file can be checked anywhere. Whose key it is, people tell each other: Riktig says only that it is the same.
"""

from dataclasses import dataclass, field
from functools import cached_property

__all__ = ["Signer", "fingerprint", "is_signed", "new_private_key"]


def new_private_key() -> bytes:
    """A new private key, 32 bytes."""
    from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PrivateKey  # late: only who signs needs it

    return Ed25519PrivateKey.generate().private_bytes_raw()


@dataclass(frozen=True)
class Signer:
    """Who signs: a private key of 32 bytes, which is not shown and not written anywhere."""

    private: bytes = field(repr=False)

    @cached_property
    def public(self) -> str:
        """The public key, in hexadecimal.

        Raises:
            ValueError: the private key has not 32 bytes.
        """
        from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PrivateKey

        return Ed25519PrivateKey.from_private_bytes(self.private).public_key().public_bytes_raw().hex()

    def sign(self, text: str) -> str:
        """The signature of a text, in hexadecimal; the same text has the same signature."""
        from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PrivateKey

        return Ed25519PrivateKey.from_private_bytes(self.private).sign(text.encode()).hex()


def is_signed(public: str, signature: str, text: str) -> bool:
    """Whether a signature of a text was made with the private key that belongs to ``public``."""
    from cryptography.exceptions import InvalidSignature
    from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PublicKey

    try:
        Ed25519PublicKey.from_public_bytes(bytes.fromhex(public)).verify(bytes.fromhex(signature), text.encode())
    except (InvalidSignature, ValueError):
        return False
    return True


def fingerprint(public: str) -> str:
    """The first figures of a public key, in groups, to be read out: “3f2a 91c0 07d4 88ab”."""
    return " ".join(public[place : place + 4] for place in range(0, 16, 4))
