"""A recording with several taps, cut into one piece each."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.onset import find_taps
from drumwork.listening.prepare import prepare

__all__ = ["Cut", "split_taps"]

LEAD_S: Final = 0.06
LONGEST_S: Final = 1.6
BEFORE_NEXT_S: Final = 0.02


@dataclass(frozen=True, slots=True)
class Cut:
    """Samples of one tap, and when they begin in the recording."""

    samples: NDArray[np.floating]
    from_s: float


def split_taps(samples: NDArray[np.floating], rate: int) -> list[Cut]:
    """One piece a tap, in order, each ending before the next begins. (n,) or (n, channels).

    Raises
    ------
    BadQuantity
        for a rate or samples that cannot be sound.
    """
    heard = prepare(samples, rate)
    times = find_taps(heard.x, heard.rate)
    cuts = []
    for number, time in enumerate(times):
        until = times[number + 1] - BEFORE_NEXT_S if number + 1 < len(times) else len(samples) / rate
        start = max(0.0, time - LEAD_S)
        piece = samples[int(start * rate) : int(min(until, time + LONGEST_S) * rate)]
        cuts.append(Cut(piece, start))
    return cuts
