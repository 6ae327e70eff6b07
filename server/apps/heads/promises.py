"""Heads promised to jobs: one head to one job, whoever asks at the same moment."""

from __future__ import annotations

import uuid

from django.utils import timezone

from apps.heads.models import Promise, StockItem
from apps.register.models import Drum
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["hand_over", "let_go", "promise"]


def promise(stock_item: int, drum: Drum, for_what: uuid.UUID, side: str, member: Membership) -> StockItem:
    """Promise a head to one side of a job; asked twice for the same, promised once. The shelf's row is locked meanwhile.

    Raises
    ------
    Refused
        where none is left, or every one that is left is promised to another job; it says to which drum.
    """
    item = StockItem.objects.select_for_update(of=("self",)).select_related("line").get(pk=stock_item)
    others = Promise.objects.filter(stock_item=item).exclude(for_what=for_what, side=side)
    if item.count - others.count() < 1:
        said = f"No {item.named} of that size is left on the shelf."
        if item.count and (last := others.select_related("drum").order_by("-at").first()):
            said = f"The last {item.named} of that size is promised to {last.drum.name} ({last.drum.tag})."
        raise Refused("none_left", f"{said} Choose another, or correct the count.", 409)
    Promise.objects.update_or_create(
        workshop=member.workshop,
        for_what=for_what,
        side=side,
        defaults={"stock_item": item, "drum": drum, "by_name": member.shown_name, "at": timezone.now()},
    )
    return item


def hand_over(planned: uuid.UUID, job: uuid.UUID) -> None:
    """What was promised to a planned job is the job’s that was begun for it."""
    Promise.objects.filter(for_what=planned).update(for_what=job)


def let_go(for_what: uuid.UUID, side: str = "") -> None:
    """The job needs it no longer."""
    rows = Promise.objects.filter(for_what=for_what)
    (rows.filter(side=side) if side else rows).delete()
