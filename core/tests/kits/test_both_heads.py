"""Plans for both heads of a kit, against every place tried by code of its own, and the laws they keep for any kit."""

from __future__ import annotations

import math
from itertools import combinations, pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from two_headed import drum

from drumwork.errors import BadRequest
from drumwork.kits import KitDrum, KitPlan, KitWish, Shape, both_heads, crowded, plan_kit
from drumwork.membrane.two_heads import lowest_clean
from drumwork.quantities.intervals import INTERVALS


def cents(hz: float, over: float) -> float:
    return 1200 * math.log2(hz / over)


def note(each: KitDrum, batter_hz: float) -> float:
    """Two masses on the air between them, solved as a matrix. Fletcher & Rossing, ch. 18; z(0,1), means of J0 over the disc and z(1,1) from memory."""
    assert each.resonant is not None
    area = math.pi * (each.batter.diameter.metres / 2) ** 2
    spring = 1.204 * 343.2**2 * area * 0.43175**2 / each.depth.metres
    stiff, mass = [], []
    for head, lug in ((each.batter, batter_hz), (each.resonant, batter_hz * 2 ** (each.above / 1200))):
        film = head.membrane
        weight = film.loaded_density((0, 1)) * area * 0.26951
        tension_ratio = film.loaded_density((1, 1)) / film.loaded_density((0, 1))
        own = lug * 2.404826 / 3.831706 * math.sqrt(tension_ratio)
        stiff.append(weight * (math.tau * own) ** 2)
        mass.append(weight)
    k = np.array([[stiff[0] + spring, -spring], [-spring, stiff[1] + spring]])
    half = np.diag(1 / np.sqrt(mass))
    return float(math.sqrt(np.linalg.eigvalsh(half @ k @ half)[0]) / math.tau)


def strongest(each: KitDrum, batter_hz: float) -> list[float]:
    return [note(each, batter_hz), batter_hz, *([batter_hz * 2 ** (each.above / 1200)] if each.wires else [])]


def require_kept(drums: list[KitDrum], wish: KitWish, plan: KitPlan) -> None:
    assert plan.places.keys() == {each.id for each in drums}
    for each in drums:
        place = plan.places[each.id]
        if each.id in wish.stays:
            assert place.batter == each.now[0]
            continue
        for head, lug in ((each.batter, place.batter), (each.resonant, place.resonant)):
            if head is not None and lug is not None:
                assert lowest_clean(head).hz <= lug.hz * 1.0001 <= head.highest_safe().hz * 1.0002
        if place.resonant:
            assert cents(place.resonant.hz, place.batter.hz) == pytest.approx(each.above, abs=0.01)
        if each.id in wish.fixed:
            assert abs(cents(place.note_hz, wish.fixed[each.id])) <= 2.5
    for one, other in combinations(drums, 2):
        for a in plan.places[one.id].strongest.values():
            for b in plan.places[other.id].strongest.values():
                assert abs(cents(a, b)) >= wish.apart - 1e-6
    toms = [each.id for each in drums if each.in_steps]
    for pair in pairwise(toms) if wish.step is not None else ():
        between = cents(plan.places[pair[0]].note_hz, plan.places[pair[1]].note_hz)
        assert pair in plan.dropped or abs(between - (wish.step or 0)) <= max(wish.tolerance, 1.0) + 2.5
    assert plan.bound <= plan.turns + 1e-6


def test_the_note_is_the_one_two_masses_on_an_air_spring_have() -> None:
    for each in (drum("a", 10, 7, 260), drum("b", 16, 14, 120)):
        for hz in (80.0, 150.0, 280.0):
            assert each.note_hz(hz) == pytest.approx(note(each, hz), rel=2e-3)


