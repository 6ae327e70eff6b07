"""The one way a count changes: by movements, under the lock of the line’s row."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

from django.db import transaction
from django.utils import timezone

from apps.heads.models import Promise, StockItem
from apps.register.models import Drum
from apps.stock.models import Heap, Movement
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.shelf import WAYS, Move, Why, moves

__all__ = ["Act", "apply", "heaps_of", "last_act", "lock", "move", "move_elsewhere"]


@dataclass(frozen=True)
class Act:
    """What a person did. `place` '' is the usual one; asked again with the same `id`, it is done once.

    `explained` says what happened where more leaves than the count says is there.
    """

    id: uuid.UUID
    why: Why
    number: int
    place: str = ""
    batch: str = ""
    words: str = ""
    explained: str = ""
    drum: Drum | None = None
    job: uuid.UUID | None = None


Spot = tuple[str, str]
"""A place and a batch; ('', '') is the usual place."""


_CAN_BE: Final = (Why.BOUGHT, Why.FITTED, Why.WRITTEN_OFF, Why.COUNTED, Why.MOVED_IN, Why.MOVED_OUT)
"""What a job took, what is lent and what goes back is ended where it was begun."""


def last_act(stock_item: int) -> list[Movement]:
    """The movements of what happened last to a line, if somebody may say that it did not happen; else none."""
    last = Movement.objects.filter(stock_item=stock_item).first()
    if last is None or last.job_id is not None or Why(last.why) not in _CAN_BE:
        return []
    return list(Movement.objects.filter(act=last.act, stock_item=stock_item))


def _require_not_promised(item: StockItem, act: Act) -> None:
    """What a hand takes for a drum, or lends, is none of those that wait for another drum’s job. What is broken or counted is so, promised or not."""
    if act.why not in (Why.FITTED, Why.LENT) or act.job is not None or act.explained:
        return
    others = (
        Promise.objects.filter(stock_item=item).exclude(drum=act.drum)
        if act.drum
        else Promise.objects.filter(stock_item=item)
    )
    promised = others.count()
    last = others.select_related("drum").order_by("-at").first()
    if last is not None and item.count and act.number > max(0, item.count - promised):
        said = f"The last {item.named} of that size is promised to {last.drum.name} ({last.drum.tag}). Take another, or drop that job first."
        raise Refused("promised", said, 409)


def lock(stock_item: int) -> StockItem:
    """The line with its row locked to the end of the transaction."""
    return StockItem.objects.select_for_update(of=("self",)).select_related("line", "wires").get(pk=stock_item)


def heaps_of(item: StockItem) -> dict[Spot, int]:
    """How many lie where: in the usual place what no other heap accounts for."""
    found = {(heap.place, heap.batch): heap.count for heap in item.heaps.all()}
    return {("", ""): max(0, item.count - sum(found.values())), **found}


def _spot(item: StockItem, act: Act) -> Spot:
    return ("" if act.place == item.shelf else act.place), act.batch


def _keep(item: StockItem, spot: Spot, count: int) -> None:
    if spot == ("", ""):
        return
    place, batch = spot
    if count:
        Heap.objects.update_or_create(
            workshop_id=item.workshop_id, stock_item=item, place=place, batch=batch, defaults={"count": count}
        )
    else:
        Heap.objects.filter(stock_item=item, place=place, batch=batch).delete()


def _note(item: StockItem, act: Act, made: Move, spot: Spot, member: Membership) -> None:
    item.count += made.delta
    Movement.objects.create(
        workshop_id=item.workshop_id,
        stock_item=item,
        act=act.id,
        why=made.why.value,
        delta=made.delta,
        after=item.count,
        place=spot[0],
        batch=spot[1],
        words=made.words or act.words,
        drum=act.drum,
        job_id=act.job,
        by_name=member.shown_name,
        at=timezone.now(),
    )


def _shares(item: StockItem, act: Act) -> Iterator[tuple[Spot, int]]:
    """From which heaps so many are taken when nobody said from where: the usual place first, then the largest."""
    moves(item.count, act.why, act.number, act.explained)  # asks what happened, where more leave than are there at all
    lacking = max(0, act.number - item.count)
    left = act.number - lacking
    for spot, count in sorted(heaps_of(item).items(), key=lambda each: (each[0] != ("", ""), -each[1])):
        share = min(left, count)
        left -= share
        if spot == ("", ""):
            share += lacking
        if share:
            yield spot, share


def apply(item: StockItem, act: Act, member: Membership, spot: Spot | None = None) -> None:
    """The act at one heap of a locked line; the line itself is the caller's to save."""
    spot = _spot(item, act) if spot is None else spot
    there = heaps_of(item).get(spot, 0)
    for made in moves(there, act.why, act.number, act.explained, act.words):
        _note(item, act, made, spot, member)
        there = made.after
        _keep(item, spot, there)


@transaction.atomic
def move(stock_item: int, act: Act, member: Membership) -> StockItem:
    """Do it, once. What leaves without a place being said is taken where it lies.

    Raises
    ------
    BelowNought
        when more would leave than is there, and the act does not explain it.
    Refused
        where what would leave by hand is promised to a job on another drum.
    """
    item = lock(stock_item)
    if Movement.objects.filter(act=act.id, stock_item=item).exists():
        return item
    _require_not_promised(item, act)
    spot = _spot(item, act)
    if WAYS[act.why].sign < 0 and spot == ("", "") and item.heaps.exists():
        for where, share in _shares(item, act):
            apply(item, replace(act, number=share), member, where)
    else:
        apply(item, act, member, spot)
    item.save(update_fields=["count"])
    return item


@transaction.atomic
def move_elsewhere(stock_item: int, act: Act, place: str, member: Membership) -> StockItem:
    """Put so many of a heap in another place; the count stays."""
    item = lock(stock_item)
    if Movement.objects.filter(act=act.id, stock_item=item).exists():
        return item
    for why, where in ((Why.MOVED_OUT, act.place), (Why.MOVED_IN, place)):
        one = replace(act, why=why, place=where)
        apply(item, one, member)
    item.save(update_fields=["count"])
    return item
