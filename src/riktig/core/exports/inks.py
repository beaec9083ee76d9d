"""What the roles of a drawing look like on white paper."""

from functools import cache

__all__ = ["ink", "rgb"]

_INKS = {
    "ink": "1B2427",
    "second": "4C575B",
    "third": "667075",
    "act": "0B5F66",
    "paper": "FFFFFF",
    "card": "FFFFFF",
    "panel": "FBFAF7",
    "line": "B8B1A3",
    "hair": "DDD7CB",
    "part": "FFFFFF",
    "duct": "EFECE5",
    "duct level": "BFD6D4",
    "rail": "DEDCD6",
    "judgement": "D9A441",
    "fails": "A9281F",
    "lens green": "4E9A5B",
    "lens yellow": "E6BE3C",
    "lens red": "C23A2E",
    "terminal grey": "E4E1DA",
    "terminal light blue": "9CC6EA",
    "terminal green-yellow": "A9C95A",
    "terminal ": "FFFFFF",
    "terminal blue": "9FB4E0",
    "terminal green": "8FC49B",
    "terminal orange": "F0B176",
    "terminal red": "EDA69D",
    "terminal yellow": "F0E4A0",
    "terminal brown": "CDB098",
    "terminal white": "FFFFFF",
    "terminal black": "A4AAAC",
    "wire black": "23282B",
    "wire brown": "7A4A24",
    "wire grey": "8E9496",
    "wire red": "C23A2E",
    "wire light blue": "6FA8DC",
    "wire yellow": "E3C93B",
    "wire blue": "2E5AAC",
    "wire white": "F4F3EF",
    "wire orange": "DE7A1B",
    "wire violet": "7B5AA6",
    "wire green-yellow": "7FA52B",
    "wire stripe": "E3C93B",
    "live": "C8480A",
    "warm 1": "F9E7DA",
    "warm 2": "F3CDB0",
    "warm 3": "E9A880",
    "chosen": "D3E4E3",
    "act soft": "D3E4E3",
    "fails soft": "F6E9E6",
    "ground": "E4E0D7",
    "meets": "23704A",
    "on act": "FFFFFF",
    "out of date": "5C4B87",
    "return": "2F6F8F",
    "print": "1B2427",
    "sign ink": "1B2427",
}


def ink(role: str) -> str:
    """The colour of a role as six hexadecimal digits; an unknown role is ink."""
    return _INKS.get(role, _INKS["ink"])


@cache
def rgb(role: str) -> tuple[float, float, float]:
    """The colour of a role, each part 0..1."""
    text = ink(role)
    return (int(text[0:2], 16) / 255, int(text[2:4], 16) / 255, int(text[4:6], 16) / 255)
