"""Heads: from the shelf onto the drum, and the old one retired."""

from __future__ import annotations

import uuid

from apps.bench.effects.closing import Closing
from apps.bench.models import DrumFinding
from apps.heads.models import Fitting, Promise, StockItem
from apps.heads.promises import let_go
from apps.heads.wires import WIRES, fitting_wires
from apps.stock.moving import Act, move
from apps.workshops.errors import Refused
from drumwork.findings import FINDINGS, Where
from drumwork.shelf import BelowNought, Why
from drumwork.work.effects import ChangeHead, ChangeWires, TakeFromShelf

__all__ = ["change_head", "take_from_shelf"]


def change_wires(closing: Closing, effect: ChangeWires) -> None:
    """The wires on record go, new ones are fitted: those that were chosen. A set the shelf has of them leaves it."""
    chosen = closing.state.answers.get(WIRES)
    wires = " ".join(chosen.value.values)[:60] if chosen and chosen.value.values else "new wires"
    _went_with(closing, Where.WIRES, "")
    _fit(closing, WIRES, wires, "replaced")
    if (item := _set_taken(closing, wires)) and item.count:
        _take(closing, item.pk)
    let_go(closing.job.pk, WIRES)


def _set_taken(closing: Closing, wires: str) -> StockItem | None:
    """The set of this line that was promised, else one of this line that goes under this drum."""
    mine = Promise.objects.filter(for_what=closing.job.pk, side=WIRES, stock_item__wires__name=wires).first()
    if mine:
        return mine.stock_item
    return next((item for item, _ in fitting_wires(closing.job.drum, wires) if item.named == wires), None)


def _take(closing: Closing, item: int) -> None:
    job = closing.job
    act = Act(uuid.uuid4(), Why.FITTED, 1, drum=job.drum, job=job.pk)
    move(item, act, closing.member)


def _fit(closing: Closing, side: str, head: str, reason: str) -> None:
    job = closing.job
    Fitting.objects.filter(drum=job.drum, side=side, retired_at__isnull=True).update(
        retired_at=closing.now, retired_because=reason
    )
    Fitting.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        side=side,
        head=head,
        fitted_at=closing.now,
        fitted_by=closing.member.user,
        fitted_by_name=closing.member.shown_name,
        job_id=job.id,
    )


def take_from_shelf(closing: Closing, effect: TakeFromShelf) -> None:
    head = closing.heads[effect.side]
    if head.stock_item_id is None:
        return
    try:
        _take(closing, head.stock_item_id)
    except BelowNought as error:
        said = "The shelf’s count for this head is at nought. Say on the Shelf what happened to it, then close again."
        raise Refused("none_left", said, 409, line=head.stock_item_id) from error
    let_go(closing.job.pk, effect.side.value)


def _went_with(closing: Closing, where: Where, side: str) -> None:
    """What had been found on the head or wires that came off is put right: it went with them."""
    gone = [row.id for row in FINDINGS.values() if row.where is where]
    DrumFinding.objects.filter(drum=closing.job.drum, side=side, finding__in=gone, put_right_at__isnull=True).update(
        put_right_at=closing.now
    )


def change_head(closing: Closing, effect: ChangeHead) -> None:
    head = closing.heads[effect.side]
    _went_with(closing, Where.HEAD, effect.side.value)
    _fit(closing, effect.side.value, head.new_head or "head not from the shelf", head.reason or "replaced")
