"""The shelf: where tools and materials lie, and which of them there is none left of."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from django.utils import timezone
from ninja import Router, Schema
from pydantic import Field, StringConstraints

from apps.accounts.auth import Request, technician
from apps.heads.models import ShelfThing

router = Router(tags=["shelf"])


class ThingIn(Schema):
    """Where a thing lies, as people of this workshop say it; `short` when there is none left."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    place: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    short: bool = Field(False)


class ThingOut(ThingIn):
    said_by: str
    said_at: datetime


def _shape(row: ShelfThing) -> ThingOut:
    return ThingOut(name=row.name, place=row.place, short=row.short, said_by=row.said_by_name, said_at=row.said_at)


@router.get("/things", response=list[ThingOut], operation_id="shelf_things")
def things(request: Request) -> list[ThingOut]:
    """Everything somebody said a place of, or that there is none of."""
    return [_shape(row) for row in ShelfThing.objects.all()]


@router.put("/things", response=ThingOut, auth=technician, operation_id="keep_shelf_thing")
def keep(request: Request, body: ThingIn) -> ThingOut:
    """Keep where a thing lies, and whether there is any."""
    said = {"said_by_name": request.member.shown_name, "said_at": timezone.now()}
    row, _ = ShelfThing.objects.update_or_create(
        workshop=request.member.workshop, name=body.name, defaults={"place": body.place, "short": body.short, **said}
    )
    return _shape(row)
