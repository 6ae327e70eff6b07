"""Snare wires: off, on, level, tried, fine-tuned (trade §8, N8). Common practice, no published source."""

from __future__ import annotations

from drumwork.findings import Where
from drumwork.work.asks import Option, Question
from drumwork.work.conditions import ALWAYS, Any_, Chose, Condition, Found, Has, Way
from drumwork.work.hand import Leaves, Lever, Needs, Up, WiresAre
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import Step
from drumwork.work.words import Point

__all__ = ["butt_side", "fine", "knob_back", "level", "on_off", "wires_back"]

_AT = (Where.WIRES, Where.STRAINER)
_SCREWDRIVER = ("small screwdriver",)


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


def level() -> Step:
    return Step(
        "level",
        "Level",
        Tick(),
        "Look straight along the bed from both sides: the wires hang level, neither side lower.",
        None,
        (
            Point("One side hangs: snare side up, lever on, unclamp that end, draw the low side up, clamp again"),
            Point("Off centre or not level: set again", Found("wires-off-centre") | Found("wires-not-level")),
        ),
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
        why="A side that hangs buzzes.",
    )


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
        "Knob near its loosest. Tap softly with the lever on, then with the lever off. Which of the four is it?",
        None,
        (
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
        needs=Needs(up=(Up.BATTER,), wires=(WiresAre.ON,)),
        leaves=Leaves(lever=Lever.ON),
        why="Tried off first, a bad clamp shows before the knob is set.",
    )  # fmt: skip


def _was(number: int, *values: str) -> Condition:
    question = f"on-off-{number}" if number > 1 else "on-off"
    return Any_(tuple(Chose(question, value) for value in values))


def _wrong(number: int) -> Condition:
    return _was(number, STAYS, DEAD, BACKWARDS)


def _put_right(number: int, what: str, title: str, say: str) -> Step:
    """What follows from the answer before."""
    return Step(
        f"{what}-{number}", title, Tick(), say, None,
        (Point("Snare side up for it, batter up again before it is tried"), Point("Both ends the same distance from the edge still; strands centred")),
        ("strands",),
        when=_was(number, what),
        why="Set right now, it is not the knob that is blamed later.",
        does=("wires-fit",),
        tools=_SCREWDRIVER,
        cites=("§8", "N8"),
        looks_at=_AT,
    )  # fmt: skip


def on_off() -> tuple[Step, ...]:
    """Tried, put right by what was found, and tried again."""
    steps = [_try(1)]
    for number in range(1, TRIES):
        steps += [
            _put_right(
                number, STAYS, "Wires off the head",
                "Turn the knob further out. If it is out already, turn the drum over, lever on, loosen the butt clamp, let the wires go a little, and clamp them again.",
            ),
            _put_right(
                number, DEAD, "Wires nearer the head",
                "Turn the drum over, lever on. Loosen the butt clamp, draw the wires firmer, and clamp them again.",
            ),
            _put_right(
                number, BACKWARDS, "Clamp with the lever on",
                "They were clamped with the lever off. Turn the drum over, lever on, loosen the butt clamp, draw the wires straight, and clamp them again.",
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
        needs=Needs(up=(Up.BATTER,), lever=Lever.ON, wires=(WiresAre.ON,)),
        leaves=Leaves(knob_out=False),
        why="Too loose is fuzz, too tight chokes.",
    )  # fmt: skip


def wires_back() -> tuple[Step, ...]:
    """The same wires on again: the strainer side never came off, so only the butt end is drawn and clamped."""
    return knob_back(), butt_side(), level(), *on_off(), fine()
