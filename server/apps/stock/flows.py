"""Use cases of the shelf: lines begun and kept, what happens to them, a place counted, what goes back, promises for planned work."""

from __future__ import annotations

import uuid
from typing import Any, Final

from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from apps.heads.models import HeadLine, StockItem, WireLine
from apps.heads.promises import promise
from apps.planned.flows import lacking
from apps.planned.models import PlannedJob
from apps.register.lookup import drum_by_tag
from apps.register.schemas import SAME_SIZE_M
from apps.stock.models import GoesBack, Movement, ShelfCode
from apps.stock.moving import Act, apply, heaps_of, last_act, lock, move, move_elsewhere
from apps.stock.needs import standing_of
from apps.stock.schemas import CountDiff, CountIn, CountOut, GoesBackIn, LineEdit, LineIn, StockMoveIn
from apps.stock.wording import called
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.errors import DrumworkError
from drumwork.quantities import Length, parse_length
from drumwork.shelf import LENGTHS, WAYS, Sort, Why, arrivals_for

__all__ = ["begin_line", "change_line", "count_place", "end_going_back", "find_line", "know_code", "made_line", "new_line", "put_apart", "same_size", "take_back", "take_promises", "take_up"]  # fmt: skip

SAME_LENGTH_M: Final = 0.0004
"""Rods are told apart by the millimetre."""


def _size(asked: LineIn, unit: str) -> Length | None:
    sort = Sort(asked.sort)
    if not asked.size:
        if sort.fits_a_diameter:
            raise Refused(
                "bad_size", "Say the size; without it nobody can tell what it fits.", 422, size="Say the size."
            )
        return None
    try:
        size = parse_length(asked.size, unit if sort.fits_a_diameter else "mm")
    except DrumworkError as error:
        raise Refused("bad_size", error.message, 422, size=error.message) from error
    low, high = LENGTHS[sort]
    if not low <= size.metres <= high:
        said = f"That is no size of a {sort.words}."
        raise Refused("bad_size", said, 422, size=said)
    return size


def find_line(sort: Sort, name: str, size: Length | None, used: bool) -> StockItem | None:
    """The line of this sort, name and size (nominal sizes are the same within three millimetres)."""
    rows = StockItem.objects.filter(sort=sort.value, used=used).select_related("line", "wires")
    if sort.fits_a_diameter:
        assert size is not None
        named = Q(line__name__iexact=name) if sort is Sort.HEAD else Q(wires__name__iexact=name)
        near = (size.metres - SAME_SIZE_M, size.metres + SAME_SIZE_M)
        return rows.filter(named, diameter_m__range=near).first()
    rows = rows.filter(name__iexact=name)
    if size is None:
        return rows.filter(length_m__isnull=True).first()
    return rows.filter(length_m__range=(size.metres - SAME_LENGTH_M, size.metres + SAME_LENGTH_M)).first()


def same_size(item: StockItem, size: Length | None) -> bool:
    """Whether a line is of this size; nominal diameters are the same within three millimetres, rods are told apart by the millimetre."""
    there = item.diameter_m if Sort(item.sort).fits_a_diameter else item.length_m
    if there is None or size is None:
        return there is None and size is None
    within = SAME_SIZE_M if Sort(item.sort).fits_a_diameter else SAME_LENGTH_M
    return abs(there - size.metres) <= within


def _head_line(name: str, facts: dict[str, Any] | None, member: Membership) -> HeadLine:
    if found := HeadLine.objects.filter(name__iexact=name).first():
        return found
    if facts is None:
        said = f"“{name}” is a line of heads nobody entered yet. Say what it is made of: plies, film and finish."
        raise Refused("unknown_line", said, 422, name="Not a line of this workshop yet.")
    return HeadLine.objects.create(workshop=member.workshop, name=name, **facts)


def _wire_line(name: str, facts: dict[str, Any] | None, member: Membership) -> WireLine:
    if found := WireLine.objects.filter(name__iexact=name).first():
        return found
    if facts is None:
        said = f"“{name}” is a line of wires nobody entered yet. Say how many strands, and cord or strap."
        raise Refused("unknown_line", said, 422, name="Not a line of this workshop yet.")
    return WireLine.objects.create(workshop=member.workshop, name=name, **facts)


