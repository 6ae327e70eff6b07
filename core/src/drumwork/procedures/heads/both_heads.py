"""Both heads in one job, in the workshop's order; the first is read again after the second, since it creeps (trade §3, §7).

As the drum wants it, unless a school is chosen: of a bass drum the batter goes first, since it chooses the note (§7); of a snare too, since wires and
thin film come last.
"""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, openings, snare_side
from drumwork.procedures.shared.one_head import one_head
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.procedures.shared.wires import wires_back
from drumwork.work import effects
from drumwork.work.conditions import Way
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["BOTH_HEADS"]


def _again(first: Side) -> Step:
    return Step(
        "read-again",
        f"{first.value.capitalize()} again",
        Clear(again=True),
        f"Read the {first.value} head once more: it creeps while the other comes to pitch. Nudge it back.",
        first,
        cautions=("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="It creeps while the other head comes to pitch: unread, both are off.",
    )


_TOGETHER = Step(
    "together",
    "Together",
    Tick(),
    "Tap each head softly in the middle, a hand on the other, then both free: do they make one sound?",
    None,
    (
        Point("One note that dies evenly; no wavering, no second note", Way("resonant", "equal")),
        Point(
            "Resonant higher is this workshop’s way: the second note lies above the batter’s", Way("resonant", "higher")
        ),
        Point(
            "Resonant lower is this workshop’s way: the second note lies below the batter’s", Way("resonant", "lower")
        ),
        Point("If the sound is wrong, change the resonant head first"),
    ),
    does=("target",),
    cites=("F7", "N6"),
    looks_at=(Where.HEAD, Where.HARDWARE),
    needs=Needs(up=(Up.EDGE,), head=(HeadIs.TIGHT,), other=(HeadIs.TIGHT,), lever=Lever.OFF),
    why="Two heads that are each even can still disagree.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    first = ways.first_head.on(drum.traits)
    second = first.other
    heads = Point("Both new heads looked over. No snags, no tears, flesh hoops not bent")
    return (
        openings.lay_out(None, heads, first),
        openings.ring_out(None),
        openings.mark(None, both=True),
        *one_head(first, drum, f"{first.value}-", back=False),
        *one_head(second, drum, f"{second.value}-", out=False),
        _again(first),
        _TOGETHER,
        *wires_back(drum, snare_side.ease_and_clear(both=True)),
        endings.ring_in(None),
        endings.rest(None),
        endings.mount(None),
        endings.patch(None),
        endings.close(None, "Write month and year on both heads near their logos, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    each = [
        effect
        for side in Side
        for effect in (*closings.new_head_on(side), effects.AnswerChecks(side), effects.BookCheck(side))
    ]
    return (*each, effects.CarryFindings(), effects.KeepAnswers(), effects.Log("fitted"))


BOTH_HEADS = Procedure(
    id="both-heads",
    version=1,
    title="Both heads",
    parts=(Part.HEADS,),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§7", "N6"),
    changes_heads=True,
    minutes=80,
    rank=30,
)
