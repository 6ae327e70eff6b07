"""Planned work, shaped for the screen."""

from __future__ import annotations

from datetime import date, datetime

from ninja import Schema

from apps.planned.models import PlannedJob
from apps.register.schemas import KIND_WORDS
from apps.workshops.typed import WorkName
from drumwork.procedures.catalogue import work_named
from drumwork.work.plan import Part

__all__ = ["PlannedHead", "PlannedLine", "shape_planned"]


class PlannedHead(Schema):
    stock_item: int
    head: str


class PlannedLine(Schema):
    """Work to come: on which drum, by when, with which heads promised."""

    id: str
    tag: str
    name: str
    kind_words: str
    work: WorkName
    part: Part
    title: str
    why: str
    due_on: date
    days_late: int
    minutes: int
    heads: dict[str, PlannedHead]
    lacks: int
    made_by: str
    made_at: datetime


def shape_planned(row: PlannedJob, today: date) -> PlannedLine:
    """A row with its drum, as it stands on this day."""
    work = work_named(row.work)
    return PlannedLine.model_validate(
        {
            "id": str(row.pk), "tag": row.drum.tag, "name": row.drum.name, "kind_words": KIND_WORDS[row.drum.kind], "work": row.work,
            "part": row.part, "title": work.titled(Part(row.part)), "why": row.why, "due_on": row.due_on,
            "days_late": max(0, (today - row.due_on).days), "minutes": work.minutes, "heads": row.heads, "lacks": row.lacks,
            "made_by": row.made_by_name, "made_at": row.made_at,
        }
    )  # fmt: skip
