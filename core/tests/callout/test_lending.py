"""A missing rod against what the trade says of it (trade §13: common practice, no source), and a beam on springs solved on a grid."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.callout import Donor, gap_at, who_lends
from drumwork.callout.lending import HOOP_EI, _press, _reach
from drumwork.membrane import Film, Head
from drumwork.membrane.two_heads import lowest_clean
from drumwork.quantities import Length, Pitch, Turns
from drumwork.rods.layout import RodLayout

INCH = 0.0254


def head(inches: float, rods: int, mil: float = 10.0) -> Head:
    return Head(Film.from_mil(mil), Length(inches * INCH), rods)


def left(inches: float, rods: int, lug: float, hoops: str = "triple-flanged") -> float:
    return gap_at(head(inches, rods), RodLayout(rods), 1, Pitch(lug), hoops).left


def snare(name: str, rods: int, **more: object) -> Donor:
    bed = {8: {2, 3, 6, 7}, 10: {2, 3, 7, 8}}.get(rods, set())
    return replace(
        Donor(
            name, head(14, rods), RodLayout(rods, frozenset(), frozenset(bed)), Pitch(300), "7/32-24", "triple-flanged"
        ),
        **more,  # type: ignore[arg-type]
    )


def test_a_floor_toms_resonant_suffers_most_and_a_ten_rod_batter_least() -> None:
    heads = {
        "floor tom resonant": left(16, 8, 95),
        "floor tom batter": left(16, 8, 110),
        "rack tom": left(12, 6, 210),
        "snare of six": left(14, 6, 300),
        "snare of eight": left(14, 8, 300),
        "snare of ten": left(14, 10, 300),
    }
    assert min(heads, key=lambda each: heads[each]) == "floor tom resonant"
    assert max(heads, key=lambda each: heads[each]) == "snare of ten"
    assert heads["snare of six"] < heads["snare of eight"] < heads["snare of ten"]


@pytest.mark.parametrize(("rods", "words"), [(10, "hardly notices"), (8, "notices"), (6, "suffers")])
def test_of_a_snare_batter_ten_hardly_notice_eight_notice_six_suffer(rods: int, words: str) -> None:
    assert gap_at(head(14, rods), RodLayout(rods), 1, Pitch(300), "triple-flanged").words == words


@pytest.mark.parametrize("hoops", list(HOOP_EI))
def test_a_rods_press_is_the_line_of_a_beam_on_springs(hoops: str) -> None:
    """Fourth differences on a long beam with one force, solved as a matrix: the same line, by none of the code's formulas."""
    each, count, length = head(14, 8), 1201, 3.0
    beta = _reach(each, hoops)
    step = length / (count - 1)
    fourth = np.zeros((count, count))
    for n in range(2, count - 2):
        fourth[n, n - 2 : n + 3] = np.array([1, -4, 6, -4, 1]) / step**4
    force = np.zeros(count)
    force[count // 2] = 1.0
    line = np.linalg.solve(fourth + 4 * beta**4 * np.eye(count), force)
    for away in (0.0, 0.06, 0.14, 0.3):
        n = count // 2 + round(away / step)
        assert _press(away, beta) == pytest.approx(line[n] / line[count // 2], abs=0.02)


def test_the_stiffer_the_hoop_the_less_is_lost() -> None:
    lost = [gap_at(head(14, 8), RodLayout(8), 1, Pitch(300), hoops).lost for hoops in ("triple-flanged", "die-cast")]
    assert lost[1] < lost[0]


@given(
    st.sampled_from((10, 12, 13, 14, 16, 18)),
    st.integers(5, 12),
    st.floats(1.05, 3.0),
    st.sampled_from(list(HOOP_EI)),
    st.floats(0.0005, 0.004),
)
def test_whatever_the_drum_a_gap_costs_part_of_the_pull_and_the_neighbours_turn_a_little(
    inches: int, rods: int, over: float, hoops: str, cost: float
) -> None:
    each = head(inches, rods)
    lug = Pitch(lowest_clean(each).hz * over)
    gap = gap_at(each, RodLayout(rods), 1, lug, hoops, cost)
    assert 0.1 < gap.lost <= 1
    assert gap.left == pytest.approx((1 - gap.lost) * over**2, rel=1e-6)
    assert Turns.of(1, 16) <= gap.extra <= Turns.of(1, 8)
    # Where nothing of the pull is left at the gap, more pull beside it leaves nothing either.
    assert gap_at(each, RodLayout(rods), 1, Pitch(lug.hz * 1.1), hoops, cost).left > gap.left or gap.lost == 1


def test_who_gives_and_who_does_not() -> None:
    donors = [
        snare("tonight", 10, plays_tonight=True),
        snare("rests, eight", 8),
        snare("rests, ten", 10),
        snare("other thread", 10, thread="M6"),
        snare("short itself", 10, layout=RodLayout(10, frozenset({4}))),
        snare("snare side", 10, snare_side=True),
        snare("slack", 6, lug=Pitch(95.0)),
    ]
    offers, refusals = who_lends(donors, "7/32-24")
    assert [each.donor for each in offers] == ["rests, ten", "rests, eight", "tonight"]
    assert {each.donor: each.why for each in refusals} == {
        "other thread": "its thread is M6, not 7/32-24",
        "short itself": "it lacks a rod itself",
        "snare side": "rods of a snare side stay where they are",
        "slack": "its film would wrinkle at the gap",
    }
    assert offers[0].why.startswith("rests tonight; with 10 rods it hardly notices")


def test_the_rod_given_lies_away_from_the_player_and_never_beside_the_bed() -> None:
    offers, _ = who_lends([snare("a", 10), snare("b", 8, layout=RodLayout(8, frozenset(), frozenset({1, 8})))])
    chosen = {each.donor: each.gap.rod for each in offers}
    assert chosen["a"] == 1  # beside the badge, which looks away from the player
    assert chosen["b"] == 2
    for donor, rod in chosen.items():
        layout = next(each for each in (snare("a", 10), snare("b", 8)) if each.id == donor).layout
        assert math.cos(layout.angle_rad(rod)) > 0
