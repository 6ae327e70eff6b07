"""Rods left less turned on purpose are not uneven (trade §4, P12, P18, N9: common practice, no source)."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.commands.clear import Desk
from drumwork.errors import BadLayout
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingTask, Proposal, Round, propose
from drumwork.rods.clearing.words import explain_rod
from drumwork.rods.layout import RodLayout

TEN = RodLayout(10, beside_bed=frozenset({2, 3, 7, 8}))
BED_LAST = {rod: Turns.of(1, 2) if rod in TEN.beside_bed else Turns.of(3, 2) for rod in TEN.rods}


def proposed(cents: dict[int, float], tally: dict[int, Turns], meant: dict[int, Turns] | None) -> Proposal:
    read = {rod: Pitch(330 * 2 ** (cents.get(rod, 4) / 1200)) for rod in TEN.rods}
    return propose(ClearingTask(TEN, (Round(read),), Turns.of(1, 8), Pitch(330), tally=tally, meant=meant))


def test_a_snare_side_tensioned_as_planned_pulls_evenly() -> None:
    even = proposed({}, BED_LAST, BED_LAST).tension
    assert even.unheard == pytest.approx([0] * 10, abs=1e-9)
    assert max(abs(proposed({}, BED_LAST, None).tension.unheard)) > 0.1


def test_its_flattest_pair_is_lifted_not_eased() -> None:
    found = proposed({1: -21, 6: -17}, BED_LAST, BED_LAST)
    down = [rod for rod, turns in found.turns.items() if turns.thirtyseconds < 0 and found.read[rod] < 0]
    assert down == []
    assert max(found.turns[1].thirtyseconds, found.turns[6].thirtyseconds) > 0


def test_what_was_turned_beside_the_plan_still_counts() -> None:
    made = {**BED_LAST, 4: BED_LAST[4] + Turns.of(1, 2)}
    found = proposed({}, made, BED_LAST).tension
    assert max(found.unheard) == found.unheard_of(TEN.rods, 4) > 0.05


cents = st.fixed_dictionaries({rod: st.integers(-25, 25) for rod in TEN.rods})
counts = st.fixed_dictionaries({rod: st.integers(40, 60).map(Turns) for rod in TEN.rods})


@given(cents, counts)
def test_a_turn_against_its_reading_says_so_in_its_first_words(read: dict[int, int], tally: dict[int, Turns]) -> None:
    found = proposed(dict(read), tally, None)
    for rod, turns in found.turns.items():
        against = found.read[rod] * turns.thirtyseconds > 0 and round(abs(found.read[rod])) >= 1
        first = found.why_rod[rod].split()[:2]
        assert (first[1] == "although") is against
        if against:
            assert first[0] == ("Up" if turns.thirtyseconds > 0 else "Down")


def test_the_command_takes_what_was_planned_beside_what_was_counted() -> None:
    request = {
        "case": 1, "n_rods": 10, "target_hz": 330, "step_turns": 0.125, "readings_hz": [326, 331, 331, 330.6, 330.8, 326.8, 331.5, 330.8, 331, 330.6],
        "counted_turns": [1.5, 0.5, 0.5, 1.5, 1.5, 1.5, 0.5, 0.5, 1.5, 1.5],
    }  # fmt: skip
    planned = {**request, "planned_turns": request["counted_turns"]}
    answer = Desk().answer(json.dumps(planned))
    assert answer["turns"] != Desk().answer(json.dumps(request))["turns"]
    assert max(answer["turns"][0], answer["turns"][5]) > 0
    assert len(answer["why_rods"]) == 10
    alone = {key: value for key, value in planned.items() if key != "counted_turns"}
    assert Desk().answer(json.dumps(alone))["error"]["fields"] == {"planned_turns": "None"}


def test_what_was_meant_is_said_of_every_rod() -> None:
    with pytest.raises(BadLayout, match="meant alike"):
        proposed({}, BED_LAST, {1: Turns(16)})


def test_the_reason_given_for_such_a_turn_is_one_that_holds() -> None:
    """Nobody else was turned, yet “what the others are turned moves it down” was said."""
    layout = RodLayout(8)
    task = ClearingTask(layout, (Round(dict.fromkeys(layout.rods, Pitch(91))),), Turns(2), Pitch(91))
    read = dict.fromkeys(layout.rods, 0.0) | {6: 4.0, 7: -11.0}
    nothing = dict.fromkeys(layout.rods, Turns(0))

    def why(others: dict[int, float], **turned: int) -> str:
        turns = nothing | {int(rod[1:]): Turns(made) for rod, made in turned.items()}
        return explain_rod(task, 6, read | others, turns, 0.0, 10.0)

    assert why({}, r6=2).startswith(
        "Up although rod 6 reads 4 cents high: 7 beside it reads low, and comes up with it."
    )
    assert "5 and 7 beside it read low, and come up with it." in why({5: -8.0}, r6=2)
    assert "by all that was read together it is lower than its own tap says." in why({7: 0.0}, r6=2)
    assert "what the others are turned moves it down by more than that." in why({}, r6=2, r3=-2)
