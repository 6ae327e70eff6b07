"""Work that was decided and not begun: what, on which drum, by when, and which heads are promised to it."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from apps.register.models import Drum
from apps.workshops.models import Owned


class PlannedJob(Owned):
    """One job to come. `heads` names by side (or "wires") what is promised to it; `lacks` is how many pieces nothing is promised for."""

    class State(models.TextChoices):
        OPEN = "open"
        BEGUN = "begun"
        DROPPED = "dropped"

    id = models.UUIDField(primary_key=True)
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="planned")
    work = models.CharField(max_length=40)
    part = models.CharField(max_length=10)
    due_on = models.DateField()
    why = models.CharField(max_length=200, blank=True)
    heads = models.JSONField(default=dict, blank=True)
    lacks = models.PositiveSmallIntegerField(default=0, db_default=0)
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    made_by_name = models.CharField(max_length=60, blank=True)
    made_at = models.DateTimeField()
    job_id = models.UUIDField(null=True, blank=True)
    dropped_because = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["due_on", "made_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["drum", "work", "part"], condition=Q(state="open"), name="planned_once_a_part"
            ),
            models.CheckConstraint(condition=Q(state__in=["open", "begun", "dropped"]), name="planned_state"),
        ]
        indexes = [models.Index(fields=["workshop", "due_on"], condition=Q(state="open"), name="planned_open")]
