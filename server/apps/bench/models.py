"""Bench jobs and their events. Events are only ever added."""

from __future__ import annotations

from django.conf import settings
from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q

from apps.heads.models import StockItem
from apps.register.models import Drum
from apps.workshops.models import Owned


class Job(Owned):
    """One job on one side of one drum. `frozen` is what the plan was made from, so that it never changes under the hands."""

    class State(models.TextChoices):
        OPEN = "open"
        CLOSED = "closed"

    id = models.UUIDField(primary_key=True)
    drum = models.ForeignKey(Drum, on_delete=models.PROTECT, related_name="jobs")
    side = models.CharField(max_length=10)
    procedure = models.CharField(max_length=30)
    frozen = models.JSONField()
    stock_item = models.ForeignKey(StockItem, null=True, on_delete=models.PROTECT, related_name="+")
    new_head = models.CharField(max_length=60, blank=True)
    old_head = models.CharField(max_length=60, blank=True)
    reason = models.CharField(max_length=200, blank=True)
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    opened_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    opened_by_name = models.CharField(max_length=60, blank=True)
    opened_at = models.DateTimeField()
    closed_at = models.DateTimeField(null=True, blank=True)
    touched_at = models.DateTimeField()
    where = models.CharField(max_length=120, blank=True)
    resting_until = models.DateTimeField(null=True, blank=True)
    last_seq = models.PositiveIntegerField(default=0)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(side__in=["batter", "resonant"]), name="job_side"),
            models.CheckConstraint(condition=Q(state="open") | Q(closed_at__isnull=False), name="job_closed_at"),
            models.UniqueConstraint(fields=["drum", "side"], condition=Q(state="open"), name="job_one_open_a_side"),
        ]
        indexes = [models.Index(fields=["workshop", "touched_at"], condition=Q(state="open"), name="job_open")]


class JobEvent(Owned):
    """One event, with the id its device gave it. `standing` tells whether it counts."""

    class Standing(models.TextChoices):
        APPLIED = "applied"
        CONFLICT = "conflict"
        REPEAT = "repeat"

    id = models.UUIDField(primary_key=True)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="events")
    seq = models.PositiveIntegerField()
    kind = models.CharField(max_length=20)
    slot = models.CharField(max_length=60, blank=True)
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
