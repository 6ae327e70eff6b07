"""Where a drum's own note lies against its pair, against an eigenvalue library, the ideal film and the Rayleigh–Ritz drum of the simulator."""

from __future__ import annotations

import math

import numpy as np
import pytest
from scipy.special import jn_zeros

from drumwork.errors import BadQuantity
from drumwork.listening import Other, TapContext
from drumwork.listening.around import MOVES_AS_ONE, TIGHT, Around, place_of_note, ways
from drumwork.quantities import Length
from drumwork.simulated import Shell, SoundingDrum
from drumwork.sources.materials import AIR_DENSITY_KG_PER_M3, SOUND_M_PER_S

SIXTEEN = 0.2032


def place(drum: Around, other: Other, hz: float) -> tuple[float, float]:
    likely, sd = place_of_note(drum, other, np.array([hz]))
    return math.exp(float(likely[0])), float(sd[0])


def test_of_a_heavy_film_alone_is_the_ideal_ones() -> None:
    """Zeros of Bessel functions: SciPy, beside DLMF 10.21."""
    ideal = float(jn_zeros(0, 1)[0] / jn_zeros(1, 1)[0])
    assert place(Around(SIXTEEN, film_kg_per_m2=3.0), Other.NONE, 120)[0] == pytest.approx(ideal, rel=0.02)


@pytest.mark.parametrize("hz", [70.0, 110.0, 180.0])
def test_with_both_heads_ringing_is_the_lower_of_two_masses_on_a_spring(hz: float) -> None:
    """numpy.linalg.eigvalsh on the two-mass chain (Fletcher & Rossing, ch. 18)."""
    drum, other = Around(SIXTEEN, 0.4, 0.35, Other.RINGS, 1.3 * hz), 1.3 * hz
    mass = drum.loaded((0, 1))
    spring = TIGHT * AIR_DENSITY_KG_PER_M3 * SOUND_M_PER_S**2 * MOVES_AS_ONE / 0.4 / mass
    down = (jn_zeros(0, 1)[0] / jn_zeros(1, 1)[0]) ** 2 * drum.loaded((1, 1)) / mass
    own, its = (down * (math.tau * each) ** 2 + spring for each in (hz, other))
    lowest = float(np.linalg.eigvalsh(np.array([[own, -spring], [-spring, its]]))[0])
    assert place(drum, Other.RINGS, hz)[0] == pytest.approx(math.sqrt(lowest) / math.tau / hz, rel=1e-6)


@pytest.mark.parametrize("held", [True, False])
@pytest.mark.parametrize(
    ("inches", "depth_m", "hz"), [(12, 0.2, 190.0), (14, 0.14, 300.0), (16, 0.4, 110.0), (22, 0.45, 75.0)]
)
def test_lies_about_where_two_whole_films_put_it(held: bool, inches: int, depth_m: float, hz: float) -> None:
    """The simulator's drum has all modes of both films and of the air, and no leak: within two and a half standard deviations."""
    radius = inches * 0.0127
    made = SoundingDrum(radius, hz, shell=Shell(depth_m, 0.35, 0.35, 1.1 * hz, other_muted=held))
    other = Other.HELD if held else Other.RINGS
    likely, sd = place(Around(radius, depth_m, 0.35, other, 1.1 * hz), other, hz)
    assert abs(math.log(made.centre_hz / hz / likely)) < 2.5 * sd


def test_the_held_head_lifts_it_the_more_the_slacker_and_the_shallower() -> None:
    deep, shallow = Around(SIXTEEN, 0.5, 0.35), Around(SIXTEEN, 0.2, 0.35)
    assert place(deep, Other.HELD, 160)[0] < place(deep, Other.HELD, 80)[0] < place(shallow, Other.HELD, 80)[0]
    assert place(deep, Other.RINGS, 80)[0] < place(deep, Other.HELD, 80)[0]


def test_is_less_sure_the_less_is_known() -> None:
    whole, size = Around(SIXTEEN, 0.4, 0.35), Around(SIXTEEN)
    assert place(whole, Other.HELD, 100)[1] < place(size, Other.HELD, 100)[1]


def test_what_nobody_said_is_reckoned_with() -> None:
    assert set(ways(Around(SIXTEEN))) == set(Other)
    assert sum(ways(Around(SIXTEEN)).values()) == pytest.approx(1)
    assert dict(ways(Around(SIXTEEN, other=Other.HELD))) == {Other.HELD: 1.0}


def test_an_impossible_drum_is_refused() -> None:
    with pytest.raises(BadQuantity, match="2 cm to 2 m"):
        TapContext(diameter=Length.from_inches(14), depth=Length.from_inches(0.5))
    with pytest.raises(BadQuantity, match="square metre"):
        TapContext(diameter=Length.from_inches(14), film_kg_per_m2=9.0)
