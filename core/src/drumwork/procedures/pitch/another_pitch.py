"""A whole head brought up or down to another pitch, and evened again (trade §3.14, §6, P16). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, looks, openings
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.work import effects
from drumwork.work.conditions import Has, Way
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["ANOTHER_PITCH"]


def _choose(side: Side) -> Step:
    return Step(
        "choose",
        "Choose",
        Tick(),
        "Tap the middle softly for the note it has now, and say where the {side} head is to go.",
        side,
        (
            Point("Within film and rods: the Bench refuses what is beyond them"),
            Point("25° at every rod of a small drum is plainly heard; a quarter turn is a big move"),
            Point("Not a note that others play: the wires would answer it", Has("wires") & Way("snare_note", "none")),
        ),
        ("tapping",),
        does=("read", "target"),
        tools=openings.READ_WITH,
        cites=("P16", "§6"),
        looks_at=(Where.HEAD,),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Without the note it has now, nobody knows how far it is to go.",
    )


def _bring(side: Side) -> Step:
    return Step(
        "bring",
        "Bring it there",
        Clear(),
        "Tap round, then turn every rod by what the round says: all up or all down together, and the uneven ones with them.",
        side,
        (Point("Equal steps, never one side first"), Point("Stop where a lug creaks or the hoop leans")),
        ("tapping", "over-tension", "driver"),
        does=("read", "tension", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("§6", "F3"),
        looks_at=(Where.ROD, Where.HEAD, Where.HOOP),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Uneven steps undo the clearing.",
    )


def _again(side: Side) -> Step:
    return Step(
        "clear",
        "Clear",
        Clear(again=True),
        "Every change of overall pitch needs another round: tap {tap} at each rod and even it again.",
        side,
        cautions=("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Every change of overall pitch undoes some of the clearing.",
    )


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    return (
        looks.lay_out_to_tune(side),
        openings.ring_out(side),
        *looks.wires_off_to_tune(side, drum),
        _choose(side),
        _bring(side),
        _again(side),
        looks.other_head(side),
        *looks.wires_on_after_tuning(side, drum),
        endings.ring_in(side),
        endings.mount(side),
        endings.close(side, "Close the job. The new pitch goes into the drum's history.", "Close", writes=False),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    side = Side(part.value)
    return (
        *closings.read_on(side),
        effects.CarryFindings(),
        effects.Log("checked", "Another pitch"),
        effects.AnswerChecks(side),
    )


ANOTHER_PITCH = Procedure(
    id="another-pitch",
    version=1,
    title="Another pitch, {part}",
    parts=(Part.BATTER, Part.RESONANT),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§6", "P16"),
    minutes=15,
    offer="Bring the {part} to another pitch",
    rank=72,
)
