"""Drums by their tags. A tag is one tag in capitals and in small letters: who types “l-1” means the drum labelled L-1."""

from __future__ import annotations

from collections.abc import Iterable

from django.db.models import QuerySet, Value
from django.db.models.functions import Upper

from apps.register.models import Drum

__all__ = ["drum_by_tag", "drums_by_tag", "one_of"]


def one_of(rows: QuerySet[Drum], tag: str) -> Drum:
    """The drum of these with this tag, or Drum.DoesNotExist."""
    return rows.get(tag__iexact=tag.strip())


def drum_by_tag(tag: str) -> Drum:
    """The drum, or Drum.DoesNotExist."""
    return one_of(Drum.objects.select_related("place", "owner").prefetch_related("kits"), tag)


def drums_by_tag(tags: Iterable[str], rows: QuerySet[Drum] | None = None) -> dict[str, Drum]:
    """Those of `rows` (of all) that are there, each under its tag as it was asked for."""
    asked = list(tags)
    among = Drum.objects.all() if rows is None else rows
    known = among.alias(_known=Upper("tag")).filter(_known__in=[Upper(Value(each.strip())) for each in asked])
    found = {drum.tag.casefold(): drum for drum in known}
    return {each: found[each.strip().casefold()] for each in asked if each.strip().casefold() in found}
