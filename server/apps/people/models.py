"""Ways into a workshop: links that are good once, and what an installation knows of itself."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import Q

from apps.workshops.models import Membership, Workshop


class Link(models.Model):
    """An invitation, or a way to a new password: whoever has its address may use it, once and for a while.

    Only a digest of what the address carries is kept. There is no row security here: a link is looked up by its digest before anybody is in a
    workshop.
    """

    class Kind(models.TextChoices):
        JOIN = "join"
        PASSWORD = "password"

    kind = models.CharField(max_length=10, choices=Kind.choices)
    digest = models.CharField(max_length=64, unique=True)
    workshop = models.ForeignKey(Workshop, null=True, on_delete=models.CASCADE, related_name="+")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.CASCADE, related_name="+")
    role = models.CharField(max_length=12, blank=True, choices=Membership.Role.choices)
    shown_name = models.CharField(max_length=60, blank=True)
    email = models.EmailField(blank=True)
    second_step_off = models.BooleanField(default=False)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    password_digest = models.CharField(max_length=64, blank=True)
    """Of a way to a new password: which one it was made against; after another it is good for nothing."""
    made_by_name = models.CharField(max_length=60, blank=True)
    made_at = models.DateTimeField()
    until = models.DateTimeField()
    used_at = models.DateTimeField(null=True)
    used_by_name = models.CharField(max_length=60, blank=True)
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=Q(kind="join", workshop__isnull=False, user__isnull=True)
                | Q(kind="password", user__isnull=False),
                name="link_leads_somewhere",
            )
        ]


class Installation(models.Model):
    """The one row about this installation: the word that begins its first workshop, and whether the demo was sent away."""

    word_digest = models.CharField(max_length=64, blank=True)
    word_tries = models.PositiveSmallIntegerField(default=0)
    demo_removed_at = models.DateTimeField(null=True)

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(pk=1), name="installation_one")]
