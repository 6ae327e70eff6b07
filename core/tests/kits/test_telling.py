"""A plan in words, what counts as a head to turn, and what drums do in a kit. Common practice, no source, unless said."""

from __future__ import annotations

import pytest
from two_headed import drum

from drumwork.kits import (
    HeadMove,
    KitWish,
    Role,
    crowded,
    head_words,
    interval_words,
    is_turned,
    plan_kit,
    rank,
    step_turns,
    tell,
    usual_roles,
)
from drumwork.quantities import Pitch, Turns

NAMES = {"a": "Siskin", "b": "Linnet", "c": "Serin"}


@pytest.mark.parametrize(
    ("cents", "words"),
    [
        (0, "unison"),
        (100, "a minor second"),
        (386, "386 cents"),  # a just major third (5:4) lies 14 cents under four equal steps
        (498, "a fourth"),  # a just fourth (4:3) lies 2 under five (ISO 16's equal steps)
        (-702, "a fifth"),  # a just fifth (3:2)
        (1200, "an octave"),
        (1195, "an octave"),
        (1902, "an octave and a fifth"),  # 3:1
        (2500, "2500 cents"),
    ],
)
def test_intervals_are_called_as_musicians_call_them(cents: float, words: str) -> None:
    assert interval_words(cents) == words


def move(cents: float | None, turns: float | None) -> HeadMove:
    return HeadMove(Pitch(200.0), cents, turns)


@pytest.mark.parametrize(
    ("moved", "step", "turns", "words"),
    [
        (move(40, 0.13), 2, Turns.of(1, 8), "up 1/8"),
        (move(-40, -0.21), 2, Turns.of(-3, 16), "down 3/16"),
        (move(9, 0.031), 4, Turns.of(1, 32), "up 1/32"),  # finer than an eighth, where an eighth would be none at all
        (move(-8, -0.01), 2, Turns(0), "down a hair"),
        (move(3, 0.04), 2, Turns(0), "stays"),
        (move(None, None), 2, None, "to be read first"),
    ],
)
def test_what_a_head_does(moved: HeadMove, step: int, turns: Turns | None, words: str) -> None:
    assert (step_turns(moved, step), head_words(moved, step)) == (turns, words)
    assert is_turned(moved) is (words != "stays")
    assert not is_turned(None)


def test_a_kit_in_order_is_left_as_it_is() -> None:
    drums = [drum("a", 10, 7, 260), drum("b", 14, 12, 170)]
    told = tell(drums, KitWish(a_head=0.125), plan_kit(drums, KitWish(a_head=0.125)), NAMES)
    assert (told.headline, told.notes) == ("Leave it as it is", ())
    assert told.sum == "Nothing needs turning: it holds every wish."


def test_who_sings_at_whom_is_told_with_what_it_will_be() -> None:
    drums, wish = [drum("a", 12, 8, 210), drum("b", 13, 9, 205)], KitWish(apart=60, a_head=0.125)
    told = tell(drums, wish, plan_kit(drums, wish), NAMES)
    assert told.headline == "Best there is"
    assert told.sum.startswith("Two heads on one drum, ")
    assert told.sum.endswith("Nothing nearer would hold every two notes 60 cents apart.")
    assert told.notes[0].startswith("Siskin")
    assert "sing at each other now: " in told.notes[0]
    after = float(told.notes[0].rsplit(": ")[-1].rstrip("."))
    assert after >= 60


def test_wires_that_answer_a_tom_are_named_as_wires() -> None:
    snare = drum("a", 14, 5.5, 300, wires=True, in_steps=False)
    tom = drum("b", 10, 7, 300 * 2 ** (210 / 1200))
    told = tell([snare, tom], KitWish(), plan_kit([snare, tom], KitWish()), NAMES)
    assert told.notes[0].startswith("Siskin’s wires answer Linnet’s batter now: ")


