"""Which partial of the family is the one that was asked for, and how sure that is. Never simply the tallest.

At a rod each partial in turn is taken for the (1,1) pair; its traits (`listening.traits`), weighed as was fitted (`listening.weights`), give the chance of each. In
the middle of the head the drum's own note is wanted: the strongest about where it should be. What would settle a close call is worked out by supposing it known.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.around import Around, Other, place_of_note, ways
from drumwork.listening.context import TapContext, Where, usual_edge_hz
from drumwork.listening.partials import Partial
from drumwork.listening.traits import OWN_LOG, TRAITS, Told, belongs, note_of, weigh
from drumwork.listening.weights import ALONE, EXPECTED
from drumwork.quantities import cents_of

__all__ = ["Ask", "Candidate", "Choice", "choose_partial"]

Array = NDArray[np.float64]

FURTHEST_CENTS: Final = 320.0
EDGE_OVER_CENTRE: Final = 1.7
"""Equal heads: the fundamental is 0.58–0.60 of the lug pitch (our own study); other relations spread it widely, so that nothing hangs on it."""
MIDDLE_PER_DB: Final = 0.16
MIDDLE_SIZE_LOG_SD: Final = 0.3
MIDDLE_CENTS: Final = 70.0
MIDDLE_ASTRAY_LOG_SD: Final = 0.1  # how far a drum's note lies from where the drum says, beside what is not known of it
NOWHERE: Final = 0.02  # and how likely it is anywhere at all
LEAST_CHANCE: Final = 0.1  # of a second worth telling
TWIN_PER_DB: Final = 0.23  # amplitude to its square
CLOSE: Final = 0.4  # of the first's chance, the second's where a call is close
SETTLED: Final = 0.8
GAINED: Final = 0.12


class Ask(StrEnum):
    """The one thing that would settle a close call."""

    MIDDLE = "middle"
    MUTE = "mute"


@dataclass(frozen=True, slots=True)
class Candidate:
    """A partial that could be meant instead: hertz, and its chance."""

    hz: float
    chance: float


@dataclass(frozen=True, slots=True)
class Choice:
    """The partial that was asked for.

    Attributes
    ----------
    chance : that it is meant, 0 to 1; the pair's two count as one
    second : the likeliest other, where there is one worth telling
    there : it lies where it was expected, or nothing was
    ask : what would settle it, where the call is close and something would
    """

    best: Partial
    chance: float
    second: Candidate | None
    there: bool
    ask: Ask | None

    @property
    def close(self) -> bool:
        return self.second is not None and self.second.chance > CLOSE * self.chance


def _weights(weighs: Mapping[str, float]) -> Array:
    return np.array([weighs.get(name, 0.0) for name in TRAITS])


def _chances(score: Array) -> Array:
    odds = np.exp(score - score.max())
    return np.asarray(odds / odds.sum())


def _at_rod(partials: Sequence[Partial], told: Told) -> Array:
    """(n,) the chance of each to be of the pair."""
    return weigh(partials, told).chances(_weights(EXPECTED if told.expect_hz else ALONE))


def _usual_hz(context: TapContext) -> float | None:
    if context.usual_hz is not None:
        return context.usual_hz
    return usual_edge_hz(context.diameter) if context.diameter else None


def _in_middle(partials: Sequence[Partial], context: TapContext) -> Array:
    """(n,) the chance of each to be the drum's own note."""
    level = np.array([each.level_db for each in partials])
    hz = np.array([each.hz for each in partials])
    score = MIDDLE_PER_DB * level
    if wanted := context.expect_hz or context.centre_hz:
        return _chances(score - (1200 * np.log2(hz / wanted) / MIDDLE_CENTS) ** 2 / 2)
    if context.pair_hz and context.drum:
        return _chances(score + _by_pair(hz, context.pair_hz, context.drum))
    usual = context.usual_hz or (usual_edge_hz(context.diameter) / EDGE_OVER_CENTRE if context.diameter else None)
    off = np.log(hz / usual) / MIDDLE_SIZE_LOG_SD if usual else np.log(hz / hz.min())
    return _chances(score - off**2 / 2)


def _by_pair(hz: Array, pair_hz: float, drum: Around) -> Array:
    """(n,) logarithm of how likely each is the drum's note, from what the rods read and however the other head may be kept."""
    above, total = np.log(hz / pair_hz), np.full(len(hz), NOWHERE)
    for other, often in ways(drum).items():
        likely, sd = (float(each[0]) for each in place_of_note(drum, other, np.array([pair_hz])))
        wide = math.hypot(sd, MIDDLE_ASTRAY_LOG_SD)
        total += often * np.exp(-0.5 * ((above - likely) / wide) ** 2) / wide
    return np.asarray(np.log(total))


def _settles(partials: Sequence[Partial], chances: Array, told: Told) -> float:
    """The chance of a right reading once the middle was tapped: for each that may be the pair, how likely it is then seen to be."""
    sure = 0.0
    for place, chance in enumerate(chances):
        note = note_of(partials, place, told)
        centre_hz = note.hz if note else partials[place].hz / EDGE_OVER_CENTRE
        sure += float(chance * _at_rod(partials, replace(told, centre_hz=centre_hz))[place])
    return sure


def _ask(partials: Sequence[Partial], chances: Array, best: int, second: int, told: Told, muted: bool) -> Ask | None:
    if told.centre_hz is None:
        after = _settles(partials, chances, told)
        if after > SETTLED and after > float(chances[best]) + GAINED:
            return Ask.MIDDLE
    stranger = not belongs(partials, best, second, told)
    return Ask.MUTE if stranger and not muted else None


def _loudest_twin(partials: Sequence[Partial], chances: Array, best: int) -> int:
    """Of the pair's two, and of what a ring was taken apart into beside them, the one that rings on: the likeliest weighed by its level."""
    twins = [place for place, each in enumerate(partials) if abs(math.log(each.hz / partials[best].hz)) < OWN_LOG]
    return max(twins, key=lambda place: math.log(chances[place] + 1e-12) + TWIN_PER_DB * partials[place].level_db)


def choose_partial(partials: Sequence[Partial], context: TapContext) -> Choice:
    """The partial that was asked for; `partials` holds one at least."""
    middle = context.at is Where.CENTRE
    told = Told(context.expect_hz, _usual_hz(context), context.centre_hz, context.drum)
    chances = _in_middle(partials, context) if middle else _at_rod(partials, told)
    best = int(np.argmax(chances))
    if not middle:
        best = _loudest_twin(partials, chances, best)
    apart = np.array([abs(math.log(each.hz / partials[best].hz)) > OWN_LOG for each in partials])
    others = np.where(apart, chances, 0.0)
    place = int(np.argmax(others))
    second = Candidate(partials[place].hz, float(others[place])) if others[place] > LEAST_CHANCE else None
    wanted = context.expect_hz or (context.centre_hz if middle else None)
    there = wanted is None or abs(cents_of(partials[best].hz / wanted)) <= FURTHEST_CENTS
    choice = Choice(partials[best], float(1 - others.sum()), second, there, None)
    if middle or not choice.close:
        return choice
    return replace(choice, ask=_ask(partials, chances, best, place, told, context.other is Other.HELD))
