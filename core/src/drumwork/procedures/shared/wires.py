"""Snare wires: off, on, level, tried, fine-tuned (trade §8, N8). Common practice, no published source."""

from __future__ import annotations

from typing import Final

from drumwork.findings import Where
from drumwork.work.asks import Option, Question
from drumwork.work.conditions import ALWAYS, Any_, Chose, Condition, Found, Has, Way
from drumwork.work.hand import Leaves, Lever, Needs, Up, WiresAre
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.words import Point

__all__ = [
    "FROM_ABOVE",
    "butt_side",
    "fine",
    "knob_back",
    "level",
    "on_off",
    "strainer_side",
    "try_lever",
    "wires_back",
]

_AT = (Where.WIRES, Where.STRAINER)
_SCREWDRIVER = ("small screwdriver",)
FROM_ABOVE = (Up.BATTER, Up.PLAYED)
"""A snare is played batter up."""
_CLAMPED = Needs(up=(Up.RESONANT,), lever=Lever.ON, wires=(WiresAre.ON,))
"""To clamp an end again."""


def knob_back() -> Step:
    return Step(
        "knob",
        "Knob back",
        Tick(),
        "Back the fine-tension knob almost all the way out: as loose as it goes while it is still in its thread.",
        None,
        (
            Point("Knob turns freely; a stripped one goes to repair before wires go on", Found("knob-stripped")),
            Point("Left tight now, the wires could never be switched off"),
        ),
        does=("wires-fit",),
        cites=("N8", "§8"),
        looks_at=_AT,
        picture="knob",
        needs=Needs(
            wires=(
                WiresAre.STRAINER,
                WiresAre.NONE,
            )
        ),
        leaves=Leaves(knob_out=True),
        why="A knob backed out leaves travel. Clamped without it, the wires never go off, or stay dead.",
    )


def strainer_side() -> Step:
    """Wires that are off the drum; those that hang at the strainer keep its setting, and this is left out."""
    return Step(
        "strainer",
        "Clamp the strainer end",
        Tick(),
        "Clamp the strainer end first, firm, its two screws in turn, the strap through straight.",
        None,
        (
            Point("Set a little toward the strainer: the pull from the butt end brings it to the middle"),
            Point("Strap or cord flat, no twist; both legs the same length"),
            Point("The flat face of the end plate against the head"),
            Point("A strainer that fine-tunes at both ends: both knobs out, both ends let through alike"),
        ),
        ("strands",),
        does=("wires-fit",),
        tools=("small screwdriver", "strap or cord"),
        cites=("§8",),
        looks_at=_AT,
        picture="strainer",
        needs=Needs(up=(Up.RESONANT,), lever=Lever.ON, wires=(WiresAre.NONE,), knob_out=True),
        leaves=Leaves(wires=WiresAre.STRAINER),
        if_so=True,
        why="A strainer end clamped firm keeps its setting.",
    )


def butt_side() -> Step:
    return Step(
        "butt",
        "Butt side",
        Tick(),
        "Draw the wires straight and firm at the butt plate, not hard, and clamp them, the two screws in turn.",
        None,
        (
            Point("Both ends the same distance from the edge, allowing for what pulling shifts"),
            Point("Strands centred over the bed, or over the middle of the head where the shell has none"),
            Point("Butt clamp snug", Found("butt-clamp-loose")),
        ),
        ("strands",),
        does=("wires-fit",),
        tools=_SCREWDRIVER,
        cites=("§8",),
        looks_at=_AT,
        picture="butt",
        needs=Needs(up=(Up.RESONANT,), lever=Lever.ON, wires=(WiresAre.STRAINER,), knob_out=True),
        leaves=Leaves(wires=WiresAre.ON),
        why="Clamped with the lever on, off is truly off. Slanted wires answer unevenly.",
    )


_HANGS: Final = "hangs"
_LEVEL = (Option("level", "level"), Option(_HANGS, "one side lower"))


def level() -> tuple[Step, ...]:
    """Looked along, and clamped again where they do not hang level."""
    look = Step(
        "level",
        "Look along the wires",
        Tick(),
        "Look straight along the bed from both sides: the wires hang level, neither side lower.",
        None,
        (Point("Strands centred over the bed"),),
        does=("wires-level",),
        tools=_SCREWDRIVER,
        cites=("§8",),
        looks_at=_AT,
        picture="level",
        needs=Needs(
            up=(
                Up.BATTER,
                Up.EDGE,
            ),
            lever=Lever.OFF,
            wires=(WiresAre.ON,),
        ),
        asks=(Question("level", "They hang", _LEVEL),),
        why="A side that hangs buzzes.",
    )
    again = Step(
        "level-again",
        "Clamp the low side again",
        Tick(),
        "Loosen the clamp of the end that hangs, draw its low side up, and clamp it again.",
        None,
        (Point("Both ends the same distance from the edge still; strands centred"),),
        ("strands",),
        when=Chose("level", _HANGS) | Found("wires-off-centre") | Found("wires-not-level"),
        does=("wires-fit",),
        tools=_SCREWDRIVER,
        cites=("§8",),
        looks_at=_AT,
        needs=_CLAMPED,
        why="A side that hangs buzzes.",
    )
    return look, again


RIGHT, STAYS, DEAD, BACKWARDS = "right", "stays-on", "dead", "backwards"
_FOUR = (
    Option(RIGHT, "Lever on: some wire. Off: silent. That is right"),
    Option(STAYS, "Lever on: wire. Off: wire too"),
    Option(DEAD, "Lever on: silent. Off: silent"),
    Option(BACKWARDS, "Lever on: silent. Off: buzzing"),
)
"""What the lever does, of four (trade §8.5, N8)."""
TRIES = 3


