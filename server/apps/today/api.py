"""What is owed today."""

from __future__ import annotations

from django.utils import timezone
from ninja import Router

from apps.accounts.auth import Request
from apps.copies.age import last_copy_words
from apps.today.schemas import Today, shape_today
from apps.today.selectors import facts_of, usual_minutes
from drumwork.planning import list_owed

router = Router(tags=["today"])


@router.get("", response=Today, operation_id="today")
def today(request: Request) -> Today:
    now = timezone.localtime()
    facts, drums = facts_of(request.member.workshop)
    return shape_today(
        list_owed(facts, now), drums, usual_minutes(), now, last_copy_words(request.member.workshop.copy_days, now)
    )
