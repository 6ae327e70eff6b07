"""Frozen value types: SI inside, the unit in every name."""

from drumwork.quantities.length import Length, parse_length
from drumwork.quantities.pitch import (
    HIGHEST_HZ,
    LOWEST_HZ,
    Interval,
    Pitch,
    parse_pitch,
)
from drumwork.quantities.turns import Turns, parse_turns

__all__ = [
    "HIGHEST_HZ",
    "LOWEST_HZ",
    "Interval",
    "Length",
    "Pitch",
    "Turns",
    "parse_length",
    "parse_pitch",
    "parse_turns",
]
