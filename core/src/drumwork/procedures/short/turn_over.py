"""Turn it over for tonight: a cratered resonant head and a better batter (trade §11). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings, openings
from drumwork.work import effects
from drumwork.work.conditions import Has
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["TURN_OVER"]


def _suits(drum: DrumFacts) -> str:
    return "" if drum.traits.legs or drum.traits.mount else "Only a tom can be played from its other side."


_LOOK = Step(
    "look",
    "Look",
    Tick(),
    "Look at both heads: craters can be played on, but not tuned away from below. The better head goes below tonight.",
    None,
    (
        Point("Better one: no craters, no tear at its hoop"),
        Point("Nobody plays on a split or torn head: then this is no help"),
        Point("If both are done, this is no help either: new heads"),
    ),
    does=("lay-out", "look"),
    tools=(*openings.KEYS, "cloth tape"),
    cites=("§11", "N6"),
    looks_at=(Where.HEAD, Where.ROD),
    why="A cratered resonant head cannot be tuned away; a cratered batter can be played.",
)
_TURN = Step(
    "turn",
    "Turn over",
    Tick(),
    "Turn the drum over and change round what it stands on.",
    None,
    (
        Point("Legs out, in from the other end, the same height", Has("legs")),
        Point("Mount holds this way up too; if not, a snare stand under it", Has("mount")),
        Point("Tape on the shell: turned over, and the date"),
    ),
    does=("other-head",),
    cites=("§11", "§13"),
    looks_at=(Where.HARDWARE,),
    leaves=Leaves(up=Up.RESONANT),
    why="The better head belongs below, where the tone is made.",
)
_CLEAR = Step(
    "clear",
    "Clear",
    Clear(),
    "One quick round on the head that is now on top: {tap} at each rod, the worst rod first. Enough for tonight is enough.",
    Side.RESONANT,
    cautions=("tapping",),
    does=("read", "clear"),
    tools=(*openings.KEYS, *openings.READ_WITH),
    cites=("F2", "F3", "§13"),
    looks_at=(Where.HEAD, Where.ROD),
    needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
    why="The head on top now was tuned to be below.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    close = endings.close(None, "Close the job. It is owed two new heads: say so to the owner.", "Close", writes=False)
    return _LOOK, _TURN, _CLEAR, endings.mount(None), close


def _effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.Log("done", "Turned over for tonight"), effects.BookCheck(Side.RESONANT))


TURN_OVER = Procedure(
    id="turn-over",
    version=1,
    title="Turn it over for tonight",
    parts=(Part.HEADS,),
    suits=_suits,
    steps=_steps,
    effects=_effects,
    cites=("§11", "§13", "N6"),
    minutes=8,
    rank=86,
)
