"""Packages that load a module when a name of it is first asked for, so one list does not load the whole program."""

from collections.abc import Callable

import lazy_loader

__all__ = ["loaded_when_asked"]


def loaded_when_asked(name: str, file: str) -> tuple[Callable[[str], object], Callable[[], list[str]], list[str]]:
    """What a package needs to hand out the names of its stub, loading each module the first time.

    Method:
        ``__init__.pyi`` beside the package says which module has which name; type checkers read the same file.

    Args:
        name: The package's ``__name__``.
        file: The package's ``__file__``.

    Returns:
        ``__getattr__``, ``__dir__`` and ``__all__`` of the package.
    """
    getter, lister, names = lazy_loader.attach_stub(name, file)
    return getter, lister, names
