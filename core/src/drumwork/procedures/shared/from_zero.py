"""Turns from finger-tight by kind of drum (P10, P12, P13): what a head is tensioned by, and what it is slackened by again. Common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from drumwork.drums import DrumKind, Side
from drumwork.quantities import Turns
from drumwork.rods.passes import snare_side_turns
from drumwork.sources import common_practice
from drumwork.work.plan import DrumFacts

__all__ = ["FROM_ZERO", "over_zero"]

_HALF = Turns.from_fraction(common_practice.HALF_TURN)
_QUARTER = Turns.from_fraction(common_practice.QUARTER_TURN)
# P10: half turns from finger-tight, then smaller; P13: the tone arrives within two or three half turns.
_FIRM = (_HALF, _HALF, _HALF)
_MIDDLING = (_HALF, _HALF, _QUARTER)
_LOW = (_HALF, _QUARTER, _QUARTER)
FROM_ZERO: Final[Mapping[DrumKind, tuple[Turns, ...]]] = {
    DrumKind.SNARE: _FIRM,
    DrumKind.MARCHING_SNARE: _FIRM,
    DrumKind.ORCHESTRAL_SNARE: _FIRM,
    DrumKind.RACK_TOM: _MIDDLING,
    DrumKind.FLOOR_TOM: _LOW,
    DrumKind.BASS: _LOW,
    DrumKind.MARCHING_BASS: _MIDDLING,
    DrumKind.CONCERT_TOM: _MIDDLING,
    DrumKind.PRACTICE_MESH: _FIRM,
}


def over_zero(drum: DrumFacts, side: Side) -> Turns:
    """What a head on such a drum has over finger-tight, as long as nobody counted."""
    if side is Side.RESONANT and drum.traits.wires:
        return snare_side_turns(drum.thread)
    return Turns(sum(each.thirtyseconds for each in FROM_ZERO[drum.kind]))
