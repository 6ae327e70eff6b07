"""What happened to a drum: a log in words, and its pitch over time."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from apps.register.models import Drum
from apps.workshops.models import Owned


class LogEntry(Owned):
    """One line of a drum's history. `record` keeps the particulars: turns per rod, readings per round, durations."""

    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="log")
    at = models.DateTimeField()
    kind = models.CharField(max_length=20)
    side = models.CharField(max_length=10, blank=True)
    text = models.CharField(max_length=300)
    outcome = models.CharField(max_length=120, blank=True)
    by_name = models.CharField(max_length=60, blank=True)
    job_id = models.UUIDField(null=True, blank=True)
    record = models.JSONField(default=dict)

    class Meta:
        ordering = ["-at", "-id"]
        indexes = [models.Index(fields=["drum", "-at"], name="log_drum_at")]


class PitchRecord(Owned):
    """Mean and spread of one round of readings on one side; of a single reading no spread is known. `left_so`: whoever closed the job let it
    be although it was not at the wanted pitch."""

    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="pitches")
    side = models.CharField(max_length=10)
    at = models.DateTimeField()
    mean_hz = models.FloatField()
    spread_hz = models.FloatField(null=True)
    wanted_hz = models.FloatField(null=True, blank=True)
    left_so = models.BooleanField(default=False)
    job_id = models.UUIDField(null=True, blank=True)

    class Meta:
        ordering = ["at"]
        indexes = [models.Index(fields=["drum", "side", "at"], name="pitch_drum_at")]
        constraints = [
            models.CheckConstraint(condition=Q(mean_hz__range=(20, 2000), spread_hz__gte=0), name="pitch_plausible")
        ]
