"""Two heads on one shell: from the sound wanted to the pitch of each head.

Two film masses on the air spring of the shell. With s = σ'·A the moving mass of each head in its (0,1) mode and K the air spring, the
coupled pair of (0,1) frequencies are the eigenvalues of a two-mass chain. The lower one (heads moving together) is the drum's
fundamental; it is good within a few per cent, the upper is only rough. Going from a wanted fundamental and a relation of the lug pitches
to the two lug pitches is well conditioned; going back from two coupled pitches to two lug pitches is not, and is not offered.

References
----------
Two-mass model of a two-headed drum: Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 18; Rossing, Bork, Zhao & Fystrom, JASA 92
(1992), for a snare drum (values from memory). Mean displacement and modal mass of the (0,1) mode: ∫J0 = 2 J1(j)/j = 0.4318, ∫J0² = J1(j)² = 0.2695.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.membrane.film import Film, Head
from drumwork.membrane.modes import fundamental_hz, tension_for_edge
from drumwork.quantities import HIGHEST_HZ, LOWEST_HZ, Interval, Length, Pitch
from drumwork.sources.materials import AIR_DENSITY_KG_PER_M3, SOUND_M_PER_S

__all__ = ["Relation", "TwoHeads", "coupled_pair", "plan_two_heads"]

MEAN_DISPLACEMENT: Final = 0.43175
"""Mean of J0(j01 r/a) over the disc: 2·J1(j01)/j01."""
MEAN_SQUARE: Final = 0.26951
"""Mean of its square: J1(j01)²."""
QUARTER_TURN_CENTS: Final = 150.0
"""What a further quarter turn of every rod does to a head already in tension: about 1½ semitones at usual pitches, by our prior of 0.8
in z a turn; common practice P17 gives no figure."""


class Relation(StrEnum):
    """How the resonant head stands to the batter (trade §7)."""

    EQUAL = "equal"
    HIGHER = "higher"
    LOWER = "lower"
    QUARTER_TURN_MORE = "quarter-turn-more"


@dataclass(frozen=True, slots=True)
class TwoHeads:
    """A plan for both heads. `upper_hz` is rough. `fundamental_sd_hz` holds a tenth of film mass and of the air spring unknown."""

    batter: Pitch
    resonant: Pitch
    fundamental_hz: float
    fundamental_sd_hz: float
    upper_hz: float
    character: str
    why: str


def coupled_pair(
    heads: tuple[Head, Head], lugs: tuple[Pitch, Pitch], depth: Length, air: float = 1.0
) -> tuple[float, float]:
    """Lower and upper coupled (0,1) frequencies in hertz; `air` scales the spring, for sensitivity.

    Raises
    ------
    BadQuantity
        when the heads differ in size.
    """
    if abs(heads[0].diameter.metres - heads[1].diameter.metres) > 1e-3:
        raise BadQuantity("Both heads of one shell have the same size.")
    radius = heads[0].diameter.metres / 2
    area = math.pi * radius**2
    spring = (
        air * AIR_DENSITY_KG_PER_M3 * SOUND_M_PER_S**2 * area * MEAN_DISPLACEMENT**2 / depth.metres
    )  # N/m of peak motion
    own, mass = [], []
    for head, lug in zip(heads, lugs, strict=True):
        alone = fundamental_hz(head.membrane, tension_for_edge(head.membrane, lug.hz))
        own.append((math.tau * alone) ** 2)
        mass.append(head.membrane.loaded_density((0, 1)) * area * MEAN_SQUARE)
    one, two = (w + spring / m for w, m in zip(own, mass, strict=True))
    mean, half, coupling = (one + two) / 2, (one - two) / 2, spring**2 / (mass[0] * mass[1])
    root = math.sqrt(half**2 + coupling)
    return math.sqrt(max(mean - root, 0.0)) / math.tau, math.sqrt(mean + root) / math.tau


def _interval(relation: Relation, cents: float) -> float:
    match relation:
        case Relation.EQUAL:
            return 0.0
        case Relation.HIGHER:
            return abs(cents)
        case Relation.LOWER:
            return -abs(cents)
        case Relation.QUARTER_TURN_MORE:
            return QUARTER_TURN_CENTS


def _character(above_cents: float) -> tuple[str, str]:
    """Plain words for the sound, and why (trade §7, common practice)."""
    if abs(above_cents) < 30:
        return "longest and roundest", "both heads agree, so they feed each other and the note lasts"
    if above_cents >= 500:
        return "long and present, with a clear note", "a much tighter resonant head keeps its own note going"
    if above_cents > 0:
        return "shorter and punchier", "the resonant head answers higher and gives back sooner"
    return "flat and thuddy, with a drop in the note", "a slacker resonant head takes the note down and lets it die"


def _with_mass(head: Head, share: float) -> Head:
    film = head.film
    return Head(Film(film.plies, film.thickness_m * share, film.coated), head.diameter, head.rods)


def _spread(heads: tuple[Head, Head], lugs: tuple[Pitch, Pitch], depth: Length, lower: float) -> float:
    heavier = (_with_mass(heads[0], 1.1), _with_mass(heads[1], 1.1))
    by_mass = coupled_pair(heavier, lugs, depth)[0] - lower
    by_air = coupled_pair(heads, lugs, depth, air=1.1)[0] - lower
    return math.hypot(by_mass, by_air)


def plan_two_heads(
    heads: tuple[Head, Head],
    depth: Length,
    relation: Relation,
    cents: float = 300.0,
    *,
    fundamental: float | None = None,
    batter: Pitch | None = None,
) -> TwoHeads:
    """Lug pitches of both heads from a wanted fundamental *or* a wanted batter lug pitch, and their relation.

    `heads` are (batter, resonant); `cents` is the interval for HIGHER and LOWER (default a minor third, common practice F7).

    Raises
    ------
    BadQuantity
        unless exactly one of `fundamental` and `batter` is given, or when no lug pitch between 20 and 2000 Hz gives the fundamental.
    """
    if (fundamental is None) == (batter is None):
        raise BadQuantity("Give either the wanted fundamental or the wanted batter pitch, not both.")
    above = Interval(_interval(relation, cents))
    low = batter or _solve(heads, depth, above, float(fundamental or 0))
    lugs = (low, low.raised(above))
    lower, upper = coupled_pair(heads, lugs, depth)
    words, why = _character(above.cents)
    return TwoHeads(lugs[0], lugs[1], lower, _spread(heads, lugs, depth, lower), upper, words, why)


def _solve(heads: tuple[Head, Head], depth: Length, above: Interval, wanted: float) -> Pitch:
    """Bisection: the fundamental rises with the batter pitch."""
    low, high = LOWEST_HZ * max(1.0, 1.001 / above.ratio), HIGHEST_HZ * min(1.0, 0.999 / above.ratio)

    def sounds(hz: float) -> float:
        return coupled_pair(heads, (Pitch(hz), Pitch(hz * above.ratio)), depth)[0]

    if not sounds(low) <= wanted <= sounds(high):
        raise BadQuantity(f"No tension of these heads gives a fundamental of {wanted:.0f} Hz on this shell.", hz=wanted)
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if sounds(middle) < wanted else (low, middle)
    return Pitch(low)
