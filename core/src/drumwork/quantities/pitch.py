"""Pitches and intervals. Hertz inside; notes by equal temperament from a reference A (ISO 16)."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.sources import iso16

__all__ = ["HIGHEST_HZ", "LOWEST_HZ", "Interval", "Pitch", "cents_of", "cents_words", "parse_pitch", "ratio_of"]

LOWEST_HZ: Final = 20.0
"""Below this nobody hears a pitch (lower edge of hearing, ISO 226 starts at 20 Hz)."""
HIGHEST_HZ: Final = 2000.0
"""Above this no lug pitch of a drum head lies; a reading there is a slip or a wrong partial."""

_LETTERS: Final = {"C": 0, "D": 2, "E": 4, "F": 5, "G": 7, "A": 9, "B": 11, "H": 11}
_ACCIDENTALS: Final = {"": 0, "#": 1, "♯": 1, "b": -1, "♭": -1}
_NOTE: Final = re.compile(
    r"^\s*([A-Ha-h])\s*([#♯b♭]?)\s*(\d)\s*(?:([+\-−±])\s*(\d+(?:[.,]\d+)?)\s*(?:c|ct|cents?)?)?\s*$"
)
_HERTZ: Final = re.compile(r"^\s*(\d+(?:[.,]\d+)?)\s*(?:hz)?\s*$", re.I)


def cents_of(ratio: float) -> float:
    """A ratio of two frequencies in cents; the one place that knows how many make an octave.

    >>> round(cents_of(1.5), 3)
    701.955
    """
    return iso16.CENTS_PER_OCTAVE * math.log2(ratio)


def cents_words(cents: float) -> str:
    """How many, without their sign: the one place that knows the plural.

    >>> cents_words(-1.2), cents_words(21)
    ('1 cent', '21 cents')
    """
    count = round(abs(cents))
    return f"{count} cent{'' if count == 1 else 's'}"


def ratio_of(cents: float) -> float:
    """Cents as a ratio of two frequencies.

    >>> ratio_of(1200.0)
    2.0
    """
    return float(2 ** (cents / iso16.CENTS_PER_OCTAVE))


@dataclass(frozen=True, slots=True)
class Interval:
    """A ratio of two frequencies, in cents (1/1200 octave)."""

    cents: float

    @property
    def ratio(self) -> float:
        return ratio_of(self.cents)

    @classmethod
    def from_ratio(cls, ratio: float) -> Interval:
        if ratio <= 0:
            raise BadQuantity("A ratio of pitches must be more than 0.", ratio=ratio)
        return cls(cents_of(ratio))


@dataclass(frozen=True, slots=True, order=True)
class Pitch:
    """A pitch a drum head can have.

    Raises
    ------
    BadQuantity
        if `hz` is not a finite number between 20 and 2000 Hz.

    >>> Pitch(110.0).note()
    'A2'
    """

    hz: float

    def __post_init__(self) -> None:
        if not math.isfinite(self.hz) or not LOWEST_HZ <= self.hz <= HIGHEST_HZ:
            raise BadQuantity(
                f"A drum head speaks between {LOWEST_HZ:.0f} and {HIGHEST_HZ:.0f} Hz; {self.hz:g} is outside. Check the decimal point, or tap again.",
                hz=self.hz,
            )

    def above(self, other: Pitch) -> Interval:
        """How far this pitch lies above the other (negative: below)."""
        return Interval.from_ratio(self.hz / other.hz)

    def raised(self, interval: Interval) -> Pitch:
        return Pitch(self.hz * interval.ratio)

    def note_and_cents(self, a4_hz: float = iso16.A4_HZ) -> tuple[str, float]:
        """Nearest equal-tempered note, and how many cents this pitch lies above it."""
        number = iso16.A4_NUMBER + iso16.SEMITONES_PER_OCTAVE * math.log2(self.hz / a4_hz)
        nearest = round(number)
        octave, step = divmod(nearest, iso16.SEMITONES_PER_OCTAVE)
        return f"{iso16.NOTE_NAMES[step]}{octave - 1}", (number - nearest) * 100

    def note(self, a4_hz: float = iso16.A4_HZ) -> str:
        """The note with its cents, such as 'G2 +9'."""
        name, cents = self.note_and_cents(a4_hz)
        rounded = round(cents)
        return name if rounded == 0 else f"{name} {'+' if rounded > 0 else '−'}{abs(rounded)}"


def _note_pitch(match: re.Match[str], a4_hz: float) -> Pitch:
    letter, accidental, octave, sign, cents = match.groups()
    number = _LETTERS[letter.upper()] + _ACCIDENTALS[accidental] + 12 * (int(octave) + 1)
    offset = float((cents or "0").replace(",", ".")) * (-1 if sign in ("-", "−") else 1)
    if abs(offset) > 100:
        raise BadQuantity("Cents beside a note go up to 100; name the nearer note instead.", cents=offset)
    semitones = number - iso16.A4_NUMBER + offset / 100
    return Pitch(a4_hz * 2 ** (semitones / iso16.SEMITONES_PER_OCTAVE))


def parse_pitch(text: str, a4_hz: float = iso16.A4_HZ) -> Pitch:
    """Read a typed pitch: hertz ("174.9", "174,9 Hz") or a note with cents ("A2", "F#3 -12").

    Raises
    ------
    BadQuantity
        if it is neither, or lies outside what a head can have.

    >>> round(parse_pitch("G2").hz, 2)
    98.0
    """
    if hertz := _HERTZ.match(text):
        return Pitch(float(hertz[1].replace(",", ".")))
    if note := _NOTE.match(text):
        return _note_pitch(note, a4_hz)
    raise BadQuantity("Give a pitch in hertz, such as 174.9, or a note with cents, such as F3 +12.", text=text)
