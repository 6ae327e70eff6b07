"""Lengths in a plan's sentences, as this workshop writes them."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from drumwork.sources.international_inch import METRES_PER_INCH

__all__ = ["LengthUnit", "Lengths"]


class LengthUnit(StrEnum):
    MM = "mm"
    INCH = "in"


@dataclass(frozen=True, slots=True)
class Lengths:
    """Fills `{mm:25}` and `{mm:25-50}` in a sentence.

    >>> "Tap {mm:25-50} in from the hoop".format(mm=Lengths(LengthUnit.INCH))
    'Tap 1 to 2 inches in from the hoop'
    """

    unit: LengthUnit

    def __format__(self, millimetres: str) -> str:
        said = [self._one(float(each)) for each in millimetres.split("-")]
        word = {LengthUnit.MM: "mm", LengthUnit.INCH: "inch" if said[-1] == "1" else "inches"}[self.unit]
        return f"{' to '.join(said)} {word}"

    def _one(self, millimetres: float) -> str:
        """Whole inches as the trade says them: 25 mm is 1 inch, 150 mm are 6."""
        inches = round(2 * millimetres / 1000 / METRES_PER_INCH) / 2
        return f"{millimetres if self.unit is LengthUnit.MM else inches:g}"
