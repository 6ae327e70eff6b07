"""Walks along the drums: an append-only log of what was seen, and the verdict each look came to."""

from __future__ import annotations

from django.conf import settings
from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q

from apps.register.models import Drum
from apps.workshops.models import Owned


class Walk(Owned):
    """Some drums to look at, one after the other, by whoever takes part. `going_out`: they go out next."""

    class State(models.TextChoices):
        OPEN = "open"
        DONE = "done"

    id = models.UUIDField(primary_key=True)
    name = models.CharField(max_length=80)
    going_out = models.BooleanField(default=False)
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    started_by_name = models.CharField(max_length=60, blank=True)
    started_at = models.DateTimeField()
    touched_at = models.DateTimeField()
    last_seq = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["-touched_at"]
        constraints = [models.CheckConstraint(condition=Q(state__in=["open", "done"]), name="walk_state")]
        indexes = [models.Index(fields=["workshop", "-touched_at"], name="walk_touched")]


class WalkDrum(Owned):
    """One drum of a walk, at its place in the order. `record` is what its history said of its heads when the walk began."""

    walk = models.ForeignKey(Walk, on_delete=models.CASCADE, related_name="drums")
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="+")
    place = models.PositiveIntegerField()
    record = models.JSONField(default=dict, blank=True)

    class Meta:
        ordering = ["place"]
        constraints = [models.UniqueConstraint(fields=["walk", "drum"], name="walk_drum_once")]


class WalkEvent(Owned):
    """One entry of a walk, with the id its device gave it; `version` the shape of its body."""

    id = models.UUIDField(primary_key=True)
    walk = models.ForeignKey(Walk, on_delete=models.CASCADE, related_name="events")
    seq = models.PositiveIntegerField()
    tag = models.CharField(max_length=40)
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
        constraints = [models.UniqueConstraint(fields=["walk", "seq"], name="walk_event_seq")]
        indexes = [models.Index(fields=["walk", "tag", "seq"], name="walk_event_drum")]


class Verdict(Owned):
    """What a look came to. `told` is the whole of it as it is shown; `parts` the verdicts that stand, `drum_verdict` the worst of them.

    `answered_at`: somebody made work of it, or decided that there is nothing to do.
    """

    walk = models.ForeignKey(Walk, on_delete=models.CASCADE, related_name="verdicts")
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="verdicts")
    at = models.DateTimeField()
    by_name = models.CharField(max_length=60)
    parts = models.JSONField()
    drum_verdict = models.CharField(max_length=20)
    told = models.JSONField()
    seq = models.PositiveIntegerField()
    answered_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-at"]
        constraints = [models.UniqueConstraint(fields=["walk", "drum"], name="verdict_once_a_look")]
        indexes = [
            models.Index(fields=["workshop", "at"], condition=Q(answered_at__isnull=True), name="verdict_open"),
            models.Index(fields=["drum", "-at"], name="verdict_drum"),
        ]


class Overrule(Owned):
    """A person decided otherwise than the rules: which rules, what they said, what stands instead, and why."""

    verdict = models.ForeignKey(Verdict, on_delete=models.CASCADE, related_name="overrules")
    event = models.UUIDField(unique=True)
    part = models.CharField(max_length=10)
    rules = ArrayField(models.CharField(max_length=40))
    said = models.CharField(max_length=20)
    stands = models.CharField(max_length=20)
    reason = models.CharField(max_length=200)
    by_name = models.CharField(max_length=60)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-at"]
