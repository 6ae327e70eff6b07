"""What is known of the drum round a head, and where its own note then lies against the pair: both films, the air between them, and how the other head is kept.

A tap near a rod brings out the (1,1) pair, and beside it the drum's note (0,1), at which the whole head moves at once and squeezes the air in the shell. With
the other head off, the note lies at the film's own (0,1); with the other head held, the shut-in air lifts it, the more the shallower the shell and the slacker
the head; with the other head ringing, both move together and hardly squeeze anything. Each is a hypothesis where nobody said.

References
----------
One or two masses on the air spring of the shell: Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 18; mean displacement and modal mass of the (0,1)
mode as in `drumwork.membrane.two_heads`. Zeros: DLMF §10.21.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.errors import BadQuantity
from drumwork.membrane.modes import Membrane
from drumwork.membrane.two_heads import MEAN_DISPLACEMENT, MEAN_SQUARE
from drumwork.sources.bessel import BESSEL_ZEROS
from drumwork.sources.materials import AIR_DENSITY_KG_PER_M3, SOUND_M_PER_S

__all__ = ["Around", "Other", "place_of_note", "ways"]

Array = NDArray[np.float64]

USUAL_FILM: Final = 0.35  # kg/m²: a ten-mil head
DEEP: Final = 0.75  # of the diameter, where the depth is not known
MOVES_AS_ONE: Final = MEAN_DISPLACEMENT**2 / MEAN_SQUARE
LEAK_LOG_SD: Final = 0.35
"""Ports, vents and a cloth that gives way: how far the air's spring may be from that of a tight shell, beside `TIGHT`."""
TIGHT: Final = 0.7
DEPTH_LOG_SD: Final = 0.4  # where the depth is not known
FILM_LOG_SD: Final = 0.3  # where the film is not
MODEL_LOG_SD: Final = 0.06
OTHER_LOG_SD: Final = 0.3  # where the other head's pitch is not known


class Other(StrEnum):
    """How the other head is kept while this one is tapped."""

    RINGS = "rings"
    HELD = "held"
    NONE = "none"


HOW_OFTEN: Final = {Other.HELD: 0.5, Other.RINGS: 0.4, Other.NONE: 0.1}
"""Where nobody said; our own estimate."""


@dataclass(frozen=True, slots=True)
class Around:
    """The drum round the head in hand, as far as it is known.

    Parameters
    ----------
    radius_m
    depth_m
        of the shell.
    film_kg_per_m2
        weight of the head in hand.
    other
        how the other head is kept.
    other_hz
        what it reads at its rods.
    """

    radius_m: float
    depth_m: float | None = None
    film_kg_per_m2: float | None = None
    other: Other | None = None
    other_hz: float | None = None

    def __post_init__(self) -> None:
        _ = self.film  # whose own bounds are checked
        if self.depth_m is not None and not 0.02 <= self.depth_m <= 2:
            raise BadQuantity("A shell is 2 cm to 2 m deep.", depth_m=self.depth_m)
        if self.film_kg_per_m2 is not None and not 0.02 <= self.film_kg_per_m2 <= 3:
            raise BadQuantity("A head weighs 0.02 to 3 kg a square metre.", film_kg_per_m2=self.film_kg_per_m2)

    @property
    def film(self) -> Membrane:
        """The head in hand; a usual one where it is not known."""
        return Membrane(self.radius_m, self.film_kg_per_m2 or USUAL_FILM)

    def loaded(self, mode: tuple[int, int]) -> float:
        """kg/m² of the film with the air that moves along."""
        return self.film.loaded_density(mode)


def ways(drum: Around | None) -> Mapping[Other, float]:
    """How the other head may be kept, and how likely each is; where nothing is known of the drum, none tells more than another."""
    if drum is None:
        return {Other.HELD: 1.0}
    return {drum.other: 1.0} if drum.other else HOW_OFTEN


def _place(drum: Around, other: Other, hz: Array, spring_by: float, other_by: float) -> Array:
    """(n,) the note over the pair, the air's spring and the other head's pitch being so many times what is likely."""
    square = (math.tau * hz) ** 2
    down = (BESSEL_ZEROS[0, 1] / BESSEL_ZEROS[1, 1]) ** 2 * drum.loaded((1, 1)) / drum.loaded((0, 1))
    if other is Other.NONE:
        return np.full(len(hz), math.sqrt(down))
    depth = drum.depth_m or DEEP * 2 * drum.radius_m
    squeeze = spring_by * TIGHT * AIR_DENSITY_KG_PER_M3 * SOUND_M_PER_S**2 * MOVES_AS_ONE / depth / drum.loaded((0, 1))
    if other is Other.HELD:
        return np.asarray(np.sqrt(down + squeeze / square))
    facing = (math.tau * (drum.other_hz or hz) * other_by) ** 2
    own, its = down * square + squeeze, down * facing + squeeze
    lower = (own + its) / 2 - np.sqrt(((own - its) / 2) ** 2 + squeeze**2)
    return np.asarray(np.sqrt(lower / square))


def place_of_note(drum: Around, other: Other, hz: Array) -> tuple[Array, Array]:
    """(n,) logarithm of the drum's note over the pair, and how sure that is as a standard deviation, were each of (n,) hertz the pair."""
    likely = np.log(_place(drum, other, hz, 1.0, 1.0))
    unsure = math.hypot(LEAK_LOG_SD, 0 if drum.depth_m else DEPTH_LOG_SD, 0 if drum.film_kg_per_m2 else FILM_LOG_SD)
    apart = [math.exp(unsure), math.exp(-unsure)]
    by_spring = np.log(_place(drum, other, hz, apart[0], 1.0) / _place(drum, other, hz, apart[1], 1.0)) / 2
    beside = 1.05 if drum.other_hz else math.exp(OTHER_LOG_SD)
    by_other = np.log(_place(drum, other, hz, 1.0, beside) / _place(drum, other, hz, 1.0, 1 / beside)) / 2
    return likely, np.sqrt(MODEL_LOG_SD**2 + by_spring**2 + by_other**2)
