"""A two-headed drum of a kit, as tests of kits take it."""

from __future__ import annotations

from drumwork.kits import KitDrum
from drumwork.membrane import Film, Head
from drumwork.quantities import Length, Pitch

__all__ = ["drum"]

INCH = 0.0254


def drum(name: str, inches: float, depth: float, lug: float | None, **more: object) -> KitDrum:
    """A usual drum: 10 mil films, its resonant head a whole tone over the batter."""
    rods = 6 if inches < 14 else 8
    heads = [Head(Film.from_mil(10), Length(inches * INCH), rods) for _ in range(2)]
    now = (Pitch(lug), Pitch(lug * 2 ** (200 / 1200))) if lug else (None, None)
    return KitDrum(name, heads[0], heads[1], Length(depth * INCH), now, **{"above": 200.0, **more})  # type: ignore[arg-type]