def made_line(
    sort: Sort, name: str, size: Length | None, used: bool, facts: dict[str, Any] | None, member: Membership
) -> StockItem:
    """A new line with nothing there yet."""
    item = new_line(sort, name, size, used, facts, member)
    item.save()
    return item


def new_line(
    sort: Sort, name: str, size: Length | None, used: bool, facts: dict[str, Any] | None, member: Membership
) -> StockItem:
    """A new line, not stored yet; what its heads or wires are made of is.

    Raises
    ------
    Refused
        for a head or set of wires nobody described yet.
    """
    item = StockItem(workshop=member.workshop, sort=sort.value, used=used)
    if sort is Sort.HEAD:
        item.line = _head_line(name, facts, member)
    elif sort is Sort.WIRES:
        item.wires = _wire_line(name, facts, member)
    else:
        item.name = name
    if size is not None:
        setattr(item, "diameter_m" if sort.fits_a_diameter else "length_m", size.metres)
    return item


@transaction.atomic
def begin_line(asked: LineIn, member: Membership) -> StockItem:
    """A new line of the shelf with what lies there now.

    Raises
    ------
    Refused
        where there is such a line already, or a head or set of wires nobody described yet.
    """
    if known := Movement.objects.filter(act=asked.id).select_related("stock_item").first():
        return known.stock_item
    sort, size = Sort(asked.sort), _size(asked, member.workshop.length_unit)
    if found := find_line(sort, asked.name, size, asked.used):
        said = f"There is a line {called(found, member.workshop.length_unit)} already. Count it, or enter what was bought, there."
        raise Refused("line_exists", said, 409, line=found.pk)
    facts = asked.head if sort is Sort.HEAD else asked.wires if sort is Sort.WIRES else None
    item = made_line(sort, asked.name, size, asked.used, facts.model_dump() if facts else None, member)
    item.minimum, item.shelf, item.note = asked.minimum, asked.place, asked.note
    item.save()
    return move(item.pk, Act(asked.id, Why.COUNTED, asked.count, words="begun"), member)


@transaction.atomic
def change_line(stock_item: int, asked: LineEdit) -> StockItem:
    """Its minimum, usual place and note. What lies in the usual place goes with it."""
    item = lock(stock_item)
    if asked.place != item.shelf:
        # A heap that lay apart in the place that is usual now is told apart by its batch only.
        for heap in item.heaps.filter(place=asked.place):
            heap.place = ""
            heap.delete() if not heap.batch else heap.save(update_fields=["place"])
    item.minimum, item.shelf, item.note = asked.minimum, asked.place, asked.note
    item.save(update_fields=["minimum", "shelf", "note"])
    return item


def take_up(stock_item: int, asked: StockMoveIn, member: Membership) -> StockItem:
    """What a person says happened to a line."""
    drum = drum_by_tag(asked.drum) if asked.drum else None
    if asked.why == "moved":
        act = Act(asked.id, Why.MOVED_OUT, asked.number, asked.place, asked.batch, asked.words)
        return move_elsewhere(stock_item, act, asked.to, member)
    act = Act(asked.id, Why(asked.why), asked.number, asked.place, asked.batch, asked.words, asked.explained, drum)
    return move(stock_item, act, member)


@transaction.atomic
def take_back(stock_item: int, act: uuid.UUID, member: Membership) -> StockItem:
    """What happened last to a line did not: its count goes back by as much, as a movement of its own. Asked twice, taken back once.

    Raises
    ------
    Refused
        where something else has happened to the line since, or it is ended elsewhere.
    """
    item, back = lock(stock_item), uuid.uuid5(act, "taken back")
    if Movement.objects.filter(act=back, stock_item=item).exists():
        return item
    rows = last_act(item.pk)
    if not rows or rows[0].act != act:
        said = "Something else has happened to this line since. Count it instead."
        raise Refused("since_then", said, 409)
    for row in rows:
        there = heaps_of(item).get((row.place, row.batch), 0) - row.delta
        why = f"{WAYS[Why(row.why)].words}: taken back"
        apply(item, Act(back, Why.COUNTED, there, row.place, row.batch, why), member)
    item.save(update_fields=["count"])
    return item


