"""Which partial of the family is the one that was asked for. Never simply the tallest.

Ratios of an ideal film: (2,1) lies 1.340 above (1,1), (0,1) at 0.628 of it (Fletcher & Rossing; DLMF §10.21). Air and the other head pull (0,1) about,
so that its place is taken widely; and the more the air weighs beside the film, the wider the family lies.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Final

from drumwork.listening.context import TapContext, Where, usual_edge_hz
from drumwork.listening.partials import Partial
from drumwork.quantities import cents_of
from drumwork.sources.bessel import BESSEL_ZEROS

__all__ = ["EDGE_OVER_CENTRE", "choose_partial"]

EXPECT_CENTS: Final = 90.0
EXPECT_COST_DB: Final = 4.0  # at that distance; grows with its square
FURTHEST_CENTS: Final = 320.0
AT_CENTRE_RATIO: Final = 0.022
AT_CENTRE_COST_DB: Final = 30.0
EDGE_LOG_SD: Final = 0.38
SIZE_COST_DB: Final = 5.0
EDGE_OVER_CENTRE: Final = 1.7
"""Equal heads: the fundamental is 0.58–0.60 of the lug pitch (our own study); other relations spread it widely, so that nothing hangs on it."""
MODES: Final = ((2, 1), (0, 2), (3, 1), (1, 2), (4, 1), (2, 2), (0, 3))
AIR_WEIGHTS: Final = (0.06, 0.25, 0.5, 0.8)
"""Weight of the air that moves with the (1,1) mode against that of the film: little on a small thick head, much on a large thin one."""


def _loaded(mode: tuple[int, int], weight: float) -> float:
    """Where a mode lies above the (1,1), air weighing less on the higher one (`drumwork.membrane.modes`)."""
    ideal = BESSEL_ZEROS[mode] / BESSEL_ZEROS[1, 1]
    return ideal * math.sqrt((1 + weight) / (1 + weight / ideal))


FAMILIES: Final = tuple(tuple(math.log(_loaded(mode, weight)) for mode in MODES) for weight in AIR_WEIGHTS)
NEAR_LOG: Final = 0.022
DRUM: Final = (0.42, 1.28)
"""Where the (0,1) may lie against the pair: lowest over an open drum, highest where the other head is held and leaks."""
DIES_FASTER: Final = 0.95
"""Against the pair: it dies 1.3 to 3 times faster, less what a decay is misread by."""
OUTLASTED_DB: Final = 3.5
"""What is lost for each doubling of decay over the partial that rings longest."""
OUTLAST_WITHIN_DB: Final = 24.0
BEYOND: Final = 0.1
DRUM_FITS: Final = 0.5
OWN_LOG: Final = 0.06  # the pair's other half
FAMILY_DB: Final = 16.0
OWN_SHARE: Final = 0.45
DEEP_DB: Final = 36.0
LOW_DB_PER_OCTAVE: Final = 6.0
"""With nothing known, of two equally strong partials the lower is the drum's own."""


def _cents(hz: float, other: float) -> float:
    return cents_of(hz / other)


def _fits(ratio: float, family: Sequence[float]) -> float:
    """How well a partial at this ratio of the (1,1) pair belongs to its family: 1 in its place, 0 far off, less than nothing below it, where a film
    has nothing but its (0,1)."""
    if abs(math.log(ratio)) < OWN_LOG:
        return 0.6
    if ratio < 1:
        return -1.0
    nearest = min(abs(math.log(ratio) - place) for place in family)
    return math.exp(-0.5 * (nearest / NEAR_LOG) ** 2)


def _drums_note(partials: Sequence[Partial], one: Partial) -> Partial | None:
    """The strongest partial that could be the drum's (0,1), were this the pair."""
    could = [
        each
        for each in partials
        if each is not one
        and DRUM[0] <= each.hz / one.hz <= DRUM[1]
        and abs(math.log(each.hz / one.hz)) > OWN_LOG
        and each.decay_db_s > DIES_FASTER * one.decay_db_s
    ]
    return max(could, key=lambda each: each.level_db, default=None)


def _family(partials: Sequence[Partial], one: Partial) -> float:
    """How well the others fit, were this the (1,1) pair, in decibels; weighed by how strong they are. One other may be the (0,1): it may lie from
    far below the pair to a little above it, and it dies faster."""
    drum = _drums_note(partials, one)
    others = [each for each in partials if each is not one]
    weights = [max(0.0, 1 + each.level_db / DEEP_DB) for each in others]
    total = sum(weights)
    if not total:
        return 0.0
    return FAMILY_DB * max(
        sum(
            weight * (DRUM_FITS if each is drum else _fits(each.hz / one.hz, family))
            for weight, each in zip(weights, others, strict=True)
        )
        / total
        for family in FAMILIES
    )


def _usual_hz(context: TapContext) -> float | None:
    if context.usual_hz is not None:
        return context.usual_hz
    if context.diameter is None:
        return None
    edge = usual_edge_hz(context.diameter)
    return edge / EDGE_OVER_CENTRE if context.at is Where.CENTRE else edge


def _size(one: Partial, context: TapContext) -> float:
    usual = _usual_hz(context)
    return -SIZE_COST_DB * (math.log(one.hz / usual) / EDGE_LOG_SD) ** 2 if usual else 0.0


def _score(partials: Sequence[Partial], one: Partial, context: TapContext) -> float:
    score = one.level_db
    centre_tap = context.at is Where.CENTRE
    wanted = (context.expect_hz or context.centre_hz) if centre_tap else context.expect_hz
    if wanted is not None:
        score -= EXPECT_COST_DB * (_cents(one.hz, wanted) / EXPECT_CENTS) ** 2
    if not centre_tap and context.centre_hz and abs(one.hz / context.centre_hz - 1) < AT_CENTRE_RATIO:
        apart = wanted is None or abs(wanted / context.centre_hz - 1) > 2 * AT_CENTRE_RATIO
        score -= AT_CENTRE_COST_DB if apart else 0.0
    if wanted is not None:
        return score
    if centre_tap:
        return OWN_SHARE * one.level_db + _size(one, context)
    if context.centre_hz is None and _usual_hz(context) is None:
        return score - LOW_DB_PER_OCTAVE * math.log2(one.hz / 100)
    score += (OWN_SHARE - 1) * one.level_db + _family(partials, one) + _size(one, context)
    strong = [max(each.decay_db_s, 1.0) for each in partials if each.level_db > -OUTLAST_WITHIN_DB]
    score -= OUTLASTED_DB * math.log2(max(one.decay_db_s, 1.0) / min(strong)) if strong else 0.0
    if context.centre_hz:
        beyond = max(0.0, DRUM[0] * one.hz / context.centre_hz - 1, context.centre_hz / (DRUM[1] * one.hz) - 1)
        score -= EXPECT_COST_DB * (beyond / BEYOND) ** 2
    return score


def choose_partial(partials: Sequence[Partial], context: TapContext) -> tuple[Partial, bool]:
    """The partial that was asked for, and whether it lies where it was expected.

    With nothing known it is the strongest that is left when the stroke has died away.
    """
    best = max(partials, key=lambda one: _score(partials, one, context))
    wanted = context.expect_hz or (context.centre_hz if context.at is Where.CENTRE else None)
    return best, wanted is None or abs(_cents(best.hz, wanted)) <= FURTHEST_CENTS
