"""Unevenness on purpose: a rod down to stop a drum singing, four rods by a hair to deaden it, the rods beside the wires against buzz.

A perfectly even head is not always wanted (trade §6, §17.5). What is turned away from even is given in turns; what the readings will then
show, in cents by rod, is what the head is judged against.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from drumwork.errors import BadLayout
from drumwork.quantities import Turns
from drumwork.rods.clearing.belief import ANSWER_PER_TURN
from drumwork.rods.layout import RodLayout

__all__ = ["Deliberate", "OnPurpose", "leave_uneven"]

DOUBLET_SHARE: Final = 0.42  # docs/sources/film.md


class OnPurpose(StrEnum):
    """What is left uneven."""

    ROD_DOWN = "rod-down"
    FOUR_BY_A_HAIR = "four-by-a-hair"
    BESIDE_WIRES = "beside-wires"


AMOUNT: Final[Mapping[OnPurpose, Turns]] = {
    OnPurpose.ROD_DOWN: Turns.of(-1, 8),  # trade §6: "slightly"; our own figure
    OnPurpose.FOUR_BY_A_HAIR: Turns.of(-1, 16),  # P19: "by a hair"; our own figure
    OnPurpose.BESIDE_WIRES: Turns.of(-1, 4),  # P18: up to one turn; we begin with a quarter
}
_WORDS: Final = {
    OnPurpose.ROD_DOWN: "Rod {rods} a little down, so that the drum does not sing with another.",
    OnPurpose.FOUR_BY_A_HAIR: "Rods {rods} down by a hair, two pairs in line, to deaden it.",
    OnPurpose.BESIDE_WIRES: "Rods {rods}, beside the wires, eased against buzz.",
}


@dataclass(frozen=True, slots=True)
class Deliberate:
    """Turns away from even, and what each rod should then read against the mean, in cents."""

    kind: OnPurpose
    turns: Mapping[int, Turns]
    offsets_cents: Mapping[int, float]
    words: str


def _rods(layout: RodLayout, kind: OnPurpose, start: int) -> tuple[int, ...]:
    match kind:
        case OnPurpose.ROD_DOWN:
            return (layout.require(start),)
        case OnPurpose.FOUR_BY_A_HAIR:
            if layout.count % 2 or layout.count < 6:
                raise BadLayout("Two pairs in line need an even number of rods, six or more.", count=layout.count)
            facing = layout.nth_on(start, layout.count // 2)
            return tuple(
                layout.require(rod) for rod in (start, layout.nth_on(start, 1), facing, layout.nth_on(facing, 1))
            )
        case OnPurpose.BESIDE_WIRES:
            if not layout.beside_bed:
                raise BadLayout("Say which rods stand beside the snare bed first.")
            return tuple(sorted(layout.beside_bed - layout.lost))


def leave_uneven(
    layout: RodLayout, kind: OnPurpose, start: int = 1, answer_per_turn: float = ANSWER_PER_TURN
) -> Deliberate:
    """What to turn away from even, and what the readings should then show.

    `answer_per_turn` is the change of z when every rod makes one turn. Readings follow the doublet: a rod and the one facing it move alike.

    Raises
    ------
    BadLayout
        for a rod that is not there, or a head on which this cannot be done.
    """
    down = dict.fromkeys(_rods(layout, kind, start), AMOUNT[kind])
    rods = layout.rods
    made = np.array([float(down[rod].fraction) if rod in down else 0.0 for rod in rods])
    angles = np.array([layout.angle_rad(rod) for rod in rods])
    shares = (1 + 2 * DOUBLET_SHARE * np.cos(2 * (angles[:, None] - angles[None, :]))) / layout.count
    moved = answer_per_turn * shares @ made
    cents = 600 / math.log(2) * np.log1p(moved - moved.mean())
    names = ", ".join(str(rod) for rod in sorted(down))
    return Deliberate(
        kind,
        down,
        {rod: float(value) for rod, value in zip(rods, cents, strict=True)},
        _WORDS[kind].format(rods=names),
    )
