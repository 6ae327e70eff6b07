"""Heads on the shelf that fit a drum."""

from __future__ import annotations

from django.db.models import Count
from ninja import Router, Schema

from apps.accounts.auth import Request
from apps.heads.models import Promise, StockItem
from apps.register.lookup import drum_by_tag
from apps.register.schemas import SAME_SIZE_M, length_words

router = Router(tags=["heads"])


class FittingHead(Schema):
    stock_item: int
    head: str
    finish: str
    size: str
    count: int
    free: int
    promised: bool
    shelf: str
    used: bool


@router.get("/fitting/{tag}/{side}", response=list[FittingHead], operation_id="fitting_heads")
def fitting_heads(request: Request, tag: str, side: str) -> list[FittingHead]:
    """Heads of this drum's diameter for this side, one promised to it first, then those that are free; used ones, for an emergency only (C10), last."""
    drum = drum_by_tag(tag)
    rows = (
        StockItem.objects.select_related("line")
        .annotate(promised=Count("promises"))
        .filter(
            diameter_m__range=(drum.diameter_m - SAME_SIZE_M, drum.diameter_m + SAME_SIZE_M),
            line__side__in=[side, "either"],
        )
    )
    mine = set(Promise.objects.filter(drum=drum, side=side).values_list("stock_item_id", flat=True))
    unit = request.member.workshop.length_unit
    fits = [
        FittingHead(
            stock_item=row.pk,
            head=row.named,
            finish=row.head.finish,
            size=f"{length_words(row.width_m, unit)} {unit}",
            count=row.count,
            free=max(0, row.count - row.promised) + (row.pk in mine),
            promised=row.pk in mine,
            shelf=row.shelf,
            used=row.used,
        )
        for row in rows
    ]
    return sorted(fits, key=lambda head: (not head.promised, head.used, head.free == 0, head.head))
