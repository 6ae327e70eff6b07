"""Film heads again after mesh: both heads, with the mesh looked over and kept (trade §4, C10). Common practice, no published source."""

from __future__ import annotations

from dataclasses import replace

from drumwork.findings import Where
from drumwork.procedures.heads.both_heads import BOTH_HEADS
from drumwork.procedures.shared.suits import rods
from drumwork.work import effects
from drumwork.work.effects import Effect, Log
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["FILM_BACK"]

_KEEP = Step(
    "keep-mesh",
    "Mesh kept",
    Tick(),
    "The mesh that came off is looked through against the light, rolled loosely and named; it goes on again for practice.",
    None,
    (Point("A run in it: thrown out, not kept"), Point("Its own film heads go back only where they sat before: a seated film fits no other edge")),
    does=("look",),
    tools=("marker", "bag"),
    cites=("C10", "§4"),
    looks_at=(Where.HEAD,),
    why="Mesh kept whole saves the next change.",
)  # fmt: skip


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    film = BOTH_HEADS.steps(part, ways, drum)
    mounted = next(n for n, step in enumerate(film) if step.id == "mount")
    return (*film[:mounted], _KEEP, *film[mounted:])


def _effects(part: Part) -> tuple[Effect, ...]:
    return tuple(
        effects.Log("fitted", "Film heads again") if isinstance(each, Log) else each
        for each in BOTH_HEADS.effects(part)
    )


FILM_BACK = replace(
    BOTH_HEADS,
    id="film-back",
    title="Film heads again",
    suits=rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§4", "§7", "C10"),
    minutes=90,
    rank=61,
)
