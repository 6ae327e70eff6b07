"""Lengths and turns: exact, and readable as people type them."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadQuantity
from drumwork.quantities import Length, Turns, parse_length, parse_turns


def test_an_inch_is_25_4_mm_exactly() -> None:
    # International yard and pound agreement, 1959; ISO 80000-3
    assert Length.from_inches(1).mm == 25.4
    assert Length.from_inches(14).mm == 355.6


@pytest.mark.parametrize(
    ("text", "unit", "mm"),
    [
        ("14", "in", 355.6),
        ("5 1/2", "in", 139.7),
        ("5.5", "in", 139.7),
        ("356", "mm", 356),
        ("14 in", "mm", 355.6),
        ('13"', "in", 330.2),
        ("35,6 cm", "in", 356),
    ],
)
def test_lengths_are_read_in_the_unit_typed_or_the_workshops(text: str, unit: str, mm: float) -> None:
    assert parse_length(text, unit).mm == pytest.approx(mm)


@pytest.mark.parametrize("text", ["", "0", "-3", "wide", "14 ft", "1/0", "600"])
def test_impossible_lengths_are_refused(text: str) -> None:
    with pytest.raises(BadQuantity):
        parse_length(text)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("3/8", "up 3/8"),
        ("1 1/2", "up 1 1/2"),
        ("-1/4", "down 1/4"),
        ("2", "up 2"),
        ("1/32", "up 1/32"),
        ("0", "level"),
    ],
)
def test_turns_are_said_as_at_the_bench(text: str, words: str) -> None:
    assert parse_turns(text).words() == words


@pytest.mark.parametrize("text", ["", "1/64", "1/0", "half", "0.3"])
def test_turns_that_cannot_be_counted_are_refused(text: str) -> None:
    with pytest.raises(BadQuantity):
        parse_turns(text)


@given(st.integers(-160, 160))
def test_turns_survive_a_round_trip_through_their_words(count: int) -> None:
    turns = Turns(count)
    sign = "-" if count < 0 else ""
    assert parse_turns(sign + turns.amount()) == turns
    assert turns.fraction == Fraction(count, 32)


@pytest.mark.parametrize(
    ("typed", "turns"), [("90°", Turns.of(1, 4)), ("-45 deg", Turns.of(-1, 8)), ("11,25°", Turns(1))]
)
def test_degrees_are_read_and_told_exactly(typed: str, turns: Turns) -> None:
    assert parse_turns(typed) == turns
    assert parse_turns(f"{turns.degrees}°") == turns


def test_degrees_that_are_no_thirty_second_are_refused() -> None:
    with pytest.raises(BadQuantity, match="thirty-seconds"):
        parse_turns("25°")  # common practice P16: plainly audible, yet not a step anyone counts in
