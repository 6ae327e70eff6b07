"""What is looked at when something new arrives, and what goes back (trade §3.2, §8.1; common practice, no source)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from drumwork.shelf.lines import Sort

__all__ = ["ARRIVALS", "Arrival", "arrivals_for"]


@dataclass(frozen=True, slots=True)
class Arrival:
    """A fault to look for. `findings` names it in the one vocabulary, where it stands there."""

    id: str
    words: str
    look: str
    of: tuple[Sort, ...]
    finding: str = ""


_HEAD, _WIRES = (Sort.HEAD,), (Sort.WIRES,)
_METAL = (Sort.ROD, Sort.CLAW, Sort.PART)
ARRIVALS: Final = (
    Arrival("snag", "snag or scratch in the film", "Tilt it under a lamp and look along the film.", _HEAD),
    Arrival("run", "a run in the mesh", "Hold it against the light.", _HEAD, "run-in-mesh"),
    Arrival("tear", "film coming out of its hoop", "Round the hoop with a thumb.", _HEAD, "tear-at-hoop"),
    Arrival("hoop-bent", "flesh hoop bent", "Lay it on something flat: it lies without rocking.", _HEAD, "flesh-hoop-bent"),
    Arrival("strand-bent", "strands bent or missing", "Lay the set flat and count.", _WIRES, "strand-bent"),
    Arrival("plate-bent", "end plate bent", "Look along it.", _WIRES, "end-plate-bent"),
    Arrival("strap-frayed", "strap or cord frayed", "Run it through two fingers.", _WIRES, "strap-frayed"),
    Arrival("bent", "bent", "Roll it on something flat.", _METAL, "rod-bent"),
    Arrival("thread-bad", "thread burred or wrong", "Start it by hand in a good casing.", (Sort.ROD,), "thread-gritty"),
    Arrival("wrong", "not what was ordered", "Size and line against the order.", tuple(Sort)),
)  # fmt: skip


def arrivals_for(sort: Sort) -> tuple[Arrival, ...]:
    """What to look for on one sort of thing."""
    return tuple(each for each in ARRIVALS if sort in each.of)
