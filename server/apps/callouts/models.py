"""Call-outs: a kit, a show, the minutes before it; an append-only log of what was seen and done."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import Q

from apps.register.models import Drum, Kit
from apps.workshops.models import Owned


class CallOut(Owned):
    """A kit to be looked after in minutes, there and then.

    `book` is everything the plan may need, as it stood when the first entry was made; `asked` the parts it wanted and used, for the next bag. The
    moments at the end are made from the log.
    """

    id = models.UUIDField(primary_key=True)
    kit = models.ForeignKey(Kit, null=True, on_delete=models.SET_NULL, related_name="callouts")
    name = models.CharField(max_length=80)
    at = models.CharField(max_length=80, blank=True)
    show_at = models.DateTimeField(null=True, blank=True)
    minutes = models.FloatField()
    started_by_name = models.CharField(max_length=60, blank=True)
    made_at = models.DateTimeField()
    touched_at = models.DateTimeField()
    last_seq = models.PositiveIntegerField(default=0)
    book = models.JSONField(default=dict, blank=True)
    asked = models.JSONField(default=dict, blank=True)
    carried = models.JSONField(default=dict, blank=True)
    began_at = models.DateTimeField(null=True, blank=True)
    over_at = models.DateTimeField(null=True, blank=True)
    reported_at = models.DateTimeField(null=True, blank=True)
    answered_at = models.DateTimeField(null=True, blank=True)
    owing = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["-touched_at"]
        constraints = [models.CheckConstraint(condition=Q(minutes__range=(0, 600)), name="callout_minutes")]
        indexes = [models.Index(fields=["workshop", "-touched_at"], name="callout_touched")]


class CallOutDrum(Owned):
    """One drum of a call-out, under the tag its log calls it by."""

    callout = models.ForeignKey(CallOut, on_delete=models.CASCADE, related_name="drums")
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="+")
    tag = models.CharField(max_length=40)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["callout", "drum"], name="callout_drum_once")]


class CallOutEvent(Owned):
    """One entry of a call-out, with the id its device gave it; `version` the shape of its body."""

    id = models.UUIDField(primary_key=True)
    callout = models.ForeignKey(CallOut, on_delete=models.CASCADE, related_name="events")
    seq = models.PositiveIntegerField()
    kind = models.CharField(max_length=20)
    version = models.PositiveSmallIntegerField(default=1)
    body = models.JSONField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    by_name = models.CharField(max_length=60)
    device = models.CharField(max_length=40)
    made_at = models.DateTimeField()
    received_at = models.DateTimeField()

    class Meta:
        ordering = ["seq"]
        constraints = [models.UniqueConstraint(fields=["callout", "seq"], name="callout_event_seq")]
