"""What each kind of drum has and lacks (trade §4, §14; common practice, no published source).

Everything that asks "is there a … on such a drum" reads this table; nothing lists kinds a second time.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

__all__ = ["TRAITS", "DrumKind", "Side", "Traits", "traits_of"]


class DrumKind(StrEnum):
    """Kinds of drum (trade §4)."""

    SNARE = "snare"
    RACK_TOM = "rack-tom"
    FLOOR_TOM = "floor-tom"
    BASS = "bass"
    MARCHING_BASS = "marching-bass"
    MARCHING_SNARE = "marching-snare"
    ORCHESTRAL_SNARE = "orchestral-snare"
    CONCERT_TOM = "concert-tom"
    PRACTICE_MESH = "practice-mesh"
    ROPE_BASS = "rope-bass"


class Side(StrEnum):
    """The two heads of a drum."""

    BATTER = "batter"
    RESONANT = "resonant"

    @property
    def other(self) -> Side:
        return Side.RESONANT if self is Side.BATTER else Side.BATTER


@dataclass(frozen=True, slots=True)
class Traits:
    """One kind of drum.

    Attributes
    ----------
    words : as it is said
    rods : tension by rods; else by rope
    wires : snare wires, and a bed under them
    film : heads of plastic film, whose pitch and strength can be reckoned; mesh and skin are not
    legs, mount, claws, spurs : what is taken off, or hangs in the hoop
    tap : where the head is tapped, in words; `{mm:25}` is written as the workshop writes lengths
    family : the family of films a tap is listened for; empty where none is known
    two_people : lifted by two
    pedal : beaten by a pedal, with a patch and a hoop protector where it works, and often a damping ring to take out
    high_tension : rods that need a high-tension key
    foam : foam inside, where its head asks for it
    """

    words: str
    rods: bool = True
    wires: bool = False
    film: bool = True
    legs: bool = False
    mount: bool = False
    claws: bool = False
    spurs: bool = False
    tap: str = "{mm:25} in from the hoop"
    family: str = ""
    two_people: bool = False
    pedal: bool = False
    high_tension: bool = False
    foam: bool = False


TRAITS: Final[Mapping[DrumKind, Traits]] = {
    DrumKind.SNARE: Traits("snare", wires=True, family="snare"),
    DrumKind.RACK_TOM: Traits("rack tom", mount=True),
    DrumKind.FLOOR_TOM: Traits("floor tom", legs=True),
    DrumKind.BASS: Traits("bass drum", claws=True, spurs=True, family="bass", two_people=True, pedal=True),
    DrumKind.MARCHING_BASS: Traits(
        "marching bass",
        claws=True,
        tap="{mm:25-50} in from the hoop",
        family="bass",
        two_people=True,
        high_tension=True,
        foam=True,
    ),
    DrumKind.MARCHING_SNARE: Traits("marching snare", wires=True, family="snare", high_tension=True),
    DrumKind.ORCHESTRAL_SNARE: Traits("orchestral snare", wires=True, family="snare"),
    DrumKind.CONCERT_TOM: Traits("concert tom", mount=True),
    DrumKind.PRACTICE_MESH: Traits("practice drum, mesh", film=False),
    DrumKind.ROPE_BASS: Traits("rope-tension bass", rods=False, film=False, two_people=True),
}


def traits_of(kind: DrumKind | str) -> Traits:
    """The row of a kind; ValueError for a kind that does not exist."""
    return TRAITS[DrumKind(kind)]
