"""Frozen value types: SI inside, the unit in every name."""

from drumwork.quantities.length import Length, parse_length
from drumwork.quantities.pitch import (
    HIGHEST_HZ,
    LOWEST_HZ,
    Interval,
    Pitch,
    cents_of,
    cents_words,
    parse_pitch,
    ratio_of,
)
from drumwork.quantities.turns import Turns, parse_turns

__all__ = [
    "HIGHEST_HZ",
    "LOWEST_HZ",
    "Interval",
    "Length",
    "Pitch",
    "Turns",
    "cents_of",
    "cents_words",
    "parse_length",
    "parse_pitch",
    "parse_turns",
    "ratio_of",
]
