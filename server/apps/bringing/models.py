"""How a list was read last, so that the next one with the same headings is read so too."""

from __future__ import annotations

from django.db import models

from apps.workshops.models import Owned


class ReadSo(Owned):
    """By the headings of a list, which column says what."""

    headings = models.CharField(max_length=64)
    columns = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workshop", "headings"], name="read_so_once")]
