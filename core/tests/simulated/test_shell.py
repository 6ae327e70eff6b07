"""Two films, a shell and air: against the ideal film, published figures, numerical integrals and the two-mass model."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.special import jn_zeros, jnp_zeros, jv

from drumwork.errors import BadQuantity
from drumwork.membrane import Film, Head
from drumwork.membrane.two_heads import coupled_pair
from drumwork.quantities import Length, Pitch
from drumwork.simulated import Ringing, Shell, SoundingDrum, Tap
from drumwork.simulated.shell import _air, coupled_modes, own_mode_squared

HEAVY = 40.0  # kg/m², beside which air weighs nothing
A14 = 0.178


def lowest(order: int, shell: Shell, pulls: tuple[float, float] = (2000.0, 2000.0), radius: float = A14) -> list[float]:
    return [mode.hz for mode in coupled_modes(radius, shell, pulls, order)]


class TestOneFilm:
    def test_without_weight_of_air_its_modes_are_the_ideal_ones(self) -> None:
        shell = Shell(0.3, HEAVY, HEAVY)
        found = [lowest(order, shell)[0] for order in (1, 2, 3)]
        # Ratios to (1,1): Bessel zeros, Abramowitz & Stegun table 9.5
        assert np.array(found) / found[0] == pytest.approx([1, 5.13562 / 3.83171, 6.38016 / 3.83171], rel=0.004)
        ideal = 3.83171 / (2 * math.pi * A14) * math.sqrt(2000 / HEAVY)
        assert found[0] == pytest.approx(ideal, rel=0.004)

    def test_a_closed_box_behind_it_stiffens_the_drums_note_by_the_spring_of_the_air(self) -> None:
        """Adiabatic stiffness of a closed volume, ρc²S²/V; any textbook of acoustics, e.g. Kinsler et al. (from memory)."""
        ideal = 2.40483**2 * 200_000 / A14**2 / HEAVY  # so tight and heavy that the air's own weight hardly counts
        boxed = (2 * math.pi * lowest(0, Shell(0.14, HEAVY, HEAVY), (200_000.0, 1.0))[0]) ** 2
        volume, square = 0.43175, 0.26951  # mean of J0(j01 r/a) over the disc, and of its square
        stiffness = 1.204 * 343.2**2 * volume**2 / 0.14 / square
        assert boxed - ideal == pytest.approx(stiffness / HEAVY, rel=0.2)

    @pytest.mark.parametrize("order", [0, 1, 2, 3])
    def test_how_a_film_pushes_the_air_is_the_integral_it_stands_for(self, order: int) -> None:
        across, onto = _air(order)
        zeros = jn_zeros(order, 4)
        assert across[-12:] == pytest.approx(jnp_zeros(order, 12))
        for q, n in ((0, 0), (1, 2), (3, 3), (5, 1)):
            assert onto[q, n] == pytest.approx(self.pushed(order, zeros[n], across[q]), abs=1e-6)

    def pushed(self, order: int, zero: float, across: float) -> float:
        """Mean over the disc of a film mode times an air mode, each of unit mean square, by quadrature."""

        def product(r: float) -> float:
            return float(jv(order, zero * r) * jv(order, across * r) * r)

        film = abs(jv(order + 1, zero))
        air = math.sqrt(2 * quad(lambda r: jv(order, across * r) ** 2 * r, 0, 1)[0])
        return float(2 * quad(product, 0, 1)[0] / film / air)


class TestTwoFilms:
    def test_a_published_snare_drum_from_two_of_its_figures(self) -> None:
        """Rossing, Bork, Zhao & Fystrom, JASA 92 (1992), from memory: (0,1) 182 and 330, (1,1) 278 and 341, (2,1) 403 and 512 Hz. The tensions were
        set so that the (1,1) pair is right; the other four follow. Films and depth are usual ones, not that drum's."""
        shell = Shell(0.165, 0.353, 0.106, other_muted=False)
        pulls = (3367.27, 2502.48)
        assert lowest(1, shell, pulls)[:2] == pytest.approx([278, 341], rel=0.001)
        assert lowest(0, shell, pulls)[:2] == pytest.approx([182, 330], rel=0.05)
        two_one = [lowest(2, shell, pulls)[k] for k in (0, 1)]
        assert two_one == pytest.approx([403, 512], rel=0.02)

    @pytest.mark.parametrize("resonant", [170.0, 200.0, 240.0])
    def test_the_lower_note_is_near_the_two_mass_models(self, resonant: float) -> None:
        head = Head(Film.from_mil(10), Length(2 * A14), 8)
        shell = Shell(0.14, 0.353, 0.353, resonant, other_muted=False)
        two_masses, _ = coupled_pair((head, head), (Pitch(200), Pitch(resonant)), Length(0.14))
        assert SoundingDrum(A14, 200.0, shell=shell).centre_hz == pytest.approx(
            two_masses, rel=0.08
        )  # air is rough in both

    def test_equal_heads_share_two_notes_and_a_muted_one_leaves_one(self) -> None:
        shell = Shell(other_muted=False)
        pull = (2 * math.pi * 200) ** 2 / own_mode_squared(A14, shell)
        low, high = coupled_modes(A14, shell, (pull, pull), 1)[:2]
        assert low.hz < 200 < high.hz
        assert low.share == pytest.approx(0.5, abs=0.06)
        alone = coupled_modes(A14, Shell(), (pull, pull), 1)
        assert alone[0].hz == pytest.approx(200)
        assert alone[1].hz > 1.7 * alone[0].hz

    @given(st.floats(120, 400), st.floats(120, 400), st.integers(0, 3))
    @settings(max_examples=40)
    def test_modes_carry_a_mass_of_one_and_rise_with_either_head(self, one: float, other: float, order: int) -> None:
        shell = Shell(other_muted=False)
        pulls = tuple(hz**2 / 25 for hz in (one, other))
        modes = coupled_modes(A14, shell, pulls, order)
        assert all(0 <= mode.share <= 1.3 for mode in modes)
        tighter = coupled_modes(A14, shell, (pulls[0] * 1.2, pulls[1]), order)
        assert all(b.hz >= a.hz * (1 - 1e-9) for a, b in zip(modes, tighter, strict=True))

    def test_a_shell_must_have_room_and_its_films_weight(self) -> None:
        with pytest.raises(BadQuantity, match="2 cm to 2 m"):
            Shell(0.001)
        with pytest.raises(BadQuantity, match="weigh"):
            Shell(0.14, 0.0)


