"""Who answers when a drum is struck, on a simulated kit whose drums are filters driven by the sound itself: no formula of the test's is in it."""

from __future__ import annotations

import math

import numpy as np
import pytest

from drumwork.errors import BadRequest, BadSound
from drumwork.kits import Place, SingTest, hear_singing, softer_by, tell_singing
from drumwork.quantities import Pitch
from drumwork.rods.layout import RodLayout
from drumwork.simulated.kit import SimulatedKit

NAMES = {"a": "Siskin", "b": "Linnet", "c": "Serin"}


def kit(cents: float, note: float = 134.0, section: str = "") -> list[Place]:
    """Linnet's note lies so many cents over Siskin's; Serin's lies far from both."""
    beside = note * 2 ** (cents / 1200)
    return [
        Place("a", Pitch(note * 1.6), None, note, section=section),
        Place("b", Pitch(beside * 1.71), None, beside, section=section),
        Place("c", Pitch(note * 1.13), None, note * 0.69),
    ]


def struck(places: list[Place], seed: int = 1, **more: float | None) -> SingTest:
    made = SimulatedKit({each.id: (each.note_hz, each.batter.hz) for each in places})
    return hear_singing(made.strike("a", seed, **more), made.rate, "a", places)  # type: ignore[arg-type]


@pytest.mark.parametrize("seed", range(3))
@pytest.mark.parametrize("note", [62.0, 134.0, 240.0])
def test_two_in_tune_sing_and_two_far_apart_do_not(note: float, seed: int) -> None:
    sings = struck(kit(4.0, note), seed).answers
    assert (sings[0].drum, sings[0].which) == ("b", "note")
    assert sings[0].level_db > -30
    assert sings[0].hz == pytest.approx(note * 2 ** (4 / 1200), rel=0.002)
    assert all(each.level_db < -36 for each in struck(kit(250.0, note), seed).answers)


@pytest.mark.parametrize("cents", [0.0, 5.0, -8.0, 15.0])
@pytest.mark.parametrize("seed", [1, 2])
def test_moved_as_advised_it_answers_as_much_softer_as_was_foretold(cents: float, seed: int) -> None:
    before = struck(kit(cents), seed)
    assert before.advice
    assert before.advice.drum == "b"
    assert before.advice.softer_db == pytest.approx(12.0)
    after = struck(kit(cents + before.advice.cents), seed)
    level = max((each.level_db for each in after.answers if each.drum == "b"), default=-46.0)
    assert 7 < before.answers[0].level_db - level < 24
    assert math.copysign(1, before.advice.cents) == (-1 if cents < 0 else 1)  # away from where the other lies


def test_the_hand_is_heard_where_it_came() -> None:
    for hand in (0.6, 1.0, 1.5):
        assert struck(kit(300.0), hand_s=hand).hand_s == pytest.approx(hand, abs=0.08)
    never = struck(kit(300.0), hand_s=None)
    assert never.hand_s is None
    assert tell_singing(never, NAMES)[0].startswith("No hand was heard on Siskin")


def test_how_loud_does_not_hang_on_when_the_hand_came() -> None:
    levels = [struck(kit(5.0), hand_s=hand).answers[0].level_db for hand in (0.7, 1.0, 1.4)]
    assert max(levels) - min(levels) < 7


def test_drums_that_play_one_part_are_heard_and_not_moved() -> None:
    alike = struck(kit(4.0, section="snares"))
    assert alike.answers[0].drum == "b"
    assert alike.advice is None


def test_what_is_no_drum_of_the_kit_is_a_stranger() -> None:
    places = kit(250.0)
    made = SimulatedKit({"a": (134.0, 214.0), "cymbal": (137.0,)})
    test = hear_singing(made.strike("a", 3), made.rate, "a", [places[0], places[2]])
    assert test.strangers == ()  # so near to the struck drum's own note nobody can say
    alone = SimulatedKit({"a": (134.0, 214.0), "c": (93.0,)})
    sound = alone.strike("a", 3)
    gong = 0.02 * np.sin(math.tau * 171 * np.arange(len(sound)) / alone.rate) * np.linspace(1, 0.6, len(sound))
    found = hear_singing(sound + gong, alone.rate, "a", [places[0], places[2]])
    assert any(abs(each - 171) < 1 for each in found.strangers)
    assert "no drum of this kit" in tell_singing(found, NAMES)[-1]


def test_it_is_told_in_words() -> None:
    said = tell_singing(struck(kit(5.0)), NAMES)
    assert said[0].startswith("Linnet answers with its note at 134 Hz, ")
    assert said[1].startswith("Bring Linnet up by ")
    assert said[1].endswith("it should answer 12 dB softer.")
    eight = tell_singing(struck(kit(5.0)), NAMES, {"b": RodLayout(8)})[1]
    assert eight.endswith("or slacken rods 1, 2, 5 and 6 of its batter a hair, which lets it die sooner.")  # P19
    assert tell_singing(struck(kit(400.0)), NAMES) == ("Nothing answers Siskin.",)


def test_softer_by_is_the_height_of_two_rings_apart() -> None:
    """Against the sum of two decaying sinusoids, counted out sample by sample."""
    t = np.arange(0, 4, 1 / 8000)
    for near, far in ((1.3, 4.7), (2.2, 9.4)):
        heights = []
        for apart in (near, far):
            answer = np.convolve(
                np.exp(-3 * t) * np.exp(1j * math.tau * (100 + apart) * t),
                np.exp(-3 * t) * np.exp(1j * math.tau * 100 * t),
            )[: len(t)]
            around = np.abs(t - 1.0) < 0.5 / apart
            heights.append((np.abs(answer[around]) * np.exp(3 * t[around])).max())
        assert softer_by(near, far) == pytest.approx(20 * math.log10(heights[0] / heights[1]), abs=0.6)


@pytest.mark.parametrize(
    ("samples", "who", "says"),
    [
        (np.zeros(48_000 * 3), "a", "no stroke"),
        (np.ones(1000) * 0.5, "a", "no stroke"),
        (SimulatedKit({"a": (134.0, 214.0)}).strike("a", 1, seconds=0.9), "a", "no stroke|too soon"),
        (np.zeros(48_000), "z", "no drum of this kit"),
    ],
)
def test_what_is_no_test_is_told(samples: np.ndarray, who: str, says: str) -> None:
    with pytest.raises((BadSound, BadRequest), match=says):
        hear_singing(samples, 48_000, who, kit(5.0))
    with pytest.raises(BadRequest, match="alone"):
        hear_singing(samples, 48_000, "a", kit(5.0)[:1])
