"""What a drum does in a kit, and the order in which a kit is told: snares, then from the highest to the lowest (common practice, no source)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from enum import StrEnum
from typing import Final

from drumwork.drums import DrumKind

__all__ = ["Role", "rank", "usual_roles"]


class Role(StrEnum):
    """What a drum does in a kit."""

    SNARE = "snare"
    SNARES = "snares"
    """One of a line of snares that play one part and sound alike."""
    TOM = "tom"
    QUAD = "quad"
    LINE = "line"
    BASS = "bass"
    BESIDE = "beside"
    """It plays too, and takes no part in the steps."""

    @property
    def in_steps(self) -> bool:
        """Whether steps from drum to drum go along it."""
        return self in (Role.TOM, Role.QUAD, Role.LINE)

    @property
    def section(self) -> str:
        """Under which name drums of this role play one part; empty where each plays its own."""
        return self.value if self is Role.SNARES else ""

    @property
    def words(self) -> str:
        return _WORDS[self]


_WORDS: Final[Mapping[Role, str]] = {
    Role.SNARE: "snare",
    Role.SNARES: "of the snare line",
    Role.TOM: "tom",
    Role.QUAD: "of the quads",
    Role.LINE: "of the bass line",
    Role.BASS: "bass drum",
    Role.BESIDE: "beside them",
}

_USUAL: Final[Mapping[DrumKind, Role]] = {
    DrumKind.SNARE: Role.SNARE,
    DrumKind.MARCHING_SNARE: Role.SNARES,
    DrumKind.ORCHESTRAL_SNARE: Role.SNARE,
    DrumKind.RACK_TOM: Role.TOM,
    DrumKind.FLOOR_TOM: Role.TOM,
    DrumKind.CONCERT_TOM: Role.TOM,
    DrumKind.BASS: Role.BASS,
    DrumKind.MARCHING_BASS: Role.LINE,
}
_TOLD: Final = list(Role)


def usual_roles(kinds: Sequence[DrumKind | str]) -> list[Role]:
    """What drums of these kinds do together where nobody says. Marching basses are a line of their own; among toms they play beside it.

    >>> [each.value for each in usual_roles(["rack-tom", "marching-bass"])]
    ['tom', 'beside']
    """
    roles = [_USUAL.get(DrumKind(each), Role.BESIDE) for each in kinds]
    return [Role.BESIDE if each is Role.LINE and Role.TOM in roles else each for each in roles]


def rank(role: Role, diameter_m: float, depth_m: float) -> tuple[int, float, float]:
    """Sorts a kit: by role, the smaller before the larger."""
    return _TOLD.index(role), round(diameter_m, 3), depth_m
