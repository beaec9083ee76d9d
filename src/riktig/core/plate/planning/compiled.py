"""The one place where numeric functions are compiled, with their types kept."""

from collections.abc import Callable
from typing import Any, TypeVar, cast

from numba import njit

__all__ = ["compiled"]

Function = TypeVar("Function", bound=Callable[..., Any])


def compiled(function: Function) -> Function:
    """The same function as machine code: kept on disk, and running beside the interface's thread."""
    return cast(Function, njit(cache=True, nogil=True)(function))
