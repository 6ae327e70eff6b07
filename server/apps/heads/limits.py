"""What a head from the shelf may be brought to, by the core's film and rods."""

from __future__ import annotations

from django.db.models import QuerySet

from apps.heads.models import Fitting, HeadLine, StockItem
from apps.register.models import Drum
from apps.register.sides import SideOf
from apps.workshops.errors import Refused
from drumwork.drums import Side, traits_of
from drumwork.membrane import Film, Head, assess_target
from drumwork.quantities import Length, Pitch

__all__ = ["fitted_head", "fitted_name", "head_of", "refuse_beyond", "refuse_beyond_limits", "usual_head"]

USUAL_MIL = 10.0  # trade §10: ordinary single ply, from memory of common stock
SNARE_SIDE_MIL = 3.0  # common practice, F4
NOT_FILM = ("mesh", "skin")
"""Finishes whose strength the core knows nothing of."""


def _film(line: HeadLine) -> Film:
    return Film.from_mil(line.film_mil, line.plies, coated=line.finish == "coated")


def head_of(item: StockItem, rods: int) -> Head | None:
    """The core's view of a head on a drum with so many rods; None where the core cannot judge it."""
    if item.head.finish in NOT_FILM or rods < 3:
        return None
    return Head(_film(item.head), Length(item.width_m), rods)


def _fitted_names(drum: Drum, side: str) -> QuerySet[Fitting, str]:
    return Fitting.objects.filter(drum=drum, side=side, retired_at__isnull=True).values_list("head", flat=True)


def fitted_name(drum: Drum, side: str) -> str:
    """What is fitted on this side, by its line's name; empty where nothing is on record."""
    return _fitted_names(drum, side).first() or ""


def fitted_head(drum: Drum, side: str) -> Head | None:
    """The head fitted on this side, where its line is known by name."""
    line = HeadLine.objects.filter(name__in=_fitted_names(drum, side)).first()
    rods = SideOf(drum, Side(side)).rods_there
    if line is None or line.finish in NOT_FILM or rods < 3:
        return None
    return Head(_film(line), Length(drum.diameter_m), rods)


def usual_head(drum: Drum, side: str) -> Head | None:
    """A head such drums usually carry (trade §10, common practice), for reckoning where none is on record."""
    rods = SideOf(drum, Side(side)).rods_there
    if not traits_of(drum.kind).film or rods < 3:
        return None
    mil = SNARE_SIDE_MIL if drum.snare_bed and side == "resonant" else USUAL_MIL
    return Head(Film.from_mil(mil), Length(drum.diameter_m), rods)


def _refuse(head: Head, wanted: Pitch, others: list[Film]) -> None:
    found = assess_target(head, wanted, others)
    if not found.allowed:
        raise Refused(
            "beyond_limits", f"{found.words} The head maker’s own limit comes first.", 422, target=found.words
        )


def _other_films(but: int | None = None) -> list[Film]:
    return [_film(line) for line in HeadLine.objects.exclude(finish__in=NOT_FILM).exclude(pk=but or 0)]


def refuse_beyond(drum: Drum, side: str, wanted: Pitch) -> None:
    """Refuse a wanted pitch the head fitted on this side should not carry; where none is on record, nothing is refused."""
    if head := fitted_head(drum, side):
        _refuse(head, wanted, _other_films())


def refuse_beyond_limits(item: StockItem | None, rods: int, wanted: Pitch) -> None:
    """Refuse a wanted lug pitch that film or rods should not carry, with the nearest safe one and a head that would reach it."""
    if item is not None and (head := head_of(item, rods)):
        _refuse(head, wanted, _other_films(item.line_id))
