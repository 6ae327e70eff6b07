"""What a head from the shelf may be brought to, by the core's film and rods."""

from __future__ import annotations

from apps.heads.models import HeadLine, StockItem
from apps.workshops.errors import Refused
from drumwork.membrane import Film, Head, assess_target
from drumwork.quantities import Length, Pitch

__all__ = ["head_of", "refuse_beyond_limits"]

NOT_FILM = ("mesh", "skin")
"""Finishes whose strength the core knows nothing of."""


def _film(line: HeadLine) -> Film:
    return Film.from_mil(line.film_mil, line.plies, coated=line.finish == "coated")


def head_of(item: StockItem, rods: int) -> Head | None:
    """The core's view of a head on a drum with so many rods; None where the core cannot judge it."""
    if item.line.finish in NOT_FILM or rods < 3:
        return None
    return Head(_film(item.line), Length(item.diameter_m), rods)


def refuse_beyond_limits(item: StockItem | None, rods: int, wanted: Pitch) -> None:
    """Refuse a wanted lug pitch that film or rods should not carry, with the nearest safe one and a head that would reach it."""
    if item is None or (head := head_of(item, rods)) is None:
        return
    others = [_film(line) for line in HeadLine.objects.exclude(finish__in=NOT_FILM).exclude(pk=item.line_id)]
    found = assess_target(head, wanted, others)
    if not found.allowed:
        raise Refused(
            "beyond_limits", f"{found.words} The head maker’s own limit comes first.", 422, target=found.words
        )
