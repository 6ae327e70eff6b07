"""Where a rope is slack or tight, pair by pair from the splice, and what to pull (trade §14). Common practice, no published source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import IntEnum

from drumwork.errors import BadQuantity

__all__ = ["Correction", "Squeeze", "correct_segments"]


class Squeeze(IntEnum):
    """How far a pair gives when squeezed, against its neighbours."""

    SLACK = -2
    A_LITTLE_SLACK = -1
    EVEN = 0
    A_LITTLE_TIGHT = 1
    TIGHT = 2


@dataclass(frozen=True, slots=True)
class Correction:
    """One pull: hold one pair, pull the next, and carry what comes along to the end without adding."""

    pair: int
    hold: int
    carry_to: int
    words: str


def correct_segments(pairs: int, felt: Mapping[int, Squeeze]) -> tuple[Correction, ...]:
    """Corrections in order from the splice on. `felt` names pairs that are not even, 1 being the first after the splice.

    A slack pair is pulled and the slack carried to the end. A tight one is eased by letting the pair after it give, so it is corrected
    at that one. The first pair after the splice is usually tight and is left, unless it is very tight.

    Raises
    ------
    BadQuantity
        for a pair the drum lacks.
    """
    if strange := sorted(pair for pair in felt if not 1 <= pair <= pairs):
        raise BadQuantity(
            f"There is no pair {strange[0]}; this drum has {pairs}, counted from the splice.", pair=strange[0]
        )
    found = []
    for pair in sorted(felt):
        how = felt[pair]
        if how is Squeeze.EVEN or (pair == 1 and how is Squeeze.A_LITTLE_TIGHT):
            continue
        much = "well" if abs(how) == Squeeze.TIGHT else "a little"
        if how < 0:
            act = f"pull pair {pair} {much}" + (f", pair {pair - 1} held" if pair > 1 else ", the splice held")
        else:
            act = f"let pair {pair} give {much} into the next"
        rest = "" if pair == pairs else f", and carry it along through pair {pairs} to the end without adding"
        found.append(Correction(pair, pair - 1, pairs, f"All ears tight: {act}{rest}."))
    return tuple(found)
