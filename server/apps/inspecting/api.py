"""Walks over HTTP."""

from __future__ import annotations

from uuid import UUID

from django.core.exceptions import ObjectDoesNotExist
from django.db import DatabaseError, transaction
from ninja import Router, Status

from apps.accounts.auth import Request, technician
from apps.inspecting import flows, selectors, works
from apps.inspecting.schemas import (
    MoreDrums,
    PlanIn,
    PlannedOut,
    RuleOut,
    TakeBackIn,
    WalkEventsIn,
    WalkIn,
    WalkLine,
    WalkOut,
    WalkReceipts,
    WalkSum,
)
from apps.workshops.errors import Refused
from drumwork.errors import DrumworkError

router = Router(tags=["inspecting"])


@router.get("/walks", response=list[WalkLine], operation_id="walks")
def walks(request: Request) -> list[WalkLine]:
    """Walks not over yet, then the last that were."""
    return selectors.walks()


@router.post("/walks", response={201: WalkOut}, auth=technician, operation_id="start_walk")
def start_walk(request: Request, body: WalkIn) -> Status[WalkOut]:
    """Some drums to look at, by their tags, or all of a place, a kind or a kit."""
    walk = flows.start_walk(body, request.member)
    return Status(201, selectors.walk_of(walk, request.member.workshop, -1))


@router.get("/walks/{walk_id}", response=WalkOut, operation_id="walk")
def walk(request: Request, walk_id: UUID, since: int = -1) -> WalkOut:
    """A walk; with `since` from 0 up only entries and verdicts after that one."""
    return selectors.walk_of(selectors.walk_by_id(walk_id), request.member.workshop, since)


@router.post("/walks/{walk_id}/events", response=WalkReceipts, auth=technician, operation_id="walk_events")
def events(request: Request, walk_id: UUID, body: WalkEventsIn) -> WalkReceipts:
    try:
        with transaction.atomic():
            last, receipts = flows.take_in(walk_id, body.events, request.member, body.sent_at)
    except (DatabaseError, ObjectDoesNotExist, Refused, DrumworkError):
        raise
    except Exception:
        last, receipts = flows.take_in_singly(walk_id, body.events, request.member, body.sent_at)
    return WalkReceipts(receipts=receipts, last_seq=last)


@router.post("/walks/{walk_id}/drums", response=MoreDrums, auth=technician, operation_id="add_to_walk")
def add_to_walk(request: Request, walk_id: UUID, body: MoreDrums) -> MoreDrums:
    """One more drum, by its tag as it was typed or scanned; answered with the tag on record."""
    return MoreDrums(tag=flows.add_drum(walk_id, body.tag, request.member))


@router.post("/walks/{walk_id}/done", response={204: None}, auth=technician, operation_id="finish_walk")
def finish_walk(request: Request, walk_id: UUID) -> Status[None]:
    flows.finish(walk_id)
    return Status(204, None)


@router.delete("/walks/{walk_id}/done", response={204: None}, auth=technician, operation_id="go_on_walking")
def go_on_walking(request: Request, walk_id: UUID) -> Status[None]:
    flows.go_on(walk_id)
    return Status(204, None)


@router.get("/walks/{walk_id}/sum", response=WalkSum, operation_id="walk_sum")
def walk_sum(request: Request, walk_id: UUID) -> WalkSum:
    """What the walk comes to: verdicts counted, work to plan, what to buy."""
    return works.sum_of(selectors.walk_by_id(walk_id), request.member.workshop)


@router.post("/walks/{walk_id}/plan", response=PlannedOut, auth=technician, operation_id="plan_walk")
def plan_walk(request: Request, walk_id: UUID, body: PlanIn) -> PlannedOut:
    """Plan work from its verdicts, with heads promised; each by itself."""
    return works.plan_walk(walk_id, body, request.member)


@router.post("/walks/{walk_id}/take-back", response={204: None}, auth=technician, operation_id="take_back_plan")
def take_back_plan(request: Request, walk_id: UUID, body: TakeBackIn) -> Status[None]:
    """Planned after all not: the drums are to be decided anew."""
    works.take_back(walk_id, body)
    return Status(204, None)


@router.get("/rules", response=list[RuleOut], operation_id="deciding_rules")
def deciding_rules(request: Request) -> list[RuleOut]:
    """The rules verdicts come from, those this workshop overruled most first."""
    return selectors.rules()