def test_a_kit_nothing_is_wrong_with_stays_as_it_is() -> None:
    drums = [drum("high", 10, 7, 260), drum("low", 14, 12, 170), drum("bass", 22, 16, 90, in_steps=False)]
    plan = plan_kit(drums, KitWish())
    assert (plan.turns, plan.proved, plan.dropped) == (pytest.approx(0.0, abs=0.003), True, ())
    assert not crowded(list(plan.places.values()), 50)


def test_two_drums_that_sing_at_each_other_are_parted_by_as_little_as_can_be() -> None:
    """Every place of both within two semitones is tried."""
    drums = [drum("one", 12, 8, 210), drum("other", 13, 9, 205, turns_per_cent=(0.002, 0.001))]
    found = crowded([each.stands for each in drums if each.stands], 50)
    assert (found[0].one, found[0].other, found[0].cents < 50) == ("one", "other", True)
    plan = plan_kit(drums, KitWish(apart=60))
    require_kept(drums, KitWish(apart=60), plan)
    moves = np.arange(-200, 201)
    lugs = [np.array([each.now[0].hz * 2 ** (m / 1200) for m in moves]) for each in drums if each.now[0]]
    heard = [np.array([strongest(each, hz) for hz in row]) for each, row in zip(drums, lugs, strict=True)]
    free = np.ones((len(moves), len(moves)), dtype=bool)
    for a in range(2):
        for b in range(2):
            free &= np.abs(1200 * np.log2(heard[0][:, a][:, None] / heard[1][:, b][None, :])) >= 60
    cost = [np.abs(moves) * sum(each.turns_per_cent) for each in drums]
    best = np.where(free, cost[0][:, None] + cost[1][None, :], np.inf).min()
    assert plan.proved
    assert best - 0.012 <= plan.turns <= best + 0.012  # what rounding to the cent keeps as room


def test_steps_are_intervals_of_the_notes() -> None:
    """A fourth is five of twelve equal steps (ISO 16)."""
    drums = [drum("10", 10, 7, 260), drum("12", 12, 8, 215), drum("14", 14, 12, 170)]
    plan = plan_kit(drums, KitWish(step=float(INTERVALS["fourth"]), tolerance=5))
    notes = [plan.places[name].note_hz for name in ("10", "12", "14")]
    assert [a / b for a, b in pairwise(notes)] == [pytest.approx(2 ** (5 / 12), rel=0.005)] * 2


def test_wires_are_kept_from_the_toms_notes_too() -> None:
    snare = drum("snare", 14, 5.5, 300, wires=True, in_steps=False)
    tom = drum("tom", 10, 7, 300 * 2 ** (210 / 1200))  # where the snare side lies
    assert any(each.which == "wires" for each in crowded([s for s in (snare.stands, tom.stands) if s], 50))
    plan = plan_kit([snare, tom], KitWish())
    require_kept([snare, tom], KitWish(), plan)


def test_low_is_lower_than_it_is_and_tight_is_higher() -> None:
    drums = [drum("10", 10, 7, 260), drum("14", 14, 12, 170)]
    low, high = (plan_kit(drums, KitWish(shape)) for shape in (Shape.LOW_AND_OPEN, Shape.HIGH_AND_TIGHT))
    for each in drums:
        assert each.now[0]
        assert low.places[each.id].batter < each.now[0] < high.places[each.id].batter


def test_what_cannot_be_is_named_with_what_could() -> None:
    drums = [drum("a", 12, 8, 210), drum("b", 13, 9, 205), drum("c", 14, 10, 200)]
    wish = KitWish(apart=700, stays=frozenset({"a", "b"}))
    plan = plan_kit(drums, wish)
    assert (plan.impossible, plan.places) == (("apart",), {})
    assert plan.apart_at_most is not None
    assert plan_kit(drums, KitWish(apart=plan.apart_at_most, stays=wish.stays)).places
    assert plan_kit(drums, KitWish(fixed={"c": 5.0})).impossible == ("fixed: c",)


