"""Pitches and intervals against the equal-tempered table."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadQuantity
from drumwork.quantities import Interval, Pitch, parse_pitch

# MIDI Tuning Standard with ISO 16 (A4 = 440 Hz): note, hertz to three decimals, from the published table.
MIDI_TABLE = [
    ("C2", 65.406),
    ("E2", 82.407),
    ("G2", 97.999),
    ("A2", 110.000),
    ("C3", 130.813),
    ("F3", 174.614),
    ("A♭3", 207.652),
    ("B3", 246.942),
    ("C4", 261.626),
    ("F♯4", 369.994),
    ("A4", 440.000),
    ("C5", 523.251),
]


@pytest.mark.parametrize(("note", "hz"), MIDI_TABLE)
def test_notes_have_the_frequencies_of_the_midi_tuning_table(note: str, hz: float) -> None:
    assert parse_pitch(note).hz == pytest.approx(hz, abs=0.0006)
    assert Pitch(hz).note() == note


def test_110_hz_is_a2_exactly_and_98_hz_is_close_to_g2() -> None:
    # common practice F1; also ISO 16
    assert Pitch(110).note_and_cents() == ("A2", pytest.approx(0))
    name, cents = Pitch(98).note_and_cents()
    assert name == "G2"
    assert abs(cents) < 1


def test_a_minor_third_is_close_to_a_ratio_of_1_19() -> None:
    # common practice F7; equal temperament gives 2^(3/12)
    assert Interval(300).ratio == pytest.approx(2 ** (3 / 12))
    assert Interval(300).ratio == pytest.approx(1.19, abs=0.001)


# Just ratios and their cents: Helmholtz, On the Sensations of Tone, table of intervals (values from memory).
@pytest.mark.parametrize(
    ("ratio", "cents"), [(2, 1200), (3 / 2, 701.955), (4 / 3, 498.045), (5 / 4, 386.314), (6 / 5, 315.641)]
)
def test_just_intervals_have_their_textbook_cents(ratio: float, cents: float) -> None:
    assert Interval.from_ratio(ratio).cents == pytest.approx(cents, abs=0.001)


@given(st.floats(20, 2000), st.floats(430, 450))
def test_a_note_with_its_cents_reads_back_as_the_same_pitch(hz: float, a4: float) -> None:
    name, cents = Pitch(hz).note_and_cents(a4)
    text = f"{name} {'+' if cents >= 0 else '-'}{abs(cents):.4f}"
    try:
        read = parse_pitch(text, a4)
    except BadQuantity:  # at the very edge of the range rounding may step over it
        assert hz < 20.001 or hz > 1999.9
    else:
        assert read.hz == pytest.approx(hz, rel=1e-6)


@pytest.mark.parametrize("text", ["174.9", "174,9", " 174.9 Hz", "174.9hz"])
def test_hertz_are_read_however_they_are_typed(text: str) -> None:
    assert parse_pitch(text).hz == 174.9


@pytest.mark.parametrize(
    "text", ["", "abc", "0", "-5", "10000", "10 kHz", "19.9", "2001", "F", "F3 +150", "1e3", "nan", "174.9.1"]
)
def test_what_no_head_can_sound_is_refused_with_what_to_do(text: str) -> None:
    with pytest.raises(BadQuantity) as refused:
        parse_pitch(text)
    assert any(word in refused.value.message for word in ("Give", "Check", "name"))


def test_a_pitch_must_be_finite() -> None:
    for value in (math.nan, math.inf):
        with pytest.raises(BadQuantity):
            Pitch(value)
