"""Named reads of the register."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.contrib.postgres.expressions import ArraySubquery
from django.db.models import Count, Exists, F, IntegerField, Max, OuterRef, QuerySet
from django.db.models.functions import Cast, Substr

from apps.bench.models import Job
from apps.followups.models import FollowUp
from apps.heads.models import HeadLine, WireLine
from apps.register.models import Drum, Kit, KitDrum, Owner, Place

PAGE = 50
LONGEST_TAG = 20
NUMBERED = re.compile(r"^(.*?)([0-9]{1,9})$")


@dataclass(frozen=True)
class Filter:
    """What the register is narrowed to; empty means all."""

    text: str = ""
    kind: str = ""
    place: str = ""
    owner: str = ""
    kit: str = ""
    state: str = ""


def _matching(chosen: Filter) -> QuerySet[Drum]:
    drums = Drum.objects.all()
    for word in chosen.text.lower().split():
        drums = drums.filter(search__contains=word)
    exact = {
        "kind": chosen.kind,
        "place__name": chosen.place,
        "owner__name": chosen.owner,
        "kits__name": chosen.kit,
        "state": chosen.state,
    }
    return drums.filter(**{name: value for name, value in exact.items() if value})


COLUMNS = ("tag", "name", "kind", "diameter_m", "depth_m", "rods_batter", "rods_resonant", "state")


def register_page(
    chosen: Filter, now: datetime, offset: int = 0, limit: int = PAGE
) -> tuple[int, list[dict[str, Any]]]:
    """Total and one page as plain rows, each marked with whether it has a job in hand or a check overdue."""
    matching = _matching(chosen)
    total = matching.aggregate(n=Count("*"))["n"]
    # The page is cut first, so that only its own rows are looked up further.
    ids = matching.order_by("tag").values("id")[offset : offset + limit]
    page = (
        Drum.objects.filter(id__in=ids)
        .annotate(
            in_place=F("place__name"),
            of_owner=F("owner__name"),
            in_kits=ArraySubquery(
                KitDrum.objects.filter(drum=OuterRef("pk")).order_by("kit__name").values("kit__name")
            ),
            in_hand=Exists(Job.objects.filter(drum=OuterRef("pk"), state="open")),
            overdue=Exists(FollowUp.objects.filter(drum=OuterRef("pk"), done_at__isnull=True, due_at__lte=now)),
        )
        .order_by("tag")
        .values(*COLUMNS, "in_place", "of_owner", "in_kits", "in_hand", "overdue")
    )
    return total, list(page)


def names(model: type[Place] | type[Owner] | type[Kit]) -> list[str]:
    return list(model.objects.order_by("name").values_list("name", flat=True))


def next_tag() -> str:
    """The workshop's own numbering carried on: that of the drum entered last, by its highest number."""
    newest = Drum.objects.order_by("-pk").values_list("tag", flat=True).first() or "D-000"
    match = NUMBERED.match(newest)
    if match is None:
        return f"{newest[:17]}-2"
    before, figures = match[1], match[2]
    like = Drum.objects.filter(tag__startswith=before, tag__regex=rf"^{re.escape(before)}[0-9]{{1,9}}$")
    number = Cast(Substr("tag", len(before) + 1), IntegerField())
    highest = like.aggregate(highest=Max(number))["highest"] or 0
    made = f"{before}{highest + 1:0{len(figures)}d}"
    return made if len(made) <= LONGEST_TAG else f"{before[: LONGEST_TAG - 2]}-2"


def head_lines(side: str) -> list[str]:
    """Lines of heads that go on this side, by name."""
    return list(HeadLine.objects.filter(side__in=[side, "either"]).values_list("name", flat=True))


def wire_lines() -> list[str]:
    return list(WireLine.objects.values_list("name", flat=True))
