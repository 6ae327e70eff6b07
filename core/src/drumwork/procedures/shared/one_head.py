"""One film head from slack to clear, for any drum with rods (trade §3.5–§3.14): the same for a job on one head and for each of two."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.procedures.shared import fitting, openings, snare_side
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.work.plan import DrumFacts, Step

__all__ = ["one_head", "put_on", "take_off"]


def take_off(side: Side, drum: DrumFacts, prefix: str = "") -> tuple[Step, ...]:
    """Slacken and lift off; from a snare side its wires first."""
    if side is Side.RESONANT and drum.traits.wires:
        return snare_side.take_off(prefix)
    return openings.slacken(side, prefix), openings.lift_off(side, prefix)


def put_on(side: Side, drum: DrumFacts, prefix: str = "") -> tuple[Step, ...]:
    """Set, fingers, seat, tension, clear; a snare side goes its own way."""
    if side is Side.RESONANT and drum.traits.wires:
        return snare_side.put_on(prefix)
    return (
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


def one_head(side: Side, drum: DrumFacts, prefix: str = "", out: bool = True, back: bool = True) -> tuple[Step, ...]:
    """From taking off to clear, cleaned between. What lies inside comes `out` and goes `back`; nothing does inside a snare."""
    inside = not (side is Side.RESONANT and drum.traits.wires)
    return (
        *take_off(side, drum, prefix),
        *([openings.inside_out(side, prefix)] if out and inside else []),
        openings.clean(side, prefix),
        *bare_drum_steps(side, prefix),
        *([openings.inside_in(side, prefix)] if back and inside else []),
        *put_on(side, drum, prefix),
    )
