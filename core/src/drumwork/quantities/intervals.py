"""Intervals by the names musicians use."""

from __future__ import annotations

import re
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.quantities.pitch import Interval

__all__ = ["INTERVALS", "parse_interval"]

INTERVALS: Final = {
    "unison": 0,
    "minor second": 100,
    "major second": 200,
    "minor third": 300,
    "major third": 400,
    "fourth": 500,
    "tritone": 600,
    "fifth": 700,
    "minor sixth": 800,
    "major sixth": 900,
    "minor seventh": 1000,
    "major seventh": 1100,
    "octave": 1200,
}
"""Equal-tempered sizes in cents (twelve equal steps to the octave)."""

_CENTS: Final = re.compile(r"^\s*([+\-−]?\d+(?:\.\d+)?)\s*(?:c|ct|cents?)?\s*$")


def parse_interval(text: str) -> Interval:
    """Read 'minor third', '300', '-50 cents' or a ratio such as '6:5'.

    >>> parse_interval("6:5").cents
    315.64128700055255
    """
    name = " ".join(text.lower().split())
    if name in INTERVALS:
        return Interval(float(INTERVALS[name]))
    if match := _CENTS.match(text):
        return Interval(float(match[1].replace("−", "-")))
    top, _, bottom = text.partition(":")
    if top.strip().isdecimal() and bottom.strip().isdecimal() and int(bottom) > 0 and int(top) > 0:
        return Interval.from_ratio(int(top) / int(bottom))
    raise BadQuantity(
        f"Give an interval by name ({', '.join(INTERVALS)}), in cents, or as a ratio such as 6:5.", text=text
    )
