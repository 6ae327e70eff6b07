"""What people sign in with beside a password."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Passkey(models.Model):
    """A key of a device or a security key (W3C Web Authentication); the secret half never leaves it."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="passkeys")
    credential = models.CharField(max_length=1400, unique=True)
    public_key = models.BinaryField()
    sign_count = models.BigIntegerField(default=0)
    name = models.CharField(max_length=60)
    made_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["made_at"]


class OneTimeCodes(models.Model):
    """The second step by codes of an app (RFC 6238), and single-use codes on paper for when the app is gone."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="one_time_codes")
    secret = models.CharField(max_length=64)
    on_since = models.DateTimeField(null=True)
    last_step = models.BigIntegerField(default=0)
    """The time step of the last code taken: none is taken twice."""
    wrong = models.PositiveSmallIntegerField(default=0)
    wrong_at = models.DateTimeField(null=True)
    spare_digests = models.JSONField(default=list)
