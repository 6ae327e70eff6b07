"""Readings that cannot be are asked about. Invented figures; the slips are those people make: a point left out, an octave heard (common practice, no source)."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.commands.clear import Desk
from drumwork.rods.clearing import Means, misread


@pytest.mark.parametrize(
    ("values", "wanted", "found"),
    [
        ({1: 912, 2: 91, 3: 91.4, 4: 90.8}, None, {1: 91.2}),
        ({1: 91, 2: 912, 3: 45.2, 4: 91, 5: 90}, None, {2: 91.2, 3: 90.4}),
        ({1: 130, 2: 91, 3: 92, 4: 80}, None, {1: None}),
        ({1: 9.12, 2: 91, 3: 92}, None, {1: 91.2}),
        ({1: 70, 2: 91, 3: 92, 4: 80}, 91, {}),
        ({1: 30, 2: 31, 3: 33}, 91, {}),  # it still comes up from its first tone
        ({1: 912, 2: 913, 3: 915}, 91, {1: 91.2, 2: 91.3, 3: 91.5}),
        ({1: 912}, 91, {1: 91.2}),
        ({1: 912, 2: 91}, None, {}),  # one against one: nobody knows which
        ({1: 45, 2: 45, 3: 45, 4: 91, 5: 90, 6: 91}, 90, {1: 90.0, 2: 90.0, 3: 90.0}),
    ],
)
def test_what_cannot_be_is_named_with_what_it_may_have_been(
    values: dict[int, float], wanted: float | None, found: dict[int, float | None]
) -> None:
    assert {each.rod: each.perhaps for each in misread(values, wanted)} == found


def test_what_was_foretold_and_what_is_so_is_not_asked_about() -> None:
    values = {1: 140.0, 2: 91.0, 3: 91.0, 4: 91.0}
    assert [each.rod for each in misread(values)] == [1]
    assert misread(values, foretold={1: 138.0}) == ()
    assert misread(values, sure=[1]) == ()


def test_a_gauge_may_stand_as_far_apart_as_pull_does() -> None:
    assert misread({1: 150, 2: 91, 3: 91}, means=Means.GAUGE) == ()
    assert [each.perhaps for each in misread({1: 910, 2: 91, 3: 90}, means=Means.TORQUE)] == [91.0]


@given(st.lists(st.floats(60, 74), min_size=4, max_size=12), st.sampled_from([10, 0.1]), st.integers(0, 3))
def test_a_point_set_wrong_is_always_found_and_nothing_else(hz: list[float], slip: float, at: int) -> None:
    values = {rod: round(value, 1) for rod, value in enumerate(hz, start=1)}
    assert misread(values, 67.0) == ()
    (found,) = misread({**values, at + 1: values[at + 1] * slip}, 67.0)
    assert found.rod == at + 1
    assert found.perhaps == pytest.approx(values[at + 1], rel=1e-3)


CASE: dict[str, Any] = {"case": 1, "n_rods": 6, "target_hz": 91, "step_turns": 0.0625}


def ask(desk: Desk, **more: Any) -> dict[str, Any]:
    return desk.answer(json.dumps({**CASE, **more}))


def test_the_command_line_asks_and_turns_nothing_by_it() -> None:
    desk = Desk()
    asked = ask(desk, readings_hz=[912, 91, 90.5, 91.2, 91, 90.8])
    assert [each["kind"] for each in asked["findings"]] == ["read-again"]
    assert asked["turns"] == [0.0] * 6
    assert asked["read_again"][0]["perhaps_hz"] == 91.2
    assert desk.cases == {}  # the round was not taken
    taken = ask(desk, readings_hz=[45.2, 91, 90.5, 91.2, 91, 90.8], sure=[1])
    assert any(taken["turns"])
    assert "read_again" not in taken


def test_a_tap_that_cannot_be_leaves_the_turn_and_the_plan() -> None:
    desk = Desk()
    first = ask(desk, readings_hz=[91, 89, 90.5, 91.2, 94.2, 90.8])
    rod = first["turns"].index(min(first["turns"])) + 1
    asked = ask(desk, tapped={"rod": rod, "hz": 9.2, "turned": -0.0625})
    assert asked["ask"] == "read-again"
    assert asked["turns"][rod - 1] == pytest.approx(first["turns"][rod - 1] + 0.0625)
    assert ask(desk, tapped={"rod": rod, "hz": 92.0})["ask"] != "read-again"


def test_sure_names_rods() -> None:
    assert ask(Desk(), readings_hz=[91] * 6, sure=[9])["error"]["code"] == "bad_quantity"
