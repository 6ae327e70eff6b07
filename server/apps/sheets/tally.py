"""What the rows of a list came to so far."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Final, TypeVar

from ninja import Schema

from apps.workshops.errors import Refused
from drumwork.sheets import BadRow

__all__ = ["MOST_ROWS", "ListSeen", "RowBad", "Tally", "within_reason"]

MOST_ROWS: Final = 50_000
_TOLD: Final = 500
_SHOWN: Final = 40


class RowBad(Schema):
    """A row that cannot be taken: its line in the file, why, and what it says."""

    line: int
    because: str
    shown: str


class ListSeen(Schema):
    """What a list would change, or has changed: `good` rows, of which `new` begin a record, `changed` alter one and `same` say what is there;
    every bad one with its reason, up to 500. `shown` are the first that do something, in words."""

    good: int
    new: int
    changed: int
    same: int
    bad: int
    problems: list[RowBad]
    shown: list[str]
    taken: bool


_Row = TypeVar("_Row")


def within_reason(rows: Iterable[_Row]) -> Iterator[_Row]:
    """The rows, as long as there are no more of them than anybody's list has.

    Raises
    ------
    Refused
        at the first one too many.
    """
    for n, row in enumerate(rows):
        if n >= MOST_ROWS:
            raise Refused("too_long", f"That file has more than {MOST_ROWS} rows. Split it.", 422)
        yield row


@dataclass
class Tally:
    """Counts of a list's rows, and the first of what is to be told of them."""

    good: int = 0
    new: int = 0
    changed: int = 0
    bad: int = 0
    problems: list[RowBad] = field(default_factory=list)
    shown: list[str] = field(default_factory=list)

    @property
    def read(self) -> int:
        return self.good + self.bad

    def refuse(self, row: BadRow) -> None:
        self.bad += 1
        if len(self.problems) < _TOLD:
            self.problems.append(RowBad(line=row.number, because=row.because, shown=row.shown))

    def show(self, words: str) -> None:
        if len(self.shown) < _SHOWN:
            self.shown.append(words)

    def seen(self, taken: bool) -> ListSeen:
        return ListSeen(
            good=self.good,
            new=self.new,
            changed=self.changed,
            same=self.good - self.new - self.changed,
            bad=self.bad,
            problems=self.problems,
            shown=self.shown,
            taken=taken,
        )
