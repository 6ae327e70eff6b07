"""Lengths of drums, in metres inside, typed in inches or millimetres."""

from __future__ import annotations

import re
from dataclasses import dataclass

from drumwork.errors import BadQuantity
from drumwork.sources.international_inch import METRES_PER_INCH

__all__ = ["Length", "parse_length"]

_TYPED = re.compile(r"^\s*(\d+(?:[.,]\d+)?(?!\d*/))?\s*(?:(\d+)/(\d+))?\s*(in|inch|inches|\"|″|mm|cm)?\s*$", re.I)


@dataclass(frozen=True, slots=True, order=True)
class Length:
    """A length of a drum or its parts.

    >>> Length.from_inches(14).mm
    355.6
    """

    metres: float

    def __post_init__(self) -> None:
        if not 0 < self.metres < 5:
            raise BadQuantity("A length must be more than 0 and less than 5 m.", metres=self.metres)

    @classmethod
    def from_inches(cls, inches: float) -> Length:
        return cls(inches * METRES_PER_INCH)

    @classmethod
    def from_mm(cls, mm: float) -> Length:
        return cls(mm / 1000)

    @property
    def inches(self) -> float:
        return round(self.metres / METRES_PER_INCH, 4)

    @property
    def mm(self) -> float:
        return round(self.metres * 1000, 3)


def parse_length(text: str, unit: str = "in") -> Length:
    """Read a typed length; a bare number is in `unit` ("in" or "mm").

    Raises
    ------
    BadQuantity
        if it is not a positive number, or the unit is unknown.

    >>> parse_length("5 1/2 in").mm
    139.7
    >>> parse_length("1/2 in").mm
    12.7
    """
    match = _TYPED.match(text)
    if match is None or match[3] == "0" or not (match[1] or match[2]):
        raise BadQuantity("Give a length such as 14, 5 1/2 in or 356 mm.", text=text)
    number = float((match[1] or "0").replace(",", "."))
    if match[2]:
        number += int(match[2]) / int(match[3])
    named = (match[4] or unit).lower()
    if named == "mm":
        return Length.from_mm(number)
    return Length.from_mm(number * 10) if named == "cm" else Length.from_inches(number)
