"""Call-outs against brute force written apart from the code (every choice tried), and the laws they keep."""

from __future__ import annotations

from collections import Counter
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.callout import Planned, Task, plan_callout, worst_first
from drumwork.errors import BadRequest


def can_stand(chosen: tuple[Task, ...]) -> bool:
    done: set[str] = set()
    left = list(chosen)
    while left:
        ready = [each for each in left if set(each.after) <= done]
        if not ready:
            return False
        done |= {each.id for each in ready}
        left = [each for each in left if each.id not in done]
    return True


def brute(minutes: float, tasks: list[Task], parts: dict[str, int]) -> float:
    best = 0.0
    for size in range(len(tasks) + 1):
        for chosen in combinations(tasks, size):
            used = Counter(part for each in chosen for part in each.uses)
            fits = sum(each.minutes for each in chosen) <= minutes + 1e-9 and all(
                used[part] <= parts.get(part, 0) for part in used
            )
            if fits and can_stand(chosen):
                best = max(best, sum(each.worth for each in chosen))
    return best


@st.composite
def callouts(draw: st.DrawFn, most: int) -> tuple[float, list[Task], dict[str, int]]:
    names = [f"t{n}" for n in range(draw(st.integers(0, most)))]
    numbers = st.integers(0, 10) | st.sampled_from((0.5, 1.25, 2.1, 3.3))
    tasks = [
        Task(
            name,
            draw(numbers),
            draw(numbers | st.just(-2)),
            tuple(draw(st.lists(st.sampled_from(names), max_size=2, unique=True))),
            tuple(draw(st.lists(st.sampled_from(("rod", "claw", "felt")), max_size=2))),
        )
        for name in names
    ]
    return draw(numbers) * 3, tasks, {"rod": draw(st.integers(0, 3)), "claw": draw(st.integers(0, 1))}


def require_kept(minutes: float, tasks: list[Task], parts: dict[str, int], plan: Planned) -> None:
    by_id = {each.id: each for each in tasks}
    assert len(set(plan.order)) == len(plan.order)
    for place, name in enumerate(plan.order):
        assert set(by_id[name].after) <= set(plan.order[:place])  # what it needs stands before it
    used = Counter(part for name in plan.order for part in by_id[name].uses)
    assert all(used[part] <= parts.get(part, 0) for part in used)  # no part is given twice
    spent = sum(by_id[name].minutes for name in plan.order)
    assert spent <= minutes + 1e-9
    assert plan.spare_minutes == pytest.approx(minutes - spent)
    assert plan.worth == pytest.approx(sum(by_id[name].worth for name in plan.order))


@settings(max_examples=200)
@given(callouts(7))
def test_as_brute_force_has_it(callout: tuple[float, list[Task], dict[str, int]]) -> None:
    minutes, tasks, parts = callout
    plan = plan_callout(minutes, tasks, parts)
    require_kept(minutes, tasks, parts, plan)
    assert plan.proved
    assert plan.worth == pytest.approx(brute(minutes, tasks, parts))
    assert plan.bound == pytest.approx(plan.worth)


@settings(max_examples=40)
@given(callouts(14), st.integers(0, 10))
def test_more_minutes_never_help_less_and_the_plain_order_never_helps_more(
    callout: tuple[float, list[Task], dict[str, int]], more: int
) -> None:
    minutes, tasks, parts = callout
    plan, longer, plain = (
        plan_callout(minutes, tasks, parts),
        plan_callout(minutes + more, tasks, parts),
        worst_first(minutes, tasks, parts),
    )
    require_kept(minutes, tasks, parts, plain)
    assert longer.worth >= plan.worth - 1e-9
    assert plan.worth >= plain.worth - 1e-9


def test_a_batter_never_before_its_resonant() -> None:
    """§13, common practice: resonant heads of toms and bass before any batter; the batter is worth more, and still comes second."""
    tasks = [Task("batter", 4, 9, ("resonant",)), Task("resonant", 5, 1)]
    assert plan_callout(12, tasks, {}).order == ("resonant", "batter")
    assert plan_callout(8, tasks, {}).order == ("resonant",)
    assert plan_callout(0, tasks, {}).order == ()


def test_one_rod_is_lent_once() -> None:
    tasks = [
        Task("floor tom", 3, 8, uses=("rod",)),
        Task("rack tom", 3, 5, uses=("rod",)),
        Task("both", 6, 12, uses=("rod", "rod")),
    ]
    assert plan_callout(20, tasks, {"rod": 1}).order == ("floor tom",)
    assert set(plan_callout(20, tasks, {"rod": 2}).order) == {"floor tom", "rack tom"}
    assert plan_callout(20, tasks, {}).order == ()


def test_what_waits_for_itself_is_left_out_and_a_worthless_task_is_not_done() -> None:
    tasks = [Task("a", 1, 5, ("b",)), Task("b", 1, 5, ("a",)), Task("c", 1, 1), Task("d", 1, 0)]
    assert plan_callout(10, tasks, {}).order == ("c",)


def test_if_time_is_cut_the_most_is_done() -> None:
    tasks = [Task("long", 6, 6), Task("quick", 1, 5), Task("opens", 1, 0.5), Task("opened", 1, 8, ("opens",))]
    assert plan_callout(9, tasks, {}).order[:3] in (("quick", "opens", "opened"), ("opens", "opened", "quick"))


@pytest.mark.parametrize(
    ("tasks", "words"),
    [([Task("a", 1, 1), Task("a", 1, 1)], "id of its own"), ([Task("a", 1, 1, ("x",))], "no task of this call-out")],
)
def test_what_does_not_fit_together_is_said(tasks: list[Task], words: str) -> None:
    with pytest.raises(BadRequest, match=words):
        plan_callout(5, tasks, {})
