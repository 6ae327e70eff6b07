"""Mesh for quiet practice, and film again (trade §4, C7). Common practice, no published source.

Mesh is not cleared by pitch: full turns, then half turns, until the rebound is right. The resonant side only holds it in shape.
"""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings, found, openings, snare_side
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.procedures.shared.suits import rods
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan
from drumwork.rods.patterns import from_slack
from drumwork.work import effects
from drumwork.work.conditions import Found, Has
from drumwork.work.effects import Effect
from drumwork.work.kinds.steps import Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["MESH_CHECK", "MESH_HEADS"]

_B, _R = Side.BATTER, Side.RESONANT
_FULL, _HALF = Turns.of(1), Turns.of(1, 2)
_ENOUGH = "Does the stick come back as it should, in the middle and near the edge?"


def _up(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    order = from_slack(drum.layouts[side], ways.pattern)
    return Passes(
        (PassPlan(_FULL, order), PassPlan(_HALF, order), PassPlan(_HALF, order, "the rebound is right")),
        _HALF,
        enough=_ENOUGH,
    )


def _a_half(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    return Passes(
        (PassPlan(_HALF, from_slack(drum.layouts[side], ways.pattern), "the rebound is right"),), _HALF, enough=_ENOUGH
    )


_WEAVE = Step(
    "weave",
    "Weave",
    Tick(),
    "Hold the new mesh against the light and look along the weave before anything comes off the drum.",
    _B,
    (
        Point("No run, no pulled thread, flesh hoop not bent"),
        Point("A run in it: this one goes back", Found("run-in-mesh")),
    ),
    does=("look",),
    cites=("§4",),
    looks_at=(Where.HEAD,),
)


def _set(side: Side, prefix: str) -> Step:
    return Step(
        f"{prefix}set-head",
        "Set mesh",
        Tick(),
        "Lay the mesh on by its hoop, weave square to the badge, then the counter hoop on its marks.",
        side,
        (Point("Sits down all round; nothing of the weave caught under the hoop"),),
        does=("set-head", "set-hoop"),
        tools=("the new head",),
        looks_at=(Where.HEAD, Where.HOOP),
    )


def _fingers(side: Side, prefix: str) -> Step:
    only = " The resonant side stays at that: it carries no sound." if side is _R else ""
    return Step(
        f"{prefix}fingers",
        "Fingers",
        Tick(),
        f"Start the rods by hand, facing pairs, hoop centred, then finger-tight, two facing rods at a time.{only}",
        side,
        (Point("Every rod straight in its thread"), Point("All alike"), *found.FINGER_POINTS),
        does=("start-rods", "finger-tight"),
        cites=("§4",),
        looks_at=(Where.ROD, Where.HOOP),
        zero=True,
    )


def _rebound() -> Step:
    return Step(
        "rebound",
        "Rebound",
        _up,
        "A full turn at every rod, then half turns, until a stick comes back as it should. No pitch to listen for.",
        _B,
        (Point("Same feel in the middle and near the edge"), Point("Some go to the limit for rebound; the maker's figure comes first"), *found.TENSION_POINTS),
        ("over-tension", "driver"),
        does=("tension",),
        tools=(*openings.KEYS, "stick"),
        cites=("§4",),
        looks_at=(Where.ROD, Where.HEAD),
    )  # fmt: skip


def _head(side: Side, drum: DrumFacts, prefix: str) -> tuple[Step, ...]:
    wires = (snare_side.wires_off(prefix),) if side is _R and drum.traits.wires else ()
    return (
        *wires,
        openings.slacken(side, prefix),
        openings.lift_off(side, prefix),
        openings.clean(side, prefix),
        *bare_drum_steps(side, prefix),
        _set(side, prefix),
        _fingers(side, prefix),
    )


_KEPT = Step(
    "keep-film",
    "Film kept",
    Tick(),
    "The film heads that came off are laid flat, named and dated: they come back on this drum's own edge.",
    None,
    (Point("Wires bagged with the drum's tag", Has("wires")), Point("A dented or creased one is thrown out, not kept")),
    does=("look",),
    tools=("marker", "bag"),
    cites=("C10",),
    looks_at=(Where.HEAD,),
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        openings.lay_out(None, Point("Both mesh heads looked over, the right size for this shell")),
        openings.ring_out(None),
        openings.mark(None, both=True),
        _WEAVE,
        *_head(_R, drum, "resonant-"),
        *_head(_B, drum, "batter-"),
        _rebound(),
        _KEPT,
        endings.mount(None),
        endings.patch(None),
        endings.close(None, "Write month and year on the mesh's hoop, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    each = [
        effect
        for side in Side
        for effect in (effects.TakeFromShelf(side), effects.ChangeHead(side), effects.AnswerChecks(side))
    ]
    return (
        *each,
        effects.CarryFindings(),
        effects.KeepAnswers(),
        effects.Log("done", "Mesh heads on"),
    )


def _look(side: Side) -> Step:
    return Step(
        "look",
        "Look",
        Tick(),
        "Look along the weave in low light, and press it with the palm all round.",
        side,
        (
            Point("No run, no fluff where the stick lands"),
            Point("A run in the mesh: replace it", Found("run-in-mesh")),
            Point("All rods there and none loose"),
        ),
        does=("lay-out", "look", "check-hardware"),
        cites=("§4",),
        looks_at=(Where.HEAD, Where.ROD),
    )


def _check_steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    again = Step(
        "rebound",
        "Rebound",
        _a_half,
        "Mesh gives in its first days. Half a turn more at every rod where the stick comes back slower than it did.",
        side,
        (Point("Same feel in the middle and near the edge"),),
        ("over-tension", "driver"),
        does=("tension",),
        tools=(*openings.KEYS, "stick"),
        cites=("§4", "N4"),
        looks_at=(Where.ROD, Where.HEAD),
    )
    close = endings.close(side, "Close the check. It goes into the drum's history.", "Close", writes=False)
    return (_look(side), *((again,) if side is _B else ()), close)


def _check_effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.Log("done", "Mesh looked after"), effects.AnswerChecks(Side(part.value)))


def _mesh_only(drum: DrumFacts) -> str:
    return (
        "" if drum.traits.rods and not drum.traits.film else "This drum carries film: its heads are cleared by pitch."
    )


MESH_HEADS = Procedure(
    id="mesh-heads",
    version=1,
    title="Mesh heads on",
    parts=(Part.HEADS,),
    suits=rods,
    steps=_steps,
    effects=_effects,
    cites=("§4", "C7"),
    changes_heads=True,
    mesh=True,
    minutes=50,
    rank=60,
)
MESH_CHECK = Procedure(
    id="mesh-check",
    version=1,
    title="Mesh, looked after",
    parts=(Part.BATTER, Part.RESONANT),
    suits=_mesh_only,
    steps=_check_steps,
    effects=_check_effects,
    cites=("§4", "N4"),
    answers_checks=True,
    minutes=8,
    offer="Look after the mesh",
    rank=71,
)
