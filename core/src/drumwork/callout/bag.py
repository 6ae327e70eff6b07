"""What to bring: from what stands on the kit's record, and from what was wanted and used on this workshop's call-outs before. Counts, not guesses."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.callout.steps import OWN_SNARE, Book

__all__ = ["ALWAYS", "BagLine", "PastCallout", "bag_for", "parts_of"]

ALWAYS: Final = (OWN_SNARE, "own pedal")
"""The two things likeliest to be beyond quick repair (trade §13, common practice)."""


@dataclass(frozen=True, slots=True)
class PastCallout:
    """One call-out before: the parts its ticks asked for, and those it used."""

    wanted: frozenset[str]
    used: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class BagLine:
    """A part, how many to bring, and what says so."""

    part: str
    number: int
    why: str


def _own(part: str) -> bool:
    return not part.startswith(("one:", "giver:"))


def parts_of(book: Book, keys: Iterable[str]) -> list[tuple[str, str]]:
    """Parts that would answer these ticks, each with its tick."""
    so = set(keys)
    found = dict.fromkeys(
        (part, key) for step in book.steps for key in step.when if key in so for part in step.uses if _own(part)
    )
    return list(found)


def bag_for(book: Book, past: Sequence[PastCallout]) -> list[BagLine]:
    """What to bring, what is asked for by the record first, then what past call-outs wanted most often.

    A part is brought so often as the record asks for it, or as the most used on any call-out before, whichever is more.
    """
    names = {drum.tag: drum.name for drum in book.drums}
    asked = defaultdict[str, list[str]](list)
    for part, key in parts_of(book, book.known):
        asked[part].append(names.get(key.split("|")[0], ""))
    wanted = Counter(part for each in past for part in each.wanted | set(each.used))
    most = {part: max(Counter(each.used)[part] for each in past) for part in wanted}
    lines = [
        BagLine(part, max(len(drums), most.get(part, 0)), f"on record: {', '.join(dict.fromkeys(drums))}")
        for part, drums in asked.items()
    ]
    for part, count in sorted(wanted.items(), key=lambda each: (-each[1], each[0])):
        if part not in asked and part not in ALWAYS:
            lines.append(BagLine(part, max(1, most[part]), f"wanted on {count} of the last {len(past)} call-outs"))
    return [*lines, *(BagLine(part, 1, "beyond quick repair where it fails") for part in ALWAYS)]
