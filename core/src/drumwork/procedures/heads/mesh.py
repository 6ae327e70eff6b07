"""Mesh for quiet practice, and film again (trade §4, C7). Common practice, no published source.

Mesh is not cleared by pitch: one turn, then half turns, until the rebound is right (F14). The resonant head stays as it is.
"""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings, found, openings
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.procedures.shared.suits import rods
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan
from drumwork.rods.patterns import from_slack
from drumwork.work import effects
from drumwork.work.conditions import Found
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
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
    why="A run seen late costs the whole job again.",
)


def _set() -> Step:
    return Step(
        "set-head",
        "Set mesh",
        Tick(),
        "Lay the mesh on by its hoop, weave square to the badge, then the counter hoop on its marks.",
        _B,
        (Point("Sits down all round; nothing of the weave caught under the hoop"),),
        does=("set-head", "set-hoop"),
        tools=("the new head",),
        looks_at=(Where.HEAD, Where.HOOP),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.OFF,), free=True),
        leaves=Leaves(head=HeadIs.SLACK),
        why="A thread caught under the hoop starts a run.",
    )


def _fingers() -> Step:
    return Step(
        "fingers",
        "Fingers",
        Tick(),
        "Start the rods by hand, facing pairs, hoop centred, then finger-tight, two facing rods at a time.",
        _B,
        (Point("Every rod straight in its thread"), Point("All alike"), *found.FINGER_POINTS),
        does=("start-rods", "finger-tight"),
        cites=("§4",),
        looks_at=(Where.ROD, Where.HOOP),
        zero=True,
        needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,)),
        leaves=Leaves(head=HeadIs.ZERO),
        why="Fingers load all rods alike, so counts from here mean something. Off centre, a head gets odd spots.",
    )


def _press() -> Step:
    return Step(
        "seat",
        "Press",
        Tick(),
        "Press the middle gently with your palm, and again between the passes.",
        _B,
        (Point("Gently: a thread that is pulled starts a run"),),
        ("no-standing",),
        does=("seat",),
        cites=("§4",),
        looks_at=(Where.HEAD,),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.ZERO,)),
        why="Mesh that was never pressed gives in its first evening.",
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
        needs=Needs(up=(Up.HAND,), head=(HeadIs.ZERO, HeadIs.TIGHT,)),
        leaves=Leaves(head=HeadIs.TIGHT),
        why="Too tight for one player is right for another: only the stick tells.",
    )  # fmt: skip


_TAP_ROUND = Step(
    "tap-round",
    "Tap round",
    Tick(),
    "Tap at each rod: one that stands out, stiffer or slacker than the others, is brought to its neighbours.",
    _B,
    (Point("No pitch is asked for: the same feel and the same height of rebound"),),
    ("tapping",),
    does=("read",),
    tools=(*openings.KEYS, "stick"),
    cites=("§4",),
    looks_at=(Where.ROD, Where.HEAD),
    needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
    why="One hard rod is felt as a dead place beside it.",
)


_KEPT = Step(
    "keep-film",
    "Film kept",
    Tick(),
    "The film head that came off is laid flat, named and dated: it comes back on this drum's own edge.",
    None,
    (Point("A dented or creased one is thrown out, not kept"),),
    does=("look",),
    tools=("marker", "bag"),
    cites=("C10",),
    looks_at=(Where.HEAD,),
    why="A seated film fits no other edge.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    """Only the batter becomes mesh: the front film stays as it is, and so does what lies inside (§4)."""
    return (
        openings.lay_out(_B, Point("The new mesh head looked over, the right size for this shell")),
        openings.ring_out(_B),
        openings.mark(_B),
        _WEAVE,
        openings.slacken(_B),
        openings.lift_off(_B),
        openings.clean(_B),
        *bare_drum_steps(_B),
        _set(),
        _fingers(),
        _press(),
        _rebound(),
        _TAP_ROUND,
        _KEPT,
        endings.ring_in(_B),
        endings.mount(_B),
        endings.patch(_B),
        endings.close(_B, "Write month and year on the mesh's hoop, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    return (
        effects.TakeFromShelf(_B),
        effects.ChangeHead(_B),
        effects.AnswerChecks(_B),
        effects.CarryFindings(),
        effects.KeepAnswers(),
        effects.Log("done", "Mesh head on"),
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
        leaves=Leaves(up=Up.HAND, lever=Lever.OFF),
        why="A run seen early is replaced before it tears in use.",
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
        needs=Needs(
            up=(Up.HAND,),
            head=(
                HeadIs.ZERO,
                HeadIs.TIGHT,
            ),
        ),
        leaves=Leaves(head=HeadIs.TIGHT),
        why="Too tight for one player is right for another: only the stick tells.",
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
    title="Mesh on the batter",
    parts=(Part.BATTER,),
    suits=rods,
    steps=_steps,
    effects=_effects,
    cites=("§4", "C7"),
    changes_heads=True,
    mesh=True,
    minutes=40,
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
