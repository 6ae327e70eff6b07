"""What is owed today."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from apps.accounts.auth import Request
from apps.copies.age import last_copy_words
from apps.today.pulse import pulse_of
from apps.today.schemas import Paged, Pulse, Today, TodayMore, shape_more, shape_today
from apps.today.selectors import facts_of, more_of
from drumwork.planning import OwedKind

router = Router(tags=["today"])


def _written(answer: Today | TodayMore | Pulse) -> HttpResponse:
    """Made here and right by construction: not read through once more on the way out."""
    return HttpResponse(answer.model_dump_json(), "application/json")


@router.get("", response=Today, operation_id="today")
def today(request: Request) -> HttpResponse:
    now = timezone.localtime()
    workshop = request.member.workshop
    found = facts_of(workshop, now)
    return _written(shape_today(found, now, last_copy_words(workshop.copy_days, now)))


@router.get("/pulse", response=Pulse, operation_id="today_pulse")
def pulse(request: Request) -> HttpResponse:
    """Changes whenever something changed that Today, a sheet or the register tells of: asked often, and cheap."""
    return _written(Pulse(pulse=pulse_of(request.member.workshop)))


@router.get("/{kind}", response=TodayMore, operation_id="today_more")
def today_more(request: Request, kind: Paged, offset: Annotated[int, Field(ge=0, le=1_000_000)] = 0) -> HttpResponse:
    """The next lines of one group."""
    now = timezone.localtime()
    return _written(shape_more(more_of(OwedKind(kind), request.member.workshop, now, offset), now))
