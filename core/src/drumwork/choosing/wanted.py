"""What is asked of a head: the drum, its side, the use, the sound in players' words, and what it must serve."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from drumwork.choosing.specs import Spec
from drumwork.drums import DrumKind, Side, Traits, traits_of
from drumwork.errors import BadQuantity

__all__ = ["BUDGETS", "NEEDS", "USES", "WORDS", "Wanted"]

USES: Final = ("drum-set", "concert", "marching", "recording", "practice", "school")
BUDGETS: Final = ("any", "low")
NEEDS: Final = ("brushes", "stage-light", "quiet", "lasting")
WORDS: Final[Mapping[str, Mapping[str, float]]] = {
    "open": {"sustain": 1.0, "loud": 0.2},
    "warm": {"warm": 1.0, "bright": -0.2},
    "bright": {"bright": 1.0},
    "dark": {"bright": -0.9, "warm": 0.3},
    "punchy": {"attack": 0.8, "sustain": -0.5, "low": 0.3},
    "dry": {"sustain": -1.0},
    "articulate": {"attack": 1.0, "sensitive": 0.2},
    "sensitive": {"sensitive": 1.0},
    "loud": {"loud": 1.0, "life": 0.1},
    "long": {"sustain": 1.0},
    "short": {"sustain": -1.0},
    "low": {"low": 1.0},
    "high": {"low": -1.0},
}
"""Players' words (trade §10) as directions on the axes of `Spec.tends`. Common practice, no published source."""


@dataclass(frozen=True)
class Wanted:
    """One question. Sizes in inches, None where unknown; `now` is the head that is on, None where unknown."""

    kind: DrumKind
    side: Side
    use: str = "drum-set"
    diameter_in: float | None = None
    depth_in: float | None = None
    rods: int = 8
    snare_bed: bool = False
    sound: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    now: Spec | None = field(default=None)
    budget: str = "any"

    def __post_init__(self) -> None:
        for each, among in (
            (self.use, USES),
            (self.budget, BUDGETS),
            *((word, tuple(WORDS)) for word in self.sound),
            *((need, NEEDS) for need in self.needs),
        ):
            if each not in among:
                raise BadQuantity(f"“{each}” is not known. Choose among: {', '.join(among)}.", asked=each)

    @property
    def traits(self) -> Traits:
        return traits_of(self.kind)

    @property
    def batter(self) -> bool:
        return self.side is Side.BATTER

    @property
    def snare_side(self) -> bool:
        return self.traits.wires and not self.batter

    @property
    def tom(self) -> bool:
        return self.kind in (DrumKind.RACK_TOM, DrumKind.FLOOR_TOM, DrumKind.CONCERT_TOM)

    def wants(self, *words: str) -> bool:
        return any(each in self.sound for each in words)

    def serves(self, *needs: str) -> bool:
        return any(each in self.needs for each in needs)

    @property
    def quiet_practice(self) -> bool:
        """Practice at night: the stick is felt, the drum is not heard."""
        return self.use == "practice" and self.serves("quiet")

    @property
    def shallow(self) -> bool:
        """A naturally punchy, shallow shell: no deeper than six tenths of its width. Common practice names no figure; this is ours."""
        return bool(self.diameter_in and self.depth_in and self.depth_in <= 0.6 * self.diameter_in)
