"""Threads of tension rods, by the pitch their name stands for."""

from __future__ import annotations

import re
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.sources import threads
from drumwork.sources.international_inch import METRES_PER_INCH

__all__ = ["USUAL_THREAD", "thread_pitch_m"]

USUAL_THREAD: Final = "12-24"
"""Common practice, no source: what most tension rods carry."""

_UNIFIED: Final = re.compile(r"^\d+(?:/\d+)?-(\d{2})$")
_METRIC: Final = re.compile(r"^M(\d+)(?:\s*[x×]\s*(\d+(?:[.,]\d+)?))?$", re.IGNORECASE)


def thread_pitch_m(name: str) -> float:
    """Metres a turn of a thread as it is written: “M6”, “M6 × 0.75”, “12-24”, “1/4-20 UNC”.

    >>> round(thread_pitch_m("12-24") * 1000, 4)
    1.0583

    Raises
    ------
    BadQuantity
        for a thread not known.
    """
    plain = name.strip().upper().removesuffix("UNC").removesuffix("UNF").replace("#", "").replace(" ", "")
    if match := _METRIC.match(plain):
        if match[2]:
            return float(match[2].replace(",", ".")) * 1e-3
        if f"M{match[1]}" in threads.METRIC_COARSE_M:
            return threads.METRIC_COARSE_M[f"M{match[1]}"]
    if match := _UNIFIED.match(plain):
        return METRES_PER_INCH / int(match[1])
    raise BadQuantity(
        f"The thread “{name}” is not known here. Write it as 12-24 (size, threads to the inch), M6, or M6 x 0.75.",
        thread=name,
    )
