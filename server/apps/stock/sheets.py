"""The whole shelf as a sheet, out and in."""

from __future__ import annotations

import csv
import uuid
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any, BinaryIO, Final

from django.db import transaction

from apps.heads.models import StockItem
from apps.stock.flows import find_line, made_line
from apps.stock.moving import Act, heaps_of, move
from apps.stock.schemas import SheetBad, SheetSeen
from apps.stock.wording import called, order_of, size_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.shelf import COLUMNS, BadRow, SheetRow, Why, harmless, read_sheet

__all__ = ["MOST_ROWS", "take_sheet", "written_rows"]

MOST_ROWS: Final = 50_000
_SHOWN: Final = 40
_TOLD: Final = 500


class _Line:
    """What csv writes into, one line at a time."""

    def write(self, text: str) -> str:
        return text


def _facts(item: StockItem) -> list[object]:
    if item.line:
        line = item.line
        return [
            line.plies,
            f"{line.film_mil:g}",
            line.finish,
            line.damping,
            "yes" if line.vent else "no",
            line.side,
            "",
            "",
            "",
        ]
    if item.wires:
        return ["", "", "", "", "", "", item.wires.strands, item.wires.tie, item.wires.made]
    return [""] * 9


def written_rows(unit: str) -> Iterator[str]:
    """The sheet line by line: one for each heap, none of whose cells a spreadsheet would run."""
    pen = csv.writer(_Line())
    yield "\ufeff" + pen.writerow(COLUMNS)
    items = StockItem.objects.select_related("line", "wires").prefetch_related("heaps")
    for item in sorted(items, key=order_of):
        for (place, batch), count in heaps_of(item).items():
            if not count and item.count:
                continue
            used = "yes" if item.used else "no"
            cells = [
                item.sort, item.named, size_of(item, unit), place or item.shelf, batch, count, item.minimum, used, item.note, *_facts(item)
            ]  # fmt: skip
            yield pen.writerow([harmless(cell) for cell in cells])


@dataclass
class _Tally:
    """What a file came to so far."""

    good: int = 0
    new: int = 0
    changed: int = 0
    bad: int = 0
    problems: list[SheetBad] = field(default_factory=list)
    shown: list[str] = field(default_factory=list)
    seen: dict[tuple[Any, ...], int] = field(default_factory=dict)

    def refuse(self, row: BadRow) -> None:
        self.bad += 1
        if len(self.problems) < _TOLD:
            self.problems.append(SheetBad(line=row.number, because=row.because, shown=row.shown))

    def show(self, words: str) -> None:
        if len(self.shown) < _SHOWN:
            self.shown.append(words)


class _Taking:
    """Rows of one file, taken one after the other."""

    def __init__(self, member: Membership) -> None:
        self.member, self.unit, self.tally = member, member.workshop.length_unit, _Tally()

    def row(self, row: SheetRow) -> None:
        key = (row.sort, row.line.lower(), row.size, row.used, row.place, row.batch)
        if (first := self.tally.seen.setdefault(key, row.number)) != row.number:
            self.tally.refuse(BadRow(row.number, f"The same line, place and batch as row {first}.", row.line))
            return
        try:
            with transaction.atomic():
                self._take(row)
        except Refused as error:
            self.tally.refuse(BadRow(row.number, error.message, row.line))

    def _take(self, row: SheetRow) -> None:
        item = find_line(row.sort, row.line, row.size, row.used)
        begun = item is None
        if item is None:
            facts = dict(row.facts) if row.facts else None
            item = made_line(row.sort, row.line, row.size, row.used, facts, self.member)
            item.shelf = row.place
        if row.minimum is not None:
            item.minimum = row.minimum
        item.note = row.note or item.note
        item.save(update_fields=["minimum", "note", "shelf"])
        place = "" if row.place == item.shelf else row.place
        was = heaps_of(item).get((place, row.batch), 0)
        if begun or was != row.count:
            move(item.pk, Act(uuid.uuid4(), Why.COUNTED, row.count, row.place, row.batch, "from a sheet"), self.member)
        self._tell(row, item, begun, was)

    def _tell(self, row: SheetRow, item: StockItem, begun: bool, was: int) -> None:
        tally, named = self.tally, called(item, self.unit)
        tally.good += 1
        if begun:
            tally.new += 1
            tally.show(f"{named}: a new line, {row.count} there")
        elif was != row.count:
            tally.changed += 1
            tally.show(f"{named}{f', {row.place}' if row.place else ''}: {was} → {row.count}")


class _NotKept(Exception):
    """The file was only looked at."""


def take_sheet(file: BinaryIO, keep: bool, member: Membership) -> SheetSeen:
    """Read a file row by row; good rows are taken if `keep`, else only told what they would do. The same file twice changes nothing.

    Raises
    ------
    BadSheet
        for what is no such sheet.
    Refused
        where it is longer than anybody's shelf; nothing of it is kept then.
    """
    taking = _Taking(member)
    try:
        with transaction.atomic():
            for n, row in enumerate(read_sheet(file, taking.unit)):
                if n >= MOST_ROWS:
                    raise Refused("too_long", f"That file has more than {MOST_ROWS} rows. Split it.", 422)
                taking.tally.refuse(row) if isinstance(row, BadRow) else taking.row(row)
            if not keep:
                raise _NotKept
    except _NotKept:
        pass
    tally = taking.tally
    return SheetSeen(
        good=tally.good,
        new=tally.new,
        changed=tally.changed,
        same=tally.good - tally.new - tally.changed,
        bad=tally.bad,
        problems=tally.problems,
        shown=tally.shown,
        taken=keep,
    )
