"""What is to be looked at again, and when."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from apps.register.models import Drum
from apps.workshops.models import Owned


class FollowUp(Owned):
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="follow_ups")
    side = models.CharField(max_length=10)
    due_at = models.DateTimeField()
    why = models.CharField(max_length=200)
    booked_by_job = models.UUIDField(null=True, blank=True)
    done_at = models.DateTimeField(null=True, blank=True)
    done_by_job = models.UUIDField(null=True, blank=True)

    class Meta:
        ordering = ["due_at"]
        indexes = [
            models.Index(fields=["workshop", "due_at", "id"], condition=Q(done_at__isnull=True), name="follow_up_open")
        ]
        constraints = [models.CheckConstraint(condition=Q(side__in=["batter", "resonant"]), name="follow_up_side")]
