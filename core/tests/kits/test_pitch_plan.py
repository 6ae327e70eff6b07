"""Pitch plans against brute force written apart from the code (every grid of cents tried), and the laws they keep for any kit."""

from __future__ import annotations

from itertools import combinations, product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.errors import BadRequest
from drumwork.kits import Drum, Plan, Step, Wish, plan_pitches


def holds(step: Step, notes: dict[str, int]) -> bool:
    return abs(notes[step.above] - notes[step.below] - step.cents) <= step.tolerance + 1e-9


def stand_apart(wish: Wish, notes: dict[str, int]) -> bool:
    return all(abs(a - b) >= wish.at_least for a, b in combinations(notes.values(), 2)) and all(
        abs(note - other) >= wish.at_least
        for note in notes.values()
        for other in (wish.against if wish.at_least else ())
    )


def brute(drums: tuple[Drum, ...], wish: Wish) -> tuple[int, float] | None:
    """Fewest steps dropped and least moved, by trying every target there is; None where nothing holds."""
    best = None
    ranges = [range(int(-(-each.lowest // 1)), int(each.highest // 1) + 1) for each in drums]
    for targets in product(*ranges):
        notes = dict(zip((each.id for each in drums), targets, strict=True))
        if any(notes[name] != cents for name, cents in (wish.fixed or {}).items()) or not stand_apart(wish, notes):
            continue
        found = (
            sum(not holds(step, notes) for step in wish.steps),
            sum(abs(notes[each.id] - each.now) for each in drums),
        )
        best = found if best is None or found < best else best
    return best


def require_kept(drums: tuple[Drum, ...], wish: Wish, plan: Plan) -> None:
    for each in drums:
        assert each.lowest <= plan.targets[each.id] <= each.highest
    for name, cents in (wish.fixed or {}).items():
        assert plan.targets[name] == cents
    for step in wish.steps:
        assert (step in plan.dropped) or holds(step, dict(plan.targets))
    assert stand_apart(wish, dict(plan.targets))
    assert plan.moved == pytest.approx(sum(abs(plan.targets[each.id] - each.now) for each in drums))
    assert plan.bound <= plan.moved + 1e-6


@st.composite
def kits(draw: st.DrawFn, most: int, wide: int) -> tuple[tuple[Drum, ...], Wish]:
    names = [f"d{n}" for n in range(draw(st.integers(1, most)))]
    drums = []
    for name in names:
        low = draw(st.integers(0, 30))
        drums.append(
            Drum(
                name,
                draw(st.integers(-10, 50) | st.floats(-10, 50).map(lambda x: round(x, 2))),
                low,
                low + draw(st.integers(0, wide)),
            )
        )
    pairs = list(combinations(names, 2))
    steps = [
        Step(*draw(st.sampled_from(pairs)), draw(st.integers(-12, 12)), draw(st.integers(0, 3)))
        for _ in range(draw(st.integers(0, 3)) if pairs else 0)
    ]
    fixed = {name: draw(st.integers(0, 40)) for name in names if draw(st.integers(0, 4)) == 0}
    against = draw(st.lists(st.integers(0, 40), max_size=2))
    return tuple(drums), Wish(
        tuple(dict.fromkeys(steps)), fixed, draw(st.sampled_from((0, 0, 2, 5, 2.5))), tuple(against)
    )


@settings(max_examples=150)
@given(kits(3, 9))
def test_as_brute_force_has_it(kit: tuple[tuple[Drum, ...], Wish]) -> None:
    drums, wish = kit
    best, plan = brute(drums, wish), plan_pitches(drums, wish)
    assert plan.proved
    if best is None:
        assert plan.impossible
        assert plan.targets == {}
        return
    require_kept(drums, wish, plan)
    assert (len(plan.dropped), plan.moved) == (best[0], pytest.approx(best[1]))
    assert plan.bound == pytest.approx(plan.moved)


@settings(max_examples=30)
@given(kits(7, 300))
def test_limits_are_kept_for_any_kit(kit: tuple[tuple[Drum, ...], Wish]) -> None:
    drums, wish = kit
    plan = plan_pitches(drums, wish, seconds=3)
    if not plan.impossible:
        require_kept(drums, wish, plan)


def test_nothing_wished_moves_nothing() -> None:
    drums = (Drum("a", 1200, 1000, 1500), Drum("b", 700, 500, 900))
    plan = plan_pitches(drums, Wish())
    assert (plan.targets, plan.moved, plan.proved) == ({"a": 1200, "b": 700}, 0, True)


def test_a_step_of_a_fourth_is_made_where_it_costs_least() -> None:
    """500 cents: a perfect fourth in equal temperament (ISO 16 fixes A at 440 Hz; the semitone is 100 cents by definition)."""
    drums = (Drum("high", 1500, 1000, 2000, 0.002), Drum("low", 1100, 1090, 2000, 0.001))
    plan = plan_pitches(drums, Wish((Step("high", "low", 500),)))
    assert plan.targets["high"] - plan.targets["low"] == 500
    assert plan.moved == 100
    assert plan.turns == {
        name: pytest.approx((plan.targets[name] - now) * per)
        for name, now, per in (("high", 1500, 0.002), ("low", 1100, 0.001))
    }


def test_the_fewest_steps_are_dropped_and_named() -> None:
    drums = (Drum("a", 100, 90, 110), Drum("b", 0, -10, 10), Drum("c", -100, -110, -90))
    steps = (Step("a", "b", 100), Step("b", "c", 100), Step("a", "c", 700))
    plan = plan_pitches(drums, Wish(steps))
    assert plan.dropped == (steps[2],)


@pytest.mark.parametrize(
    ("wish", "blamed"),
    [
        (Wish(fixed={"a": 500}), "fixed: a"),
        (Wish(at_least=300), "apart"),
        (Wish(fixed={"a": 100, "b": 101}, at_least=20), "fixed: a"),
    ],
)
def test_what_cannot_hold_at_all_is_named(wish: Wish, blamed: str) -> None:
    drums = (Drum("a", 100, 0, 200), Drum("b", 100, 0, 200))
    plan = plan_pitches(drums, wish)
    assert blamed in plan.impossible


@pytest.mark.parametrize(
    ("drums", "wish", "words"),
    [
        ((), Wish(), "1 to 40"),
        ((Drum("a", 0, 0, 1), Drum("a", 0, 0, 1)), Wish(), "id of its own"),
        ((Drum("a", 0, 2, 1),), Wish(), "above its highest"),
        ((Drum("a", 0, 0, 1),), Wish((Step("a", "x", 1),)), "no drum of this kit"),
        ((Drum("a", 0, 0, 1),), Wish((Step("a", "a", 1),)), "to itself"),
        ((Drum("a", 0, 0, 1),), Wish(fixed={"x": 1}), "is to stay"),
    ],
)  # fmt: skip
def test_what_does_not_fit_together_is_said(drums: tuple[Drum, ...], wish: Wish, words: str) -> None:
    with pytest.raises(BadRequest, match=words):
        plan_pitches(drums, wish)


def test_one_drum_is_a_kit() -> None:
    plan = plan_pitches((Drum("a", 1200.4, 1000, 1500),), Wish(at_least=50, against=(1210,)))
    assert plan.targets == {"a": 1160}
    assert plan.moved == pytest.approx(40.4)
