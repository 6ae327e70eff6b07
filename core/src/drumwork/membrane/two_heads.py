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
from drumwork.membrane.modes import edge_hz, fundamental_hz, tension_for_edge
from drumwork.quantities import HIGHEST_HZ, LOWEST_HZ, Interval, Length, Pitch
from drumwork.sources.materials import AIR_DENSITY_KG_PER_M3, SOUND_M_PER_S

__all__ = ["SOUNDS", "Relation", "Sound", "TwoHeads", "coupled_pair", "lowest_clean", "plan_two_heads"]

MEAN_DISPLACEMENT: Final = 0.43175
"""Mean of J0(j01 r/a) over the disc: 2·J1(j01)/j01."""
MEAN_SQUARE: Final = 0.26951
"""Mean of its square: J1(j01)²."""
QUARTER_TURN_CENTS: Final = 150.0
"""What a further quarter turn of every rod does to a head already in tension: about 1½ semitones at usual pitches, by our prior of 0.8
in z a turn; common practice P17 gives no figure."""


CLEAN_ROD_N: Final = 40.0
"""Pull of each rod at which the last wrinkle is usually gone; our own estimate, no published source."""


class Relation(StrEnum):
    """How the resonant head stands to the batter (trade §7)."""

    EQUAL = "equal"
    HIGHER = "higher"
    LOWER = "lower"
    QUARTER_TURN_MORE = "quarter-turn-more"
    LOWEST_CLEAN = "lowest-clean"


@dataclass(frozen=True, slots=True)
class Sound:
    """A way two heads stand to each other, named by what is heard."""

    id: str
    heard: str
    how: str
    relation: Relation
    cents: float


SOUNDS: Final = (
    Sound("long", "long and round", "both heads alike", Relation.EQUAL, 0.0),
    Sound("a-bit-shorter", "a bit shorter", "resonant a further quarter turn", Relation.QUARTER_TURN_MORE, 150.0),
    Sound("punchy", "shorter, punchier", "resonant a minor third higher", Relation.HIGHER, 300.0),
    Sound("present", "long and present", "resonant tight, a fifth higher", Relation.HIGHER, 700.0),
    Sound("thuddy", "flat and thuddy", "resonant a minor third lower", Relation.LOWER, 300.0),
    Sound("lowest", "as low as it goes clean", "both just free of wrinkles", Relation.LOWEST_CLEAN, 0.0),
)
"""Schools of trade §7, F7, P14, P17: common practice. The fifth is our own figure for “tight”."""


@dataclass(frozen=True, slots=True)
class TwoHeads:
    """A plan for both heads. `upper_hz` is rough.

    `by_mass_hz` and `by_air_hz` are what the fundamental moves by when the films are a tenth heavier, or the air spring a tenth stiffer;
    `fundamental_sd_hz` holds both unknown.
    """

    batter: Pitch
    resonant: Pitch
    fundamental_hz: float
    fundamental_sd_hz: float
    by_mass_hz: float
    by_air_hz: float
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
        case Relation.LOWEST_CLEAN:
            return 0.0


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


def _sensitivity(
    heads: tuple[Head, Head], lugs: tuple[Pitch, Pitch], depth: Length, lower: float
) -> tuple[float, float]:
    heavier = (_with_mass(heads[0], 1.1), _with_mass(heads[1], 1.1))
    return coupled_pair(heavier, lugs, depth)[0] - lower, coupled_pair(heads, lugs, depth, air=1.1)[0] - lower


def lowest_clean(head: Head) -> Pitch:
    """About the lowest lug pitch at which the film has no wrinkle left; on the drum it is found rod by rod (P14)."""
    tension = CLEAN_ROD_N * head.rods / (math.pi * head.diameter.metres)
    return Pitch(max(LOWEST_HZ, edge_hz(head.membrane, tension)))


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
        unless exactly one of `fundamental` and `batter` is given, unless the relation is the lowest clean pitch, or when no lug pitch between 20 and 2000 Hz gives the fundamental.
    """
    if relation is Relation.LOWEST_CLEAN:
        if fundamental is not None or batter is not None:
            raise BadQuantity("The lowest clean pitch is what the heads give; leave the wanted pitch out.")
        lugs = (lowest_clean(heads[0]), lowest_clean(heads[1]))
        return _planned(
            heads, lugs, depth, ("low, dark and short", "both heads carry only just enough to be free of wrinkles")
        )
    if (fundamental is None) == (batter is None):
        raise BadQuantity("Give either the wanted fundamental or the wanted batter pitch, not both.")
    above = Interval(_interval(relation, cents))
    low = batter or _solve(heads, depth, above, float(fundamental or 0))
    return _planned(heads, (low, low.raised(above)), depth, _character(above.cents))


def _planned(
    heads: tuple[Head, Head], lugs: tuple[Pitch, Pitch], depth: Length, character: tuple[str, str]
) -> TwoHeads:
    lower, upper = coupled_pair(heads, lugs, depth)
    by_mass, by_air = _sensitivity(heads, lugs, depth, lower)
    return TwoHeads(*lugs, lower, math.hypot(by_mass, by_air), by_mass, by_air, upper, *character)


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
