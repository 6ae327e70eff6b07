"""Kits over HTTP."""

from __future__ import annotations

from ninja import Router, Status

from apps.accounts.auth import Request, technician
from apps.kits import flows, selectors
from apps.kits.schemas import KitIn, KitJobsIn, KitJobsOut, KitLine, KitOut, KitPlanOut, KitWishes
from apps.register.models import Kit

router = Router(tags=["kits"])


@router.get("", response=list[KitLine], operation_id="kits")
def kits(request: Request) -> list[KitLine]:
    """Every kit, those with a day first."""
    return selectors.kits()


@router.post("", response={201: KitOut}, auth=technician, operation_id="start_kit")
def start_kit(request: Request, body: KitIn) -> Status[KitOut]:
    kit = flows.save_kit(None, body, request.member)
    return Status(201, selectors.kit_of(kit, request.member.workshop))


@router.get("/{kit_id}", response=KitOut, operation_id="kit")
def kit(request: Request, kit_id: int) -> KitOut:
    """Its drums in their row, as they stand."""
    return selectors.kit_of(Kit.objects.get(pk=kit_id), request.member.workshop)


@router.put("/{kit_id}", response=KitOut, auth=technician, operation_id="save_kit")
def save_kit(request: Request, kit_id: int, body: KitIn) -> KitOut:
    kit = flows.save_kit(Kit.objects.get(pk=kit_id), body, request.member)
    return selectors.kit_of(kit, request.member.workshop)


@router.put("/{kit_id}/wish", response={204: None}, auth=technician, operation_id="keep_kit_wish")
def keep_wish(request: Request, kit_id: int, body: KitWishes) -> Status[None]:
    """How it should sound, kept for the next time and for others."""
    flows.keep_wish(Kit.objects.get(pk=kit_id), body)
    return Status(204, None)


@router.post("/{kit_id}/plan", response=KitPlanOut, operation_id="plan_kit")
def plan_kit(request: Request, kit_id: int, body: KitWishes) -> KitPlanOut:
    """What would have to be turned for such a wish. Nothing is changed."""
    return selectors.plan_of(Kit.objects.get(pk=kit_id), body, request.member.workshop)


@router.post("/{kit_id}/jobs", response=KitJobsOut, auth=technician, operation_id="make_kit_jobs")
def make_jobs(request: Request, kit_id: int, body: KitJobsIn) -> KitJobsOut:
    """The jobs of the plan on the screen, with their targets."""
    return flows.make_jobs(Kit.objects.get(pk=kit_id), body, request.member)
