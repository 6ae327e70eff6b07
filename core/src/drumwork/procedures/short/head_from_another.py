"""A head from another drum, for tonight: better than none (trade §10 C10, §13). Common practice, no published source."""

from __future__ import annotations

from dataclasses import replace

from drumwork.procedures.heads.new_batter_head import NEW_BATTER_HEAD
from drumwork.work import effects
from drumwork.work.asks import Question
from drumwork.work.effects import Effect, Log
from drumwork.work.plan import DrumFacts, Part, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["HEAD_FROM_ANOTHER"]

_FROM = Question("head-from", "From which drum", own=True, needed=True, keeps="head taken from")
_POINTS = (
    Point("The same size, and the same kind of head: batter for batter"),
    Point("From a drum that is not played tonight; enter it under “Lent”, so that its record says where its head is"),
    Point("A seated film sits badly on another edge: it will clear less well, and it is for tonight"),
    Point("No tear at its hoop, no crater where it will be played"),
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    lay_out, *others = NEW_BATTER_HEAD.steps(part, ways, drum)
    close = replace(others[-1], say="Write on the head which drum it came from, and the date. Then close the job.")
    return replace(lay_out, points=(*_POINTS, *lay_out.points[1:]), asks=(_FROM,)), *others[:-1], close


def _effects(part: Part) -> tuple[Effect, ...]:
    """As with a new head, but that no pitch of it becomes the drum's usual one."""
    kept = (each for each in NEW_BATTER_HEAD.effects(part) if each.kind != "keep-target")
    return tuple(effects.Log("fitted", "Head from another drum") if isinstance(each, Log) else each for each in kept)


HEAD_FROM_ANOTHER = replace(
    NEW_BATTER_HEAD,
    id="head-from-another",
    title="Batter head from another drum, for tonight",
    steps=_steps,
    effects=_effects,
    cites=("C10", "§13"),
    minutes=35,
    rank=87,
)