def test_a_kit_that_does_not_settle_still_has_a_plan(monkeypatch: pytest.MonkeyPatch) -> None:
    """Solved anew round its last answer there may be no room; that is not the same as nothing holding."""
    solved, asked = both_heads._solved, list[int]()

    def once(*given: Any) -> Any:
        asked.append(1)
        return solved(*given) if len(asked) == 1 else None

    monkeypatch.setattr(both_heads, "_solved", once)
    drums = [drum("10", 10, 7, 260), drum("14", 14, 12, 170)]
    plan = plan_kit(drums, KitWish(Shape.HIGH_AND_TIGHT))
    assert len(asked) == 2
    assert (plan.impossible, plan.places.keys(), plan.proved) == ((), {"10", "14"}, False)


def test_steps_that_contradict_a_wish_are_dropped_and_told() -> None:
    drums = [drum("a", 10, 7, 260), drum("b", 12, 8, 215), drum("c", 14, 12, 170)]
    fixed = {"a": 150.0, "b": 130.0}
    plan = plan_kit(drums, KitWish(step=500, tolerance=5, fixed=fixed))
    assert plan.dropped == (("a", "b"),)
    require_kept(drums, KitWish(step=500, tolerance=5, fixed=fixed), plan)


def test_a_head_nobody_read_gets_a_pitch_but_no_turns() -> None:
    plan = plan_kit([drum("new", 12, 8, None)], KitWish(Shape.LOW_AND_OPEN))
    assert (plan.batter["new"].turns, plan.batter["new"].cents) == (None, None)
    assert plan.batter["new"].wanted == plan.places["new"].batter


@pytest.mark.parametrize(
    ("drums", "wish", "says"),
    [
        ([], KitWish(), "1 to 16"),
        ([drum("a", 10, 7, 200), drum("a", 12, 8, 150)], KitWish(), "id of its own"),
        ([drum("a", 10, 7, 200)], KitWish(stays=frozenset({"b"})), "no drum"),
        ([drum("a", 10, 7, None)], KitWish(stays=frozenset({"a"})), "nobody has read"),
        ([drum("a", 10, 7, 200, above=5000.0)], KitWish(), "another school"),
    ],
)
def test_what_does_not_fit_together_is_told(drums: list[KitDrum], wish: KitWish, says: str) -> None:
    with pytest.raises(BadRequest, match=says):
        plan_kit(drums, wish)


@st.composite
def kits(draw: st.DrawFn) -> tuple[list[KitDrum], KitWish]:
    drums = []
    for n in range(draw(st.integers(1, 5))):
        inches = draw(st.sampled_from((8, 10, 12, 13, 14, 16, 18, 22)))
        lug = draw(st.none() | st.floats(0.85, 1.3).map(lambda x, d=inches: 2500 / d * x))
        above = draw(st.sampled_from((-300.0, 0.0, 150.0, 300.0)))
        drums.append(drum(f"d{n}", inches, draw(st.integers(5, 18)), lug, above=above, wires=draw(st.booleans())))
    stays = frozenset(each.id for each in drums if each.stands and draw(st.integers(0, 5)) == 0)
    shape = draw(st.sampled_from(list(Shape)))
    step = draw(st.none() | st.sampled_from((200.0, 300.0, 400.0, 500.0)))
    return drums, KitWish(shape, step, draw(st.sampled_from((0.0, 10.0, 30.0))), {}, stays, draw(st.sampled_from((0.0, 35.0, 60.0))))  # fmt: skip


@settings(max_examples=30)
@given(kits())
def test_whatever_the_kit_every_wish_is_kept_or_named(asked: tuple[list[KitDrum], KitWish]) -> None:
    drums, wish = asked
    plan = plan_kit(drums, wish)
    if plan.impossible:
        standing = [each.stands for each in drums if each.id in wish.stays and each.stands]
        assert plan.impossible == ("apart",)
        assert crowded(standing, wish.apart) or len(drums) > 2
        return
    require_kept(drums, wish, plan)
