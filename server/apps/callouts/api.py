"""Call-outs over HTTP."""

from __future__ import annotations

from uuid import UUID

from django.core.exceptions import ObjectDoesNotExist
from django.db import DatabaseError, transaction
from ninja import Router, Status

from apps.accounts.auth import Request, technician
from apps.callouts import flows, selectors
from apps.callouts.schemas import (
    CallOutEventsIn,
    CallOutIn,
    CallOutLine,
    CallOutOut,
    CallOutReceipts,
    PlanCallOutIn,
    WorkOfCallOut,
)
from apps.callouts.works import plan_callout_works
from apps.workshops.errors import Refused
from drumwork.errors import DrumworkError

router = Router(tags=["callouts"])


@router.get("", response=list[CallOutLine], operation_id="callouts")
def callouts(request: Request) -> list[CallOutLine]:
    """Call-outs to come and going on, then the last that were."""
    return selectors.callouts()


@router.post("", response={201: CallOutOut}, auth=technician, operation_id="start_callout")
def start_callout(request: Request, body: CallOutIn) -> Status[CallOutOut]:
    callout = flows.start_callout(body, request.member)
    return Status(201, selectors.callout_of(callout, request.member, -1))


@router.get("/{key}", response=CallOutOut, operation_id="callout")
def callout(request: Request, key: UUID, since: int = -1) -> CallOutOut:
    """A call-out with everything it may need; with `since` from 0 up only entries after that one."""
    return selectors.callout_of(selectors.callout_by_id(key), request.member, since)


@router.post("/{key}/events", response=CallOutReceipts, auth=technician, operation_id="callout_events")
def events(request: Request, key: UUID, body: CallOutEventsIn) -> CallOutReceipts:
    try:
        with transaction.atomic():
            last, receipts = flows.take_in(key, body.events, request.member, body.sent_at)
    except (DatabaseError, ObjectDoesNotExist, Refused, DrumworkError):
        raise
    except Exception:
        last, receipts = flows.take_in_singly(key, body.events, request.member, body.sent_at)
    return CallOutReceipts(receipts=receipts, last_seq=last)


@router.post("/{key}/work", response=WorkOfCallOut, auth=technician, operation_id="plan_callout")
def plan(request: Request, key: UUID, body: PlanCallOutIn) -> WorkOfCallOut:
    """What is left becomes planned work of this workshop."""
    return plan_callout_works(selectors.callout_by_id(key), body.due_on, request.member)
