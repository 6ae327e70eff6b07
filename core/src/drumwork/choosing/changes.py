"""What changes against the head that is on: computed where physics can, said as a rule where it cannot."""

from __future__ import annotations

import math
from typing import Any, Final

from drumwork.choosing.specs import Spec
from drumwork.membrane import Film
from drumwork.membrane.modes import Membrane
from drumwork.sources.materials import METRES_PER_MIL

__all__ = ["changes"]

_USUAL_RADIUS_M: Final = 0.1778
"""Half of 14 inches, where nobody knows the drum's width: the air's share depends on it a little."""
_BY_RULE: Final = {"brightness": "bright", "sustain": "sustain", "stick_response": "sensitive", "life": "life"}
_SAME: Final = 0.15


def _density(spec: Spec) -> float:
    """kg/m², coating included; finishes other than clear and smooth are coats."""
    return Film(
        spec.plies, (spec.mil or 10) * METRES_PER_MIL, spec.finish in ("coated", "fibre", "suede")
    ).density_kg_per_m2


def _cents(old: Spec, new: Spec, radius_m: float, mode: tuple[int, int]) -> float:
    """How far a mode moves at the same tension: f ∝ 1/√(film and the air that moves along)."""
    was, now = (Membrane(radius_m, _density(each)).loaded_density(mode) for each in (old, new))
    return 600 * math.log2(was / now)


def _more(difference: float) -> str:
    if abs(difference) <= _SAME:
        return "same"
    return ("much " if abs(difference) > 0.9 else "") + ("more" if difference > 0 else "less")


def changes(now: Spec, new: Spec, diameter_in: float | None = None) -> dict[str, Any]:
    """`pitch_cents` (at the rods) and `fundamental_cents` at the same tension, computed; brightness, sustain, stick_response, life as
    less, same, more, by rule. `computed` names the first two. None for mesh, which has no pitch.
    """
    radius = _USUAL_RADIUS_M if diameter_in is None else diameter_in * 0.0254 / 2
    pitched = not now.mesh and not new.mesh
    said: dict[str, Any] = {
        "pitch_cents": round(_cents(now, new, radius, (1, 1))) if pitched else None,
        "fundamental_cents": round(_cents(now, new, radius, (0, 1))) if pitched else None,
    }
    for name, axis in _BY_RULE.items():
        said[name] = _more(new.tends[axis] - now.tends[axis])
    return said | {"computed": ["pitch_cents", "fundamental_cents"] if pitched else []}
