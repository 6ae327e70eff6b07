"""Heads on the shelf that fit a drum."""

from __future__ import annotations

from typing import Final

from django.db.models import Count
from ninja import Router, Schema

from apps.accounts.auth import Request
from apps.heads.models import Promise, StockItem
from apps.register.lookup import drum_by_tag
from apps.register.models import Drum
from apps.register.schemas import SAME_SIZE_M, length_words
from drumwork.drums import Side, traits_of

router = Router(tags=["heads"])


THIN_MIL: Final = 5.0
"""A film thicker than this is no snare side's: those are about 3 mil (common practice, F4); our own line between."""


class FittingHead(Schema):
    """`warning`: why it should not go on this side; empty where it may."""

    stock_item: int
    head: str
    finish: str
    size: str
    count: int
    free: int
    promised: bool
    shelf: str
    used: bool
    warning: str


def _warning(row: StockItem, drum: Drum, side: str) -> str:
    """A batter's film is no snare side's (trade §4, C3, N16: seen only when it is on)."""
    mil = row.head.film_mil * row.head.plies
    if side != Side.RESONANT or not traits_of(drum.kind).wires or row.head.finish == "mesh" or mil <= THIN_MIL:
        return ""
    return f"Not a snare-side film: {mil:g} mil where about 3 is wanted. The wires hardly answer on it."


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
            warning=_warning(row, drum, side),
        )
        for row in rows
    ]
    return sorted(fits, key=lambda head: (not head.promised, bool(head.warning), head.used, head.free == 0, head.head))
