"""What closing a job changed, kept so that it can be taken back exactly; and taking it back, as long as nothing has been built on it."""

from __future__ import annotations

import json
import uuid
from collections.abc import Mapping
from typing import Any, Final

from django.core.serializers.json import DjangoJSONEncoder
from django.db.models import Model, QuerySet, Sum

from apps.bench.models import DrumFinding, Job, JobHead, KeptAnswer
from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.history.models import PitchRecord
from apps.register.models import Drum
from apps.stock.models import Loan, Movement
from apps.stock.moving import Act, move
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.shelf import Why

__all__ = ["Snapshot", "difference", "snapshot", "take_back"]

Row = dict[str, Any]
Snapshot = dict[str, dict[str, Row]]
"""Rows by table and key, as JSON has them."""

_WORDS: Final[Mapping[type[Model], str]] = {
    Fitting: "what is fitted",
    FollowUp: "a check",
    DrumFinding: "a finding",
    KeptAnswer: "how the head answers",
    PitchRecord: "a pitch on record",
    JobHead: "the job",
    Loan: "a loan",
    Drum: "the drum’s record",
}
_TABLES: Final = {of._meta.label: of for of in _WORDS}
_OF_DRUM: Final = ("wanted_batter_hz", "wanted_resonant_hz", "lost_batter", "lost_resonant", "kept")
"""Of the drum itself, what closing may change."""


def _rows(job: Job) -> list[QuerySet[Any]]:
    """Whatever closing a job can touch."""
    mine = (Fitting, FollowUp, KeptAnswer, DrumFinding)
    return [
        *(of._default_manager.filter(drum_id=job.drum_id) for of in mine),
        Loan.objects.filter(from_drum_id=job.drum_id),
        PitchRecord.objects.filter(job_id=job.pk),
        JobHead.objects.filter(job=job),
        Drum.objects.filter(pk=job.drum_id),
    ]


def _as_json(found: Any) -> Any:
    return json.loads(json.dumps(found, cls=DjangoJSONEncoder))


def snapshot(job: Job) -> Snapshot:
    """How everything stands that closing this job can touch."""
    found: Snapshot = {}
    for rows in _rows(job):
        columns = (
            ("pk", *_OF_DRUM)
            if rows.model is Drum
            else ("pk", *(each.attname for each in rows.model._meta.concrete_fields))
        )
        found[rows.model._meta.label] = {str(row.pop("pk")): row for row in _as_json(list(rows.values(*columns)))}
    taken = Movement.objects.filter(job_id=job.pk).values("stock_item").annotate(moved=Sum("delta"))
    found["shelf"] = {str(row["stock_item"]): {"count": row["moved"]} for row in taken}
    return found


def difference(before: Snapshot, after: Snapshot) -> Snapshot:
    """Only the rows that differ: `before` null where a row was made, `after` null where one went."""
    found: Snapshot = {}
    for table in before:
        keys = before[table].keys() | after[table].keys()
        changed = {
            key: {"before": before[table].get(key), "after": after[table].get(key)}
            for key in sorted(keys)
            if before[table].get(key) != after[table].get(key)
        }
        if changed:
            found[table] = changed
    return found


def take_back(job: Job, changes: Snapshot, member: Membership) -> None:
    """Everything as it stood before the job was closed.

    Raises
    ------
    Refused
        where something has been built on it since; it says what.
    """
    stands = snapshot(job)
    moved = {
        _WORDS[_TABLES[table]]
        for table, rows in changes.items()
        if table != "shelf"
        for key, row in rows.items()
        if stands[table].get(key) != row["after"]
    }
    if moved:
        raise Refused(
            "moved_on",
            f"Since this job was closed, {' and '.join(sorted(moved))} changed. What the history says can still be corrected: open its line there.",
        )
    for table, of in _TABLES.items():
        # What was made goes first: what was there before may not lie beside it.
        for key, row in sorted(changes.get(table, {}).items(), key=lambda each: each[1]["before"] is not None):
            _put_back(of, key, row)
    for key, row in changes.get("shelf", {}).items():
        taken = (row["before"] or {"count": 0})["count"] - row["after"]["count"]
        if taken > 0:
            back = Act(uuid.uuid4(), Why.BROUGHT_BACK, taken, words="its job goes on", drum=job.drum, job=job.pk)
            move(int(key), back, member)


def _put_back(of: type[Model], key: str, row: Row) -> None:
    found = of._default_manager.filter(pk=key)
    if row["before"] is None:
        found.delete()
        return
    fields = {each.attname: each for each in of._meta.concrete_fields}
    values = {
        name: fields[name].to_python(value) if value is not None else None for name, value in row["before"].items()
    }
    if row["after"] is None:
        of._default_manager.create(**values)
        return
    found.update(**{name: value for name, value in values.items() if row["before"][name] != row["after"][name]})
