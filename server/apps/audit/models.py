"""Who changed what. Rows are written by the database itself, by a trigger on every table that is followed; nothing here writes or edits them."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from apps.workshops.models import Owned


class Change(Owned):
    """One row of a followed table made, changed or removed. `about` names it; `before` and `after` hold what changed, all of it for a row made or
    removed. `by_name` is empty where a command on the machine did it."""

    class Did(models.TextChoices):
        MADE = "made"
        CHANGED = "changed"
        REMOVED = "removed"

    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    by_name = models.CharField(max_length=60, blank=True)
    what = models.CharField(max_length=20)
    row = models.CharField(max_length=40)
    did = models.CharField(max_length=10, choices=Did.choices)
    about = models.JSONField(default=dict)
    before = models.JSONField(default=dict)
    after = models.JSONField(default=dict)

    class Meta:
        indexes = [models.Index(fields=["workshop", "-id"], name="audit_newest")]
