"""The simulated head keeps the promises of its documentation."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead

QUARTER = Turns.of(1, 4)


@given(st.integers(4, 16), st.integers(0, 999), st.booleans())
def test_the_same_seed_is_the_same_head(count: int, seed: int, modal: bool) -> None:
    one, two = (SimulatedHead(RodLayout(count), 180, seed, modal=modal) for _ in range(2))
    assert one.true_hz() == two.true_hz()
    assert one.tap() == two.tap()


@given(st.integers(4, 16), st.booleans())
def test_tightening_every_rod_raises_every_reading_by_the_answer(count: int, modal: bool) -> None:
    head = SimulatedHead(RodLayout(count), 180, 1, modal=modal, quirk=0, answer_per_turn=0.6)
    before = np.array(list(head.true_hz().values()))
    head.turn(dict.fromkeys(head.layout.rods, QUARTER))
    after = np.array(list(head.true_hz().values()))
    assert (after**2 - before**2) / 180**2 == pytest.approx(np.full(count, 0.6 / 4))


def test_on_a_modal_head_one_rod_moves_itself_and_its_opposite_alike() -> None:
    # our own numerical study (docs/sources/film.md): shares .23/.126/.016/.125/.23 on eight rods
    head = SimulatedHead(RodLayout(8), 200, 3, uneven=1e-9, quirk=0, answer_per_turn=1.0)
    before = {rod: hz**2 for rod, hz in head.true_hz().items()}
    head.turn({1: QUARTER})
    moved = {rod: (hz**2 - before[rod]) / 200**2 * 4 for rod, hz in head.true_hz().items()}
    assert [moved[rod] for rod in (1, 2, 3, 4, 5)] == pytest.approx([0.235, 0.125, 0.015, 0.125, 0.235], abs=0.002)


def test_on_a_local_head_a_rod_moves_mostly_itself() -> None:
    head = SimulatedHead(RodLayout(8), 200, 3, modal=False, uneven=1e-9, quirk=0)
    before = head.true_hz()
    head.turn({1: QUARTER})
    moved = {rod: hz - before[rod] for rod, hz in head.true_hz().items()}
    assert moved[1] > 2 * moved[2] > 0
    assert moved[3] == pytest.approx(0, abs=1e-9)


def test_settling_lowers_every_rod_by_the_same_cents() -> None:
    head = SimulatedHead(RodLayout(6), 200, 3)
    before = head.true_hz()
    head.drop(17)
    for rod, hz in head.true_hz().items():
        assert 1200 * np.log2(hz / before[rod]) == pytest.approx(-17)


def test_lost_rods_are_neither_there_to_tap_nor_to_hear() -> None:
    head = SimulatedHead(RodLayout(8, frozenset({5})), 200, 3)
    assert set(head.tap()) == set(head.true_hz()) == {1, 2, 3, 4, 6, 7, 8}


@given(st.floats(0.005, 0.05))
def test_it_is_as_uneven_as_asked(uneven: float) -> None:
    head = SimulatedHead(RodLayout(8), 200, 7, uneven=uneven)
    z = (np.array(list(head.true_hz().values())) / 200) ** 2
    assert np.std(z) == pytest.approx(2 * uneven, rel=0.02)
