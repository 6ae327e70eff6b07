"""What planned work takes of what is free, which jobs can start, and what is to be bought with the reason for each piece."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from enum import StrEnum

__all__ = ["Allotted", "Buy", "Kept", "Need", "Readiness", "allot"]


class Readiness(StrEnum):
    """Whether what a job needs is there."""

    PROMISED = "promised"
    FREE = "free"
    SHORT = "short"


@dataclass(frozen=True, slots=True)
class Kept:
    """A line on the shelf: what it is, how many are free (there and not promised), how many are to be kept at least."""

    line: str
    what: str
    free: int
    minimum: int = 0


@dataclass(frozen=True, slots=True)
class Need:
    """One piece a job needs: of which line ('' where the shelf has no such line), for whom, by when."""

    key: str
    line: str
    what: str
    drum: str
    name: str
    due: date
    promised: bool = False


@dataclass(frozen=True, slots=True)
class Buy:
    """So many of one thing to buy, and why: drums they are for, the earliest day, how many only to keep the minimum."""

    line: str
    what: str
    count: int
    drums: tuple[str, ...] = ()
    due: date | None = None
    kept: int = 0
    reasons: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Allotted:
    """How each need stands, by its key, and what to buy, the soonest wanted first."""

    stands: Mapping[str, Readiness]
    buy: tuple[Buy, ...] = field(default=())


def _day(due: date, today: date) -> str:
    days = (due - today).days
    if days < 0:
        return "overdue"
    return {0: "today", 1: "tomorrow"}.get(days) or (f"{due:%A}" if days < 7 else f"{due.day} {due:%B}")


def _many(count: int) -> str:
    return "one" if count == 1 else str(count)


def _bought(line: str, what: str, short: Sequence[Need], left: int, minimum: int, today: date) -> Buy | None:
    lacking = max(0, minimum - left)
    if not short and not lacking:
        return None
    reasons = [f"for {need.name}, {_day(need.due, today)}" for need in short]
    if lacking:
        reasons.append(f"{_many(lacking)} to keep {minimum} there")
    due = min((need.due for need in short), default=None)
    return Buy(line, what, len(short) + lacking, tuple(need.drum for need in short), due, lacking, tuple(reasons))


def allot(kept: Iterable[Kept], needs: Iterable[Need], today: date) -> Allotted:
    """Give what is free to the needs of its line, the soonest due first; what is left over or lacking says what to buy.

    A promised piece is its job's already and takes nothing of what is free. Needs without a line are bought by what they are called.
    """
    lines = {each.line: each for each in kept}
    free = {line: each.free for line, each in lines.items()}
    stands: dict[str, Readiness] = {}
    short: dict[tuple[str, str], list[Need]] = defaultdict(list)
    for need in sorted(needs, key=lambda each: (each.due, each.drum, each.key)):
        line = lines.get(need.line)
        if need.promised:
            stands[need.key] = Readiness.PROMISED
        elif line is not None and free[line.line] > 0:
            free[line.line] -= 1
            stands[need.key] = Readiness.FREE
        else:
            stands[need.key] = Readiness.SHORT
            short[line.line if line else "", line.what if line else need.what].append(need)
    found = [
        _bought(line, each.what, short.pop((line, each.what), []), free[line], each.minimum, today)
        for line, each in lines.items()
    ]
    found += [_bought("", what, lacking, 0, 0, today) for (_, what), lacking in short.items()]
    buy = [replace(each, reasons=_together(each.reasons)) for each in found if each]
    return Allotted(stands, tuple(sorted(buy, key=lambda each: (each.due or date.max, each.what))))


def _together(reasons: Sequence[str]) -> tuple[str, ...]:
    """Reasons said once each."""
    return tuple(dict.fromkeys(reasons))
