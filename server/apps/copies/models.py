"""Which backups were made and found good. They are of everything, so they belong to no one workshop."""

from __future__ import annotations

from django.db import models


class Copy(models.Model):
    """A backup file that was written, read back and counted."""

    made_at = models.DateTimeField()
    file = models.CharField(max_length=300)
    size = models.PositiveBigIntegerField()
    rows = models.PositiveBigIntegerField()

    class Meta:
        indexes = [models.Index(fields=["-made_at"], name="copy_newest")]
