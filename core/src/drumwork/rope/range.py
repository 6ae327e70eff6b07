"""The range of a rope drum, and how much more to pull for a wanted one.

A head's pitch squared goes as its pull (ideal membrane: f ∝ √T). Pulling every segment by the same length adds the same to the pull, so
f² grows in step with what was pulled; ears drawn down add a pull of their own, so the squares of highest and lowest differ by about the
same, however far the rope is pulled. What one centimetre does on this drum is learned from its passes.

References
----------
Lord Rayleigh, *The Theory of Sound*, vol. I (1877), ch. IX: frequencies of a stretched membrane, f ∝ √(T/σ).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from drumwork.errors import BadQuantity
from drumwork.quantities import Interval

__all__ = ["Need", "Pass", "Range", "how_much_more"]

ABOVE_CENTS = 50.0
"""Aimed above what is wanted, since film and rope settle (§14: "slightly above"); the figure is our own."""
TRIAL_M = 0.01
"""A first pass to learn from, where nothing is known; our own figure."""


@dataclass(frozen=True, slots=True)
class Range:
    """Hertz with every ear up, and with every ear down.

    Raises
    ------
    BadQuantity
        where the lower is not positive, or the higher not above it.
    """

    low_hz: float
    high_hz: float

    def __post_init__(self) -> None:
        if not 0 < self.low_hz < self.high_hz:
            raise BadQuantity("Ears up give the lower pitch, ears down the higher. Read both again.", low=self.low_hz, high=self.high_hz)  # fmt: skip

    @property
    def by_ears_hz2(self) -> float:
        """What the ears add, in hertz squared."""
        return self.high_hz**2 - self.low_hz**2


@dataclass(frozen=True, slots=True)
class Pass:
    """One pull pass: how far each segment was pulled, metres, and the lowest pitch before and after."""

    pulled_m: float
    before_hz: float
    after_hz: float


@dataclass(frozen=True, slots=True)
class Need:
    """What to pull, and what will come of it. `per_m` in hertz squared a metre, None where it is not known yet."""

    pull_m: float
    per_m: float | None
    aimed: Range
    expected: Range | None
    words: str


def _learned(passes: Sequence[Pass]) -> float | None:
    """Hertz squared a metre, by least squares through nought over this drum's passes."""
    told = [(each.pulled_m, each.after_hz**2 - each.before_hz**2) for each in passes if each.pulled_m]
    weight = sum(pulled**2 for pulled, _ in told)
    found = sum(pulled * gained for pulled, gained in told) / weight if weight else 0.0
    return found if found > 0 else None


def _aim(wanted: Range, above_cents: float) -> Range:
    ratio = Interval(above_cents).ratio
    return Range(wanted.low_hz * ratio, wanted.high_hz * ratio)


def how_much_more(now: Range, wanted: Range, passes: Sequence[Pass] = (), above_cents: float = ABOVE_CENTS) -> Need:
    """How much further to pull every segment so that the wanted range lies within what the ears reach, aimed slightly above.

    The highest pitch decides, since ears can always be left up: it is brought to what is aimed at. Where the ears of this drum then no
    longer reach down to the lowest, that is said.

    Raises
    ------
    BadQuantity
        for passes that lowered the pitch, which no pull does.
    """
    if any(each.pulled_m > 0 and each.after_hz < each.before_hz for each in passes):
        raise BadQuantity("A pull that lowered the pitch is a slipped rope or a misread note. Read that pass again.")
    aimed = _aim(wanted, above_cents)
    gain = aimed.high_hz**2 - now.high_hz**2
    per_m = _learned(passes)
    if per_m is None:
        if gain <= 0:
            return Need(0.0, None, aimed, now, "High enough as it is; the ears reach what is wanted.")
        return Need(TRIAL_M, None, aimed, None, "Nothing is known of this rope yet: pull every segment one centimetre, read the range, and ask again.")  # fmt: skip
    pull = max(0.0, gain / per_m)
    low = math.sqrt(now.low_hz**2 + per_m * pull)
    expected = Range(low, math.sqrt(low**2 + now.by_ears_hz2))
    words = f"Pull every segment {pull * 1000:.0f} mm more: {expected.low_hz:.1f} to {expected.high_hz:.1f} Hz."
    if pull == 0.0:
        words = "High enough as it is; let none out unless its lowest is too high."
    if expected.low_hz > aimed.low_hz * 1.001:
        words += f" Ears up it then stops at {expected.low_hz:.1f} Hz, above the lowest wanted: the ears of this drum reach no wider."
    return Need(pull, per_m, aimed, expected, words)
