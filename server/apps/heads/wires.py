"""Sets of wires on the shelf that fit a drum."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol

from django.db.models import Count, QuerySet

from apps.heads.models import Fitting, StockItem
from apps.register.models import Drum
from drumwork.shelf import Sort, fits_wires

__all__ = ["WIRES", "Sized", "fitting_wires", "on_a_drum"]

WIRES = "wires"
"""The place of a promise or a fitting that is no side: under the drum."""


class Sized(Protocol):
    @property
    def diameter_m(self) -> float: ...


def on_a_drum(drum: Drum, place: str) -> str:
    """What is on one side of a drum, or under it, by its name; '' where nothing is on record."""
    return (
        Fitting.objects.filter(drum=drum, side=place, retired_at__isnull=True).values_list("head", flat=True).first()
        or ""
    )


def _counted() -> QuerySet[StockItem]:
    return StockItem.objects.filter(sort=Sort.WIRES, used=False).select_related("wires", "line")


def fitting_wires(drum: Sized, now: str, rows: Iterable[StockItem] | None = None) -> list[tuple[StockItem, int]]:
    """New sets that go under a drum with how many of each are free: the line that is on first, then what is free, the longest first."""
    found = [
        (row, row.count - row.promised)  # type: ignore[attr-defined]
        for row in (_counted().annotate(promised=Count("promises")) if rows is None else rows)
        if row.diameter_m is not None and fits_wires(row.diameter_m, drum.diameter_m)
    ]
    return sorted(found, key=lambda each: (each[0].named != now, each[1] <= 0, -(each[0].diameter_m or 0), each[0].pk))
