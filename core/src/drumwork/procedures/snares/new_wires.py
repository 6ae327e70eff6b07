"""New snare wires, and wires set again (trade §8, N8). Common practice, no published source."""

from __future__ import annotations

from drumwork.findings import Where
from drumwork.procedures.shared import endings, snare_side
from drumwork.procedures.shared.suits import wires
from drumwork.procedures.shared.wires import FROM_ABOVE, butt_side, fine, knob_back, level, on_off, strainer_side
from drumwork.work import effects
from drumwork.work.asks import Question
from drumwork.work.conditions import Found, Has
from drumwork.work.effects import Effect
from drumwork.work.hand import Leaves, Lever, Needs, Up, WiresAre
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["LOOK", "NEW_WIRES", "OLD_OFF", "SET_WIRES", "SOFTLY", "WHICH"]

_AT = (Where.WIRES, Where.STRAINER)


def _lay_out(*points: Point, asks: tuple[Question, ...] = ()) -> Step:
    return Step(
        "lay-out",
        "Lay out",
        Tick(),
        "Drum upside down on the soft table, snare side up, lever off. Clear both heads first: wires are set on a drum that is in tune.",
        None,
        (*points, Point("Both heads even and at pitch")),
        does=("lay-out", "wires-off"),
        tools=("small screwdriver", "stick", "soft-topped table", "rags"),
        cites=("§8",),
        looks_at=(Where.HEAD, *_AT),
        asks=asks,
        leaves=Leaves(up=Up.RESONANT, lever=Lever.OFF),
        why="Wires set on a drum out of tune are set again.",
    )


WHICH = Question("wires", "Which wires go on", among="wire-lines", own=True)
"""Asked of the workshop's lines of wires; fitted under that name when the job closes."""


LOOK = Step(
    "look",
    "Look",
    Tick(),
    "Look at strands, end plates and straps before anything is loosened.",
    None,
    (
        Point("Strands straight, none broken or missing; plates not bent"),
        Point("Straps or cords not stretched or frayed: they are renewed with the wires when in doubt"),
        Point("Strap or cord renewed, the same length both sides", Found("strap-stretched") | Found("strap-frayed")),
        Point("Lever holds up and lets go; its screws snug", Found("strainer-slips") | Found("strainer-wont-drop")),
        Point("The shell has no bed here: wires lie flat only if the plates are straight", ~Has("bed")),
    ),
    ("strands",),
    does=("look", "check-hardware"),
    cites=("§8", "§11"),
    looks_at=_AT,
    why="A bent or broken strand dulls and buzzes, whatever is tuned.",
)

OLD_OFF = Step(
    "strainer-off",
    "Old wires off",
    Tick(),
    "Now free the strainer side, and lift the old wires away by their plates.",
    None,
    (Point("Head under them wiped, dents looked at"), Point("Old wires wrapped before they are thrown out")),
    ("strands",),
    does=("wires-off",),
    tools=("small screwdriver", "tape"),
    looks_at=(*_AT, Where.HEAD),
    needs=Needs(up=(Up.RESONANT,), lever=Lever.OFF, wires=(WiresAre.STRAINER,)),
    if_so=True,
    leaves=Leaves(wires=WiresAre.NONE),
    why="Broken strands cut the hand, and the film too.",
)

SOFTLY = Step(
    "soft-strokes",
    "Play it softly",
    Tick(),
    "Play it softly, near the edge and in the middle, lever up and down.",
    None,
    (Point("Answers at a whisper near the edge"), Point("Silent with the lever down")),
    does=("wires-test", "listen-mounted"),
    cites=("§8", "N10"),
    looks_at=(*_AT, Where.ROD),
    needs=Needs(up=FROM_ABOVE, wires=(WiresAre.ON,)),
    leaves=Leaves(lever=Lever.ON),
    why="What answers a hard stroke may be dead at a soft one.",
)


def _new(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        _lay_out(Point("New wires looked over: as long as this drum asks for, no strand bent"), asks=(WHICH,)),
        LOOK,
        snare_side.wires_off(),
        OLD_OFF,
        knob_back(),
        strainer_side(),
        butt_side(),
        *level(),
        *on_off(),
        fine(),
        SOFTLY,
        endings.close(None, "Write the date on the butt side of the strap, then close the job."),
    )


def _again(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        _lay_out(),
        LOOK,
        snare_side.wires_off(),
        knob_back(),
        strainer_side(),
        butt_side(),
        *level(),
        *on_off(),
        fine(),
        SOFTLY,
        endings.close(None, "Close the job. It goes into the drum's history.", "Close", writes=False),
    )


def _new_effects(part: Part) -> tuple[Effect, ...]:
    return (effects.ChangeWires(), effects.CarryFindings(), effects.Log("done", "New snare wires"))


def _again_effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.Log("done", "Snare wires set"))


NEW_WIRES = Procedure(
    id="new-wires",
    version=1,
    title="New snare wires",
    parts=(Part.WIRES,),
    suits=wires,
    steps=_new,
    effects=_new_effects,
    cites=("§8", "N8"),
    minutes=25,
    rank=25,
)
SET_WIRES = Procedure(
    id="set-wires",
    version=1,
    title="Set the snare wires",
    parts=(Part.WIRES,),
    suits=wires,
    steps=_again,
    effects=_again_effects,
    cites=("§8", "N8"),
    minutes=15,
    rank=26,
)
