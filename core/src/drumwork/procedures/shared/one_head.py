"""One film head from slack to clear, for any drum with rods (trade §3.5–§3.14): the same for a job on one head and for each of two."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.procedures.shared import fitting, openings, snare_side
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.work.plan import DrumFacts, Step

__all__ = ["one_head"]


def one_head(side: Side, drum: DrumFacts, prefix: str = "", out: bool = True, back: bool = True) -> tuple[Step, ...]:
    """Slacken, lift off, clean, set, fingers, seat, tension, clear; a snare side goes its own way. What lies inside comes `out` and goes `back`."""
    if side is Side.RESONANT and drum.traits.wires:
        return snare_side.one_head(prefix)
    return (
        openings.slacken(side, prefix),
        openings.lift_off(side, prefix),
        *([openings.inside_out(side, prefix)] if out else []),
        openings.clean(side, prefix),
        *bare_drum_steps(side, prefix),
        *([openings.inside_in(side, prefix)] if back else []),
        fitting.foam(side, prefix),
        fitting.port(side, prefix),
        fitting.cut(side, prefix),
        fitting.set_head(side, prefix),
        fitting.fingers(side, prefix),
        fitting.seat(side, prefix),
        fitting.tension(side, prefix),
        fitting.wrinkles(side, prefix),
        fitting.clear(side, prefix),
        fitting.some_down(side, prefix),
    )