def test_a_step_that_gives_way_says_to_what() -> None:
    reach = [drum("a", 10, 7, 260), drum("b", 12, 8, 215)]
    far = KitWish(step=4000.0, tolerance=5)
    plan = plan_kit(reach, far)
    assert plan.in_the_way == "reach"
    assert "their films and rods do not reach so far" in tell(reach, far, plan, NAMES).notes[0]
    crowd = KitWish(step=20.0, tolerance=5, apart=50)
    plan = plan_kit(reach, crowd)
    assert plan.in_the_way == "apart"
    assert "one drum’s note would lie on another’s" in tell(reach, crowd, plan, NAMES).notes[0]


def test_what_cannot_be_says_the_smallest_wish_to_drop() -> None:
    drums = [drum("a", 12, 8, 210), drum("b", 13, 9, 205), drum("c", 14, 10, 200)]
    wish = KitWish(apart=700, stays=frozenset({"a", "b"}))
    plan = plan_kit(drums, wish)
    told = tell(drums, wish, plan, NAMES)
    assert told.headline == "It cannot all be"
    assert told.sum.startswith(f"{plan.apart_at_most:.0f} cents apart can be kept.")
    fixed = KitWish(fixed={"c": 5.0})
    assert tell(drums, fixed, plan_kit(drums, fixed), NAMES).sum.startswith("Serin cannot have that note")


def test_a_limit_and_a_head_nobody_read_are_told() -> None:
    low = drum("a", 12, 8, 210)
    wish = KitWish(fixed={"a": low.note_hz(20.0 * 2 ** (low.grid.start / 1200))})
    assert any("lowest clean pitch" in note for note in tell([low], wish, plan_kit([low], wish), NAMES).notes)
    new = drum("b", 12, 8, None)
    assert tell([new], KitWish(), plan_kit([new], KitWish()), NAMES).notes == (
        "Nobody has read Linnet’s batter and resonant: its job begins with a round.",
    )


def test_touching_a_head_costs_something_so_fewer_are_touched() -> None:
    drums = [drum("a", 12, 8, 210), drum("b", 13, 9, 206, turns_per_cent=(0.0011, 0.0011))]
    moved = {
        a_head: [each for each in plan_kit(drums, KitWish(apart=60, a_head=a_head)).batter.values() if is_turned(each)]
        for a_head in (0.0, 0.125)
    }
    assert len(moved[0.125]) == 1 <= len(moved[0.0])
    plan = plan_kit(drums, KitWish(apart=60, a_head=0.125))
    assert plan.proved
    assert 0 < plan.bound <= plan.turns + 1e-6


def test_drums_of_a_section_may_sound_alike() -> None:
    alike = [drum(name, 14, 12, 400, section="snares", in_steps=False) for name in "ab"]
    assert not crowded([each.stands for each in alike if each.stands], 50)
    assert plan_kit(alike, KitWish()).turns == pytest.approx(0, abs=0.01)
    apart = plan_kit([drum(name, 14, 12, 400, in_steps=False) for name in "ab"], KitWish())
    assert apart.turns > 0.05


def test_roles_and_the_row() -> None:
    assert usual_roles(["snare", "rack-tom", "bass", "rope-bass"]) == [Role.SNARE, Role.TOM, Role.BASS, Role.BESIDE]
    assert usual_roles(["marching-snare", "marching-bass"]) == [Role.SNARES, Role.LINE]
    assert usual_roles(["marching-bass", "floor-tom"]) == [Role.BESIDE, Role.TOM]
    assert [each for each in Role if each.in_steps] == [Role.TOM, Role.QUAD, Role.LINE]
    assert [each for each in Role if each.section] == [Role.SNARES]
    row = [(Role.BASS, 0.56, 0.4), (Role.TOM, 0.33, 0.2), (Role.TOM, 0.25, 0.2), (Role.SNARE, 0.36, 0.15)]
    assert sorted(row, key=lambda each: rank(*each)) == row[::-1]
