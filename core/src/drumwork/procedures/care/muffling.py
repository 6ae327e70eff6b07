"""Muffling, least first (trade §9). Common practice, no published source."""

from __future__ import annotations

from drumwork.findings import Where
from drumwork.procedures.shared import endings
from drumwork.work import effects
from drumwork.work.asks import Option, Question
from drumwork.work.conditions import Found, Has
from drumwork.work.effects import Effect
from drumwork.work.hand import Needs, Up
from drumwork.work.kinds.steps import Tick
from drumwork.work.pictures import Picture
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["MUFFLING"]


def _step(
    name: str, title: str, say: str, *points: Point, why: str, tools: tuple[str, ...] = (), picture: Picture = ""
) -> Step:
    return Step(
        name,
        title,
        Tick(),
        say,
        None,
        points,
        does=("muffle",),
        tools=tools,
        cites=("§9",),
        looks_at=(Where.HEAD, Where.INSIDE),
        picture=picture,
        why=why,
    )


_HEAR = Step(
    "hear",
    "Hear it first",
    Tick(),
    "Play it in its place, with everything that was on it taken off. Muffling is decided for a room, and again when heads or room change.",
    None,
    (
        Point("Clear and at pitch: muffling hides an uneven head, it does not mend one"),
        Point("What was on it before is noted: what, and where"),
        Point("Loose or rotten muffling comes out", Found("muffler-loose")),
    ),
    ("tapping",),
    does=("lay-out", "listen-mounted"),
    cites=("§9", "N10"),
    looks_at=(Where.HEAD, Where.INSIDE),
    needs=Needs(up=(Up.PLAYED,)),
    why="Muffling hides an uneven head; it does not mend one.",
)


_ON_IT = tuple(
    Option(name, words)
    for name, words in (
        ("nothing", "nothing"),
        ("half-piece", "half a piece of gel or tape"),
        ("piece", "a piece of gel or tape"),
        ("two-pieces", "two pieces"),
        ("ring", "a loose ring"),
        ("towel", "a towel inside"),
        ("pad", "a pad"),
        ("pillow", "a pillow or blanket"),
        ("port-ring", "a port ring"),
    )
)
_WHERE = tuple(
    Option(name, words)
    for name, words in (
        ("batter-edge", "batter, near the hoop"),
        ("batter-middle", "batter, toward the middle"),
        ("resonant-edge", "resonant, near the hoop"),
        ("touching-batter", "inside, touching the batter"),
        ("touching-both", "inside, touching both"),
        ("touching-none", "inside, touching neither"),
    )
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    inside = drum.traits.rods
    return (
        _HEAR,
        _step(
            "piece",
            "A small piece",
            "Least first: half a piece of gel or tape near the edge of the batter. Play again before anything more goes on.",
            Point("Near the hoop it takes little; toward the middle it takes much"),
            Point("Enough? Then every step that follows is skipped"),
            why="Damping takes rebound and ring: what does least is tried first.",
            tools=("gel or tape",),
            picture="muffle-piece",
        ),
        _step("ring", "A ring", "Still ringing: a loose ring on the batter instead of pieces.", Point("Lies flat, no buzz"), why="A ring takes more than a piece and less than a towel.", tools=("damping ring",), picture="muffle-ring"),
        *(
            (
                _step(
                    "towel",
                    "A towel inside",
                    "Still too long: a towel inside, touching neither head. It takes the bounce out of the note and leaves the tuning.",
                    Point("One head comes off for it: that is a job of its own on that head, cleared again afterwards"),
                    why="Without cloth inside, the ball note stays.",
                    tools=("towel",),
                    picture="muffle-towel",
                ),
            )
            if inside
            else ()
        ),
        *(
            (
                _step(
                    "pad",
                    "A pad",
                    "Next, a pad that just touches the batter; then one against both heads; a pillow or blanket last of all.",
                    Point("Move the pillow before anything else is done to the drum"),
                    Point("More damping, less rebound under the beater"),
                    why="The more lies on the film, the less the beater comes back.",
                    tools=("pad or pillow",),
                    picture="muffle-pad",
                ),
            )
            if drum.traits.pedal
            else ()
        ),
        _ring_on_port(),
        Step(
            "note",
            "Note it",
            Tick(),
            "Write in a note what is on it now and where, so that it goes along to the job and is put back the same.",
            None,
            (Point("A spare of it travels with the drum"),),
            does=("muffle",),
            cites=("§9", "§15"),
            looks_at=(Where.HEAD, Where.INSIDE),
            asks=(
                Question("muffling", "On it now", _ON_IT, many=True, own=True, keeps="muffling"),
                Question("muffling-where", "Where", _WHERE, many=True, own=True, keeps="muffling sits"),
            ),
            why="What is not written down does not come along to the job.",
        ),
        endings.close(None, "Close the job. What was put where goes into the drum's history.", "Close", writes=False),
    )  # fmt: skip


def _ring_on_port() -> Step:
    return Step(
        "port-ring",
        "Port ring",
        Tick(),
        "A ring on the port's edge calms a ported front head before the drum is stuffed.",
        None,
        (Point("Pressed on all round; no edge of the film left to tear"),),
        when=Has("port"),
        does=("muffle",),
        tools=("port ring",),
        cites=("§9", "F8"),
        looks_at=(Where.HEAD,),
        why="An open cut rings and tears.",
    )


def _suits(drum: DrumFacts) -> str:
    return ""


def _effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.KeepAnswers(), effects.Log("done", "Muffling"))


MUFFLING = Procedure(
    id="muffling",
    version=1,
    title="Muffling",
    parts=(Part.HARDWARE,),
    suits=_suits,
    steps=_steps,
    effects=_effects,
    cites=("§9", "N10"),
    minutes=10,
    offer="Muffle it, least first",
    rank=80,
)
