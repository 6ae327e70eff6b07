"""What a proposal says, and laws it keeps that do not depend on the numbers of one drum."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.errors import BadQuantity, TooFewReadings
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import (
    STRICT,
    ClearingSession,
    ClearingTask,
    EvenRule,
    Round,
    cents_read,
    judge,
    propose,
)
from drumwork.rods.clearing.belief import believe
from drumwork.rods.clearing.words import explain_rod, explain_round
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead

SIXTEENTH = Turns.of(1, 16)
EIGHT = RodLayout(8)


def round_of(*hz: float) -> dict[int, Pitch]:
    return {rod: Pitch(value) for rod, value in enumerate(hz, start=1)}


def turns_of(**given_32: int) -> dict[int, Turns]:
    return {rod: Turns(given_32.get(f"r{rod}", 0)) for rod in range(1, 9)}


def task_of(hz: dict[int, Pitch], wanted: float, even: EvenRule | None = None) -> ClearingTask:
    return ClearingTask(RodLayout(max(4, max(hz))), (Round(hz),), SIXTEENTH, Pitch(wanted), even or EvenRule())


def why_rod(rod: int, hz: dict[int, Pitch], turns: dict[int, Turns], wanted: float, cents: float = 1.0) -> str:
    task = task_of(hz, wanted)
    return explain_rod(task, rod, cents_read(task), turns, cents, 2.0)


class TestWords:
    """The why, in the words of a colleague. Cents by 1200·log2 of the ratio."""

    def test_a_pair_that_is_off_together_is_named_as_a_pair(self) -> None:
        words = why_rod(2, round_of(175, 173, 175, 175, 175, 173, 175, 175), turns_of(r2=4), 175)
        assert words.startswith(
            "2 and 6 face each other and are 20 cents low together. Tightening it 1/8 evens the head."
        )
        assert words.endswith("It should come to 1 cent above wanted, give or take 4.")

    @pytest.mark.parametrize(
        ("hz", "turned", "said"),
        [
            ((62,) * 8, 18, "brings the head up."),
            ((62, 64, 62, 62, 62, 64, 62, 62), 18, "brings the head up."),
            ((62, 60, 62, 62, 62, 60, 62, 62), 18, "evens the head."),
            ((89,) * 8, -2, "brings the head down."),
            ((87, 85, 87, 87, 87, 85, 87, 87), 4, "evens the head."),
        ],
    )
    def test_a_head_that_is_off_as_a_whole_is_not_uneven(self, hz: tuple[float, ...], turned: int, said: str) -> None:
        """Eight rods at 62 where 87 was wanted were each told that a turn “evens the head”, and so was one that stands high among them."""
        assert said in why_rod(2, round_of(*hz), dict.fromkeys(range(1, 9), Turns(turned)), 87)

    @pytest.mark.parametrize(
        ("cents", "said"),
        [(-0.4, "to what is wanted, give or take 4 cents."), (-5.2, "to 5 cents below wanted, give or take 4.")],
    )
    def test_what_a_rod_should_come_to_is_said_without_a_sign(self, cents: float, said: str) -> None:
        words = why_rod(2, round_of(175, 173, 175, 175, 175, 173, 175, 175), turns_of(r2=4), 175, cents)
        assert words.endswith(f"It should come {said}")

    def test_a_pair_that_fights_is_told_apart(self) -> None:
        words = why_rod(2, round_of(175, 173, 175, 175, 175, 177, 175, 175), turns_of(r2=4), 175)
        assert words.startswith("2 is 20 cents low, 6 across is 20 cents high.")

    def test_a_rod_without_an_opposite_stands_alone(self) -> None:
        words = why_rod(1, round_of(173, 175, 175, 175, 175), {1: Turns(4)}, 175)
        assert words.startswith("Rod 1 is 20 cents low.")

    def test_a_level_rod_that_is_turned_all_the_same_says_why(self) -> None:
        words = why_rod(1, round_of(*[175] * 8), turns_of(r1=-2), 175)
        assert words.startswith("Rod 1 is level. Easing it 1/16 balances what the others do.")

    def test_a_rod_that_was_not_heard_says_so(self) -> None:
        heard = {rod: pitch for rod, pitch in round_of(*[175] * 8).items() if rod != 3}
        assert "not heard" in why_rod(3, heard, turns_of(r3=2), 175)

    def test_the_round_names_who_is_lifted_and_who_is_eased(self) -> None:
        words = explain_round(task_of(round_of(*[175] * 8), 175), turns_of(r2=4, r6=4, r3=-2), 0.9, 175, "hold")
        assert words == "Lifting 2 and 6 and easing 3 evens the head to about 0.9 Hz and keeps it at 175.0 Hz."

    def test_the_round_says_when_it_brings_the_head_elsewhere(self) -> None:
        assert "brings it to 190.0 Hz" in explain_round(
            task_of(round_of(*[175] * 8), 190), turns_of(r1=4), 0.9, 190, "bring"
        )

    def test_no_turn_is_said_plainly(self) -> None:
        assert (
            explain_round(task_of(round_of(*[175] * 8), 175), turns_of(), 3, 175, "hold")
            == "No turn in whole steps would make this head more even."
        )


class TestVerdict:
    """Even, on pitch and complete are three things."""

    def test_even_but_off_pitch_is_not_clear(self) -> None:
        verdict = judge(task_of(round_of(*[180.0] * 8), 200))
        assert (verdict.even, verdict.on_pitch, verdict.clear) == (True, False, False)
        assert "not at pitch: 180.0 Hz where 200.0 is wanted, 182 cents too low" in verdict.words

    def test_an_unheard_rod_keeps_it_from_being_clear(self) -> None:
        verdict = judge(ClearingTask(EIGHT, (Round(round_of(*[200.0] * 7)),), SIXTEENTH, Pitch(200)))
        assert (verdict.even, verdict.complete, verdict.clear) == (True, False, False)
        assert "1 still unheard" in verdict.words

    @given(st.lists(st.floats(90, 110), min_size=4, max_size=16), st.floats(0.1, 10))
    def test_a_wider_rule_never_refuses_what_a_narrower_one_took(self, hz: list[float], spread: float) -> None:
        narrow, wide = (
            judge(task_of(round_of(*hz), 100, EvenRule(spread_hz=size, spread_ratio=1)))
            for size in (spread, spread * 2)
        )
        assert wide.even or not narrow.even

    def test_the_rule_is_the_stricter_of_hertz_and_ratio(self) -> None:
        assert EvenRule().allowed_hz(60) == pytest.approx(1.2)  # two hundredths of 60
        assert EvenRule().allowed_hz(300) == 2.0
        assert STRICT.allowed_hz(120) == pytest.approx(1.2)


@st.composite
def uneven(draw: st.DrawFn) -> list[float]:
    count = draw(st.integers(4, 12))
    return [200 * (1 + draw(st.floats(-0.06, 0.06))) for _ in range(count)]


def belief_of(hz: list[float], step: Turns = SIXTEENTH):  # type: ignore[no-untyped-def]
    return believe(ClearingTask(RodLayout(len(hz)), (Round(round_of(*hz)),), step, Pitch(200)))


@given(uneven())
@settings(max_examples=25)
def test_mirroring_the_drum_mirrors_the_belief(hz: list[float]) -> None:
    plain, mirrored = belief_of(hz), belief_of(hz[::-1])
    assert plain.z[::-1] == pytest.approx(mirrored.z, abs=1e-9)
    assert plain.modal == pytest.approx(mirrored.modal, abs=1e-6)


@given(uneven(), st.floats(0.5, 2))
@settings(max_examples=25)
def test_scaling_every_pitch_changes_no_turn(hz: list[float], ratio: float) -> None:
    def turns(values: list[float], target: float) -> list[Turns]:
        task = ClearingTask(
            RodLayout(len(values)), (Round(round_of(*values)),), SIXTEENTH, Pitch(target), EvenRule(1e9, 0.01, 0.01)
        )
        return list(propose(task).turns.values())

    assert turns(hz, 200) == turns([value * ratio for value in hz], 200 * ratio)


@given(uneven())
@settings(max_examples=25)
def test_the_covariance_of_what_is_expected_is_a_covariance(hz: list[float]) -> None:
    _, covariance = belief_of(hz).outcome(np.full(len(hz), 0.1))
    assert covariance == pytest.approx(covariance.T)
    assert np.linalg.eigvalsh(covariance).min() > -1e-9


def test_more_rounds_of_the_same_make_the_state_surer() -> None:
    hz = [200, 203, 200, 197, 200, 203, 200, 197]
    sds = []
    for count in (1, 2, 4):
        rounds = tuple(Round(round_of(*hz)) for _ in range(count))
        _, covariance = believe(ClearingTask(EIGHT, rounds, SIXTEENTH, Pitch(200))).outcome(np.zeros(8))
        sds.append(float(np.sqrt(np.diag(covariance)).mean()))
    assert sds == sorted(sds, reverse=True)


def test_kinds_of_head_are_told_apart_by_their_readings() -> None:
    two_lobed = [200 + 4 * np.cos(2 * EIGHT.angle_rad(rod)) for rod in EIGHT.rods]
    one_sided = [200 + 4 * np.cos(EIGHT.angle_rad(rod)) for rod in EIGHT.rods]
    assert belief_of(two_lobed).modal > 0.9
    assert belief_of(one_sided).modal < 0.1


def test_a_large_move_is_expected_less_surely_than_a_small_one() -> None:
    belief = belief_of([200.0] * 8)
    small, large = (np.trace(belief.outcome(np.full(8, turns))[1]) for turns in (0.05, 0.5))
    assert large > small


class TestSession:
    """Round after round."""

    def test_what_was_really_turned_replaces_what_was_asked(self) -> None:
        session = ClearingSession(EIGHT, Pitch(200), SIXTEENTH)
        session.read(round_of(200, 206, 200, 194, 200, 206, 200, 194))
        session.turned({rod: Turns(0) for rod in EIGHT.rods})
        session.read(round_of(200, 206, 200, 194, 200, 206, 200, 194))
        assert not any(session.rounds[0].turned.values())

    def test_one_lucky_round_does_not_end_it_but_several_do(self) -> None:
        session = ClearingSession(EIGHT, Pitch(200), SIXTEENTH)
        steps = [session.read(round_of(*[200.0] * 8)) for _ in range(5)]
        assert not steps[0].done
        assert steps[-1].done
        assert not any(steps[-1].turns.values())

    def test_it_learns_a_touchy_drum_within_a_round(self) -> None:
        head = SimulatedHead(EIGHT, 200, seed=2, answer_per_turn=1.6, uneven=0.03, noise=0.001)
        session = ClearingSession(EIGHT, Pitch(200), Turns(1))
        spreads = []
        for _ in range(4):
            step = session.read(head.tap())
            head.turn(step.turns)
            hz = list(head.true_hz().values())
            spreads.append(max(hz) - min(hz))
        assert spreads[-1] < 2.0


def test_a_task_without_a_step_or_without_readings_is_refused() -> None:
    with pytest.raises(BadQuantity, match="step"):
        ClearingTask(EIGHT, (Round(round_of(*[200.0] * 8)),), Turns(0))
    with pytest.raises(TooFewReadings):
        ClearingTask(EIGHT, (), SIXTEENTH)


def test_the_wanted_pitch_is_the_first_mean_unless_one_is_given() -> None:
    rounds = (Round(round_of(*[198.0] * 4, *[202.0] * 4)), Round(round_of(*[210.0] * 8)))
    assert ClearingTask(EIGHT, rounds, SIXTEENTH).wanted == 200
    assert ClearingTask(EIGHT, rounds, SIXTEENTH, Pitch(190)).wanted == 190
