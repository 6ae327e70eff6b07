"""What clearing takes from SciPy, fetched when it is first asked for: that takes half a second, and most of what asks for the trade’s rules clears nothing."""

from __future__ import annotations

from functools import cache
from importlib import import_module
from types import ModuleType

import numpy as np
from numpy.typing import NDArray

__all__ = ["chance_below", "cholesky", "cholesky_solve", "solve_positive"]

Array = NDArray[np.float64]


@cache
def _lapack() -> ModuleType:
    return import_module("scipy.linalg.lapack")


@cache
def _special() -> ModuleType:
    return import_module("scipy.special")


def cholesky(matrix: Array) -> Array:
    """The lower factor, (n, n), of a symmetric positive-definite matrix (LAPACK’s dpotrf); what lies above the diagonal is left, `matrix` may be overwritten."""
    factor: Array = _lapack().dpotrf(matrix, lower=1, overwrite_a=1)[0]
    return factor


def cholesky_solve(factor: Array, right: Array) -> Array:
    """x of A x = `right`, by A’s lower factor (LAPACK’s dpotrs); shaped as `right`."""
    found: Array = _lapack().dpotrs(factor, right, lower=1)[0]
    return found


def chance_below(z: Array) -> Array:
    """The standard normal distribution’s function, one for each of `z`."""
    found: Array = _special().ndtr(z)
    return found


def solve_positive(matrix: Array, right: Array) -> Array:
    """x of A x = `right` for a symmetric positive-definite matrix.

    Raises
    ------
    numpy.linalg.LinAlgError
        where the matrix is none.
    """
    found: Array = import_module("scipy.linalg").solve(matrix, right, assume_a="pos")
    return found
