"""What comes in at the edge of the commands: numbers within their range, JSON of sane depth."""

from __future__ import annotations

import argparse
import json
import math
from collections.abc import Callable
from typing import Any, Final

__all__ = ["A4", "between", "read_json", "whole"]


def between(low: float, high: float) -> Callable[[str], float]:
    """An argument that is a number from `low` to `high`."""

    def read(text: str) -> float:
        try:
            value = float(text)
        except ValueError:
            value = math.nan
        if not low <= value <= high:  # what is no number is not between either
            raise argparse.ArgumentTypeError(f"“{text}”: give a number from {low:g} to {high:g}.")
        return value

    return read


def whole(low: int, high: int) -> Callable[[str], int]:
    """An argument that is a whole number from `low` to `high`."""
    inside = between(low, high)

    def read(text: str) -> int:
        value = inside(text)
        if value != int(value):
            raise argparse.ArgumentTypeError(f"“{text}”: give a whole number.")
        return int(value)

    return read


A4: Final = between(400, 480)
"""What a reference A can be, in hertz."""


def read_json(line: str) -> Any:
    """One line of JSON.

    Raises
    ------
    json.JSONDecodeError
        also for lists in lists in lists without end.
    """
    try:
        return json.loads(line)
    except RecursionError:
        raise json.JSONDecodeError("it is nested too deep", "", 0) from None