@transaction.atomic
def count_place(asked: CountIn, member: Membership) -> CountOut:
    """A place as it was counted. Lines nobody looked at stay as they are; sent twice, it counts once."""
    unit, differ = member.workshop.length_unit, []
    for said in sorted(asked.said, key=lambda each: (each.line, each.batch)):
        item = lock(said.line)
        place = "" if asked.place == item.shelf else asked.place
        was = heaps_of(item).get((place, said.batch), 0)
        act = Act(uuid.uuid5(asked.id, f"{said.line} {said.batch}"), Why.COUNTED, said.count, asked.place, said.batch)
        move(said.line, act, member)
        if was != said.count:
            differ.append(CountDiff(line=said.line, called=called(item, unit), was=was, now=said.count))
    return CountOut(place=asked.place, looked_at=len(asked.said), differ=differ)


@transaction.atomic
def put_apart(stock_item: int, asked: GoesBackIn, member: Membership) -> None:
    """Pieces found wanting on arrival leave the count and wait to be sent back."""
    item = lock(stock_item)
    if GoesBack.objects.filter(pk=asked.id).exists():
        return
    known = {each.id: each.words for each in arrivals_for(Sort(item.sort))}
    if asked.what not in known:
        raise Refused("unknown_fault", f"Say what is wrong: {', '.join(known.values())}.", 422, what="Choose one.")
    act = Act(asked.id, Why.SENT_BACK, asked.number, asked.place, asked.batch, known[asked.what])
    move(stock_item, act, member)
    GoesBack.objects.create(
        id=asked.id,
        workshop=member.workshop,
        stock_item=item,
        count=asked.number,
        what=asked.what,
        batch=asked.batch,
        words=asked.words,
        by_name=member.shown_name,
        at=timezone.now(),
    )


@transaction.atomic
def end_going_back(key: uuid.UUID, ended: str, member: Membership) -> None:
    """Sent, thrown away, or kept after all and then on the count again. Said twice, it holds once."""
    row = GoesBack.objects.select_for_update().get(pk=key)
    if row.ended:
        return
    row.ended, row.ended_at = ended, timezone.now()
    row.save(update_fields=["ended", "ended_at"])
    if ended == GoesBack.Ended.KEPT:
        act = Act(uuid.uuid5(key, "kept"), Why.BROUGHT_BACK, row.count, batch=row.batch, words="kept after all")
        move(row.stock_item_id, act, member)


@transaction.atomic
def take_promises(planned: uuid.UUID, member: Membership) -> int:
    """Promise a planned job everything it needs that is free; how many pieces that was.

    Raises
    ------
    Refused
        where somebody else was promised the last one meanwhile.
    """
    row = PlannedJob.objects.select_for_update(of=("self",)).select_related("drum").get(pk=planned)
    if row.state != PlannedJob.State.OPEN:
        raise Refused("begun", "This job was begun or dropped meanwhile.", 409)
    standing = standing_of(member.workshop.length_unit, timezone.localdate())
    made = 0
    for wish in standing.wishes.get(row, ()):
        if wish.promised or wish.item is None:
            continue
        item = promise(wish.item.pk, row.drum, row.pk, wish.place, member)
        row.heads[wish.place] = {"stock_item": item.pk, "head": item.named}
        made += 1
    row.lacks = lacking(row)
    row.save(update_fields=["heads", "lacks"])
    return made


@transaction.atomic
def know_code(stock_item: int, code: str, member: Membership) -> None:
    """A label is of this line from now on."""
    item = StockItem.objects.get(pk=stock_item)
    ShelfCode.objects.update_or_create(workshop=member.workshop, code=code, defaults={"stock_item": item})
