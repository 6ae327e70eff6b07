"""One drum, by its tag."""

from __future__ import annotations

from apps.register.models import Drum

__all__ = ["drum_by_tag"]


def drum_by_tag(tag: str) -> Drum:
    """The drum, or Drum.DoesNotExist."""
    return Drum.objects.select_related("place", "owner").prefetch_related("kits").get(tag=tag)
