"""Heads: from the shelf onto the drum, and the old one retired."""

from __future__ import annotations

from django.db.models import F

from apps.bench.effects.closing import Closing
from apps.heads.models import Fitting, StockItem
from apps.workshops.errors import Refused
from drumwork.work.effects import ChangeHead, TakeFromShelf

__all__ = ["change_head", "take_from_shelf"]


def take_from_shelf(closing: Closing, effect: TakeFromShelf) -> None:
    head = closing.heads[effect.side]
    if head.stock_item_id is None:
        return
    if not StockItem.objects.filter(pk=head.stock_item_id, count__gt=0).update(count=F("count") - 1):
        raise Refused(
            "none_left", "The shelf's count for this head is at nought. Correct the count, then close again.", 409
        )


def change_head(closing: Closing, effect: ChangeHead) -> None:
    job, side, head = closing.job, effect.side.value, closing.heads[effect.side]
    Fitting.objects.filter(drum=job.drum, side=side, retired_at__isnull=True).update(
        retired_at=closing.now, retired_because=head.reason or "replaced"
    )
    Fitting.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        side=side,
        head=head.new_head or "head not from the shelf",
        fitted_at=closing.now,
        fitted_by=closing.member.user,
        fitted_by_name=closing.member.shown_name,
        job_id=job.id,
    )
