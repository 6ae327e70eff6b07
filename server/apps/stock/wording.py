"""How lines of the shelf are said."""

from __future__ import annotations

from typing import Final

from apps.heads.models import StockItem
from apps.register.schemas import length_words
from drumwork.quantities import Length
from drumwork.shelf import Sort

__all__ = ["called", "order_of", "size_of"]

_ORDER: Final = {sort.value: n for n, sort in enumerate(Sort)}


def size_of(item: StockItem, unit: str) -> str:
    """'14 in', '52 mm'; '' for what has none. What is not fitted to a drum's width is measured in millimetres everywhere."""
    if item.diameter_m is not None:
        return f"{length_words(item.diameter_m, unit)} {unit}"
    return f"{Length(item.length_m).mm:g} mm" if item.length_m is not None else ""


def called(item: StockItem, unit: str) -> str:
    """A line in full: 'single 10 coated, 14 in', 'used' said first."""
    size = size_of(item, unit)
    sort = "wires, " if item.sort == Sort.WIRES else "rod " if item.sort == Sort.ROD else ""
    return f"{'used ' if item.used else ''}{sort}{item.named}{f', {size}' if size else ''}"


def order_of(item: StockItem) -> tuple[int, bool, str, float]:
    """By sort, new before used, by name, by size."""
    return _ORDER[item.sort], item.used, item.named.lower(), item.diameter_m or item.length_m or 0.0