class TestTheSound:
    def test_the_muted_other_head_is_not_in_it_and_the_open_one_is(self) -> None:
        muted, rings = (SoundingDrum(A14, 200.0, shell=Shell(other_hz=270.0, other_muted=m)) for m in (True, False))

        def level(drum: SoundingDrum) -> float:
            near = [size for hz, size, _ in drum.partials(Tap(0.0)) if 262 < hz < 280]  # this one’s (2,1) lies at 284
            return float(np.abs(near).max(initial=0.0))

        edge = max(abs(size) for hz, size, _ in rings.partials(Tap(0.0)) if 190 < hz < 210)
        assert level(rings) > 0.02 * edge
        assert level(muted) < 0.02 * edge

    def test_the_pull_is_least_at_the_lower_ones_antinode(self) -> None:
        drum = SoundingDrum(A14, 200.0, (0.05 * np.exp(1j * 0.8),))
        low, high = drum.pair_hz
        # ω² goes with tension: 1 ± 0.05
        assert (high / low) ** 2 == pytest.approx(1.05 / 0.95)
        assert drum.blend_hz(drum.axis_rad) == pytest.approx(low)
        assert drum.axis_rad == pytest.approx((0.8 + math.pi) / 2)

    def test_a_tap_in_the_middle_brings_out_no_mode_with_diameters(self) -> None:
        drum = SoundingDrum(A14, 200.0)
        heard = {round(hz) for hz, size, _ in drum.partials(Tap(0.0, A14)) if abs(size) > 1e-3}
        assert round(drum.centre_hz) in heard
        assert heard <= {round(mode.hz) for mode in coupled_modes(A14, drum.shell, self.pulls(drum), 0)}

    def pulls(self, drum: SoundingDrum) -> tuple[float, float]:
        pull = (2 * math.pi * drum.edge_hz) ** 2 / own_mode_squared(A14, drum.shell)
        return pull, pull

    def test_it_rings_for_as_long_as_it_is_said_to(self) -> None:
        sound = SoundingDrum(A14, 200.0, ringing=Ringing(decay_s=0.5)).sound(Tap(0.0), 8_000, 1.0)
        early, late = (float(np.sqrt((sound[a : a + 800] ** 2).mean())) for a in (800, 4_000))
        assert 20 * math.log10(early / late) == pytest.approx(60 * 0.4 / 0.5, abs=8)
