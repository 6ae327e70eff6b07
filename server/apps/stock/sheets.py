"""The whole shelf as a sheet, out and in."""

from __future__ import annotations

import uuid
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any, BinaryIO, Final

from django.db import transaction
from django.utils import timezone

from apps.heads.models import StockItem
from apps.sheets.steps import Steps
from apps.sheets.tally import ListSeen, Tally, within_reason
from apps.stock.flows import new_line, same_size
from apps.stock.models import Heap, Movement
from apps.stock.moving import Act, heaps_of, move
from apps.stock.wording import called, order_of, size_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.sheets import line_of
from drumwork.shelf import COLUMNS, BadRow, SheetRow, Sort, Why, read_sheet

__all__ = ["reading_sheet", "written_rows"]

FROM: Final = "from a sheet"
_STEP: Final = 500


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
    yield line_of(COLUMNS)
    items = StockItem.objects.select_related("line", "wires").prefetch_related("heaps")
    for item in sorted(items, key=order_of):
        for (place, batch), count in heaps_of(item).items():
            if not count and item.count:
                continue
            used = "yes" if item.used else "no"
            cells = [
                item.sort, item.named, size_of(item, unit), place or item.shelf, batch, count, item.minimum, used, item.note, *_facts(item)
            ]  # fmt: skip
            yield line_of(cells)


Key = tuple[Sort, str, bool]
"""What lines are looked up by: sort, name in small letters, used or not; then by size."""


@dataclass
class _Fresh:
    """A line the file begins, and what the file says lies of it; stored with all others at the end."""

    item: StockItem
    heaps: list[tuple[str, str, int]] = field(default_factory=list)


class _Taking:
    """Rows of one file, taken one after the other. The whole shelf is read once; lines the file begins are written together."""

    def __init__(self, member: Membership) -> None:
        self.member, self.unit, self.tally = member, member.workshop.length_unit, Tally()
        self.known: dict[Key, list[StockItem]] = defaultdict(list)
        self.rows: dict[tuple[Any, ...], int] = {}
        self.fresh: dict[int, _Fresh] = {}
        for item in StockItem.objects.select_related("line", "wires").prefetch_related("heaps"):
            self.known[Sort(item.sort), item.named.lower(), item.used].append(item)

    def row(self, row: SheetRow) -> None:
        key = (row.sort, row.line.lower(), row.size, row.used, row.place, row.batch)
        if (first := self.rows.setdefault(key, row.number)) != row.number:
            self.tally.refuse(BadRow(row.number, f"The same line, place and batch as row {first}.", row.line))
            return
        try:
            self._take(row)
        except Refused as error:
            self.tally.refuse(BadRow(row.number, error.message, row.line))

    def _find(self, row: SheetRow) -> StockItem | None:
        return next(
            (each for each in self.known[row.sort, row.line.lower(), row.used] if same_size(each, row.size)), None
        )

    def _take(self, row: SheetRow) -> None:
        item = self._find(row)
        if item is None:
            item = self._begin(row)
            self._tell_new(item, row)
        elif id(item) in self.fresh:
            self._more(item, row)
            self._tell_new(item, row)
        else:
            self._change(item, row)

    def _tell_new(self, item: StockItem, row: SheetRow) -> None:
        self.tally.good += 1
        self.tally.new += 1
        self.tally.show(f"{called(item, self.unit)}: a new line, {row.count} there")

    def _begin(self, row: SheetRow) -> StockItem:
        facts = dict(row.facts) if row.facts else None
        item = new_line(row.sort, row.line, row.size, row.used, facts, self.member)
        item.shelf, item.minimum, item.note = row.place, row.minimum or 0, row.note
        self.known[row.sort, row.line.lower(), row.used].append(item)
        self.fresh[id(item)] = _Fresh(item)
        self._more(item, row)
        return item

    def _more(self, item: StockItem, row: SheetRow) -> None:
        """One more heap of a line this file begins."""
        place = "" if row.place == item.shelf else row.place
        item.count += row.count
        self.fresh[id(item)].heaps.append((place, row.batch, row.count))

    def _change(self, item: StockItem, row: SheetRow) -> None:
        """What the row says of a line that was there."""
        minimum = item.minimum if row.minimum is None else row.minimum
        if (minimum, row.note or item.note) != (item.minimum, item.note):
            item.minimum, item.note = minimum, row.note or item.note
            item.save(update_fields=["minimum", "note"])
        place = "" if row.place == item.shelf else row.place
        was = heaps_of(item).get((place, row.batch), 0)
        self.tally.good += 1
        if was == row.count:
            return
        act = Act(uuid.uuid4(), Why.COUNTED, row.count, row.place, row.batch, FROM)
        moved = move(item.pk, act, self.member)
        item.count = moved.count
        item._prefetched_objects_cache = {"heaps": list(Heap.objects.filter(stock_item=item))}  # type: ignore[attr-defined]
        self.tally.changed += 1
        self.tally.show(f"{called(item, self.unit)}{f', {row.place}' if row.place else ''}: {was} → {row.count}")

    def finish(self) -> None:
        """Write the lines the file begins, with what came of each."""
        fresh, now = list(self.fresh.values()), timezone.now()
        StockItem.objects.bulk_create([each.item for each in fresh], batch_size=1000)
        moves, heaps = list[Movement](), list[Heap]()
        for each in fresh:
            after = 0
            for place, batch, count in each.heaps:
                after += count
                where = {"workshop": self.member.workshop, "stock_item": each.item, "place": place, "batch": batch}
                moves.append(
                    Movement(**where, act=uuid.uuid4(), why=Why.COUNTED.value, delta=count, after=after, words=FROM, by_name=self.member.shown_name, at=now)
                )  # fmt: skip
                if (place, batch) != ("", "") and count:
                    heaps.append(Heap(**where, count=count))
        Movement.objects.bulk_create(moves, batch_size=1000)
        Heap.objects.bulk_create(heaps, batch_size=1000)


class _NotKept(Exception):
    """The file was only looked at."""


def reading_sheet(file: BinaryIO, keep: bool, member: Membership) -> Steps[ListSeen]:
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
            for n, row in enumerate(within_reason(read_sheet(file, taking.unit))):
                if n and n % _STEP == 0:
                    yield n
                taking.tally.refuse(row) if isinstance(row, BadRow) else taking.row(row)
            if not keep:
                raise _NotKept
            taking.finish()
    except _NotKept:
        pass
    return taking.tally.seen(taken=keep)
