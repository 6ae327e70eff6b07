"""Taps that were heard, and of those who agreed to it their sound."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import Q

from apps.bench.models import Job
from apps.workshops.models import Owned


class HeardTap(Owned):
    """One tap: what it said, its picture, and its sound where the person who tapped keeps theirs. `rod` is null in the middle of the head.

    `second_hz` is what may have been meant instead, with its chance, where there was such.
    """

    id = models.UUIDField(primary_key=True)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="taps")
    step = models.CharField(max_length=40)
    lap = models.PositiveSmallIntegerField()
    rod = models.PositiveSmallIntegerField(null=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    by_name = models.CharField(max_length=60)
    heard_at = models.DateTimeField()
    other_muted = models.BooleanField(default=True)
    simulated = models.BooleanField(default=False)
    status = models.CharField(max_length=10)
    reason = models.CharField(max_length=200, blank=True)
    hz = models.FloatField(null=True)
    cents_sigma = models.FloatField(null=True)
    second_hz = models.FloatField(null=True, blank=True)
    second_chance = models.FloatField(null=True, blank=True)
    strength_db = models.FloatField()
    glide_cents = models.FloatField()
    partials = models.JSONField()
    picture = models.JSONField()
    seconds = models.FloatField()
    rate = models.PositiveIntegerField()
    sound = models.BinaryField(null=True)
    sound_bytes = models.PositiveIntegerField(default=0)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(status__in=["ok", "flag", "refuse"]), name="heard_status"),
            models.CheckConstraint(
                condition=Q(sound__isnull=False, sound_bytes__gt=0) | Q(sound__isnull=True, sound_bytes=0),
                name="heard_sound_bytes",
            ),
        ]
        indexes = [
            models.Index(fields=["job", "heard_at"], name="heard_job"),
            models.Index(fields=["workshop", "heard_at"], condition=Q(sound_bytes__gt=0), name="heard_with_sound"),
        ]
