"""How far a new head's pitch falls as its film stretches over the edge, and what to do about it.

The fall follows the creep of a stressed polymer film, which goes with the logarithm of time: drop(t) = A · ln(1 + t/τ) in cents. A is drawn
from a prior by film and corrected by the drum's own readings; τ is fixed. The priors are our own estimates set so that a single ply falls by
about fifteen cents in the first two days (common practice F6 gives the days, not the cents).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.quantities import Pitch, ratio_of

__all__ = ["Dropped", "FilmKind", "Settling", "expect_settling"]

TAU_DAYS: Final = 0.25
READING_SD_CENTS: Final = 4.0
WORTH_CENTS: Final = 8.0
"""A further fall smaller than this is not worth a visit; our own figure."""
MOST_DAYS: Final = 180.0


@dataclass(frozen=True, slots=True)
class FilmKind:
    """Prior of A in cents per unit of ln(1 + t/τ): mean and standard deviation."""

    name: str
    mean: float
    sd: float


PRIORS: Final = (
    FilmKind("snare-side", 4.5, 2.5),
    FilmKind("single", 7.0, 3.5),
    FilmKind("double", 8.5, 4.0),
    FilmKind("mesh", 2.0, 1.5),
)


@dataclass(frozen=True, slots=True)
class Dropped:
    """A reading after fitting: so many days on, so many cents below where it was left."""

    days: float
    cents: float


@dataclass(frozen=True, slots=True)
class Settling:
    """What is expected of one head.

    >>> round(expect_settling("single").drop_cents(2.0))
    15
    """

    mean: float
    sd: float

    def drop_cents(self, days: float) -> float:
        """Expected fall after so many days."""
        return self.mean * _shape(days)

    def drop_sd_cents(self, days: float) -> float:
        return math.hypot(self.sd * _shape(days), READING_SD_CENTS)

    def pitch_at(self, left_at: Pitch, days: float) -> Pitch:
        """Expected pitch when it was left at `left_at`."""
        return Pitch(left_at.hz * ratio_of(-self.drop_cents(days)))

    def leave_at(self, target: Pitch, check_after_days: float, share: float = 1.0) -> Pitch:
        """The pitch to leave it at so that it has come to the target by the check; `share` 0 for workshops that leave none."""
        if not 0 <= share <= 1:
            raise BadQuantity("The share to leave above pitch lies between 0 and 1.", share=share)
        return Pitch(target.hz * ratio_of(share * self.drop_cents(check_after_days)))

    def next_check_days(self, cleared_at_days: float) -> float | None:
        """Days after fitting when another check is worth making, cleared at `cleared_at_days`; None when it never is."""
        if self.mean <= 0:
            return None
        when = (math.exp(WORTH_CENTS / self.mean) * (1 + cleared_at_days / TAU_DAYS) - 1) * TAU_DAYS
        return when if when <= MOST_DAYS else None


def _shape(days: float) -> float:
    if days < 0:
        raise BadQuantity("Days since fitting cannot be less than nought.", days=days)
    return math.log1p(days / TAU_DAYS)


def expect_settling(film: str = "single", seen: Sequence[Dropped] = ()) -> Settling:
    """Prior by kind of film, corrected by this drum's own readings (a conjugate Gaussian update).

    Raises
    ------
    BadQuantity
        for an unknown kind of film.
    """
    prior = next((each for each in PRIORS if each.name == film), None)
    if prior is None:
        names = ", ".join(each.name for each in PRIORS)
        raise BadQuantity(f"There is no kind of film “{film}”. Choose one of: {names}.", film=film)
    weight, pull = 1 / prior.sd**2, prior.mean / prior.sd**2
    for each in seen:
        shape = _shape(each.days)
        weight += shape**2 / READING_SD_CENTS**2
        pull += shape * each.cents / READING_SD_CENTS**2
    return Settling(pull / weight, weight**-0.5)
