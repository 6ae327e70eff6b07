"""Turns of a tension rod, exact. The finest step anyone works in is a thirty-second."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from drumwork.errors import BadQuantity

__all__ = ["Turns", "parse_turns"]

PER_TURN: Final = 32
_TYPED: Final = re.compile(r"^\s*([+\-−]?)\s*(?:(\d+)(?:\s+|$))?(?:(\d+)\s*/\s*(\d+))?\s*$")

_DEGREES: Final = re.compile(r"^\s*([+\-−]?\d+(?:[.,]\d+)?)\s*(?:°|deg(?:rees?)?)\s*$")


@dataclass(frozen=True, slots=True, order=True)
class Turns:
    """Turns of one rod in thirty-seconds; positive tightens, negative slackens.

    >>> Turns.of(3, 8).words()
    'up 3/8'
    """

    thirtyseconds: int

    @classmethod
    def of(cls, numerator: int, denominator: int = 1) -> Turns:
        return cls.from_fraction(Fraction(numerator, denominator))

    @classmethod
    def from_fraction(cls, turns: Fraction) -> Turns:
        """Exact, or BadQuantity where thirty-seconds cannot hold it."""
        counted = turns * PER_TURN
        if counted.denominator != 1:
            raise BadQuantity("Turns are counted in thirty-seconds at the finest.", turns=str(turns))
        return cls(int(counted))

    @property
    def fraction(self) -> Fraction:
        return Fraction(self.thirtyseconds, PER_TURN)

    @property
    def degrees(self) -> float:
        """The same as an angle, 360 a turn; exact, since a thirty-second is 11.25 degrees.

        >>> Turns.of(1, 4).degrees
        90.0
        """
        return self.thirtyseconds * 11.25

    def __add__(self, other: Turns) -> Turns:
        return Turns(self.thirtyseconds + other.thirtyseconds)

    def __bool__(self) -> bool:
        return self.thirtyseconds != 0

    def __neg__(self) -> Turns:
        return Turns(-self.thirtyseconds)

    def amount(self) -> str:
        """The size alone: '1 1/2', '3/8'."""
        whole, rest = divmod(abs(self.fraction), 1)
        parts = ([str(whole)] if whole else []) + ([str(rest)] if rest else [])
        return " ".join(parts) or "0"

    def words(self) -> str:
        """As it is said at the bench: 'up 3/8', 'down 1/16', 'level'."""
        if not self.thirtyseconds:
            return "level"
        return f"{'up' if self.thirtyseconds > 0 else 'down'} {self.amount()}"


def parse_turns(text: str) -> Turns:
    """Read typed turns such as '3/8', '1 1/2', '-1/4', or degrees such as '90°'.

    Raises
    ------
    BadQuantity
        if it is not a number of thirty-seconds.
    """
    if degrees := _DEGREES.match(text):
        return Turns.from_fraction(Fraction(degrees[1].replace("−", "-").replace(",", ".")) / 360)
    match = _TYPED.match(text)
    if match is None or not (match[2] or match[3]) or match[4] == "0":
        raise BadQuantity("Give turns such as 3/8, 1 1/2 or -1/4.", text=text)
    size = Fraction(int(match[2] or 0)) + (Fraction(int(match[3]), int(match[4])) if match[3] else 0)
    return Turns.from_fraction(-size if match[1] in ("-", "−") else size)
