"""Bench jobs and their entries. Entries are only ever added."""

from __future__ import annotations

from django.conf import settings
from django.contrib.postgres.constraints import ExclusionConstraint
from django.contrib.postgres.fields import ArrayField, IntegerRangeField, RangeOperators
from django.db import models
from django.db.backends.postgresql.psycopg_any import NumericRange
from django.db.models import Q

from apps.heads.models import StockItem
from apps.register.models import Drum
from apps.workshops.models import Owned

PARTS = {
    "batter": (0, 1),
    "resonant": (1, 2),
    "heads": (0, 2),
    "wires": (2, 3),
    "hardware": (3, 4),
    "drum": (0, 4),
}
"""The stretch of a drum each part takes up, so that the database can tell whether two jobs are about the same thing."""


def _takes(part: str) -> Q:
    low, high = PARTS[part]
    return Q(part=part, takes=NumericRange(low, high, "[)"))


class Job(Owned):
    """One job on one part of one drum. `plan` is what it began with, so that nothing changes under the hands; `plan_shape`
    its version. `changed` is what closing it changed elsewhere, to be taken back."""

    class State(models.TextChoices):
        OPEN = "open"
        CLOSED = "closed"
        ASIDE = "aside"

    id = models.UUIDField(primary_key=True)
    drum = models.ForeignKey(Drum, on_delete=models.PROTECT, related_name="jobs")
    work = models.CharField(max_length=40)
    part = models.CharField(max_length=10)
    takes = IntegerRangeField()
    plan = models.JSONField()
    plan_shape = models.PositiveSmallIntegerField()
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    opened_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    opened_by_name = models.CharField(max_length=60, blank=True)
    opened_at = models.DateTimeField()
    closed_at = models.DateTimeField(null=True, blank=True)
    touched_at = models.DateTimeField()
    where = models.CharField(max_length=120, blank=True)
    resting_until = models.DateTimeField(null=True, blank=True)
    last_seq = models.PositiveIntegerField(default=0)
    changed = models.JSONField(default=dict, blank=True)
    aside_because = models.CharField(max_length=200, blank=True)
    aside_by_name = models.CharField(max_length=60, blank=True)

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=_takes("batter") | _takes("resonant") | _takes("heads") | _takes("wires") | _takes("hardware") | _takes("drum"),
                name="job_part",
            ),
            models.CheckConstraint(condition=Q(state="open") | Q(closed_at__isnull=False), name="job_closed_at"),
            ExclusionConstraint(
                name="job_one_open_a_part",
                expressions=[("drum", RangeOperators.EQUAL), ("takes", RangeOperators.OVERLAPS)],
                condition=Q(state="open"),
            ),
        ]  # fmt: skip
        indexes = [
            models.Index(fields=["workshop", "touched_at"], condition=Q(state="open"), name="job_open"),
            models.Index(fields=["workshop", "-closed_at"], condition=Q(state="closed"), name="job_closed"),
        ]


class JobHead(Owned):
    """One head a job works on: what goes on, from which stock, what comes off and why."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="heads")
    side = models.CharField(max_length=10)
    stock_item = models.ForeignKey(StockItem, null=True, on_delete=models.PROTECT, related_name="+")
    new_head = models.CharField(max_length=60, blank=True)
    old_head = models.CharField(max_length=60, blank=True)
    reason = models.CharField(max_length=200, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["job", "side"], name="job_head_one_a_side"),
            models.CheckConstraint(condition=Q(side__in=["batter", "resonant"]), name="job_head_side"),
        ]


class JobEvent(Owned):
    """One entry, with the id its device gave it. `standing` tells whether it counts, `version` the shape of its body."""

    class Standing(models.TextChoices):
        APPLIED = "applied"
        CONFLICT = "conflict"
        REPEAT = "repeat"

    id = models.UUIDField(primary_key=True)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="events")
    seq = models.PositiveIntegerField()
    kind = models.CharField(max_length=20)
    version = models.PositiveSmallIntegerField()
    body = models.JSONField()
    standing = models.CharField(max_length=10, choices=Standing.choices, default=Standing.APPLIED)
    against = models.UUIDField(null=True, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    by_name = models.CharField(max_length=60)
    device = models.CharField(max_length=40)
    made_at = models.DateTimeField()
    received_at = models.DateTimeField()

    class Meta:
        ordering = ["seq"]
        constraints = [
            models.UniqueConstraint(fields=["job", "seq"], name="event_seq_unique"),
            models.CheckConstraint(condition=Q(standing__in=["applied", "conflict", "repeat"]), name="event_standing"),
            models.CheckConstraint(
                condition=~Q(standing="conflict") | Q(against__isnull=False), name="event_conflict_against"
            ),
        ]


class DrumFinding(Owned):
    """Something found on a drum, carried into its record when the job closed or the look was done, and what is owed by it until it is put right.

    `mark` is the entry of the walk it was first seen in, `spot` where on the head, `seen_at` when it was last seen to be still so.
    """

    class Owed(models.TextChoices):
        REPLACE = "replace"
        FETCH = "fetch"
        REPAIR = "repair"
        QUALIFIED = "qualified"
        ADJUST = "adjust"
        LOOK = "look"

    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="findings")
    finding = models.CharField(max_length=40)
    side = models.CharField(max_length=10, blank=True)
    rod = models.PositiveSmallIntegerField(null=True, blank=True)
    degree = models.PositiveSmallIntegerField()
    note = models.CharField(max_length=300, blank=True)
    owed = models.CharField(max_length=10, choices=Owed.choices)
    part = models.CharField(max_length=40, blank=True)
    found_at = models.DateTimeField()
    by_name = models.CharField(max_length=60, blank=True)
    job = models.ForeignKey(Job, null=True, on_delete=models.SET_NULL, related_name="+")
    seen_at = models.DateTimeField(null=True, blank=True)
    spot = models.JSONField(null=True, blank=True)
    mark = models.UUIDField(null=True, blank=True, unique=True)
    put_right_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-found_at"]
        indexes = [
            models.Index(fields=["drum"], condition=Q(put_right_at__isnull=True), name="drum_finding_open"),
        ]
        constraints = [
            models.CheckConstraint(condition=Q(side__in=["", "batter", "resonant"]), name="drum_finding_side"),
            models.CheckConstraint(condition=Q(degree__range=(1, 3)), name="drum_finding_degree"),
        ]


class KeptAnswer(Owned):
    """How one head answered to its rods, by the core's clearing; kept for the next job on it. `kinds` holds means and covariances."""

    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="+")
    side = models.CharField(max_length=10)
    head = models.CharField(max_length=60, blank=True)
    rods = ArrayField(models.PositiveSmallIntegerField())
    rounds = models.PositiveIntegerField()
    kinds = models.JSONField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["drum", "side"], name="answer_one_a_side"),
            models.CheckConstraint(condition=Q(side__in=["batter", "resonant"]), name="answer_side"),
        ]
