"""Figures of the trade. Common practice: none of them has a published source.

Each constant names the fact it comes from by its id in the trade notes (`docs/sources/trade.md`).
"""

from fractions import Fraction
from typing import Final

EVEN_ENOUGH_SPREAD_HZ: Final = 2.0  # F2, met on a small tom near 100 Hz
EVEN_ENOUGH_SPREAD_RATIO: Final = 0.02  # F2 as a ratio: 2 Hz in 100 Hz
AT_PITCH_RATIO: Final = 0.01  # half of F2 either way: a head is at pitch where its mean lies as near the wanted pitch as its rods may; our reading of F2
HALF_TURN: Final = Fraction(1, 2)  # P10: usual step from finger-tight
QUARTER_TURN: Final = Fraction(1, 4)  # P10: steps grow smaller toward the end
SETTLING_CHECK_DAYS: Final = 2  # F6: the first one to two days
