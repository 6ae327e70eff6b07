"""One root error; every kind carries the fields a caller needs to restate it."""

from __future__ import annotations

from collections.abc import Mapping

__all__ = [
    "BadEvent",
    "BadFinding",
    "BadLayout",
    "BadPattern",
    "BadQuantity",
    "BadRequest",
    "BadSound",
    "DrumworkError",
    "ReadAgain",
    "TooFewReadings",
    "UnknownWork",
]


class DrumworkError(ValueError):
    """Something the core cannot work with.

    `code` is stable and machine readable, `fields` holds the offending values by name (SI units),
    and the message says what to do about it.
    """

    code = "drumwork"

    def __init__(self, message: str, **fields: object) -> None:
        super().__init__(message)
        self.message = message
        self.fields: Mapping[str, object] = fields


class BadQuantity(DrumworkError):
    """A number, unit or note that cannot be read, or lies outside what a drum can be."""

    code = "bad_quantity"


class BadLayout(DrumworkError):
    """A rod count, rod number or set of lost rods that does not fit together."""

    code = "bad_layout"


class BadPattern(DrumworkError):
    """A tightening order that does not exist or does not suit this head."""

    code = "bad_pattern"


class TooFewReadings(DrumworkError):
    """Not enough readings to decide anything."""

    code = "too_few_readings"


class ReadAgain(DrumworkError):
    """Readings that cannot be: they are asked about, and nothing is turned by them."""

    code = "read_again"


class BadEvent(DrumworkError):
    """A bench event that does not fit the job it was sent to."""

    code = "bad_event"


class BadRequest(DrumworkError):
    """A request that is no JSON, or lacks or misspells a field."""

    code = "bad_request"


class BadSound(DrumworkError):
    """Sound that cannot be read, or lies outside what is taken."""

    code = "bad_sound"


class BadFinding(DrumworkError):
    """Something said to be found that this drum cannot have, or not there."""

    code = "bad_finding"


class UnknownWork(DrumworkError):
    """Work that is not in the catalogue, or does not suit this drum."""

    code = "unknown_work"