def _try(number: int) -> Step:
    """Tried with the lever on and off; after the first time only where it was not right before."""
    question = f"on-off-{number}" if number > 1 else "on-off"
    last = number == TRIES
    return Step(
        question,
        "On and off" if number == 1 else "Try it again",
        Tick(),
        "Tap softly with the lever on, then with the lever off. Which of the four is it?",
        None,
        (
            Point("Wires newly clamped: the knob near its loosest for this"),
            Point("Sound with the lever off: back to the knob", Found("wires-stay-on")),
            Point("Lever slips or will not let go: its screws and spring first; else repair", Found("strainer-slips") | Found("strainer-wont-drop")),
            *((Point("Still not right: strainer or straps are at fault. Say so under “Something found”; a qualified person looks at it"),) if last else ()),
        ),
        when=ALWAYS if number == 1 else _wrong(number - 1),
        does=("wires-test",),
        tools=("stick",),
        cites=("§8", "N8"),
        looks_at=_AT,
        picture="on-off",
        asks=(Question(question, "Which of the four is it", _FOUR, needed=True),),
        needs=Needs(up=FROM_ABOVE, wires=(WiresAre.ON,)),
        leaves=Leaves(lever=Lever.ON),
        why="Tried off first, a bad clamp shows before the knob is set.",
    )  # fmt: skip


def try_lever() -> tuple[Step, ...]:
    """Tried on wires that are clamped already, and put right by the knob where the knob can."""
    by_knob = (
        (STAYS, "Knob out", "Turn the knob out, half a turn at a time, until lever off is silent."),
        (DEAD, "Knob in", "Turn the knob in, half a turn at a time, until lever on speaks."),
    )
    turned = [
        Step(
            f"{what}-knob",
            title,
            Tick(),
            say,
            None,
            (Point("Nothing changes: they are clamped too short or too long. Close this job, and set the wires"),),
            when=_was(1, what),
            does=("wires-fit",),
            cites=("§8", "N8"),
            looks_at=_AT,
            picture="knob",
            needs=Needs(up=FROM_ABOVE, lever=Lever.ON, wires=(WiresAre.ON,)),
            why="The knob moves the wires a little; only the clamps move them far.",
        )
        for what, title, say in by_knob
    ]
    backwards = Step(
        "clamped-backwards",
        "Not by the knob",
        Tick(),
        "They were clamped with the lever off. Close this job, and set the wires: no knob puts that right.",
        None,
        when=_was(1, BACKWARDS),
        does=("look",),
        cites=("§8", "N8"),
        looks_at=_AT,
        why="The strainer draws the wrong way round until the butt end is clamped again with the lever on.",
    )
    return _try(1), *turned, backwards, _try(2)


def _was(number: int, *values: str) -> Condition:
    question = f"on-off-{number}" if number > 1 else "on-off"
    return Any_(tuple(Chose(question, value) for value in values))


def _wrong(number: int) -> Condition:
    return _was(number, STAYS, DEAD, BACKWARDS)


def _put_right(number: int, what: str, title: str, say: str) -> Step:
    """What follows from the answer before."""
    return Step(
        f"{what}-{number}", title, Tick(), say, None,
        (Point("Both ends the same distance from the edge still; strands centred"),),
        ("strands",),
        when=_was(number, what),
        why="Set right now, it is not the knob that is blamed later.",
        does=("wires-fit",),
        tools=_SCREWDRIVER,
        cites=("§8", "N8"),
        looks_at=_AT,
        needs=_CLAMPED,
    )  # fmt: skip


def on_off() -> tuple[Step, ...]:
    """Tried, put right by what was found, and tried again."""
    steps = [_try(1)]
    for number in range(1, TRIES):
        steps += [
            _put_right(
                number, STAYS, "Wires off the head",
                "The knob as far out as its thread lets it. Then loosen the butt clamp, let the wires go a little, and clamp them again.",
            ),
            _put_right(
                number, DEAD, "Wires nearer the head",
                "Loosen the butt clamp, draw the wires firmer, and clamp them again.",
            ),
            _put_right(
                number, BACKWARDS, "Clamp with the lever on",
                "They were clamped with the lever off. Loosen the butt clamp, draw the wires straight, and clamp them again.",
            ),
            _try(number + 1),
        ]  # fmt: skip
    return tuple(steps)


def fine() -> Step:
    return Step(
        "fine",
        "Fine tension",
        Tick(),
        "Tighten the knob while you tap softly near the edge: fuller and fuzzier when loose, crisper when tight, choked when too far.",
        None,
        (
            Point("Soft strokes near the edge still speak"),
            Point("All four rods beside the bed present and matched", Has("bed") & Way("bed_rods", "matched")),
            Point("Buzz at another drum’s note: ease the rods beside the bed, up to one turn", Has("bed") & Way("bed_rods", "eased")),
            Point("Dead or slow: the snare-side head and the bed rods first, then the wires", Found("wires-slow")),
            Point("Buzz at another note: move the drum’s pitch before the wires", Found("wires-buzz")),
        ),
        does=("wires-test", "target"),
        tools=("stick",),
        cites=("§8", "P18"),
        looks_at=(*_AT, Where.ROD),
        needs=Needs(up=FROM_ABOVE, lever=Lever.ON, wires=(WiresAre.ON,)),
        leaves=Leaves(knob_out=False),
        why="Too loose is fuzz, too tight chokes.",
    )  # fmt: skip


def wires_back(drum: DrumFacts, before_fine: tuple[Step, ...] = (), new: bool = False) -> tuple[Step, ...]:
    """The same wires on again, where this drum has any: the strainer end never came off, so only the butt end is drawn and clamped. Or new ones."""
    if not (drum.has_wires or new):
        return ()
    return knob_back(), strainer_side(), butt_side(), *level(), *on_off(), *before_fine, fine()
