"""The workshop's own ways."""

from __future__ import annotations

from ninja import Router, Schema

from apps.accounts.auth import Request, technician
from apps.workshops.schemas import WaysIn, WorkshopOut, shape_workshop
from drumwork.rods.balance import balance_of, recommend_pattern
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, plan_pattern
from drumwork.work.schools import SCHOOLS, Moment

router = Router(tags=["workshop"])


class ChoiceOut(Schema):
    value: str
    words: str
    speaks_for: str
    against: str


class SchoolOut(Schema):
    """One thing the trade disagrees about, and its answers."""

    number: int
    way: str
    moment: Moment
    question: str
    choices: list[ChoiceOut]


class PatternOut(Schema):
    pattern: str
    order: list[int]
    reaches_all: bool
    note: str
    tilt: float
    saddle: float
    recommended: bool


@router.put("/ways", response=WorkshopOut, auth=technician, operation_id="change_ways")
def change_ways(request: Request, body: WaysIn) -> WorkshopOut:
    workshop = request.member.workshop
    for name, value in body.model_dump(mode="json").items():
        setattr(workshop, name, value)
    workshop.save()
    return shape_workshop(workshop)


@router.get("/schools", response=list[SchoolOut], operation_id="schools")
def schools(request: Request) -> list[SchoolOut]:
    """What a workshop chooses among, with one sentence for and one against each answer."""
    return [SchoolOut.model_validate(each, from_attributes=True) for each in SCHOOLS]


@router.get("/patterns", response=list[PatternOut], operation_id="patterns")
def patterns(request: Request, rods: int, lost: str = "") -> list[PatternOut]:
    """Every tightening order on a head of so many rods, with how it treats the hoop. `lost`: comma separated."""
    layout = RodLayout(rods, frozenset(int(each) for each in lost.split(",") if each.isascii() and each.isdigit()))
    best = recommend_pattern(layout)
    plans = [plan_pattern(layout, each, layout.rods[0]) for each in Pattern if each is not Pattern.ROUND]
    return [
        PatternOut(
            pattern=plan.pattern,
            order=list(plan.rods),
            reaches_all=plan.reaches_all,
            note=plan.note,
            tilt=(hoop := balance_of(layout, plan.rods)).tilt,
            saddle=hoop.saddle,
            recommended=plan.pattern is best,
        )
        for plan in plans
    ]
