"""Photos of a drum: how it sat before it was taken apart, and how it looked."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import Q

from apps.bench.models import Job
from apps.register.models import Drum
from apps.workshops.models import Owned


class Photo(Owned):
    """One photo, as JPEG made here from what the device sent: no larger than needed, and without where it was taken."""

    id = models.UUIDField(primary_key=True)
    drum = models.ForeignKey(Drum, on_delete=models.PROTECT, related_name="photos")
    job = models.ForeignKey(Job, null=True, on_delete=models.PROTECT, related_name="photos")
    about = models.CharField(max_length=40, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    by_name = models.CharField(max_length=60)
    taken_at = models.DateTimeField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    jpeg = models.BinaryField()
    jpeg_bytes = models.PositiveIntegerField()

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(jpeg_bytes__gt=0), name="photo_bytes")]
        indexes = [
            models.Index(fields=["drum", "taken_at"], name="photo_drum"),
            models.Index(fields=["job", "taken_at"], condition=Q(job__isnull=False), name="photo_job"),
        ]
