"""Sending the demo away."""

from __future__ import annotations

from django.db import transaction
from ninja import Router, Status

from apps.accounts.auth import Request, owner
from apps.demo.removal import remove_workshop
from apps.people.first import demo_removed
from apps.workshops.models import Workshop
from apps.workshops.scope import enter_workshop

router = Router(tags=["demo"])


@router.delete("", response={204: None}, auth=owner, operation_id="remove_demo")
def remove(request: Request) -> Status[None]:
    """Remove the demo workshop with all that is in it, and its accounts; no start brings it back unasked."""
    with transaction.atomic():
        for each in Workshop.objects.select_for_update().filter(demo=True):
            remove_workshop(each)
        demo_removed()
    enter_workshop(request.member.workshop_id)
    return Status(204, None)
