"""Rope drums against geometry worked another way, and the law of the stretched membrane."""

import json
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import jn_zeros

from drumwork.__main__ import main
from drumwork.errors import BadQuantity
from drumwork.rope import Lacing, Pass, Range, Squeeze, correct_segments, how_much_more, rope_length

drums = st.builds(
    Lacing,
    diameter_m=st.floats(0.4, 1.2),
    depth_m=st.floats(0.15, 0.8),
    holes=st.integers(4, 24),
    hoop_m=st.floats(0.02, 0.08),
    hoop_out_m=st.floats(0.0, 0.03),
)


@given(drums)
def test_a_segment_is_the_distance_between_its_two_holes(drum: Lacing) -> None:
    # Worked by coordinates (Euclid): a hole above at angle 0, the next below half a spacing further round.
    def hole(turn: float, height: float) -> np.ndarray:
        radius = drum.diameter_m / 2 + drum.hoop_out_m
        return np.array([radius * math.cos(turn), radius * math.sin(turn), height])

    above, below = hole(0, drum.depth_m + drum.hoop_m), hole(math.pi / drum.holes, 0)
    assert rope_length(drum).segment_m == pytest.approx(float(np.linalg.norm(above - below)))


def test_a_worked_rope() -> None:
    # By hand: 10 holes on a circle of 0.35 m, 0.40 m between hole planes. Chord 2·0.35·sin 9° = 0.10950; segment √(0.40² + 0.1095²) = 0.41472.
    found = rope_length(Lacing(0.70, 0.36, 10, hoop_m=0.04, hoop_out_m=0.0, rope_m=0.008, spare_m=0.0))
    assert found.segment_m == pytest.approx(0.41472, abs=1e-5)
    assert found.laced_m == pytest.approx(8.2944, abs=1e-3)
    # twenty times 40 mm of hoop and a quarter turn of an 8 mm rope: 20 · (0.04 + 0.012566) = 1.05133
    assert found.turns_m == pytest.approx(1.05133, abs=1e-5)


@given(drums)
def test_a_longer_drum_and_more_holes_take_more_rope(drum: Lacing) -> None:
    more = rope_length(drum).total_m
    assert (
        rope_length(Lacing(drum.diameter_m, drum.depth_m + 0.1, drum.holes)).laced_m
        > rope_length(Lacing(drum.diameter_m, drum.depth_m, drum.holes)).laced_m
    )
    again = Lacing(
        drum.diameter_m, drum.depth_m, drum.holes + 2, drum.hoop_m, drum.hoop_out_m, drum.rope_m, drum.spare_m
    )
    assert rope_length(again).total_m > more


def _membrane_hz(pull_n_per_m: float) -> float:
    """Lowest mode of an ideal membrane 0.7 m across of 0.5 kg/m² (Rayleigh, Theory of Sound, ch. IX; zero of J0 from scipy)."""
    return float(jn_zeros(0, 1)[0]) / (2 * math.pi * 0.35) * math.sqrt(pull_n_per_m / 0.5)


@given(st.floats(400, 1200), st.floats(100, 400), st.floats(2e4, 9e4), st.floats(0.0, 0.03))
def test_the_pull_it_asks_for_brings_an_ideal_membrane_there(
    base: float, ears: float, per_m: float, wanted_pull: float
) -> None:
    def at(pulled: float) -> Range:
        return Range(_membrane_hz(base + per_m * pulled), _membrane_hz(base + per_m * pulled + ears))

    made = Pass(0.01, at(-0.01).low_hz if base > per_m * 0.01 + 50 else at(0).low_hz, at(0).low_hz)
    if made.before_hz == made.after_hz:
        made = Pass(0.01, at(0).low_hz, at(0.01).low_hz)
    found = how_much_more(at(0), at(wanted_pull), [made], above_cents=0)
    assert found.pull_m == pytest.approx(wanted_pull, abs=1e-6)
    assert found.expected is not None
    assert found.expected.high_hz == pytest.approx(at(wanted_pull).high_hz, rel=1e-6)


def test_it_aims_slightly_above_and_says_when_the_ears_reach_no_wider() -> None:
    # §14, common practice: film and rope settle
    made = [Pass(0.01, 48.0, 52.0)]
    found = how_much_more(Range(52, 70), Range(54, 71), made)
    assert found.expected is not None
    assert found.expected.high_hz > 71 * 2 ** (40 / 1200)
    assert "no wider" in how_much_more(Range(60, 62), Range(50, 80), made).words
    assert how_much_more(Range(52, 70), Range(40, 50), made).pull_m == 0


def test_what_is_not_known_is_learned_by_a_first_pass() -> None:
    found = how_much_more(Range(52, 70), Range(58, 76))
    assert found.per_m is None
    assert found.expected is None
    assert found.pull_m == pytest.approx(0.01)


def test_bad_readings_are_said() -> None:
    with pytest.raises(BadQuantity, match="Ears up"):
        Range(70, 52)
    with pytest.raises(BadQuantity, match="lowered"):
        how_much_more(Range(52, 70), Range(58, 76), [Pass(0.01, 52, 50)])
    with pytest.raises(BadQuantity, match="four holes"):
        Lacing(0.7, 0.3, 3)
    with pytest.raises(BadQuantity, match="no pair 12"):
        correct_segments(10, {12: Squeeze.SLACK})


def test_slack_is_carried_to_the_end_from_the_splice_on() -> None:
    # §14, common practice: the first after the splice is usually tight, and left
    found = correct_segments(
        9, {5: Squeeze.SLACK, 3: Squeeze.A_LITTLE_TIGHT, 1: Squeeze.A_LITTLE_TIGHT, 2: Squeeze.EVEN}
    )
    assert [each.pair for each in found] == [3, 5]
    assert all(each.carry_to == 9 for each in found)


@pytest.mark.parametrize(("wraps", "right"), [("2", False), ("3", True), ("4", True), ("5", False)])
def test_three_or_four_wraps_of_pigtail(wraps: str, right: bool, capsys: pytest.CaptureFixture[str]) -> None:
    # F10, common practice
    assert main(["rope", "pigtail", "--wraps", wraps, "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["right"] is right


def test_the_command_says_length_and_range(capsys: pytest.CaptureFixture[str]) -> None:
    assert (
        main(
            [
                "rope",
                "length",
                "--diameter",
                "700 mm",
                "--depth",
                "360 mm",
                "--holes",
                "10",
                "--hoop-out",
                "0",
                "--json",
            ]
        )
        == 0
    )
    assert json.loads(capsys.readouterr().out)["segment_m"] == pytest.approx(0.4147, abs=1e-4)
    words = ["rope", "range", "--now", "52", "70", "--wanted", "54", "71", "--pass", "10", "48", "52", "--json"]
    assert main(words) == 0
    assert json.loads(capsys.readouterr().out)["pull_mm"] > 0
    assert main(["rope", "segments", "--pairs", "10", "--felt", "3=odd"]) == 2
    assert "3=slack" in capsys.readouterr().err
