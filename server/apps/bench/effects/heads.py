"""Heads: from the shelf onto the drum, and the old one retired."""

from __future__ import annotations

from django.db.models import F

from apps.bench.effects.closing import Closing
from apps.bench.models import DrumFinding
from apps.heads.models import Fitting, StockItem
from apps.heads.promises import let_go
from apps.workshops.errors import Refused
from drumwork.findings import FINDINGS, Where
from drumwork.work.effects import ChangeHead, ChangeWires, TakeFromShelf

__all__ = ["change_head", "take_from_shelf"]


WIRES = "wires"


def change_wires(closing: Closing, effect: ChangeWires) -> None:
    """The wires on record go, new ones are fitted: those that were chosen."""
    chosen = closing.state.answers.get(WIRES)
    _went_with(closing, Where.WIRES, "")
    _fit(
        closing,
        WIRES,
        " ".join(chosen.value.values)[:60] if chosen and chosen.value.values else "new wires",
        "replaced",
    )


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
    if not StockItem.objects.filter(pk=head.stock_item_id, count__gt=0).update(count=F("count") - 1):
        raise Refused(
            "none_left", "The shelf's count for this head is at nought. Correct the count, then close again.", 409
        )
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
