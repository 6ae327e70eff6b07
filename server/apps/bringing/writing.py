"""Every drum as a row, under the headings such a list is read by again."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from typing import Final

from django.utils import timezone

from apps.heads.models import Fitting
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS, length_typed, shape_form
from drumwork.bringing import FIELDS
from drumwork.sheets import line_of, several

__all__ = ["written_rows"]

_LEFT_OUT: Final = ("size", "rods")
"""Said by two columns each."""
_COLUMNS: Final = [name for name in FIELDS if name not in _LEFT_OUT]


def _since(on: Fitting) -> str:
    """As exactly as it is known, in words that are read as no more than that."""
    day = timezone.localdate(on.fitted_at)
    return {"known": day.isoformat(), "guessed": f"{day:%Y-%m}", "unknown": "?"}[on.dated]


def _cells(drum: Drum, on: dict[str, Fitting], unit: str) -> list[str]:
    form = shape_form(drum, unit)
    told = {name: str(getattr(form, name, "")) for name in _COLUMNS}
    told["kind"] = KIND_WORDS[drum.kind]
    told["kits"] = several(form.kits)
    for name in ("diameter", "depth"):
        told[name] = length_typed(getattr(drum, f"{name}_m"), unit)
    for place in ("batter", "resonant", "wires"):
        told[place] = on[place].head if place in on else ""
        told[f"{place}_since"] = _since(on[place]) if place in on else ""
    return [told[name] for name in _COLUMNS]


def written_rows(unit: str) -> Iterator[str]:
    """The list line by line; no cell of it is run by a spreadsheet."""
    yield line_of(FIELDS[name].words for name in _COLUMNS)
    on: dict[int, dict[str, Fitting]] = defaultdict(dict)
    for fitting in Fitting.objects.filter(retired_at__isnull=True):
        on[fitting.drum_id][fitting.side] = fitting
    for drum in Drum.objects.select_related("place", "owner").prefetch_related("kits").order_by("tag"):
        yield line_of(_cells(drum, on[drum.pk], unit))
