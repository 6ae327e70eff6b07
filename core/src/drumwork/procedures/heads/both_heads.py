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
from drumwork.work.asks import Question
from drumwork.work.conditions import Way
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["BOTH_HEADS", "NEW_HEADS", "WRITE_BOTH", "both_effects", "closing_both"]


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


NEW_HEADS = Point("Both new heads looked over. No snags, no tears, flesh hoops not bent")
WRITE_BOTH = "Write month and year on both heads near their logos, then close the job."
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
    asks=(
        Question("middle-batter", "Batter in the middle, the other muted", unit="pitch", keeps="batter in the middle"),
        Question("middle-resonant", "Resonant in the middle", unit="pitch", keeps="resonant in the middle"),
    ),
    looks_at=(Where.HEAD, Where.HARDWARE),
    needs=Needs(up=(Up.EDGE,), head=(HeadIs.TIGHT,), other=(HeadIs.TIGHT,), lever=Lever.OFF),
    why="Two heads that are each even can still disagree.",
)


def closing_both(first: Side, drum: DrumFacts, close: str, writes: bool = True) -> tuple[Step, ...]:
    """What follows once both heads are on and clear: the first read again, the two compared, wires, the kit."""
    return (
        _again(first),
        _TOGETHER,
        *wires_back(drum, snare_side.ease_and_clear(both=True)),
        endings.ring_in(None),
        endings.rest(None),
        endings.mount(None),
        endings.patch(None),
        endings.close(None, close, writes=writes, title="Write on it" if writes else "Close"),
    )


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    first = ways.first_head.on(drum.traits)
    second = first.other
    return (
        openings.lay_out(None, NEW_HEADS, first),
        openings.ring_out(None),
        openings.mark(None, both=True),
        *one_head(first, drum, f"{first.value}-", back=False),
        *one_head(second, drum, f"{second.value}-", out=False),
        *closing_both(first, drum, WRITE_BOTH),
    )


def both_effects(part: Part) -> tuple[Effect, ...]:
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
    effects=both_effects,
    cites=("§3", "§7", "N6"),
    changes_heads=True,
    minutes=80,
    rank=30,
)
