"""Which drums a procedure is for, and why not, in words."""

from __future__ import annotations

from drumwork.work.plan import DrumFacts

__all__ = ["film_on_rods", "not_snare_film", "rope", "rods", "wires"]

_ROPE = "This drum is tensioned by rope; there are no rods to lead along."


def rods(drum: DrumFacts) -> str:
    return "" if drum.traits.rods else _ROPE


def film_on_rods(drum: DrumFacts) -> str:
    """Drums with film heads on rods."""
    if not drum.traits.rods:
        return _ROPE
    return "" if drum.traits.film else "Mesh goes on another way: see its own procedure."


def not_snare_film(drum: DrumFacts) -> str:
    """Film on rods on both sides, none of it the thin film of a snare side."""
    if drum.traits.wires:
        return "A snare side has thin film and wires; it has its own procedures."
    return film_on_rods(drum)


def wires(drum: DrumFacts) -> str:
    """Drums with snare wires."""
    return "" if drum.traits.wires else "This drum has no snare wires."


def rope(drum: DrumFacts) -> str:
    """Rope-tension drums."""
    return "This drum has tension rods, not a rope." if drum.traits.rods else ""
